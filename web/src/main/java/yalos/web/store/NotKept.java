package yalos.web.store;

/** A change that could not be put on the disk: it is full, read-only or gone. */
public final class NotKept extends RuntimeException {
    public NotKept(String sentence) {
        super(sentence);
    }

    NotKept(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}

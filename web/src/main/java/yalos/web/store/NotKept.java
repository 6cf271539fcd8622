package yalos.web.store;

/** A change that could not be put on the disk: it is full, read-only or gone. */
public final class NotKept extends RuntimeException {
    NotKept(Throwable cause) {
        super("The disk does not take it: " + cause.getMessage(), cause);
    }
}

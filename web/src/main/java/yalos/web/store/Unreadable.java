package yalos.web.store;

/** Something that was stored cannot be read any more, or was written by a newer program. What else is stored is not touched by it. */
public final class Unreadable extends RuntimeException {
    public Unreadable(String sentence, Throwable cause) {
        super(sentence, cause);
    }

    public Unreadable(String sentence) {
        super(sentence);
    }
}

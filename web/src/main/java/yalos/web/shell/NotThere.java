package yalos.web.shell;

/** What was asked for does not exist or is gone. */
public final class NotThere extends RuntimeException {
    public NotThere(String sentence) {
        super(sentence);
    }
}

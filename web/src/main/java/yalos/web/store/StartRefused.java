package yalos.web.store;

/** A start that must not go on; the message is all that is said of it. */
public final class StartRefused extends RuntimeException {
    public StartRefused(String sentence) {
        super(sentence);
    }
}

package yalos.web.work;

/** Work that was not taken: the machine has all it can do, or one client asked for too much at once. */
public final class Busy extends RuntimeException {
    private final boolean oneClient;

    public Busy(String sentence, boolean oneClient) {
        super(sentence);
        this.oneClient = oneClient;
    }

    /** How HTTP calls it: too many requests of one client, or a service that has too much to do. */
    public static int status(RuntimeException fault) {
        return fault instanceof Busy busy && busy.oneClient() ? 429 : 503;
    }

    /** Whether it is this client that has too much waiting, and others would be served. */
    public boolean oneClient() {
        return oneClient;
    }
}

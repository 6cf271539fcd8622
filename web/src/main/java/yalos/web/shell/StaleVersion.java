package yalos.web.shell;

/** A change was made for a state of the block that is no longer the present one: another tab was quicker. */
public final class StaleVersion extends RuntimeException {
    private final String present;
    private final String refused;

    /**
     * @param present the last change that was made, in words
     * @param refused what was not applied, in words
     */
    public StaleVersion(String present, String refused) {
        super("made for an older state");
        this.present = present;
        this.refused = refused;
    }

    /** The last change that was made, in words. */
    public String present() {
        return present;
    }

    /** What was not applied, in words. */
    public String refused() {
        return refused;
    }
}

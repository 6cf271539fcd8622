package yalos.web.block;

/** A change was made for a state of the block that is no longer the present one: another tab was quicker. */
public final class StaleVersion extends RuntimeException {
    private final OpenBlock present;
    private final String refused;

    StaleVersion(OpenBlock present, String refused) {
        super("made for an older state");
        this.present = present;
        this.refused = refused;
    }

    public OpenBlock present() {
        return present;
    }

    /** What was not applied, in words. */
    public String refused() {
        return refused;
    }
}

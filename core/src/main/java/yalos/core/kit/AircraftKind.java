package yalos.core.kit;

/** How an aircraft stays up, which decides how it turns. */
public enum AircraftKind {
    /** Brakes at the end of a strip, moves over, speeds up again; can stand still. */
    MULTIROTOR("multirotor", false),
    /** Keeps its speed and flies arcs. */
    FIXED_WING("fixed wing", true),
    /** Takes off and lands upright, maps like a fixed wing. */
    VERTICAL_TAKE_OFF_WING("vertical take-off wing", true);

    private final String words;
    private final boolean wing;

    AircraftKind(String words, boolean wing) {
        this.words = words;
        this.wing = wing;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** Whether it must keep flying: it turns in arcs and cannot stop at a station. */
    public boolean wing() {
        return wing;
    }
}

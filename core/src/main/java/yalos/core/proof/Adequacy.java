package yalos.core.proof;

/** Whether a cell is given what the brief asks for, and if not, what it lacks first. */
public enum Adequacy {
    ENOUGH("enough"),
    TOO_FEW("too few photos"),
    HIDDEN("hidden by ground between"),
    TOO_COARSE("GSD too coarse"),
    INACCURATE("height not accurate enough"),
    OFF("position not accurate enough"),
    LOW_OVERLAP("pinned overlap lost"),
    UNKNOWN("ground unknown"),
    OUTSIDE("outside the block");

    private final String words;

    Adequacy(String words) {
        this.words = words;
    }

    /** Whether anything can be said about the cell. */
    public boolean known() {
        return this != UNKNOWN && this != OUTSIDE;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }
}

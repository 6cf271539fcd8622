package yalos.core.proof;

/** Whether a place of a face is given what is asked, and if not, what it lacks first. */
public enum FaceAdequacy {
    ENOUGH("enough"),
    TOO_FEW("too few photos"),
    HIDDEN("hidden by what stands before it"),
    TOO_OBLIQUE("seen too obliquely"),
    TOO_COARSE("GSD too coarse"),
    INACCURATE("not accurate enough"),
    /** In the ground, beyond the plan, or covered by another part. */
    NONE("not to be seen");

    private final String words;

    FaceAdequacy(String words) {
        this.words = words;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** Whether the place is there to be seen at all. */
    public boolean asked() {
        return this != NONE;
    }
}

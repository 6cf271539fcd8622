package yalos.core.pattern;

/** Why strips lie in their direction: the schools of practice, so that a repeat can ask the same again. */
public enum DirectionBy {
    TIME("least time"),
    LONGEST("longest strips"),
    SHORTEST("shortest strips"),
    CONTOUR("along the contour"),
    INTO_WIND("into and away from the wind"),
    ACROSS_WIND("across the wind"),
    FIXED("fixed by you");

    private final String words;

    DirectionBy(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}

package yalos.core.take;

/** What a photo of the take is. */
public enum Role {
    PLANNED("planned"),
    EXTRA("extra"),
    TEST("test shot"),
    PANEL("panel"),
    COPY("copy of another"),
    ELSEWHERE("from elsewhere"),
    OTHER_CAMERA("another camera's"),
    UNKNOWN("of no known place"),
    NO_PICTURE("no picture"),
    ASIDE("set aside");

    private final String words;

    Role(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether it was taken on the flight over the block and shows it. */
    public boolean ofFlight() {
        return this == PLANNED || this == EXTRA;
    }
}

package yalos.core.brief;

/** Which quality ranks first when not all can be had. */
public enum Priority {
    DETAIL("detail", "keep the GSD, pay with time"),
    SPEED("speed", "go as coarse as the need allows"),
    POSITION("absolute position", "keep control and check points, pay with field time"),
    REPEATABILITY("repeatability", "keep lines, height, camera and hour the same");

    private final String words;
    private final String meaning;

    Priority(String words, String meaning) {
        this.words = words;
        this.meaning = meaning;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** What it means for the plan, in a sentence. */
    public String meaning() {
        return meaning;
    }
}

package yalos.core.height;

/** What the flying height keeps constant. */
public enum HeightReference {
    FOLLOW(
            "above ground, followed",
            "The path rises and sinks with the highest ground beneath it, within the climb limits: GSD and overlap hold nearly everywhere."),
    STEPPED(
            "a height for each strip",
            "Each strip is level, at its own height over the ground beneath it: for aircraft that cannot follow. Overlap changes along a strip that crosses a slope."),
    GEOID(
            "level, above the geoid",
            "One height above mean sea level for the whole block, measured from the design plane. Overlap is least over the highest ground, GSD coarsest over the lowest."),
    TAKE_OFF(
            "level, above take-off",
            "One height above the take-off point for the whole block, whatever the ground does. On a hill the ground comes nearer: overlap shrinks, and so does clearance.");

    private final String words;
    private final String meaning;

    HeightReference(String words, String meaning) {
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

package yalos.core.brief;

import yalos.core.pins.Overlaps;

/** What the ground looks like to the matching of photos. Overlaps are the least advised, common practice. */
public enum Surface {
    GENERAL("general", new Overlaps(0, 0), "enough texture for matching"),
    FLAT_FIELD("flat field", Overlaps.USUAL, "a field looks alike everywhere"),
    TALL_CROP("tall crop", Overlaps.DENSE, "plants move and hide the ground between rows"),
    FOREST("forest", Overlaps.DENSEST, "crowns look different from every side"),
    SAND_SNOW_WATER(
            "sand, snow or water", Overlaps.DENSEST, "little texture to match; still water cannot be matched at all"),
    BUILDINGS("buildings", Overlaps.DENSEST, "walls and roofs hide each other"),
    LINEAR("road, railway or other line", Overlaps.LINEAR, "few neighbours to either side hold the strip");

    private final String words;
    private final Overlaps least;
    private final String why;

    Surface(String words, Overlaps least, String why) {
        this.words = words;
        this.least = least;
        this.why = why;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** Least forward overlap advised, 0..1; 0 where the surface asks for nothing special. */
    public double forward() {
        return least.forward();
    }

    /** Least side overlap advised, 0..1. */
    public double side() {
        return least.side();
    }

    /** Share of the tie points of well-textured ground that matching finds on it (common practice, as overlaps are; no measured figure). */
    public double ties() {
        return switch (this) {
            case GENERAL, BUILDINGS, LINEAR -> 1;
            case FLAT_FIELD -> 0.7;
            case TALL_CROP -> 0.6;
            case FOREST -> 0.5;
            case SAND_SNOW_WATER -> 0.4;
        };
    }

    /** Why it asks for more overlap. */
    public String why() {
        return why;
    }
}

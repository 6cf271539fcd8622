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

    /** Why it asks for more overlap. */
    public String why() {
        return why;
    }
}

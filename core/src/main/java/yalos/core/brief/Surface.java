package yalos.core.brief;

/** What the ground looks like to the matching of photos. Overlaps are the least advised, common practice. */
public enum Surface {
    GENERAL("general", 0, 0, "enough texture for matching"),
    FLAT_FIELD("flat field", 0.80, 0.70, "a field looks alike everywhere"),
    TALL_CROP("tall crop", 0.80, 0.80, "plants move and hide the ground between rows"),
    FOREST("forest", 0.85, 0.80, "crowns look different from every side"),
    SAND_SNOW_WATER("sand, snow or water", 0.85, 0.80, "little texture to match; still water cannot be matched at all"),
    BUILDINGS("buildings", 0.85, 0.80, "walls and roofs hide each other"),
    LINEAR("road, railway or other line", 0.85, 0.70, "few neighbours to either side hold the strip");

    private final String words;
    private final double forward;
    private final double side;
    private final String why;

    Surface(String words, double forward, double side, String why) {
        this.words = words;
        this.forward = forward;
        this.side = side;
        this.why = why;
    }

    public String words() {
        return words;
    }

    /** Least forward overlap advised, 0..1; 0 where the surface asks for nothing special. */
    public double forward() {
        return forward;
    }

    /** Least side overlap advised, 0..1. */
    public double side() {
        return side;
    }

    public String why() {
        return why;
    }
}

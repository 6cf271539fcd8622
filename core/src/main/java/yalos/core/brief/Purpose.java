package yalos.core.brief;

/**
 * What a job is for. Figures and words are common practice; they are where advice starts, not where it ends.
 */
public enum Purpose {
    ORTHOPHOTO(
            "orthophoto",
            2,
            0.75,
            0.70,
            "single grid",
            "any camera with a mechanical or global shutter",
            "sun above 30°, short shadows"),
    SURFACE_MODEL(
            "surface or terrain model",
            2.5,
            0.80,
            0.75,
            "single grid and a crossing or oblique strip, which steadies heights",
            "mechanical shutter, stable lens",
            "even light; bare ground needs filtering, and grass hides it"),
    TOPOGRAPHIC_PLAN(
            "topographic plan",
            1.5,
            0.80,
            0.75,
            "single grid and a crossing or oblique strip",
            "20 megapixels or more, mechanical shutter, stable lens",
            "sun above 30°; measure grass and cover from the ground besides"),
    CORRIDOR(
            "corridor, such as a road or railway",
            1.5,
            0.85,
            0.70,
            "two strips at least along the line",
            "20 megapixels or more, mechanical shutter",
            "sun above 30°"),
    STRUCTURE(
            "structure",
            0.5,
            0.90,
            0.80,
            "circles or faces at a stand-off, camera tilted",
            "a lens that sees the detail from the stand-off",
            "overcast, no hard shadows"),
    UNDER_DECK(
            "under a deck",
            0.3,
            0.90,
            0.80,
            "faces below the deck, camera looking up",
            "a camera that tilts upwards, light of its own",
            "independent of the sun; positioning by satellite may fail there"),
    CROP_INDEX(
            "crop index",
            5,
            0.80,
            0.75,
            "single grid",
            "multispectral camera with a reflectance panel",
            "even sky, all clear or all overcast, round solar noon"),
    STAND_COUNT(
            "stand count",
            0.6,
            0.75,
            0.70,
            "single grid; sample plots may do",
            "many pixels, short shutter",
            "short shadows, little wind"),
    LIDAR(
            "lidar topography",
            5,
            0.30,
            0.30,
            "single grid, strips by the scanner's swath",
            "lidar scanner; a camera riding along must not limit the speed",
            "light does not matter, rain and fog do"),
    MONITORING(
            "repeat monitoring",
            2,
            0.80,
            0.75,
            "the same lines, height and direction each time",
            "the same camera each time",
            "the same time of day and sun each time"),
    IMAGERY("plain imagery", 4, 0.60, 0.40, "single grid", "any camera", "as it pleases the eye");

    private final String words;
    private final double gsdCm;
    private final double forward;
    private final double side;
    private final String pattern;
    private final String sensor;
    private final String light;

    Purpose(String words, double gsdCm, double forward, double side, String pattern, String sensor, String light) {
        this.words = words;
        this.gsdCm = gsdCm;
        this.forward = forward;
        this.side = side;
        this.pattern = pattern;
        this.sensor = sensor;
        this.light = light;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** Its name within a sentence, behind "for": an orthophoto, a structure, work under a deck. */
    public String named() {
        return switch (this) {
            case ORTHOPHOTO -> "an orthophoto";
            case UNDER_DECK -> "work under a deck";
            case CORRIDOR, STRUCTURE, SURFACE_MODEL, TOPOGRAPHIC_PLAN, CROP_INDEX, STAND_COUNT -> "a " + words;
            case LIDAR, MONITORING, IMAGERY -> words;
        };
    }

    /** Usual GSD in centimetres. */
    public double gsdCm() {
        return gsdCm;
    }

    /** Usual forward overlap, 0..1. */
    public double forward() {
        return forward;
    }

    /** Usual side overlap, 0..1. */
    public double side() {
        return side;
    }

    /** The pattern practice flies for it, in words. */
    public String pattern() {
        return pattern;
    }

    /** The class of sensor it asks for. */
    public String sensor() {
        return sensor;
    }

    /** The light it asks for. */
    public String light() {
        return light;
    }

    /** Whether positions are measured in the result, so that control and check points matter. */
    public boolean measured() {
        return this != IMAGERY && this != STAND_COUNT;
    }
}

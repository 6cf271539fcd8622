package yalos.core.pins;

import yalos.core.kit.Kit;

/** What holds where nothing is pinned. All common practice for mapping; the operator changes any of them by pinning. */
public final class Defaults {
    public static final double FORWARD_OVERLAP = Overlaps.USUAL.forward();
    public static final double SIDE_OVERLAP = Overlaps.USUAL.side();
    public static final double SCANNER_SIDE_OVERLAP = Overlaps.SCANNER_SIDE;

    /** Strips end with the block. */
    public static final double MARGIN_STRIPS = 0;

    /** 1/1000 s. */
    public static final double SHUTTER_TIME_S = 0.001;
    /** Half a pixel is good, a whole one the most. */
    public static final double BLUR_PX = 0.5;
    /** Rows of a rolling shutter may be read this many pixels apart over the whole image. */
    public static final double ROLLING_PX = 2;

    /** A frequent legal ceiling, metres above ground; the operator's own law decides. */
    public static final double CEILING_M = 120;
    /** 20 °C: batteries keep their nominal endurance. */
    public static final double TEMPERATURE_K = 293.15;
    /** Photos that should see every bit of ground. */
    public static final int LEAST_PHOTOS = 5;

    private Defaults() {}

    /** Overlaps where none is pinned: over an area, or along a corridor. */
    public static Overlaps usual(boolean corridor) {
        return corridor ? Overlaps.LINEAR : Overlaps.USUAL;
    }

    /** Side overlap where none is pinned. */
    public static double sideOverlap(Kit kit) {
        return kit.payload().scannerLeads() ? SCANNER_SIDE_OVERLAP : SIDE_OVERLAP;
    }
}

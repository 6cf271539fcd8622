package yalos.core.kit;

/**
 * How the camera's positions are known. Accuracies are one standard deviation of a position in metres, typical of the mode
 * (common practice).
 */
public enum Positioning {
    SINGLE("satellites alone", 1.5, 3),
    RTK_NETWORK("RTK by a network", 0.02, 0.04),
    RTK_BASE("RTK by a base on a known point", 0.015, 0.03),
    PPK("PPK from logged data", 0.015, 0.03),
    CONTROL("satellites alone, with control points", 0.02, 0.03);

    private final String words;
    private final double horizontalM;
    private final double verticalM;

    Positioning(String words, double horizontalM, double verticalM) {
        this.words = words;
        this.horizontalM = horizontalM;
        this.verticalM = verticalM;
    }

    /** What it is called on the page. */
    public String words() {
        return words;
    }

    /** Whether the aircraft needs a correction link in flight. */
    public boolean link() {
        return this == RTK_NETWORK || this == RTK_BASE;
    }

    /** Accuracy of a position along each axis of the plane, one standard deviation in metres (common practice). */
    public double horizontalM() {
        return horizontalM;
    }

    /** Accuracy of a height, one standard deviation in metres (common practice). */
    public double verticalM() {
        return verticalM;
    }
}

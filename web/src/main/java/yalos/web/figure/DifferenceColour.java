package yalos.web.figure;

/** Colours of a difference: grey for none, dark blue below, light sand above; told apart by their lightness alone. */
public final class DifferenceColour {
    private static final int[] LOW = {0x1b, 0x3f, 0x6b};
    private static final int[] MIDDLE = {0x8d, 0x8a, 0x82};
    private static final int[] HIGH = {0xf4, 0xe3, 0x8a};

    private DifferenceColour() {}

    /**
     * @param share -1 for the lowest, 0 for none, 1 for the highest
     * @return alpha, red, green, blue
     */
    public static int of(double share) {
        int[] to = share < 0 ? LOW : HIGH;
        int argb = 0xff;
        for (int i = 0; i < 3; i++) {
            argb = argb << 8 | (int) Math.round(MIDDLE[i] + Math.abs(share) * (to[i] - MIDDLE[i]));
        }
        return argb;
    }
}

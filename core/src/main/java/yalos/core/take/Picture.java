package yalos.core.take;

/**
 * How good a picture is, measured on its pixels; what is too little or too much is judged among the photos of the same ground ({@link PictureJudge}).
 *
 * @param mean level of the whole, 0..255
 * @param black share of pixels at 0
 * @param white share of pixels at 255
 * @param deviation of all levels: contrast, 0 for a picture of one grey
 * @param detail variance of the Laplacian: how much of the finest detail there is
 * @param likeness how alike pixels are that lie 1, 2, … apart along the directions of {@link #DIRECTIONS}: how fast detail changes which way
 * @param panel whether flat, sharply parted fields of different greys lie in its middle
 */
public record Picture(
        double mean, double black, double white, double deviation, double detail, double[][] likeness, boolean panel) {
    /** Steps in columns and rows: along the rows, down to the right, down the columns, up to the right. */
    static final int[][] DIRECTIONS = {{1, 0}, {1, 1}, {0, 1}, {1, -1}};

    /** Steps looked at. */
    static final int LAGS = 24;

    /** Blocks of the middle, in pixels, that are flat or are not. */
    private static final int BLOCK = 8;

    private static final double FLAT = 2.2;
    private static final int FIELD_LEVELS = 24;

    /**
     * @param whole the picture, as coarse as one likes
     * @param fine a part of it, or all, pixel by pixel
     */
    static Picture of(Luminance whole, Luminance fine) {
        double[][] likeness = new double[DIRECTIONS.length][LAGS];
        for (int d = 0; d < DIRECTIONS.length; d++) {
            for (int lag = 1; lag <= LAGS; lag++) {
                likeness[d][lag - 1] = fine.likeness(DIRECTIONS[d][0] * lag, DIRECTIONS[d][1] * lag);
            }
        }
        return new Picture(
                whole.mean(),
                whole.share(0),
                whole.share(255),
                Math.sqrt(whole.variance()),
                fine.laplacianVariance(),
                likeness,
                panel(whole));
    }

    /** Detail for the contrast there is, so that a cloud or a haze does not count as blur. */
    public double sharpness() {
        return deviation == 0 ? 0 : detail / (deviation * deviation);
    }

    /** Flat fields of at least three greys in the middle half, most of it flat. */
    private static boolean panel(Luminance whole) {
        Luminance middle = whole.part(whole.width() / 4, whole.height() / 4, whole.width() / 2, whole.height() / 2);
        int flat = 0;
        int all = 0;
        int[] fields = new int[256 / FIELD_LEVELS + 1];
        for (int y = 0; y + BLOCK <= middle.height(); y += BLOCK) {
            for (int x = 0; x + BLOCK <= middle.width(); x += BLOCK) {
                Luminance block = middle.part(x, y, BLOCK, BLOCK);
                all++;
                if (block.variance() < FLAT * FLAT) {
                    flat++;
                    fields[(int) block.mean() / FIELD_LEVELS]++;
                }
            }
        }
        int greys = 0;
        for (int count : fields) {
            greys += count > all / 60 ? 1 : 0;
        }
        return all > 0 && flat > all * 0.45 && greys >= 2 && middle.variance() > 400;
    }
}

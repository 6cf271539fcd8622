package yalos.core.take;

/**
 * By how much is a picture smeared, held against a sharp one of the same ground? A smear is a filter, and what it does to how alike neighbouring pixels are is known: the likeness of the sharp picture is filtered with the
 * filter's own likeness. The smear whose answer comes nearest to what was measured is taken: a line of some length and direction, or a disc that fades like a bell.
 *
 * <p>KNOWN LIMITS: likeness is measured along four directions and interpolated between them; lengths are good to about a fifth, directions to 20°.
 *
 * @param motion whether a line explains it better than a bell
 * @param px length of the line, or standard deviation of the bell, in pixels
 * @param directionDeg of the line from the rows downwards, 0..180; NaN for a bell
 */
record Blur(boolean motion, double px, double directionDeg) {
    private static final int LONGEST = 30;
    private static final double WIDEST = 8;
    /** A line explains any blur a little better, having one figure more to turn. */
    private static final double ONE_MORE = 0.8;

    private record Tried(double error, double px, double angle) {}

    /**
     * @param sharp likeness of the sharp picture
     * @param smeared likeness of the other
     */
    static Blur of(double[][] sharp, double[][] smeared) {
        Around around = new Around(sharp);
        Tried line = new Tried(Double.POSITIVE_INFINITY, 0, 0);
        // First coarsely, then round the best.
        for (int degrees = 0; degrees < 180; degrees += 20) {
            for (int length = 2; length <= LONGEST; length += length < 8 ? 1 : 3) {
                line = better(line, around, smeared, length, degrees);
            }
        }
        Tried first = line;
        for (int degrees = -10; degrees <= 10; degrees += 10) {
            for (int length = -2; length <= 2; length++) {
                int wanted = (int) first.px() + length;
                if (wanted >= 2) {
                    line = better(line, around, smeared, wanted, (int) first.angle() + degrees);
                }
            }
        }
        Tried bell = new Tried(Double.POSITIVE_INFINITY, 0, 0);
        for (double sigma = 0.5; sigma <= WIDEST; sigma += 0.25) {
            double error = error(around, smeared, bell(sigma));
            bell = error < bell.error() ? new Tried(error, sigma, Double.NaN) : bell;
        }
        return line.error() < bell.error() * ONE_MORE
                ? new Blur(true, line.px(), (line.angle() + 180) % 180)
                : new Blur(false, bell.px(), Double.NaN);
    }

    private static Tried better(Tried best, Around around, double[][] smeared, int length, int degrees) {
        double error = error(around, smeared, line(length, Math.toRadians(degrees)));
        return error < best.error() ? new Tried(error, length, degrees) : best;
    }

    /** Offsets and weights of a filter's own likeness: x, y, weight. */
    private static double[][] line(int length, double angle) {
        double[][] kernel = new double[2 * length - 1][];
        for (int m = 1 - length; m < length; m++) {
            kernel[m + length - 1] = new double[] {m * Math.cos(angle), m * Math.sin(angle), length - Math.abs(m)};
        }
        return kernel;
    }

    private static double[][] bell(double sigma) {
        int reach = (int) Math.ceil(3 * sigma * Math.sqrt(2));
        int step = Math.max(1, reach / 6);
        int count = 2 * (reach / step) + 1;
        double[][] kernel = new double[count * count][];
        for (int i = 0; i < count; i++) {
            for (int j = 0; j < count; j++) {
                double x = (i - count / 2) * step;
                double y = (j - count / 2) * step;
                kernel[i * count + j] = new double[] {x, y, Math.exp(-(x * x + y * y) / (4 * sigma * sigma))};
            }
        }
        return kernel;
    }

    /**
     * How far the answers of a filter are from what was measured. What counts is by how much pixels differ that lie so far apart, each as a share of the usual: a picture of stronger or weaker contrast differs from
     * another by one factor, which is taken out.
     */
    private static double error(Around sharp, double[][] smeared, double[][] kernel) {
        double whole = filtered(sharp, 0, 0, kernel);
        double sum = 0;
        double squares = 0;
        int count = 0;
        for (int d = 0; d < Picture.DIRECTIONS.length; d++) {
            for (int lag = 1; lag <= Picture.LAGS; lag += lag < 8 ? 1 : 4) {
                int[] step = Picture.DIRECTIONS[d];
                double differ = 1 - filtered(sharp, step[0] * lag, step[1] * lag, kernel) / whole;
                double off = Math.log(Math.max(1e-9, differ) / Math.max(1e-9, 1 - smeared[d][lag - 1]));
                sum += off;
                squares += off * off;
                count++;
            }
        }
        return squares - sum * sum / count;
    }

    private static double filtered(Around sharp, double x, double y, double[][] kernel) {
        double sum = 0;
        for (double[] one : kernel) {
            sum += one[2] * sharp.at(x - one[0], y - one[1]);
        }
        return sum;
    }

    /** Likeness at every offset, in steps of half a pixel: turned to between the two measured directions beside it, each along its own lags. */
    private static final class Around {
        private static final int REACH = 64;
        private static final int SIDE = 4 * REACH + 1;
        private final float[] table = new float[SIDE * SIDE];

        Around(double[][] likeness) {
            for (int row = 0; row < SIDE; row++) {
                for (int column = 0; column < SIDE; column++) {
                    table[row * SIDE + column] =
                            (float) between(likeness, (column - 2 * REACH) / 2.0, (row - 2 * REACH) / 2.0);
                }
            }
        }

        double at(double x, double y) {
            int column = (int) Math.round(Math.max(-REACH, Math.min(REACH, x)) * 2) + 2 * REACH;
            int row = (int) Math.round(Math.max(-REACH, Math.min(REACH, y)) * 2) + 2 * REACH;
            return table[row * SIDE + column];
        }

        private static double between(double[][] likeness, double x, double y) {
            double far = Math.hypot(x, y);
            if (far == 0) {
                return 1;
            }
            // Directions lie 45° apart, rows to the right, then downwards; the last is up to the right.
            double turn = (Math.toDegrees(Math.atan2(y, x)) % 180 + 180) % 180 / 45;
            int first = (int) Math.floor(turn) % 4;
            double share = turn - Math.floor(turn);
            return (1 - share) * along(likeness, first, far) + share * along(likeness, (first + 1) % 4, far);
        }

        private static double along(double[][] likeness, int direction, double far) {
            int[] step = Picture.DIRECTIONS[direction];
            double lag = far / Math.hypot(step[0], step[1]);
            int low = (int) Math.floor(lag);
            if (low >= Picture.LAGS) {
                return likeness[direction][Picture.LAGS - 1];
            }
            double before = low == 0 ? 1 : likeness[direction][low - 1];
            return before + (lag - low) * (likeness[direction][low] - before);
        }
    }
}

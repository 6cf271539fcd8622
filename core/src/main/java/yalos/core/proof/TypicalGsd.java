package yalos.core.proof;

import java.util.Arrays;

/**
 * The GSD that photos give a place: the mean of them, since matching and picture maps take from all. Those that see it from much farther off are left out
 * where as many as are asked for see it from near: below a cliff the photos from its top make nothing coarser, since pictures are chosen by their scale. What
 * the main pass shows is not made coarser by passes flown besides it.
 */
final class TypicalGsd {
    /** A GSD so many times the finest of a place is that of a photo much farther off; on slopes that a path can follow hardly any is. */
    private static final double FAR = 2;

    private final double[] gsds;
    private int count;
    private boolean main;

    /** @param most photos that can see a place */
    TypicalGsd(int most) {
        gsds = new double[most];
    }

    /** Begins on a place. */
    void clear() {
        count = 0;
        main = false;
    }

    void add(double gsdM, boolean ofMainPass) {
        if (ofMainPass && !main) {
            count = 0;
            main = true;
        }
        if (ofMainPass == main) {
            gsds[count++] = gsdM;
        }
    }

    /**
     * @param enough photos that are asked for
     * @return in metres; not a number where no photo sees the place
     */
    double m(int enough) {
        double most = FAR * finest();
        double sum = 0;
        int near = 0;
        for (int i = 0; i < count; i++) {
            if (gsds[i] <= most) {
                sum += gsds[i];
                near++;
            }
        }
        return near >= Math.min(enough, count) ? sum / near : ofFinest(Math.min(enough, count));
    }

    private double finest() {
        double finest = Double.POSITIVE_INFINITY;
        for (int i = 0; i < count; i++) {
            finest = Math.min(finest, gsds[i]);
        }
        return finest;
    }

    private double ofFinest(int number) {
        if (number < count) {
            Arrays.sort(gsds, 0, count);
        }
        double sum = 0;
        for (int i = 0; i < number; i++) {
            sum += gsds[i];
        }
        return sum / number;
    }
}

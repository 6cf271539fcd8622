package yalos.core.units;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** Figures that read easily: 1, 2 or 5 times a power of ten. */
public final class RoundFigures {
    private static final double[] FACTORS = {5, 2, 1};
    private static final double LEAST = 1e-9;
    /** A figure computed as 1.9999999 is 2. */
    private static final double HAIR = 1e-6;
    /** Limits nearer to each other, in steps, make a class too narrow to see. */
    private static final double NEAR = 0.4;

    private RoundFigures() {}

    /** The largest round figure that is not above another. */
    public static double upTo(double most) {
        double held = Math.max(LEAST, most) * (1 + HAIR);
        double power = Math.pow(10, Math.floor(Math.log10(held)));
        for (double factor : FACTORS) {
            if (factor * power <= held) {
                return factor * power;
            }
        }
        return power;
    }

    /** The least round figure that is not below another. */
    public static double from(double least) {
        double held = Math.max(LEAST, least) * (1 - HAIR);
        double below = upTo(held);
        if (below >= held) {
            return below;
        }
        double power = Math.pow(10, Math.floor(Math.log10(held)));
        double factor = Math.round(below / power);
        return power * (factor == 1 ? 2 : factor == 2 ? 5 : 10);
    }

    /**
     * Limits between classes of figures, evenly spaced by a round figure.
     *
     * @param classes about how many, at most one more
     * @param leastStep no finer than this
     * @return ascending, one at least
     */
    public static List<Double> limits(double least, double most, int classes, double leastStep) {
        double step = from(Math.max((most - least) / classes, leastStep));
        List<Double> limits = new ArrayList<>();
        double first = Math.floor(least / step + 1) * step;
        for (double limit = first; limit < most && limits.size() < classes; limit += step) {
            limits.add(Math.round(limit / step) * step);
        }
        if (limits.isEmpty()) {
            limits.add(first);
        }
        return limits;
    }

    /**
     * The same with one limit more that counts, such as what is asked; those so near that nobody could tell them apart are left out.
     *
     * @param counts infinite for none
     */
    public static List<Double> limits(double least, double most, int classes, double leastStep, double counts) {
        List<Double> limits = limits(least, most, classes, leastStep);
        if (Double.isFinite(counts)) {
            double step = limits.size() > 1 ? limits.get(1) - limits.get(0) : counts;
            limits.removeIf(limit -> Math.abs(limit - counts) < NEAR * step);
            limits.add(counts);
            Collections.sort(limits);
        }
        return limits;
    }
}

package yalos.core.energy;

import java.util.function.DoubleUnaryOperator;

/** Least places and roots of smooth functions of one figure. */
final class Minimum {
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;
    private static final int STEPS = 200;
    private static final int PROBES = 400;

    private Minimum() {}

    /** Where a function is least between two places: the best of many probes, then golden section round it. */
    static double at(DoubleUnaryOperator function, double from, double to) {
        double step = (to - from) / PROBES;
        double best = from;
        for (int i = 1; i <= PROBES; i++) {
            double here = from + i * step;
            best = function.applyAsDouble(here) < function.applyAsDouble(best) ? here : best;
        }
        double low = Math.max(from, best - step);
        double high = Math.min(to, best + step);
        for (int i = 0; i < STEPS && high - low > 1e-13 * high; i++) {
            double left = high - GOLDEN * (high - low);
            double right = low + GOLDEN * (high - low);
            if (function.applyAsDouble(left) < function.applyAsDouble(right)) {
                high = right;
            } else {
                low = left;
            }
        }
        return (low + high) / 2;
    }

    /** A root between two places at which the function has different signs, by halving; not a number where it has not. */
    static double root(DoubleUnaryOperator function, double from, double to) {
        double low = from;
        double high = to;
        double sign = Math.signum(function.applyAsDouble(low));
        if (sign * function.applyAsDouble(high) > 0) {
            return Double.NaN;
        }
        for (int i = 0; i < STEPS; i++) {
            double middle = (low + high) / 2;
            if (middle == low || middle == high) {
                break;
            }
            if (sign * function.applyAsDouble(middle) > 0) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }
}

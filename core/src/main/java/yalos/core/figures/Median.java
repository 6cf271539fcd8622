package yalos.core.figures;

import java.util.Arrays;
import java.util.Collection;

/** Middle values, which a few wild figures do not move. */
public final class Median {
    /** Spread of a normal distribution over its median absolute deviation. */
    private static final double NORMAL = 1.4826;

    private Median() {}

    /** The middle of figures; of an even number the mean of the middle two; NaN of none. */
    public static double of(double... figures) {
        return quantile(figures, 0.5);
    }

    /** The same of a collection. */
    public static double of(Collection<Double> figures) {
        return of(figures.stream().mapToDouble(Double::doubleValue).toArray());
    }

    /** 1.4826 times the median distance from the median: the standard deviation of what is normal among them. NaN of none. */
    public static double spread(double... figures) {
        double middle = of(figures);
        return NORMAL
                * of(Arrays.stream(figures)
                        .map(figure -> Math.abs(figure - middle))
                        .toArray());
    }

    /**
     * The figure below which a share of them lies, linear between neighbours; NaN of none.
     *
     * @param share 0..1
     */
    public static double quantile(double[] figures, double share) {
        if (figures.length == 0) {
            return Double.NaN;
        }
        double[] sorted = figures.clone();
        Arrays.sort(sorted);
        double at = share * (sorted.length - 1);
        int low = (int) Math.floor(at);
        int high = Math.min(sorted.length - 1, low + 1);
        return sorted[low] + (at - low) * (sorted[high] - sorted[low]);
    }
}

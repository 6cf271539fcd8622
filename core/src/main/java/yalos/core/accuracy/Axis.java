package yalos.core.accuracy;

import java.util.Arrays;
import org.apache.commons.statistics.distribution.ChiSquaredDistribution;
import org.apache.commons.statistics.distribution.TDistribution;

/**
 * What residuals along one axis say.
 *
 * @param count of points
 * @param mean what all share; NaN of none
 * @param deviation round the mean, with n - 1; NaN of fewer than two
 * @param rmse root of the mean square
 * @param worst of the greatest absolute value, with its sign
 * @param outliers whether each lies beyond three RMSE
 */
public record Axis(int count, double mean, double deviation, double rmse, double worst, boolean[] outliers) {
    private static final double OUTLIER = 3;
    private static final double CONFIDENCE = 0.95;

    public static Axis of(double[] residuals) {
        int count = residuals.length;
        double mean = Arrays.stream(residuals).average().orElse(Double.NaN);
        double squares = Arrays.stream(residuals).map(d -> d * d).sum();
        double off = Arrays.stream(residuals).map(d -> (d - mean) * (d - mean)).sum();
        double rmse = count == 0 ? Double.NaN : Math.sqrt(squares / count);
        double worst = Double.NaN;
        boolean[] outliers = new boolean[count];
        for (int i = 0; i < count; i++) {
            worst = Math.abs(residuals[i]) <= Math.abs(worst) ? worst : residuals[i];
            outliers[i] = Math.abs(residuals[i]) > OUTLIER * rmse;
        }
        return new Axis(count, mean, count < 2 ? Double.NaN : Math.sqrt(off / (count - 1)), rmse, worst, outliers);
    }

    /** A range in which the truth lies with 95 %. */
    public record Range(double from, double to) {}

    /** Where the true RMSE lies, were the points endless: by the chi-square distribution of the sum of squares. */
    public Range rmseRange() {
        ChiSquaredDistribution squares = ChiSquaredDistribution.of(count);
        double tail = (1 - CONFIDENCE) / 2;
        return new Range(
                rmse * Math.sqrt(count / squares.inverseCumulativeProbability(1 - tail)),
                rmse * Math.sqrt(count / squares.inverseCumulativeProbability(tail)));
    }

    /** Where the true mean lies, by Student's distribution. */
    public Range meanRange() {
        double t = TDistribution.of(Math.max(1, count - 1)).inverseCumulativeProbability(1 - (1 - CONFIDENCE) / 2);
        double reach = t * deviation / Math.sqrt(count);
        return new Range(mean - reach, mean + reach);
    }

    /** Whether the mean is more than chance: nought lies outside its range. */
    public boolean shifted() {
        return count >= 3 && (meanRange().from() > 0 || meanRange().to() < 0);
    }
}

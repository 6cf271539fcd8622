package yalos.core.accuracy;

import org.apache.commons.statistics.distribution.ChiSquaredDistribution;

/**
 * Do residuals fit what was foretold? The sum of their squares, each over its foretold variance, has a chi-square distribution if they do.
 *
 * @param count of residuals
 * @param ratio mean square of residuals over foretold sigmas; 1 is what was foretold
 * @param chance that a fitting set is at least as far off, to the side it is off to; 0..0.5
 */
public record Foreseen(int count, double ratio, double chance) {
    private static final double RARE = 0.025;

    /** What the test says. */
    public enum Answer {
        FITS,
        WORSE,
        TOO_GOOD
    }

    /**
     * @param residuals in metres
     * @param sigmas foretold of each, the survey's own error with it; all above nought
     */
    public static Foreseen of(double[] residuals, double[] sigmas) {
        double sum = 0;
        for (int i = 0; i < residuals.length; i++) {
            double share = residuals[i] / sigmas[i];
            sum += share * share;
        }
        ChiSquaredDistribution fitting = ChiSquaredDistribution.of(residuals.length);
        double below = fitting.cumulativeProbability(sum);
        return new Foreseen(
                residuals.length, Math.sqrt(sum / residuals.length), Math.min(below, fitting.survivalProbability(sum)));
    }

    public Answer answer() {
        if (chance >= RARE) {
            return Answer.FITS;
        }
        return ratio > 1 ? Answer.WORSE : Answer.TOO_GOOD;
    }
}

package yalos.core.accuracy;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

/**
 * What residuals amount to by the published standards: NSSDA (FGDC-STD-007.3-1998) at 95 %, and the positional accuracy standards of ASPRS, Edition 2 (2023), which want the survey's own error in quadrature and at least
 * thirty check points for a stated class (both from memory).
 *
 * @param east of all points with a position
 * @param up of all points with a height
 * @param surveyLevelM RMSE of the ground measurement itself, level; 0 where not known
 * @param surveyUpM the same of heights
 */
public record Statement(
        List<Residual> residuals, Axis east, Axis north, Axis up, double surveyLevelM, double surveyUpM) {
    /** Fewer check points state no class. */
    public static final int LEAST_FOR_CLASS = 30;

    private static final double CIRCULAR = 1.7308;
    private static final double ELLIPTIC = 2.4477;
    private static final double LINEAR = 1.9600;
    private static final double ROUND_ENOUGH = 0.6;
    private static final double EQUAL = 1e-9;
    private static final double FOOT_M = 0.3048;

    public static Statement of(List<Residual> residuals, double surveyLevelM, double surveyUpM) {
        double[] east = residuals.stream()
                .filter(one -> one.eastM().isPresent())
                .mapToDouble(one -> one.eastM().getAsDouble())
                .toArray();
        double[] north = residuals.stream()
                .filter(one -> one.northM().isPresent())
                .mapToDouble(one -> one.northM().getAsDouble())
                .toArray();
        double[] up = residuals.stream()
                .filter(one -> one.upM().isPresent())
                .mapToDouble(one -> one.upM().getAsDouble())
                .toArray();
        return new Statement(
                List.copyOf(residuals), Axis.of(east), Axis.of(north), Axis.of(up), surveyLevelM, surveyUpM);
    }

    /** RMSE of positions: of both axes together. */
    public double rmseLevelM() {
        return Math.hypot(east.rmse(), north.rmse());
    }

    /** RMSE in space. */
    public double rmseSpaceM() {
        return Math.hypot(rmseLevelM(), up.rmse());
    }

    /** RMSE of positions with the survey's own error. */
    public double wholeLevelM() {
        return Math.hypot(rmseLevelM(), surveyLevelM);
    }

    /** RMSE of heights with the survey's own error. */
    public double wholeUpM() {
        return Math.hypot(up.rmse(), surveyUpM);
    }

    public double wholeSpaceM() {
        return Math.hypot(wholeLevelM(), wholeUpM());
    }

    /** NSSDA at 95 % of positions; empty where the axes differ by too much for it to be defined. */
    public OptionalDouble level95M() {
        double least = Math.min(east.rmse(), north.rmse());
        double most = Math.max(east.rmse(), north.rmse());
        if (most - least <= EQUAL * most) {
            return OptionalDouble.of(CIRCULAR * rmseLevelM());
        }
        return least / most >= ROUND_ENOUGH
                ? OptionalDouble.of(ELLIPTIC * 0.5 * (least + most))
                : OptionalDouble.empty();
    }

    /** NSSDA at 95 % of heights. */
    public double up95M() {
        return LINEAR * up.rmse();
    }

    /** The finest class in whole centimetres that positions reach, the survey's error counted; in metres. */
    public double classLevelM() {
        return rounded(wholeLevelM());
    }

    /** The finest class of heights, in metres. */
    public double classUpM() {
        return rounded(wholeUpM());
    }

    private static double rounded(double rmse) {
        return Math.ceil(rmse * 100 - 1e-9) / 100;
    }

    /** Whether there are points enough to state a class. */
    public boolean enoughForClass() {
        return Math.max(east.count(), up.count()) >= LEAST_FOR_CLASS;
    }

    /** Whether every height is within a tenth of a foot, what clients often call survey grade (common practice). */
    public boolean withinTenthOfFoot() {
        return up.rmse() <= FOOT_M / 10;
    }

    /** Indices of the residuals of which some axis is an outlier. */
    public List<Integer> outliers() {
        List<Integer> found = new ArrayList<>();
        int level = 0;
        int height = 0;
        for (int i = 0; i < residuals.size(); i++) {
            boolean out = false;
            if (residuals.get(i).eastM().isPresent()) {
                out = east.outliers()[level] || north.outliers()[level];
                level++;
            }
            if (residuals.get(i).upM().isPresent()) {
                out |= up.outliers()[height];
                height++;
            }
            if (out) {
                found.add(i);
            }
        }
        return found;
    }
}

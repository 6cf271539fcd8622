package yalos.core.measured;

import java.util.List;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/**
 * Known marks against what was measured on them: residuals, and the shift they suggest. It is never applied by itself.
 *
 * @param residuals one for each mark, known less measured
 * @param eastM mean of the residuals
 * @param spreadM largest residual that is left when the mean is taken out, in three dimensions
 */
public record Benchmarks(List<Residual> residuals, double eastM, double northM, double upM, double spreadM) {
    /** One mark proves nothing: it cannot tell its own error from a shift (common practice: two at least). */
    public static final int LEAST = 2;

    public static final double AGREE_M = 0.03;

    /** A mark with what it is known to be, heights above the geoid. */
    public record Mark(String name, LonLat place, double upM) {}

    /** Known less measured, in metres. */
    public record Residual(String name, double eastM, double northM, double upM) {
        double lengthM() {
            return Math.sqrt(eastM * eastM + northM * northM + upM * upM);
        }
    }

    /** The residual of a mark that was measured with a height. */
    public static Residual residual(LocalPlane plane, Mark mark, MeasuredPoint measured) {
        PlanePoint known = plane.toPlane(mark.place());
        PlanePoint seen = plane.toPlane(measured.place());
        return new Residual(
                mark.name(),
                known.xM() - seen.xM(),
                known.yM() - seen.yM(),
                mark.upM() - measured.upM().orElse(Double.NaN));
    }

    /** Of at least one residual. */
    public static Benchmarks of(List<Residual> residuals) {
        double east = residuals.stream().mapToDouble(Residual::eastM).average().orElse(0);
        double north =
                residuals.stream().mapToDouble(Residual::northM).average().orElse(0);
        double up = residuals.stream().mapToDouble(Residual::upM).average().orElse(0);
        double spread = residuals.stream()
                .mapToDouble(
                        one -> new Residual("", one.eastM() - east, one.northM() - north, one.upM() - up).lengthM())
                .max()
                .orElse(0);
        return new Benchmarks(List.copyOf(residuals), east, north, up, spread);
    }

    /** Whether two marks or more say the same. */
    public boolean agree() {
        return residuals.size() >= LEAST && spreadM <= AGREE_M;
    }

    /** How far everything would move. */
    public double shiftM() {
        return Math.sqrt(eastM * eastM + northM * northM + upM * upM);
    }
}

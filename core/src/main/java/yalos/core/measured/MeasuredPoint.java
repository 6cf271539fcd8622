package yalos.core.measured;

import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/**
 * A point from all observations of it that are used: their mean, weighted by the square of their accuracy.
 *
 * @param place mean position
 * @param upM mean height above the geoid
 * @param count how often it was measured
 * @param apartM largest distance on the plane between two measurements
 * @param heightApartM largest difference of two heights
 */
public record MeasuredPoint(LonLat place, OptionalDouble upM, int count, double apartM, double heightApartM) {
    /** Two measurements of a point that differ by more are doubted (common practice). */
    public static final double ALIKE_M = 0.03;

    private static final double USUAL_M = 0.02;

    /**
     * @param plane in which positions are meant
     * @param used observations of one point, at least one
     */
    public static MeasuredPoint of(LocalPlane plane, List<Observation> used) {
        double weights = 0;
        double x = 0;
        double y = 0;
        double heightWeights = 0;
        double up = 0;
        double apart = 0;
        double heightApart = 0;
        for (Observation one : used) {
            PlanePoint at = plane.toPlane(one.place());
            double weight = weight(one.horizontalM());
            weights += weight;
            x += weight * at.xM();
            y += weight * at.yM();
            if (one.upM().isPresent()) {
                double heightWeight = weight(one.verticalM());
                heightWeights += heightWeight;
                up += heightWeight * one.upM().getAsDouble();
            }
            for (Observation other : used) {
                apart = Math.max(apart, at.distanceM(plane.toPlane(other.place())));
                if (one.upM().isPresent() && other.upM().isPresent()) {
                    heightApart = Math.max(
                            heightApart,
                            Math.abs(one.upM().getAsDouble() - other.upM().getAsDouble()));
                }
            }
        }
        return new MeasuredPoint(
                plane.toLonLat(x / weights, y / weights),
                heightWeights > 0 ? OptionalDouble.of(up / heightWeights) : OptionalDouble.empty(),
                used.size(),
                apart,
                heightApart);
    }

    private static double weight(OptionalDouble sigma) {
        double m = Math.max(0.003, sigma.orElse(USUAL_M));
        return 1 / (m * m);
    }

    /** Whether its measurements agree. */
    public boolean agrees() {
        return apartM <= ALIKE_M && heightApartM <= ALIKE_M;
    }
}

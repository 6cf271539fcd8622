package yalos.core.control;

import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import yalos.core.plan.BlockPlan;

/**
 * How well points span their block.
 *
 * @param hullShare area of the hull round the points over that of the hull round the block, 0..1
 * @param heightShare heights they span over those of the block's ground, 0..1; 1 over level ground
 * @param inLine whether they lie as good as in one line
 */
public record Spread(double hullShare, double heightShare, boolean inLine) {
    /** Less than so much of the block leaves its rim to be guessed; a target needs some photos, so the rim itself is never reached (common practice). */
    public static final double LEAST_HULL = 0.35;

    public static final double LEAST_HEIGHTS = 0.6;
    private static final double IN_LINE = 0.05;
    private static final double LEVEL_M = 2;

    /** Of places on the ground of a plan. */
    public static Spread of(BlockPlan plan, List<MarkedPlace> points) {
        double block = hull(plan.block().hull());
        double[] flat = new double[2 * points.size()];
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < points.size(); i++) {
            flat[2 * i] = points.get(i).xM();
            flat[2 * i + 1] = points.get(i).yM();
            if (Double.isFinite(points.get(i).upM())) {
                least = Math.min(least, points.get(i).upM());
                most = Math.max(most, points.get(i).upM());
            }
        }
        double ground = groundM(plan);
        double heights = ground < LEVEL_M ? 1 : least > most ? 0 : Math.min(1, (most - least) / ground);
        return new Spread(Math.min(1, hull(flat) / block), heights, points.size() > 2 && slim(flat));
    }

    private static double groundM(BlockPlan plan) {
        List<MarkedPlace> places = Places.over(plan);
        double least = places.stream().mapToDouble(MarkedPlace::upM).min().orElse(0);
        double most = places.stream().mapToDouble(MarkedPlace::upM).max().orElse(0);
        return most - least;
    }

    /** Area of the hull round places, as x and y in turn. */
    static double hull(double[] flat) {
        return new GeometryFactory()
                .createMultiPointFromCoords(coordinates(flat))
                .convexHull()
                .getArea();
    }

    private static boolean slim(double[] flat) {
        Coordinate[] places = coordinates(flat);
        double x0 = 0;
        double y0 = 0;
        for (Coordinate at : places) {
            x0 += at.x / places.length;
            y0 += at.y / places.length;
        }
        double xx = 0;
        double yy = 0;
        double xy = 0;
        for (Coordinate at : places) {
            xx += (at.x - x0) * (at.x - x0);
            yy += (at.y - y0) * (at.y - y0);
            xy += (at.x - x0) * (at.y - y0);
        }
        double middle = (xx + yy) / 2;
        double off = Math.hypot((xx - yy) / 2, xy);
        return middle + off > 0 && Math.sqrt(Math.max(0, middle - off) / (middle + off)) < IN_LINE;
    }

    private static Coordinate[] coordinates(double[] flat) {
        Coordinate[] all = new Coordinate[flat.length / 2];
        for (int i = 0; i < all.length; i++) {
            all[i] = new Coordinate(flat[2 * i], flat[2 * i + 1]);
        }
        return all;
    }
}

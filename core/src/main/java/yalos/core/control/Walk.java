package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.site.Detour;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;

/**
 * The crew's way from the parking place past all points: in the order that takes least time, round buildings, water and what is closed, climb counted.
 *
 * @param order of the points, by their place in the layout
 * @param lengthM of the way on the plane
 * @param climbM up along it, without what goes down again
 * @param seconds of walking
 * @param way as places one after the other
 * @param fromLaunch whether it begins at the launch point; otherwise at the first point
 */
public record Walk(
        List<Integer> order, double lengthM, double climbM, double seconds, List<PlanePoint> way, boolean fromLaunch) {
    /** Naismith's rule: an hour more for each 600 m of climb (from memory). */
    private static final double SECONDS_A_METRE_UP = 6;

    private static final double STEP_M = 15;

    /** The way past the points of a layout; from the launch point, which stands for the parking place. */
    public static Walk of(BlockPlan plan, ControlLayout layout) {
        LocalPlane plane = plan.block().plane();
        List<PlanePoint> stops = new ArrayList<>();
        Optional<LonLat> launch = plan.request().launch();
        launch.ifPresent(at -> stops.add(plane.toPlane(at)));
        layout.points().forEach(point -> stops.add(plane.toPlane(point.place())));
        Assumptions assumed = layout.assumptions();
        Paths paths = new Paths(plan, layout);
        double[][] cost = new double[stops.size()][stops.size()];
        for (int i = 0; i < cost.length; i++) {
            for (int j = 0; j < cost.length; j++) {
                cost[i][j] = i == j ? 0 : paths.of(stops.get(i), stops.get(j)).seconds(assumed.walkMps());
            }
        }
        int[] order = Tour.order(cost, assumed.closedTour() && launch.isPresent());
        List<Integer> points = new ArrayList<>();
        List<PlanePoint> way = new ArrayList<>();
        double length = 0;
        double climb = 0;
        double seconds = 0;
        int legs = assumed.closedTour() && launch.isPresent() && order.length > 1 ? order.length : order.length - 1;
        for (int i = 0; i < order.length; i++) {
            if (!(launch.isPresent() && order[i] == 0)) {
                points.add(order[i] - (launch.isPresent() ? 1 : 0));
            }
        }
        for (int i = 0; i < legs; i++) {
            Path path = paths.of(stops.get(order[i]), stops.get(order[(i + 1) % order.length]));
            length += path.lengthM();
            climb += path.climbM();
            seconds += path.seconds(assumed.walkMps());
            way.addAll(
                    way.isEmpty()
                            ? path.places()
                            : path.places().subList(1, path.places().size()));
        }
        return new Walk(points, length, climb, seconds, way, launch.isPresent());
    }

    private record Path(List<PlanePoint> places, double lengthM, double climbM) {
        double seconds(double walkMps) {
            return lengthM / walkMps + climbM * SECONDS_A_METRE_UP;
        }
    }

    /** Ways between stops over the ground of a plan. */
    private static final class Paths {
        private final BlockPlan plan;
        private final Detour round;

        Paths(BlockPlan plan, ControlLayout layout) {
            this.plan = plan;
            List<Zone> closed = new ArrayList<>();
            layout.avoided().stream()
                    .filter(one -> one.kind() == Avoided.Kind.WATER || one.kind() == Avoided.Kind.CLOSED)
                    .forEach(one -> closed.add(closed(one.name(), one.outline())));
            plan.request().ground().map(GroundRequest::obstacles).orElse(List.of()).stream()
                    .filter(Obstacle::isArea)
                    .forEach(one -> closed.add(closed(one.name(), Outline.ofRing(one.places()))));
            round = Detour.of(plan.block().plane(), closed, 0);
        }

        private static Zone closed(String name, Outline outline) {
            return new Zone(name, Zone.Kind.KEEP_OUT, outline, 0, Double.POSITIVE_INFINITY);
        }

        Path of(PlanePoint from, PlanePoint to) {
            List<PlanePoint> places = new ArrayList<>(List.of(from));
            places.addAll(round.between(from, to));
            places.add(to);
            double length = 0;
            double climb = 0;
            for (int i = 1; i < places.size(); i++) {
                length += places.get(i - 1).distanceM(places.get(i));
                climb += climb(places.get(i - 1), places.get(i));
            }
            return new Path(places, length, climb);
        }

        private double climb(PlanePoint from, PlanePoint to) {
            if (plan.overGround().isEmpty()) {
                return 0;
            }
            int steps = Math.max(1, (int) Math.ceil(from.distanceM(to) / STEP_M));
            double climb = 0;
            double before = Double.NaN;
            for (int i = 0; i <= steps; i++) {
                double share = (double) i / steps;
                double up = plan.overGround()
                        .get()
                        .grid()
                        .at(from.xM() + share * (to.xM() - from.xM()), from.yM() + share * (to.yM() - from.yM()));
                // Unknown ground adds nothing; the page says so elsewhere.
                climb += Double.isFinite(up - before) ? Math.max(0, up - before) : 0;
                before = Double.isFinite(up) ? up : before;
            }
            return climb;
        }
    }
}

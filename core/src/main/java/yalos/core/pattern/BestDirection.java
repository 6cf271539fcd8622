package yalos.core.pattern;

import java.util.Comparator;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.Patience;
import yalos.core.flight.Pace;
import yalos.core.flight.Turn;
import yalos.core.geodesy.PlanePoint;

/**
 * In which direction do parallel lines over this block take the least time?
 *
 * <p>All directions by half degrees are flown in thought, and those of the convex hull's longest edges besides, in the wind to plan for. The time
 * is that of {@link yalos.core.flight.Timeline}, whose {@link Pace} it shares. Ties go to the smaller angle.
 */
public final class BestDirection {
    private static final int STEPS = 360;
    private static final int QUICK_STEPS = 12;
    private static final int MOST_EDGES = 64;

    private final BandSweep sweep;
    private final Task task;
    private final Pace pace;
    private final Optional<PlanePoint> launch;
    private final BandOrder order;

    private BestDirection(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        this.sweep = StripGrid.sweepOf(block, task);
        this.task = task;
        this.pace = pace;
        this.launch = launch;
        this.order = new BandOrder(task, pace);
    }

    /** A direction in radians clockwise from grid north, 0 to π, and its flight time; infinite where the wind forbids every one. */
    public record Choice(double directionRad, double flightTimeS) {}

    /** The direction of least flight time. */
    public static Choice of(PlaneBlock block, Task task, Pace pace, Optional<PlanePoint> launch) {
        BestDirection search = new BestDirection(block, task, pace, launch);
        Choice best = new Choice(0, Double.POSITIVE_INFINITY);
        for (int i = 0; i < STEPS; i++) {
            best = search.better(best, i * Math.PI / STEPS);
        }
        for (double edge : edges(block.hull())) {
            best = search.better(best, edge);
        }
        return best;
    }

    /** About the least time for lines in any direction, without ways out and home: for comparing parts of a block. */
    static double quick(PlaneBlock block, Task task, Pace pace) {
        BestDirection search = new BestDirection(block, task, pace, Optional.empty());
        Choice best = new Choice(0, Double.POSITIVE_INFINITY);
        for (int i = 0; i < QUICK_STEPS; i++) {
            best = search.better(best, i * Math.PI / QUICK_STEPS);
        }
        for (double edge : edges(block.hull())) {
            best = search.better(best, edge);
        }
        return best.flightTimeS();
    }

    /** Directions of the hull's longest edges; short ones lie near the tried half degrees, and together are a curve. */
    private static double[] edges(double[] hull) {
        record Edge(double directionRad, double lengthM) {}
        return IntStream.range(0, hull.length / 2)
                .mapToObj(i -> {
                    int from = (2 * i + hull.length - 2) % hull.length;
                    double east = hull[2 * i] - hull[from];
                    double north = hull[2 * i + 1] - hull[from + 1];
                    return new Edge((Math.atan2(east, north) + 2 * Math.PI) % Math.PI, Math.hypot(east, north));
                })
                .sorted(Comparator.comparingDouble(Edge::lengthM).reversed())
                .limit(MOST_EDGES)
                .mapToDouble(Edge::directionRad)
                .toArray();
    }

    private Choice better(Choice best, double directionRad) {
        double time = flightTimeS(directionRad);
        return time < best.flightTimeS() - 1e-9 ? new Choice(directionRad, time) : best;
    }

    /** The flight time without writing the flight down. */
    private double flightTimeS(double directionRad) {
        Patience.check();
        sweep.sweep(directionRad);
        double speed = task.speedMps();
        double time = launch.isEmpty() ? 0 : pace.climbS(task.heightM()) + pace.climbS(-task.heightM());
        Optional<PlanePoint> here = launch;
        double track = 0;
        boolean first = true;
        BandOrder.Ends ends = new BandOrder.Ends(sweep, task, directionRad);
        for (StripOrder.Step step : order.quick(sweep, directionRad, launch, launch)) {
            PlanePoint start = ends.start(step);
            double next = ends.trackRad(step);
            if (here.isPresent()) {
                time += first
                        ? pace.transitS(here.get(), start)
                        : pace.turnS(new Turn(here.get(), track, start, next), speed);
            }
            first = false;
            track = next;
            time += pace.straightS(ends.lengthM(step), track, speed);
            here = Optional.of(ends.end(step));
        }
        if (launch.isPresent() && here.isPresent()) {
            time += pace.returnS(here.get(), launch.get());
        }
        return time;
    }
}

package yalos.core.pattern;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleBinaryOperator;
import yalos.core.flight.Climb;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.site.Structure.Built;

/**
 * How near a flight comes to objects and, on its ways, to the ground.
 *
 * @param nearest to any object; empty without objects
 * @param lowest over the ground; empty where no ground is known below it
 */
public record PathClearance(Optional<Near> nearest, Optional<Low> lowest) {
    private static final double STEP_M = 0.5;
    /** Far from everything nothing is measured finely. */
    private static final double LEAP_SHARE = 0.5;

    /** Nearest to an object: how near, which, and where. */
    public record Near(double m, Built solid, Place at) {}

    /** Lowest over the ground: how high, and where. */
    public record Low(double m, Place at) {}

    /** Of all legs of a flight; over the ground but for rising and sinking over a place, where it takes off and lands. */
    public static PathClearance of(Flight flight, List<Built> solids, DoubleBinaryOperator ground) {
        Near nearest = null;
        Low lowest = null;
        for (Leg leg : flight.legs()) {
            double length =
                    leg instanceof Way way ? way.lengthM() : leg instanceof Climb climb ? Math.abs(climb.byM()) : 0;
            for (double along = 0; along <= length; ) {
                Place at = place(leg, along, length);
                double near = Double.POSITIVE_INFINITY;
                for (Built solid : solids) {
                    double m = solid.solid().distanceM(at.point(), at.upM());
                    if (nearest == null || m < nearest.m()) {
                        nearest = new Near(m, solid, at);
                    }
                    near = Math.min(near, m);
                }
                double over = at.upM() - ground.applyAsDouble(at.xM(), at.yM());
                if (leg instanceof Way
                        && (lowest == null && !Double.isNaN(over) || lowest != null && over < lowest.m())) {
                    lowest = new Low(over, at);
                }
                double step = Double.isFinite(near) ? Math.max(STEP_M, Math.min(10, near * LEAP_SHARE)) : 2;
                along = along < length ? Math.min(length, along + step) : length + 1;
            }
        }
        return new PathClearance(Optional.ofNullable(nearest), Optional.ofNullable(lowest));
    }

    private static Place place(Leg leg, double along, double length) {
        if (leg instanceof Way way) {
            return way.placeAt(along);
        }
        if (leg instanceof Climb climb && length > 0) {
            double share = along / length;
            return Place.over(climb.at(), climb.fromUpM() + climb.byM() * share);
        }
        return leg.start();
    }
}

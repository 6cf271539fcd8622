package yalos.core.pattern;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleBinaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.operation.distance.DistanceOp;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Detour;
import yalos.core.site.Prism;

/**
 * Ways through the air between places near objects: straight or round them where that is clear, otherwise up to a height that clears everything, across, and
 * down again. What lies under a deck is left to the side before it climbs.
 *
 * <p>KNOWN LIMITS: ways round objects are level shortest ones at a clearance; over and round at once is not tried.
 */
public final class AirWays {
    /** Between places at which the ground is looked at. */
    private static final double STEP_M = 1;
    /** Beyond the clearance, so that a way beside an object does not touch it. */
    private static final double SPARE_M = 0.2;
    /** So near to an object, and below its top, one flies carefully (common practice). */
    private static final double BESIDE_M = 30;

    private final List<Prism> solids;
    private final DoubleBinaryOperator ground;
    private final DoubleBinaryOperator standing;
    private final Detour zones;
    private final double clearM;
    private final Map<String, Detour> rounds = new HashMap<>();

    /**
     * @param ground height of the ground; not a number where unknown
     * @param standing height of what stands on it, above it
     * @param zones that must not be crossed
     */
    public AirWays(
            List<Prism> solids,
            DoubleBinaryOperator ground,
            DoubleBinaryOperator standing,
            Detour zones,
            double clearM) {
        this.solids = solids;
        this.ground = ground;
        this.standing = standing;
        this.zones = zones;
        this.clearM = clearM;
    }

    /**
     * The places between two in the air, without them; empty for a straight way. Neighbours that share their point of the plane lie one over the other.
     *
     * @return nothing where no way was found
     */
    Optional<List<Place>> between(Place from, Place to) {
        return low(from, to).or(() -> over(from, to));
    }

    /** Straight, or round what reaches into its heights, as long as the ground leaves room. */
    private Optional<List<Place>> low(Place from, Place to) {
        double lowest = Math.min(from.upM(), to.upM());
        double highest = Math.max(from.upM(), to.upM());
        Detour round = round(lowest, highest);
        List<PlanePoint> corners = List.of();
        if (!round.clear(from.point(), to.point())) {
            corners = round.between(from.point(), to.point());
            if (corners.isEmpty()) {
                return Optional.empty();
            }
        }
        List<PlanePoint> way = new ArrayList<>();
        way.add(from.point());
        way.addAll(corners);
        way.add(to.point());
        double whole = length(way);
        List<Place> places = new ArrayList<>();
        double ahead = 0;
        for (int i = 1; i < way.size(); i++) {
            double begin = up(from, to, ahead, whole);
            ahead += way.get(i - 1).distanceM(way.get(i));
            double end = up(from, to, ahead, whole);
            if (!clearOfGround(way.get(i - 1), begin, way.get(i), end)) {
                return Optional.empty();
            }
            if (i < way.size() - 1) {
                places.add(Place.over(way.get(i), end));
            }
        }
        return Optional.of(places);
    }

    private static double up(Place from, Place to, double ahead, double whole) {
        return from.upM() + (to.upM() - from.upM()) * (whole == 0 ? 1 : ahead / whole);
    }

    private static double length(List<PlanePoint> way) {
        double length = 0;
        for (int i = 1; i < way.size(); i++) {
            length += way.get(i - 1).distanceM(way.get(i));
        }
        return length;
    }

    private boolean clearOfGround(PlanePoint from, double fromUp, PlanePoint to, double toUp) {
        double length = from.distanceM(to);
        int steps = (int) Math.max(1, Math.ceil(length / STEP_M));
        for (int i = 0; i <= steps; i++) {
            double share = (double) i / steps;
            PlanePoint at = from.moved(from.bearingRad(to), length * share);
            double top = top(at);
            if (!Double.isNaN(top) && fromUp + (toUp - fromUp) * share < top + clearM - SPARE_M) {
                return false;
            }
        }
        return true;
    }

    private double top(PlanePoint at) {
        return ground.applyAsDouble(at.xM(), at.yM()) + standing.applyAsDouble(at.xM(), at.yM());
    }

    private Detour round(double lowest, double highest) {
        List<Prism> between = solids.stream()
                .filter(solid ->
                        solid.topM() + clearM > lowest + SPARE_M && solid.bottomM() - clearM < highest - SPARE_M)
                .toList();
        String key = between.stream().map(solid -> "" + solids.indexOf(solid)).reduce("", (a, b) -> a + "," + b);
        return rounds.computeIfAbsent(
                key, none -> Detour.round(between, clearM - SPARE_M).and(zones));
    }

    /** Whether a way leads along beside objects: both its ends are near one and below its top. */
    boolean beside(Place from, Place to) {
        return beside(from) && beside(to);
    }

    private boolean beside(Place at) {
        return solids.stream()
                .anyMatch(solid -> at.upM() < solid.topM() + clearM - SPARE_M && solid.asideM(at.point()) < BESIDE_M);
    }

    /** Up, across, and down: as between the ground and the air. */
    Optional<List<Place>> over(Place from, Place to) {
        Optional<List<Place>> out = toOpenSky(from);
        Optional<List<Place>> in = toOpenSky(to);
        if (out.isEmpty() || in.isEmpty()) {
            return Optional.empty();
        }
        Place leave = last(out.get(), from);
        Place arrive = last(in.get(), to);
        List<PlanePoint> way = new ArrayList<>();
        way.add(leave.point());
        way.addAll(zones.between(leave.point(), arrive.point()));
        way.add(arrive.point());
        double high = Math.max(highest(way), Math.max(leave.upM(), arrive.upM()));
        List<Place> places = new ArrayList<>(out.get());
        for (PlanePoint at : way) {
            places.add(Place.over(at, high));
        }
        for (int i = in.get().size() - 1; i >= 0; i--) {
            places.add(in.get().get(i));
        }
        return Optional.of(places);
    }

    private static Place last(List<Place> places, Place otherwise) {
        return places.isEmpty() ? otherwise : places.get(places.size() - 1);
    }

    /** What clears ground, obstacles and all objects that a way passes. */
    private double highest(List<PlanePoint> way) {
        double highest = Double.NEGATIVE_INFINITY;
        for (int i = 1; i < way.size(); i++) {
            PlanePoint from = way.get(i - 1);
            PlanePoint to = way.get(i);
            double length = from.distanceM(to);
            int steps = (int) Math.max(1, Math.ceil(length / STEP_M));
            for (int step = 0; step <= steps; step++) {
                PlanePoint at = from.moved(from.bearingRad(to), length * step / steps);
                double top = top(at);
                highest = Double.isNaN(top) ? highest : Math.max(highest, top + clearM);
                for (Prism solid : solids) {
                    if (solid.asideM(at) < clearM + STEP_M) {
                        highest = Math.max(highest, solid.topM() + clearM);
                    }
                }
            }
        }
        return highest;
    }

    /** The places of the level way to where nothing hangs overhead; none where that is so already, nothing where there is no such way. */
    public Optional<List<Place>> toOpenSky(Place from) {
        List<Prism> above = solids.stream()
                .filter(solid -> solid.topM() > from.upM() && solid.asideM(from.point()) < clearM - SPARE_M)
                .toList();
        if (above.isEmpty()) {
            return Optional.of(List.of());
        }
        Geometry under = UnaryUnionOp.union(
                above.stream().map(solid -> solid.widened(clearM + SPARE_M)).toList());
        Geometry at = under.getFactory().createPoint(new Coordinate(from.xM(), from.yM()));
        List<Coordinate> ways = new ArrayList<>();
        ways.add(DistanceOp.nearestPoints(under.getBoundary(), at)[0]);
        ways.addAll(List.of(under.getBoundary().getCoordinates()));
        Detour round = round(from.upM(), from.upM());
        for (Coordinate way : ways) {
            PlanePoint there = new PlanePoint(way.x, way.y);
            Optional<List<Place>> out = level(from, there, round);
            if (out.isPresent()) {
                return out;
            }
        }
        return Optional.empty();
    }

    /** The level way to a place, its end included, round what reaches into its height and clear of the ground. */
    private Optional<List<Place>> level(Place from, PlanePoint to, Detour round) {
        List<PlanePoint> stops = new ArrayList<>();
        if (!round.clear(from.point(), to)) {
            stops.addAll(round.between(from.point(), to));
            if (stops.isEmpty()) {
                return Optional.empty();
            }
        }
        stops.add(to);
        List<Place> places = new ArrayList<>();
        PlanePoint here = from.point();
        for (PlanePoint stop : stops) {
            if (!clearOfGround(here, from.upM(), stop, from.upM())) {
                return Optional.empty();
            }
            places.add(Place.over(stop, from.upM()));
            here = stop;
        }
        return Optional.of(places);
    }
}

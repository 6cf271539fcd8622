package yalos.core.sortie;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import yalos.core.flight.Climb;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Place;
import yalos.core.flight.Tally;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.StructurePass;
import yalos.core.site.Detour;

/**
 * The ways between a launch point and any place: straight up to the return height, or the place's own where that is higher, level across at transit speed against the day's wind, and down. Round keep-out zones; what lies under a deck is
 * left to the side, slowly, before it climbs.
 *
 * @param launch where it takes off and lands
 * @param takeOffUpM the ground there, above the geoid
 * @param returnUpM above the geoid
 * @param pace of the aircraft in the wind
 * @param detour round what must not be flown over
 * @param sky the level way from a place to where nothing hangs overhead, the place left out; none where that is so already
 */
public record Homing(
        PlanePoint launch,
        double takeOffUpM,
        double returnUpM,
        Pace pace,
        Detour detour,
        Function<Place, List<Place>> sky) {

    /** Legs from take-off to a place. */
    public List<Leg> out(Place to) {
        Place open = open(to);
        double up = Math.max(returnUpM, to.upM());
        List<Leg> legs = new ArrayList<>();
        legs.add(new Climb(launch, takeOffUpM, up));
        legs.addAll(across(Link.Kind.OUT, launch, open.point(), up));
        if (up > to.upM()) {
            legs.add(new Climb(open.point(), up, to.upM()));
        }
        legs.addAll(fromSky(to));
        return legs;
    }

    /** Legs from a place to landing. */
    public List<Leg> home(Place from) {
        Place open = open(from);
        double up = Math.max(returnUpM, from.upM());
        List<Leg> legs = new ArrayList<>(toSky(from));
        if (up > from.upM()) {
            legs.add(new Climb(open.point(), from.upM(), up));
        }
        legs.addAll(across(Link.Kind.HOME, open.point(), launch, up));
        legs.add(new Climb(launch, up, takeOffUpM));
        return legs;
    }

    /** Where one may climb that comes from a place: the place itself, or beside what hangs over it. */
    public Place open(Place place) {
        List<Place> way = sky.apply(place);
        return way.isEmpty() ? place : way.get(way.size() - 1);
    }

    /** The level legs out from under what hangs over a place; none where nothing does. */
    public List<Leg> toSky(Place from) {
        return slowly(Link.Kind.HOME, from, sky.apply(from));
    }

    /** The same back in again. */
    public List<Leg> fromSky(Place to) {
        List<Place> way = new ArrayList<>(sky.apply(to));
        if (way.isEmpty()) {
            return List.of();
        }
        Collections.reverse(way);
        way.add(to);
        return slowly(Link.Kind.OUT, way.get(0), way.subList(1, way.size()));
    }

    private List<Leg> slowly(Link.Kind kind, Place from, List<Place> stops) {
        List<Leg> legs = new ArrayList<>();
        Place here = from;
        for (Place stop : stops) {
            legs.add(new Link(kind, here.point(), stop.point(), Way.level(stop.upM()), slowMps()));
            here = stop;
        }
        return legs;
    }

    private double slowMps() {
        return Math.min(StructurePass.CAREFUL_MPS, pace.aircraft().transitMps());
    }

    private double underTakes(Draw draw, Place place) {
        double sum = 0;
        PlanePoint here = place.point();
        for (Place stop : sky.apply(place)) {
            sum += Tally.straight(pace, draw, here, stop.point(), slowMps());
            here = stop.point();
        }
        return sum;
    }

    private List<? extends Leg> across(Link.Kind kind, PlanePoint from, PlanePoint to, double upM) {
        return from.distanceM(to) == 0
                ? List.of()
                : new FlightBuilder(pace, Optional.of(launch), detour).transit(kind, from, to, upM);
    }

    /** What it takes from take-off to a place; infinite where the wind forbids it. */
    public double outTakes(Draw draw, Place to) {
        double up = Math.max(returnUpM, to.upM());
        return up(draw, up - takeOffUpM)
                + across(draw, launch, open(to).point(), pace.aircraft().transitMps())
                + down(draw, up - to.upM())
                + underTakes(draw, to);
    }

    /** What it takes from a place to landing. */
    public double homeTakes(Draw draw, Place from) {
        double up = Math.max(returnUpM, from.upM());
        return underTakes(draw, from)
                + up(draw, up - from.upM())
                + across(draw, open(from).point(), launch, pace.aircraft().returnMps())
                + down(draw, up - takeOffUpM);
    }

    private double up(Draw draw, double byM) {
        return byM <= 0 ? 0 : draw.vertical(pace.aircraft().climbMps()) * pace.climbS(byM);
    }

    private double down(Draw draw, double byM) {
        return byM <= 0 ? 0 : draw.vertical(-pace.aircraft().descentMps()) * pace.climbS(-byM);
    }

    private double across(Draw draw, PlanePoint from, PlanePoint to, double wantedMps) {
        if (from.distanceM(to) == 0) {
            return 0;
        }
        double sum = 0;
        PlanePoint here = from;
        List<PlanePoint> stops = new ArrayList<>(detour.between(from, to));
        stops.add(to);
        for (PlanePoint stop : stops) {
            sum += Tally.straight(pace, draw, here, stop, wantedMps);
            here = stop;
        }
        return sum;
    }
}

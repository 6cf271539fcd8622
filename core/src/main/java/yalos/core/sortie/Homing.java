package yalos.core.sortie;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.flight.Climb;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Place;
import yalos.core.flight.Tally;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Detour;

/**
 * The ways between a launch point and any place: straight up to the return height, or the place's own where that is higher, level across at transit speed against the day's wind, and down. Round keep-out zones.
 *
 * @param launch where it takes off and lands
 * @param takeOffUpM the ground there, above the geoid
 * @param returnUpM above the geoid
 * @param pace of the aircraft in the wind
 * @param detour round what must not be flown over
 */
public record Homing(PlanePoint launch, double takeOffUpM, double returnUpM, Pace pace, Detour detour) {

    /** Legs from take-off to a place. */
    public List<Leg> out(Place to) {
        double up = Math.max(returnUpM, to.upM());
        List<Leg> legs = new ArrayList<>();
        legs.add(new Climb(launch, takeOffUpM, up));
        legs.addAll(across(Link.Kind.OUT, launch, to.point(), up));
        if (up > to.upM()) {
            legs.add(new Climb(to.point(), up, to.upM()));
        }
        return legs;
    }

    /** Legs from a place to landing. */
    public List<Leg> home(Place from) {
        double up = Math.max(returnUpM, from.upM());
        List<Leg> legs = new ArrayList<>();
        if (up > from.upM()) {
            legs.add(new Climb(from.point(), from.upM(), up));
        }
        legs.addAll(across(Link.Kind.HOME, from.point(), launch, up));
        legs.add(new Climb(launch, up, takeOffUpM));
        return legs;
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
                + across(draw, launch, to.point(), pace.aircraft().transitMps())
                + down(draw, up - to.upM());
    }

    /** What it takes from a place to landing. */
    public double homeTakes(Draw draw, Place from) {
        double up = Math.max(returnUpM, from.upM());
        return up(draw, up - from.upM())
                + across(draw, from.point(), launch, pace.aircraft().returnMps())
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

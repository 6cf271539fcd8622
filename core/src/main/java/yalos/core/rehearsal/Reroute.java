package yalos.core.rehearsal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.flight.Arc;
import yalos.core.flight.Climb;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Leg;
import yalos.core.flight.Link;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.sortie.Homing;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Surroundings;

/** Ways that are not planned: home from where it is, down, and back to a station. A multirotor brakes to a stand first, a wing turns in an arc. */
final class Reroute {
    private static final double LEAST_TURN_RAD = 0.05;

    private final Sortie sortie;
    private final Homing homing;
    private final Aircraft aircraft;
    private final Surroundings around;

    Reroute(Sortie sortie, Surroundings around) {
        this.sortie = sortie;
        this.homing = sortie.homing();
        this.aircraft = homing.pace().aircraft();
        this.around = around;
    }

    /** Home from a place on a course. */
    List<Leg> home(Place here, Course course) {
        List<Leg> legs = new ArrayList<>();
        Place from = aircraft.kind().wing() ? turned(here, course, legs) : braked(here, course, legs);
        legs.addAll(homing.home(from));
        return legs;
    }

    /** Adds the arc in which a wing turns towards home; answers with its end. */
    private Place turned(Place here, Course course, List<Leg> legs) {
        double bearing = here.point().bearingRad(homing.launch());
        double sweep = Math.IEEEremainder(bearing - course.trackRad(), 2 * Math.PI);
        double radius = aircraft.turnRadiusM(aircraft.returnMps());
        boolean near = here.point().distanceM(homing.launch()) <= 2 * radius;
        if (course.speedMps() <= 0 || near || Math.abs(sweep) < LEAST_TURN_RAD) {
            return here;
        }
        Way arc = Arc.turning(here.point(), course.trackRad(), sweep, radius, aircraft.returnMps())
                .withHeights(Way.level(here.upM()));
        legs.add(arc);
        return arc.end();
    }

    /** Adds the way on which it brakes to a stand, along the way it is on; answers with where it then hangs. */
    private Place braked(Place here, Course course, List<Leg> legs) {
        if (course.speedMps() <= 0 || course.done() || !(course.leg() instanceof Way way)) {
            return here;
        }
        double stop = course.speedMps() * course.speedMps() / (2 * aircraft.accelerationMps2());
        PlanePoint at = here.point().moved(course.trackRad(), stop);
        legs.add(new Link(Link.Kind.TURN, here.point(), at, Way.level(here.upM()), way.speedMps()));
        return Place.over(at, here.upM());
    }

    /** Down to so much above the ground below where it comes to a stand. */
    List<Leg> down(Place here, Course course, double aboveM) {
        List<Leg> legs = new ArrayList<>();
        Place from = braked(here, course, legs);
        legs.add(new Climb(from.point(), from.upM(), Math.min(from.upM(), groundM(from.point()) + aboveM)));
        return legs;
    }

    /** Height of the ground; of the take-off where nobody knows it. */
    double groundM(PlanePoint at) {
        double ground = around.groundM(at);
        return Double.isNaN(ground) ? homing.takeOffUpM() : ground;
    }

    /**
     * The rest of the sortie from one of its stations, and what leads there.
     *
     * @param station index in the plan
     * @param here where it is; empty where it takes off anew
     */
    Flight from(int station, Optional<Place> here, Course course) {
        Flight whole = sortie.flight();
        Exposure to = whole.exposures().get(station - sortie.start());
        Place there = Place.over(to.point(), to.upM());
        int last = whole.exposures().size() - 1;
        Exposure end = whole.exposures().get(last);
        return whole.part(
                station - sortie.start(),
                last,
                here.map(place -> across(place, there, course)).orElseGet(() -> homing.out(there)),
                homing.home(Place.over(end.point(), end.upM())),
                Optional.of(homing.launch()),
                homing.takeOffUpM());
    }

    /** Up to the return height, across, and down. */
    private List<Leg> across(Place here, Place there, Course course) {
        List<Leg> legs = new ArrayList<>();
        Place from = braked(here, course, legs);
        double up = Math.max(from.upM(), Math.max(there.upM(), homing.returnUpM()));
        PlanePoint leaves = homing.open(from).point();
        PlanePoint arrives = homing.open(there).point();
        legs.addAll(homing.toSky(from));
        legs.add(new Climb(leaves, from.upM(), up));
        if (leaves.distanceM(arrives) > 0) {
            legs.add(new Link(Link.Kind.OUT, leaves, arrives, Way.level(up), aircraft.transitMps()));
        }
        legs.add(new Climb(arrives, up, there.upM()));
        legs.addAll(homing.fromSky(there));
        return legs;
    }
}

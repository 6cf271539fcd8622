package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Lens;
import yalos.core.flight.Arc;
import yalos.core.flight.Climb;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Hover;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Pace;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;

/**
 * Writes down a flight whose shots have heights of their own. Shots that look the same way at even steps along a straight become one line; each of the others is
 * a line of one photo, reached straight, round a place, or straight up and down. Where a way is so short that the camera is not ready yet, it waits.
 */
final class AimedFlight {
    private static final double SAME_M = 1e-6;
    private static final double SAME_RAD = 1e-9;
    private static final double SAME_S = 1e-6;

    private final Pace pace;
    private final Optional<PlanePoint> launch;
    private final double takeOffUpM;
    private final AirWays ways;
    private final double intervalS;
    private final List<Leg> legs = new ArrayList<>();
    private final List<Exposure> exposures = new ArrayList<>();
    private int lines;
    private int strips;
    private double track;
    private Optional<Place> here = Optional.empty();
    private boolean reached = true;

    /**
     * @param intervalS least time between photos
     */
    AimedFlight(
            Pace pace,
            Optional<PlanePoint> launch,
            double takeOffUpM,
            Optional<Flight> before,
            AirWays ways,
            double intervalS) {
        this.intervalS = intervalS;
        this.pace = pace;
        this.launch = launch;
        this.takeOffUpM = takeOffUpM;
        this.ways = ways;
        before.ifPresent(this::begin);
    }

    /** As it was flown before, up to its way home. */
    private void begin(Flight before) {
        for (Leg leg : before.legs()) {
            if (leg instanceof Link link && link.kind() == Link.Kind.HOME) {
                break;
            }
            legs.add(leg);
        }
        exposures.addAll(before.exposures());
        for (Line line : before.lines()) {
            lines = Math.max(lines, line.number());
            strips = Math.max(strips, line.strip());
        }
        if (!legs.isEmpty()) {
            here = Optional.of(legs.get(legs.size() - 1).end());
        }
    }

    /** Whether every way was found. */
    boolean reached() {
        return reached;
    }

    /** Shots one after the other, reached from where the aircraft is. */
    void run(List<Shot> shots, double speedMps, int pass, Lens lens, double rollRad) {
        if (shots.isEmpty()) {
            return;
        }
        reach(place(shots.get(0)));
        strips++;
        for (int from = 0; from < shots.size(); ) {
            if (from > 0) {
                go(shots.get(from - 1), shots.get(from), speedMps);
            }
            int to = straightEnd(shots, from);
            line(shots.subList(from, to), speedMps, pass, lens, rollRad, next(shots, from));
            from = to;
        }
        here = Optional.of(place(shots.get(shots.size() - 1)));
    }

    private static Place place(Shot shot) {
        return Place.over(shot.at(), shot.upM());
    }

    /** The shot that tells which way is flown at one. */
    private static Shot next(List<Shot> shots, int at) {
        return shots.get(Math.min(shots.size() - 1, at + 1));
    }

    /** Behind the last shot of a straight of even steps. */
    private static int straightEnd(List<Shot> shots, int from) {
        int to = from + 1;
        while (to < shots.size() && goesOn(shots, from, to)) {
            to++;
        }
        return to;
    }

    private static boolean goesOn(List<Shot> shots, int from, int to) {
        Shot first = shots.get(from);
        Shot shot = shots.get(to);
        boolean alike = shot.round().isEmpty()
                && Math.abs(shot.upM() - first.upM()) < SAME_M
                && Math.abs(shot.pitchRad() - first.pitchRad()) < SAME_RAD
                && Math.abs(Math.IEEEremainder(shot.yawRad() - first.yawRad(), 2 * Math.PI)) < SAME_RAD;
        if (!alike || first.at().distanceM(shot.at()) < SAME_M) {
            return false;
        }
        PlanePoint second = shots.get(from + 1).at();
        double stepX = second.xM() - first.at().xM();
        double stepY = second.yM() - first.at().yM();
        int steps = to - from;
        return Math.hypot(
                        first.at().xM() + steps * stepX - shot.at().xM(),
                        first.at().yM() + steps * stepY - shot.at().yM())
                < 1e-4;
    }

    private void line(List<Shot> shots, double speedMps, int pass, Lens lens, double rollRad, Shot next) {
        Shot first = shots.get(0);
        Shot last = shots.get(shots.size() - 1);
        if (first.at().distanceM(next.at()) > SAME_M) {
            track = first.at().bearingRad(next.at());
        }
        double flown = ((track % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
        legs.add(new Line(
                pass,
                ++lines,
                strips,
                first.at(),
                last.at(),
                flown,
                Way.level(first.upM()),
                speedMps,
                exposures.size(),
                shots.size()));
        for (Shot shot : shots) {
            exposures.add(new Exposure(exposures.size() + 1, pass, lines, shot.pose(rollRad), lens, flown));
        }
    }

    /** From one shot of a run to the next; straight up and down no quicker than the run is flown. */
    private void go(Shot from, Shot to, double speedMps) {
        double level = from.at().distanceM(to.at());
        if (level < SAME_M) {
            double rise = to.upM() - from.upM();
            if (Math.abs(rise) > SAME_M) {
                legs.add(new Climb(from.at(), from.upM(), to.upM()));
            }
            stay(place(to), Math.abs(rise) / speedMps - pace.climbS(rise));
            return;
        }
        double[] up = {from.upM(), to.upM()};
        if (to.round().isPresent()) {
            PlanePoint middle = to.round().get();
            double radius = middle.distanceM(from.at());
            double begin = middle.bearingRad(from.at());
            double sweep = Math.IEEEremainder(middle.bearingRad(to.at()) - begin, 2 * Math.PI);
            if (Math.abs(radius - middle.distanceM(to.at())) < 1e-4) {
                legs.add(new Arc(middle, radius, begin, sweep, up, speedMps));
                return;
            }
        }
        legs.add(new Link(Link.Kind.GAP, from.at(), to.at(), up, speedMps));
    }

    private void stay(Place at, double seconds) {
        if (seconds > SAME_S) {
            legs.add(new Hover(at, seconds));
        }
    }

    private void reach(Place to) {
        if (here.isPresent()) {
            int from = legs.size();
            fly(Link.Kind.TURN, here.get(), to, pace.aircraft().transitMps());
            double least = legs.subList(from, legs.size()).stream()
                    .mapToDouble(this::leastS)
                    .sum();
            stay(to, pace.aircraft().kind().wing() ? 0 : intervalS - least);
        } else {
            launch.ifPresent(at -> fly(
                    Link.Kind.OUT,
                    Place.over(at, takeOffUpM),
                    to,
                    pace.aircraft().transitMps()));
        }
    }

    /** What a leg takes at its full speed. */
    private double leastS(Leg leg) {
        return leg instanceof Climb climb
                ? pace.climbS(climb.byM())
                : leg instanceof Way way ? way.lengthM() / way.speedMps() : 0;
    }

    private void fly(Link.Kind kind, Place from, Place to, double speedMps) {
        Optional<List<Place>> between = kind.transit() ? ways.over(from, to) : ways.between(from, to);
        reached &= between.isPresent();
        Place now = from;
        List<Place> stops = new ArrayList<>(between.orElse(List.of()));
        stops.add(to);
        for (Place stop : stops) {
            boolean slowly = !pace.aircraft().kind().wing() && ways.beside(now, stop);
            leg(kind, now, stop, slowly ? Math.min(speedMps, StructurePass.CAREFUL_MPS) : speedMps);
            now = stop;
        }
    }

    private void leg(Link.Kind kind, Place from, Place to, double speedMps) {
        if (from.point().distanceM(to.point()) < SAME_M) {
            if (Math.abs(to.upM() - from.upM()) > SAME_M) {
                legs.add(new Climb(from.point(), from.upM(), to.upM()));
            }
            return;
        }
        legs.add(new Link(kind, from.point(), to.point(), new double[] {from.upM(), to.upM()}, speedMps));
    }

    Flight landed() {
        if (launch.isPresent() && here.isPresent() && !exposures.isEmpty()) {
            fly(
                    Link.Kind.HOME,
                    here.get(),
                    Place.over(launch.get(), takeOffUpM),
                    pace.aircraft().returnMps());
        }
        return new Flight(legs, exposures, launch, takeOffUpM);
    }
}

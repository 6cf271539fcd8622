package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.site.Detour;

/**
 * What a lidar's inertial unit asks for before and after mapping: standing still on the ground, figure-eights as an aeroplane flies them, a straight run
 * at full speed (common practice: 30 s, two, 5 s). Before, the run leads into the first line; after, it goes on from the last.
 *
 * <p>The eights are level, a circle to the left and one to the right, as tight as {@value #BANK_DEG}° of bank allow at the mapping speed.
 *
 * @param stillS on the ground, before take-off and after landing
 * @param runS at full speed
 * @param eights at each end
 */
public record Alignment(double stillS, double runS, int eights) {
    /** Common practice. */
    public static final Alignment USUAL = new Alignment(30, 5, 2);

    private static final double BANK_DEG = 25;
    private static final double GRAVITY = 9.80665;
    private static final double LEAST_RADIUS_M = 8;

    public Alignment {
        InputFault.within("still", stillS, 0, 600, "s");
        InputFault.within("straight", runS, 0, 60, "s");
        InputFault.within("eights", eights, 0, 10, "");
    }

    /** Radius of the eights at a speed, in metres. */
    public static double radiusM(double speedMps) {
        return Math.max(LEAST_RADIUS_M, speedMps * speedMps / (GRAVITY * Math.tan(Math.toRadians(BANK_DEG))));
    }

    /** Length of the straight run: what is flown at full speed, and for a multirotor what it takes to get there from a stand. */
    public double runM(Aircraft aircraft, double speedMps) {
        double gathered = aircraft.kind().wing() ? 0 : speedMps * speedMps / (2 * aircraft.accelerationMps2());
        return runS == 0 ? 0 : speedMps * runS + gathered;
    }

    /** Length along the track and width across it that must be clear at each end, without what the operator keeps away from things. */
    public Room room(Aircraft aircraft, double speedMps) {
        double radius = eights == 0 ? 0 : radiusM(speedMps);
        return new Room(runM(aircraft, speedMps) + radius, 4 * radius);
    }

    /** See {@link #room}. */
    public record Room(double alongM, double acrossM) {}

    /**
     * A level flight with it before and after. Without lines there is nothing to align for.
     *
     * @param plain level flight at height 0 of the ground
     */
    public Flight round(Flight plain, Pace pace, Detour detour) {
        if (plain.lines().isEmpty()) {
            return plain;
        }
        Line first = plain.lines().get(0);
        Line last = plain.lines().get(plain.lines().size() - 1);
        double firstUp = first.upM()[0];
        double lastUp = last.upM()[0];
        PlanePoint begin = first.from().moved(first.trackRad(), -runM(pace.aircraft(), first.speedMps()));
        PlanePoint end = last.to().moved(last.trackRad(), runM(pace.aircraft(), last.speedMps()));
        Optional<PlanePoint> launch = plain.launch();
        FlightBuilder ways = new FlightBuilder(pace, launch, detour);
        List<Leg> legs = new ArrayList<>();
        launch.ifPresent(at -> {
            still(at, legs);
            legs.add(new Climb(at, 0, firstUp));
            legs.addAll(ways.transit(Link.Kind.OUT, at, begin, firstUp));
        });
        eights(begin, first, firstUp, legs);
        run(begin, first.from(), first, firstUp, legs);
        legs.addAll(
                plain.legs().subList(plain.legs().indexOf(first), plain.legs().indexOf(last) + 1));
        run(last.to(), end, last, lastUp, legs);
        eights(end, last, lastUp, legs);
        launch.ifPresent(at -> {
            legs.addAll(ways.transit(Link.Kind.HOME, end, at, lastUp));
            legs.add(new Climb(at, lastUp, 0));
            still(at, legs);
        });
        return new Flight(legs, plain.exposures(), launch, plain.takeOffUpM()).aligned(this);
    }

    /** What it takes of a flight on the clock, in seconds: all of it before the first line and after the last but climbs and ways out and home. */
    public static double seconds(Timeline timeline) {
        List<Timeline.Span> spans = timeline.spans();
        List<Leg> legs = timeline.flight().legs();
        List<Line> lines = timeline.flight().lines();
        int first = legs.indexOf(lines.get(0));
        int last = legs.indexOf(lines.get(lines.size() - 1));
        double seconds = 0;
        for (int i = 0; i < spans.size(); i++) {
            Leg leg = spans.get(i).leg();
            boolean aligning = leg instanceof Hover
                    || leg instanceof Arc
                    || leg instanceof Link link && link.kind() == Link.Kind.ALIGN;
            seconds += (i < first || i > last) && aligning ? spans.get(i).seconds() : 0;
        }
        return seconds;
    }

    private void still(PlanePoint at, List<Leg> legs) {
        if (stillS > 0) {
            legs.add(new Hover(Place.over(at, 0), stillS));
        }
    }

    private void run(PlanePoint from, PlanePoint to, Line line, double upM, List<Leg> legs) {
        if (from.distanceM(to) > 0) {
            legs.add(new Link(Link.Kind.ALIGN, from, to, Way.level(upM), line.speedMps()));
        }
    }

    private void eights(PlanePoint at, Line line, double upM, List<Leg> legs) {
        for (int i = 0; i < eights; i++) {
            for (double sweep : new double[] {-2 * Math.PI, 2 * Math.PI}) {
                legs.add(Arc.turning(at, line.trackRad(), sweep, radiusM(line.speedMps()), line.speedMps())
                        .withHeights(Way.level(upM)));
            }
        }
    }
}

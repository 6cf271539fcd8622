package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/**
 * When is the aircraft where, and how fast? A flight on the clock, from its first leg to its last.
 *
 * <p>Lines in one run are flown through without braking, and arcs are gone into as fast as they are flown; at every other corner a multirotor slows
 * to its turning speed, at a hover to a stand. All times come from {@link Pace}. KNOWN LIMITS: level lengths count (see {@link Way}); climbing ways keep their ground speed.
 */
public final class Timeline {
    /** Bends that add up to more are slowed down for. */
    private static final double MOST_BEND_RAD = Math.toRadians(30);

    private final Flight flight;
    private final Pace pace;
    private final List<Timed> legs = new ArrayList<>();
    private final List<Span> spans;
    private final double totalS;

    /**
     * A leg with the time it begins and ends, in seconds from the first leg's start.
     *
     * @param motion of the run it belongs to
     * @param runFromS when that run begins
     * @param aheadM of the run before this leg
     */
    private record Timed(Leg leg, double fromS, double toS, Motion motion, double runFromS, double aheadM) {}

    /** A leg and when it is flown, in seconds from the start. */
    public record Span(Leg leg, double fromS, double toS) {
        /** How long it takes. */
        public double seconds() {
            return toS - fromS;
        }
    }

    /**
     * How the aircraft stands at a moment.
     *
     * @param groundMps over the ground
     * @param airspeedMps through the air
     * @param trackRad direction over the ground, clockwise from grid north; that of the last way while it stands
     * @param leg it is on
     */
    public record Moment(Place place, double groundMps, double airspeedMps, double trackRad, Leg leg) {}

    private Timeline(Flight flight, Pace pace) {
        this.flight = flight;
        this.pace = pace;
        double now = 0;
        for (int i = 0; i < flight.legs().size(); ) {
            int end = runEnd(i);
            Motion motion = motion(i, end);
            now = time(i, end, motion, now);
            i = end;
        }
        this.totalS = now;
        this.spans = legs.stream()
                .map(timed -> new Span(timed.leg(), timed.fromS(), timed.toS()))
                .toList();
    }

    /** A flight on the clock. */
    public static Timeline of(Flight flight, Pace pace) {
        return new Timeline(flight, pace);
    }

    /** Behind the last leg that is flown through without braking. */
    private int runEnd(int first) {
        int end = first + 1;
        while (end < flight.legs().size()
                && runsOn(flight.legs().get(end - 1), flight.legs().get(end))
                && !bent(flight.legs().get(first), flight.legs().get(end))) {
            end++;
        }
        return end;
    }

    private static boolean runsOn(Leg before, Leg leg) {
        boolean gap = before instanceof Link link && link.kind() == Link.Kind.GAP && leg instanceof Line
                || before instanceof Line && leg instanceof Link next && next.kind() == Link.Kind.GAP;
        return gap && ((Way) before).speedMps() == ((Way) leg).speedMps();
    }

    /** Whether a run has turned by so much since it began that it is slowed down for. */
    private static boolean bent(Leg first, Leg leg) {
        return leg instanceof Line line
                && Math.cos(((Way) first).trackRadAt(0) - line.trackRad()) < Math.cos(MOST_BEND_RAD);
    }

    private Motion motion(int first, int end) {
        Leg leg = flight.legs().get(first);
        if (leg instanceof Hover hover) {
            return new Motion.Still(hover.seconds());
        }
        if (leg instanceof Climb climb) {
            return new Motion.Still(pace.climbS(climb.byM()));
        }
        if (leg instanceof Arc arc) {
            return new Motion.Round(arc, pace.arcS(arc));
        }
        Way way = (Way) leg;
        double length = 0;
        for (int i = first; i < end; i++) {
            length += ((Way) flight.legs().get(i)).lengthM();
        }
        return new Motion.Straight(
                pace.profile(length, way.trackRadAt(0), way.speedMps(), startMps(first), endMps(end)));
    }

    /** Speed at the corner before a leg: none after a hover. */
    private double startMps(int first) {
        int before = first - 1;
        while (before >= 0 && pointlike(flight.legs().get(before))) {
            before--;
        }
        if (before >= 0 && flight.legs().get(before) instanceof Hover) {
            return 0;
        }
        return throughMps(first - 1);
    }

    /** Speed from a leg into the next: that of a corner, or of the slower where the path does not bend. */
    private double throughMps(int before) {
        return !pace.aircraft().kind().wing() && Joint.smooth(flight.legs(), before)
                ? Math.min(
                        pace.heldMps((Way) flight.legs().get(before), true),
                        pace.heldMps((Way) flight.legs().get(before + 1), false))
                : pace.cornerMps();
    }

    /** Speed at the corner behind a run: none before a hover. */
    private double endMps(int end) {
        int after = end;
        while (after < flight.legs().size() && pointlike(flight.legs().get(after))) {
            after++;
        }
        return after < flight.legs().size() && flight.legs().get(after) instanceof Hover ? 0 : throughMps(end - 1);
    }

    private static boolean pointlike(Leg leg) {
        return leg instanceof Line line && line.lengthM() == 0;
    }

    private double time(int first, int end, Motion motion, double now) {
        double ahead = 0;
        double from = now;
        for (int i = first; i < end; i++) {
            Leg leg = flight.legs().get(i);
            double to = now + motion.seconds();
            if (motion instanceof Motion.Straight straight && i + 1 < end) {
                to = now + straight.profile().secondsAt(ahead + ((Way) leg).lengthM());
            }
            legs.add(new Timed(leg, from, to, motion, now, ahead));
            ahead += leg instanceof Way way ? way.lengthM() : 0;
            from = to;
        }
        return from;
    }

    /** The flight that is timed. */
    public Flight flight() {
        return flight;
    }

    /** What the times come from. */
    public Pace pace() {
        return pace;
    }

    /** From take-off to landing in seconds, batteries never changed; infinite where the wind forbids a way. */
    public double totalS() {
        return totalS;
    }

    /** About how many seconds less turns back take in a bend, where that is quicker, than square; whether they are flown so or not. */
    public double roundingSavesS() {
        Pace bending = pace.bending();
        double saved = 0;
        Line before = null;
        for (int i = 0; i < flight.legs().size(); i++) {
            if (flight.legs().get(i) instanceof Line line) {
                if (before != null && turn(flight.legs().get(i - 1))) {
                    Turn turn = new Turn(before.to(), before.trackRad(), line.from(), line.trackRad());
                    saved += bending.bendSavesS(turn, line.speedMps());
                }
                before = line;
            }
        }
        return Double.isFinite(saved) ? saved : 0;
    }

    private static boolean turn(Leg leg) {
        return leg instanceof Arc || leg instanceof Link link && link.kind() == Link.Kind.TURN;
    }

    /** All legs with their times. */
    public List<Span> spans() {
        return spans;
    }

    /** What the flight takes of an effort. */
    public Tally tally(Effort effort) {
        return new Tally(this, effort);
    }

    /**
     * The integral of a rate over a part of a way, as it is flown there.
     *
     * @param leg index of a leg that is a way
     * @param perSecond at an airspeed
     */
    double level(int leg, double fromS, double toS, DoubleUnaryOperator perSecond) {
        Timed timed = legs.get(leg);
        if (timed.motion() instanceof Motion.Straight straight) {
            double track = ((Way) timed.leg()).trackRadAt(0);
            return Tally.between(
                    straight.profile(),
                    fromS - timed.runFromS(),
                    toS - timed.runFromS(),
                    ground -> perSecond.applyAsDouble(pace.airspeedMps(track, ground)));
        }
        if (timed.motion() instanceof Motion.Round round) {
            Arc arc = round.arc();
            double sum = 0;
            double before = 0;
            double piece = arc.lengthM() / round.doneS().length;
            for (int i = 0; i < round.doneS().length; i++) {
                double done = round.doneS()[i];
                double from = Math.max(before, fromS - timed.runFromS());
                double to = Math.min(done, toS - timed.runFromS());
                if (to > from) {
                    double ground = piece / (done - before);
                    double track = arc.trackRadAt((i + 0.5) * piece);
                    sum += (to - from) * perSecond.applyAsDouble(pace.airspeedMps(track, ground));
                }
                before = done;
            }
            return sum;
        }
        return 0;
    }

    /** Seconds of climbing and sinking over one place. */
    public double climbingS() {
        return legs.stream()
                .filter(timed -> timed.leg() instanceof Climb)
                .mapToDouble(timed -> timed.toS() - timed.fromS())
                .sum();
    }

    /** When each photo is taken, in seconds from the start, in their order. */
    public double[] exposuresS() {
        double[] seconds = new double[flight.exposures().size()];
        for (Timed timed : legs) {
            if (timed.leg() instanceof Line line) {
                SpeedProfile profile = ((Motion.Straight) timed.motion()).profile();
                for (int i = 0; i < line.exposures(); i++) {
                    Exposure exposure = flight.exposures().get(line.firstExposure() + i);
                    double along = line.from().distanceM(exposure.point());
                    seconds[line.firstExposure() + i] = timed.runFromS() + profile.secondsAt(timed.aheadM() + along);
                }
            }
        }
        return seconds;
    }

    /**
     * How it stands after so many seconds; before the start and after the end as there.
     *
     * @throws IllegalStateException for a flight without legs
     */
    public Moment at(double seconds) {
        Timed timed = legs.stream()
                .filter(one -> seconds < one.toS())
                .findFirst()
                .or(() -> legs.isEmpty() ? Optional.empty() : Optional.of(legs.get(legs.size() - 1)))
                .orElseThrow(() -> new IllegalStateException("a flight without legs"));
        double since = Math.max(0, Math.min(timed.toS(), seconds) - timed.runFromS());
        if (timed.motion() instanceof Motion.Straight straight) {
            double along = straight.profile().metresAt(since) - timed.aheadM();
            return moving((Way) timed.leg(), along, straight.profile().speedAt(since));
        }
        if (timed.motion() instanceof Motion.Round round) {
            return moving((Way) timed.leg(), round.alongM(since), round.groundMps(since));
        }
        double share =
                timed.motion().seconds() == 0 ? 1 : since / timed.motion().seconds();
        Place start = timed.leg().start();
        Place end = timed.leg().end();
        Place place = new Place(start.xM(), start.yM(), start.upM() + (end.upM() - start.upM()) * share);
        double airspeed = pace.airspeedMps(0, 0);
        return new Moment(place, 0, airspeed, trackBefore(timed), timed.leg());
    }

    private Moment moving(Way way, double alongM, double groundMps) {
        double track = way.trackRadAt(alongM);
        return new Moment(way.placeAt(alongM), groundMps, pace.airspeedMps(track, groundMps), track, way);
    }

    private double trackBefore(Timed standing) {
        double track = 0;
        for (Timed timed : legs) {
            if (timed == standing) {
                return track;
            }
            track = timed.leg() instanceof Way way ? way.trackRadAt(way.lengthM()) : track;
        }
        return track;
    }

    /** Seconds from a place straight to the launch point at that height, and down; 0 where there is none. */
    double homeS(Place from) {
        return flight.launch()
                .map(launch -> pace.returnS(from.point(), launch) + pace.climbS(flight.takeOffUpM() - from.upM()))
                .orElse(0.0);
    }

    /** Seconds from the launch point up to a place's height and straight there; 0 where there is none. */
    double backS(Place to) {
        return flight.launch()
                .map(launch -> pace.climbS(to.upM() - flight.takeOffUpM()) + pace.transitS(launch, to.point()))
                .orElse(0.0);
    }
}

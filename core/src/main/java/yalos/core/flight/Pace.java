package yalos.core.flight;

import java.util.Arrays;
import java.util.Comparator;
import java.util.Optional;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.wind.Wind;

/**
 * How long an aircraft takes for a way, in still air or in a steady wind. The one home of all such times.
 *
 * <p>A multirotor holds the ground speed it is given as far as its fastest airspeed allows, and brakes to its turning speed at the
 * corners of its path. A wing holds its airspeed, does not brake, and goes round corners in arcs. Ways that the wind forbids take for
 * ever.
 *
 * <p>KNOWN LIMITS: the wind is the same everywhere and at all times; speeding up and braking are taken as in still air.
 */
public final class Pace {
    /** Pieces an arc is timed in when there is wind: 0.3 % at half the airspeed for a half circle. */
    private static final int ARC_PIECES = 16;

    /** Shares of the widest radius that bends are tried with; a search for a direction takes the widest. */
    private static final double[] BENDS = {1, 0.85, 0.7};

    private final Aircraft aircraft;
    private final Optional<Wind> wind;
    private final boolean still;
    private final double fastestMps;
    private final boolean rounding;

    public Pace(Aircraft aircraft, Optional<Wind> wind) {
        this(aircraft, wind, false);
    }

    /**
     * @param rounding whether a multirotor may turn back in a bend ({@link RoundTurn}) where that is quicker; a wing always bends
     */
    public Pace(Aircraft aircraft, Optional<Wind> wind, boolean rounding) {
        this.rounding = rounding && !aircraft.kind().wing();
        this.aircraft = aircraft;
        this.wind = wind.filter(blowing -> blowing.speedMps() > 0);
        this.still = this.wind.isEmpty();
        this.fastestMps = Math.max(aircraft.maxSpeedMps(), Math.max(aircraft.transitMps(), aircraft.returnMps()));
    }

    /** The wind that is reckoned with; empty for still air. */
    public Optional<Wind> wind() {
        return wind;
    }

    /** Whether a multirotor may turn back in a bend. */
    public boolean rounding() {
        return rounding;
    }

    /** The same with turns back in a bend. */
    Pace bending() {
        return new Pace(aircraft, wind, true);
    }

    /** What flies. */
    public Aircraft aircraft() {
        return aircraft;
    }

    /** Ground speed along a track for a speed wanted there; 0 where the wind forbids the track. */
    public double groundMps(double trackRad, double wantedMps) {
        if (still) {
            return wantedMps;
        }
        Wind blowing = wind.orElseThrow();
        if (aircraft.kind().wing()) {
            return blowing.groundSpeedMps(trackRad, wantedMps).orElse(0);
        }
        return blowing.airspeedMps(trackRad, wantedMps) <= fastestMps
                ? wantedMps
                : Math.min(
                        wantedMps, blowing.groundSpeedMps(trackRad, fastestMps).orElse(0));
    }

    /** Airspeed at a ground speed along a track. */
    public double airspeedMps(double trackRad, double groundMps) {
        return wind.map(blowing -> blowing.airspeedMps(trackRad, groundMps)).orElse(groundMps);
    }

    /** By how much the nose points to the right of a track: a wing must, a multirotor holds it along the track; none where the wind forbids the track. */
    public double crabRad(double trackRad, double airspeedMps) {
        return still || !aircraft.kind().wing()
                ? 0
                : wind.orElseThrow().crabRad(trackRad, airspeedMps).orElse(0);
    }

    /** Seconds for a straight way between two corners of the path. */
    public double straightS(double lengthM, double trackRad, double wantedMps) {
        return corners(lengthM, trackRad, wantedMps).seconds();
    }

    /** Seconds for a straight way from a stand to a stand. */
    public double standToStandS(double lengthM, double trackRad, double wantedMps) {
        return profile(lengthM, trackRad, wantedMps, 0, 0).seconds();
    }

    /** Seconds for a straight way out; only the wind asks for its direction. */
    public double transitS(PlanePoint from, PlanePoint to) {
        return straightS(from.distanceM(to), still ? 0 : from.bearingRad(to), aircraft.transitMps());
    }

    /** Seconds for a straight way home. */
    public double returnS(PlanePoint from, PlanePoint to) {
        return straightS(from.distanceM(to), still ? 0 : from.bearingRad(to), aircraft.returnMps());
    }

    /** Seconds to rise, or to sink where {@code byM} is negative; none where nobody knows by how much. */
    public double climbS(double byM) {
        if (Double.isNaN(byM)) {
            return 0;
        }
        return byM >= 0 ? byM / aircraft.climbMps() : -byM / aircraft.descentMps();
    }

    /** Ground speed at which a way is left or begun where the path does not bend; of an arc the one that is held on it. */
    double heldMps(Way way, boolean end) {
        return way instanceof Arc arc
                ? arc.lengthM() / arcS(arc)[ARC_PIECES - 1]
                : groundMps(way.trackRadAt(end ? way.lengthM() : 0), way.speedMps());
    }

    SpeedProfile corners(double lengthM, double trackRad, double wantedMps) {
        return profile(lengthM, trackRad, wantedMps, cornerMps(), cornerMps());
    }

    SpeedProfile profile(double lengthM, double trackRad, double wantedMps, double startMps, double endMps) {
        return new SpeedProfile(lengthM, aircraft.accelerationMps2(), startMps, groundMps(trackRad, wantedMps), endMps);
    }

    /** Speed left at a corner of the path: a wing keeps all of it. */
    double cornerMps() {
        return aircraft.kind().wing() ? Double.POSITIVE_INFINITY : aircraft.turnSpeedMps();
    }

    /**
     * Seconds after which each of {@value #ARC_PIECES} even pieces of an arc is done, the last being the whole. A wing holds its
     * airspeed round it; a multirotor the least ground speed that it can hold anywhere on it.
     */
    double[] arcS(Arc arc) {
        double[] done = new double[ARC_PIECES];
        double piece = arc.lengthM() / ARC_PIECES;
        double held = Double.POSITIVE_INFINITY;
        double[] speeds = new double[ARC_PIECES];
        for (int i = 0; i < ARC_PIECES; i++) {
            speeds[i] = groundMps(arc.trackRadAt((i + 0.5) * piece), arc.speedMps());
            held = Math.min(held, speeds[i]);
        }
        double seconds = 0;
        for (int i = 0; i < ARC_PIECES; i++) {
            seconds += piece / (aircraft.kind().wing() ? speeds[i] : held);
            done[i] = seconds;
        }
        return done;
    }

    /** The quickest bend that a multirotor turns back in, where it may and that is quicker than to stop nearly, shift and speed up. */
    Optional<RoundTurn> bend(Turn turn, double speedMps) {
        return quickest(turn, speedMps).filter(round -> roundS(round) < squareS(turn, speedMps));
    }

    private Optional<RoundTurn> quickest(Turn turn, double speedMps) {
        return rounding
                ? Arrays.stream(BENDS)
                        .mapToObj(share -> RoundTurn.of(turn, aircraft, speedMps, share))
                        .flatMap(Optional::stream)
                        .min(Comparator.comparingDouble(this::roundS))
                : Optional.empty();
    }

    /** How many seconds less than square a turn back takes in its quickest bend; 0 where it may not bend, or that is no quicker. */
    double bendSavesS(Turn turn, double speedMps) {
        return quickest(turn, speedMps)
                .map(round -> Math.max(0, squareS(turn, speedMps) - roundS(round)))
                .orElse(0.0);
    }

    private double squareS(Turn turn, double speedMps) {
        return straightS(turn.straightM(), turn.straightRad(), speedMps);
    }

    /** Seconds for a bend, less what its lines gain: they are counted as braked for a corner, and are braked for less. */
    private double roundS(RoundTurn round) {
        double track = round.turn().trackRad();
        double wanted = round.wantedMps();
        double seconds = 0;
        if (still) {
            seconds = Math.PI * round.radiusM() / round.speedMps()
                    + profile(round.straightM(), track, wanted, round.intoMps(), round.outOfMps())
                            .seconds();
        } else {
            for (Way way : round.ways()) {
                seconds += way instanceof Arc arc
                        ? arcS(arc)[ARC_PIECES - 1]
                        : profile(way.lengthM(), way.trackRadAt(0), wanted, round.intoMps(), round.outOfMps())
                                .seconds();
            }
        }
        double back = track + Math.PI;
        double gained = brakingS(track, wanted, cornerMps())
                - brakingS(track, wanted, round.intoMps())
                + brakingS(back, wanted, cornerMps())
                - brakingS(back, wanted, round.outOfMps());
        return Math.max(0, seconds - gained);
    }

    /** Seconds lost by braking at the end of a long line. */
    private double brakingS(double trackRad, double wantedMps, double endMps) {
        double full = groundMps(trackRad, wantedMps);
        double lost = Math.max(0, full - endMps);
        return full > 0 ? lost * lost / (2 * aircraft.accelerationMps2() * full) : 0;
    }

    /** Seconds for the way round from the end of a line into the next, as {@link Turn#ways} lays it; of bends about, by the widest. */
    public double turnS(Turn turn, double speedMps) {
        if (!aircraft.kind().wing()) {
            double square = squareS(turn, speedMps);
            return rounding
                    ? RoundTurn.of(turn, aircraft, speedMps, 1)
                            .map(round -> Math.min(square, roundS(round)))
                            .orElse(square)
                    : square;
        }
        if (still) {
            return turn.lengthM(aircraft, speedMps) / speedMps;
        }
        double seconds = 0;
        for (Way way : turn.ways(aircraft, speedMps)) {
            seconds += way instanceof Arc arc
                    ? arcS(arc)[ARC_PIECES - 1]
                    : straightS(way.lengthM(), way.trackRadAt(0), speedMps);
        }
        return seconds;
    }
}

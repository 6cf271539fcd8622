package yalos.core.take;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;

/** Where the aircraft was when, from its log: places between the moments written down lie on a straight line. */
public final class TrackLog {
    /** Farther apart in time nothing is put between two moments. */
    private static final double LONGEST_S = 5;

    private static final double STILL_MPS = 0.3;
    private static final double TURNED_DEG = 300;
    private static final double STRAIGHT_DEG = 8;
    private static final double STRAIGHT_S = 5;
    private static final double MOVING_MPS = 2;

    private final List<Moment> moments;
    private final double[] seconds;

    /**
     * A moment of a log.
     *
     * @param upM above the geoid
     * @param yawDeg clockwise from true north
     */
    public record Moment(
            Instant at,
            LonLat place,
            OptionalDouble upM,
            OptionalDouble yawDeg,
            OptionalDouble pitchDeg,
            OptionalDouble rollDeg) {
        /** A place and its time alone. */
        public static Moment of(Instant at, LonLat place, OptionalDouble upM) {
            return new Moment(at, place, upM, OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());
        }
    }

    /**
     * @throws InputFault for fewer than two moments
     */
    public TrackLog(List<Moment> written) {
        if (written.size() < 2) {
            throw new InputFault(
                    "file",
                    written.size(),
                    "The log has no two moments with a time and a place: it is of no use here.");
        }
        this.moments = written.stream().sorted(Comparator.comparing(Moment::at)).toList();
        this.seconds = moments.stream().mapToDouble(this::since).toArray();
    }

    private double since(Moment moment) {
        return since(moment.at());
    }

    private double since(Instant at) {
        return Duration.between(moments == null ? at : moments.get(0).at(), at).toNanos() / 1e9;
    }

    public List<Moment> moments() {
        return moments;
    }

    /** Where it was at a moment; nothing before its beginning, behind its end and in its gaps. */
    public Optional<Fix> at(Instant when) {
        double wanted = since(when);
        int found = Arrays.binarySearch(seconds, wanted);
        int after = found < 0 ? -found - 1 : found;
        if (found >= 0) {
            return Optional.of(fix(moments.get(found), moments.get(found), 0));
        }
        if (after == 0 || after == seconds.length || seconds[after] - seconds[after - 1] > LONGEST_S) {
            return Optional.empty();
        }
        double share = (wanted - seconds[after - 1]) / (seconds[after] - seconds[after - 1]);
        return Optional.of(fix(moments.get(after - 1), moments.get(after), share));
    }

    private static Fix fix(Moment a, Moment b, double share) {
        LonLat place = LonLat.of(
                a.place().lonDeg()
                        + share
                                * (b.place().lonNear(a.place().lonDeg())
                                        - a.place().lonDeg()),
                a.place().latDeg() + share * (b.place().latDeg() - a.place().latDeg()));
        return new Fix(
                place,
                between(a.upM(), b.upM(), share),
                turned(a.yawDeg(), b.yawDeg(), share),
                between(a.pitchDeg(), b.pitchDeg(), share),
                between(a.rollDeg(), b.rollDeg(), share),
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Fix.Source.LOG);
    }

    private static OptionalDouble between(OptionalDouble a, OptionalDouble b, double share) {
        return a.isEmpty() || b.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(a.getAsDouble() + share * (b.getAsDouble() - a.getAsDouble()));
    }

    private static OptionalDouble turned(OptionalDouble a, OptionalDouble b, double share) {
        if (a.isEmpty() || b.isEmpty()) {
            return OptionalDouble.empty();
        }
        double turn = wrapped(b.getAsDouble() - a.getAsDouble());
        return OptionalDouble.of((a.getAsDouble() + share * turn + 360) % 360);
    }

    private static double wrapped(double degrees) {
        return degrees - 360 * Math.rint(degrees / 360);
    }

    /**
     * What a lidar's alignment needs, as far as the log shows it.
     *
     * @param stillBeforeS standing still before it moves off
     * @param stillAfterS standing still after it came back
     * @param straightS the longest straight run
     * @param eights figure-eights: a full turn one way followed by one the other way
     */
    public record Aligned(double stillBeforeS, double stillAfterS, double straightS, int eights) {}

    /** Looks for the alignment of a lidar. */
    public Aligned aligned() {
        double[] speed = new double[seconds.length - 1];
        double[] course = new double[seconds.length - 1];
        for (int i = 0; i < speed.length; i++) {
            LonLat from = moments.get(i).place();
            LonLat to = moments.get(i + 1).place();
            double length = Geodesics.distanceM(from, to);
            speed[i] = length / Math.max(1e-3, seconds[i + 1] - seconds[i]);
            course[i] = Math.toDegrees(Math.atan2(
                    (to.lonNear(from.lonDeg()) - from.lonDeg()) * Math.cos(Math.toRadians(from.latDeg())),
                    to.latDeg() - from.latDeg()));
        }
        int first = 0;
        while (first < speed.length && speed[first] < STILL_MPS) {
            first++;
        }
        int last = speed.length;
        while (last > first && speed[last - 1] < STILL_MPS) {
            last--;
        }
        return new Aligned(
                seconds[Math.min(first, seconds.length - 1)],
                seconds[seconds.length - 1] - seconds[Math.min(last, seconds.length - 1)],
                straight(speed, course),
                eights(speed, course));
    }

    private double straight(double[] speed, double[] course) {
        double longest = 0;
        int begin = 0;
        for (int i = 0; i < speed.length; i++) {
            if (speed[i] < MOVING_MPS || Math.abs(wrapped(course[i] - course[begin])) > STRAIGHT_DEG) {
                begin = speed[i] < MOVING_MPS ? Math.min(speed.length - 1, i + 1) : i;
            } else {
                longest = Math.max(longest, seconds[i + 1] - seconds[begin]);
            }
        }
        return longest >= STRAIGHT_S ? longest : 0;
    }

    /** Turns of one sense are added up until the sense changes for good; two full ones of opposite sense are an eight. */
    private static int eights(double[] speed, double[] course) {
        List<Double> turns = new ArrayList<>();
        double sum = 0;
        for (int i = 1; i < course.length; i++) {
            double turn = speed[i] < MOVING_MPS || speed[i - 1] < MOVING_MPS ? 0 : wrapped(course[i] - course[i - 1]);
            if (turn * sum < 0 && Math.abs(turn) > 1) {
                turns.add(sum);
                sum = 0;
            }
            sum += turn;
        }
        turns.add(sum);
        List<Double> full = turns.stream().filter(turn -> Math.abs(turn) > 30).toList();
        int eights = 0;
        for (int i = 1; i < full.size(); i++) {
            if (Math.abs(full.get(i)) > TURNED_DEG
                    && Math.abs(full.get(i - 1)) > TURNED_DEG
                    && full.get(i) * full.get(i - 1) < 0) {
                eights++;
                i++;
            }
        }
        return eights;
    }
}

package yalos.core.flight;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import yalos.core.geodesy.PlanePoint;

/**
 * What a flight on the clock takes of an {@link Effort}: added up over its legs, at its photos, at any moment, and for ways that are not planned, such as the one home.
 *
 * <p>Speeding up and braking are integrated by four Gauss points, exact for powers of the airspeed up to the seventh; arcs piece by piece as {@link Pace} times them.
 */
public final class Tally {
    private static final double[] NODES = {-0.861136311594053, -0.339981043584856, 0.339981043584856, 0.861136311594053
    };
    private static final double[] WEIGHTS = {0.347854845137454, 0.652145154862546, 0.652145154862546, 0.347854845137454
    };

    private final Timeline timeline;
    private final Pace pace;
    private final Effort effort;
    /** Taken by the end of each leg. */
    private final double[] ends;

    private final double[] photos;

    Tally(Timeline timeline, Effort effort) {
        this.timeline = timeline;
        this.pace = timeline.pace();
        this.effort = effort;
        List<Timeline.Span> spans = timeline.spans();
        this.ends = new double[spans.size()];
        this.photos = new double[timeline.flight().exposures().size()];
        double[] seconds = timeline.exposuresS();
        double taken = 0;
        for (int i = 0; i < spans.size(); i++) {
            Leg leg = spans.get(i).leg();
            if (leg instanceof Line line) {
                atPhotos(line, i, taken, seconds);
            }
            taken += leg(i, spans.get(i).toS());
            ends[i] = taken;
        }
    }

    private void atPhotos(Line line, int leg, double before, double[] seconds) {
        double done = 0;
        double since = timeline.spans().get(leg).fromS();
        double ascended = 0;
        double along = 0;
        for (int i = line.firstExposure(); i < line.firstExposure() + line.exposures(); i++) {
            double here =
                    line.from().distanceM(timeline.flight().exposures().get(i).point());
            done += timeline.level(leg, since, seconds[i], this::level);
            ascended += ascent(line, along, here);
            since = seconds[i];
            along = here;
            photos[i] = before + done + ascended * effort.perMetreUp();
        }
    }

    /** What a leg takes from its begin until a moment. */
    private double leg(int at, double untilS) {
        Timeline.Span span = timeline.spans().get(at);
        Leg leg = span.leg();
        if (leg instanceof Climb climb) {
            return Math.max(0, untilS - span.fromS())
                    * effort.vertical(
                            climb.byM() >= 0
                                    ? pace.aircraft().climbMps()
                                    : -pace.aircraft().descentMps());
        }
        if (leg instanceof Hover) {
            return Math.max(0, untilS - span.fromS()) * effort.vertical(0);
        }
        Way way = (Way) leg;
        double share = span.seconds() == 0 ? 1 : Math.min(1, (untilS - span.fromS()) / span.seconds());
        return timeline.level(at, span.fromS(), untilS, this::level)
                + ascent(way, 0, way.lengthM() * share) * effort.perMetreUp();
    }

    private double level(double airspeedMps) {
        return effort.level(airspeedMps);
    }

    /** Metres won in height between two places along a way. */
    private static double ascent(Way way, double fromM, double toM) {
        double[] up = way.upM();
        double length = way.lengthM();
        if (length == 0 || toM <= fromM) {
            return 0;
        }
        double step = length / (up.length - 1);
        double won = 0;
        double before = way.upAt(fromM);
        for (int i = (int) Math.floor(fromM / step) + 1; i * step < toM && i < up.length; i++) {
            won += Math.max(0, up[i] - before);
            before = up[i];
        }
        won += Math.max(0, way.upAt(toM) - before);
        return Double.isNaN(won) ? 0 : won;
    }

    /** All of it; infinite where the wind forbids a way. */
    public double whole() {
        return ends.length == 0 ? 0 : ends[ends.length - 1];
    }

    /** Taken by the end of a leg, by its index. */
    public double atEnd(int leg) {
        return ends[leg];
    }

    /** Taken when each photo is taken. */
    public double[] atPhotos() {
        return photos.clone();
    }

    /** Taken until so many seconds after the start. */
    public double at(double seconds) {
        double before = 0;
        List<Timeline.Span> spans = timeline.spans();
        for (int i = 0; i < spans.size(); i++) {
            if (seconds < spans.get(i).toS()) {
                return before + leg(i, Math.max(spans.get(i).fromS(), seconds));
            }
            before = ends[i];
        }
        return whole();
    }

    /** What a straight level way takes from corner to corner; infinite where the wind forbids it. */
    public static double straight(Pace pace, Effort effort, PlanePoint from, PlanePoint to, double wantedMps) {
        double track = from.bearingRad(to);
        SpeedProfile profile = pace.corners(from.distanceM(to), track, wantedMps);
        double whole = profile.seconds();
        return Double.isInfinite(whole)
                ? whole
                : between(profile, 0, whole, ground -> effort.level(pace.airspeedMps(track, ground)));
    }

    /** The integral of a rate over a part of a speed profile. */
    static double between(SpeedProfile profile, double fromS, double toS, DoubleUnaryOperator rateAtGround) {
        double[] corners = profile.cornersS();
        double sum = 0;
        double from = fromS;
        for (double corner : corners) {
            double to = Math.min(toS, corner);
            if (to > from) {
                sum += piece(profile, from, to, rateAtGround);
                from = to;
            }
        }
        return sum;
    }

    private static double piece(SpeedProfile profile, double from, double to, DoubleUnaryOperator rateAtGround) {
        double half = (to - from) / 2;
        double middle = (to + from) / 2;
        if (profile.speedAt(from) == profile.speedAt(to) && profile.speedAt(middle) == profile.speedAt(to)) {
            return 2 * half * rateAtGround.applyAsDouble(profile.speedAt(middle));
        }
        return half
                * Arrays.stream(new int[] {0, 1, 2, 3})
                        .mapToDouble(
                                i -> WEIGHTS[i] * rateAtGround.applyAsDouble(profile.speedAt(middle + half * NODES[i])))
                        .sum();
    }
}

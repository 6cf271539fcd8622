package yalos.core.pattern;

import yalos.core.block.PlaneBlock;
import yalos.core.flight.SpeedProfile;

/**
 * In which direction do the strips over this block take the least time?
 *
 * <p>All directions by half degrees are flown in thought, and those of the convex hull's edges besides; the flight time
 * is the same one that {@link StripLayout} counts. Ties go to the smaller angle.
 */
public final class BestDirection {
    private static final int STEPS = 360;

    private final BandSweep sweep;
    private final StripPattern pattern;

    private BestDirection(PlaneBlock block, StripPattern pattern) {
        this.sweep = StripLayout.sweepOf(block, pattern);
        this.pattern = pattern;
    }

    /** A direction in radians clockwise from grid north, 0 to π, and its flight time. */
    public record Choice(double directionRad, double flightTimeS) {}

    /** The direction of least flight time. */
    public static Choice of(PlaneBlock block, StripPattern pattern) {
        BestDirection search = new BestDirection(block, pattern);
        Choice best = new Choice(0, Double.MAX_VALUE);
        for (int i = 0; i < STEPS; i++) {
            best = search.better(best, i * Math.PI / STEPS);
        }
        double[] hull = block.hull();
        for (int i = 0, j = hull.length - 2; i < hull.length; j = i, i += 2) {
            double edge = Math.atan2(hull[i] - hull[j], hull[i + 1] - hull[j + 1]);
            best = search.better(best, (edge + 2 * Math.PI) % Math.PI);
        }
        return best;
    }

    private Choice better(Choice best, double directionRad) {
        double time = flightTimeS(directionRad);
        return time < best.flightTimeS() - 1e-9 ? new Choice(directionRad, time) : best;
    }

    /** The flight time of {@link StripLayout} without its stations. */
    private double flightTimeS(double directionRad) {
        sweep.sweep(directionRad);
        Serpentine order = Serpentine.nearest(sweep, pattern);
        SpeedProfile profile = pattern.profile();
        double speed = pattern.speedMps();
        double time = pattern.climbAndDescentS();
        double hereAlong = 0;
        double hereAcross = 0;
        boolean somewhere = pattern.launch().isPresent();
        if (somewhere) {
            double[] launch = pattern.launch().get();
            hereAlong = sweep.along(launch[0], launch[1]);
            hereAcross = sweep.across(launch[0], launch[1]);
        }
        double launchAlong = hereAlong;
        double launchAcross = hereAcross;
        boolean first = true;
        for (int turn = 0; turn < sweep.bands(); turn++) {
            int band = order.band(turn, sweep.bands());
            if (sweep.strips(band) == 0) {
                continue;
            }
            double low = end(band, 0, false);
            double high = end(band, sweep.strips(band) - 1, true);
            double start = order.reversed(turn) ? high : low;
            double across = sweep.middle(band);
            if (somewhere) {
                time += first
                        ? pattern.transitSeconds(Math.hypot(start - hereAlong, across - hereAcross))
                        : pattern.turnSeconds(across - hereAcross, start - hereAlong);
            }
            first = false;
            time += profile.seconds(high - low, speed);
            hereAlong = order.reversed(turn) ? low : high;
            hereAcross = across;
            somewhere = true;
        }
        if (pattern.launch().isPresent()) {
            time += pattern.transitSeconds(Math.hypot(launchAlong - hereAlong, launchAcross - hereAcross));
        }
        return time;
    }

    /** First or last station of a strip, in metres along. */
    private double end(int band, int strip, boolean last) {
        double from = sweep.from(band, strip);
        double to = sweep.to(band, strip);
        double half = pattern.stripLengthM(to - from) / 2;
        return (from + to) / 2 + (last ? half : -half);
    }
}

package yalos.core.pattern;

import java.util.Optional;
import yalos.core.geodesy.PlanePoint;

/**
 * In which order are the strips flown? Band by band, turning round after each, from the corner nearest the launch point.
 *
 * @param fromLastBand whether the last band comes first
 * @param againstDirection whether the first band flown is flown against the direction
 */
record Serpentine(boolean fromLastBand, boolean againstDirection) {

    /** The order that starts at the corner nearest the launch point; without one, at the first band in the direction. */
    static Serpentine nearest(BandSweep sweep, Optional<PlanePoint> launch) {
        Serpentine best = new Serpentine(false, false);
        if (launch.isEmpty()) {
            return best;
        }
        double least = Double.MAX_VALUE;
        for (boolean fromLast : new boolean[] {false, true}) {
            for (boolean against : new boolean[] {false, true}) {
                Serpentine order = new Serpentine(fromLast, against);
                int band = order.band(0, sweep.bands());
                double along = against ? sweep.to(band, sweep.strips(band) - 1) : sweep.from(band, 0);
                double distance = sweep.point(along, band).distanceM(launch.get());
                if (distance < least) {
                    least = distance;
                    best = order;
                }
            }
        }
        return best;
    }

    /** The band flown as number {@code turn} of {@code bands}, both from 0. */
    int band(int turn, int bands) {
        return fromLastBand ? bands - 1 - turn : turn;
    }

    /** Whether the band flown as number {@code turn} is flown against the direction. */
    boolean reversed(int turn) {
        return againstDirection ^ (turn % 2 == 1);
    }
}

package yalos.core.flight;

import java.util.List;
import yalos.core.geodesy.PlanePoint;

/**
 * A straight flight line from its first exposure to its last: what is mapped is mapped from here.
 *
 * @param pass number of its pass, from 1
 * @param number in the flight, from 1, in the order flown
 * @param strip number of the strip it belongs to, from 1: a strip that bends has several lines
 * @param from first exposure
 * @param to last exposure
 * @param trackRad direction flown, clockwise from grid north, 0 to 2π; its own, for a line of one exposure has no length to tell it
 * @param upM see {@link Way#upM()}
 * @param speedMps see {@link Way#speedMps()}
 * @param firstExposure place of its first exposure in the flight's list, from 0
 * @param exposures how many it has
 */
public record Line(
        int pass,
        int number,
        int strip,
        PlanePoint from,
        PlanePoint to,
        double trackRad,
        double[] upM,
        double speedMps,
        int firstExposure,
        int exposures)
        implements Way {
    /** Between places at which the heights of a part are looked up. */
    private static final double STEP_M = 2.5;

    @Override
    public double lengthM() {
        return from.distanceM(to);
    }

    @Override
    public PlanePoint pointAt(double alongM) {
        double length = lengthM();
        double share = length == 0 ? 0 : alongM / length;
        return new PlanePoint(from.xM() + (to.xM() - from.xM()) * share, from.yM() + (to.yM() - from.yM()) * share);
    }

    @Override
    public double trackRadAt(double alongM) {
        return trackRad;
    }

    @Override
    public Line withHeights(double[] other) {
        return new Line(pass, number, strip, from, to, trackRad, other, speedMps, firstExposure, exposures);
    }

    /** The same line under another number, with other photos. */
    Line numbered(int other, int firstOne, int count) {
        return new Line(pass, other, strip, from, to, trackRad, upM, speedMps, firstOne, count);
    }

    /**
     * The part of it between two places along it, at the same heights.
     *
     * @param photos evenly spread over it, whose heights are kept to the last digit
     */
    public Line part(double beginM, double endM, int photos) {
        if (beginM == 0 && endM == lengthM()) {
            return this;
        }
        int bases = Math.max(1, photos - 1);
        int steps = bases * (int) Math.max(1, Math.ceil((endM - beginM) / bases / STEP_M));
        double[] up = new double[steps + 1];
        for (int i = 0; i <= steps; i++) {
            up[i] = upAt(beginM + (endM - beginM) * i / steps);
        }
        return new Line(
                pass, number, strip, pointAt(beginM), pointAt(endM), trackRad, up, speedMps, firstExposure, exposures);
    }

    @Override
    public List<PlanePoint> shape() {
        return List.of(from, to);
    }
}

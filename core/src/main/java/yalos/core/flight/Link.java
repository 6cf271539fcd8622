package yalos.core.flight;

import java.util.List;
import yalos.core.geodesy.PlanePoint;

/**
 * A straight way on which nothing is mapped.
 *
 * @param kind what it is flown for
 * @param upM see {@link Way#upM()}
 * @param speedMps see {@link Way#speedMps()}
 */
public record Link(Kind kind, PlanePoint from, PlanePoint to, double[] upM, double speedMps) implements Way {
    /** What a way without photos is flown for. */
    public enum Kind {
        /** From a launch point to the first exposure of a sortie. */
        OUT,
        /** From one line to the next. */
        TURN,
        /** On to the next line of a run without braking: straight over a gap in the block, or round a gentle bend. */
        GAP,
        /** Straight at full speed, for a lidar's alignment. */
        ALIGN,
        /** From the last exposure of a sortie back to a launch point. */
        HOME;

        /** Whether it is flown between launch point and block. */
        public boolean transit() {
            return this == OUT || this == HOME;
        }
    }

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
        return from.bearingRad(to);
    }

    @Override
    public Link withHeights(double[] other) {
        return new Link(kind, from, to, other, speedMps);
    }

    @Override
    public List<PlanePoint> shape() {
        return List.of(from, to);
    }
}

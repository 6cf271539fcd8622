package yalos.core.flight;

import java.util.ArrayList;
import java.util.List;
import yalos.core.geodesy.PlanePoint;

/**
 * A part of a circle, such as a wing's turn.
 *
 * @param centre of the circle
 * @param radiusM of it
 * @param fromRad direction from the centre to the start, clockwise from grid north
 * @param sweepRad angle flown round the centre, positive to the right (clockwise seen from above)
 * @param upM see {@link Way#upM()}
 * @param speedMps see {@link Way#speedMps()}
 */
public record Arc(PlanePoint centre, double radiusM, double fromRad, double sweepRad, double[] upM, double speedMps)
        implements Way {
    private static final double DRAWN_STEP_RAD = Math.toRadians(10);

    /** The arc that leaves a place in a direction and turns by an angle, positive to the right. */
    public static Arc turning(PlanePoint from, double trackRad, double sweepRad, double radiusM, double speedMps) {
        double side = Math.signum(sweepRad) * Math.PI / 2;
        PlanePoint centre = from.moved(trackRad + side, radiusM);
        return new Arc(centre, radiusM, trackRad - side, sweepRad, Way.level(0), speedMps);
    }

    @Override
    public double lengthM() {
        return Math.abs(sweepRad) * radiusM;
    }

    @Override
    public PlanePoint pointAt(double alongM) {
        return centre.moved(fromRad + turned(alongM), radiusM);
    }

    @Override
    public double trackRadAt(double alongM) {
        double track = fromRad + turned(alongM) + Math.signum(sweepRad) * Math.PI / 2;
        return ((track % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    }

    private double turned(double alongM) {
        return Math.signum(sweepRad) * alongM / radiusM;
    }

    @Override
    public Arc withHeights(double[] other) {
        return new Arc(centre, radiusM, fromRad, sweepRad, other, speedMps);
    }

    @Override
    public List<PlanePoint> shape() {
        int steps = (int) Math.max(1, Math.ceil(Math.abs(sweepRad) / DRAWN_STEP_RAD));
        List<PlanePoint> points = new ArrayList<>();
        for (int i = 0; i <= steps; i++) {
            points.add(pointAt(lengthM() * i / steps));
        }
        return points;
    }
}

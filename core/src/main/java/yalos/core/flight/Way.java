package yalos.core.flight;

import java.util.List;
import yalos.core.geodesy.PlanePoint;

/**
 * A leg that covers ground: straight or round, with its own height at each of an even number of steps.
 *
 * <p>Lengths along a way are level: what it climbs does not lengthen it. That is 0.5 % at 10 %, 2 % at 20 %, about what the ground
 * speed of an aircraft that climbs loses besides.
 */
public sealed interface Way extends Leg permits Line, Link, Arc {

    /** Level length in metres. */
    double lengthM();

    /** Ground speed it is flown at in still air, in metres a second. */
    double speedMps();

    /** Heights at even steps from start to end, two or more, as {@link Place#upM()}. */
    double[] upM();

    /** The place so far along in the plane. */
    PlanePoint pointAt(double alongM);

    /** Direction flown there, clockwise from grid north, 0 to 2π. */
    double trackRadAt(double alongM);

    /** The same way at other heights. */
    Way withHeights(double[] upM);

    /** The way as a line of points, for drawing: straight ways their ends, arcs one for each ten degrees. */
    List<PlanePoint> shape();

    /** Height so far along, between the steps in proportion. */
    default double upAt(double alongM) {
        double[] up = upM();
        if (lengthM() == 0) {
            return up[0];
        }
        double step = Math.max(0, Math.min(up.length - 1.0, alongM / lengthM() * (up.length - 1)));
        int low = (int) Math.min(up.length - 2.0, Math.floor(step));
        return up[low] + (up[low + 1] - up[low]) * (step - low);
    }

    default Place placeAt(double alongM) {
        return Place.over(pointAt(alongM), upAt(alongM));
    }

    @Override
    default Place start() {
        return Place.over(pointAt(0), upM()[0]);
    }

    @Override
    default Place end() {
        return Place.over(pointAt(lengthM()), upM()[upM().length - 1]);
    }

    /** Heights of a way that stays level. */
    static double[] level(double upM) {
        return new double[] {upM, upM};
    }
}

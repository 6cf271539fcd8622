package yalos.core.measured;

import java.util.List;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;

/**
 * The similarity of the plane that brings measured marks nearest to what they are known to be: a shift of their middle, a turn and a scale (Helmert's four parameters, least
 * squares). It is told and never applied: a turn or a scale means a wrong system, a shift alone a wrong base.
 *
 * @param eastM shift of the marks' middle
 * @param turnRad counter-clockwise, from measured to known
 * @param scale known over measured
 * @param leftM largest distance that is left
 */
public record Helmert(double eastM, double northM, double turnRad, double scale, double leftM) {

    /**
     * @param measured places of at least two marks
     * @param known the same marks in the same order
     * @throws InputFault for fewer than two marks, or marks all at one place
     */
    public static Helmert of(List<PlanePoint> measured, List<PlanePoint> known) {
        PlanePoint from = middle(measured);
        PlanePoint to = middle(known);
        double along = 0;
        double across = 0;
        double size = 0;
        for (int i = 0; i < measured.size(); i++) {
            double x = measured.get(i).xM() - from.xM();
            double y = measured.get(i).yM() - from.yM();
            double u = known.get(i).xM() - to.xM();
            double v = known.get(i).yM() - to.yM();
            along += x * u + y * v;
            across += x * v - y * u;
            size += x * x + y * y;
        }
        if (measured.size() < 2 || !(size > 0)) {
            throw new InputFault(
                    "marks", measured.size(), "Two marks at different places are needed for a turn and a scale.");
        }
        double cos = along / size;
        double sin = across / size;
        double left = 0;
        for (int i = 0; i < measured.size(); i++) {
            double x = measured.get(i).xM() - from.xM();
            double y = measured.get(i).yM() - from.yM();
            PlanePoint moved = new PlanePoint(to.xM() + cos * x - sin * y, to.yM() + sin * x + cos * y);
            left = Math.max(left, moved.distanceM(known.get(i)));
        }
        return new Helmert(to.xM() - from.xM(), to.yM() - from.yM(), Math.atan2(sin, cos), Math.hypot(cos, sin), left);
    }

    private static PlanePoint middle(List<PlanePoint> places) {
        return new PlanePoint(
                places.stream().mapToDouble(PlanePoint::xM).average().orElse(0),
                places.stream().mapToDouble(PlanePoint::yM).average().orElse(0));
    }
}

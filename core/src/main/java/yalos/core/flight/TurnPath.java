package yalos.core.flight;

/**
 * How long is the way round from one strip into its neighbour for an aircraft that cannot turn on the spot?
 *
 * <p>Arcs of the turning radius r. Strips at least 2r apart are joined by two quarter circles and a straight piece; closer
 * ones by a bulb: out by an angle α, round by π + 2α, back by α, with cos α = (2r + S) / 4r. At S = 2r both give a half
 * circle. Plane geometry.
 */
public final class TurnPath {
    private TurnPath() {}

    /** Length in metres from the end of a strip to the start of the next one flown the other way, {@code spacingM} aside. */
    public static double lengthM(double spacingM, double radiusM) {
        if (spacingM >= 2 * radiusM) {
            return Math.PI * radiusM + spacingM - 2 * radiusM;
        }
        double out = Math.acos((2 * radiusM + spacingM) / (4 * radiusM));
        return radiusM * (Math.PI + 4 * out);
    }
}

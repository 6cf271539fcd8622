package yalos.core.geodesy;

/**
 * A place in a block's plane of true metres: {@code x} along grid east, {@code y} along grid north, from the plane's own origin.
 */
public record PlanePoint(double xM, double yM) {

    /** Straight distance to another place, in metres. */
    public double distanceM(PlanePoint other) {
        // distances within a block neither overflow nor vanish, and the plain root is several times quicker than hypot
        double x = other.xM - xM;
        double y = other.yM - yM;
        return Math.sqrt(x * x + y * y);
    }

    /** Direction to another place, clockwise from grid north, 0 to 2π; 0 to itself. */
    public double bearingRad(PlanePoint other) {
        double bearing = Math.atan2(other.xM - xM, other.yM - yM);
        return bearing < 0 ? bearing + 2 * Math.PI : bearing;
    }

    /** The place so far away in a direction clockwise from grid north. */
    public PlanePoint moved(double bearingRad, double byM) {
        return new PlanePoint(xM + byM * Math.sin(bearingRad), yM + byM * Math.cos(bearingRad));
    }
}

package yalos.core.geodesy;

/**
 * Earth-centred coordinates on the WGS84 ellipsoid: x towards the meridian of Greenwich, y towards 90° east, z towards the north pole, in metres. The way back is iterated to less than
 * a hundredth of a millimetre at any height that is flown (Bowring 1976 for the beginning, from memory).
 */
public record Geocentric(double xM, double yM, double zM) {
    private static final double A = 6_378_137;
    private static final double F = 1 / 298.257223563;
    private static final double E2 = F * (2 - F);
    private static final int STEPS = 6;

    /** A place with its height above the ellipsoid. */
    public record Place(LonLat at, double ellipsoidM) {}

    public static Geocentric of(LonLat at, double ellipsoidM) {
        double lat = Math.toRadians(at.latDeg());
        double lon = Math.toRadians(at.lonDeg());
        double n = curvature(lat);
        double across = (n + ellipsoidM) * Math.cos(lat);
        return new Geocentric(
                across * Math.cos(lon), across * Math.sin(lon), (n * (1 - E2) + ellipsoidM) * Math.sin(lat));
    }

    /** Radius of curvature across the meridian. */
    private static double curvature(double lat) {
        double sin = Math.sin(lat);
        return A / Math.sqrt(1 - E2 * sin * sin);
    }

    public Place place() {
        double across = Math.hypot(xM, yM);
        double lat = Math.atan2(zM, across * (1 - E2));
        for (int i = 0; i < STEPS; i++) {
            double sin = Math.sin(lat);
            lat = Math.atan2(zM + E2 * curvature(lat) * sin, across);
        }
        // Near the poles the way along the axis is the exact one.
        double height = Math.abs(Math.toDegrees(lat)) < 45
                ? across / Math.cos(lat) - curvature(lat)
                : zM / Math.sin(lat) - curvature(lat) * (1 - E2);
        return new Place(LonLat.of(Math.toDegrees(Math.atan2(yM, xM)), Math.toDegrees(lat)), height);
    }

    public Geocentric plus(Geocentric vector) {
        return new Geocentric(xM + vector.xM, yM + vector.yM, zM + vector.zM);
    }

    public Geocentric minus(Geocentric other) {
        return new Geocentric(xM - other.xM, yM - other.yM, zM - other.zM);
    }

    /** This vector as east, north, up at a place. */
    public double[] eastNorthUp(LonLat at) {
        double lat = Math.toRadians(at.latDeg());
        double lon = Math.toRadians(at.lonDeg());
        double out = xM * Math.cos(lon) + yM * Math.sin(lon);
        return new double[] {
            -xM * Math.sin(lon) + yM * Math.cos(lon),
            zM * Math.cos(lat) - out * Math.sin(lat),
            out * Math.cos(lat) + zM * Math.sin(lat)
        };
    }

    public double lengthM() {
        return Math.sqrt(xM * xM + yM * yM + zM * zM);
    }
}

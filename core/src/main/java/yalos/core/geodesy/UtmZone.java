package yalos.core.geodesy;

/**
 * Which UTM zone a position belongs to, with the exceptions for south-west Norway and Svalbard; beyond 84° north and
 * 80° south the polar stereographic grids of the same family.
 *
 * <p>NGA.SIG.0012 (from memory).
 */
public final class UtmZone {
    private UtmZone() {}

    /** Zone number 1..60 of a position. */
    public static int number(LonLat at) {
        double lat = at.latDeg();
        double lon = at.lonDeg() == 180 ? -180 : at.lonDeg();
        if (lat >= 56 && lat < 64 && lon >= 3 && lon < 12) {
            return 32;
        }
        if (lat >= 72 && lat < 84 && lon >= 0 && lon < 42) {
            return lon < 9 ? 31 : lon < 21 ? 33 : lon < 33 ? 35 : 37;
        }
        return (int) Math.floor((lon + 180) / 6) + 1;
    }

    /** EPSG code of the WGS84 grid for a position. */
    public static int epsg(LonLat at) {
        if (at.latDeg() >= 84) {
            return 32661;
        }
        if (at.latDeg() < -80) {
            return 32761;
        }
        return (at.latDeg() >= 0 ? 32600 : 32700) + number(at);
    }
}

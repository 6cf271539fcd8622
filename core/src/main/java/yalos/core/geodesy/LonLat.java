package yalos.core.geodesy;

import java.math.BigDecimal;
import yalos.core.fault.InputFault;

/**
 * A position on the WGS84 ellipsoid.
 *
 * @param lonDeg degrees east of Greenwich, brought into -180..180
 * @param latDeg degrees north of the equator, -90..90
 */
public record LonLat(double lonDeg, double latDeg) {
    public LonLat {
        if (!Double.isFinite(lonDeg) || !Double.isFinite(latDeg)) {
            throw new InputFault(
                    "coordinates",
                    lonDeg + ", " + latDeg,
                    "A coordinate is not a finite number. Longitude and latitude must be.");
        }
        if (Math.abs(latDeg) > 90 || Math.abs(lonDeg) > 360) {
            throw new InputFault("coordinates", lonDeg + ", " + latDeg, outOfRange(lonDeg, latDeg));
        }
        lonDeg = normalised(lonDeg);
    }

    /** A position by longitude and latitude in degrees, east and north positive. */
    public static LonLat of(double lonDeg, double latDeg) {
        return new LonLat(lonDeg, latDeg);
    }

    /** Longitude within 180° of another one, for plane work across the date line; may leave -180..180. */
    public double lonNear(double otherLonDeg) {
        double lon = lonDeg;
        while (lon - otherLonDeg > 180) {
            lon -= 360;
        }
        while (lon - otherLonDeg < -180) {
            lon += 360;
        }
        return lon;
    }

    /** Whether the two figures could be exchanged and still be a position. */
    public boolean swappable() {
        return Math.abs(lonDeg) <= 90;
    }

    /** The position with the two figures exchanged. */
    public LonLat swapped() {
        return new LonLat(latDeg, lonDeg);
    }

    private static double normalised(double lonDeg) {
        double lon = lonDeg;
        if (lon > 180) {
            lon -= 360;
        }
        if (lon < -180) {
            lon += 360;
        }
        return lon;
    }

    private static String outOfRange(double lonDeg, double latDeg) {
        String where = "“%s, %s” is no longitude and latitude in degrees".formatted(plain(lonDeg), plain(latDeg));
        if (Math.abs(lonDeg) > 1000 || Math.abs(latDeg) > 1000) {
            return where
                    + "; it looks like metres or feet of a projected grid. Save the outline as WGS84 longitude and latitude, or name its EPSG code.";
        }
        if (Math.abs(lonDeg) <= 90 && Math.abs(latDeg) <= 180) {
            return where + "; latitude and longitude may be swapped. GeoJSON and KML want the longitude first.";
        }
        return where + ": longitude must be within ±180, latitude within ±90.";
    }

    private static String plain(double figure) {
        return BigDecimal.valueOf(figure).stripTrailingZeros().toPlainString();
    }
}

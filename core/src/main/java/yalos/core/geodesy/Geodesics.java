package yalos.core.geodesy;

import java.util.List;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import net.sf.geographiclib.PolygonArea;
import net.sf.geographiclib.PolygonResult;

/**
 * Distances, azimuths and areas on the WGS84 ellipsoid, by GeographicLib: Karney 2013, <i>Algorithms for geodesics</i>
 * (from memory), good to nanometres. Edges of polygons are geodesics; a polygon may cross the date line.
 */
public final class Geodesics {
    private Geodesics() {}

    /** The shortest line between two positions: length in metres, azimuths in degrees from true north, 0..360. */
    public record Line(double distanceM, double azimuthAtStartDeg, double azimuthAtEndDeg) {}

    /** Size of a closed ring. Area is positive whichever way the ring runs. */
    public record RingSize(double areaM2, double perimeterM) {}

    /** The shortest line on the ellipsoid: its length and its azimuth at both ends. */
    public static Line between(LonLat from, LonLat to) {
        GeodesicData data = Geodesic.WGS84.Inverse(from.latDeg(), from.lonDeg(), to.latDeg(), to.lonDeg());
        return new Line(data.s12, positive(data.azi1), positive(data.azi2));
    }

    /** Length of the shortest line on the ellipsoid, in metres. */
    public static double distanceM(LonLat from, LonLat to) {
        return between(from, to).distanceM();
    }

    /**
     * @param ring corners, the first not repeated at the end
     */
    public static RingSize sizeOf(List<LonLat> ring) {
        PolygonArea polygon = new PolygonArea(Geodesic.WGS84, false);
        ring.forEach(corner -> polygon.AddPoint(corner.latDeg(), corner.lonDeg()));
        PolygonResult result = polygon.Compute(false, true);
        return new RingSize(Math.abs(result.area), result.perimeter);
    }

    private static double positive(double azimuthDeg) {
        double azimuth = azimuthDeg % 360;
        return azimuth < 0 ? azimuth + 360 : azimuth;
    }
}

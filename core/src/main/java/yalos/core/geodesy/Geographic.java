package yalos.core.geodesy;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.locationtech.proj4j.BasicCoordinateTransform;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;

/**
 * A coordinate system of longitudes and latitudes, known by its EPSG code: positions of its datum to WGS84 and back.
 *
 * <p>KNOWN LIMITS: datum shifts are the simple ones of three or seven parameters, good to about 1 to 5 m; those that need a grid of shifts
 * are not used. Geocentric systems (such as 4978) and grids whose code happens to lie among the geographic ones (such as 4647) are none.
 */
public final class Geographic {
    private static final String WGS84 = "+proj=longlat +datum=WGS84 +no_defs";
    private static final Map<Integer, Optional<Geographic>> KNOWN = new ConcurrentHashMap<>();

    private final BasicCoordinateTransform toWgs84;
    private final BasicCoordinateTransform fromWgs84;

    private Geographic(CoordinateReferenceSystem system, CoordinateReferenceSystem wgs84) {
        toWgs84 = new BasicCoordinateTransform(system, wgs84);
        fromWgs84 = new BasicCoordinateTransform(wgs84, system);
    }

    /** The system of a code; empty where the code is unknown or of another kind. */
    public static Optional<Geographic> ofEpsg(int epsg) {
        return KNOWN.computeIfAbsent(epsg, Geographic::found);
    }

    private static Optional<Geographic> found(int epsg) {
        CRSFactory factory = new CRSFactory();
        try {
            CoordinateReferenceSystem system = factory.createFromName("EPSG:" + epsg);
            boolean geographic = system != null
                    && system.getProjection() != null
                    && Boolean.TRUE.equals(system.isGeographic())
                    && !system.getParameterString().contains("geocent");
            return geographic
                    ? Optional.of(new Geographic(system, factory.createFromParameters("WGS84", WGS84)))
                    : Optional.empty();
        } catch (Proj4jException | IllegalStateException | IllegalArgumentException unknown) {
            return Optional.empty();
        }
    }

    /**
     * The WGS84 position of a longitude and latitude of this system, in degrees.
     *
     * @throws yalos.core.fault.InputFault for a latitude beyond the poles
     */
    public LonLat toWgs84(double lonDeg, double latDeg) {
        ProjCoordinate out = transformed(toWgs84, lonDeg, latDeg);
        return LonLat.of(out.x, out.y);
    }

    /** Longitude and latitude of a WGS84 position in this system, in degrees. */
    public LonLat ofWgs84(LonLat at) {
        ProjCoordinate out = transformed(fromWgs84, at.lonDeg(), at.latDeg());
        return LonLat.of(out.x, out.y);
    }

    private static ProjCoordinate transformed(BasicCoordinateTransform transform, double x, double y) {
        ProjCoordinate out = new ProjCoordinate();
        transform.transform(new ProjCoordinate(x, y), out);
        return out;
    }
}

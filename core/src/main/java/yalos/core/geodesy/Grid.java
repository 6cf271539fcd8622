package yalos.core.geodesy;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import org.locationtech.proj4j.BasicCoordinateTransform;
import org.locationtech.proj4j.CRSFactory;
import org.locationtech.proj4j.CoordinateReferenceSystem;
import org.locationtech.proj4j.Proj4jException;
import org.locationtech.proj4j.ProjCoordinate;
import yalos.core.fault.InputFault;

/**
 * A projected grid, known by its EPSG code: WGS84 positions to eastings and northings and back.
 *
 * <p>Projection by proj4j, within a millimetre of the reference for UTM. Where a grid stands on another datum only the
 * simple shift of three or seven parameters is applied, which is good to a few metres at best; the grid-based shifts
 * of national surveys are not included.
 */
public final class Grid {
    private static final String WGS84 = "+proj=longlat +datum=WGS84 +no_defs";
    private static final double PROBE_M = 50;
    private static final Map<Integer, Grid> KNOWN = new ConcurrentHashMap<>();

    private final int epsg;
    private final double unitM;
    private final BasicCoordinateTransform forward;
    private final BasicCoordinateTransform backward;

    private Grid(int epsg) {
        this.epsg = epsg;
        CRSFactory factory = new CRSFactory();
        CoordinateReferenceSystem geographic = factory.createFromParameters("WGS84", WGS84);
        CoordinateReferenceSystem projected = projected(factory, epsg);
        forward = new BasicCoordinateTransform(geographic, projected);
        backward = new BasicCoordinateTransform(projected, geographic);
        unitM = 1 / projected.getProjection().getFromMetres();
    }

    private static CoordinateReferenceSystem projected(CRSFactory factory, int epsg) {
        CoordinateReferenceSystem found;
        try {
            found = factory.createFromName("EPSG:" + epsg);
        } catch (Proj4jException | IllegalStateException | IllegalArgumentException e) {
            throw new InputFault("epsg", epsg, "EPSG:%d is not a grid this program knows.".formatted(epsg));
        }
        if (found == null || found.getProjection() == null || Boolean.TRUE.equals(found.isGeographic())) {
            throw new InputFault(
                    "epsg",
                    epsg,
                    "EPSG:%d is not a projected grid. Give the code of a grid with eastings and northings, such as 32630."
                            .formatted(epsg));
        }
        return found;
    }

    /**
     * @throws InputFault for a code that is unknown or not of a projected grid
     */
    public static Grid ofEpsg(int epsg) {
        return KNOWN.computeIfAbsent(epsg, Grid::new);
    }

    /** The UTM grid of a position. */
    public static Grid utmAt(LonLat at) {
        return ofEpsg(UtmZone.epsg(at));
    }

    /** Its EPSG code. */
    public int epsg() {
        return epsg;
    }

    /** Metres in one unit of the grid; 1 for metric grids. */
    public double unitM() {
        return unitM;
    }

    /** Short name for the title block: {@code UTM 30N} or {@code EPSG:27700}. */
    public String shortName() {
        if (epsg > 32600 && epsg <= 32660) {
            return "UTM " + (epsg - 32600) + "N";
        }
        if (epsg > 32700 && epsg <= 32760) {
            return "UTM " + (epsg - 32700) + "S";
        }
        return "EPSG:" + epsg;
    }

    /**
     * @throws InputFault where the position lies outside what the projection can show
     */
    public EastNorth toGrid(LonLat at) {
        ProjCoordinate out = transform(forward, at.lonDeg(), at.latDeg());
        if (!Double.isFinite(out.x) || !Double.isFinite(out.y)) {
            throw new InputFault(
                    "epsg",
                    epsg,
                    "%s cannot show the position %.5f, %.5f.".formatted(shortName(), at.lonDeg(), at.latDeg()));
        }
        return new EastNorth(out.x, out.y);
    }

    /**
     * @throws InputFault where the grid position lies outside what the projection can show
     */
    public LonLat toLonLat(EastNorth at) {
        ProjCoordinate out = transform(backward, at.east(), at.north());
        if (!Double.isFinite(out.x) || !Double.isFinite(out.y)) {
            throw new InputFault(
                    "coordinates",
                    "%.3f, %.3f".formatted(at.east(), at.north()),
                    "The position lies outside what %s can show.".formatted(shortName()));
        }
        return LonLat.of(out.x, out.y);
    }

    /**
     * The azimuth of grid north at a position, in radians, positive when grid north lies east of true north: true
     * azimuth = grid azimuth + convergence.
     */
    public double convergenceRad(LonLat at) {
        double[] d = northProbe(at);
        return -Math.atan2(d[0], d[1]);
    }

    /** Grid metres per metre on the ellipsoid at a position, along the meridian; the same all round in conformal grids. */
    public double pointScale(LonLat at) {
        return scaleOf(northProbe(at));
    }

    /** Square root of grid area over area on the ellipsoid: the scale that serves best where a grid is not conformal. */
    public double meanScale(LonLat at) {
        return Math.sqrt(scaleOf(northProbe(at)) * scaleOf(probe(at, 90)));
    }

    private double scaleOf(double[] difference) {
        return Math.hypot(difference[0], difference[1]) * unitM / (2 * PROBE_M);
    }

    private double[] northProbe(LonLat at) {
        return probe(at, 0);
    }

    /** East and north difference, in grid units, of two points {@value #PROBE_M} m from a position, before and behind. */
    private double[] probe(LonLat at, double azimuthDeg) {
        EastNorth before = toGrid(displaced(at, azimuthDeg, PROBE_M));
        EastNorth behind = toGrid(displaced(at, azimuthDeg, -PROBE_M));
        return new double[] {before.east() - behind.east(), before.north() - behind.north()};
    }

    private static LonLat displaced(LonLat at, double azimuthDeg, double distanceM) {
        GeodesicData data = Geodesic.WGS84.Direct(at.latDeg(), at.lonDeg(), azimuthDeg, distanceM);
        return LonLat.of(data.lon2, data.lat2);
    }

    /** proj4j keeps scratch values in its transforms, so one is used by one thread at a time. */
    private static ProjCoordinate transform(BasicCoordinateTransform transform, double x, double y) {
        ProjCoordinate out = new ProjCoordinate();
        synchronized (transform) {
            try {
                transform.transform(new ProjCoordinate(x, y), out);
            } catch (Proj4jException | IllegalStateException e) {
                out.setValue(Double.NaN, Double.NaN);
            }
        }
        return out;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Grid grid && grid.epsg == epsg;
    }

    @Override
    public int hashCode() {
        return epsg;
    }

    @Override
    public String toString() {
        return "EPSG:" + epsg;
    }
}

package yalos.core.terrain;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import yalos.core.geodesy.LonLat;

/**
 * How far the geoid lies above the WGS84 ellipsoid: {@code h = H + N}, h above the ellipsoid, H above the geoid.
 *
 * <p>EGM96, the 15-minute grid (public-domain data of its makers), kept in centimetres and read by bilinear interpolation: within
 * 6 mm of the grid's own values, which differ from the full model by 4 cm typically, up to a metre in rough places.
 */
public final class Geoid {
    private static final String GRID = "/yalos/egm96_15_int16cm.tif";
    private static final Geoid EGM96 = load();

    private final float[] undulations;
    private final int columns;
    private final int rows;
    private final Georeference georeference;
    private final double unitM;

    private Geoid(GeoTiff grid) {
        columns = grid.columns();
        rows = grid.rows();
        georeference = grid.georeference();
        undulations = grid.window(0, 0, columns, rows);
        unitM = 0.01;
    }

    /** The geoid that is shipped. */
    public static Geoid egm96() {
        return EGM96;
    }

    private static Geoid load() {
        try {
            Path copy = Files.createTempFile("yalos-geoid", ".tif");
            try (InputStream in = Geoid.class.getResourceAsStream(GRID)) {
                Files.write(copy, in.readAllBytes());
                try (GeoTiff grid = GeoTiff.open(copy)) {
                    return new Geoid(grid);
                }
            } finally {
                Files.deleteIfExists(copy);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Height of the geoid above the ellipsoid, in metres. */
    public double undulationM(LonLat at) {
        double column = georeference.column(at.lonDeg(), at.latDeg()) - 0.5;
        if (column < 0) {
            column += 360 / georeference.cellWidth();
        }
        double row = Math.max(0, Math.min(rows - 1.0, georeference.row(at.lonDeg(), at.latDeg()) - 0.5));
        int west = (int) Math.floor(column);
        int north = (int) Math.min(rows - 2.0, Math.floor(row));
        double dx = column - west;
        double dy = row - north;
        int round = (int) Math.round(360 / georeference.cellWidth());
        double upper = mix(cell(west, north, round), cell(west + 1, north, round), dx);
        double lower = mix(cell(west, north + 1, round), cell(west + 1, north + 1, round), dx);
        return mix(upper, lower, dy) * unitM;
    }

    private double cell(int column, int row, int round) {
        int wrapped = Math.floorMod(column, round);
        return undulations[row * columns + Math.min(wrapped, columns - 1)];
    }

    private static double mix(double from, double to, double share) {
        return from + (to - from) * share;
    }
}

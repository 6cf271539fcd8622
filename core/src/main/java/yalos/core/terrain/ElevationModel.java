package yalos.core.terrain;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.Geographic;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.Range;

/**
 * An elevation model with its coordinate and height system, laid into the plane of a block.
 *
 * <p>Heights are read bilinearly. Between the plane and another coordinate system positions are transformed exactly every few
 * cells and interpolated between, which costs less than a hundredth of a cell.
 *
 * @param raster the file
 * @param epsg its coordinate system: a projected grid, or one of longitudes and latitudes such as 4326
 * @param datum its height system
 */
public record ElevationModel(Raster raster, int epsg, VerticalDatum datum) {
    private static final int LATTICE = 16;
    private static final int MOST_WINDOW = 60_000_000;

    /**
     * @param asked code the operator gave, where the file names none or a wrong one
     * @throws InputFault when nobody named a coordinate system, or its cells cannot be lengths or degrees
     */
    public static ElevationModel of(Raster raster, OptionalInt asked, VerticalDatum datum) {
        OptionalInt code = asked.isPresent() ? asked : raster.epsg();
        if (code.isEmpty()) {
            throw new InputFault(
                    "epsg",
                    "none",
                    "The model does not name its coordinate system. Give its EPSG code; it is not guessed.");
        }
        ElevationModel model = new ElevationModel(raster, code.getAsInt(), datum);
        model.refuseDegreesCalledMetres();
        return model;
    }

    /** Its system of longitudes and latitudes; empty where it lies in a projected grid. */
    private Optional<Geographic> geographic() {
        return Geographic.ofEpsg(epsg);
    }

    private Grid grid() {
        return Grid.ofEpsg(epsg);
    }

    private void refuseDegreesCalledMetres() {
        Georeference geo = raster.georeference();
        double[] xs = {geo.x(0, 0), geo.x(raster.columns(), raster.rows())};
        double[] ys = {geo.y(0, 0), geo.y(raster.columns(), raster.rows())};
        boolean looksGeographic = geo.cellWidth() < 0.02
                && Arrays.stream(xs).allMatch(x -> Math.abs(x) <= 360)
                && Arrays.stream(ys).allMatch(y -> Math.abs(y) <= 90);
        if (geographic().isEmpty() && looksGeographic) {
            throw new InputFault(
                    "epsg",
                    epsg,
                    "The model's cells are %.6f wide and lie at %.3f, %.3f: these are degrees, not metres of EPSG:%d. Its code is likely 4326."
                            .formatted(geo.cellWidth(), xs[0], ys[0], epsg));
        }
        if (geographic().isPresent() && Arrays.stream(ys).anyMatch(y -> Math.abs(y) > 90)) {
            throw new InputFault(
                    "epsg",
                    epsg,
                    "The model lies at %.0f, %.0f, which is no longitude and latitude. Name the EPSG code of its grid."
                            .formatted(xs[0], ys[0]));
        }
    }

    /** Position in the model's own coordinates. */
    private double[] own(LonLat at) {
        if (geographic().isPresent()) {
            Georeference geo = raster.georeference();
            double middle = geo.x(raster.columns() / 2.0, raster.rows() / 2.0);
            LonLat own = geographic().get().ofWgs84(at);
            return new double[] {own.lonNear(middle), own.latDeg()};
        }
        EastNorth grid = grid().toGrid(at);
        return new double[] {grid.east(), grid.north()};
    }

    private LonLat lonLat(double x, double y) {
        return geographic().isPresent() ? geographic().get().toWgs84(x, y) : grid().toLonLat(new EastNorth(x, y));
    }

    /** The corners of the model, as positions. */
    public List<LonLat> corners() {
        Georeference geo = raster.georeference();
        int c = raster.columns();
        int r = raster.rows();
        return List.of(
                lonLat(geo.x(0, 0), geo.y(0, 0)),
                lonLat(geo.x(c, 0), geo.y(c, 0)),
                lonLat(geo.x(c, r), geo.y(c, r)),
                lonLat(geo.x(0, r), geo.y(0, r)));
    }

    /** Size of a cell on the ground, in metres, at the model's middle. */
    public double cellM() {
        Georeference geo = raster.georeference();
        double c = raster.columns() / 2.0;
        double r = raster.rows() / 2.0;
        return Geodesics.distanceM(lonLat(geo.x(c, r), geo.y(c, r)), lonLat(geo.x(c + 1, r), geo.y(c + 1, r)));
    }

    /** Least and greatest height above the geoid, from at most a million cells spread over the model. */
    public Range rangeM() {
        int step = (int) Math.max(1, Math.ceil(Math.sqrt((double) raster.columns() * raster.rows() / 1_000_000)));
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        Georeference geo = raster.georeference();
        // Piece by piece as the file has them, so that each is unpacked once.
        int wide = Math.min(raster.columns(), raster.blockColumns());
        int high = Math.min(raster.rows(), raster.blockRows());
        for (int fromRow = 0; fromRow < raster.rows(); fromRow += high) {
            for (int fromColumn = 0; fromColumn < raster.columns(); fromColumn += wide) {
                float[] piece = raster.window(fromColumn, fromRow, wide, high);
                for (int row = (step - fromRow % step) % step; row < high; row += step) {
                    for (int column = (step - fromColumn % step) % step; column < wide; column += step) {
                        float cell = piece[row * wide + column];
                        if (!Float.isNaN(cell)) {
                            double height = datum.unit().toSi(cell) + datum.offsetM();
                            least = Math.min(least, height);
                            most = Math.max(most, height);
                        }
                    }
                }
            }
        }
        if (least > most) {
            throw new InputFault("file", "no heights", "The model holds no height at all, only nodata.");
        }
        double shift = datum.aboveGeoidM(
                        0,
                        lonLat(
                                geo.x(raster.columns() / 2.0, raster.rows() / 2.0),
                                geo.y(raster.columns() / 2.0, raster.rows() / 2.0)))
                - datum.offsetM();
        return new Range(least + shift, most + shift);
    }

    /** Whether a position lies within the raster, on known ground or not. */
    public boolean contains(LonLat at) {
        double[] own = own(at);
        Georeference geo = raster.georeference();
        double column = geo.column(own[0], own[1]);
        double row = geo.row(own[0], own[1]);
        return column >= 0 && row >= 0 && column <= raster.columns() && row <= raster.rows();
    }

    /** Height above the geoid at a position, in metres; not a number where the model knows nothing. */
    public double heightM(LonLat at) {
        double[] own = own(at);
        Georeference geo = raster.georeference();
        double column = geo.column(own[0], own[1]) - 0.5;
        double row = geo.row(own[0], own[1]) - 0.5;
        int c = (int) Math.max(0, Math.min(raster.columns() - 2.0, Math.floor(column)));
        int r = (int) Math.max(0, Math.min(raster.rows() - 2.0, Math.floor(row)));
        float[] four = raster.window(c, r, 2, 2);
        HeightGrid square = new HeightGrid(0, 0, 1, 1, 2, 2, four);
        double figure = square.at(column - c + 0.5, -(row - r) - 0.5);
        return Double.isNaN(figure) ? Double.NaN : datum.aboveGeoidM(figure, at);
    }

    /**
     * Fills those cells of a grid in the block's plane that are not known yet.
     *
     * @throws InputFault when so much of the model would have to be read that a coarser one serves better
     */
    public void fill(HeightGrid into, LocalPlane plane) {
        int across = (into.columns() + LATTICE - 1) / LATTICE + 1;
        int down = (into.rows() + LATTICE - 1) / LATTICE + 1;
        double[] columns = new double[across * down];
        double[] rows = new double[across * down];
        double[] shifts = new double[across * down];
        double minColumn = Double.MAX_VALUE;
        double maxColumn = -Double.MAX_VALUE;
        double minRow = Double.MAX_VALUE;
        double maxRow = -Double.MAX_VALUE;
        Georeference geo = raster.georeference();
        for (int j = 0; j < down; j++) {
            for (int i = 0; i < across; i++) {
                LonLat at = plane.toLonLat(into.x(i * LATTICE), into.y(j * LATTICE));
                double[] own = own(at);
                int k = j * across + i;
                columns[k] = geo.column(own[0], own[1]) - 0.5;
                rows[k] = geo.row(own[0], own[1]) - 0.5;
                shifts[k] = datum.aboveGeoidM(0, at);
                minColumn = Math.min(minColumn, columns[k]);
                maxColumn = Math.max(maxColumn, columns[k]);
                minRow = Math.min(minRow, rows[k]);
                maxRow = Math.max(maxRow, rows[k]);
            }
        }
        int firstColumn = (int) Math.max(0, Math.floor(minColumn) - 1);
        int firstRow = (int) Math.max(0, Math.floor(minRow) - 1);
        int wide = (int) Math.min(raster.columns(), Math.ceil(maxColumn) + 2) - firstColumn;
        int high = (int) Math.min(raster.rows(), Math.ceil(maxRow) + 2) - firstRow;
        if (wide <= 0 || high <= 0) {
            return;
        }
        if ((long) wide * high > MOST_WINDOW) {
            throw new InputFault(
                    "model",
                    wide + " × " + high,
                    "Over this block the model has %,d × %,d cells, more than are needed. Resample it to cells of %.1f m or more."
                            .formatted(wide, high, cellM() * Math.sqrt((double) wide * high / MOST_WINDOW) * 1.05));
        }
        HeightGrid window = new HeightGrid(0, 0, 1, 1, wide, high, raster.window(firstColumn, firstRow, wide, high));
        float[] heights = into.heights();
        for (int row = 0; row < into.rows(); row++) {
            int j = row / LATTICE;
            double dy = (row - j * LATTICE) / (double) LATTICE;
            for (int column = 0; column < into.columns(); column++) {
                int at = row * into.columns() + column;
                if (!Float.isNaN(heights[at])) {
                    continue;
                }
                int i = column / LATTICE;
                double dx = (column - i * LATTICE) / (double) LATTICE;
                int k = j * across + i;
                double c = mix(columns, k, across, dx, dy) - firstColumn;
                double r = mix(rows, k, across, dx, dy) - firstRow;
                double figure = window.at(c + 0.5, -r - 0.5);
                if (!Double.isNaN(figure)) {
                    heights[at] = (float) (datum.unit().toSi(figure) + mix(shifts, k, across, dx, dy));
                }
            }
        }
    }

    private static double mix(double[] values, int k, int across, double dx, double dy) {
        double upper = values[k] + (values[k + 1] - values[k]) * dx;
        double lower = values[k + across] + (values[k + across + 1] - values[k + across]) * dx;
        return upper + (lower - upper) * dy;
    }
}

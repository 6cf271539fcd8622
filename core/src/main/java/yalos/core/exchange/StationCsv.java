package yalos.core.exchange;

import java.io.IOException;
import java.util.Locale;
import java.util.OptionalDouble;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import yalos.core.geodesy.EastNorth;

/**
 * Exposure stations as CSV (RFC 4180): one line each, units in the column names. Heights nobody knows stay empty; what forbids flying the plan stands
 * in the last column of each line.
 */
public final class StationCsv {
    private static final String[] COLUMNS = {
        "index",
        "strip",
        "longitude_deg",
        "latitude_deg",
        "easting",
        "northing",
        "epsg",
        "height_above_takeoff_m",
        "height_above_ground_m",
        "height_above_geoid_m",
        "height_above_ellipsoid_m",
        "yaw_grid_deg",
        "yaw_true_deg",
        "pitch_deg",
        "roll_deg",
        "pass",
        "stop"
    };

    private StationCsv() {}

    /** Writes the photos of a plan, a line each, header first. */
    public static void write(PlanSheetData data, Appendable out) throws IOException {
        CSVFormat format = CSVFormat.RFC4180.builder().setHeader(COLUMNS).get();
        int epsg = data.plan().block().plane().grid().epsg();
        try (CSVPrinter printer = new CSVPrinter(out, format)) {
            for (PlanSheetData.StationPoint point : data.stations()) {
                EastNorth grid =
                        data.plan().block().plane().toGrid(point.exposure().point());
                PlanSheetData.StationHeights heights = data.heights(point.exposure());
                printer.printRecord(
                        point.number(),
                        point.exposure().line(),
                        decimals(point.at().lonDeg(), 9),
                        decimals(point.at().latDeg(), 9),
                        decimals(grid.east(), 3),
                        decimals(grid.north(), 3),
                        epsg,
                        known(heights.aboveTakeOffM()),
                        known(heights.aboveGroundM()),
                        known(heights.aboveGeoidM()),
                        known(heights.aboveEllipsoidM()),
                        decimals(point.yawDeg(), 2),
                        decimals(point.yawTrueDeg(), 2),
                        decimals(point.pitchDeg(), 2),
                        decimals(point.rollDeg(), 2),
                        point.exposure().pass(),
                        String.join(" | ", data.stops()));
            }
        }
    }

    /** Empty where the height system is not known, as over level ground. */
    private static String known(OptionalDouble heightM) {
        return heightM.isPresent() ? decimals(heightM.getAsDouble(), 2) : "";
    }

    private static String decimals(double figure, int digits) {
        return String.format(Locale.ROOT, "%." + digits + "f", figure);
    }
}

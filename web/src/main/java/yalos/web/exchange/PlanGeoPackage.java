package yalos.web.exchange;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.Outline;
import yalos.core.exchange.PlanSheetData;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.LonLat;
import yalos.web.gpkg.GeoPackageFile;

/** A plan as a GeoPackage: outline, strips and stations, each a layer; heights of the places count from the take-off. */
final class PlanGeoPackage {
    private PlanGeoPackage() {}

    static void write(PlanSheetData data, OutputStream out) throws IOException {
        Path path = Files.createTempFile("plan", ".gpkg");
        try {
            write(data, path);
            Files.copy(path, out);
        } catch (SQLException e) {
            throw new IOException("The GeoPackage could not be written.", e);
        } finally {
            Files.deleteIfExists(path);
        }
    }

    private static void write(PlanSheetData data, Path path) throws SQLException {
        try (GeoPackageFile file = GeoPackageFile.create(path)) {
            file.layer("outline", GeoPackageFile.Shape.POLYGON, false, "name text");
            for (Outline.Part part : data.plan().request().outline().parts()) {
                file.row(ring(part.outer()), data.title());
            }
            file.layer(
                    "strips", GeoPackageFile.Shape.LINESTRING, true, "strip integer", "pass integer", "photos integer");
            for (PlanSheetData.StripLine strip : data.strips()) {
                double[][] places = data.along(strip.line()).stream()
                        .map(at -> place(data, at))
                        .toArray(double[][]::new);
                double[][] line = places.length == 1 ? new double[][] {places[0], places[0]} : places;
                file.row(
                        line,
                        strip.line().number(),
                        strip.line().pass(),
                        strip.line().exposures());
            }
            file.layer(
                    "stations",
                    GeoPackageFile.Shape.POINT,
                    true,
                    "station integer",
                    "strip integer",
                    "pass integer",
                    "yaw_true_deg double",
                    "pitch_deg double",
                    "roll_deg double",
                    "above_take_off_m double",
                    "above_ground_m double",
                    "above_geoid_m double",
                    "above_ellipsoid_m double",
                    "remarks text");
            String remarks = String.join("; ", data.remarks());
            for (PlanSheetData.StationPoint point : data.stations()) {
                PlanSheetData.StationHeights heights = data.heights(point.exposure());
                file.row(
                        new double[][] {place(data, point.exposure())},
                        point.number(),
                        point.exposure().line(),
                        point.exposure().pass(),
                        point.yawTrueDeg(),
                        point.pitchDeg(),
                        point.rollDeg(),
                        known(heights.aboveTakeOffM()),
                        known(heights.aboveGroundM()),
                        known(heights.aboveGeoidM()),
                        known(heights.aboveEllipsoidM()),
                        remarks);
            }
            file.title(data.title());
        }
    }

    private static double[] place(PlanSheetData data, Exposure at) {
        LonLat place = data.position(at);
        return new double[] {
            place.lonDeg(), place.latDeg(), data.heights(at).aboveTakeOffM().orElse(Double.NaN)
        };
    }

    private static double[][] ring(List<LonLat> corners) {
        double[][] ring = new double[corners.size() + 1][];
        for (int i = 0; i <= corners.size(); i++) {
            LonLat at = corners.get(i % corners.size());
            ring[i] = new double[] {at.lonDeg(), at.latDeg()};
        }
        return ring;
    }

    private static Double known(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }
}

package yalos.web.control;

import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.exchange.PointFiles;
import yalos.web.gpkg.GeoPackageFile;

/** Points as a GeoPackage: one table of points, heights as columns. */
final class PointsGeoPackage {
    private PointsGeoPackage() {}

    /** Writes a file that is not there yet, or is empty. */
    static void write(Path path, String title, List<PointFiles.Point> points) throws SQLException {
        try (GeoPackageFile file = GeoPackageFile.create(path)) {
            file.layer(
                    "points",
                    GeoPackageFile.Shape.POINT,
                    false,
                    "name text",
                    "role text",
                    "kind text",
                    "times_measured integer",
                    "height_above_geoid_m double",
                    "height_above_ellipsoid_m double",
                    "note text");
            for (PointFiles.Point point : points) {
                file.row(
                        new double[][] {{point.at().lonDeg(), point.at().latDeg()}},
                        point.name(),
                        point.role(),
                        point.kind(),
                        point.measured(),
                        known(point.upM()),
                        known(point.ellipsoidM()),
                        point.note());
            }
            file.title(title);
        }
    }

    private static Double known(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }
}

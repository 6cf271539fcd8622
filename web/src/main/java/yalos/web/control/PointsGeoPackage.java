package yalos.web.control;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import org.sqlite.SQLiteConfig;
import yalos.core.exchange.PointFiles;

/** Points as a GeoPackage 1.3 (OGC 12-128r17): one table of points on WGS84, heights as columns. */
final class PointsGeoPackage {
    private static final int WGS84 = 4326;
    private static final String[] TABLES = {
        "pragma application_id = 1196444487",
        "pragma user_version = 10300",
        "create table gpkg_spatial_ref_sys (srs_name text not null, srs_id integer not null primary key,"
                + " organization text not null, organization_coordsys_id integer not null, definition text not null,"
                + " description text)",
        "insert into gpkg_spatial_ref_sys values ('Undefined Cartesian', -1, 'NONE', -1, 'undefined', null),"
                + " ('Undefined geographic', 0, 'NONE', 0, 'undefined', null), ('WGS 84', 4326, 'EPSG', 4326,"
                + " 'GEOGCS[\"WGS 84\",DATUM[\"WGS_1984\",SPHEROID[\"WGS 84\",6378137,298.257223563]],"
                + "PRIMEM[\"Greenwich\",0],UNIT[\"degree\",0.0174532925199433],AUTHORITY[\"EPSG\",\"4326\"]]', null)",
        "create table gpkg_contents (table_name text not null primary key, data_type text not null, identifier text unique,"
                + " description text default '', last_change datetime not null default (strftime('%Y-%m-%dT%H:%M:%fZ','now')),"
                + " min_x double, min_y double, max_x double, max_y double, srs_id integer,"
                + " constraint fk_gc foreign key (srs_id) references gpkg_spatial_ref_sys(srs_id))",
        "create table gpkg_geometry_columns (table_name text not null, column_name text not null,"
                + " geometry_type_name text not null, srs_id integer not null, z tinyint not null, m tinyint not null,"
                + " constraint pk_gc primary key (table_name, column_name),"
                + " constraint uk_gc unique (table_name),"
                + " constraint fk_gg foreign key (table_name) references gpkg_contents(table_name))",
        "create table points (fid integer primary key autoincrement not null, geom blob, name text, role text, kind text,"
                + " times_measured integer, height_above_geoid_m double, height_above_ellipsoid_m double, note text)",
        "insert into gpkg_geometry_columns values ('points', 'geom', 'POINT', 4326, 0, 0)",
    };

    private PointsGeoPackage() {}

    /** Writes a file that is not there yet, or is empty. */
    static void write(Path file, String title, List<PointFiles.Point> points) throws SQLException {
        try (Connection db = new SQLiteConfig().createConnection("jdbc:sqlite:" + file)) {
            try (Statement made = db.createStatement()) {
                for (String table : TABLES) {
                    made.execute(table);
                }
            }
            db.setAutoCommit(false);
            contents(db, title, points);
            try (PreparedStatement row = db.prepareStatement(
                    "insert into points (geom, name, role, kind, times_measured, height_above_geoid_m,"
                            + " height_above_ellipsoid_m, note) values (?, ?, ?, ?, ?, ?, ?, ?)")) {
                for (PointFiles.Point point : points) {
                    row.setBytes(1, geometry(point.at().lonDeg(), point.at().latDeg()));
                    row.setString(2, point.name());
                    row.setString(3, point.role());
                    row.setString(4, point.kind());
                    row.setInt(5, point.measured());
                    row.setObject(6, point.upM().isPresent() ? point.upM().getAsDouble() : null);
                    row.setObject(
                            7,
                            point.ellipsoidM().isPresent() ? point.ellipsoidM().getAsDouble() : null);
                    row.setString(8, point.note());
                    row.addBatch();
                }
                row.executeBatch();
            }
            db.commit();
        }
    }

    private static void contents(Connection db, String title, List<PointFiles.Point> points) throws SQLException {
        try (PreparedStatement row = db.prepareStatement(
                "insert into gpkg_contents (table_name, data_type, identifier, min_x, min_y, max_x, max_y, srs_id)"
                        + " values ('points', 'features', ?, ?, ?, ?, ?, ?)")) {
            row.setString(1, title);
            row.setObject(
                    2,
                    points.isEmpty()
                            ? null
                            : points.stream()
                                    .mapToDouble(p -> p.at().lonDeg())
                                    .min()
                                    .getAsDouble());
            row.setObject(
                    3,
                    points.isEmpty()
                            ? null
                            : points.stream()
                                    .mapToDouble(p -> p.at().latDeg())
                                    .min()
                                    .getAsDouble());
            row.setObject(
                    4,
                    points.isEmpty()
                            ? null
                            : points.stream()
                                    .mapToDouble(p -> p.at().lonDeg())
                                    .max()
                                    .getAsDouble());
            row.setObject(
                    5,
                    points.isEmpty()
                            ? null
                            : points.stream()
                                    .mapToDouble(p -> p.at().latDeg())
                                    .max()
                                    .getAsDouble());
            row.setInt(6, WGS84);
            row.executeUpdate();
        }
    }

    /** Header of the standard without an envelope, then the point as well-known binary, both little-endian. */
    private static byte[] geometry(double lonDeg, double latDeg) {
        return ByteBuffer.allocate(8 + 21)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put("GP".getBytes(StandardCharsets.US_ASCII))
                .put((byte) 0)
                .put((byte) 1)
                .putInt(WGS84)
                .put((byte) 1)
                .putInt(1)
                .putDouble(lonDeg)
                .putDouble(latDeg)
                .array();
    }
}

package yalos.web.gpkg;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.sqlite.SQLiteConfig;

/**
 * A GeoPackage 1.3 (OGC 12-128r17) of vector layers on WGS84, written once.
 *
 * <pre>{@code
 * try (GeoPackageFile file = GeoPackageFile.create(path)) {
 *     file.layer("points", GeoPackageFile.Shape.POINT, false, "name text", "height_m double");
 *     file.row(new double[][] {{lonDeg, latDeg}}, "1", 281.4);
 * }
 * }</pre>
 */
public final class GeoPackageFile implements AutoCloseable {
    private static final int WGS84 = 4326;
    private static final int WITH_HEIGHT = 1000;
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
    };

    /** What lies in a layer. */
    public enum Shape {
        POINT(1),
        LINESTRING(2),
        POLYGON(3);

        private final int code;

        Shape(int code) {
            this.code = code;
        }
    }

    private final Connection db;
    private PreparedStatement insert;
    private String table;
    private Shape shape;
    private boolean heights;
    private double[] box;

    private GeoPackageFile(Connection db) {
        this.db = db;
    }

    /** In a file that is not there yet, or is empty. */
    public static GeoPackageFile create(Path path) throws SQLException {
        Connection db = new SQLiteConfig().createConnection("jdbc:sqlite:" + path);
        try (Statement made = db.createStatement()) {
            for (String sql : TABLES) {
                made.execute(sql);
            }
        }
        db.setAutoCommit(false);
        return new GeoPackageFile(db);
    }

    /**
     * Begins a layer; rows that follow are its.
     *
     * @param name a plain word
     * @param withHeights whether places have a third figure
     * @param columns each a plain name and a type, such as {@code "name text"}
     */
    public void layer(String name, Shape what, boolean withHeights, String... columns) throws SQLException {
        endLayer();
        table = name;
        shape = what;
        heights = withHeights;
        box = new double[] {Double.NaN, Double.NaN, Double.NaN, Double.NaN};
        try (Statement made = db.createStatement()) {
            made.execute("create table " + name + " (fid integer primary key autoincrement not null, geom blob, "
                    + String.join(", ", columns) + ")");
        }
        try (PreparedStatement contents = db.prepareStatement(
                "insert into gpkg_contents (table_name, data_type, identifier, srs_id) values (?, 'features', ?, ?)")) {
            contents.setString(1, name);
            contents.setString(2, name);
            contents.setInt(3, WGS84);
            contents.executeUpdate();
        }
        try (PreparedStatement geometry =
                db.prepareStatement("insert into gpkg_geometry_columns values (?, 'geom', ?, ?, ?, 0)")) {
            geometry.setString(1, name);
            geometry.setString(2, what.name());
            geometry.setInt(3, WGS84);
            geometry.setInt(4, withHeights ? 1 : 0);
            geometry.executeUpdate();
        }
        String names = IntStream.range(0, columns.length)
                .mapToObj(i -> columns[i].split(" ")[0])
                .collect(Collectors.joining(", "));
        insert = db.prepareStatement(
                "insert into %s (geom, %s) values (?%s)".formatted(name, names, ", ?".repeat(columns.length)));
    }

    /**
     * A feature of the layer that was begun last.
     *
     * @param places one for a point, several for a line, a closed ring for a polygon: longitude, latitude and, where the layer has them, height
     * @param values in the order of the columns; null where nothing is known
     */
    public void row(double[][] places, Object... values) throws SQLException {
        insert.setBytes(1, geometry(places));
        for (int i = 0; i < values.length; i++) {
            insert.setObject(i + 2, values[i]);
        }
        insert.addBatch();
        for (double[] place : places) {
            box[0] = Math.min(place[0], Double.isNaN(box[0]) ? place[0] : box[0]);
            box[1] = Math.min(place[1], Double.isNaN(box[1]) ? place[1] : box[1]);
            box[2] = Math.max(place[0], Double.isNaN(box[2]) ? place[0] : box[2]);
            box[3] = Math.max(place[1], Double.isNaN(box[3]) ? place[1] : box[3]);
        }
    }

    /** Header of the standard without an envelope, then well-known binary (ISO), both little-endian. */
    private byte[] geometry(double[][] places) {
        int each = heights ? 24 : 16;
        ByteBuffer out = ByteBuffer.allocate(8 + 5 + 8 + each * places.length)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put("GP".getBytes(StandardCharsets.US_ASCII))
                .put((byte) 0)
                .put((byte) 1)
                .putInt(WGS84)
                .put((byte) 1)
                .putInt(shape.code + (heights ? WITH_HEIGHT : 0));
        if (shape == Shape.POLYGON) {
            out.putInt(1);
        }
        if (shape != Shape.POINT) {
            out.putInt(places.length);
        }
        for (double[] place : places) {
            out.putDouble(place[0]).putDouble(place[1]);
            if (heights) {
                out.putDouble(place[2]);
            }
        }
        byte[] bytes = new byte[out.position()];
        System.arraycopy(out.array(), 0, bytes, 0, bytes.length);
        return bytes;
    }

    private void endLayer() throws SQLException {
        if (insert == null) {
            return;
        }
        insert.executeBatch();
        insert.close();
        insert = null;
        if (!Double.isNaN(box[0])) {
            try (Statement bounds = db.createStatement()) {
                bounds.execute(String.format(
                        Locale.ROOT,
                        "update gpkg_contents set min_x = %s, min_y = %s, max_x = %s, max_y = %s where table_name = '%s'",
                        box[0],
                        box[1],
                        box[2],
                        box[3],
                        table));
            }
        }
    }

    /** Says what a file is, in its list of contents. */
    public void title(String title) throws SQLException {
        try (PreparedStatement told = db.prepareStatement("update gpkg_contents set description = ?")) {
            told.setString(1, title);
            told.executeUpdate();
        }
    }

    @Override
    public void close() throws SQLException {
        try {
            endLayer();
            db.commit();
        } finally {
            db.close();
        }
    }
}

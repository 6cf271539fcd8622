package yalos.web.exchange;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import yalos.core.block.Outline;
import yalos.core.exchange.Axes;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.exchange.Placing;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.WktSystem;

/**
 * Outlines and lines from a GeoPackage (OGC 12-128r18): every feature table, each in its own coordinate system. The file is laid aside for the time
 * of reading and opened for reading only; tables alone are looked into, never views or triggers, which could run for ever.
 */
public final class GeoPackageOutlines {
    private static final int MOST_FEATURES = 20_000;
    private static final int MOST_TABLES = 50;
    private static final int MOST_BLOB = 32_000_000;
    private static final int[] ENVELOPES = {0, 32, 48, 48, 64};
    private static final List<String> NAMES = List.of("name", "title", "label", "id");

    private final ImportedOutlines.Collector found = new ImportedOutlines.Collector();
    private final Axes axes;
    private final OptionalInt typed;
    private int features;

    private GeoPackageOutlines(Axes axes, OptionalInt typed) {
        this.axes = axes;
        this.typed = typed;
    }

    /**
     * @param typed the EPSG code to read tables in whose own system nobody knows
     * @throws InputFault for a file that is damaged, hostile or holds no features; with field {@code epsg} where nobody knows a coordinate system
     */
    public static ImportedOutlines read(byte[] content, Axes axes, OptionalInt typed) {
        try {
            Path aside = Files.createTempFile("yalos-", ".gpkg");
            try {
                Files.write(aside, content);
                GeoPackageOutlines reader = new GeoPackageOutlines(axes, typed);
                reader.read(aside);
                return reader.found.finish("GeoPackage");
            } finally {
                Files.deleteIfExists(aside);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (SQLException e) {
            throw new InputFault(
                    "file", "GeoPackage", "The GeoPackage is damaged and cannot be read. Export it again.");
        }
    }

    private record Layer(String table, String column, int srs) {}

    private void read(Path file) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setReadOnly(true);
        config.setOpenMode(SQLiteOpenMode.READONLY);
        config.setPragma(SQLiteConfig.Pragma.MMAP_SIZE, "0");
        config.enableLoadExtension(false);
        try (Connection db = config.createConnection("jdbc:sqlite:" + file);
                Statement statement = db.createStatement()) {
            statement.setQueryTimeout(20);
            statement.execute("PRAGMA trusted_schema = OFF");
            for (Layer layer : layers(statement)) {
                layer(db, layer);
            }
        }
    }

    private static List<Layer> layers(Statement statement) throws SQLException {
        List<Layer> layers = new ArrayList<>();
        try (ResultSet rows = statement.executeQuery("""
                SELECT g.table_name, g.column_name, g.srs_id FROM gpkg_geometry_columns g
                JOIN sqlite_master m ON m.name = g.table_name AND m.type = 'table'
                ORDER BY g.table_name LIMIT %d""".formatted(MOST_TABLES))) {
            while (rows.next()) {
                layers.add(new Layer(rows.getString(1), rows.getString(2), rows.getInt(3)));
            }
        }
        return layers;
    }

    private void layer(Connection db, Layer layer) throws SQLException {
        Placing placing = Placing.ofEpsg(epsg(db, layer), axes);
        try (Statement statement = db.createStatement()) {
            statement.setQueryTimeout(20);
            statement.setMaxRows(MOST_FEATURES + 1);
            try (ResultSet rows = statement.executeQuery("SELECT * FROM " + quoted(layer.table()))) {
                int geometry = rows.findColumn(layer.column());
                int name = nameColumn(rows);
                while (rows.next()) {
                    if (++features > MOST_FEATURES) {
                        throw new InputFault(
                                "file",
                                "over %d features".formatted(MOST_FEATURES),
                                "The GeoPackage holds more than %d features. Export only the ones meant."
                                        .formatted(MOST_FEATURES));
                    }
                    byte[] blob = rows.getBytes(geometry);
                    if (blob != null && blob.length <= MOST_BLOB) {
                        String called = name == 0 ? "" : rows.getString(name);
                        add(geometry(blob), called == null ? "" : called, placing);
                    }
                }
            }
        }
    }

    private int epsg(Connection db, Layer layer) throws SQLException {
        try (var asked = db.prepareStatement(
                "SELECT organization, organization_coordsys_id, definition FROM gpkg_spatial_ref_sys WHERE srs_id = ?")) {
            asked.setInt(1, layer.srs());
            try (ResultSet rows = asked.executeQuery()) {
                if (rows.next()) {
                    String organization = rows.getString(1);
                    int code = rows.getInt(2);
                    if ("EPSG".equalsIgnoreCase(organization) && code > 0) {
                        return code;
                    }
                    String definition = rows.getString(3);
                    OptionalInt described = definition == null ? OptionalInt.empty() : WktSystem.epsg(definition);
                    if (described.isPresent()) {
                        return described.getAsInt();
                    }
                }
            }
        }
        if (typed.isPresent()) {
            return typed.getAsInt();
        }
        throw new InputFault(
                "epsg",
                layer.table(),
                "Nobody knows in which coordinate system the table “%s” is. Type its EPSG code."
                        .formatted(layer.table()));
    }

    private static int nameColumn(ResultSet rows) throws SQLException {
        for (String wanted : NAMES) {
            for (int i = 1; i <= rows.getMetaData().getColumnCount(); i++) {
                if (rows.getMetaData().getColumnName(i).toLowerCase(Locale.ROOT).equals(wanted)) {
                    return i;
                }
            }
        }
        return 0;
    }

    private static String quoted(String table) {
        return '"' + table.replace("\"", "\"\"") + '"';
    }

    /** A header of 8 bytes and an envelope, then well-known binary. */
    private static Geometry geometry(byte[] blob) {
        try {
            int flags = blob[3];
            int envelope = flags >> 1 & 7;
            if (blob[0] != 'G' || blob[1] != 'P' || envelope >= ENVELOPES.length) {
                throw crooked();
            }
            int start = 8 + ENVELOPES[envelope];
            if (blob.length < start + 5) {
                throw crooked();
            }
            return new WKBReader().read(Arrays.copyOfRange(blob, start, blob.length));
        } catch (ParseException | RuntimeException e) {
            throw e instanceof InputFault fault ? fault : crooked();
        }
    }

    private static InputFault crooked() {
        return new InputFault(
                "file", "geometry", "The GeoPackage holds a geometry that cannot be read. Export it again.");
    }

    private void add(Geometry geometry, String name, Placing placing) {
        List<Outline.Part> parts = new ArrayList<>();
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            Geometry one = geometry.getGeometryN(i);
            if (one instanceof Polygon polygon && !polygon.isEmpty()) {
                parts.add(part(polygon, name, placing));
            } else if (one instanceof LineString line && !line.isEmpty()) {
                found.line(name, places(line, placing));
            }
        }
        if (!parts.isEmpty()) {
            found.add(name, new Outline(parts));
        }
    }

    private Outline.Part part(Polygon polygon, String name, Placing placing) {
        String called = name.isBlank() ? "a feature" : name;
        List<List<LonLat>> holes = new ArrayList<>();
        for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
            LinearRing hole = polygon.getInteriorRingN(h);
            holes.add(found.ring(places(hole, placing), called));
        }
        return new Outline.Part(found.ring(places(polygon.getExteriorRing(), placing), called), holes);
    }

    private static List<LonLat> places(LineString line, Placing placing) {
        List<LonLat> places = new ArrayList<>();
        for (Coordinate at : line.getCoordinates()) {
            places.add(placing.at(at.x, at.y));
        }
        return places;
    }
}

package yalos.web.maps;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.sqlite.SQLiteConfig;
import yalos.core.basemap.MapAddress;
import yalos.core.basemap.MapSystem;
import yalos.core.basemap.TileMatrix;
import yalos.core.basemap.TilePyramid;
import yalos.core.geodesy.LonLat;
import yalos.web.store.MapMapper.AddressRow;

/**
 * A web map: what was looked at is kept in a file of its own, an MBTiles map that can be taken elsewhere, and shown from there first. Without
 * network what is kept is all there is.
 */
final class KeptMap implements TilePyramid {
    private static final int PIXELS = 256;
    /** What one map may keep. */
    private static final long MOST_BYTES = 2L << 30;

    private final AddressRow row;
    private final MapAddress address;
    private boolean formatSaid;
    private final TileFetch fetch;
    private final Path path;
    private final Connection db;
    private final List<TileMatrix> levels;

    KeptMap(AddressRow row, Path path, TileFetch fetch) throws IOException {
        this.row = row;
        this.address = new MapAddress(row.address(), row.layers());
        this.fetch = fetch;
        this.path = path;
        levels = IntStream.rangeClosed(0, row.mostZoom())
                .mapToObj(zoom -> TileMatrix.web(zoom, PIXELS))
                .toList();
        SQLiteConfig config = new SQLiteConfig();
        config.setJournalMode(SQLiteConfig.JournalMode.WAL);
        config.setSynchronous(SQLiteConfig.SynchronousMode.NORMAL);
        try {
            db = config.createConnection("jdbc:sqlite:" + path);
            try (Statement statement = db.createStatement()) {
                statement.execute("create table if not exists metadata (name text primary key, value text)");
                statement.execute(
                        "create table if not exists tiles (zoom_level integer, tile_column integer, tile_row integer,"
                                + " tile_data blob, primary key (zoom_level, tile_column, tile_row))");
            }
            try (PreparedStatement put = db.prepareStatement("insert or replace into metadata values (?, ?)")) {
                for (String[] pair : new String[][] {
                    {"name", row.name()}, {"format", "png"}, {"attribution", row.attribution()}, {"type", "baselayer"}
                }) {
                    put.setString(1, pair[0]);
                    put.setString(2, pair[1]);
                    put.execute();
                }
            }
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    @Override
    public MapSystem system() {
        return new MapSystem.WebMercator();
    }

    @Override
    public List<TileMatrix> levels() {
        return levels;
    }

    /** Kept, or fetched and kept; a tile the server does not have is kept as none. */
    @Override
    public Optional<byte[]> tile(TileMatrix level, long column, long tileRow) throws IOException {
        Optional<byte[]> kept = kept(level, column, tileRow);
        if (kept.isPresent()) {
            return kept.filter(bytes -> bytes.length > 0);
        }
        if (!row.active()) {
            return Optional.empty();
        }
        Optional<byte[]> fetched = fetch.picture(address.tile(level, column, tileRow), row.home());
        keep(level, column, tileRow, fetched.orElse(new byte[0]));
        return fetched;
    }

    private synchronized Optional<byte[]> kept(TileMatrix level, long column, long tileRow) throws IOException {
        try (PreparedStatement get = db.prepareStatement(
                "select tile_data from tiles where zoom_level = ? and tile_column = ? and tile_row = ?")) {
            place(get, level, column, tileRow);
            try (ResultSet found = get.executeQuery()) {
                return found.next() ? Optional.ofNullable(found.getBytes(1)) : Optional.empty();
            }
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /** What the first picture is, the file says it holds: other programs go by it. */
    private void sayFormat(byte[] picture) throws SQLException {
        if (formatSaid || picture.length == 0) {
            return;
        }
        try (PreparedStatement put = db.prepareStatement("update metadata set value = ? where name = 'format'")) {
            put.setString(1, format(picture));
            put.execute();
        }
        formatSaid = true;
    }

    /** Of a picture by its first bytes, in the words of MBTiles. */
    static String format(byte[] picture) {
        boolean jpeg = picture.length > 2 && picture[0] == (byte) 0xFF && picture[1] == (byte) 0xD8;
        boolean webp = picture.length > 12 && new String(picture, 8, 4, StandardCharsets.US_ASCII).equals("WEBP");
        return jpeg ? "jpg" : webp ? "webp" : "png";
    }

    private synchronized void keep(TileMatrix level, long column, long tileRow, byte[] bytes) throws IOException {
        if (Files.size(path) > MOST_BYTES) {
            return;
        }
        try (PreparedStatement put = db.prepareStatement("insert or replace into tiles values (?, ?, ?, ?)")) {
            place(put, level, column, tileRow);
            put.setBytes(4, bytes);
            put.execute();
            sayFormat(bytes);
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    private static void place(PreparedStatement statement, TileMatrix level, long column, long tileRow)
            throws SQLException {
        statement.setInt(1, level.zoom());
        statement.setLong(2, column);
        statement.setLong(3, level.rows() - 1 - tileRow);
    }

    /** How many tiles are kept. */
    synchronized long count() throws IOException {
        try (Statement statement = db.createStatement();
                ResultSet found = statement.executeQuery("select count(*) from tiles where length(tile_data) > 0")) {
            return found.next() ? found.getLong(1) : 0;
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    @Override
    public String attribution() {
        return row.attribution();
    }

    @Override
    public Optional<LonLat> middle() {
        return Optional.empty();
    }

    @Override
    public synchronized void close() throws IOException {
        try {
            db.close();
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}

package yalos.web.maps;

import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Duration;
import java.util.function.Function;
import org.sqlite.ProgressHandler;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteOpenMode;
import yalos.core.fault.InputFault;

/**
 * A map in a SQLite file, read in place and for reading only. Its views are run, for maps are made so; none for longer than a few seconds.
 * One question at a time.
 */
final class SqliteFile implements Closeable {
    private static final Duration LONGEST = Duration.ofSeconds(5);
    private static final int STEPS = 100_000;

    /** Reads one row. */
    interface Reader<T> {
        T read(ResultSet row) throws SQLException;
    }

    private final Connection db;
    private volatile long deadline;

    private SqliteFile(Connection db) throws SQLException {
        this.db = db;
        ProgressHandler.setHandler(db, STEPS, new ProgressHandler() {
            @Override
            protected int progress() {
                return System.nanoTime() > deadline ? 1 : 0;
            }
        });
    }

    /**
     * @throws InputFault for a file that is none
     */
    private static SqliteFile open(Path path) {
        SQLiteConfig config = new SQLiteConfig();
        config.setReadOnly(true);
        config.setOpenMode(SQLiteOpenMode.READONLY);
        config.setPragma(SQLiteConfig.Pragma.MMAP_SIZE, "0");
        config.enableLoadExtension(false);
        try {
            SqliteFile file = new SqliteFile(config.createConnection("jdbc:sqlite:" + path));
            file.each("PRAGMA trusted_schema = OFF", row -> null);
            return file;
        } catch (SQLException | InputFault e) {
            throw damaged(e);
        }
    }

    /** Opens a file for whoever reads it, and closes it again where that cannot. */
    static <T> T open(Path path, Function<SqliteFile, T> reader) throws IOException {
        SqliteFile file = open(path);
        try {
            return reader.apply(file);
        } catch (RuntimeException e) {
            file.close();
            throw e;
        }
    }

    /** Asks, and reads every row of the answer. */
    synchronized void each(String sql, Reader<?> reader, Object... values) {
        deadline = System.nanoTime() + LONGEST.toNanos();
        try (PreparedStatement statement = db.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            if (statement.execute()) {
                try (ResultSet rows = statement.getResultSet()) {
                    while (rows.next()) {
                        reader.read(rows);
                    }
                }
            }
        } catch (SQLException e) {
            throw damaged(e);
        }
    }

    private static InputFault damaged(Exception cause) {
        InputFault fault = new InputFault(
                "map", "SQLite", "The map is damaged, or no such map, and cannot be read. Copy it again.");
        fault.addSuppressed(cause);
        return fault;
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

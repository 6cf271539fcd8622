package yalos.web.keep;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.store.SafeFiles;
import yalos.web.store.Sha256;

/**
 * A copy of all data: one zip with the database, elevation models, pictures and maps. Written while the program runs or while it does not; {@link DataRestore} puts it back.
 */
final class DataCopy {
    static final String FORMAT = "yalos-data";
    static final int VERSION = 1;
    static final String NAME = "copy.json";
    static final String DATABASE = "yalos.mv.db";
    private static final Set<String> LEFT = Set.of("in-use", "rounds", "scratch", "orders");
    private static final long LEAST_FREE = 32L << 20;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private DataCopy() {}

    /** What a copy says of itself. */
    record Told(String format, Integer version, Integer schema, String made, List<Manifest.Part> files) {}

    /** How to have the database written into a zip of its own. */
    interface Database {
        void backup(Path zip) throws SQLException;

        int schema() throws SQLException;
    }

    /** The database through a connection of the running program, or of this process alone. */
    static Database over(Connection connection) {
        return new Database() {
            @Override
            public void backup(Path zip) throws SQLException {
                try (Statement sql = connection.createStatement()) {
                    sql.execute("backup to '" + zip.toString().replace("'", "''") + "'");
                }
            }

            @Override
            public int schema() throws SQLException {
                return DataCopy.schema(connection);
            }
        };
    }

    static int schema(Connection connection) throws SQLException {
        try (Statement sql = connection.createStatement();
                ResultSet rows = sql.executeQuery(
                        "select coalesce(max(cast(\"version\" as int)), 0) from \"flyway_schema_history\" where \"success\"")) {
            rows.next();
            return rows.getInt(1);
        }
    }

    /**
     * Writes a copy aside and renames it, so that a file of its name is whole or not there.
     *
     * @return its size in bytes
     * @throws IOException where the disk does not take it; nothing is left behind then
     */
    static long write(Path data, Database database, Path target) throws IOException, SQLException {
        Path folder = target.toAbsolutePath().getParent();
        Files.createDirectories(folder);
        long needed = size(data);
        FileStore store = Files.getFileStore(folder);
        if (store.getUsableSpace() < needed + LEAST_FREE) {
            throw new IOException(
                    "The disk under %s has %,d MB free; the copy needs up to %,d MB. Make room, or choose another folder."
                            .formatted(folder, store.getUsableSpace() >> 20, (needed + LEAST_FREE) >> 20));
        }
        Path aside = Files.createTempFile(folder, "yalos-copy", ".part");
        try {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(aside))) {
                stream(data, database, out);
            }
            SafeFiles.keep(aside, target);
            return Files.size(target);
        } finally {
            Files.deleteIfExists(aside);
        }
    }

    private static long size(Path data) throws IOException {
        long sum = 0;
        for (Path file : files(data)) {
            sum += Files.size(file);
        }
        return sum;
    }

    /** All files that are copied besides the database. */
    private static List<Path> files(Path data) throws IOException {
        try (Stream<Path> all = Files.walk(data)) {
            return all.filter(Files::isRegularFile)
                    .filter(file ->
                            !LEFT.contains(data.relativize(file).getName(0).toString()))
                    .filter(file -> !file.toString().endsWith(".part")
                            && !file.toString().endsWith(".trace.db"))
                    .sorted()
                    .toList();
        }
    }

    /** Writes a copy to wherever it is wanted. */
    static void stream(Path data, Database database, OutputStream out) throws IOException, SQLException {
        Path scratch = data.resolve("scratch");
        Files.createDirectories(scratch);
        Path own = Files.createTempFile(scratch, "database", ".zip");
        List<Manifest.Part> parts = new ArrayList<>();
        try {
            Files.delete(own);
            int schema = database.schema();
            database.backup(own);
            ZipOutputStream zip = new ZipOutputStream(out);
            try (ZipInputStream inner = new ZipInputStream(Files.newInputStream(own))) {
                ZipEntry entry = inner.getNextEntry();
                while (entry != null && !entry.getName().endsWith(DATABASE)) {
                    entry = inner.getNextEntry();
                }
                if (entry == null) {
                    throw new IOException("The database could not be copied.");
                }
                entry(zip, DATABASE, inner, parts);
            }
            for (Path file : files(data)) {
                String name = data.relativize(file).toString().replace('\\', '/');
                if (!name.equals(DATABASE)) {
                    try (InputStream in = Files.newInputStream(file)) {
                        entry(zip, name, in, parts);
                    } catch (NoSuchFileException gone) {
                        // Taken away in the meantime; the database does not know it any more either.
                        continue;
                    }
                }
            }
            zip.putNextEntry(new ZipEntry(NAME));
            zip.write(JSON.writerWithDefaultPrettyPrinter()
                    .writeValueAsBytes(new Told(
                            FORMAT,
                            VERSION,
                            schema,
                            LocalDateTime.now().withNano(0).toString(),
                            parts)));
            zip.closeEntry();
            zip.finish();
        } finally {
            Files.deleteIfExists(own);
        }
    }

    private static void entry(ZipOutputStream zip, String name, InputStream in, List<Manifest.Part> parts)
            throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        MessageDigest digest = Sha256.digest();
        DigestInputStream summed = new DigestInputStream(in, digest);
        long bytes = summed.transferTo(zip);
        zip.closeEntry();
        parts.add(new Manifest.Part(name, bytes, HexFormat.of().formatHex(digest.digest())));
    }

    /** A connection of its own to a database that nobody has open. */
    static Connection alone(Path data) throws SQLException {
        return DriverManager.getConnection(
                "jdbc:h2:file:" + data.toAbsolutePath().resolve("yalos") + ";IFEXISTS=TRUE", "yalos", "");
    }
}

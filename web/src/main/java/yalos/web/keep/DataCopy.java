package yalos.web.keep;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.store.SafeFiles;
import yalos.web.store.Sha256;
import yalos.web.store.StartRefused;

/**
 * A copy of all data: one zip with the database, elevation models, pictures and maps. Written while the program runs or while it does not, and put back in one step: the folder that was there is kept beside.
 */
final class DataCopy {
    private static final String FORMAT = "yalos-data";
    private static final int VERSION = 1;
    private static final String NAME = "copy.json";
    private static final String DATABASE = "yalos.mv.db";
    private static final Set<String> LEFT = Set.of("in-use", "rounds", "scratch", "orders", "schema");
    private static final long LEAST_FREE = 32L << 20;
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT);
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

    /**
     * Puts a copy back. Everything is unpacked and held against its sums beside the folder first; then the folder that is there is renamed and the new one takes its place.
     *
     * @return where the earlier data lies now; empty text where there was none
     * @throws StartRefused for a copy that is damaged or newer, and for a folder that is in use; what is there stays as it was
     */
    static String restore(Path file, Path data, int newest) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new StartRefused("There is no copy %s.".formatted(file));
        }
        Path place = data.toAbsolutePath().normalize();
        Files.createDirectories(place.getParent());
        FileChannel held = lock(place);
        try {
            sweep(place);
            Path beside = Files.createTempDirectory(place.getParent(), place.getFileName() + ".restoring-");
            try {
                unpack(file, beside, newest);
            } catch (IOException | RuntimeException fault) {
                delete(beside);
                if (fault instanceof IOException) {
                    throw new StartRefused("The copy could not be put back: %s. The data in %s is untouched."
                            .formatted(fault.getMessage(), place));
                }
                throw (RuntimeException) fault;
            }
            return exchanged(place, beside);
        } finally {
            held.close();
        }
    }

    /** What an earlier restore left that was killed. */
    private static void sweep(Path place) throws IOException {
        try (Stream<Path> all = Files.list(place.getParent())) {
            for (Path left : all.filter(
                            one -> one.getFileName().toString().startsWith(place.getFileName() + ".restoring-"))
                    .toList()) {
                delete(left);
            }
        }
    }

    /** Puts what was unpacked in the place of what is there; where that fails, what was there is back in its place. */
    private static String exchanged(Path place, Path beside) throws IOException {
        if (!Files.isDirectory(place)) {
            Files.move(beside, place, StandardCopyOption.ATOMIC_MOVE);
            return "";
        }
        Path moved = place.resolveSibling(place.getFileName() + ".before-" + STAMP.format(LocalDateTime.now()));
        try {
            Files.move(place, moved, StandardCopyOption.ATOMIC_MOVE);
            Files.move(beside, place, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException inTheWay) {
            if (Files.exists(moved) && !Files.exists(place)) {
                Files.move(moved, place, StandardCopyOption.ATOMIC_MOVE);
            }
            delete(beside);
            throw new StartRefused("The copy could not take the place of %s: %s. What was there is untouched."
                    .formatted(place, inTheWay.getMessage()));
        }
        return moved.toString();
    }

    /** Nobody may work with the folder while it is exchanged. */
    private static FileChannel lock(Path data) throws IOException {
        if (!Files.isDirectory(data)) {
            return FileChannel.open(
                    Files.createTempFile("yalos", ".lock"),
                    StandardOpenOption.WRITE,
                    StandardOpenOption.DELETE_ON_CLOSE);
        }
        FileChannel channel =
                FileChannel.open(data.resolve("in-use"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException here) {
            lock = null;
        }
        if (lock == null) {
            channel.close();
            throw new StartRefused("Yalos runs with %s. Stop it first; nothing was changed.".formatted(data));
        }
        return channel;
    }

    private static void unpack(Path file, Path beside, int newest) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry head = zip.getEntry(NAME);
            if (head == null) {
                throw new StartRefused(
                        "%s is no whole copy of Yalos' data: its last part, %s, is missing.".formatted(file, NAME));
            }
            Told told;
            try (InputStream in = zip.getInputStream(head)) {
                told = JSON.readValue(in.readNBytes(64 << 20), Told.class);
            } catch (JacksonException broken) {
                throw new StartRefused("%s is damaged: %s cannot be read.".formatted(file, NAME));
            }
            if (!FORMAT.equals(told.format())
                    || told.version() == null
                    || told.schema() == null
                    || told.files() == null) {
                throw new StartRefused("%s is no copy of Yalos' data.".formatted(file));
            }
            if (told.version() > VERSION || told.schema() > newest) {
                throw new StartRefused(
                        "%s was written by a newer Yalos (data %d; this one reads up to %d). Update the program."
                                .formatted(file, told.schema(), newest));
            }
            Set<String> names = new HashSet<>();
            for (Manifest.Part part : told.files()) {
                Path target = beside.resolve(part.name()).normalize();
                if (!target.startsWith(beside) || part.name().contains("\\") || !names.add(part.name())) {
                    throw new StartRefused(
                            "%s names “%s”, a file outside itself. Nothing was unpacked.".formatted(file, part.name()));
                }
                ZipEntry entry = zip.getEntry(part.name());
                if (entry == null) {
                    throw new StartRefused("%s is not whole: “%s” is missing.".formatted(file, part.name()));
                }
                Files.createDirectories(target.getParent());
                copy(zip, entry, part, target, file);
            }
            if (!names.contains(DATABASE)) {
                throw new StartRefused("%s holds no database.".formatted(file));
            }
        } catch (ZipException broken) {
            throw new StartRefused("%s is no whole zip: it was cut off or damaged. Take another copy.".formatted(file));
        }
    }

    private static void copy(ZipFile zip, ZipEntry entry, Manifest.Part part, Path target, Path file)
            throws IOException {
        MessageDigest digest = Sha256.digest();
        long bytes = 0;
        try (InputStream in = zip.getInputStream(entry);
                OutputStream out = Files.newOutputStream(target)) {
            byte[] some = new byte[1 << 16];
            for (int count = in.read(some); count >= 0 && bytes <= part.bytes(); count = in.read(some)) {
                digest.update(some, 0, count);
                out.write(some, 0, count);
                bytes += count;
            }
        }
        if (bytes != part.bytes() || !HexFormat.of().formatHex(digest.digest()).equals(part.sha256())) {
            throw new StartRefused("%s is damaged: “%s” is not what was written.".formatted(file, part.name()));
        }
    }

    static void delete(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(one);
                }
            }
        }
    }

    /** A connection of its own to a database that nobody has open. */
    static Connection alone(Path data) throws SQLException {
        return DriverManager.getConnection(
                "jdbc:h2:file:" + data.toAbsolutePath().resolve("yalos") + ";IFEXISTS=TRUE", "yalos", "");
    }
}

package yalos.web.keep;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.store.DataFolder;
import yalos.web.store.Sha256;
import yalos.web.store.StartRefused;

/** Puts a {@link DataCopy} back in one step: the folder that was there is kept beside. */
final class DataRestore {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT);
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private DataRestore() {}

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
        if (!DataFolder.taken(channel)) {
            channel.close();
            throw new StartRefused("Yalos runs with %s. Stop it first; nothing was changed.".formatted(data));
        }
        return channel;
    }

    private static void unpack(Path file, Path beside, int newest) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry head = zip.getEntry(DataCopy.NAME);
            if (head == null) {
                throw new StartRefused("%s is no whole copy of Yalos' data: its last part, %s, is missing."
                        .formatted(file, DataCopy.NAME));
            }
            DataCopy.Told told;
            try (InputStream in = zip.getInputStream(head)) {
                told = JSON.readValue(in.readNBytes(64 << 20), DataCopy.Told.class);
            } catch (JacksonException broken) {
                throw new StartRefused("%s is damaged: %s cannot be read.".formatted(file, DataCopy.NAME));
            }
            if (!DataCopy.FORMAT.equals(told.format())
                    || told.version() == null
                    || told.schema() == null
                    || told.files() == null) {
                throw new StartRefused("%s is no copy of Yalos' data.".formatted(file));
            }
            if (told.version() > DataCopy.VERSION || told.schema() > newest) {
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
            if (!names.contains(DataCopy.DATABASE)) {
                throw new StartRefused("%s holds no database.".formatted(file));
            }
        } catch (EOFException | ZipException broken) {
            throw new StartRefused("%s is no whole zip: it was cut off or damaged. Take another copy.".formatted(file));
        }
    }

    private static void copy(ZipFile zip, ZipEntry entry, Manifest.Part part, Path target, Path file)
            throws IOException {
        MessageDigest digest = Sha256.digest();
        long bytes = 0;
        try (InputStream in = zip.getInputStream(entry);
                FileChannel channel =
                        FileChannel.open(target, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
                OutputStream out = Channels.newOutputStream(channel)) {
            byte[] some = new byte[1 << 16];
            for (int count = in.read(some); count >= 0 && bytes <= part.bytes(); count = in.read(some)) {
                digest.update(some, 0, count);
                out.write(some, 0, count);
                bytes += count;
            }
            // On the disk before the folders are exchanged.
            channel.force(true);
        }
        if (bytes != part.bytes() || !HexFormat.of().formatHex(digest.digest()).equals(part.sha256())) {
            throw new StartRefused("%s is damaged: “%s” is not what was written.".formatted(file, part.name()));
        }
    }

    private static void delete(Path folder) throws IOException {
        if (Files.exists(folder)) {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(one);
                }
            }
        }
    }
}

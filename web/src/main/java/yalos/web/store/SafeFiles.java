package yalos.web.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Files that are whole or not there: written aside, forced to the disk, renamed. */
public final class SafeFiles {
    private SafeFiles() {}

    /** Moves a file that was written aside to its place, on the disk when it returns. */
    public static void keep(Path aside, Path place) throws IOException {
        force(aside, StandardOpenOption.WRITE);
        Files.move(aside, place, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        force(place.toAbsolutePath().getParent(), StandardOpenOption.READ);
    }

    /** Writes a small file aside and keeps it. */
    public static void write(Path place, byte[] content) throws IOException {
        Path aside = Files.createTempFile(place.toAbsolutePath().getParent(), "kept", ".part");
        try {
            Files.write(aside, content);
            keep(aside, place);
        } finally {
            Files.deleteIfExists(aside);
        }
    }

    private static void force(Path path, StandardOpenOption how) throws IOException {
        try (FileChannel channel = FileChannel.open(path, how)) {
            channel.force(true);
        }
    }
}

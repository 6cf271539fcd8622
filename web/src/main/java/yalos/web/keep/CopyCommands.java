package yalos.web.keep;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import yalos.web.store.DataFolder;
import yalos.web.store.NewerData;
import yalos.web.store.StartRefused;

/** {@code backup FILE} and {@code restore FILE} from the command line, whether the program runs or not. */
public final class CopyCommands {
    private static final long LOOK_NANOS = TimeUnit.MILLISECONDS.toNanos(100);

    private CopyCommands() {}

    /** Whether the first word asks for one. */
    public static boolean asked(String... args) {
        return args.length > 0 && (args[0].equals("backup") || args[0].equals("restore"));
    }

    /**
     * Does it, and answers with what to say.
     *
     * @param args {@code backup FILE DATA} or {@code restore FILE DATA}
     * @throws StartRefused where it cannot be done
     */
    public static String run(String... args) {
        if (args.length != 3) {
            throw new StartRefused("Say which file: ./yalos %s FILE [--data DIR]".formatted(args[0]));
        }
        Path file = Path.of(args[1]).toAbsolutePath();
        Path data = Path.of(args[2]).toAbsolutePath().normalize();
        try {
            if (args[0].equals("restore")) {
                String before = DataRestore.restore(file, data, NewerData.newest());
                return "%s is back from %s.%s"
                        .formatted(
                                data,
                                file,
                                before.isEmpty()
                                        ? ""
                                        : " What was there before lies in %s; delete it when all is well."
                                                .formatted(before));
            }
            if (!Files.isRegularFile(data.resolve("yalos.mv.db"))) {
                throw new StartRefused("There is no data in %s. Name its folder with --data.".formatted(data));
            }
            backup(file, data);
            return "All data of %s is in %s, %,d kB.".formatted(data, file, Files.size(file) >> 10);
        } catch (IOException | SQLException fault) {
            throw new StartRefused("No copy was made: %s".formatted(fault.getMessage()));
        }
    }

    private static void backup(Path file, Path data) throws IOException, SQLException {
        try (FileChannel channel =
                FileChannel.open(data.resolve("in-use"), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (DataFolder.taken(channel)) {
                NewerData.refuse(data);
                try (Connection connection = DataCopy.alone(data)) {
                    DataCopy.write(data, DataCopy.over(connection), file);
                }
                return;
            }
        }
        asked(file, data);
    }

    /** Asks the program that runs, through the data folder that both know. */
    private static void asked(Path file, Path data) throws IOException {
        Path orders = Files.createDirectories(data.resolve("orders"));
        String name = UUID.randomUUID().toString();
        Path aside = orders.resolve(name + ".part");
        Path order = orders.resolve(name + ".backup");
        Files.writeString(aside, file.toString());
        Files.move(aside, order);
        Path done = orders.resolve(name + ".done");
        while (!Files.exists(done)) {
            if (stopped(data)) {
                Files.deleteIfExists(order);
                throw new StartRefused("Yalos stopped before the copy was made. Ask again.");
            }
            LockSupport.parkNanos(LOOK_NANOS);
        }
        String told = Files.readString(done);
        Files.deleteIfExists(done);
        if (!told.isEmpty()) {
            throw new StartRefused("No copy was made: " + told);
        }
    }

    private static boolean stopped(Path data) throws IOException {
        try (FileChannel channel = FileChannel.open(data.resolve("in-use"), StandardOpenOption.WRITE)) {
            return DataFolder.taken(channel);
        }
    }
}

package yalos.web.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.stream.Stream;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ContextClosedEvent;

/** Takes the data folder for this start alone, before anything in it is opened, and sweeps what a killed run left half-written. */
public final class DataFolder implements ApplicationContextInitializer<ConfigurableApplicationContext> {
    private FileChannel inUse;

    @Override
    public void initialize(ConfigurableApplicationContext context) {
        Path folder = Path.of(context.getEnvironment().getProperty("yalos.data", "./data"));
        try {
            Files.createDirectories(folder);
            FileChannel file =
                    FileChannel.open(folder.resolve("in-use"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            if (!taken(file)) {
                file.close();
                throw new StartRefused(
                        "Another Yalos works with %s. Stop it, or name another folder with --data.".formatted(folder));
            }
            inUse = file;
            NewerData.refuse(folder);
            sweep(folder);
            context.addApplicationListener((ApplicationListener<ContextClosedEvent>) closed -> close());
        } catch (IOException e) {
            throw new StartRefused("The data folder %s cannot be written: %s".formatted(folder, e.getMessage()));
        }
    }

    /** Takes the file that says that a folder is in use; false where another Yalos has it. Given back when the channel is closed. */
    public static boolean taken(FileChannel file) throws IOException {
        try {
            return file.tryLock() != null;
        } catch (OverlappingFileLockException inThisProcess) {
            return false;
        }
    }

    /** Gives the folder back. */
    public void close() {
        try {
            if (inUse != null) {
                inUse.close();
            }
        } catch (IOException e) {
            throw new StartRefused(e.getMessage());
        }
    }

    /** Where uploads and other passing files of a data folder lie; emptied at each start. */
    public static Path scratch(Path data) {
        return data.resolve("scratch");
    }

    /** Nobody writes yet, so whatever is half-written was left by a run that was killed. */
    private static void sweep(Path folder) throws IOException {
        for (Path place : new Path[] {folder, folder.resolve("models"), folder.resolve("maps")}) {
            if (Files.isDirectory(place)) {
                try (Stream<Path> files = Files.list(place)) {
                    for (Path part : files.filter(file -> file.toString().endsWith(".part"))
                            .toList()) {
                        Files.deleteIfExists(part);
                    }
                }
            }
        }
        Path scratch = scratch(folder);
        for (Path passing : new Path[] {scratch, folder.resolve("orders")}) {
            if (Files.isDirectory(passing)) {
                try (Stream<Path> left = Files.walk(passing)) {
                    for (Path one : left.sorted(Comparator.reverseOrder()).toList()) {
                        Files.delete(one);
                    }
                }
            }
        }
        Files.createDirectories(scratch);
    }
}

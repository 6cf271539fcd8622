package yalos.web.keep;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import yalos.core.fault.InputFault;
import yalos.web.door.Doorway;
import yalos.web.jobs.Jobs;
import yalos.web.store.JobMapper;
import yalos.web.store.PreferenceMapper;

/**
 * Copies of all data while the program runs: on a press, at the order of the command line, and by itself into a chosen folder every so many hours, kept for so many days. Empties the bin too: both look at the same
 * files, one after the other.
 */
@Service
public class CopyDesk {
    /** How long a deleted job waits in the bin. */
    public static final int BIN_DAYS = 30;

    private static final Logger LOG = LoggerFactory.getLogger(CopyDesk.class);
    private static final String KEY = "copies";
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss", Locale.ROOT);
    private static final Pattern NAME = Pattern.compile("yalos-(\\d{4}-\\d{2}-\\d{2}-\\d{6})\\.zip");
    private static final int MOST_HOURS = 24 * 31;
    private static final int MOST_DAYS = 3650;
    private static final long ORDERS_MS = 200;

    private final DataSource database;
    private final PreferenceMapper preferences;
    private final JobMapper rows;
    private final Jobs jobs;
    private final Doorway door;
    private final Path data;
    private final ReentrantLock files = new ReentrantLock();
    private final ScheduledExecutorService timer = Executors.newSingleThreadScheduledExecutor(job -> {
        Thread thread = new Thread(job, "copies");
        thread.setDaemon(true);
        return thread;
    });
    private volatile String fault = "";

    CopyDesk(
            DataSource database,
            PreferenceMapper preferences,
            JobMapper rows,
            Jobs jobs,
            Doorway door,
            @Value("${yalos.data}") Path data) {
        this.database = database;
        this.preferences = preferences;
        this.rows = rows;
        this.jobs = jobs;
        this.door = door;
        this.data = data.toAbsolutePath();
    }

    /**
     * Copies that are made by themselves.
     *
     * @param everyHours from one to the next
     * @param keepDays after which one goes; the newest never does
     */
    public record Plan(Path folder, int everyHours, int keepDays) {}

    /** A copy that was made. */
    public record Made(Path file, LocalDateTime at, long bytes) {}

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        timer.scheduleWithFixedDelay(this::orders, 0, ORDERS_MS, TimeUnit.MILLISECONDS);
        timer.scheduleWithFixedDelay(this::tick, 5, 60, TimeUnit.SECONDS);
    }

    @PreDestroy
    void close() {
        timer.shutdownNow();
    }

    /** Writes a copy into a file. One at a time, and the bin is not emptied meanwhile: both look at the same files. */
    long write(Path target) throws IOException {
        files.lock();
        try (Connection connection = database.getConnection()) {
            return DataCopy.write(data, DataCopy.over(connection), target);
        } catch (SQLException fault) {
            throw new IOException("The database could not be copied: " + fault.getMessage(), fault);
        } finally {
            files.unlock();
        }
    }

    /**
     * The same for somebody who waits for it.
     *
     * @throws InputFault while another copy is being made
     */
    public void writeNow(Path target) throws IOException {
        if (!files.tryLock()) {
            throw new InputFault("copy", target.getFileName(), "A copy is being made already. Try again in a minute.");
        }
        try {
            write(target);
        } finally {
            files.unlock();
        }
    }

    /** What was last planned. */
    public Optional<Plan> plan() {
        return preferences.get(KEY).filter(text -> !text.isBlank()).map(text -> {
            String[] parts = text.split("\n");
            return new Plan(Path.of(parts[0]), Integer.parseInt(parts[1]), Integer.parseInt(parts[2]));
        });
    }

    /**
     * Has copies made by themselves from now on; none with an empty folder.
     *
     * @throws InputFault for a folder that is none or cannot be written, or lies in the data itself
     */
    public void plan(String folder, int everyHours, int keepDays) {
        if (folder.isBlank()) {
            preferences.put(KEY, "");
            fault = "";
            return;
        }
        InputFault.within("hours", everyHours, 1, MOST_HOURS, "h");
        InputFault.within("days", keepDays, 1, MOST_DAYS, "days");
        if (door.guarded()) {
            throw new InputFault(
                    "folder",
                    folder,
                    "Over the network no folder of this machine is chosen. Plan the copies on the machine itself, or have ./yalos backup run by its clock.");
        }
        Path place = folder(folder);
        preferences.put(KEY, place + "\n" + everyHours + "\n" + keepDays);
    }

    private Path folder(String typed) {
        try {
            Path place = Path.of(typed.strip());
            if (!place.isAbsolute()) {
                throw new InputFault("folder", typed, "Give the whole path of the folder, from its beginning.");
            }
            if (place.normalize().startsWith(data.normalize())) {
                throw new InputFault(
                        "folder",
                        typed,
                        "That folder lies in the data itself; a copy there is lost with it. Choose another disk.");
            }
            Files.createDirectories(place);
            Files.delete(Files.createTempFile(place, "yalos", ".part"));
            return place.normalize();
        } catch (InvalidPathException | IOException none) {
            throw new InputFault(
                    "folder", typed, "“%s” cannot be written: %s".formatted(typed.strip(), none.getMessage()));
        }
    }

    /** Copies in the chosen folder, the newest first. */
    public List<Made> made() {
        return plan().map(plan -> made(plan.folder())).orElse(List.of());
    }

    private static List<Made> made(Path folder) {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(CopyDesk::copy)
                    .flatMap(Optional::stream)
                    .sorted((one, other) -> other.at().compareTo(one.at()))
                    .toList();
        } catch (IOException gone) {
            return List.of();
        }
    }

    private static Optional<Made> copy(Path file) {
        Matcher name = NAME.matcher(file.getFileName().toString());
        try {
            return name.matches()
                    ? Optional.of(new Made(file, LocalDateTime.parse(name.group(1), STAMP), Files.size(file)))
                    : Optional.empty();
        } catch (IOException | DateTimeException none) {
            return Optional.empty();
        }
    }

    /** Why the last copy of the plan was not made; empty where it was. */
    public String fault() {
        return fault;
    }

    /** Does what is due: a copy, old copies away, the bin emptied of what has waited long enough. */
    void tick() {
        try {
            plan().ifPresent(this::due);
        } catch (RuntimeException odd) {
            LOG.error("the planned copy was not made", odd);
            fault = String.valueOf(odd.getMessage());
        }
        try {
            empty();
        } catch (RuntimeException odd) {
            LOG.error("the bin was not emptied", odd);
        }
    }

    private void due(Plan plan) {
        LocalDateTime now = LocalDateTime.now().withNano(0);
        List<Made> before = made(plan.folder());
        boolean due = before.isEmpty()
                || !before.get(0).at().plusHours(plan.everyHours()).isAfter(now);
        if (due) {
            try {
                write(plan.folder().resolve("yalos-%s.zip".formatted(STAMP.format(now))));
                fault = "";
            } catch (IOException notKept) {
                fault = notKept.getMessage();
                LOG.warn("the planned copy was not made: {}", fault);
                return;
            }
        }
        List<Made> all = made(plan.folder());
        for (Made one : all.subList(Math.min(1, all.size()), all.size())) {
            if (one.at().plusDays(plan.keepDays()).isBefore(now)) {
                try {
                    Files.deleteIfExists(one.file());
                } catch (IOException kept) {
                    LOG.warn("an old copy stays: {}", one.file());
                }
            }
        }
    }

    /** Takes away what has waited in the bin long enough. */
    private void empty() {
        LocalDateTime before = LocalDateTime.now().minusDays(BIN_DAYS);
        rows.binned().stream().filter(job -> job.binnedAt().isBefore(before)).forEach(job -> purge(job.id()));
    }

    /**
     * Deletes a job in the bin for good.
     *
     * @throws InputFault while a copy is being made, which may still want its files
     */
    public void purge(long job) {
        if (!files.tryLock()) {
            throw new InputFault("job", job, "A copy of all data is being made. Delete it for good when that is done.");
        }
        try {
            jobs.purge(job);
        } finally {
            files.unlock();
        }
    }

    /** Orders of the command line: files that name where a copy is wanted. */
    private void orders() {
        Path folder = data.resolve("orders");
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (Stream<Path> all = Files.list(folder)) {
            for (Path order :
                    all.filter(file -> file.toString().endsWith(".backup")).toList()) {
                String told = "";
                try {
                    write(Path.of(Files.readString(order)));
                } catch (IOException | RuntimeException notMade) {
                    told = String.valueOf(notMade.getMessage());
                }
                String name = order.getFileName().toString().replace(".backup", "");
                Path aside = folder.resolve(name + ".part");
                Files.deleteIfExists(order);
                Files.writeString(aside, told);
                Files.move(aside, folder.resolve(name + ".done"));
            }
        } catch (IOException gone) {
            LOG.warn("an order of the command line could not be read: {}", gone.getMessage());
        }
    }
}

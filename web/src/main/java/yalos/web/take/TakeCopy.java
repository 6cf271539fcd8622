package yalos.web.take;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.web.shell.Person;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.work.Order;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/** The manifest of a take, SHA-256 of every file in the form that common tools check, and a second copy held against it. */
@Component
class TakeCopy {
    static final String COPY = "COPY";
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Pattern LINE = Pattern.compile("\\\\?([0-9a-fA-F]{64})[ *]+(.+)");
    private static final Duration END = Duration.ofHours(3);
    private static final int MOST_NAMED = 20;

    private final TakeStore store;
    private final WorkQueue queue;
    private final Map<Long, Work<?>> works = new ConcurrentHashMap<>();

    TakeCopy(TakeStore store, WorkQueue queue) {
        this.store = store;
        this.queue = queue;
    }

    /**
     * What comparing found.
     *
     * @param same files that are there and the same
     * @param names of some that are missing or not the same
     */
    record StoredCopy(String where, int same, int missing, int other, List<String> names) {}

    /** One line a file: its sum, two spaces, its name with its folder below the take's. */
    static String manifest(List<TakeStore.Kept> photos) {
        StringBuilder text = new StringBuilder();
        for (TakeStore.Kept one : photos) {
            if (!one.photo().sha256().isEmpty()) {
                text.append(one.photo().sha256())
                        .append("  ")
                        .append(one.photo().name())
                        .append('\n');
            }
        }
        return text.toString();
    }

    /** Whether a copy is being compared, and how far, 0..1. */
    Optional<Double> progress(long block) {
        return Optional.ofNullable(works.get(block)).filter(Work::open).map(Work::progress);
    }

    /** Why the last comparison went no further; empty where it did. */
    String fault(long block) {
        return Optional.ofNullable(works.get(block))
                .filter(Work::failed)
                .map(
                        work -> work.failure()
                                .filter(InputFault.class::isInstance)
                                .map(Throwable::getMessage)
                                .orElse(
                                        "The second copy could not be read to its end. Is its disk still there? Compare it again."))
                .orElse("");
    }

    void callOff(long block) {
        Optional.ofNullable(works.get(block)).ifPresent(Work::callOff);
    }

    /** Waits until it is compared. */
    void settle(long block) {
        Optional.ofNullable(works.get(block)).ifPresent(work -> work.await(() -> true));
    }

    /** Reads the files of a second copy and holds them against the take, in the background. */
    void compare(long block, Path folder) {
        List<TakeStore.Kept> photos = store.photos(block);
        if (photos.stream().anyMatch(one -> one.photo().sha256().isEmpty())) {
            throw new InputFault(
                    "folder",
                    folder,
                    "The photos' own sums are not all known yet; wait until their pictures were looked at.");
        }
        String who = Person.present();
        works.put(
                block, queue.submit(new Order("take " + block, "Comparing the second copy", 20_000_000, END), work -> {
                    Map<String, List<Path>> byName = new HashMap<>();
                    try (Stream<Path> files = Files.walk(folder, 8)) {
                        files.filter(Files::isRegularFile)
                                .limit(200_000)
                                .forEach(file -> byName.computeIfAbsent(
                                                file.getFileName().toString().toLowerCase(Locale.ROOT),
                                                name -> new ArrayList<>())
                                        .add(file));
                    }
                    Comparing found = new Comparing();
                    for (int i = 0; i < photos.size(); i++) {
                        work.check();
                        work.goOn((double) i / photos.size());
                        TakeStore.Kept one = photos.get(i);
                        List<Path> alike =
                                byName.getOrDefault(one.photo().name().toLowerCase(Locale.ROOT), List.of());
                        found.add(one, alike.isEmpty(), same(one, alike));
                    }
                    store.file(block, row(found.as(folder.toString()), who));
                    return true;
                }));
    }

    private static boolean same(TakeStore.Kept one, List<Path> alike) throws IOException {
        for (Path file : alike) {
            // A file of another size cannot be the same; its sum need not be made.
            if (Files.size(file) == one.photo().facts().bytes()
                    && TakeReading.sum(file).equals(one.photo().sha256())) {
                return true;
            }
        }
        return false;
    }

    /** Holds a list of sums, as common tools write it, against the take. */
    void compareList(long block, String name, byte[] content) {
        Map<String, List<String>> byName = new HashMap<>();
        for (String line : new String(content, StandardCharsets.UTF_8).lines().toList()) {
            Matcher parts = LINE.matcher(line.strip());
            if (parts.matches()) {
                String file = parts.group(2).replace('\\', '/');
                byName.computeIfAbsent(
                                file.substring(file.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT),
                                key -> new ArrayList<>())
                        .add(parts.group(1).toLowerCase(Locale.ROOT));
            }
        }
        if (byName.isEmpty()) {
            throw new InputFault(
                    "file", name, "No line of it is a SHA-256 sum and a file's name, as sha256sum writes them.");
        }
        Comparing found = new Comparing();
        for (TakeStore.Kept one : store.photos(block)) {
            List<String> sums = byName.getOrDefault(one.photo().name().toLowerCase(Locale.ROOT), List.of());
            found.add(one, sums.isEmpty(), sums.contains(one.photo().sha256()));
        }
        store.file(block, row(found.as(name), Person.present()));
    }

    private static FileRow row(StoredCopy copy, String who) {
        return new FileRow(
                0,
                COPY,
                TakeStore.cut("second copy: " + copy.where(), 200),
                0,
                "",
                JSON.writeValueAsString(copy),
                null,
                who);
    }

    /** Counts while it compares. */
    private static final class Comparing {
        private int same;
        private int missing;
        private int other;
        private final List<String> names = new ArrayList<>();

        void add(TakeStore.Kept one, boolean absent, boolean alike) {
            same += alike ? 1 : 0;
            missing += absent ? 1 : 0;
            other += !absent && !alike ? 1 : 0;
            if (!alike && names.size() < MOST_NAMED) {
                names.add(one.photo().name() + (absent ? " missing" : " not the same"));
            }
        }

        StoredCopy as(String where) {
            return new StoredCopy(where, same, missing, other, List.copyOf(names));
        }
    }
}

package yalos.web.take;

import jakarta.annotation.PreDestroy;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileVisitOption;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import yalos.core.fault.InputFault;
import yalos.core.take.PhotoFacts;
import yalos.core.take.PhotoReader;
import yalos.core.take.PictureReader;
import yalos.web.door.Doorway;
import yalos.web.shell.Person;
import yalos.web.store.Sha256;
import yalos.web.store.StoredPhoto;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.Known;
import yalos.web.store.TakeMapper.PhotoRow;
import yalos.web.work.Order;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/**
 * Reads photos where they lie: first what every file says of itself, which takes a moment, then every picture, which takes as long as decoding takes. Nothing is copied, nothing of the originals is changed; what was read
 * stays, so that reading that was called off or broken goes on where it ended.
 */
@Component
public class TakeReading {
    static final int MOST_PHOTOS = 30_000;
    private static final int DEEPEST = 6;
    private static final int LONGEST_FOLDER = 400;
    private static final int BATCH = 200;
    private static final int SEEN_BATCH = 12;
    private static final long BYTES_OF_HEADS = 20_000_000;
    /** A 100-megapixel picture, its coarse one and its middle. */
    private static final long BYTES_OF_PICTURES = 200_000_000;

    private static final Duration END = Duration.ofHours(3);

    private final TakeMapper rows;
    private final TakeStore store;
    private final WorkQueue queue;
    private final Doorway door;
    private final Path own;
    private final Map<Long, Reading> readings = new ConcurrentHashMap<>();

    TakeReading(TakeMapper rows, TakeStore store, WorkQueue queue, Doorway door, @Value("${yalos.data}") Path data) {
        this.rows = rows;
        this.store = store;
        this.queue = queue;
        this.door = door;
        this.own = data.resolve("takes").toAbsolutePath().normalize();
    }

    /** How far the reading of a block's folder is. */
    public static final class Reading {
        private final Path folder;
        private final List<Work<?>> works = new ArrayList<>();
        private final AtomicInteger heads = new AtomicInteger();
        private final AtomicInteger pictures = new AtomicInteger();
        private volatile int files;
        private volatile int toSee;
        private volatile int known;
        private volatile String fault = "";
        private volatile List<String> others = List.of();

        Reading(Path folder) {
            this.folder = folder;
        }

        public boolean running() {
            synchronized (works) {
                return works.stream().anyMatch(Work::open);
            }
        }

        public String folder() {
            return folder.toString();
        }

        /** One line. */
        public String words() {
            if (!fault().isEmpty()) {
                return "not read";
            }
            if (heads.get() + known < files || files == 0 && running()) {
                return "%,d of %,d files read".formatted(heads.get() + known, files);
            }
            return running()
                    ? "%,d of %,d pictures looked at".formatted(pictures.get(), toSee)
                    : "%,d files read, %,d of them known before".formatted(files, known);
        }

        /** 0..100. */
        public int percent() {
            double share = files == 0 ? 0 : 0.1 * (heads.get() + known) / files;
            return (int) Math.round(100 * (share + (toSee == 0 ? 0 : 0.9 * pictures.get() / toSee)));
        }

        /** Why it went no further; empty where it did. */
        public String fault() {
            if (!fault.isEmpty()) {
                return fault;
            }
            synchronized (works) {
                return works.stream()
                        .filter(Work::failed)
                        .map(work -> work.failure()
                                .filter(InputFault.class::isInstance)
                                .map(Throwable::getMessage)
                                .orElse("The folder could not be read to its end. Read it again; what was read stays."))
                        .findFirst()
                        .orElse("");
            }
        }

        /** Files beside the photos that belong to a take. */
        public List<String> others() {
            return others;
        }

        /** Waits until all of it has ended. */
        public void settle() {
            for (int i = 0; ; i++) {
                Work<?> work;
                synchronized (works) {
                    if (i >= works.size()) {
                        return;
                    }
                    work = works.get(i);
                }
                try {
                    work.await(() -> true);
                } catch (RuntimeException ended) {
                    // The page tells of it.
                    continue;
                }
            }
        }
    }

    public Optional<Reading> of(long block) {
        return Optional.ofNullable(readings.get(block));
    }

    /** Where folders may lie: anywhere on this machine; over the network only in the data folder. */
    String where() {
        return door.guarded() ? own.toString() : "";
    }

    /**
     * Begins to read a folder, or goes on.
     *
     * @throws InputFault for no folder, or one that must not be read
     */
    public Reading begin(long block, String typed) {
        Path folder = folder(typed);
        Reading before = readings.get(block);
        if (before != null && before.running()) {
            throw new InputFault("folder", typed, "A folder is being read already. Wait, or call it off.");
        }
        Reading reading = new Reading(folder);
        String who = Person.present();
        Work<?> heads = queue.submit(new Order("take " + block, "Reading the photos", BYTES_OF_HEADS, END), work -> {
            heads(block, reading, who, work);
            return true;
        });
        synchronized (reading.works) {
            reading.works.add(heads);
        }
        readings.put(block, reading);
        store.note(block, "folder %s read".formatted(folder));
        return reading;
    }

    /**
     * The folder that is meant.
     *
     * @throws InputFault for none, or one that must not be read
     */
    Path folder(String typed) {
        Path folder;
        try {
            String plain = typed.strip();
            folder = door.guarded() && !Path.of(plain).isAbsolute() ? own.resolve(plain) : Path.of(plain);
        } catch (InvalidPathException odd) {
            throw new InputFault("folder", typed, "“%s” is no folder's name.".formatted(typed.strip()));
        }
        if (!folder.isAbsolute()) {
            throw new InputFault("folder", typed, "Give the whole path of the folder, from its beginning.");
        }
        Path plain = folder.normalize();
        if (door.guarded() && !plain.startsWith(own)) {
            throw new InputFault(
                    "folder",
                    typed,
                    "Over the network only folders in %s are read. Copy the photos there, or pick them in the browser."
                            .formatted(own));
        }
        if (!Files.isDirectory(plain)) {
            throw new InputFault(
                    "folder",
                    typed,
                    "There is no folder “%s” on the machine that Yalos runs on. Is the card in, and its name right?"
                            .formatted(plain));
        }
        return plain;
    }

    void callOff(long block) {
        Reading reading = readings.get(block);
        if (reading != null) {
            synchronized (reading.works) {
                reading.works.forEach(Work::callOff);
            }
        }
    }

    // What files say.

    private void heads(long block, Reading reading, String who, Work<?> work) throws IOException {
        List<Path> photos = listed(reading);
        reading.files = photos.size();
        Map<String, Known> before = new HashMap<>();
        rows.known(block).forEach(one -> before.put(one.folder() + "\n" + one.name(), one));
        if (before.size() + photos.size() > 2 * MOST_PHOTOS) {
            reading.fault = "More than %,d photos are kept of no block.".formatted(2 * MOST_PHOTOS);
            return;
        }
        List<PhotoRow> batch = new ArrayList<>();
        for (Path file : photos) {
            work.check();
            String within = String.valueOf(
                    Optional.ofNullable(reading.folder.relativize(file).getParent())
                            .map(Path::toString)
                            .orElse(""));
            String place = reading.folder + (within.isEmpty() ? "" : "/" + within);
            if (place.length() > LONGEST_FOLDER) {
                throw new InputFault(
                        "folder",
                        place,
                        "The path of a folder in it is longer than %d letters. Bring in the folder nearer to the photos."
                                .formatted(LONGEST_FOLDER));
            }
            BasicFileAttributes is = Files.readAttributes(file, BasicFileAttributes.class);
            Known known = before.get(place + "\n" + file.getFileName());
            if (known != null
                    && known.bytes() == is.size()
                    && known.modified() == is.lastModifiedTime().toMillis()) {
                reading.known++;
            } else {
                batch.add(head(block, place, file.getFileName().toString(), file, who));
                reading.heads.incrementAndGet();
            }
            if (batch.size() >= BATCH) {
                store.append(block, batch);
                batch.clear();
            }
        }
        if (!batch.isEmpty()) {
            store.append(block, batch);
        }
        see(block, reading);
    }

    /** What one file says, as a row. */
    static PhotoRow head(long block, String place, String name, Path file, String who) throws IOException {
        PhotoFacts facts = PhotoReader.read(name, file);
        PhotoRow row = new PhotoRow();
        row.blockId = block;
        row.folder = place;
        row.name = facts.name();
        row.bytes = facts.bytes();
        row.modified = Files.getLastModifiedTime(file).toMillis();
        row.facts = StoredPhoto.facts(facts);
        row.keptBy = who;
        return row;
    }

    private static List<Path> listed(Reading reading) throws IOException {
        List<Path> photos = new ArrayList<>();
        List<String> others = new ArrayList<>();
        Files.walkFileTree(reading.folder, EnumSet.noneOf(FileVisitOption.class), DEEPEST, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes is) {
                String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
                if (is.isRegularFile() && !name.startsWith(".")) {
                    if (name.matches(".*\\.(jpe?g|tiff?)")) {
                        photos.add(file);
                    } else if (name.matches(".*\\.(\\d\\do|rnx|obs|las|laz|csv|gpx|geojson)(\\.gz)?")) {
                        others.add(file.getFileName().toString());
                    }
                }
                return photos.size() > MOST_PHOTOS ? FileVisitResult.TERMINATE : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException fault) {
                return FileVisitResult.CONTINUE;
            }
        });
        if (photos.size() > MOST_PHOTOS) {
            throw new InputFault(
                    "folder",
                    photos.size(),
                    "The folder holds more than %,d photos. Bring in the folder of one flight, or of one block."
                            .formatted(MOST_PHOTOS));
        }
        if (photos.isEmpty()) {
            throw new InputFault(
                    "folder",
                    reading.folder,
                    "No JPEG or TIFF file lies in %s or the folders in it.".formatted(reading.folder));
        }
        photos.sort(null);
        reading.others = List.copyOf(others);
        return photos;
    }

    // Pictures.

    /** Has the pictures that were not yet seen looked at, by as many as may work beside each other. */
    private void see(long block, Reading reading) {
        List<PhotoRow> unseen = rows.photos(block).stream()
                .filter(row -> row.picture.isEmpty() && row.sha256.isEmpty())
                .filter(row -> (row.folder + "/").startsWith(reading.folder + "/"))
                .toList();
        reading.toSee = unseen.size();
        int beside = Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
        for (int part = 0; part < Math.min(beside, unseen.size()); part++) {
            int first = part;
            Work<?> work =
                    queue.submit(new Order("take " + block, "Looking at the pictures", BYTES_OF_PICTURES, END), own -> {
                        see(block, reading, unseen, first, beside, own);
                        return true;
                    });
            synchronized (reading.works) {
                reading.works.add(work);
            }
        }
    }

    private void see(long block, Reading reading, List<PhotoRow> unseen, int first, int beside, Work<?> work)
            throws IOException {
        Map<PhotoRow, byte[]> batch = new LinkedHashMap<>();
        for (int i = first; i < unseen.size(); i += beside) {
            work.check();
            PhotoRow row = unseen.get(i);
            Path file = Path.of(row.folder).resolve(row.name);
            if (Files.isReadable(file)) {
                batch.put(row, look(row, file));
            }
            reading.pictures.incrementAndGet();
            if (batch.size() >= SEEN_BATCH) {
                store.seen(block, batch);
                batch.clear();
            }
        }
        if (!batch.isEmpty()) {
            store.seen(block, batch);
        }
    }

    /** Looks at one picture: fills in its row, answers with the small one. */
    static byte[] look(PhotoRow row, Path file) throws IOException {
        row.sha256 = sum(file);
        PhotoFacts facts = StoredPhoto.taken(row).facts();
        if (facts.readable() == PhotoFacts.Readable.NOTHING) {
            return new byte[0];
        }
        Optional<PictureReader.Seen> seen = PictureReader.read(file);
        if (seen.isEmpty() || !seen.orElseThrow().whole()) {
            row.facts = StoredPhoto.facts(facts.onlyMetadata(
                    facts.fault().isEmpty()
                            ? "The picture in the file cannot be read to its end: copy it again from the card."
                            : facts.fault()));
        }
        if (seen.isEmpty()) {
            return new byte[0];
        }
        row.picture = StoredPhoto.picture(seen.orElseThrow().picture());
        return jpeg(seen.orElseThrow().small());
    }

    private static byte[] jpeg(BufferedImage small) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(small, "jpg", out);
        return out.toByteArray();
    }

    /** SHA-256 of a file. */
    static String sum(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            MessageDigest digest = Sha256.digest();
            byte[] part = new byte[1 << 16];
            for (int count = in.read(part); count >= 0; count = in.read(part)) {
                digest.update(part, 0, count);
            }
            return HexFormat.of().formatHex(digest.digest());
        }
    }

    int count(long block) {
        return rows.count(block);
    }

    /** Files of a block that are known, each by folder, name, size and time of change. */
    Stream<String> known(long block) {
        return rows.known(block).stream()
                .map(one -> "%s\n%s\n%d\n%d".formatted(one.folder(), one.name(), one.bytes(), one.modified()));
    }

    @PreDestroy
    void close() {
        readings.keySet().forEach(this::callOff);
    }
}

package yalos.web.take;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.LocalPlane;
import yalos.core.exchange.FlightLog;
import yalos.core.exchange.PhotoPositions;
import yalos.core.fault.InputFault;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;
import yalos.core.measured.ObservationReading;
import yalos.core.take.BaseLog;
import yalos.core.take.Fix;
import yalos.core.take.LasFile;
import yalos.core.take.LaserStrips;
import yalos.core.take.TrackLog;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.shell.Person;
import yalos.web.store.TakeMapper.FileRow;

/** Files that come with photos: tables of positions, flight logs, base logs, laser strips. What is found in each is kept as plain records, the file itself is not. */
@Service
class TakeFiles {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    static final String POSITIONS = "POSITIONS";
    static final String LOG = "LOG";
    static final String BASE = "BASE";
    static final String LASER = "LASER";

    static final int MOST_CELLS = 20_000;

    private final TakeStore store;
    private final PlanDesk plans;

    TakeFiles(TakeStore store, PlanDesk plans) {
        this.store = store;
        this.plans = plans;
    }

    /** What a table of positions did. */
    record StoredPositions(
            int rows, int photos, int withAngles, double shiftE, double shiftN, double shiftUp, String zero) {}

    /** What a flight log says. */
    record StoredLog(
            String first,
            String last,
            int moments,
            int photos,
            double stillBefore,
            double stillAfter,
            double straight,
            int eights) {}

    /** What a base log says. */
    record StoredBase(
            String version,
            String marker,
            String systems,
            String first,
            String last,
            double interval,
            int epochs,
            int gaps,
            double longest,
            int fewest,
            int most,
            Double lon,
            Double lat,
            Double ellipsoid,
            Double antenna,
            String receiver,
            String antennaType,
            List<String> changes,
            List<String> doubts) {}

    record StoredStrip(String name, long points, int cells, double density) {}

    record StoredCell(int e, int n, double d) {}

    record StoredPair(
            String a, String b, int cells, double median, double spread, double far, List<StoredCell> differences) {}

    /** What laser strips say. */
    record StoredLaser(
            long points,
            int cells,
            List<StoredStrip> strips,
            List<StoredPair> pairs,
            List<String> doubts,
            String profile) {}

    /** A file with what was found. */
    record Found<T>(FileRow row, T found) {}

    static <T> Optional<Found<T>> last(List<FileRow> files, String kind, Class<T> form) {
        Found<T> last = null;
        for (FileRow row : files) {
            if (row.kind().equals(kind)) {
                last = new Found<>(row, JSON.readValue(row.found(), form));
            }
        }
        return Optional.ofNullable(last);
    }

    private static FileRow row(String kind, String name, Path file, Object found) throws IOException {
        return new FileRow(
                0,
                kind,
                TakeStore.cut(name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1), 200),
                Files.size(file),
                TakeReading.sum(file),
                JSON.writeValueAsString(found),
                null,
                Person.present());
    }

    /** Without ending and case: positions are often told of raw files. */
    private static String stem(String name) {
        String plain = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1)
                .strip()
                .toLowerCase(Locale.ROOT);
        int dot = plain.lastIndexOf('.');
        return dot > 0 ? plain.substring(0, dot) : plain;
    }

    /**
     * Takes positions from a table.
     *
     * @param said what its heights count from; empty where the heading is to say it
     */
    void positions(OpenBlock block, String name, Path file, Optional<Zero> said) throws IOException {
        PhotoPositions table =
                PhotoPositions.read(Files.readAllBytes(file), block.facts().grid());
        boolean heights = table.rows().stream().anyMatch(row -> row.heightM().isPresent());
        Optional<Zero> zero = said.isPresent() ? said : table.zero();
        if (heights && zero.isEmpty()) {
            throw new InputFault(
                    "zero",
                    "",
                    "The table does not say what its heights count from. Choose it, and bring the table again.");
        }
        Map<String, Long> byExact = new HashMap<>();
        Map<String, Long> byName = new HashMap<>();
        Map<Long, TakeStore.Kept> byId = new HashMap<>();
        for (TakeStore.Kept one : store.photos(block.id())) {
            byExact.put(one.photo().name(), one.id());
            byName.putIfAbsent(stem(one.photo().name()), one.id());
            byId.put(one.id(), one);
        }
        Map<Long, Fix> fixes = new HashMap<>();
        for (PhotoPositions.Row row : table.rows()) {
            Long photo = byExact.getOrDefault(row.photo(), byName.get(stem(row.photo())));
            if (photo != null) {
                fixes.put(photo, fix(row, zero.orElse(Zero.GEOID)));
            }
        }
        if (fixes.isEmpty()) {
            throw new InputFault(
                    "file",
                    name,
                    "No photo of the take is named in the table, such as “%s”. Bring the photos in first; names are compared without their endings."
                            .formatted(table.rows().get(0).photo()));
        }
        double[] shift = shift(block, fixes, byId);
        StoredPositions found = new StoredPositions(
                table.rows().size(),
                fixes.size(),
                (int) table.rows().stream()
                        .filter(row -> row.yawDeg().isPresent())
                        .count(),
                shift[0],
                shift[1],
                shift[2],
                heights ? zero.orElseThrow().name() : "");
        store.refine(block.id(), fixes, row(POSITIONS, name, file, found));
    }

    private static Fix fix(PhotoPositions.Row row, Zero zero) {
        OptionalDouble up = row.heightM().isPresent() && zero == Zero.ELLIPSOID
                ? OptionalDouble.of(row.heightM().getAsDouble() - Geoid.egm96().undulationM(row.place()))
                : row.heightM();
        return new Fix(
                row.place(),
                up,
                row.yawDeg(),
                row.pitchDeg(),
                row.rollDeg(),
                row.horizontalM(),
                row.verticalM(),
                Fix.Source.TABLE);
    }

    /** What the photos' own positions are off from the table, in the middle: east, north, up. */
    private static double[] shift(OpenBlock block, Map<Long, Fix> fixes, Map<Long, TakeStore.Kept> byId) {
        List<Double> east = new ArrayList<>();
        List<Double> north = new ArrayList<>();
        List<Double> up = new ArrayList<>();
        fixes.forEach((id, fix) -> byId.get(id).photo().own().ifPresent(own -> {
            LocalPlane plane = LocalPlane.at(block.facts().grid().orElseThrow(), fix.place());
            PlanePoint off = plane.toPlane(own.place());
            east.add(off.xM());
            north.add(off.yM());
            if (own.upM().isPresent() && fix.upM().isPresent()) {
                up.add(own.upM().getAsDouble() - fix.upM().getAsDouble());
            }
        }));
        return new double[] {
            east.isEmpty() ? 0 : Median.of(east),
            north.isEmpty() ? 0 : Median.of(north),
            up.isEmpty() ? 0 : Median.of(up)
        };
    }

    /**
     * Takes positions from a flight log, by the time of each photo.
     *
     * @param times of the photos, by the number of their rows
     * @param all whether photos that have a position of their own get the log's as well
     * @param began when its seconds count from; empty for a log with times
     */
    void log(OpenBlock block, String name, Path file, Map<Long, Instant> times, boolean all, Optional<Instant> began)
            throws IOException {
        TrackLog track = new TrackLog(moments(Files.readAllBytes(file), began).stream()
                .map(one -> new TrackLog.Moment(
                        one.at(), one.place(), one.upM(), one.yawDeg(), one.pitchDeg(), one.rollDeg()))
                .toList());
        Map<Long, Fix> fixes = new HashMap<>();
        for (TakeStore.Kept one : store.photos(block.id())) {
            Instant when = times.get(one.id());
            boolean wanted = all
                    ? one.photo()
                            .refined()
                            .filter(fix -> fix.source() == Fix.Source.TABLE)
                            .isEmpty()
                    : one.photo().fix().isEmpty();
            if (when != null && wanted) {
                track.at(when).ifPresent(fix -> fixes.put(one.id(), fix));
            }
        }
        TrackLog.Aligned aligned = track.aligned();
        StoredLog found = new StoredLog(
                track.moments().get(0).at().toString(),
                track.moments().get(track.moments().size() - 1).at().toString(),
                track.moments().size(),
                fixes.size(),
                aligned.stillBeforeS(),
                aligned.stillAfterS(),
                aligned.straightS(),
                aligned.eights());
        store.refine(block.id(), fixes, row(LOG, name, file, found));
    }

    private static List<FlightLog.Moment> moments(byte[] content, Optional<Instant> began) {
        String head =
                new String(content, 0, Math.min(content.length, 2000), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
        if (head.contains("<gpx")) {
            return FlightLog.gpx(content);
        }
        if (head.stripLeading().startsWith("{")) {
            return LogJson.read(content, began);
        }
        return FlightLog.csv(content, began);
    }

    /** Keeps what a base log says. */
    void base(OpenBlock block, String name, Path file) throws IOException {
        BaseLog log;
        try (InputStream in = Files.newInputStream(file)) {
            log = BaseLog.read(in);
        }
        store.file(
                block.id(),
                row(
                        BASE,
                        name,
                        file,
                        new StoredBase(
                                log.version(),
                                log.marker(),
                                log.systems(),
                                log.first().toString(),
                                log.last().toString(),
                                log.intervalS(),
                                log.times().size(),
                                log.gaps(),
                                log.longestStep().map(BaseLog.Step::seconds).orElse(0.0),
                                log.fewest(),
                                log.most(),
                                log.at().map(at -> at.place().at().lonDeg()).orElse(null),
                                log.at().map(at -> at.place().at().latDeg()).orElse(null),
                                log.at().map(at -> at.place().ellipsoidM()).orElse(null),
                                log.antenna().map(one -> one[0]).orElse(null),
                                log.receiver(),
                                log.antennaType(),
                                log.changes(),
                                log.doubts())));
    }

    /** Reads laser strips, of one file or several, and keeps how they agree. */
    void laser(OpenBlock block, List<String> names, List<Path> files) throws IOException {
        if (names.stream().allMatch(name -> name.toLowerCase(Locale.ROOT).matches(".*\\.tiff?"))) {
            StoredLaser compared = StripGrids.compared(plans.needed(block.facts()), names, files);
            store.file(block.id(), row(LASER, named(names), files.get(0), compared));
            return;
        }
        LaserStrips strips = new LaserStrips();
        List<String> doubts = new ArrayList<>();
        for (int i = 0; i < files.size(); i++) {
            LasFile las = LasFile.open(files.get(i));
            if (las.epsg().isPresent()
                    && block.facts().epsg().isPresent()
                    && las.epsg().getAsInt() != block.facts().epsg().getAsInt()) {
                doubts.add("%s is in EPSG:%d, the block in EPSG:%d; strips are compared in their own system."
                        .formatted(
                                names.get(i),
                                las.epsg().getAsInt(),
                                block.facts().epsg().getAsInt()));
            }
            for (String doubt : strips.add(names.get(i), las)) {
                doubts.add(names.get(i) + ": " + doubt);
            }
        }
        List<StoredPair> pairs = strips.agreements().stream()
                .limit(20)
                .map(one -> new StoredPair(
                        one.a(),
                        one.b(),
                        one.cells().size(),
                        one.medianM(),
                        one.spreadM(),
                        one.farM(),
                        one.cells().stream()
                                .limit(MOST_CELLS)
                                .map(cell ->
                                        new StoredCell(cell.e(), cell.n(), Math.round(cell.differenceM() * 1e4) / 1e4))
                                .toList()))
                .toList();
        store.file(
                block.id(),
                row(
                        LASER,
                        named(names),
                        files.get(0),
                        new StoredLaser(
                                strips.points(),
                                strips.cells(),
                                strips.summaries().stream()
                                        .map(one ->
                                                new StoredStrip(one.name(), one.points(), one.cells(), one.density()))
                                        .toList(),
                                pairs,
                                doubts,
                                LaserProfile.svg(files, strips))));
    }

    private static String named(List<String> names) {
        return names.size() == 1 ? names.get(0) : names.get(0) + " and %d more".formatted(names.size() - 1);
    }

    /** A time as it is typed, by the clock of the place. */
    static Optional<Instant> began(String typed, ZoneOffset zone) {
        if (typed.isBlank()) {
            return Optional.empty();
        }
        return ObservationReading.time(typed.strip()).map(at -> at.toInstant(zone));
    }
}

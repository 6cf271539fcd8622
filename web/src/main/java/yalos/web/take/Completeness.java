package yalos.web.take;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.brief.Brief;
import yalos.core.brief.Purpose;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Positioning;
import yalos.core.take.BaseLog;
import yalos.core.take.PhotoFacts;
import yalos.core.take.Role;
import yalos.core.take.Take;
import yalos.web.store.ControlMapper.BaseRow;
import yalos.web.store.TakeMapper.FileRow;
import yalos.web.take.TakeFiles.Found;
import yalos.web.take.TakeFiles.StoredBase;
import yalos.web.take.TakeFiles.StoredLog;
import yalos.web.take.TakeFiles.StoredPositions;

/** What must be there before anybody leaves, and whether it is: photos, positions, logs, base, panel, control, second copy. */
final class Completeness {
    /** A base is to run so long before and after (common practice). */
    private static final double MARGIN_S = 300;

    private static final double FIXED_SHARE = 0.95;
    private static final double SAME_M = 0.0015;
    /** Approximate positions in logs are good to some metres. */
    private static final double ELSEWHERE_M = 30;

    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);

    private Completeness() {}

    /**
     * One thing.
     *
     * @param words the figure first
     * @param mood {@code done}, {@code mind}, {@code stop} or empty where it does not matter
     */
    public record Item(String key, String label, String words, String mood) {}

    /**
     * What the job knows besides its take.
     *
     * @param measured how often each point was measured, by the key of its name
     * @param base as it was told on the Control stage
     */
    record Known(Brief brief, ControlLayout control, Map<String, Integer> measured, Optional<BaseRow> base) {}

    /**
     * @param open how many stations are still to be flown
     */
    static List<Item> of(Known known, Take take, List<FileRow> files, int open) {
        List<Item> items = new ArrayList<>();
        items.add(photos(take, open));
        items.add(files(take));
        bands(take).ifPresent(items::add);
        Positioning wanted = take.plan().request().able(known.brief().positioning());
        items.add(positions(take, wanted, files));
        base(take, wanted, known.base(), files).ifPresent(items::add);
        items.add(log(take, files));
        panel(known.brief(), take).ifPresent(items::add);
        control(known.control(), known.measured()).ifPresent(items::add);
        items.add(copy(take, files));
        return items;
    }

    private static Item photos(Take take, int open) {
        int stations = take.match().stations().size();
        int good = stations - take.lacking().size();
        return new Item(
                "photos",
                "photos",
                "%,d of %,d stations have a good photo%s"
                        .formatted(good, stations, take.lacking().size() > open ? ", the rest is decided" : ""),
                open == 0 ? "done" : "stop");
    }

    private static Item files(Take take) {
        long bad = take.photos().stream()
                .filter(photo -> photo.facts().readable() != PhotoFacts.Readable.ALL)
                .count();
        long unseen = take.photos().stream()
                .filter(photo -> photo.facts().readable() == PhotoFacts.Readable.ALL
                        && photo.picture().isEmpty())
                .count();
        return new Item(
                "files",
                "files",
                bad > 0
                        ? "%,d of %,d cannot be read to the end"
                                .formatted(bad, take.photos().size())
                        : "%,d readable%s"
                                .formatted(
                                        take.photos().size(),
                                        unseen > 0 ? ", %,d pictures not yet looked at".formatted(unseen) : ""),
                bad > 0 ? "stop" : unseen > 0 ? "mind" : "done");
    }

    private static Optional<Item> bands(Take take) {
        int each = take.match().filesEach();
        if (each < 2) {
            return Optional.empty();
        }
        int missing = take.match().incomplete().size();
        return Optional.of(new Item(
                "bands",
                "files each release",
                missing == 0
                        ? "%d of %d each time".formatted(each, each)
                        : "%,d stations have fewer than %d".formatted(missing, each),
                missing == 0 ? "done" : "mind"));
    }

    private static Item positions(Take take, Positioning wanted, List<FileRow> files) {
        int flight = (int) take.match().photos().stream()
                .filter(one -> one.role().ofFlight())
                .count();
        int fixed = take.count(Take.Known.FIXED);
        boolean fine = wanted != Positioning.SINGLE && wanted != Positioning.CONTROL;
        Optional<Found<StoredPositions>> table = TakeFiles.last(files, TakeFiles.POSITIONS, StoredPositions.class);
        String from = table.map(found -> ", %d from %s"
                        .formatted(found.found().photos(), found.row().name()))
                .orElse("");
        boolean enough = !fine || fixed >= flight * FIXED_SHARE;
        return new Item(
                "positions",
                "positions",
                fine
                        ? "%,d of %,d known to 5 cm or better%s".formatted(fixed, flight, from)
                        : "%,d of %,d have one%s".formatted(flight - unplaced(take), flight, from),
                enough && unplaced(take) == 0 ? "done" : "mind");
    }

    private static int unplaced(Take take) {
        return (int) IntStream.range(0, take.photos().size())
                .filter(i -> take.match().photos().get(i).role().ofFlight())
                .filter(i -> take.photos().get(i).fix().isEmpty()
                        || take.match().photos().get(i).frozen())
                .count();
    }

    private static Optional<Item> base(Take take, Positioning wanted, Optional<BaseRow> station, List<FileRow> files) {
        Optional<Found<StoredBase>> log = TakeFiles.last(files, TakeFiles.BASE, StoredBase.class);
        boolean needed = wanted == Positioning.PPK || wanted == Positioning.RTK_BASE;
        if (log.isEmpty()) {
            return needed
                    ? Optional.of(
                            new Item("base", "base log", "not there yet", wanted == Positioning.PPK ? "stop" : "mind"))
                    : Optional.empty();
        }
        StoredBase found = log.orElseThrow().found();
        double[] margins = margins(take, found);
        String spans = Double.isNaN(margins[0])
                ? "no photo has a time to hold it against"
                : margins[0] < 0 || margins[1] < 0
                        ? "does not span the flight: %s"
                                .formatted(
                                        margins[0] < 0
                                                ? "begins %s after the first photo".formatted(span(-margins[0]))
                                                : "ends %s before the last photo".formatted(span(-margins[1])))
                        : "spans the flight, %s before and %s after".formatted(span(margins[0]), span(margins[1]));
        boolean misses = margins[0] < 0 || margins[1] < 0;
        boolean tight = margins[0] < MARGIN_S || margins[1] < MARGIN_S;
        String told = station.map(one -> against(found, one)).orElse("");
        String doubt = !told.isEmpty()
                ? "; " + told
                : found.doubts().isEmpty() ? "" : "; " + found.doubts().get(0);
        return Optional.of(new Item(
                "base",
                "base log",
                spans + doubt,
                misses ? "stop" : tight || !doubt.isEmpty() || found.gaps() > 0 ? "mind" : "done"));
    }

    /** What the log says otherwise than the Control stage; nothing where they agree. */
    private static String against(StoredBase log, BaseRow station) {
        if (log.antenna() != null && Math.abs(log.antenna() - station.antenna()) > SAME_M) {
            return "antenna %.4f m in the log, %.4f m on the Control stage".formatted(log.antenna(), station.antenna());
        }
        if (log.lon() != null) {
            double off = Geodesics.distanceM(LonLat.of(log.lon(), log.lat()), LonLat.of(station.lon(), station.lat()));
            return off > ELSEWHERE_M
                    ? "the log's base stands %,.0f m from the one on the Control stage".formatted(off)
                    : "";
        }
        return "";
    }

    /** Seconds that the base ran before the first and after the last photo of the flight; NaN where no photo has a time. */
    static double[] margins(Take take, StoredBase base) {
        double[] times = IntStream.range(0, take.photos().size())
                .filter(i -> take.match().photos().get(i).role() == Role.PLANNED)
                .mapToDouble(i -> take.match().photos().get(i).seconds())
                .filter(time -> !Double.isNaN(time))
                .sorted()
                .toArray();
        if (times.length == 0) {
            return new double[] {Double.NaN, Double.NaN};
        }
        return BaseLog.marginsS(
                Instant.parse(base.first()),
                Instant.parse(base.last()),
                moment(take, times[0]),
                moment(take, times[times.length - 1]));
    }

    private static Instant moment(Take take, double seconds) {
        return take.match().from().plusNanos(Math.round(seconds * 1e9));
    }

    static String span(double seconds) {
        long whole = Math.round(Math.abs(seconds));
        return whole < 120
                ? whole + " s"
                : whole < 7200 ? whole / 60 + " min" : "%d h %02d min".formatted(whole / 3600, whole / 60 % 60);
    }

    private static Item log(Take take, List<FileRow> files) {
        return TakeFiles.last(files, TakeFiles.LOG, StoredLog.class)
                .map(found -> new Item(
                        "log",
                        "flight log",
                        "%s, %,d moments from %s to %s"
                                .formatted(
                                        found.row().name(),
                                        found.found().moments(),
                                        clock(found.found().first()),
                                        clock(found.found().last())),
                        "done"))
                .orElse(new Item(
                        "log",
                        "flight log",
                        "not there yet",
                        take.plan().request().kit().payload().scannerLeads() ? "mind" : ""));
    }

    private static String clock(String instant) {
        return Instant.parse(instant).atOffset(ZoneOffset.UTC).format(CLOCK) + " UTC";
    }

    private static Optional<Item> panel(Brief brief, Take take) {
        int panels = take.match().count(Role.PANEL);
        boolean needed =
                brief.purpose().filter(one -> one == Purpose.CROP_INDEX).isPresent();
        if (!needed && panels == 0) {
            return Optional.empty();
        }
        return Optional.of(new Item(
                "panel",
                "reflectance panel",
                panels == 0
                        ? "no photo of it"
                        : "%d %s, kept apart".formatted(panels, panels == 1 ? "photo" : "photos"),
                panels == 0 ? "stop" : panels == 1 && needed ? "mind" : "done"));
    }

    private static Optional<Item> control(ControlLayout layout, Map<String, Integer> measured) {
        if (layout.points().isEmpty()) {
            return Optional.empty();
        }
        long done = layout.points().stream()
                .map(ControlPoint::name)
                .filter(name -> measured.containsKey(ControlLayout.key(name)))
                .count();
        int all = layout.points().size();
        return Optional.of(new Item(
                "control",
                "control",
                "%d of %d points measured".formatted(done, all),
                done == all ? "done" : done == 0 ? "stop" : "mind"));
    }

    private static Item copy(Take take, List<FileRow> files) {
        return TakeFiles.last(files, TakeCopy.COPY, TakeCopy.StoredCopy.class)
                .map(found -> {
                    TakeCopy.StoredCopy copy = found.found();
                    boolean all = copy.same() >= take.photos().size();
                    return new Item(
                            "copy",
                            "second copy",
                            copy.missing() + copy.other() == 0
                                    ? "%,d files are the same%s"
                                            .formatted(copy.same(), all ? "" : ", later ones not yet compared")
                                    : "%,d missing, %,d not the same".formatted(copy.missing(), copy.other()),
                            copy.missing() + copy.other() > 0 ? "stop" : all ? "done" : "mind");
                })
                .orElse(new Item("copy", "second copy", "not compared yet", "mind"));
    }
}

package yalos.web.log;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Sun;
import yalos.core.logbook.SameLight;
import yalos.core.logbook.Series;
import yalos.web.block.OpenBlock;
import yalos.web.block.StageBook.Opened;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.RepeatedRow;
import yalos.web.store.LogMapper.SeriesRow;

/** The same again, as the Log stage shows it: what it repeats, when it comes round, the same light. */
@Component
class RepeatBook {
    /** The sun within so much counts as the same light (common practice: a few degrees). */
    static final double SAME_RAD = Math.toRadians(5);

    private static final int DATES = 4;
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    private final LogMapper rows;
    private final Repeats repeats;

    RepeatBook(LogMapper rows, Repeats repeats) {
        this.rows = rows;
        this.repeats = repeats;
    }

    /** A date of a series with its light. */
    public record Next(LocalDate date, String light, String mood) {}

    /** The first flight of a row of repeats: where the sun stood. */
    record First(LocalDateTime start, ZoneId zone, LonLat place, Sun sun) {}

    void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        model.addAttribute("choices", repeats.choices(block.id()));
        Optional<RepeatedRow> repeated = rows.repeated(block.id());
        model.addAttribute("repeated", repeated.orElse(null));
        model.addAttribute("inSeason", repeats.row(block.id()).size());
        Optional<SeriesRow> series = rows.series(block.id());
        model.addAttribute("series", series.orElse(null));
        model.addAttribute("steps", Series.Step.values());
        Optional<First> first = first(block);
        model.addAttribute("firstSun", first.map(RepeatBook::sun).orElse(""));
        model.addAttribute(
                "nextDates",
                series.map(row -> dates(row, LocalDate.now(), DATES).stream()
                                .map(date -> next(date, first))
                                .toList())
                        .orElse(List.of()));
    }

    /** The flight whose light is wanted: the very first of the row, or the block's own first, or the one its day names. */
    Optional<First> first(OpenBlock block) {
        return first(
                block.facts(),
                rows.repeated(block.id())
                        .flatMap(row -> Optional.ofNullable(row.firstStart()))
                        .or(() -> rows.firstStart(block.id()))
                        .or(() -> block.facts().field().day().earlier()));
    }

    /** Where the sun stood when a flight began; empty where place or time are not known. */
    static Optional<First> first(BlockFacts facts, Optional<LocalDateTime> start) {
        ZoneId zone = SortieDesk.clock(facts);
        return facts.place()
                .flatMap(at -> start.map(begun ->
                        new First(begun, zone, at, Sun.at(at, begun.atZone(zone).toInstant()))));
    }

    static String sun(First first) {
        return first.start().toString().replace('T', ' ') + ": sun " + FlightView.sun(first.sun());
    }

    static List<LocalDate> dates(SeriesRow row, LocalDate after, int count) {
        return new Series(row.firstOn(), row.every(), Series.Step.valueOf(row.step())).after(after, count);
    }

    static Next next(LocalDate date, Optional<First> first) {
        if (first.isEmpty()) {
            return new Next(date, "", "");
        }
        Optional<SameLight> light = light(date, first.orElseThrow());
        return new Next(
                date,
                words(light, first.orElseThrow().zone()),
                light.filter(one -> !one.spans().isEmpty()).isPresent() ? "done" : "mind");
    }

    static Optional<SameLight> light(LocalDate date, First first) {
        return SameLight.of(first.place(), first.sun(), date, SAME_RAD);
    }

    /** When the light is the same on a day, or how near it comes. */
    static String words(Optional<SameLight> light, ZoneId zone) {
        if (light.isEmpty()) {
            return "the sun does not rise";
        }
        SameLight there = light.orElseThrow();
        if (there.spans().isEmpty()) {
            return "nearest at %s, %.0f° off".formatted(clock(there.closest(), zone), Math.toDegrees(there.offRad()));
        }
        List<String> spans = new ArrayList<>();
        there.spans().forEach(span -> spans.add(clock(span.from(), zone) + " to " + clock(span.to(), zone)));
        return String.join(", ", spans);
    }

    static String clock(Instant at, ZoneId zone) {
        return CLOCK.format(at.atZone(zone));
    }
}

package yalos.web.log;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.logbook.Reminder;
import yalos.core.logbook.SameLight;
import yalos.core.logbook.Series;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.elevation.Models;
import yalos.web.history.FactsDifference;
import yalos.web.log.RepeatBook.First;
import yalos.web.log.RepeatBook.Next;
import yalos.web.log.Repeats.Before;
import yalos.web.log.Repeats.Decided;
import yalos.web.shell.Download;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.SeriesRow;

/** Flying a block again: what has changed since is listed before it is accepted; series with their reminders; a season on one page. */
@Controller
class RepeatController {
    private static final int MOST_AHEAD = 365;
    private static final int CALENDAR_DATES = 12;
    private static final int LIGHT_DAYS = 12;
    private static final int LONGEST_NAME = 80;

    private final Blocks blocks;
    private final Repeats repeats;
    private final RepeatBook book;
    private final Season season;
    private final LogMapper rows;
    private final Models models;
    private final Preferences preferences;

    RepeatController(
            Blocks blocks,
            Repeats repeats,
            RepeatBook book,
            Season season,
            LogMapper rows,
            Models models,
            Preferences preferences) {
        this.blocks = blocks;
        this.repeats = repeats;
        this.book = book;
        this.season = season;
        this.rows = rows;
        this.models = models;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/log/repeat")
    ModelAndView offer(@PathVariable long id, @RequestParam String of, @RequestParam(defaultValue = "") String day) {
        OpenBlock block = blocks.open(id);
        Before before = repeats.before(block, of);
        LocalDate on = day.isBlank() ? proposed(block, before) : TypedDay.needed("day", day);
        String name = block.name() + ", " + on;
        Set<String> proposed = repeats.changes(block, before).stream()
                .filter(Since.Change::take)
                .map(Since.Change::part)
                .collect(Collectors.toSet());
        Map<String, String> conditions = new LinkedHashMap<>();
        repeats.points(block, before, on).stream()
                .filter(Since.Point::old)
                .forEach(point -> conditions.put(point.name(), "doubtful"));
        Decided decided = new Decided(
                name.substring(0, Math.min(name.length(), LONGEST_NAME)),
                Optional.of(on),
                proposed,
                proposed.contains("terrain") ? "now" : "then",
                conditions);
        return page(HttpStatus.OK, block, before, on, decided, "");
    }

    /** The next date of the series, or the same day next year. */
    private LocalDate proposed(OpenBlock block, Before before) {
        return rows.series(block.id())
                .map(row -> RepeatBook.dates(row, LocalDate.now(), 1).get(0))
                .orElseGet(() -> before.start()
                        .map(start -> start.toLocalDate().plusYears(1))
                        .filter(next -> next.isAfter(LocalDate.now()))
                        .orElse(LocalDate.now().plusDays(1)));
    }

    /** The offer, with what is proposed of it, or what was decided and cannot be kept. */
    private ModelAndView page(
            HttpStatus status, OpenBlock block, Before before, LocalDate on, Decided decided, String fault) {
        ModelAndView page = new ModelAndView("log/repeat", status);
        page.addObject("block", block);
        page.addObject("before", before);
        page.addObject("day", on);
        page.addObject("decided", decided);
        page.addObject("fault", fault);
        page.addObject("changes", repeats.changes(block, before));
        page.addObject("others", FactsDifference.of(before.facts(), block.facts(), preferences.units()));
        page.addObject("models", models.ofJob(block.jobId(), preferences.units()));
        page.addObject("points", repeats.points(block, before, on));
        page.addObject(
                "moved",
                repeats.moved(before.facts(), repeats.facts(block, before, decided))
                        .orElse(null));
        Optional<First> first = RepeatBook.first(before.facts(), repeats.first(block, before));
        page.addObject("firstSun", first.map(RepeatBook::sun).orElse(""));
        page.addObject(
                "light", first.map(one -> RepeatBook.next(on, Optional.of(one))).orElse(null));
        page.addObject("lightDays", first.map(one -> days(one, LocalDate.now())).orElse(List.of()));
        return page;
    }

    /** The next days on which the light comes back, at most a dozen spread over the year. */
    private static List<Next> days(First first, LocalDate from) {
        List<SameLight> all = SameLight.days(first.place(), first.sun(), from, RepeatBook.SAME_RAD);
        List<Next> shown = new ArrayList<>();
        for (int i = 0; i < all.size(); i += Math.max(1, (all.size() + LIGHT_DAYS - 1) / LIGHT_DAYS)) {
            SameLight one = all.get(i);
            shown.add(new Next(one.date(), RepeatBook.words(Optional.of(one), first.zone()), "done"));
        }
        return shown;
    }

    @PostMapping("/blocks/{id}/log/repeat")
    ModelAndView accept(
            @PathVariable long id,
            @RequestParam String of,
            @RequestParam String name,
            @RequestParam String day,
            @RequestParam(defaultValue = "") List<String> take,
            @RequestParam(defaultValue = "then") String terrain,
            @RequestParam Map<String, String> all) {
        OpenBlock block = blocks.open(id);
        Before before = repeats.before(block, of);
        Map<String, String> condition = new LinkedHashMap<>();
        all.forEach((key, value) -> {
            if (key.startsWith("point:")) {
                condition.put(key.substring("point:".length()), value);
            }
        });
        LocalDate on = TypedDay.needed("day", day);
        Decided decided = new Decided(name, Optional.of(on), Set.copyOf(take), terrain, condition);
        try {
            return new ModelAndView("redirect:/blocks/" + repeats.repeat(block, before, decided) + "/log");
        } catch (InputFault fault) {
            return page(HttpStatus.BAD_REQUEST, block, before, on, decided, fault.getMessage());
        }
    }

    @PostMapping("/blocks/{id}/log/series")
    String series(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String first,
            @RequestParam(defaultValue = "1") int every,
            @RequestParam(defaultValue = "YEARS") Series.Step step,
            @RequestParam(defaultValue = "14") int ahead,
            @RequestParam(defaultValue = "") String act) {
        OpenBlock block = blocks.open(id);
        if (act.equals("end")) {
            rows.dropSeries(block.id());
            return "redirect:/blocks/" + id + "/log";
        }
        InputFault.within("ahead", ahead, 0, MOST_AHEAD, "days");
        Series series = new Series(TypedDay.needed("first", first), every, step);
        rows.keepSeries(new SeriesRow(block.id(), series.first(), every, step.name(), ahead));
        return "redirect:/blocks/" + id + "/log";
    }

    /** The next dates as a calendar file. */
    @GetMapping("/blocks/{id}/log/series.ics")
    ResponseEntity<byte[]> calendar(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        SeriesRow row = rows.series(id).orElseThrow(() -> new NotThere("This block has no series yet."));
        Optional<First> first = book.first(block);
        List<Reminder.Entry> entries = new ArrayList<>();
        for (LocalDate date : RepeatBook.dates(row, LocalDate.now(), CALENDAR_DATES)) {
            Optional<SameLight> light = first.flatMap(one -> RepeatBook.light(date, one));
            Optional<SameLight.Span> span =
                    light.flatMap(one -> one.spans().stream().findFirst());
            entries.add(new Reminder.Entry(
                    "block-%d-%s@yalos".formatted(id, date),
                    "Fly %s, %s again".formatted(block.jobName(), block.name()),
                    first.map(one -> "Same light: " + RepeatBook.words(light, one.zone()) + ".")
                                    .orElse("") + " Look at control points, obstacles and zones before.",
                    date,
                    span.map(SameLight.Span::from),
                    span.map(SameLight.Span::to),
                    first.map(First::place)));
        }
        // The same file for the same series: its stamp is the day on which the series began.
        Instant made = row.firstOn().atStartOfDay().toInstant(ZoneOffset.UTC);
        return Download.of(
                Reminder.file(entries, row.remindDays(), made), "text/calendar;charset=UTF-8", "fly-again.ics");
    }

    /** All flights of a site beside each other. */
    @GetMapping("/blocks/{id}/season")
    ModelAndView season(@PathVariable long id, @RequestParam(defaultValue = "false") boolean strip) {
        OpenBlock block = blocks.open(id);
        ModelAndView page = new ModelAndView(strip ? "log/season-table :: table" : "log/season");
        page.addObject("block", block);
        page.addObject("season", season.of(repeats.row(id), preferences.units()));
        return page;
    }
}

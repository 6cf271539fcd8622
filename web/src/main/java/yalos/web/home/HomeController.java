package yalos.web.home;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.day.Needs;
import yalos.core.day.WeatherWindow;
import yalos.core.geodesy.LonLat;
import yalos.core.logbook.Series;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits.Verdict;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.keep.CopyDesk;
import yalos.web.log.FlightView;
import yalos.web.log.Logbook;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.store.FieldMapper;
import yalos.web.store.JobMapper;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.Wanted;

/** Home: what a busy operator wants to see first. */
@Controller
class HomeController {
    private static final int MOST_NEXT = 8;
    private static final int LAST = 5;
    private static final int MOST_JOBS = 500;
    /** A battery below this is charged before a day (common practice). */
    private static final double FULL = 0.95;

    private static final List<Stage> BEFORE =
            List.of(Stage.BRIEF, Stage.CONTROL, Stage.SORTIES, Stage.FIELD_PACK, Stage.FLY);
    private static final List<Stage> AFTER = List.of(Stage.TAKE, Stage.ACCURACY);
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    private final JobMapper rows;
    private final Blocks blocks;
    private final PlanDesk plans;
    private final List<StageBook> books;
    private final Logbook log;
    private final LogMapper flights;
    private final FieldMapper field;
    private final CopyDesk copies;
    private final Preferences preferences;

    HomeController(
            JobMapper rows,
            Blocks blocks,
            PlanDesk plans,
            List<StageBook> books,
            Logbook log,
            LogMapper flights,
            FieldMapper field,
            CopyDesk copies,
            Preferences preferences) {
        this.rows = rows;
        this.blocks = blocks;
        this.plans = plans;
        this.books = books;
        this.log = log;
        this.flights = flights;
        this.field = field;
        this.copies = copies;
        this.preferences = preferences;
    }

    /**
     * A block with its date.
     *
     * @param window when the weather lets it be flown, in words
     */
    public record Next(
            long block,
            long job,
            String jobName,
            String name,
            LocalDate date,
            String because,
            String window,
            String mood) {}

    /** A battery that wants its charger. */
    public record ToCharge(String name, String charge) {}

    /** Something a block still lacks. */
    public record Lack(String stage, String label, String words, String mood) {}

    @GetMapping("/")
    String home(Model model) {
        List<JobMapper.JobRow> jobs = rows.jobs();
        if (jobs.isEmpty()) {
            return "redirect:/jobs";
        }
        UnitChoice units = preferences.units();
        LocalDate today = LocalDate.now();
        List<Next> next = next(jobs, today, units);
        model.addAttribute("today", today);
        model.addAttribute("next", next.stream().limit(MOST_NEXT).toList());
        model.addAttribute("later", Math.max(0, next.size() - MOST_NEXT));
        model.addAttribute("jobCount", jobs.size());
        model.addAttribute(
                "charge",
                field.batteries().stream()
                        .filter(row -> !row.gone() && row.charge() < FULL)
                        .sorted(Comparator.comparingDouble(FieldMapper.BatteryRow::charge))
                        .map(row -> new ToCharge(row.name(), "%.0f %%".formatted(row.charge() * 100)))
                        .toList());
        model.addAttribute(
                "last",
                log.flights(Wanted.ALL, 0, LAST).stream()
                        .map(kept -> FlightView.of(kept, units))
                        .toList());
        model.addAttribute(
                "due",
                log.due(today).stream()
                        .filter(one -> !one.due().mood().equals("done"))
                        .toList());
        model.addAttribute("copyFault", copies.fault());
        model.addAttribute("noCopies", copies.plan().isEmpty());
        return "home/home";
    }

    /** Blocks with a date from today on, the nearest first; then those that are overdue by their series. */
    private List<Next> next(List<JobMapper.JobRow> jobs, LocalDate today, UnitChoice units) {
        List<Next> all = new ArrayList<>();
        for (JobMapper.JobRow job : jobs.subList(0, Math.min(jobs.size(), MOST_JOBS))) {
            for (JobMapper.BlockRow row : rows.blocksOf(job.id())) {
                row.readable()
                        .flatMap(facts -> next(job, row, facts, today, units))
                        .ifPresent(all::add);
            }
        }
        all.sort(Comparator.comparing(Next::date).thenComparing(Next::jobName).thenComparing(Next::name));
        return all;
    }

    private Optional<Next> next(
            JobMapper.JobRow job, JobMapper.BlockRow row, BlockFacts facts, LocalDate today, UnitChoice units) {
        Optional<LocalDate> planned = facts.field().day().date().filter(date -> !date.isBefore(today));
        Optional<LocalDate> due = facts.brief().due().filter(date -> !date.isBefore(today));
        Optional<LocalDate> again = flights.series(row.id())
                .map(series -> new Series(series.firstOn(), series.every(), Series.Step.valueOf(series.step()))
                        .after(today.minusDays(1), 1)
                        .get(0));
        Optional<LocalDate> date = planned.or(() -> due).or(() -> again);
        return date.map(on -> {
            Optional<WeatherWindow> window = window(facts, on, units);
            return new Next(
                    row.id(),
                    job.id(),
                    job.name(),
                    row.name(),
                    on,
                    planned.isPresent() ? "planned" : due.isPresent() ? "result due" : "comes round",
                    window.map(HomeController::words).orElse("no weather yet"),
                    window.map(one -> one.verdict() == Verdict.GO
                                    ? "done"
                                    : one.verdict() == Verdict.MIND ? "mind" : "stop")
                            .orElse(""));
        });
    }

    private static Optional<WeatherWindow> window(BlockFacts facts, LocalDate date, UnitChoice units) {
        Optional<LonLat> place = facts.launch()
                .or(() -> facts.outline().isEmpty()
                        ? Optional.empty()
                        : Optional.of(facts.outline().middle()));
        return place.flatMap(at -> {
            ZoneId zone = facts.field().day().clock(at);
            Needs needs = Needs.of(facts.brief().purpose(), facts.brief().surface());
            return WeatherWindow.of(
                    facts.field().day().weather(),
                    at,
                    zone,
                    date,
                    facts.field().day().limits().forAircraft(facts.aircraft().windLimitMps(), 0),
                    needs.sky(),
                    units);
        });
    }

    private static String words(WeatherWindow window) {
        return window.from().isEmpty()
                ? "no window: " + window.against()
                : "%s to %s%s"
                        .formatted(
                                CLOCK.format(window.from().orElseThrow()),
                                CLOCK.format(window.to().orElseThrow()),
                                window.against().isEmpty() ? "" : ", " + window.against());
    }

    /** Whether it was flown, and no later day is planned: then what comes after counts, not what goes before. */
    private boolean flownSince(OpenBlock block) {
        LocalDate planned = block.facts().field().day().date().orElse(LocalDate.MIN);
        return flights.flights(Wanted.ofBlock(block.id()), 0, 1).stream()
                .anyMatch(row -> !row.startedAt.toLocalDate().isBefore(planned));
    }

    /** What a block still lacks, stage by stage; asked for after the page, since it may need its plan. */
    @GetMapping("/home/lacks/{id}")
    String lacks(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Planned planned = plans.plan(block.facts());
        boolean flown = flownSince(block);
        List<Lack> lacks = new ArrayList<>();
        if (planned.whole().isEmpty()) {
            lacks.add(new Lack("ground", "Strips", "no plan", "stop"));
        }
        for (Stage stage : flown ? AFTER : BEFORE) {
            books.stream()
                    .filter(book -> book.stage() == stage)
                    .flatMap(book -> book.standing(block, planned).stream())
                    .filter(standing -> !standing.mood().equals("done"))
                    .forEach(standing ->
                            lacks.add(new Lack(stage.key(), stage.label(), standing.words(), standing.mood())));
        }
        if (!flown && block.facts().control().points().isEmpty()) {
            lacks.add(new Lack(Stage.CONTROL.key(), Stage.CONTROL.label(), "no points", "mind"));
        }
        if (!flown && block.facts().brief().purpose().isEmpty()) {
            lacks.add(0, new Lack(Stage.BRIEF.key(), Stage.BRIEF.label(), "not asked yet", "mind"));
        }
        model.addAttribute("block", id);
        model.addAttribute("lacks", lacks);
        return "home/lacks";
    }
}

package yalos.web.home;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.units.UnitChoice;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageView;
import yalos.web.keep.CopyDesk;
import yalos.web.log.FlightLog;
import yalos.web.log.FlightView;
import yalos.web.shell.Preferences;
import yalos.web.store.FieldMapper;
import yalos.web.store.JobMapper;
import yalos.web.store.LogMapper;
import yalos.web.store.LogMapper.Wanted;

/** Home: what a busy operator wants to see first. */
@Controller
class HomeController {
    private static final int MOST_NEXT = 8;
    private static final int LAST = 5;
    /** A battery below this is charged before a day (common practice). */
    private static final double FULL = 0.95;

    private static final List<Stage> BEFORE =
            List.of(Stage.BRIEF, Stage.STRIPS, Stage.CONTROL, Stage.SORTIES, Stage.FIELD_PACK, Stage.FLY);
    private static final List<Stage> AFTER = List.of(Stage.TAKE, Stage.ACCURACY);

    private final JobMapper rows;
    private final Blocks blocks;
    private final PlanDesk plans;
    private final BlockPage page;
    private final Upcoming upcoming;
    private final FlightLog log;
    private final LogMapper flights;
    private final FieldMapper field;
    private final CopyDesk copies;
    private final Preferences preferences;

    HomeController(
            JobMapper rows,
            Blocks blocks,
            PlanDesk plans,
            BlockPage page,
            Upcoming upcoming,
            FlightLog log,
            LogMapper flights,
            FieldMapper field,
            CopyDesk copies,
            Preferences preferences) {
        this.rows = rows;
        this.blocks = blocks;
        this.plans = plans;
        this.page = page;
        this.upcoming = upcoming;
        this.log = log;
        this.flights = flights;
        this.field = field;
        this.copies = copies;
        this.preferences = preferences;
    }

    /** A battery that wants its charger. */
    public record ToCharge(String name, String charge) {}

    @GetMapping("/")
    String home(Model model) {
        List<JobMapper.JobRow> jobs = rows.jobs();
        if (jobs.isEmpty()) {
            return "redirect:/jobs";
        }
        UnitChoice units = preferences.units();
        LocalDate today = LocalDate.now();
        List<Upcoming.Next> next = upcoming.of(jobs, today, units);
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

    /** What a block still lacks, stage by stage; asked for after the page, since it may need its plan. */
    @GetMapping("/home/lacks/{id}")
    String lacks(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Planned planned = plans.plan(block.facts());
        UnitChoice units = preferences.units();
        List<Stage> asked = flownSince(block) ? AFTER : BEFORE;
        List<StageView> lacks = page.standings(block, planned, units).stream()
                .filter(stage -> asked.stream().anyMatch(one -> one.key().equals(stage.key())))
                .filter(stage -> !stage.mood().equals("done"))
                .toList();
        model.addAttribute("block", id);
        model.addAttribute("lacks", lacks);
        return "home/lacks";
    }

    /** Whether it was flown, and no later day is planned: then what comes after counts, not what goes before. */
    private boolean flownSince(OpenBlock block) {
        LocalDate planned = block.facts().field().day().date().orElse(LocalDate.MIN);
        return flights.flights(Wanted.ofBlock(block.id()).thatCount(), 0, 1).stream()
                .anyMatch(row -> !row.startedAt.toLocalDate().isBefore(planned));
    }
}

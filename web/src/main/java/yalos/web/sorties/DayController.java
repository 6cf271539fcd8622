package yalos.web.sorties;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.day.DaySettings;
import yalos.core.exchange.WeatherTable;
import yalos.core.fault.TypedDay;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Sortie;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Visit;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** The day in the drawer, and what is set of it: date, times, weather, limits. */
@Controller
class DayController {
    private final Blocks blocks;
    private final BlockPage page;
    private final PlanDesk plans;
    private final SortieDesk desk;
    private final Preferences preferences;

    DayController(Blocks blocks, BlockPage page, PlanDesk plans, SortieDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.plans = plans;
        this.desk = desk;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/sorties/day")
    String day(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        BlockFacts facts = block.facts();
        model.addAttribute("block", block);
        model.addAttribute("running", false);
        plans.plan(facts).whole().map(Planned.Whole::plan).ifPresent(plan -> {
            SortieDesk.Found found = desk.of(id, facts, plan);
            model.addAttribute("running", found.light().isEmpty() && found.running());
            model.addAttribute("fault", found.fault());
            found.sorties()
                    .filter(sorties -> found.light().isPresent())
                    .ifPresent(sorties -> DayLaid.show(facts, plan, found, units, model));
        });
        return "sorties/day";
    }

    @GetMapping("/blocks/{id}/sorties/{number}/energy")
    String energy(@PathVariable long id, @PathVariable int number, Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        SortieDesk.Found found = desk.of(id, block.facts(), plan);
        Sortie sortie = found.sorties()
                .flatMap(all ->
                        all.all().stream().filter(one -> one.number() == number).findFirst())
                .orElseThrow(() -> new NotThere("There is no sortie " + number + "."));
        Charged charged =
                Charged.of(found.sorties().orElseThrow(), found.packs()).get(number - 1);
        model.addAttribute("block", block);
        model.addAttribute("number", number);
        model.addAttribute(
                "chart", EnergyCharts.along(sortie, charged, found.sorties().orElseThrow()));
        model.addAttribute(
                "words",
                "%s, takes off at %s, lands with %s"
                        .formatted(
                                Times.minutes(sortie.seconds()),
                                Percent.of(charged.charge()),
                                Percent.margin(charged.left())));
        return "sorties/energy";
    }

    private String change(long id, Visit visit, String label, UnaryOperator<DaySettings> change) {
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        facts -> facts.with(change.apply(facts.field().day()))),
                visit);
    }

    /** When the crew leaves; empty for round solar noon. */
    @PostMapping("/blocks/{id}/sorties/start")
    String start(@PathVariable long id, @RequestParam(defaultValue = "") String start, Visit visit) {
        OptionalInt minute = start.isBlank() ? OptionalInt.empty() : OptionalInt.of(minute("start", start));
        return change(
                id, visit, "leaving at " + (start.isBlank() ? "its usual time" : start), day -> day.startingAt(minute));
    }

    /** A sortie held back; what follows goes with it. */
    @PostMapping("/blocks/{id}/sorties/hold")
    String hold(@PathVariable long id, @RequestParam int sortie, @RequestParam String at, Visit visit) {
        int minute = minute("at", at);
        return change(id, visit, "sortie %d not before %s".formatted(sortie, at), day -> day.holding(sortie, minute));
    }

    private static int minute(String field, String text) {
        LocalDateTime time = WeatherTable.time(text.strip(), LocalDate.of(2000, 1, 1), ZoneOffset.UTC);
        return time.getHour() * 60 + time.getMinute();
    }

    @PostMapping("/blocks/{id}/sorties/day")
    String settings(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String date,
            @RequestParam(defaultValue = "") String zone,
            @RequestParam double change,
            @RequestParam double panel,
            @RequestParam int chargers,
            @RequestParam double charge,
            @RequestParam(defaultValue = "") String earlier,
            Visit visit) {
        return change(
                id,
                visit,
                "the day's figures",
                day -> new DaySettings(
                        TypedDay.of("date", date),
                        zone.strip(),
                        day.startMin(),
                        day.notBefore(),
                        change,
                        panel,
                        chargers,
                        charge,
                        day.limits(),
                        day.weather(),
                        earlier.isBlank()
                                ? Optional.empty()
                                : Optional.of(WeatherTable.time(
                                        earlier.strip(), LocalDate.now(ZoneOffset.UTC), ZoneOffset.UTC)),
                        day.papers()));
    }
}

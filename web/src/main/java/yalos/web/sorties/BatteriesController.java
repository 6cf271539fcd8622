package yalos.web.sorties;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.fault.TypedDay;
import yalos.core.kit.Battery;
import yalos.core.pins.Defaults;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Consumption;
import yalos.core.sortie.Draw;
import yalos.core.units.Measure;
import yalos.core.units.Times;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.shell.Preferences;
import yalos.web.store.FieldMapper.BatteryRow;
import yalos.web.store.FieldMapper.ConsumptionRow;

/** Batteries by their names, and what flights took of them: how far the aircraft's figures are off. */
@Controller
class BatteriesController {
    /** Charged so far it counts as full (common practice). */
    private static final double FULL = 0.95;

    private final Blocks blocks;
    private final PlanDesk plans;
    private final Fleet fleet;
    private final Preferences preferences;

    BatteriesController(Blocks blocks, PlanDesk plans, Fleet fleet, Preferences preferences) {
        this.blocks = blocks;
        this.plans = plans;
        this.fleet = fleet;
        this.preferences = preferences;
    }

    /** A battery in the table. */
    public record PackRow(
            String name,
            int cycles,
            String capacity,
            String charge,
            String since,
            String note,
            String read,
            String mood) {}

    /** A measured flight. */
    public record FlightRow(
            long id,
            String on,
            String took,
            String wind,
            String air,
            String off,
            String mood,
            String note,
            String leftOut) {}

    @GetMapping("/blocks/{id}/sorties/batteries")
    String batteries(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        String aircraft = block.facts().aircraft().name();
        model.addAttribute("block", block);
        model.addAttribute("aircraft", aircraft);
        model.addAttribute(
                "packs",
                fleet.batteries().stream().map(BatteriesController::pack).toList());
        model.addAttribute("toCharge", toCharge(block));
        List<FlightRow> rows = new ArrayList<>();
        BlockPlan plan = plans.needed(block.facts());
        Draw model0 = Draw.of(plan.request().aircraft(), plan.design().speedMps());
        for (ConsumptionRow row : fleet.flights(aircraft)) {
            rows.add(flight(row, model0, plan, units));
        }
        model.addAttribute("flights", rows);
        List<Consumption> counted = fleet.consumption(aircraft);
        double ratio = Consumption.ratio(
                counted, model0, plan.timeline().pace(), plan.design().speedMps());
        model.addAttribute(
                "verdict",
                counted.isEmpty()
                        ? "Nothing is measured yet; figures are the kit's."
                        : String.format(
                                Locale.ROOT,
                                "%d flight%s took %.0f %% %s than the kit's figures say, which are corrected by it.",
                                counted.size(),
                                counted.size() == 1 ? "" : "s",
                                Math.abs(100 * (ratio - 1)),
                                ratio >= 1 ? "more" : "less"));
        model.addAttribute(
                "usualSpeed", units.text(UnitKind.SPEED, plan.design().speedMps()));
        return "sorties/batteries";
    }

    /** What is to be charged before the day, and how long it takes. */
    private String toCharge(OpenBlock block) {
        var day = block.facts().field().day();
        List<String> low = fleet.batteries().stream()
                .filter(row -> row.charge() < FULL)
                .map(BatteryRow::name)
                .toList();
        if (low.isEmpty()) {
            return fleet.batteries().isEmpty() ? "" : "All are charged for the day.";
        }
        int chargers = Math.max(1, day.chargers());
        double minutes = Math.ceil((double) low.size() / chargers) * day.chargeMin();
        return "Before the day: charge %s; about %s with %d charger%s."
                .formatted(String.join(", ", low), Times.minutes(minutes * 60), chargers, chargers == 1 ? "" : "s");
    }

    private static PackRow pack(BatteryRow row) {
        return new PackRow(
                row.name(),
                row.cycles(),
                Percent.of(row.capacity()),
                Percent.of(row.charge()),
                row.since(),
                row.note(),
                row.keptAt().toLocalDate().toString(),
                row.capacity() < 0.8 ? "stop" : row.charge() < 0.9 || row.capacity() < 0.9 ? "mind" : "done");
    }

    private static FlightRow flight(ConsumptionRow row, Draw model, BlockPlan plan, UnitChoice units) {
        double ratio = Fleet.flight(row)
                .ratio(model, plan.timeline().pace(), plan.design().speedMps());
        return new FlightRow(
                row.id(),
                row.flownOn().toString(),
                String.format(Locale.ROOT, "%.0f %% in %.1f min", 100 * row.share(), row.minutes()),
                units.text(UnitKind.SPEED, row.wind()),
                units.text(UnitKind.TEMPERATURE, row.air()),
                String.format(Locale.ROOT, "%+.0f %%", 100 * (ratio - 1)),
                Consumption.doubtful(ratio) ? "mind" : "",
                row.note(),
                row.leftOut());
    }

    private static String back(long id) {
        return "redirect:/blocks/" + id + "/sorties/batteries";
    }

    /** A battery as its gauge and its tester show it. */
    @PostMapping("/blocks/{id}/sorties/batteries")
    String read(
            @PathVariable long id,
            @RequestParam String name,
            @RequestParam(defaultValue = "0") int cycles,
            @RequestParam(defaultValue = "100 %") String capacity,
            @RequestParam(defaultValue = "100 %") String charge,
            @RequestParam(defaultValue = "") String since,
            @RequestParam(defaultValue = "") String note) {
        fleet.read(
                name,
                cycles,
                Measure.typed("capacity", capacity, Unit.PERCENT).si(),
                Measure.typed("charge", charge, Unit.PERCENT).si(),
                since,
                note);
        return back(id);
    }

    @PostMapping("/blocks/{id}/sorties/batteries/retire")
    String retire(@PathVariable long id, @RequestParam String name, @RequestParam(defaultValue = "") String reason) {
        fleet.retire(name, reason);
        return back(id);
    }

    /** What a flight took: {@code 42 % in 12 min}, with its wind and temperature. */
    @PostMapping("/blocks/{id}/sorties/consumption")
    String flew(
            @PathVariable long id,
            @RequestParam String took,
            @RequestParam(defaultValue = "") String on,
            @RequestParam(defaultValue = "") String speed,
            @RequestParam(defaultValue = "0") String wind,
            @RequestParam(defaultValue = "") String air,
            @RequestParam(defaultValue = "") String note) {
        OpenBlock block = blocks.open(id);
        Battery.Use use = Battery.Use.typed(took)
                .orElseThrow(() -> new InputFault("took", took, "Write what it took as 42 % in 12 min."));
        Consumption flight = new Consumption(
                TypedDay.of("date", on).orElseGet(() -> LocalDate.now(SortieDesk.clock(block.facts()))),
                use.share(),
                use.minutes(),
                speed.isBlank() ? OptionalDouble.empty() : OptionalDouble.of(si("speed", speed, UnitKind.SPEED)),
                si("wind", wind.isBlank() ? "0" : wind, UnitKind.SPEED),
                air.isBlank() ? Defaults.TEMPERATURE_K : si("air", air, UnitKind.TEMPERATURE),
                note);
        BlockPlan plan = plans.needed(block.facts());
        Draw model = Draw.of(plan.request().aircraft(), plan.design().speedMps());
        double ratio = flight.ratio(model, plan.timeline().pace(), plan.design().speedMps());
        if (!Double.isFinite(ratio) || ratio > 4 || ratio < 0.25) {
            throw new InputFault(
                    "took",
                    took,
                    "That is %.1f times what the kit's figures say of such a flight; is it another aircraft, or are minutes and per cent exchanged?"
                            .formatted(ratio));
        }
        fleet.flew(block.facts().aircraft().name(), flight);
        return back(id);
    }

    @PostMapping("/blocks/{id}/sorties/consumption/leave")
    String leave(@PathVariable long id, @RequestParam long flight, @RequestParam(defaultValue = "") String reason) {
        if (reason.isBlank()) {
            throw new InputFault("reason", reason, "Say why this flight is not to count; the reason stays with it.");
        }
        fleet.leaveOut(flight, reason);
        return back(id);
    }

    @PostMapping("/blocks/{id}/sorties/consumption/count")
    String count(@PathVariable long id, @RequestParam long flight) {
        fleet.leaveOut(flight, "");
        return back(id);
    }

    private double si(String field, String text, UnitKind kind) {
        return Measure.typed(field, text, preferences.typed().unit(kind)).si();
    }
}

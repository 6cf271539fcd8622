package yalos.web.control;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.control.Layouts;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;

/** The table of layouts in the drawer; it fills as what the block is worth comes in. */
@Controller
class LayoutsController {
    private final Blocks blocks;
    private final PlanDesk plans;
    private final ControlDesk desk;
    private final Preferences preferences;

    LayoutsController(Blocks blocks, PlanDesk plans, ControlDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.plans = plans;
        this.desk = desk;
        this.preferences = preferences;
    }

    /** One layout, or what would do instead. */
    public record RowView(
            String name,
            boolean own,
            String points,
            String positions,
            String heights,
            String worst,
            String shared,
            String doming,
            String minutes,
            String verdict,
            String mood) {}

    @GetMapping("/blocks/{id}/control/layouts")
    String layouts(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Optional<BlockPlan> plan = plans.plan(block.facts()).whole().map(Planned.Whole::plan);
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute("rows", List.of());
        model.addAttribute("instead", List.of());
        model.addAttribute("running", false);
        plan.ifPresent(known -> {
            ControlDesk.Foretelling found = desk.of(id, block.facts(), known);
            model.addAttribute(
                    "rows", found.rows().stream().map(row -> view(row, units)).toList());
            model.addAttribute(
                    "instead",
                    found.instead().stream().map(one -> view(one, units)).toList());
            model.addAttribute("running", found.running());
            model.addAttribute("step", found.step());
            model.addAttribute("fault", found.fault());
        });
        return "control/layouts";
    }

    private static RowView view(Layouts.Row row, UnitChoice units) {
        return new RowView(
                row.name(),
                row.own(),
                row.control() + " + " + row.checks(),
                Shown.accuracy(units, row.typical().horizontalM()),
                Shown.accuracy(units, row.typical().verticalM()),
                Shown.pair(units, row.worst()),
                Shown.pair(units, row.shared()),
                Shown.accuracy(units, row.domingM()),
                Times.minutes(row.crew().totalS()),
                Shown.words(row.verdict()),
                Shown.mood(row.verdict()));
    }

    private static RowView view(ControlDesk.Instead one, UnitChoice units) {
        return new RowView(
                one.words(),
                false,
                "",
                Shown.accuracy(units, one.typical().horizontalM()),
                Shown.accuracy(units, one.typical().verticalM()),
                "",
                "",
                "",
                Double.isFinite(one.minutes()) ? "%+.0f min".formatted(one.minutes()) : "–",
                Shown.words(one.verdict()),
                Shown.mood(one.verdict()));
    }
}

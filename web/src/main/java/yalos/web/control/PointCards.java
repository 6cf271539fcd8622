package yalos.web.control;

import java.util.List;
import java.util.Optional;
import org.springframework.ui.Model;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.Targets;
import yalos.core.control.Walk;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.OpenBlock;
import yalos.web.store.ControlMapper.BaseRow;

/** Cards of rover, base and walk, and a label for each point, in walking order. */
public final class PointCards {
    private PointCards() {}

    /** A label with what belongs on its card. */
    public record Label(String name, String role, boolean check, String place, String kind, String note) {}

    /** Fills in {@code labels}, {@code walk} and what the cards say. */
    public static void fill(OpenBlock block, BlockPlan plan, Optional<BaseRow> base, UnitChoice units, Model model) {
        ControlLayout layout = block.facts().control();
        Walk walk = Walk.of(plan, layout);
        List<Label> labels = walk.order().stream()
                .map(layout.points()::get)
                .map(point -> new Label(
                        point.name(),
                        point.role().words(),
                        point.role() == ControlPoint.Role.CHECK,
                        ControlBook.place(plan, point),
                        point.kind().words(),
                        point.note()))
                .toList();
        model.addAttribute("block", block);
        model.addAttribute("labels", labels);
        model.addAttribute("grid", plan.block().plane().grid().shortName());
        model.addAttribute("epsg", plan.block().plane().grid().epsg());
        model.addAttribute("epochs", layout.assumptions().epochs());
        model.addAttribute(
                "target",
                units.text(
                        UnitKind.DISTANCE, Targets.sideM(plan.design().scale().gsdM())));
        model.addAttribute("base", base.orElse(null));
        model.addAttribute(
                "walk",
                "%s on foot, %s up, %s"
                        .formatted(
                                units.text(UnitKind.LENGTH, walk.lengthM()),
                                units.text(UnitKind.HEIGHT, walk.climbM()),
                                Times.minutes(walk.seconds())));
    }
}

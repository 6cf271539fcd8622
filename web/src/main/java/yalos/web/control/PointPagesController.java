package yalos.web.control;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.LocalPlane;
import yalos.core.camera.Lens;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.MarkedPlace;
import yalos.core.control.PointPhotos;
import yalos.core.control.Targets;
import yalos.core.exchange.TypedPosition;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.ControlMapper;

/** Pages about points: the photos that show each, cards and labels to print, spot levels to stake. */
@Controller
class PointPagesController {
    private static final int MOST_FRAMES = 24;
    private static final double FRAME_PX = 150;
    private static final int MOST_STAKES_SHOWN = 2000;

    private final Blocks blocks;
    private final PlanDesk plans;
    private final Preferences preferences;
    private final ControlMapper rows;

    PointPagesController(Blocks blocks, PlanDesk plans, Preferences preferences, ControlMapper rows) {
        this.blocks = blocks;
        this.plans = plans;
        this.preferences = preferences;
        this.rows = rows;
    }

    /** A photo as a small frame with the cross where the point will be. */
    public record Frame(
            int photo,
            int strip,
            String pixel,
            String fromMiddle,
            String gsd,
            String angle,
            double width,
            double height,
            double x,
            double y) {}

    /** How many photos show a point. */
    public record Tied(String name, String role, int photos) {}

    @GetMapping("/blocks/{id}/control/photos")
    String photos(@PathVariable long id, @RequestParam(defaultValue = "") String point, Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        ControlLayout layout = block.facts().control();
        ControlPoint shown = point.isBlank()
                ? layout.points().stream().findFirst().orElse(null)
                : layout.named(point).orElseThrow(() -> new NotThere("There is no point " + point + "."));
        UnitChoice units = preferences.units();
        List<Tied> ties = new ArrayList<>();
        Map<Integer, Integer> pointsOf = new HashMap<>();
        List<PointPhotos.Seen> found = List.of();
        for (ControlPoint one : layout.points()) {
            List<PointPhotos.Seen> seen = PointPhotos.of(plan, MarkedPlace.of(plan, one));
            seen.forEach(photo -> pointsOf.merge(photo.photo().id(), 1, Integer::sum));
            ties.add(new Tied(one.name(), one.role().words(), seen.size()));
            if (one == shown) {
                found = seen;
            }
        }
        model.addAttribute("block", block);
        model.addAttribute("point", shown == null ? "" : shown.name());
        model.addAttribute("ties", ties);
        model.addAttribute("count", found.size());
        model.addAttribute(
                "many", pointsOf.values().stream().filter(count -> count > 1).count());
        model.addAttribute("any", pointsOf.size());
        model.addAttribute(
                "frames",
                found.stream()
                        .limit(MOST_FRAMES)
                        .map(seen -> frame(seen, units))
                        .toList());
        return "control/photos";
    }

    private static Frame frame(PointPhotos.Seen seen, UnitChoice units) {
        Lens lens = seen.photo().lens();
        double scale = FRAME_PX / lens.width();
        return new Frame(
                seen.photo().id(),
                seen.photo().line(),
                String.format(Locale.ROOT, "%.0f, %.0f", seen.u(), seen.v()),
                String.format(Locale.ROOT, "%.0f %%", 100 * seen.fromMiddle()),
                units.text(UnitKind.GSD, seen.gsdM()),
                String.format(Locale.ROOT, "%.0f°", Math.toDegrees(seen.angleRad())),
                FRAME_PX,
                lens.height() * scale,
                seen.u() * scale,
                seen.v() * scale);
    }

    @GetMapping("/blocks/{id}/control/labels")
    String labels(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        PointCards.fill(block, plans.needed(block.facts()), rows.base(id), preferences.units(), model);
        return "control/labels";
    }

    /** A stake. */
    public record Stake(int number, String place, String up) {}

    /** Spot levels between two corners, in walking order. */
    @GetMapping("/blocks/{id}/control/levels")
    String levels(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(defaultValue = "10 m") String step,
            Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute("from", from);
        model.addAttribute("to", to);
        model.addAttribute("step", step);
        model.addAttribute("stakes", List.of());
        if (!from.isBlank() && !to.isBlank()) {
            stakes(block, from, to, step, units, model);
        }
        return "control/levels";
    }

    private void stakes(OpenBlock block, String from, String to, String step, UnitChoice units, Model model) {
        LocalPlane plane = MeasuredController.plane(block);
        BlockPlan plan = plans.needed(block.facts());
        double stepM =
                Measure.typed("step", step, units.unit(UnitKind.DISTANCE)).si();
        List<PlanePoint> stakes = Targets.spotLevels(
                plane.toPlane(TypedPosition.read(from, block.facts().grid())),
                plane.toPlane(TypedPosition.read(to, block.facts().grid())),
                stepM);
        Stake[] shown = new Stake[Math.min(MOST_STAKES_SHOWN, stakes.size())];
        Arrays.setAll(shown, i -> {
            PlanePoint at = stakes.get(i);
            double up = plan.overGround()
                    .map(known -> known.grid().at(at.xM(), at.yM()))
                    .orElse(Double.NaN);
            return new Stake(
                    i + 1,
                    MeasuredController.place(plane, plane.toLonLat(at.xM(), at.yM())),
                    Double.isFinite(up) ? MeasuredController.up(units, OptionalDouble.of(up)) : "–");
        });
        double length = 0;
        for (int i = 1; i < stakes.size(); i++) {
            length += stakes.get(i).distanceM(stakes.get(i - 1));
        }
        model.addAttribute("stakes", List.of(shown));
        model.addAttribute(
                "sum",
                "%,d stakes, %s to walk%s"
                        .formatted(
                                stakes.size(),
                                units.text(UnitKind.LENGTH, length),
                                stakes.size() > shown.length
                                        ? "; the first %,d are listed".formatted(shown.length)
                                        : ""));
    }
}

package yalos.web.ground;

import java.util.List;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.Corridor;
import yalos.core.exchange.TypedOutline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** Makes a block a corridor along an axis, and an area again. */
@Controller
class CorridorController {
    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;

    CorridorController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    private String change(long id, Visit visit, String label, UnaryOperator<BlockFacts> change) {
        return page.changed(blocks.change(id, visit.version(), label, change), visit);
    }

    /** An axis drawn or moved on the sheet: eastings and northings in turn. The block becomes the corridor along it. */
    @PostMapping("/blocks/{id}/corridor/draw")
    String axis(
            @PathVariable long id,
            @RequestParam List<Double> positions,
            @RequestParam(defaultValue = "0") int epsg,
            Visit visit) {
        if (positions.size() < 4 || positions.size() % 2 != 0 || positions.size() > 2 * GroundController.MOST_DRAWN) {
            throw new InputFault("axis", positions.size() / 2, "An axis needs at least two points.");
        }
        return change(id, visit, "axis drawn", facts -> {
            Grid grid = facts.grid().orElseGet(() -> Grid.ofEpsg(epsg));
            return facts.withAxis(GroundController.places(positions, grid));
        });
    }

    /** Widths of a corridor; with places typed, one a line, its axis too. */
    @PostMapping("/blocks/{id}/corridor")
    String corridor(
            @PathVariable long id,
            @RequestParam String left,
            @RequestParam String right,
            @RequestParam(defaultValue = "") String axis,
            Visit visit) {
        Unit unit = preferences.typed().unit(UnitKind.DISTANCE);
        Measure leftOf = Measure.typed("left", left, unit);
        Measure rightOf = Measure.typed("right", right, unit);
        return change(
                id,
                visit,
                "corridor %s left, %s right".formatted(leftOf.asTyped(), rightOf.asTyped()),
                facts -> facts.with(new Corridor(axisOf(facts, axis), leftOf, rightOf)));
    }

    private static List<LonLat> axisOf(BlockFacts facts, String typed) {
        if (!typed.isBlank()) {
            return TypedOutline.line(typed, facts.grid());
        }
        return facts.patterns()
                .corridor()
                .map(Corridor::axis)
                .orElseThrow(() -> new InputFault(
                        "axis", "none", "There is no axis yet. Draw it on the sheet, import it, or type its places."));
    }

    /** The corridor becomes an area like any other. */
    @PostMapping("/blocks/{id}/corridor/clear")
    String area(@PathVariable long id, Visit visit) {
        return change(id, visit, "corridor made an area", facts -> facts.with(facts.outline()));
    }
}

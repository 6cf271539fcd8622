package yalos.web.ground;

import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.LaunchSearch;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Stage;
import yalos.web.shell.Preferences;
import yalos.web.work.PageWork;

/** Suggests where the aircraft could take off; asked for by hand, for it looks at hundreds of places. */
@Controller
class LaunchController {
    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final PageWork work;

    LaunchController(Blocks blocks, PlanDesk desk, Preferences preferences, PageWork work) {
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
        this.work = work;
    }

    /** A spot in words, and its position as a form sends it. */
    record SpotView(String words, String position) {}

    @GetMapping("/blocks/{id}/launch-spots")
    String spots(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = desk.needed(block.facts());
        UnitChoice units = preferences.units();
        List<LaunchSearch.Spot> spots = work.answer("Looking for spots", () -> LaunchSearch.of(plan));
        model.addAttribute("block", block);
        model.addAttribute("stage", Stage.GROUND);
        model.addAttribute(
                "spots", spots.stream().map(spot -> view(spot, plan, units)).toList());
        return "ground/spots :: spots";
    }

    private static SpotView view(LaunchSearch.Spot spot, BlockPlan plan, UnitChoice units) {
        LonLat at = plan.block().plane().toLonLat(spot.at().xM(), spot.at().yM());
        EastNorth grid = plan.block().plane().grid().toGrid(at);
        String words = String.format(
                Locale.ROOT,
                "%d sortie%s, %s in the air; %.0f %% of the flight in sight, %s to the farthest photo, slope %.0f°",
                spot.sorties(),
                spot.sorties() == 1 ? "" : "s",
                units.text(UnitKind.DURATION, spot.seconds()),
                spot.seen() * 100,
                units.text(UnitKind.DISTANCE, spot.farthestM()),
                Math.toDegrees(spot.slopeRad()));
        return new SpotView(words, String.format(Locale.ROOT, "%.2f %.2f", grid.east(), grid.north()));
    }
}

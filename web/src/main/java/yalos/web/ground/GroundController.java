package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.Visit;
import yalos.web.store.BlockFacts;

/** Changes to outline, launch point and grid, from the sheet or the table. The sheet speaks in the job's grid. */
@Controller
class GroundController {
    static final int MOST_DRAWN = 20_000;

    private final Blocks blocks;
    private final BlockPage page;

    GroundController(Blocks blocks, BlockPage page) {
        this.blocks = blocks;
        this.page = page;
    }

    private String change(long id, Visit visit, String label, UnaryOperator<BlockFacts> change) {
        OpenBlock changed = blocks.change(id, visit.version(), label, change);
        return page.changed(changed, visit);
    }

    @PostMapping("/blocks/{id}/corner/move")
    String move(
            @PathVariable long id,
            @RequestParam int ring,
            @RequestParam int corner,
            @RequestParam double east,
            @RequestParam double north,
            Visit visit) {
        return change(
                id,
                visit,
                "corner " + (corner + 1) + " moved",
                facts -> facts.with(Corners.moved(facts.outline(), ring, corner, position(facts, east, north))));
    }

    @PostMapping("/blocks/{id}/corner/insert")
    String insert(
            @PathVariable long id,
            @RequestParam int ring,
            @RequestParam int corner,
            @RequestParam double east,
            @RequestParam double north,
            Visit visit) {
        return change(
                id,
                visit,
                "corner inserted",
                facts -> facts.with(Corners.inserted(facts.outline(), ring, corner, position(facts, east, north))));
    }

    @PostMapping("/blocks/{id}/corner/remove")
    String remove(@PathVariable long id, @RequestParam int ring, @RequestParam int corner, Visit visit) {
        return change(
                id,
                visit,
                "corner " + (corner + 1) + " removed",
                facts -> facts.with(Corners.removed(facts.outline(), ring, corner)));
    }

    /** A corner more, typed as a position of any kind; it comes into the edge that grows least by it. */
    @PostMapping("/blocks/{id}/corner/add")
    String add(@PathVariable long id, @RequestParam String position, Visit visit) {
        return change(
                id,
                visit,
                "corner added",
                facts -> facts.with(Corners.added(facts.outline(), TypedPosition.read(position, facts.grid()))));
    }

    /** A corner typed exactly; the text may be a position of any kind. */
    @PostMapping("/blocks/{id}/corner/type")
    String type(
            @PathVariable long id,
            @RequestParam int ring,
            @RequestParam int corner,
            @RequestParam String position,
            Visit visit) {
        return change(
                id,
                visit,
                "corner " + (corner + 1) + " typed",
                facts -> facts.with(
                        Corners.moved(facts.outline(), ring, corner, TypedPosition.read(position, facts.grid()))));
    }

    /** A ring drawn on the sheet: eastings and northings in turn. It becomes the outline, or a hole in it. */
    @PostMapping("/blocks/{id}/outline/draw")
    String draw(
            @PathVariable long id,
            @RequestParam List<Double> positions,
            @RequestParam(defaultValue = "false") boolean hole,
            @RequestParam(defaultValue = "0") int epsg,
            Visit visit) {
        if (positions.size() < 6 || positions.size() % 2 != 0 || positions.size() > 2 * MOST_DRAWN) {
            throw new InputFault("outline", positions.size() / 2, "An outline needs at least three corners.");
        }
        return change(id, visit, hole ? "hole drawn" : "outline drawn", facts -> {
            Grid grid = facts.grid().orElseGet(() -> Grid.ofEpsg(epsg));
            List<LonLat> ring = places(positions, grid);
            Outline drawn = hole ? withHole(facts.outline(), ring) : Outline.ofRing(ring);
            return facts.with(OutlineCheck.sound(drawn));
        });
    }

    static List<LonLat> places(List<Double> positions, Grid grid) {
        List<LonLat> places = new ArrayList<>();
        for (int i = 0; i < positions.size(); i += 2) {
            places.add(grid.toLonLat(new EastNorth(positions.get(i), positions.get(i + 1))));
        }
        return places;
    }

    /** The hole goes into the first part it fits; the check names the place when it fits none. */
    private static Outline withHole(Outline outline, List<LonLat> hole) {
        InputFault last = new InputFault("outline", "none", "There is no outline to cut a hole into. Draw one first.");
        for (int i = 0; i < outline.parts().size(); i++) {
            List<Outline.Part> parts = new ArrayList<>(outline.parts());
            Outline.Part part = parts.get(i);
            List<List<LonLat>> holes = new ArrayList<>(part.holes());
            holes.add(hole);
            parts.set(i, new Outline.Part(part.outer(), holes));
            try {
                return OutlineCheck.sound(new Outline(parts));
            } catch (InputFault fault) {
                last = fault;
            }
        }
        throw last;
    }

    @PostMapping("/blocks/{id}/outline/clear")
    String clear(@PathVariable long id, Visit visit) {
        return change(id, visit, "outline taken away", facts -> facts.with(Outline.EMPTY));
    }

    @PostMapping("/blocks/{id}/launch")
    String launch(@PathVariable long id, @RequestParam String position, Visit visit) {
        return change(
                id,
                visit,
                position.isBlank() ? "launch point taken away" : "launch point set",
                facts -> facts.withLaunch(
                        position.isBlank()
                                ? Optional.empty()
                                : Optional.of(TypedPosition.read(position, facts.grid()))));
    }

    /** Sets the grid by its EPSG code; empty for UTM. The grid must be able to show the block. */
    @PostMapping("/blocks/{id}/grid")
    String grid(@PathVariable long id, @RequestParam String epsg, Visit visit) {
        OptionalInt code = ElevationController.code(epsg);
        return change(id, visit, code.isPresent() ? "grid EPSG:" + code.getAsInt() : "grid UTM", facts -> {
            code.ifPresent(wanted -> {
                Grid grid = Grid.ofEpsg(wanted);
                facts.outline().corners().forEach(grid::toGrid);
            });
            return facts.withEpsg(code);
        });
    }

    private static LonLat position(BlockFacts facts, double east, double north) {
        if (!Double.isFinite(east) || !Double.isFinite(north)) {
            throw new InputFault("position", east + ", " + north, "A position must be two finite numbers.");
        }
        return facts.grid()
                .map(grid -> grid.toLonLat(new EastNorth(east, north)))
                .orElseThrow(() -> new InputFault("position", east, "There is no grid yet."));
    }
}

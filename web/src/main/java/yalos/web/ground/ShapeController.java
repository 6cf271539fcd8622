package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.Corridor;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.block.PlaneBlock;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.store.JobMapper;

/** The outline as a whole: moved, turned, widened; other blocks to snap to; and places to go to. */
@Controller
class ShapeController {
    private static final double FARTHEST_M = 100_000;
    private static final int MOST_NEIGHBOURS = 60;

    private final Blocks blocks;
    private final BlockPage page;
    private final PlanDesk desk;
    private final JobMapper rows;
    private final Preferences preferences;

    ShapeController(Blocks blocks, BlockPage page, PlanDesk desk, JobMapper rows, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.desk = desk;
        this.rows = rows;
        this.preferences = preferences;
    }

    /** Moves outline or axis as it is. */
    @PostMapping("/blocks/{id}/outline/move")
    String move(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") String east,
            @RequestParam(defaultValue = "0") String north,
            Visit visit) {
        double eastM = metres("east", east);
        double northM = metres("north", north);
        String label = "outline moved %s east, %s north".formatted(east.strip(), north.strip());
        return changed(
                id,
                visit,
                label,
                block -> block.moved(eastM, northM),
                at -> new PlanePoint(at.xM() + eastM, at.yM() + northM));
    }

    /** Turns outline or axis about its middle, clockwise. */
    @PostMapping("/blocks/{id}/outline/turn")
    String turn(@PathVariable long id, @RequestParam String by, Visit visit) {
        double rad = Measure.typed("by", by, Unit.DEGREE).si();
        OpenBlock open = blocks.open(id);
        PlanePoint middle = middleOf(block(open.facts()));
        return changed(id, visit, "outline turned by " + by.strip() + "°", block -> block.turned(rad), at -> {
            double away = middle.distanceM(at);
            return away == 0 ? at : middle.moved(middle.bearingRad(at) + rad, away);
        });
    }

    /** Widens the outline on all sides by a length or by strips, or narrows it where that is negative. */
    @PostMapping("/blocks/{id}/outline/widen")
    String widen(@PathVariable long id, @RequestParam String by, Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        if (facts.patterns().corridor().isPresent()) {
            throw new InputFault("by", by, "A corridor is widened by its widths left and right.");
        }
        double byM = widthM(by, facts);
        return changed(
                id,
                visit,
                "outline widened by " + by.strip(),
                block -> byM >= 0 ? block.widened(byM) : block.narrowed(-byM),
                at -> at);
    }

    /** What widening would give, as rings of easting and northing in turn; to be looked at before. */
    @GetMapping("/blocks/{id}/outline/widened.json")
    ResponseEntity<List<double[]>> widened(@PathVariable long id, @RequestParam String by) {
        BlockFacts facts = blocks.open(id).facts();
        double byM = widthM(by, facts);
        PlaneBlock block = block(facts);
        PlaneBlock other = byM >= 0 ? block.widened(byM) : block.narrowed(-byM);
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(other.outline().rings().stream()
                        .map(ring -> flat(ring, facts.grid().orElseThrow()))
                        .toList());
    }

    /** Takes corners away that hardly matter; the history says how many and what that does to the area. */
    @PostMapping("/blocks/{id}/outline/simplify")
    String simplify(@PathVariable long id, @RequestParam String by, Visit visit) {
        double byM = InputFault.within("by", metres("by", by), 0.001, 100, "m");
        BlockFacts facts = blocks.open(id).facts();
        if (facts.patterns().corridor().isPresent()) {
            throw new InputFault("by", by, "A corridor's outline follows from its axis; take points of the axis away.");
        }
        Simpler simpler = Simpler.of(block(facts), byM);
        return changed(
                id,
                visit,
                "outline simplified within %s: %d corners, were %d"
                        .formatted(by.strip(), simpler.corners(), simpler.before()),
                block -> block.simplified(byM),
                at -> at);
    }

    /** “2 strips” is twice the strip spacing of the plan. */
    private double widthM(String by, BlockFacts facts) {
        String typed = by.strip().toLowerCase(Locale.ROOT);
        if (typed.matches(".*strips?$")) {
            double strips = Measure.typed("by", typed.replaceFirst("\\s*strips?$", ""), Unit.COUNT)
                    .si();
            double spacing = desk.needed(facts).design().spacingM();
            return checked("by", strips * spacing);
        }
        return metres("by", by);
    }

    private double metres(String field, String typed) {
        return checked(
                field,
                Measure.typed(field, typed, preferences.typed().unit(UnitKind.DISTANCE))
                        .si());
    }

    private static double checked(String field, double metres) {
        return InputFault.within(field, metres, -FARTHEST_M, FARTHEST_M, "m");
    }

    private static PlaneBlock block(BlockFacts facts) {
        if (facts.outline().isEmpty()) {
            throw new InputFault("outline", "none", "There is no outline yet. Draw one first.");
        }
        return PlaneBlock.of(facts.outline(), facts.grid().orElseThrow());
    }

    private static PlanePoint middleOf(PlaneBlock block) {
        return block.bounds().middle();
    }

    private String changed(
            long id,
            Visit visit,
            String label,
            Function<PlaneBlock, PlaneBlock> shape,
            Function<PlanePoint, PlanePoint> place) {
        return page.changed(
                blocks.change(id, visit.version(), label, facts -> {
                    PlaneBlock block = block(facts);
                    Optional<Corridor> corridor = facts.patterns().corridor();
                    return corridor.isPresent()
                            ? facts.withAxis(axis(corridor.get(), block.plane(), place))
                            : facts.with(sound(shape.apply(block)));
                }),
                visit);
    }

    private static Outline sound(PlaneBlock block) {
        Outline outline = block.outline();
        if (outline.isEmpty()) {
            throw new InputFault("by", "all of it", "Nothing of the block would be left. Narrow it by less.");
        }
        return OutlineCheck.sound(outline);
    }

    private static List<LonLat> axis(Corridor corridor, LocalPlane plane, Function<PlanePoint, PlanePoint> place) {
        return corridor.in(plane).stream().map(place).map(plane::toLonLat).toList();
    }

    /** Where a typed place lies on the sheet: easting and northing. */
    record Place(double east, double north) {}

    @GetMapping("/blocks/{id}/place.json")
    ResponseEntity<Place> place(@PathVariable long id, @RequestParam String position) {
        BlockFacts facts = blocks.open(id).facts();
        Grid grid = facts.grid()
                .orElseThrow(
                        () -> new InputFault("position", position, "The sheet has no place yet. Set a launch point."));
        EastNorth at = grid.toGrid(TypedPosition.read(position, facts.grid()));
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(new Place(at.east(), at.north()));
    }

    /** Outlines of the job's other blocks in this block's grid, easting and northing in turn. */
    @GetMapping("/blocks/{id}/neighbours.json")
    ResponseEntity<List<double[]>> neighbours(@PathVariable long id) {
        OpenBlock open = blocks.open(id);
        List<double[]> rings = new ArrayList<>();
        Optional<Grid> grid = open.facts().grid();
        if (grid.isPresent()) {
            rows.blocksOf(open.jobId()).stream()
                    .filter(row -> row.id() != id)
                    .limit(MOST_NEIGHBOURS)
                    .flatMap(row -> row.readable().stream())
                    .forEach(facts -> facts.outline().rings().forEach(ring -> rings.add(flat(ring, grid.get()))));
        }
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(rings);
    }

    private static double[] flat(List<LonLat> ring, Grid grid) {
        double[] flat = new double[2 * ring.size()];
        for (int i = 0; i < ring.size(); i++) {
            EastNorth at = grid.toGrid(ring.get(i));
            flat[2 * i] = at.east();
            flat[2 * i + 1] = at.north();
        }
        return flat;
    }
}

package yalos.web.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.block.LocalPlane;
import yalos.core.control.Avoided;
import yalos.core.control.BlockWorth;
import yalos.core.control.ControlPoint;
import yalos.core.control.ControlPoint.Role;
import yalos.core.control.Foretold;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.geodesy.Range;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;

/** What the Control stage adds to the sheet: points, the crew's way, the accuracy foretold at places over the block. */
@RestController
class ControlSheet {
    private final Blocks blocks;
    private final PlanDesk plans;
    private final ControlDesk desk;
    private final Preferences preferences;

    ControlSheet(Blocks blocks, PlanDesk plans, ControlDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.plans = plans;
        this.desk = desk;
        this.preferences = preferences;
    }

    /**
     * Positions are easting, northing in turn.
     *
     * @param way of the crew
     * @param places three figures each: easting, northing, accuracy of heights there from the best, 0, to the worst, 1
     * @param legend accuracy of heights in words at shares 0, 0.25 … 1
     * @param running whether more is to come
     */
    record Drawn(
            long version,
            List<Mark> points,
            List<Area> areas,
            double[] way,
            double[] places,
            List<String> legend,
            boolean running) {}

    record Mark(String name, boolean check, boolean locked, double east, double north, String words) {}

    record Area(String name, double[] ring) {}

    @GetMapping("/blocks/{id}/control.json")
    ResponseEntity<Drawn> drawn(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        Optional<Grid> grid = block.facts().grid();
        Optional<BlockPlan> plan = plans.plan(block.facts()).whole().map(Planned.Whole::plan);
        Drawn drawn = plan.isPresent() && grid.isPresent()
                ? drawn(block, plan.get(), grid.get(), units)
                : new Drawn(block.version(), List.of(), List.of(), new double[0], new double[0], List.of(), false);
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(drawn);
    }

    private Drawn drawn(OpenBlock block, BlockPlan plan, Grid grid, UnitChoice units) {
        ControlDesk.Foretelling found = desk.of(block.id(), block.facts(), plan);
        Optional<Foretold> foretold = found.worth().map(BlockWorth::planned);
        List<Mark> marks = new ArrayList<>();
        List<ControlPoint> points = block.facts().control().points();
        for (int i = 0; i < points.size(); i++) {
            ControlPoint point = points.get(i);
            int at = i;
            EastNorth place = grid.toGrid(point.place());
            marks.add(new Mark(
                    point.name(),
                    point.role() == Role.CHECK,
                    point.locked(),
                    place.east(),
                    place.north(),
                    foretold.flatMap(known -> known.atPoint(at))
                            .map(sigma -> Shown.pair(units, sigma))
                            .orElse("")));
        }
        List<Area> areas = new ArrayList<>();
        for (Avoided one : block.facts().control().avoided()) {
            one.outline().rings().forEach(ring -> areas.add(new Area(one.name(), flat(ring, grid))));
        }
        LocalPlane plane = plan.block().plane();
        double[] way = found.walk()
                .map(walk -> walk.way().stream()
                        .map(plane::toGrid)
                        .flatMapToDouble(at -> DoubleStream.of(at.east(), at.north()))
                        .toArray())
                .orElse(new double[0]);
        Range range =
                foretold.map(known -> range(found.worth().orElseThrow(), known)).orElse(new Range(0, 1));
        return new Drawn(
                block.version(),
                marks,
                areas,
                way,
                found.worth()
                        .map(worth -> places(worth, foretold.orElseThrow(), range))
                        .orElse(new double[0]),
                foretold.isPresent()
                        ? List.of(0.0, 0.25, 0.5, 0.75, 1.0).stream()
                                .map(share -> Shown.fine(units, range.least() + share * range.length()))
                                .toList()
                        : List.of(),
                found.running());
    }

    /** Of the accuracies of heights over the block. */
    private static Range range(BlockWorth worth, Foretold foretold) {
        double least = Double.POSITIVE_INFINITY;
        double most = 0;
        for (int i = 0; i < worth.places().size(); i++) {
            double sigma = foretold.atPlace(i).map(Foretold.Sigma::verticalM).orElse(Double.NaN);
            least = sigma < least ? sigma : least;
            most = sigma > most ? sigma : most;
        }
        return new Range(Math.min(least, most), most);
    }

    private static double[] places(BlockWorth worth, Foretold foretold, Range range) {
        LocalPlane plane = worth.plan().block().plane();
        List<Double> flat = new ArrayList<>();
        for (int i = 0; i < worth.places().size(); i++) {
            PlanePoint at = new PlanePoint(
                    worth.places().get(i).xM(), worth.places().get(i).yM());
            foretold.atPlace(i).ifPresent(sigma -> {
                EastNorth place = plane.toGrid(at);
                flat.add(Math.round(place.east() * 100) / 100.0);
                flat.add(Math.round(place.north() * 100) / 100.0);
                flat.add(Math.round(1000 * (sigma.verticalM() - range.least()) / Math.max(1e-9, range.length()))
                        / 1000.0);
            });
        }
        return flat.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double[] flat(List<LonLat> ring, Grid grid) {
        return ring.stream()
                .map(grid::toGrid)
                .flatMapToDouble(at -> DoubleStream.of(at.east(), at.north()))
                .toArray();
    }
}

package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.LineSpeeds;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.SheetSource;
import yalos.web.block.StillSheet;
import yalos.web.maps.MapShelf;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** What the sheet draws, in the units of the job's grid. */
@RestController
class SheetController implements SheetSource {
    private final Blocks blocks;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final MapShelf maps;
    private final JsonMapper json;
    private final GroundKeys keys;

    SheetController(
            Blocks blocks, PlanDesk desk, Preferences preferences, MapShelf maps, JsonMapper json, GroundKeys keys) {
        this.keys = keys;
        this.json = json;
        this.maps = maps;
        this.blocks = blocks;
        this.desk = desk;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/sheet.json")
    ResponseEntity<Sheet> sheet(@PathVariable long id) {
        OpenBlock block = blocks.open(id);
        Planned planned = desk.plan(block.facts());
        UnitChoice units = preferences.units();
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(sheet(block, planned, units));
    }

    @Override
    public String json(OpenBlock block, Planned planned, UnitChoice units) {
        return json.writeValueAsString(sheet(block, planned, units)).replace("<", "\\u003c");
    }

    @Override
    public StillSheet still(OpenBlock block, Planned planned, UnitChoice units) {
        return StillDrawing.of(sheet(block, planned, units));
    }

    private Sheet sheet(OpenBlock block, Planned planned, UnitChoice units) {
        BlockFacts facts = block.facts();
        Optional<Grid> grid = facts.grid();
        Optional<BlockPlan> plan = planned.whole().map(Planned.Whole::plan);
        LonLat somewhere = facts.outline().isEmpty()
                ? facts.launch().orElse(LonLat.of(0, 0))
                : facts.outline().middle();
        double metres =
                grid.map(g -> LocalPlane.at(g, somewhere).metresPerUnit()).orElse(1.0);
        Sheet.Ruler ruler = units.unit(UnitKind.DISTANCE).symbol().startsWith("ft")
                ? new Sheet.Ruler("ft", units.unit(UnitKind.DISTANCE).size())
                : new Sheet.Ruler("m", 1);
        return new Sheet(
                block.version(),
                grid.map(Grid::epsg).orElse(0),
                grid.map(Grid::shortName).orElse(""),
                metres,
                grid.map(g -> SheetGeometry.rings(facts.outline().rings(), g)).orElse(List.of()),
                plan.filter(p -> p.design().marginM() > 0)
                        .map(SheetGeometry::flown)
                        .orElse(List.of()),
                grid.isPresent() && facts.launch().isPresent()
                        ? SheetGeometry.pair(grid.get().toGrid(facts.launch().get()))
                        : null,
                plan.map(SheetGeometry::strips).orElse(new double[0]),
                plan.map(SheetGeometry::stations).orElse(new double[0]),
                plan.map(SheetGeometry::stationsOf).orElse(new int[0]),
                plan.map(SheetGeometry::links).orElse(List.of()),
                plan.map(p -> p.design().baseM() / metres).orElse(0.0),
                title(block, plan, grid, units),
                ruler,
                plan.flatMap(BlockPlan::overGround)
                        .map(over -> new Sheet.GroundExtent(
                                over.grid().extent(plan.get().block().plane()),
                                keys.of(keys.drawn(facts, over.grid()))))
                        .orElse(null),
                plan.filter(p -> p.heights().isPresent())
                        .map(p -> stationHeights(p, units))
                        .orElse(new double[0]),
                units.unit(UnitKind.HEIGHT).symbol(),
                things(facts, grid, plan),
                plan.filter(p -> facts.ground().picture().isPresent())
                        .map(p -> PictureFrame.of(p))
                        .map(frame -> new Sheet.GroundExtent(
                                frame.extent(plan.get().block().plane()),
                                facts.ground().picture().getAsLong() + "-"
                                        + Integer.toHexString(facts.outline().hashCode())))
                        .orElse(null),
                plan.map(SheetGeometry::passOf).orElse(new int[0]),
                plan.map(SheetGeometry::tilted).orElse(new int[0]),
                grid.isPresent()
                        ? facts.patterns()
                                .corridor()
                                .map(corridor -> SheetGeometry.flat(corridor.axis(), grid.get()))
                                .orElse(null)
                        : null,
                maps.under(block.jobId()).map(Sheet.LaidMap::of).orElse(null),
                grid.isPresent() ? new double[] {somewhere.lonDeg(), somewhere.latDeg()} : null,
                plan.map(p -> pace(p, units)).orElse(List.of()));
    }

    private static List<Sheet.Thing> things(BlockFacts facts, Optional<Grid> grid, Optional<BlockPlan> plan) {
        List<Sheet.Thing> things =
                new ArrayList<>(grid.map(g -> SheetGeometry.things(facts, g)).orElse(List.of()));
        plan.map(SheetGeometry::objects).ifPresent(things::addAll);
        return things;
    }

    private static List<String> pace(BlockPlan plan, UnitChoice units) {
        return plan.flight().lines().stream()
                .map(line -> {
                    LineSpeeds.OfLine speeds = LineSpeeds.of(plan, line);
                    if (!(speeds.groundMps() > 0)) {
                        return "the wind forbids it";
                    }
                    String crab =
                            speeds.crabRad() == 0 ? "" : ", crab %.0f°".formatted(Math.toDegrees(speeds.crabRad()));
                    String every = Double.isNaN(speeds.intervalS())
                            ? ""
                            : ", a photo every " + units.text(UnitKind.INTERVAL, speeds.intervalS());
                    return "%s%s%s, blur %s"
                            .formatted(
                                    units.text(UnitKind.SPEED, speeds.groundMps()),
                                    crab,
                                    every,
                                    units.text(UnitKind.PIXELS, speeds.blurPx()));
                })
                .toList();
    }

    /** Heights of the stations above the geoid, in the operator's unit. */
    private static double[] stationHeights(BlockPlan plan, UnitChoice units) {
        return plan.flight().exposures().stream()
                .mapToDouble(photo -> Math.round(units.unit(UnitKind.HEIGHT).ofSi(photo.upM()) * 10) / 10.0)
                .toArray();
    }

    private static Sheet.TitleBlock title(
            OpenBlock block, Optional<BlockPlan> plan, Optional<Grid> grid, UnitChoice units) {
        return new Sheet.TitleBlock(
                block.jobName() + ", " + block.name(),
                block.facts().outline().isEmpty()
                        ? "–"
                        : units.text(UnitKind.AREA, block.facts().outline().areaM2()),
                plan.map(p -> units.text(UnitKind.GSD, p.design().scale().gsdM()))
                        .orElse("–"),
                grid.map(Grid::shortName).orElse("–"),
                plan.flatMap(BlockPlan::heights)
                        .map(heights -> heights.choice().reference().words())
                        .orElse("above take-off"),
                plan.flatMap(BlockPlan::overGround)
                        .map(over -> units.text(UnitKind.DISTANCE, over.grid().cellX()) + " model")
                        .orElse("level"),
                plan.map(p -> returning(p, units)).orElse("–"));
    }

    /** What the return height must be, in sight on every stage. */
    private static String returning(BlockPlan plan, UnitChoice units) {
        OptionalDouble height = plan.returnAboveTakeOffM();
        boolean known = plan.heights().or(plan::overLevelSite).isPresent();
        return height.isEmpty()
                ? "unknown; see the findings"
                : units.text(UnitKind.HEIGHT, height.getAsDouble()) + " above take-off or more"
                        + (known ? "" : "; nothing is known of the ground");
    }
}

package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.block.Corridor;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;
import yalos.web.work.Recent;

/** The field book's page of the Ground stage. */
@Component
class GroundBook implements StageBook {
    private static final int MOST_ROWS = 400;
    private static final int KEPT_SIMPLERS = 20;

    /** One corner of the table. */
    public record CornerRow(int ring, int corner, String east, String north, String lat, String lon) {}

    /** One ring of the table. */
    public record RingTable(String title, int ring, List<CornerRow> corners, int more) {}

    /** Size of the block in one unit. */
    public record Size(String figure, String unit) {}

    /** A corridor's widths as typed, and how long and cornered its axis is. */
    public record CorridorView(String left, String right, int points) {
        static CorridorView of(Corridor corridor) {
            return new CorridorView(
                    corridor.left().asTyped(),
                    corridor.right().asTyped(),
                    corridor.axis().size());
        }
    }

    private final ElevationPage terrain;
    /** Reckoned once for an outline, not with every page. */
    private final Map<Outline, Simpler> simplers = Recent.map(KEPT_SIMPLERS);

    GroundBook(ElevationPage terrain) {
        this.terrain = terrain;
    }

    @Override
    public Stage stage() {
        return Stage.GROUND;
    }

    @Override
    public void fill(Opened opened, Model model) {
        terrain.fill(opened, model);
        BlockFacts facts = opened.block().facts();
        Optional<Grid> grid = facts.grid();
        model.addAttribute("gridName", grid.map(Grid::shortName).orElse("not known yet"));
        model.addAttribute(
                "epsg", facts.epsg().isPresent() ? String.valueOf(facts.epsg().getAsInt()) : "");
        model.addAttribute("gridUnit", grid.filter(g -> g.unitM() != 1).isPresent() ? "ft" : "m");
        model.addAttribute("rings", grid.map(g -> tables(facts, g)).orElse(List.of()));
        model.addAttribute("launch", facts.launch().map(GroundBook::latLon).orElse(""));
        model.addAttribute(
                "sizes",
                facts.outline().isEmpty() ? List.of() : sizes(facts.outline().areaM2()));
        UnitChoice units = opened.units();
        model.addAttribute(
                "corridor", facts.patterns().corridor().map(CorridorView::of).orElse(null));
        model.addAttribute(
                "holes",
                facts.outline().parts().stream()
                        .mapToInt(part -> part.holes().size())
                        .sum());
        model.addAttribute(
                "simpler", grid.flatMap(g -> simpler(facts, g, units)).orElse(null));
        model.addAttribute(
                "perimeter",
                facts.outline().isEmpty()
                        ? ""
                        : units.text(UnitKind.DISTANCE, facts.outline().perimeterM()));
    }

    /** What fewer corners would do, offered where there are very many. */
    record SimplerView(String words, String by) {}

    private Optional<SimplerView> simpler(BlockFacts facts, Grid grid, UnitChoice units) {
        int corners = facts.outline().rings().stream().mapToInt(List::size).sum();
        if (corners <= Simpler.MANY || facts.patterns().corridor().isPresent()) {
            return Optional.empty();
        }
        Simpler simpler =
                simplers.computeIfAbsent(facts.outline(), outline -> Simpler.offered(PlaneBlock.of(outline, grid)));
        String by = units.text(UnitKind.DISTANCE, simpler.byM());
        String words = String.format(
                Locale.ROOT,
                "%,d corners. %,d would do: no edge moves by more than %s, the area changes by %.3f %%. Beyond %d corners cells are not tried.",
                simpler.before(),
                simpler.corners(),
                by,
                simpler.areaShare() * 100,
                Simpler.MANY);
        return Optional.of(new SimplerView(words, by));
    }

    private static List<Size> sizes(double areaM2) {
        return List.of(Unit.HECTARE, Unit.SQUARE_METRE, Unit.SQUARE_KILOMETRE, Unit.ACRE, Unit.SQUARE_FOOT).stream()
                .map(unit -> new Size(UnitChoice.parted(UnitKind.AREA.figure(areaM2, unit)), unit.symbol()))
                .toList();
    }

    private static List<RingTable> tables(BlockFacts facts, Grid grid) {
        List<RingTable> tables = new ArrayList<>();
        int ring = 0;
        for (var part : facts.outline().parts()) {
            int inPart = 0;
            for (List<LonLat> corners : part.rings()) {
                String title = (facts.outline().parts().size() > 1
                                ? "Part " + (facts.outline().parts().indexOf(part) + 1) + ", "
                                : "")
                        + (inPart++ == 0 ? "outer ring" : "hole " + (inPart - 1));
                tables.add(table(title, ring++, corners, grid));
            }
        }
        return tables;
    }

    private static RingTable table(String title, int ring, List<LonLat> corners, Grid grid) {
        List<CornerRow> rows = new ArrayList<>();
        for (int i = 0; i < Math.min(MOST_ROWS, corners.size()); i++) {
            LonLat at = corners.get(i);
            EastNorth position = grid.toGrid(at);
            rows.add(new CornerRow(
                    ring,
                    i,
                    String.format(Locale.ROOT, "%.2f", position.east()),
                    String.format(Locale.ROOT, "%.2f", position.north()),
                    String.format(Locale.ROOT, "%.7f", at.latDeg()),
                    String.format(Locale.ROOT, "%.7f", at.lonDeg())));
        }
        return new RingTable(title, ring, rows, corners.size() - rows.size());
    }

    private static String latLon(LonLat at) {
        return String.format(Locale.ROOT, "%.7f, %.7f", at.latDeg(), at.lonDeg());
    }
}

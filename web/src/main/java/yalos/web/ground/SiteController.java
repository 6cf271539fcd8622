package yalos.web.ground;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.exchange.Axes;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.exchange.OutlineFile;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.store.GroundFacts;

/** Obstacles that stand on the site, and zones over it. */
@Controller
class SiteController {
    private static final int MOST = 500;
    private static final int MOST_CORNERS = 20_000;

    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;
    private final AirspaceStandIn airspace;

    SiteController(Blocks blocks, BlockPage page, Preferences preferences, AirspaceStandIn airspace) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
        this.airspace = airspace;
    }

    private String change(long id, Visit visit, String label, Function<BlockFacts, GroundFacts> change) {
        return page.changed(blocks.change(id, visit.version(), label, facts -> facts.with(change.apply(facts))), visit);
    }

    /** Adds an obstacle; its places are typed, or come from the sheet, one to a line. */
    @PostMapping("/blocks/{id}/obstacles")
    String obstacle(
            @PathVariable long id,
            @RequestParam(defaultValue = "MAST") Obstacle.Kind kind,
            @RequestParam(defaultValue = "") String name,
            @RequestParam String places,
            @RequestParam(defaultValue = "10 m") String height,
            @RequestParam(defaultValue = "2 m") String radius,
            Visit visit) {
        String called = Names.given(name, kind.words());
        return change(id, visit, "obstacle " + called, facts -> {
            List<Obstacle> obstacles = new ArrayList<>(facts.ground().obstacles());
            obstacles.add(new Obstacle(
                    called, kind, positions(places, facts.grid()), metres("height", height), metres("radius", radius)));
            refuseTooMany(obstacles.size());
            return facts.ground().withObstacles(obstacles);
        });
    }

    /** Obstacles of a GeoJSON file: points, lines and polygons with their height in metres as a property. */
    @PostMapping("/blocks/{id}/obstacles/file")
    String obstacleFile(@PathVariable long id, @RequestParam MultipartFile file, Visit visit) throws IOException {
        List<Obstacle> brought = ObstacleFile.read(file.getBytes());
        return change(id, visit, brought.size() + " obstacles from a file", facts -> {
            List<Obstacle> obstacles = new ArrayList<>(facts.ground().obstacles());
            obstacles.addAll(brought);
            refuseTooMany(obstacles.size());
            refuseTooManyCorners(
                    obstacles.stream().mapToInt(one -> one.places().size()).sum());
            return facts.ground().withObstacles(obstacles);
        });
    }

    @PostMapping("/blocks/{id}/obstacles/remove")
    String removeObstacle(@PathVariable long id, @RequestParam int at, Visit visit) {
        return change(
                id,
                visit,
                "obstacle taken away",
                facts -> facts.ground().withObstacles(without(facts.ground().obstacles(), at)));
    }

    /** Adds zones: every area of a file, or the stand-in's zones near the block. */
    @PostMapping("/blocks/{id}/zones")
    String zones(
            @PathVariable long id,
            @RequestParam(required = false) MultipartFile file,
            @RequestParam(defaultValue = "CAUTION") Zone.Kind kind,
            @RequestParam(defaultValue = "0") String floor,
            @RequestParam(defaultValue = "") String ceiling,
            Visit visit)
            throws IOException {
        if (file == null || file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose a GeoJSON or KML file with the zone's outline.");
        }
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("zones");
        OutlineFile given = new OutlineFile(name, file.getBytes());
        double from = metres("floor", floor);
        double to = ceiling.isBlank() ? Double.POSITIVE_INFINITY : metres("ceiling", ceiling);
        // Read before anything is locked; what takes long holds nobody up.
        List<Zone> brought = given.read(Axes.LON_LAT, blocks.open(id).facts().grid()).areas().stream()
                .map(one -> new Zone(Names.given(one.name(), name), kind, OutlineCheck.sound(one.outline()), from, to))
                .toList();
        return change(id, visit, "zones from " + name, facts -> {
            List<Zone> zones = new ArrayList<>(facts.ground().zones());
            zones.addAll(brought);
            refuseTooMany(zones.size());
            refuseTooManyCorners(zones.stream()
                    .mapToInt(zone -> zone.outline().corners().size())
                    .sum());
            return facts.ground().withZones(zones);
        });
    }

    /** Keeps out of the block's holes: ways between strips go round them as well. */
    @PostMapping("/blocks/{id}/holes/keep-out")
    String holes(@PathVariable long id, Visit visit) {
        return change(id, visit, "kept out of the holes", facts -> {
            List<Zone> zones = new ArrayList<>(facts.ground().zones());
            int number = 0;
            for (Outline.Part part : facts.outline().parts()) {
                for (List<LonLat> hole : part.holes()) {
                    String name = "hole " + ++number;
                    zones.removeIf(zone -> zone.name().equals(name));
                    zones.add(new Zone(name, Zone.Kind.KEEP_OUT, Outline.ofRing(hole), 0, Double.POSITIVE_INFINITY));
                }
            }
            if (number == 0) {
                throw new InputFault("holes", "none", "The outline has no hole.");
            }
            refuseTooMany(zones.size());
            return facts.ground().withZones(zones);
        });
    }

    /** A zone drawn on the sheet. */
    @PostMapping("/blocks/{id}/zones/draw")
    String zone(
            @PathVariable long id,
            @RequestParam String places,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "CAUTION") Zone.Kind kind,
            @RequestParam(defaultValue = "0") String floor,
            @RequestParam(defaultValue = "") String ceiling,
            Visit visit) {
        double from = metres("floor", floor);
        double to = ceiling.isBlank() ? Double.POSITIVE_INFINITY : metres("ceiling", ceiling);
        String called = Names.given(name, kind.words());
        return change(id, visit, "zone " + called, facts -> {
            Outline outline = OutlineCheck.sound(Outline.ofRing(positions(places, facts.grid())));
            List<Zone> zones = new ArrayList<>(facts.ground().zones());
            zones.add(new Zone(called, kind, outline, from, to));
            refuseTooMany(zones.size());
            return facts.ground().withZones(zones);
        });
    }

    /** Asks the shipped stand-in for an airspace service; its zones are invented. */
    @PostMapping("/blocks/{id}/zones/stand-in")
    String standIn(@PathVariable long id, Visit visit) {
        return change(id, visit, "invented zones of the stand-in", facts -> {
            LonLat middle = facts.outline().isEmpty()
                    ? facts.launch().orElseThrow(() -> new InputFault("place", "none", "The block has no place yet."))
                    : facts.outline().middle();
            List<Zone> near = airspace.near(middle);
            if (near.isEmpty()) {
                throw new InputFault(
                        "place",
                        "far",
                        "The stand-in knows invented zones round the demo site only, and this block is not there.");
            }
            List<Zone> zones = new ArrayList<>(facts.ground().zones());
            near.stream()
                    .filter(zone ->
                            zones.stream().noneMatch(other -> other.name().equals(zone.name())))
                    .forEach(zones::add);
            return facts.ground().withZones(zones);
        });
    }

    @PostMapping("/blocks/{id}/zones/remove")
    String removeZone(@PathVariable long id, @RequestParam int at, Visit visit) {
        return change(
                id,
                visit,
                "zone taken away",
                facts -> facts.ground().withZones(without(facts.ground().zones(), at)));
    }

    private static <T> List<T> without(List<T> all, int at) {
        if (at < 0 || at >= all.size()) {
            throw new InputFault("at", at, "It is gone already; reload the page.");
        }
        List<T> kept = new ArrayList<>(all);
        kept.remove(at);
        return kept;
    }

    private static void refuseTooMany(int count) {
        if (count > MOST) {
            throw new InputFault(
                    "count", count, "A block holds up to %d obstacles and %d zones.".formatted(MOST, MOST));
        }
    }

    private static void refuseTooManyCorners(int count) {
        if (count > MOST_CORNERS) {
            throw new InputFault(
                    "count",
                    count,
                    "Together they have %d corners; a block holds up to %d. Simplify them, or leave out what lies far off."
                            .formatted(count, MOST_CORNERS));
        }
    }

    private static List<LonLat> positions(String text, Optional<Grid> grid) {
        return Arrays.stream(text.split("[\\n;]"))
                .filter(line -> !line.isBlank())
                .map(line -> TypedPosition.read(line, grid))
                .toList();
    }

    private double metres(String field, String text) {
        double metres = Measure.typed(field, text, preferences.typed().unit(UnitKind.HEIGHT))
                .si();
        return Math.round(metres * 1e6) / 1e6;
    }
}

package yalos.web.objects;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.exchange.Axes;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.site.Obstacle;
import yalos.core.site.StandingAs;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.exchange.OutlineFile;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** Objects drawn, typed, brought in and changed. */
@Controller
class ObjectsController {
    private static final double ROUND_IT_M = 25;
    private static final int MOST_BROUGHT = 30;

    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;

    ObjectsController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    private String facts(long id, Visit visit, String label, UnaryOperator<BlockFacts> change) {
        return page.changed(blocks.change(id, visit.version(), label, change), visit);
    }

    private String changed(long id, Visit visit, String label, UnaryOperator<Structures> change) {
        return facts(
                id,
                visit,
                label,
                facts -> facts.with(
                        facts.patterns().with(change.apply(facts.patterns().structures()))));
    }

    /** Adds an object, or a part to one: its places are typed, or come from the sheet, one to a line. */
    @PostMapping("/blocks/{id}/objects/add")
    String add(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String to,
            SolidForm form,
            Visit visit) {
        if (!to.isBlank()) {
            return facts(id, visit, "a part more of " + to, facts -> {
                Structures structures = facts.patterns().structures();
                Structure was = object(structures, to);
                List<Structure.Part> parts = new ArrayList<>(was.parts());
                parts.add(form.part(facts.grid(), preferences.typed()));
                Structure now = new Structure(was.name(), parts, was.off(), was.notes());
                return facts.with(facts.patterns().with(structures.putting(Optional.of(to), now)));
            });
        }
        String called = Names.given(name, form.kind() == Structure.Kind.DECK ? "bridge" : "object");
        return facts(id, visit, "object " + called, facts -> {
            Structure one = new Structure(called, List.of(form.part(facts.grid(), preferences.typed())), Set.of(), "");
            return with(facts, List.of(one));
        });
    }

    /** With objects more; a block without an outline gets one round them. */
    private static BlockFacts with(BlockFacts facts, List<Structure> more) {
        Structures structures = facts.patterns().structures();
        for (Structure one : more) {
            structures = structures.putting(Optional.empty(), unlike(structures, one));
        }
        BlockFacts there = facts.with(facts.patterns().with(structures));
        return there.outline().isEmpty() ? outlined(there, more) : there;
    }

    /** Names stay apart: a second “shed” becomes “shed 2”. */
    private static Structure unlike(Structures all, Structure one) {
        String name = one.name();
        for (int number = 2; all.object(name).isPresent(); number++) {
            name = one.name() + " " + number;
        }
        return new Structure(name, one.parts(), one.off(), one.notes());
    }

    private static BlockFacts outlined(BlockFacts facts, List<Structure> objects) {
        List<LonLat> places = objects.stream()
                .flatMap(one -> one.parts().stream())
                .flatMap(part -> part.places().stream())
                .toList();
        double west = places.stream().mapToDouble(LonLat::lonDeg).min().orElseThrow();
        double east = places.stream().mapToDouble(LonLat::lonDeg).max().orElseThrow();
        double south = places.stream().mapToDouble(LonLat::latDeg).min().orElseThrow();
        double north = places.stream().mapToDouble(LonLat::latDeg).max().orElseThrow();
        double hair = 1e-6;
        Outline tight = Outline.ofRing(List.of(
                LonLat.of(west - hair, south - hair),
                LonLat.of(east + hair, south - hair),
                LonLat.of(east + hair, north + hair),
                LonLat.of(west - hair, north + hair)));
        Grid grid = facts.grid().orElseGet(() -> Grid.utmAt(places.get(0)));
        return facts.with(PlaneBlock.of(tight, grid).widened(ROUND_IT_M).outline());
    }

    /** Objects of a file: areas stand as bodies, lines as walls, all with the heights typed beside it. */
    @PostMapping("/blocks/{id}/objects/file")
    String file(@PathVariable long id, @RequestParam(required = false) MultipartFile file, SolidForm form, Visit visit)
            throws IOException {
        if (file == null || file.isEmpty()) {
            throw new InputFault(
                    "file",
                    "nothing",
                    "Choose a file with footprints: GeoJSON, KML, GeoPackage or a zipped shapefile.");
        }
        String name = Names.given(file.getOriginalFilename(), "file");
        ImportedOutlines read = new OutlineFile(name, file.getBytes())
                .read(Axes.LON_LAT, blocks.open(id).facts().grid());
        List<Structure> brought = new ArrayList<>();
        for (ImportedOutlines.Candidate area : read.candidates()) {
            brought.add(new Structure(
                    shortened(area.name()),
                    List.of(form.part(area.outline().parts().get(0).outer(), false, preferences.typed())),
                    Set.of(),
                    ""));
        }
        for (ImportedOutlines.Axis line : read.axes()) {
            brought.add(new Structure(
                    shortened(line.name()),
                    List.of(form.along().part(line.line(), true, preferences.typed())),
                    Set.of(),
                    ""));
        }
        if (brought.size() > MOST_BROUGHT) {
            throw new InputFault(
                    "file",
                    brought.size() + " footprints",
                    "The file holds %d footprints; %d objects are the most in a block. Leave out what is not photographed."
                            .formatted(brought.size(), MOST_BROUGHT));
        }
        return facts(id, visit, brought.size() + " objects from " + name, facts -> with(facts, brought));
    }

    private static String shortened(String name) {
        return name.length() > 50 ? name.substring(0, 50) : name;
    }

    /** Makes an object of an obstacle of the site, which is then no obstacle any more. */
    @PostMapping("/blocks/{id}/objects/from-obstacle")
    String fromObstacle(@PathVariable long id, @RequestParam int at, Visit visit) {
        return facts(id, visit, "an obstacle made an object", facts -> {
            List<Obstacle> obstacles = new ArrayList<>(facts.ground().obstacles());
            if (at < 0 || at >= obstacles.size()) {
                throw new InputFault("at", at, "That obstacle is gone already; reload the page.");
            }
            Obstacle obstacle = obstacles.remove(at);
            Structure one = StandingAs.structure(
                    obstacle, plane(facts, obstacle.places().get(0)));
            return with(facts.with(facts.ground().withObstacles(obstacles)), List.of(one));
        });
    }

    /** Makes obstacles of an object, which then needs no photos any more. */
    @PostMapping("/blocks/{id}/objects/to-obstacle")
    String toObstacle(@PathVariable long id, @RequestParam String object, Visit visit) {
        return facts(id, visit, object + " made an obstacle", facts -> {
            Structure one = object(facts.patterns().structures(), object);
            List<Obstacle> obstacles = new ArrayList<>(facts.ground().obstacles());
            obstacles.addAll(StandingAs.obstacles(one));
            return facts.with(facts.ground().withObstacles(obstacles))
                    .with(facts.patterns().with(facts.patterns().structures().without(object)));
        });
    }

    private static LocalPlane plane(BlockFacts facts, LonLat near) {
        return LocalPlane.at(facts.grid().orElseGet(() -> Grid.utmAt(near)), near);
    }

    /** Name, notes, faces that need photos, and the heights of the parts of an object. */
    @PostMapping("/blocks/{id}/objects/change")
    String change(
            @PathVariable long id,
            @RequestParam String object,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "") String notes,
            @RequestParam(name = "face", required = false) List<String> faces,
            @RequestParam(name = "known", required = false) List<String> known,
            @RequestParam(name = "bottom", required = false) List<String> bottoms,
            @RequestParam(name = "top", required = false) List<String> tops,
            Visit visit) {
        return changed(id, visit, object + " changed", structures -> {
            Structure was = object(structures, object);
            Set<String> off = new HashSet<>(known == null ? was.off() : new HashSet<>(known));
            if (known != null) {
                off.removeAll(faces == null ? List.of() : faces);
            }
            List<Structure.Part> parts = new ArrayList<>();
            for (int i = 0; i < was.parts().size(); i++) {
                Structure.Part part = was.parts().get(i);
                parts.add(new Structure.Part(
                        part.kind(),
                        part.places(),
                        part.widthM(),
                        typed("bottom", bottoms, i, part.bottomM()),
                        typed("top", tops, i, part.topM()),
                        part.counted(),
                        part.piers()));
            }
            Structure now = new Structure(name.isBlank() ? was.name() : name, parts, off, notes);
            return renamed(structures.putting(Optional.of(object), now), object, now.name());
        });
    }

    private double typed(String field, List<String> values, int at, double otherwise) {
        return values == null || at >= values.size() || values.get(at).isBlank()
                ? otherwise
                : SolidForm.metres(field, values.get(at), UnitKind.HEIGHT, preferences.typed());
    }

    /** Passes follow their object to its new name. */
    private Structures renamed(Structures structures, String was, String is) {
        if (was.equals(is)) {
            return structures;
        }
        List<StructurePass> passes = structures.passes().stream()
                .map(pass -> pass.object().filter(was::equals).isPresent()
                        ? ObjectsView.fields(pass).with("object", is).changed(pass)
                        : pass)
                .toList();
        return structures.with(passes);
    }

    @PostMapping("/blocks/{id}/objects/remove")
    String remove(@PathVariable long id, @RequestParam String object, Visit visit) {
        return changed(id, visit, object + " taken away", structures -> {
            object(structures, object);
            return structures.without(object);
        });
    }

    @PostMapping("/blocks/{id}/objects/remove-part")
    String removePart(@PathVariable long id, @RequestParam String object, @RequestParam int part, Visit visit) {
        return changed(id, visit, "a part of " + object + " taken away", structures -> {
            Structure was = object(structures, object);
            List<Structure.Part> parts = new ArrayList<>(was.parts());
            if (part < 1 || part > parts.size()) {
                throw new InputFault("part", part, "That part is gone already; reload the page.");
            }
            parts.remove(part - 1);
            return structures.putting(Optional.of(object), new Structure(was.name(), parts, Set.of(), was.notes()));
        });
    }

    private static Structure object(Structures structures, String name) {
        return structures
                .object(name)
                .orElseThrow(() -> new InputFault("object", name, "There is no object “%s” any more.".formatted(name)));
    }

    /** What holds for all objects. */
    @PostMapping("/blocks/{id}/objects/settings")
    String settings(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String clear,
            @RequestParam(defaultValue = "false") boolean alone,
            @RequestParam(defaultValue = "false") boolean oneView,
            Visit visit) {
        return changed(id, visit, "how objects are flown round", structures -> {
            Measure kept = clear.isBlank()
                    ? structures.clear()
                    : Measure.typed("clear", clear, preferences.typed().unit(UnitKind.HEIGHT));
            return structures.flown(kept, alone, oneView);
        });
    }
}

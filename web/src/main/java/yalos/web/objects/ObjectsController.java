package yalos.web.objects;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
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
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.site.Obstacle;
import yalos.core.site.StandingAs;
import yalos.core.site.Structure;
import yalos.core.trial.FaceRemedies;
import yalos.core.trial.RoundTable;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.block.Visit;
import yalos.web.exchange.OutlineFile;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** Objects drawn, typed, brought in and changed, and what is flown round them. */
@Controller
class ObjectsController {
    private static final double ROUND_IT_M = 25;
    private static final int MOST_BROUGHT = 30;

    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;
    private final PlanDesk desk;
    private final PageWork work;

    ObjectsController(Blocks blocks, BlockPage page, Preferences preferences, PlanDesk desk, PageWork work) {
        this.desk = desk;
        this.work = work;
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

    /** A solid as its form has it. */
    record SolidForm(
            String places,
            Structure.Kind kind,
            String width,
            String bottom,
            String top,
            Structure.Counted counted,
            String piers,
            String pierAlong,
            String pierAcross) {}

    private Structure.Part part(SolidForm form, Optional<Grid> grid) {
        boolean line = form.kind() == Structure.Kind.WALL
                || form.kind() == Structure.Kind.DECK
                        && form.width() != null
                        && !form.width().isBlank();
        List<LonLat> places = Arrays.stream(or(form.places(), "").split("[\\n;]"))
                .filter(typed -> !typed.isBlank())
                .map(typed -> TypedPosition.read(typed, grid))
                .toList();
        return part(form, places, line);
    }

    private Structure.Part part(SolidForm form, List<LonLat> places, boolean line) {
        int piers = (int) Math.round(
                Measure.typed("piers", or(form.piers(), "0"), Unit.COUNT).si());
        return new Structure.Part(
                form.kind() == null ? Structure.Kind.BODY : form.kind(),
                places,
                line ? metres("width", or(form.width(), "0.5 m"), UnitKind.DISTANCE) : 0,
                metres("bottom", or(form.bottom(), "0"), UnitKind.HEIGHT),
                metres("top", or(form.top(), ""), UnitKind.HEIGHT),
                form.counted() == null ? Structure.Counted.GROUND : form.counted(),
                piers == 0
                        ? Structure.Piers.NONE
                        : new Structure.Piers(
                                piers,
                                metres("pierAlong", or(form.pierAlong(), "1 m"), UnitKind.DISTANCE),
                                metres("pierAcross", or(form.pierAcross(), "1 m"), UnitKind.DISTANCE)));
    }

    private static String or(String typed, String otherwise) {
        return typed == null || typed.isBlank() ? otherwise : typed;
    }

    private double metres(String field, String typed, UnitKind kind) {
        double metres =
                Measure.typed(field, typed, preferences.typed().unit(kind)).si();
        return Math.round(metres * 1e6) / 1e6;
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
            return changed(id, visit, "a part more of " + to, structures -> {
                Structure was = object(structures, to);
                List<Structure.Part> parts = new ArrayList<>(was.parts());
                parts.add(part(form, blocks.open(id).facts().grid()));
                return structures.putting(Optional.of(to), new Structure(was.name(), parts, was.off(), was.notes()));
            });
        }
        String called = Names.given(name, form.kind() == Structure.Kind.DECK ? "bridge" : "object");
        return facts(id, visit, "object " + called, facts -> {
            Structure one = new Structure(called, List.of(part(form, facts.grid())), Set.of(), "");
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
                    List.of(part(form, area.outline().parts().get(0).outer(), false)),
                    Set.of(),
                    ""));
        }
        for (ImportedOutlines.Axis line : read.axes()) {
            Structure.Kind kind = form.kind() == Structure.Kind.DECK ? Structure.Kind.DECK : Structure.Kind.WALL;
            SolidForm along = new SolidForm(
                    "",
                    kind,
                    form.width(),
                    form.bottom(),
                    form.top(),
                    form.counted(),
                    form.piers(),
                    form.pierAlong(),
                    form.pierAcross());
            brought.add(new Structure(shortened(line.name()), List.of(part(along, line.line(), true)), Set.of(), ""));
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
            obstacles.addAll(StandingAs.obstacles(
                    one, plane(facts, one.parts().get(0).places().get(0))));
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
            Structure now = new Structure(or(name, was.name()), parts, off, notes);
            return renamed(structures.putting(Optional.of(object), now), object, now.name());
        });
    }

    private double typed(String field, List<String> values, int at, double otherwise) {
        return values == null || at >= values.size() || values.get(at).isBlank()
                ? otherwise
                : metres(field, values.get(at), UnitKind.HEIGHT);
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

    @PostMapping("/blocks/{id}/rounds/add")
    String addPass(
            @PathVariable long id,
            @RequestParam String pattern,
            @RequestParam(defaultValue = "") String object,
            Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        double height = facts.pins().siOr(Quantity.HEIGHT, Defaults.CEILING_M / 3);
        StructurePass pass = RoundForm.usual(pattern, object, height);
        return changed(id, visit, pass.words() + " added", structures -> structures.adding(pass));
    }

    /** @param number of the pass among those round objects, from 1 */
    @PostMapping("/blocks/{id}/rounds/{number}")
    String changePass(
            @PathVariable long id, @PathVariable int number, @RequestParam Map<String, String> fields, Visit visit) {
        StructurePass was = pass(blocks.open(id).facts().patterns().structures(), number);
        StructurePass now = new RoundForm(fields, preferences.typed()).changed(was);
        return changed(id, visit, now.words(), structures -> {
            pass(structures, number);
            List<StructurePass> passes = new ArrayList<>(structures.passes());
            passes.set(number - 1, now);
            return structures.with(passes);
        });
    }

    /** Takes a stand-off, or a radius of circles, out of the comparison. */
    @PostMapping("/blocks/{id}/rounds/{number}/size")
    String size(@PathVariable long id, @PathVariable int number, @RequestParam String value, Visit visit) {
        Measure to = Measure.typed("size", value, preferences.typed().unit(UnitKind.DISTANCE));
        StructurePass now =
                RoundTable.sized(pass(blocks.open(id).facts().patterns().structures(), number), to);
        return changed(id, visit, now.words(), structures -> {
            List<StructurePass> passes = new ArrayList<>(structures.passes());
            passes.set(number - 1, now);
            return structures.with(passes);
        });
    }

    /** Makes a change that was tried and helps; tried again, for the plan may have gone on. */
    @PostMapping("/blocks/{id}/objects/remedy")
    String remedy(@PathVariable long id, @RequestParam String key, Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        FaceRemedies.Remedy remedy =
                work
                        .answer(
                                "The remedies",
                                () -> FaceRemedies.of(
                                        desk.needed(facts), facts.brief().accuracy()))
                        .stream()
                        .filter(one -> one.key().equals(key))
                        .findFirst()
                        .orElseThrow(() -> new InputFault(
                                "key",
                                key,
                                "That does not help any more; the plan has changed. Look at the page again."));
        return changed(id, visit, remedy.words(), structures -> remedy.structures());
    }

    @PostMapping("/blocks/{id}/rounds/{number}/remove")
    String removePass(@PathVariable long id, @PathVariable int number, Visit visit) {
        String words =
                pass(blocks.open(id).facts().patterns().structures(), number).words();
        return changed(id, visit, words + " taken away", structures -> {
            pass(structures, number);
            List<StructurePass> passes = new ArrayList<>(structures.passes());
            passes.remove(number - 1);
            return structures.with(passes);
        });
    }

    private static StructurePass pass(Structures structures, int number) {
        if (number < 1 || number > structures.passes().size()) {
            throw new InputFault("pass", number, "There is no such pass any more.");
        }
        return structures.passes().get(number - 1);
    }
}

package yalos.web.ground;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.concurrent.Callable;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.fault.InputFault;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.ModelDoubt;
import yalos.core.terrain.ModelDoubt.KnownHeight;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.Visit;
import yalos.web.elevation.Grounds;
import yalos.web.elevation.Models;
import yalos.web.elevation.Pictures;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.store.GroundFacts;
import yalos.web.store.GroundFacts.ModelUse;
import yalos.web.work.Order;
import yalos.web.work.WorkQueue;

/** Elevation models of a block, and how high it is flown over them. */
@Controller
class ElevationController {
    /** Windows of a model while its range is looked for; cells are never all in memory. */
    private static final long BYTES_TO_READ = 64_000_000;

    private final Blocks blocks;
    private final BlockPage page;
    private final Models models;
    private final Grounds grounds;
    private final Preferences preferences;
    private final Pictures pictures;
    private final WorkQueue queue;

    ElevationController(
            Blocks blocks,
            BlockPage page,
            Models models,
            Grounds grounds,
            Preferences preferences,
            Pictures pictures,
            WorkQueue queue) {
        this.queue = queue;
        this.grounds = grounds;
        this.pictures = pictures;
        this.blocks = blocks;
        this.page = page;
        this.models = models;
        this.preferences = preferences;
    }

    /** In the queue, in no transaction, as long as the operator waits for it. */
    private <T> T heavy(Visit visit, String what, Callable<T> reading) {
        return queue.answer(visit.request(), what, BYTES_TO_READ, Order.USUAL, work -> reading.call());
    }

    private String change(long id, Visit visit, String label, UnaryOperator<GroundFacts> change) {
        OpenBlock changed =
                blocks.change(id, visit.version(), label, facts -> facts.with(change.apply(facts.ground())));
        return page.changed(changed, visit);
    }

    /** Brings a model in; the block uses it at once, before those it has. */
    @PostMapping("/blocks/{id}/models")
    String bring(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "") String epsg,
            @RequestParam(defaultValue = "GEOID") VerticalDatum.Zero zero,
            @RequestParam(defaultValue = "METRE") Unit unit,
            @RequestParam(defaultValue = "0") String offset,
            @RequestParam(defaultValue = "false") boolean sure,
            Visit visit)
            throws IOException {
        if (file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose a GeoTIFF or an Esri ASCII grid.");
        }
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("model");
        VerticalDatum datum = datum(zero, unit, offset);
        OpenBlock block = blocks.open(id);
        ModelUse use = heavy(
                visit,
                "The elevation model",
                () -> models.take(
                        block.jobId(),
                        name,
                        file.getInputStream(),
                        code(epsg),
                        datum,
                        model -> doubt(model, block, sure)));
        return change(id, visit, "elevation model " + name, ground -> {
            List<ModelUse> uses = new ArrayList<>(List.of(use));
            uses.addAll(ground.models());
            return ground.withModels(uses);
        });
    }

    /** A model that lies elsewhere or counts otherwise is not kept unless the operator is sure. */
    private void doubt(ElevationModel model, OpenBlock block, boolean sure) {
        if (sure) {
            return;
        }
        BlockFacts facts = block.facts();
        List<KnownHeight> known = new ArrayList<>();
        facts.launch().ifPresent(launch -> {
            facts.ground()
                    .takeOffLevelM()
                    .ifPresent(level -> known.add(new KnownHeight(launch, level, "the take-off was measured at")));
            grounds.ground(facts.ground()).filter(ground -> !ground.isLevel()).ifPresent(ground -> {
                double height = ground.source().heightM(launch);
                if (!Double.isNaN(height)) {
                    known.add(new KnownHeight(launch, height, "the models in use have"));
                }
            });
        });
        ModelDoubt.of(model, facts.outline().corners(), known).ifPresent(words -> {
            throw new InputFault(
                    "file",
                    "doubted",
                    words + " Nothing was kept. If it is right all the same, tick “I am sure” and bring it in again.");
        });
    }

    /** Lays a picture under the plan: a GeoTIFF, or a PNG or JPEG with its world file. */
    @PostMapping("/blocks/{id}/picture")
    String picture(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(required = false) MultipartFile world,
            @RequestParam(defaultValue = "") String epsg,
            Visit visit)
            throws IOException {
        if (file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose a GeoTIFF, or a PNG or JPEG with its world file.");
        }
        OpenBlock block = blocks.open(id);
        OptionalInt own =
                block.facts().grid().map(grid -> OptionalInt.of(grid.epsg())).orElse(OptionalInt.empty());
        String text = world == null || world.isEmpty() ? "" : new String(world.getBytes(), StandardCharsets.UTF_8);
        OptionalInt code = code(epsg).isPresent() || text.isEmpty() ? code(epsg) : own;
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("picture");
        long picture = heavy(
                visit, "The picture", () -> pictures.take(block.jobId(), name, file.getInputStream(), text, code));
        return change(id, visit, "picture " + name, ground -> ground.withPicture(OptionalLong.of(picture)));
    }

    @PostMapping("/blocks/{id}/picture/leave")
    String leavePicture(@PathVariable long id, Visit visit) {
        return change(id, visit, "picture taken away", ground -> ground.withPicture(OptionalLong.empty()));
    }

    static OptionalInt code(String epsg) {
        String digits = epsg.strip().replaceFirst("(?i)^epsg:\\s*", "");
        if (digits.isEmpty()) {
            return OptionalInt.empty();
        }
        if (!digits.matches("\\d{4,6}")) {
            throw new InputFault(
                    "epsg", epsg, "“%s” is no EPSG code; it has four to six digits, such as 32630.".formatted(epsg));
        }
        return OptionalInt.of(Integer.parseInt(digits));
    }

    private static VerticalDatum datum(VerticalDatum.Zero zero, Unit unit, String offset) {
        double metres = Measure.typed("offset", offset.isBlank() ? "0" : offset, Unit.METRE)
                .si();
        return new VerticalDatum(zero, unit, metres);
    }

    /** Uses a model that the job has already, in the height system last stated for it. */
    @PostMapping("/blocks/{id}/models/{model}/use")
    String use(@PathVariable long id, @PathVariable long model, Visit visit) {
        ModelUse use = models.use(blocks.open(id).jobId(), model);
        return change(id, visit, "elevation model used", ground -> {
            List<ModelUse> uses = new ArrayList<>(ground.models());
            uses.removeIf(other -> other.id() == model);
            uses.add(0, use);
            return ground.withModels(uses);
        });
    }

    /** Takes over a model that another job has of this place, and uses it. */
    @PostMapping("/blocks/{id}/models/{model}/borrow")
    String borrow(@PathVariable long id, @PathVariable long model, Visit visit) throws IOException {
        ModelUse use = models.borrowed(blocks.open(id).jobId(), model);
        return change(id, visit, "elevation model of another job", ground -> {
            List<ModelUse> uses = new ArrayList<>(List.of(use));
            uses.addAll(ground.models());
            return ground.withModels(uses);
        });
    }

    /** Leaves a model out; its file stays with the job. */
    @PostMapping("/blocks/{id}/models/{model}/leave")
    String leave(@PathVariable long id, @PathVariable long model, Visit visit) {
        return change(
                id,
                visit,
                "elevation model left out",
                ground -> ground.withModels(ground.models().stream()
                        .filter(use -> use.id() != model)
                        .toList()));
    }

    /** States a model's height system anew. */
    @PostMapping("/blocks/{id}/models/{model}/datum")
    String datum(
            @PathVariable long id,
            @PathVariable long model,
            @RequestParam VerticalDatum.Zero zero,
            @RequestParam Unit unit,
            @RequestParam(defaultValue = "0") String offset,
            Visit visit) {
        VerticalDatum datum = datum(zero, unit, offset);
        models.state(blocks.open(id).jobId(), model, datum);
        return change(
                id,
                visit,
                "height system of a model",
                ground -> ground.withModels(ground.models().stream()
                        .map(use -> use.id() == model ? new ModelUse(use.id(), use.epsg(), datum) : use)
                        .toList()));
    }

    /** Changes one of the settings of the flying height. */
    @PostMapping("/blocks/{id}/heights/{setting}")
    String heights(@PathVariable long id, @PathVariable String setting, @RequestParam String value, Visit visit) {
        return change(id, visit, "heights: " + setting + " " + value.toLowerCase(Locale.ROOT), ground -> {
            HeightChoice choice = ground.choice();
            return switch (setting) {
                case "reference" -> ground.with(choice.with(one(HeightReference.class, value)));
                case "plane" -> ground.with(choice.with(one(DesignPlane.class, value)));
                case "clearance" -> ground.with(choice.withClearance(metres("clearance", value)));
                case "smoothing" -> ground.with(choice.withSmoothing(metres("smoothing", value)));
                case "model-sigma" ->
                    ground.with(choice.withModelSigma(value.isBlank() ? 0 : metres("model-sigma", value)));
                case "take-off-level" ->
                    ground.withTakeOffLevel(
                            value.isBlank()
                                    ? OptionalDouble.empty()
                                    : OptionalDouble.of(metres("take-off level", value)));
                case "span" ->
                    ground.withSpan(
                            value.isBlank()
                                    ? OptionalDouble.empty()
                                    : OptionalDouble.of(InputFault.within(
                                            "span", metres("span", value), 0, GroundFacts.WIDEST_SPAN_M, "m")));
                default -> throw new InputFault("setting", setting, "Heights have no setting “%s”.".formatted(setting));
            };
        });
    }

    private double metres(String field, String text) {
        UnitChoice units = preferences.typed();
        double metres = Measure.typed(field, text, units.unit(UnitKind.HEIGHT)).si();
        return InputFault.within(field, Math.round(metres * 1e6) / 1e6, -500, 9000, "m");
    }

    private static <E extends Enum<E>> E one(Class<E> type, String text) {
        try {
            return Enum.valueOf(type, text);
        } catch (IllegalArgumentException e) {
            throw new InputFault("value", text, "“%s” is not one of the choices.".formatted(text));
        }
    }
}

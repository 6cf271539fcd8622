package yalos.web.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import yalos.core.flight.Exposure;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.FaceProof;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.trial.FaceRemedies;
import yalos.core.trial.RoundTable;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Stage;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.work.PageWork;

/** The elevation view: faces unrolled, their layers as pictures, a probe, and stand-offs compared. */
@Controller
class UnrolledController {
    private static final double BAND_PX = 150;
    private static final double LARGE_PX = 260;
    private static final double WRAP_PX = 860;

    private final Blocks blocks;
    private final PlanDesk desk;
    private final FacesDesk faces;
    private final Preferences preferences;
    private final PageWork work;

    UnrolledController(Blocks blocks, PlanDesk desk, FacesDesk faces, Preferences preferences, PageWork work) {
        this.blocks = blocks;
        this.desk = desk;
        this.faces = faces;
        this.preferences = preferences;
        this.work = work;
    }

    /** A layer to choose. */
    record LayerChoice(String key, String words, boolean chosen) {}

    /** A class of the legend. */
    record LegendRow(String label, String colour, boolean hatched) {}

    /**
     * The faces unrolled.
     *
     * @param large on lines below each other instead of in one band
     */
    @GetMapping("/blocks/{id}/faces")
    String elevation(
            @PathVariable long id,
            @RequestParam(defaultValue = "adequate") String layer,
            @RequestParam(defaultValue = "false") boolean large,
            Model model) {
        OpenBlock block = blocks.open(id);
        model.addAttribute("block", block);
        model.addAttribute("large", large);
        faces.of(block).filter(proof -> proof.areaM2() > 0).ifPresent(proof -> {
            FaceLayer shown = layer(layer);
            UnitChoice units = preferences.units();
            BlockPlan plan = desk.needed(block.facts());
            model.addAttribute(
                    "elevation",
                    ElevationView.of(
                            proof,
                            proof.spots(),
                            large ? LARGE_PX : BAND_PX,
                            large ? WRAP_PX : Double.POSITIVE_INFINITY,
                            units));
            model.addAttribute("layer", shown.key());
            model.addAttribute("layerWords", shown.words());
            model.addAttribute(
                    "layers",
                    Arrays.stream(FaceLayer.values())
                            .map(one -> new LayerChoice(one.key(), one.words(), one == shown))
                            .toList());
            model.addAttribute(
                    "legend",
                    shown.bands(proof, units).stream()
                            .map(band -> new LegendRow(band.label(), band.colour(), band.hatched()))
                            .toList());
            model.addAttribute("heightUnit", units.unit(UnitKind.HEIGHT).symbol());
            ObjectsBook.proved(proof, plan, units, model);
        });
        return "objects/elevation :: elevation";
    }

    private static FaceLayer layer(String key) {
        return FaceLayer.ofKey(key).orElseThrow(() -> new NotThere("There is no layer “" + key + "”."));
    }

    private StructureProof proof(OpenBlock block) {
        return faces.of(block).orElseThrow(() -> new NotThere("There are no faces to look at."));
    }

    private static FaceProof face(StructureProof proof, int number) {
        if (number < 1 || number > proof.faces().size()) {
            throw new NotThere("There is no face %d.".formatted(number));
        }
        return proof.faces().get(number - 1);
    }

    @GetMapping("/blocks/{id}/faces/{number}/{layer}.png")
    @ResponseBody
    ResponseEntity<byte[]> picture(@PathVariable long id, @PathVariable int number, @PathVariable String layer) {
        OpenBlock block = blocks.open(id);
        StructureProof proof = proof(block);
        FaceLayer shown = layer(layer);
        List<FaceLayer.Band> bands = shown.bands(proof, preferences.units());
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_PNG)
                .cacheControl(CacheControl.noStore())
                .body(FacePicture.png(face(proof, number), shown, bands));
    }

    /**
     * What one place of a face is given.
     *
     * @param place east, north, up in the block's plane, for the look from anywhere
     * @param photos numbers of those that see it
     */
    record Probe(String face, List<Figure> figures, double[] place, int[] photos) {}

    record Figure(String label, String figure) {}

    /**
     * @param along share of the face's width from its left edge
     * @param down share of its height from its upper edge
     */
    @GetMapping("/blocks/{id}/faces/{number}/probe.json")
    @ResponseBody
    ResponseEntity<Probe> probe(
            @PathVariable long id, @PathVariable int number, @RequestParam double along, @RequestParam double down) {
        OpenBlock block = blocks.open(id);
        FaceProof face = face(proof(block), number);
        int columns = face.face().columns();
        int rows = face.face().rows();
        int column = (int) Math.floor(along * columns);
        int row = (int) Math.floor(down * rows);
        if (column < 0 || row < 0 || column >= columns || row >= rows) {
            throw new NotThere("The place lies beyond the face.");
        }
        UnitChoice units = preferences.units();
        int at = row * columns + column;
        List<Figure> figures = new ArrayList<>();
        for (FaceLayer layer : FaceLayer.values()) {
            figures.add(new Figure(layer.words(), layer.text(layer.cell(face, at), units)));
        }
        double[] place = new double[3];
        face.face().place(column, row, place);
        BlockPlan plan = desk.needed(block.facts());
        int[] photos = plan.structures().stream()
                .filter(objects -> face.verdicts()[at].asked())
                .flatMap(objects -> objects.seeing(plan, face.face(), place).stream())
                .mapToInt(Exposure::id)
                .toArray();
        figures.add(new Figure(
                "up from its foot",
                units.text(UnitKind.HEIGHT, place[2] - face.built().solid().bottomM())));
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(new Probe(face.built().object().name() + ", " + face.words(), figures, place, photos));
    }

    /** A change that helps. */
    record RemedyRow(String key, String words, String gives) {}

    /** What would let more of the faces be given enough, each tried. */
    @GetMapping("/blocks/{id}/objects/remedies")
    String remedies(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = desk.needed(block.facts());
        List<FaceRemedies.Remedy> found = work.answer(
                "The remedies",
                () -> FaceRemedies.of(plan, block.facts().brief().accuracy()));
        model.addAttribute("block", block);
        model.addAttribute("stage", Stage.OBJECTS);
        model.addAttribute(
                "remedies",
                found.stream()
                        .map(one -> new RemedyRow(
                                one.key(),
                                one.words(),
                                "%s of the faces instead of %s, %s%s min, %+,d photos"
                                        .formatted(
                                                Shares.percent(one.share()),
                                                Shares.percent(one.before()),
                                                one.seconds() < 0 ? "−" : "+",
                                                UnitKind.DURATION.figure(Math.abs(one.seconds()), Unit.MINUTE),
                                                one.photos())))
                        .toList());
        return "objects/remedies :: remedies";
    }

    /** A row of the comparison. */
    record CompareRow(
            String size,
            String gsd,
            String photos,
            String minutes,
            String sets,
            String share,
            boolean here,
            String value,
            String fault) {}

    /** A pass at other stand-offs or radii: GSD, photos, time, battery sets, share of the faces. */
    @GetMapping("/blocks/{id}/rounds/{number}/compare")
    String compare(@PathVariable long id, @PathVariable int number, Model model) {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = desk.needed(block.facts());
        UnitChoice units = preferences.units();
        if (number < 1
                || number > plan.request().patterns().structures().passes().size()) {
            throw new NotThere("There is no such pass any more.");
        }
        List<RoundTable.Row> rows = work.answer(
                "The comparison",
                () -> RoundTable.of(plan, number - 1, block.facts().brief().accuracy()));
        model.addAttribute("block", block);
        model.addAttribute("stage", Stage.OBJECTS);
        model.addAttribute("number", number);
        boolean circles = plan.request()
                .patterns()
                .structures()
                .passes()
                .get(number - 1)
                .key()
                .equals("circles");
        model.addAttribute("sized", circles ? "radius" : "stand-off");
        model.addAttribute(
                "rows", rows.stream().map(row -> shown(row, number, units)).toList());
        return "objects/compare :: compare";
    }

    private static CompareRow shown(RoundTable.Row row, int number, UnitChoice units) {
        String size = units.text(UnitKind.DISTANCE, row.metres());
        if (row.plan().isEmpty()) {
            return new CompareRow(size, "–", "–", "–", "–", "–", row.here(), size, "cannot be flown");
        }
        BlockPlan plan = row.plan().get();
        return new CompareRow(
                size,
                units.text(UnitKind.GSD, row.gsdM()),
                "%,d".formatted(row.photos()),
                UnitKind.DURATION.figure(
                        ObjectsView.seconds(plan, plan.passes().passes().size() + number), Unit.MINUTE),
                "" + plan.batterySets(),
                row.share().isPresent() ? Shares.percent(row.share().getAsDouble()) : "–",
                row.here(),
                size,
                "");
    }
}

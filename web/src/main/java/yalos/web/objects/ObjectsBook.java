package yalos.web.objects;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import yalos.core.pattern.Structures;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.site.Obstacle;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.proof.ProofLayer;

/** The field book's page of the Objects stage. */
@Component
class ObjectsBook implements StageBook {
    private static final double DONE = 0.98;
    private static final double STOP = 0.5;

    private final FacesDesk faces;

    ObjectsBook(FacesDesk faces) {
        this.faces = faces;
    }

    /** An obstacle that can be made an object. */
    public record Choice(int at, String words) {}

    /** A weak spot of a face. */
    public record SpotRow(int number, int face, String where, String area, String lack) {}

    /** A layer to choose. */
    public record Layer(String key, String words, boolean chosen) {}

    @Override
    public Stage stage() {
        return Stage.OBJECTS;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        Structures structures = block.facts().patterns().structures();
        if (structures.objects().isEmpty() && !structures.flown()) {
            return Optional.of(new Standing("none", ""));
        }
        Optional<StructureProof> glance = planned.whole().flatMap(Planned.Whole::faces);
        if (!structures.flown() || glance.isEmpty()) {
            return Optional.of(new Standing(counted(structures), structures.flown() ? "mind" : ""));
        }
        if (glance.get().areaM2() == 0) {
            return Optional.of(new Standing(
                    structures.passes().size() == 1
                            ? "1 pass"
                            : structures.passes().size() + " passes",
                    "done"));
        }
        double share = glance.get().share();
        return Optional.of(new Standing(
                Shares.percent(share) + " of faces", share >= DONE ? "done" : share < STOP ? "stop" : "mind"));
    }

    private static String counted(Structures structures) {
        int count = structures.objects().size();
        return count == 1 ? "1 object" : count + " objects";
    }

    @Override
    public void fill(Opened opened, Model model) {
        UnitChoice units = opened.units();
        Structures structures = opened.block().facts().patterns().structures();
        Optional<BlockPlan> plan = opened.planned().whole().map(Planned.Whole::plan);
        Optional<StructureProof> proof = faces.of(opened.block());
        String view = asked("view", "map");
        model.addAttribute("view", view);
        if (view.equals("3d")) {
            model.addAttribute(
                    "faceLayers",
                    Arrays.stream(FaceLayer.values())
                            .map(one -> new Layer(one.key(), one.words(), one == FaceLayer.ADEQUATE))
                            .toList());
            model.addAttribute(
                    "groundLayers",
                    Arrays.stream(ProofLayer.values())
                            .map(one -> new Layer(one.key(), one.words(), false))
                            .toList());
        }
        model.addAttribute("around", ObjectsView.of(structures, plan, proof, units));
        model.addAttribute("heightUnit", units.unit(UnitKind.HEIGHT).symbol());
        List<Obstacle> obstacles = opened.block().facts().ground().obstacles();
        model.addAttribute(
                "obstacles",
                IntStream.range(0, obstacles.size())
                        .mapToObj(at -> new Choice(
                                at,
                                obstacles.get(at).name() + ", "
                                        + units.text(
                                                UnitKind.HEIGHT,
                                                obstacles.get(at).heightM())))
                        .toList());
        proof.filter(there -> there.areaM2() > 0).ifPresent(there -> proved(there, plan.orElseThrow(), units, model));
    }

    static void proved(StructureProof proof, BlockPlan plan, UnitChoice units, Model model) {
        List<StructureProof.Spot> spots = proof.spots();
        boolean flown = plan.structures().filter(one -> one.flown().isPresent()).isPresent();
        model.addAttribute("facesVerdict", verdict(proof, flown));
        model.addAttribute(
                "facesShare",
                "%s of %s is given enough".formatted(Shares.percent(proof.share()), units.surfaceText(proof.areaM2())));
        model.addAttribute("facesCell", units.text(UnitKind.GSD, proof.cellM()));
        List<SpotRow> rows = new ArrayList<>();
        for (int i = 0; i < spots.size(); i++) {
            StructureProof.Spot spot = spots.get(i);
            rows.add(new SpotRow(
                    i + 1,
                    spot.face().number(),
                    spot.face().built().object().name() + ", " + spot.face().words(),
                    units.surfaceText(spot.areaM2()),
                    spot.lack().words() + ", " + spot.photos() + (spot.photos() == 1 ? " photo" : " photos")
                            + " at least"));
        }
        model.addAttribute("faceSpots", rows);
    }

    private static String verdict(StructureProof proof, boolean flown) {
        if (!flown) {
            return "Nothing is flown round them.";
        }
        return proof.share() >= 0.998
                ? "Adequate."
                : proof.share() >= DONE ? "Adequate but for weak spots." : "Not adequate.";
    }

    /** What the address asks for. */
    static String asked(String name, String otherwise) {
        String value = RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
                ? request.getRequest().getParameter(name)
                : null;
        return value == null || value.isBlank() ? otherwise : value;
    }
}

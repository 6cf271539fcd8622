package yalos.core.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.plan.StructurePlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** A pass round an object at other stand-offs or radii: what each would give and cost. */
public final class RoundTable {
    private static final double[] TIMES = {0.5, 0.7, 0.85, 1, 1.2, 1.5, 2};

    /** Cells that all faces are cut into, to compare shares. */
    private static final int CELLS = 2000;

    private RoundTable() {}

    /**
     * One row.
     *
     * @param asOf the pass changed so, as it would be taken
     * @param metres its stand-off, or the radius of circles
     * @param here whether it is as planned now
     * @param plan with it; empty where it cannot be flown
     * @param gsdM square to the face
     * @param photos of the pass
     * @param share of the faces that are given enough by the whole flight, 0..1; empty where there are none to see
     */
    public record Row(
            StructurePass asOf,
            double metres,
            boolean here,
            Optional<BlockPlan> plan,
            double gsdM,
            int photos,
            OptionalDouble share) {}

    /**
     * @param index of the pass among those round objects, from 0
     * @param brief accuracy that it asks for
     */
    public static List<Row> of(BlockPlan plan, int index, PlanProof.Accuracy brief) {
        Structures structures = plan.request().patterns().structures();
        StructurePass pass = structures.passes().get(index);
        double now = size(pass, plan);
        List<Row> rows = new ArrayList<>();
        for (double times : TIMES) {
            double metres = times == 1 ? now : rounded(now * times);
            StructurePass other = times == 1 ? pass : sized(pass, Measure.of(metres, Unit.METRE));
            rows.add(row(plan, structures, index, other, metres, brief));
        }
        return rows;
    }

    private static double rounded(double metres) {
        double step = metres < 10 ? 0.5 : 1;
        return Math.max(step, Math.round(metres / step) * step);
    }

    private static Row row(
            BlockPlan plan,
            Structures structures,
            int index,
            StructurePass other,
            double metres,
            PlanProof.Accuracy brief) {
        boolean here = other == structures.passes().get(index);
        List<StructurePass> passes = new ArrayList<>(structures.passes());
        passes.set(index, other);
        BlockPlan tried = here ? plan : plan.round(structures.with(passes));
        Optional<StructureFlight.OfPass> flown = tried.structures().stream()
                .flatMap(objects -> objects.passes().stream())
                .skip(index)
                .findFirst()
                .filter(one -> one.fault().isEmpty() && one.photos() > 0);
        return new Row(
                other,
                metres,
                here,
                flown.map(one -> tried),
                flown.map(StructureFlight.OfPass::gsdM).orElse(Double.NaN),
                flown.map(StructureFlight.OfPass::photos).orElse(0),
                flown.isEmpty() ? OptionalDouble.empty() : share(tried, brief));
    }

    private static OptionalDouble share(BlockPlan plan, PlanProof.Accuracy brief) {
        return StructurePlan.faces(plan, brief, CELLS, part -> true)
                .filter(proof -> proof.areaM2() > 0)
                .map(proof -> OptionalDouble.of(proof.share()))
                .orElse(OptionalDouble.empty());
    }

    private static double size(StructurePass pass, BlockPlan plan) {
        if (pass instanceof Circles circles) {
            return circles.radius().si();
        }
        try {
            return pass.standOffM(plan.structures().orElseThrow().scene());
        } catch (InputFault noSuchObject) {
            return 10;
        }
    }

    /** A pass at another stand-off, or circles of another radius. */
    public static StructurePass sized(StructurePass pass, Measure to) {
        StandOff off = StandOff.of(to);
        if (pass instanceof Circles circles) {
            return circles.of(to);
        }
        if (pass instanceof Facade facade) {
            return facade.from(off);
        }
        if (pass instanceof Rings rings) {
            return rings.from(off);
        }
        return ((UnderDeck) pass).from(off);
    }
}

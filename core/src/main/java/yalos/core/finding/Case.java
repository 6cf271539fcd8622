package yalos.core.finding;

import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.DoubleStream;
import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Coverage;
import yalos.core.proof.Judgement;
import yalos.core.proof.StructureProof;
import yalos.core.proof.SurfaceProof;

/**
 * What is judged.
 *
 * @param plan of a block
 * @param coverage of that plan
 * @param judgement of every place against what is pinned and asked
 * @param faces of objects, coarsely proved; empty without objects
 * @param brief it is held against; {@link Brief#EMPTY} where nothing is asked
 */
public record Case(
        BlockPlan plan, Coverage coverage, Judgement judgement, Optional<StructureProof> faces, Brief brief) {
    /** Cells of all faces together that are quick enough for every change. */
    private static final int FACE_CELLS = 2500;

    /** A plan as far as can be judged at once. */
    public static Case of(BlockPlan plan, Brief brief) {
        Judgement glance = PlanProof.glance(plan, brief.positioning(), brief.accuracy());
        Coverage coverage = plan.overGround().isPresent()
                ? Coverage.of(glance.proof(), plan.leastPhotos())
                : PlanProof.coverage(plan);
        return new Case(plan, coverage, glance, faces(plan, brief, FACE_CELLS, share -> true), brief);
    }

    /** The same plan judged more finely. */
    public Case with(Judgement finer) {
        return new Case(plan, Coverage.of(finer.proof(), plan.leastPhotos()), finer, faces, brief);
    }

    /**
     * The faces of a plan's objects, held against what the brief and the pins ask.
     *
     * @param cells into which all of them are cut, about
     */
    public static Optional<StructureProof> faces(BlockPlan plan, Brief brief, int cells, SurfaceProof.Watcher watcher) {
        PlanProof.Accuracy asked = PlanProof.asked(plan, brief.accuracy());
        OptionalDouble sigma = DoubleStream.concat(asked.positionM().stream(), asked.heightM().stream())
                .min();
        return plan.structures().map(objects -> objects.proved(plan, cells, sigma, watcher));
    }
}

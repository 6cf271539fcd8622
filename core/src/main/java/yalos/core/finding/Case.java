package yalos.core.finding;

import java.util.Optional;
import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.Coverage;
import yalos.core.proof.Judgement;
import yalos.core.proof.StructureProof;

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
        return new Case(
                plan, coverage, glance, StructurePlan.faces(plan, brief.accuracy(), FACE_CELLS, share -> true), brief);
    }

    /** The same plan judged more finely. */
    public Case with(Judgement finer) {
        return new Case(plan, Coverage.of(finer.proof(), plan.leastPhotos()), finer, faces, brief);
    }

    /** The same with faces proved more finely. */
    public Case with(StructureProof finer) {
        return new Case(plan, coverage, judgement, Optional.of(finer), brief);
    }
}

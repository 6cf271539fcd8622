package yalos.core.finding;

import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Coverage;
import yalos.core.proof.Judgement;

/**
 * What is judged.
 *
 * @param plan of a block
 * @param coverage of that plan
 * @param judgement of every place against what is pinned and asked
 * @param brief it is held against; {@link Brief#EMPTY} where nothing is asked
 */
public record Case(BlockPlan plan, Coverage coverage, Judgement judgement, Brief brief) {

    /** A plan as far as can be judged at once. */
    public static Case of(BlockPlan plan, Brief brief) {
        Judgement glance = PlanProof.glance(plan, brief.positioning(), brief.accuracy());
        Coverage coverage = plan.overGround().isPresent()
                ? Coverage.of(glance.proof(), plan.leastPhotos())
                : PlanProof.coverage(plan);
        return new Case(plan, coverage, glance, brief);
    }

    /** The same plan judged more finely. */
    public Case with(Judgement finer) {
        return new Case(plan, Coverage.of(finer.proof(), plan.leastPhotos()), finer, brief);
    }
}

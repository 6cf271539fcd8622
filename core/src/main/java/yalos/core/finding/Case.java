package yalos.core.finding;

import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Coverage;

/**
 * What is judged.
 *
 * @param plan of a block
 * @param coverage of that plan
 * @param brief it is held against; {@link Brief#EMPTY} where nothing is asked
 */
public record Case(BlockPlan plan, Coverage coverage, Brief brief) {}

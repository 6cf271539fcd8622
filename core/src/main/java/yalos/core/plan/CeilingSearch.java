package yalos.core.plan;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.pins.Quantity;

/**
 * How far below the ceiling a height that is solved for must end so that the whole path keeps below it: by how much the path comes higher grows with
 * the height, since higher is quicker.
 */
final class CeilingSearch {
    /** So much room to the ceiling is not worth another try. */
    private static final double NEAR_ENOUGH_M = 2;
    /** The digits of a GSD leave a height so near below its bound. */
    private static final double BOUND_SHARE = 0.01;

    private BlockPlan best;
    private double tooLittleM;
    private double overM;
    private double enoughM = Double.NaN;
    private double sparedM;

    /** The next room to try after a plan that was solved with some; empty where it does, or the height was not solved for. */
    OptionalDouble after(BlockPlan plan, double triedM) {
        if (plan.solution().solved().filter(Quantity.GSD::equals).isEmpty()) {
            return OptionalDouble.empty();
        }
        double over = plan.aboveCeilingM();
        if (plan.overCeilingM() > 0) {
            tooLittleM = triedM;
            overM = over;
        } else {
            best = plan;
            enoughM = triedM;
            sparedM = -over;
            boolean atTheBound = plan.design().scale().heightM() > (plan.ceilingM() - triedM) * (1 - BOUND_SHARE);
            if (triedM == 0 || sparedM < NEAR_ENOUGH_M || !atTheBound) {
                return OptionalDouble.empty();
            }
        }
        return OptionalDouble.of(
                Double.isNaN(enoughM)
                        ? triedM + over
                        : tooLittleM + (enoughM - tooLittleM) * (overM + 1) / (overM + sparedM + 1));
    }

    Optional<BlockPlan> best() {
        return Optional.ofNullable(best);
    }
}

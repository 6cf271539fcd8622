package yalos.core.ledger;

import java.util.Optional;
import java.util.function.ToDoubleFunction;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Which is the finest GSD at which the true plan of this block costs no more than so much?
 *
 * <p>Flying higher never costs much more, but strips come and go one by one, so cost falls with GSD in steps and not
 * strictly. The search therefore brackets by doubling and halves to a hundredth of a millimetre; the answer holds the
 * limit when planned, which is checked, and its neighbours one step finer does not.
 */
public final class ScaleSearch {
    private static final double STEP_M = 1e-4;
    private static final double COARSEST_M = 1;

    private ScaleSearch() {}

    /**
     * @param plan a plan that costs more than {@code most}
     * @param cost of a plan, such as its photos
     * @return the GSD, on whole tenths of a millimetre; empty when even 1 m costs more
     */
    public static Optional<Measure> finestGsd(BlockPlan plan, ToDoubleFunction<BlockPlan> cost, double most) {
        double fine = plan.design().scale().gsdM();
        double coarse = fine;
        while (cost(plan, coarse, cost) > most) {
            fine = coarse;
            coarse *= 1.5;
            if (coarse > COARSEST_M) {
                return Optional.empty();
            }
        }
        while (coarse - fine > STEP_M / 4) {
            double middle = (fine + coarse) / 2;
            if (cost(plan, middle, cost) > most) {
                fine = middle;
            } else {
                coarse = middle;
            }
        }
        double rounded = Math.ceil(coarse / STEP_M - 1e-6) * STEP_M;
        while (cost(plan, rounded, cost) > most) {
            rounded += STEP_M;
        }
        return Optional.of(Measure.of(Math.round(rounded / STEP_M) / 100.0, Unit.CENTIMETRE));
    }

    /** Cost at another GSD, the direction kept so that each trial is one layout. */
    private static double cost(BlockPlan plan, double gsdM, ToDoubleFunction<BlockPlan> cost) {
        Pins pins = plan.request()
                .pins()
                .with(Quantity.GSD, Measure.ofSi(gsdM, Unit.CENTIMETRE))
                .with(Quantity.DIRECTION, Measure.ofSi(plan.layout().directionRad(), Unit.DEGREE));
        return cost.applyAsDouble(BlockPlan.over(plan.block(), plan.request().with(pins)));
    }
}

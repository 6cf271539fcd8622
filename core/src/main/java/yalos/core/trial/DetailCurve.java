package yalos.core.trial;

import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;
import yalos.core.fault.InputFault;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What does detail cost on a block? The same plan at finer and coarser GSDs. */
public final class DetailCurve {
    private static final double[] FACTORS = {0.6, 0.7, 0.8, 0.9, 1, 1.15, 1.3, 1.5, 1.75, 2};

    private DetailCurve() {}

    /** Plans from the finest to the coarsest GSD below the ceiling, the present one among them; those that cannot be planned are left out. */
    public static List<BlockPlan> of(BlockPlan plan) {
        double present = plan.design().scale().gsdM();
        return DoubleStream.of(FACTORS)
                .mapToObj(factor -> factor == 1 ? Optional.of(plan) : tried(plan, present * factor))
                .flatMap(Optional::stream)
                .filter(other -> other == plan || other.design().scale().heightM() <= plan.ceilingM())
                .filter(other -> Double.isFinite(other.flightTimeS()))
                .toList();
    }

    private static Optional<BlockPlan> tried(BlockPlan plan, double gsdM) {
        try {
            double cm = Math.round(gsdM * 1e4) / 100.0;
            return Optional.of(plan.tried(plan.solution().pins().with(Quantity.GSD, Measure.of(cm, Unit.CENTIMETRE))));
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }
}

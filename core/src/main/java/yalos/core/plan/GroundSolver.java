package yalos.core.plan;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntPredicate;
import yalos.core.fault.InputFault;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * What the {@link PinSolver} answers, asked of plans over the real ground themselves: where what that adds to level ones leads nowhere, since it need not grow as the costs do.
 * What gives way is halved between the dearest and the cheapest, by the digits that are shown; a scale ends where its path keeps below the ceiling.
 */
final class GroundSolver {
    /** Each try for a path below the ceiling is so much finer; after so many none is in reach. */
    private static final double FINER = 0.8;

    private static final int MOST_TRIES = 4;
    /** Of a scale below the ceiling: nearer to it is not worth another plan. */
    private static final double NEAR_ENOUGH = 0.01;

    private final BlockPlan off;
    private final Quantity gave;
    private final PinSolver level;
    /** Plans made so far, by the step at which what gives way stands: the greater, the cheaper. */
    private final Map<Integer, Optional<BlockPlan>> made = new HashMap<>();

    private GroundSolver(BlockPlan off, Quantity gave) {
        this.off = off;
        this.gave = gave;
        this.level = new PinSolver(off.block(), off.request(), PinSolver.Added.NOTHING);
    }

    /**
     * @param off a plan whose pinned costs do not hold, or whose path passes the ceiling
     * @return one that holds them below the ceiling, or the nearest to it
     */
    static BlockPlan solved(BlockPlan off) {
        boolean asLevel = off.overGround().isEmpty() && off.structures().isEmpty();
        return asLevel || off.request().pins().costs().isEmpty()
                ? off
                : off.solution()
                        .solved()
                        // An overlap that holds its costs brings no path below the ceiling.
                        .filter(gave -> gave == Quantity.GSD || !off.solution().holds())
                        .map(gave -> new GroundSolver(off, gave).solved())
                        .orElse(off);
    }

    private BlockPlan solved() {
        int present = present();
        int dearest = gave == Quantity.GSD ? level.finest() : present;
        int cheapest = gave == Quantity.GSD ? belowTheCeiling(present) : -level.leastOverlap(gave);
        if (cheapest < dearest || !kept(cheapest)) {
            return at(cheapest).map(BlockPlan::missing).orElse(off);
        }
        return at(dearestKept(dearest, cheapest)).orElseThrow();
    }

    private int present() {
        double si = off.solution().pins().si(gave).orElseThrow();
        return (int) Math.round(gave == Quantity.GSD ? si * 100 / PinSolver.GSD_STEP_CM : -si * 100);
    }

    private boolean kept(int step) {
        return at(step).filter(plan -> level.flown(plan) && PinSolver.keepsCosts(plan))
                .isPresent();
    }

    private boolean below(int step) {
        return at(step).filter(plan -> plan.overCeilingM() == 0).isPresent();
    }

    /** The coarsest scale whose path keeps below the ceiling. Looked for from above, since finer plans take longer to make; the coarsest of all where none in reach does. */
    private int belowTheCeiling(int present) {
        int coarsest = level.coarsest();
        int known = off.overCeilingM() == 0 ? present : level.finest();
        int high = coarsest;
        int low = coarsest;
        for (int tries = 0; !below(low); tries++) {
            if (low <= known || tries == MOST_TRIES) {
                return coarsest;
            }
            high = low;
            low = Math.max(known, (int) (low * FINER));
        }
        return low == high ? low : Halving.last(low, high, NEAR_ENOUGH, this::below);
    }

    /** The dearest step that is kept, looked for from the cheapest, which is. */
    private int dearestKept(int dearest, int cheapest) {
        IntPredicate kept = this::kept;
        int high = cheapest;
        int low = cheapest - 1;
        for (int width = 1; low >= dearest && kept.test(low); width *= 2) {
            high = low;
            low -= width;
        }
        return Halving.first(Math.max(dearest - 1, low), high, kept);
    }

    private Optional<BlockPlan> at(int step) {
        return made.computeIfAbsent(step, this::laid);
    }

    private Optional<BlockPlan> laid(int step) {
        PlanRequest request = off.request();
        Measure value = gave == Quantity.GSD ? PinSolver.centimetres(step) : Measure.of(-step, Unit.PERCENT);
        Pins pins = off.solution().pins().with(gave, value);
        try {
            // The room to the ceiling that it keeps, for whoever looks for ways out of it.
            double keptM = request.pins().siOr(Quantity.CEILING, Defaults.CEILING_M)
                    - Design.of(pins, request.kit(), 0, request.usual()).scale().heightM();
            PinSolver.Added room = new PinSolver.Added(0, gave == Quantity.GSD ? Math.max(0, keptM) : 0);
            return Optional.of(BlockPlan.with(
                            off.block(),
                            request,
                            new PinSolver.Solution(pins, Optional.of(gave), true, room, Optional.empty()))
                    .laid());
        } catch (InputFault tooManyOrNone) {
            return Optional.empty();
        }
    }
}

package yalos.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleFunction;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Which scale, or which overlap, makes the true plan of this block cost no more than was pinned?
 *
 * <p>Costs are limits: photos, flight time, battery sets. What is free gives way, in this order: the scale (the finest GSD
 * that fits), the side overlap, the forward overlap (each the greatest that fits, no more than usual). Cost falls as the scale
 * grows coarser or the overlap lower, but in steps, as strips come and go one by one. Each search therefore brackets and halves on
 * the digits that are shown; its answer holds when planned, and the next finer digit does not.
 */
public final class PinSolver {
    /** A hundredth of a centimetre: the last digit of a GSD that is shown. */
    private static final double GSD_STEP_CM = 0.01;

    private static final int FINEST = 2;
    private static final int COARSEST = 10_000;
    private static final int LEAST_OVERLAP = 10;

    private final PlaneBlock block;
    private final PlanRequest request;
    private final Pins pins;

    /** What the real ground adds to the flight time. */
    private final double groundS;

    private PinSolver(PlaneBlock block, PlanRequest request, double groundS) {
        this.block = block;
        this.request = request;
        this.groundS = groundS;
        this.pins = request.pins();
    }

    /**
     * What came of the costs.
     *
     * @param pins with which the plan is made: those pinned, and what was solved for
     * @param solved the quantity that gave way; empty when nothing had to or could
     * @param holds whether every pinned cost holds
     */
    public record Solution(Pins pins, Optional<Quantity> solved, boolean holds) {}

    /**
     * A value of one pin with which all the others would hold.
     */
    public record Way(Quantity quantity, Measure value) {}

    /**
     * Pins as they stand when no cost is pinned; otherwise solved.
     *
     * @param groundS seconds that the real ground adds to the flight, as far as is known
     */
    static Solution solve(PlaneBlock block, PlanRequest request, double groundS) {
        if (request.pins().costs().isEmpty()) {
            return new Solution(request.pins(), Optional.empty(), true);
        }
        return new PinSolver(block, request, groundS).solve();
    }

    /**
     * The nearest values that would make a set of pins hold that cannot: one for each pin that takes part in the conflict.
     * Each was planned and holds.
     */
    public static List<Way> waysOut(BlockPlan plan) {
        PinSolver solver = new PinSolver(plan.block(), plan.request(), 0);
        List<Way> ways = new ArrayList<>();
        solver.gsd().ifPresent(gsd -> ways.add(new Way(Quantity.GSD, gsd)));
        if (solver.pins.has(Quantity.SIDE_OVERLAP)) {
            solver.overlap(Quantity.SIDE_OVERLAP, plan.design().sideOverlap())
                    .ifPresent(side -> ways.add(new Way(Quantity.SIDE_OVERLAP, side)));
        }
        if (solver.pins.has(Quantity.FORWARD_OVERLAP)) {
            solver.overlap(Quantity.FORWARD_OVERLAP, plan.design().forwardOverlap())
                    .ifPresent(forward -> ways.add(new Way(Quantity.FORWARD_OVERLAP, forward)));
        }
        for (Quantity cost : solver.pins.costs()) {
            double needed = cost(plan, cost, 0);
            if (Double.isFinite(needed) && needed > limit(solver.pins, cost)) {
                ways.add(new Way(cost, inWholeUnits(cost, needed)));
            }
        }
        return ways;
    }

    private static Measure inWholeUnits(Quantity cost, double needed) {
        return cost == Quantity.FLIGHT_TIME
                ? Measure.of(Math.ceil(needed / 60), Unit.MINUTE)
                : Measure.of(Math.ceil(needed), Unit.COUNT);
    }

    private Solution solve() {
        if (!pins.scaleFixed()) {
            return gsd().map(gsd -> new Solution(pins.with(Quantity.GSD, gsd), Optional.of(Quantity.GSD), true))
                    .orElseGet(() -> new Solution(
                            pins.with(Quantity.GSD, Measure.of(COARSEST * GSD_STEP_CM, Unit.CENTIMETRE)),
                            Optional.of(Quantity.GSD),
                            false));
        }
        if (holds(pins)) {
            return new Solution(pins, Optional.empty(), true);
        }
        for (Quantity overlap : List.of(Quantity.SIDE_OVERLAP, Quantity.FORWARD_OVERLAP)) {
            Quantity step = overlap == Quantity.SIDE_OVERLAP ? Quantity.STRIP_SPACING : Quantity.AIR_BASE;
            if (!pins.has(overlap) && !pins.has(step)) {
                double usual = overlap == Quantity.SIDE_OVERLAP ? Defaults.SIDE_OVERLAP : Defaults.FORWARD_OVERLAP;
                Optional<Measure> found = overlap(overlap, usual);
                if (found.isPresent()) {
                    return new Solution(pins.with(overlap, found.get()), Optional.of(overlap), true);
                }
            }
        }
        return new Solution(pins, Optional.empty(), false);
    }

    /** The finest GSD, on whole hundredths of a centimetre, that holds every cost. */
    private Optional<Measure> gsd() {
        return least(FINEST, COARSEST, step -> pins.with(Quantity.GSD, Measure.of(step * GSD_STEP_CM, Unit.CENTIMETRE)))
                .map(step -> Measure.of(Math.round(step * GSD_STEP_CM * 100) / 100.0, Unit.CENTIMETRE));
    }

    /** The greatest overlap below the usual one, in whole percent, that holds every cost. */
    private Optional<Measure> overlap(Quantity overlap, double usual) {
        int from = (int) Math.round(usual * 100);
        return least(0, from - LEAST_OVERLAP, step -> pins.with(overlap, Measure.of(from - step, Unit.PERCENT)))
                .map(step -> Measure.of(from - step, Unit.PERCENT));
    }

    /** The least step whose pins hold; steps grow cheaper. Halves, then walks over the last few uneven ones. */
    private Optional<Integer> least(int from, int to, DoubleFunction<Pins> pinsAt) {
        int low = from;
        int high = Math.max(from + 1, 32);
        while (high < to && !holds(pinsAt.apply(high))) {
            low = high;
            high = Math.min(to, high * 2);
        }
        high = Math.min(high, to);
        if (!holds(pinsAt.apply(high))) {
            return Optional.empty();
        }
        while (high - low > 1) {
            int middle = (low + high) / 2;
            if (holds(pinsAt.apply(middle))) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return Optional.of(high > from && holds(pinsAt.apply(low)) ? low : high);
    }

    private boolean holds(Pins trial) {
        try {
            BlockPlan plan = BlockPlan.unsolved(block, request.with(trial.withoutCosts()));
            return pins.costs().stream().allMatch(cost -> within(cost(plan, cost, groundS), limit(pins, cost)));
        } catch (InputFault tooManyOrNone) {
            return false;
        }
    }

    private static boolean within(double cost, double limit) {
        return cost <= limit * (1 + 1e-9);
    }

    /** Whether a plan costs no more than was pinned. */
    static boolean keepsCosts(BlockPlan plan) {
        Pins pins = plan.request().pins();
        return pins.costs().stream().allMatch(cost -> within(cost(plan, cost, 0), limit(pins, cost)));
    }

    /** What a plan costs, SI, with so many seconds more; infinite where it cannot be flown. */
    static double cost(BlockPlan plan, Quantity cost, double moreS) {
        return switch (cost) {
            case PHOTOS -> plan.photos();
            case FLIGHT_TIME -> plan.flightTimeS() + moreS;
            case BATTERY_SETS -> sets(plan, moreS);
            default -> throw new IllegalArgumentException(cost + " is no cost");
        };
    }

    private static double sets(BlockPlan plan, double moreS) {
        if (!plan.batteries().carries()) {
            return Double.POSITIVE_INFINITY;
        }
        boolean oneMore = plan.batteries().leftS() < moreS;
        return plan.batterySets() + (oneMore ? 1 : 0);
    }

    private static double limit(Pins pins, Quantity cost) {
        return pins.si(cost).orElseThrow();
    }
}

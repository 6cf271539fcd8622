package yalos.core.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.GroundScale;
import yalos.core.fault.InputFault;
import yalos.core.kit.Positioning;
import yalos.core.pins.Defaults;
import yalos.core.pins.Overlaps;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.proof.RegularBlock;
import yalos.core.proof.RuleOfThumb;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Which scale, or which overlap, makes the true plan of this block cost no more, or its result be as accurate, as was pinned?
 *
 * <p>Costs are limits: photos, flight time, battery sets. The scale gives way where it is free (the finest GSD
 * that fits); where it is pinned the side overlap does, then the forward overlap (each the greatest that fits, no more than usual). Nothing gives way beyond what can
 * be flown and used: the height stays between the clearance, the payload's least height and the ceiling, the overlap above the least for
 * a reconstruction, the speed above the slowest the aircraft flies. Cost falls as the scale
 * grows coarser or the overlap lower, but in steps, as strips come and go one by one. Each search therefore brackets and halves on
 * the digits that are shown; its answer holds when planned, and the next finer digit does not.
 */
public final class PinSolver {
    /** A hundredth of a centimetre: the last digit of a GSD that is shown. */
    static final double GSD_STEP_CM = 0.01;

    /** Where the accuracy is out of reach, pixels may add as much to the error as positions do; finer ones would cost much for little. */
    private static final double ALIKE = Math.sqrt(2);

    /** Where nothing else does, this keeps a scale from becoming nonsense: 1 m above ground. */
    private static final double LEAST_HEIGHT_M = 1;

    private final PlaneBlock block;
    private final PlanRequest request;
    private final Pins pins;

    /** What the real ground adds. */
    private final Added ground;

    PinSolver(PlaneBlock block, PlanRequest request, Added ground) {
        this.block = block;
        this.request = request;
        this.ground = ground;
        this.pins = request.pins();
    }

    /**
     * What the real ground adds to a flight over level ground, as far as is known.
     *
     * @param s seconds of flight time
     * @param m metres by which the path comes higher above the ground below than is planned, where that passes the ceiling
     */
    public record Added(double s, double m) {
        static final Added NOTHING = new Added(0, 0);
    }

    /**
     * What came of the costs.
     *
     * @param pins with which the plan is made: those pinned, and what was solved for
     * @param solved the quantity that gave way; empty when nothing had to or could
     * @param holds whether every pinned cost holds, or the pinned accuracy where the scale follows from it
     * @param ground what flying over the real ground was known to add
     * @param reachable how positions must be known for the pinned accuracy, where they are not and the scale was made for it; empty else
     */
    public record Solution(
            Pins pins, Optional<Quantity> solved, boolean holds, Added ground, Optional<Positioning> reachable) {
        /** Pins as they stand. */
        static Solution asPinned(Pins pins) {
            return new Solution(pins, Optional.empty(), true, Added.NOTHING, Optional.empty());
        }

        /** The same, found not to hold after all. */
        Solution failing() {
            return new Solution(pins, solved, false, ground, reachable);
        }
    }

    private Solution solution(Pins found, Optional<Quantity> solved, boolean holds) {
        return new Solution(found, solved, holds, ground, Optional.empty());
    }

    /**
     * A value of one pin with which all the others would hold.
     */
    public record Way(Quantity quantity, Measure value) {}

    /**
     * Pins as they stand when no cost is pinned; otherwise solved.
     *
     * @param ground what the real ground adds to the flight
     */
    static Solution solve(PlaneBlock block, PlanRequest request, Added ground) {
        PinSolver solver = new PinSolver(block, request, ground);
        if (!request.pins().costs().isEmpty()) {
            return solver.solve();
        }
        return request.pins().scaleFixed() ? Solution.asPinned(request.pins()) : solver.accurate();
    }

    /**
     * The nearest values that would make a set of pins hold that cannot: one for each pin that takes part in the conflict.
     * Scale and overlaps hold over level ground; costs are what the cheapest plan takes over the real one. Whoever offers one tries it first.
     */
    public static List<Way> waysOut(BlockPlan plan) {
        PinSolver solver = new PinSolver(
                plan.block(),
                plan.request(),
                new Added(0, plan.solution().ground().m() + plan.overCeilingM()));
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
        Optional<BlockPlan> cheapest = solver.cheapest();
        for (Quantity cost : solver.pins.costs()) {
            double needed = cheapest.map(cheap -> cost(cheap, cost, 0)).orElse(Double.NaN);
            if (Double.isFinite(needed) && needed > limit(solver.pins, cost)) {
                ways.add(new Way(cost, inWholeUnits(cost, needed)));
            }
        }
        return ways;
    }

    /** Whether the aircraft stays up. */
    boolean flown(BlockPlan plan) {
        return plan.design().speedMps() >= request.aircraft().slowestMps() - 1e-9;
    }

    private static Measure inWholeUnits(Quantity cost, double needed) {
        return cost == Quantity.FLIGHT_TIME
                ? Measure.of(Math.ceil(needed / 60), Unit.MINUTE)
                : Measure.of(Math.ceil(needed), Unit.COUNT);
    }

    private Solution solve() {
        if (!pins.scaleFixed()) {
            return gsd().map(gsd -> solution(pins.with(Quantity.GSD, gsd), Optional.of(Quantity.GSD), true))
                    .orElseGet(() -> solution(
                            pins.with(Quantity.GSD, centimetres(coarsest())), Optional.of(Quantity.GSD), false));
        }
        if (holds(pins)) {
            return solution(pins, Optional.empty(), true);
        }
        for (Quantity overlap : List.of(Quantity.SIDE_OVERLAP, Quantity.FORWARD_OVERLAP)) {
            Quantity step = overlap == Quantity.SIDE_OVERLAP ? Quantity.STRIP_SPACING : Quantity.AIR_BASE;
            if (!pins.has(overlap) && !pins.has(step)) {
                double usual = overlap == Quantity.SIDE_OVERLAP
                        ? request.usual().side()
                        : request.usual().forward();
                Optional<Measure> found = overlap(overlap, usual);
                if (found.isPresent()) {
                    return solution(pins.with(overlap, found.get()), Optional.of(overlap), true);
                }
            }
        }
        return solution(pins, Optional.empty(), false);
    }

    /**
     * The coarsest GSD with which every point well inside a level block is expected to be as accurate as was pinned, by its rays and by the rule of thumb. Where positions as they are
     * known forbid that, the one with which it is had once they are known better; where nothing reaches it, the coarsest at which pixels add no more to the error than positions.
     * The judgement of the plan then says what is missing.
     */
    private Solution accurate() {
        Solution trial = accurate(1);
        try {
            // Photos of a strip stand evenly from end to end, a little nearer than the air base; nearer rays measure
            // heights less well.
            return accurate(baseShare(BlockPlan.unsolved(block, request.with(trial.pins()))));
        } catch (InputFault tooManyOrNone) {
            return trial;
        }
    }

    /** What is left of the planned air base on a strip of middling length. */
    private static double baseShare(BlockPlan plan) {
        double[] shares = plan.flight().lines().stream()
                .mapToDouble(line -> line.lengthM()
                        / Math.ceil(Math.max(1, line.lengthM() / plan.design().baseM() - 1e-9))
                        / plan.design().baseM())
                .sorted()
                .toArray();
        return shares.length == 0 ? 1 : shares[shares.length / 2];
    }

    private Solution accurate(double baseShare) {
        Positioning able = request.able();
        List<Positioning> modes = Stream.of(able, request.able(Positioning.PPK), Positioning.CONTROL)
                .distinct()
                .toList();
        int finest = finest();
        Positioning mode = modes.stream()
                .filter(known -> excess(finest, baseShare, known) <= 1)
                .findFirst()
                .orElseGet(() ->
                        Collections.min(modes, Comparator.comparingDouble(known -> excess(finest, baseShare, known))));
        double best = excess(finest, baseShare, mode);
        double allowed = best <= 1 ? 1 : best * ALIKE;
        int coarsest = Math.max(finest, coarsest());
        int last = Halving.last(finest, coarsest + 1, 0, step -> excess(step, baseShare, mode) <= allowed);
        boolean reached = best <= 1;
        return new Solution(
                pins.with(Quantity.GSD, centimetres(last)),
                Optional.of(Quantity.GSD),
                reached && mode == able,
                ground,
                Optional.of(mode).filter(other -> reached && other != able));
    }

    /** By how much the expected accuracy misses what was pinned, as a factor; 1 or less where it is met. */
    private double excess(int step, double baseShare, Positioning mode) {
        Design design = Design.of(pins.with(Quantity.GSD, centimetres(step)), request.kit(), 0, request.usual());
        RegularBlock.Expected expected = new RegularBlock(design.scale(), design.baseM() * baseShare, design.spacingM())
                .expected(PlanProof.noise(mode));
        double gsd = design.scale().gsdM();
        double heightM = Math.max(expected.heightM(), RuleOfThumb.heightM(gsd, mode));
        double positionM = Math.max(expected.positionM(), RuleOfThumb.positionM(gsd, mode));
        double heights = heightM / pins.siOr(Quantity.HEIGHTS_TO, Double.POSITIVE_INFINITY);
        double positions = positionM / pins.siOr(Quantity.POSITIONS_TO, Double.POSITIVE_INFINITY);
        return Math.max(heights, positions);
    }

    /** The finest GSD, on whole hundredths of a centimetre, that holds every cost. */
    private Optional<Measure> gsd() {
        int finest = finest();
        int coarsest = coarsest();
        return finest > coarsest
                ? Optional.empty()
                : least(finest, coarsest, step -> pins.with(Quantity.GSD, centimetres(step)))
                        .map(PinSolver::centimetres);
    }

    static Measure centimetres(double steps) {
        return Measure.of(Math.round(steps * GSD_STEP_CM * 100) / 100.0, Unit.CENTIMETRE);
    }

    private double stepsAt(double heightM) {
        return new GroundScale(request.camera(), heightM).gsdM() * 100 / GSD_STEP_CM;
    }

    /** The first step at which the flight is high enough for its payload and clear of the ground. */
    int finest() {
        double clearance = request.ground()
                .filter(real -> !real.isLevel())
                .map(real -> real.choice().keptM())
                .orElse(LEAST_HEIGHT_M);
        double least = Math.max(clearance, request.kit().payload().leastHeightM());
        return (int) Math.max(2, Math.ceil(stepsAt(least) - 1e-9));
    }

    /** The last step whose path keeps below the ceiling; below the ceiling itself where no path does. */
    int coarsest() {
        double ceilingM = pins.siOr(Quantity.CEILING, Defaults.CEILING_M);
        double keptM = ceilingM - ground.m();
        int kept = keptM > 0 ? stepBelow(keptM) : 0;
        return kept >= finest() ? kept : stepBelow(ceilingM);
    }

    private int stepBelow(double heightM) {
        return (int) Math.floor(stepsAt(heightM) + 1e-9);
    }

    int leastOverlap(Quantity overlap) {
        boolean scanner = request.kit().payload().scannerLeads();
        double least = overlap == Quantity.FORWARD_OVERLAP
                ? Overlaps.LEAST.forward()
                : scanner ? Overlaps.SCANNER_SIDE : Overlaps.LEAST.side();
        return (int) Math.round(least * 100);
    }

    /** The greatest overlap below the usual one, in whole percent, that holds every cost. */
    private Optional<Measure> overlap(Quantity overlap, double usual) {
        int from = (int) Math.round(usual * 100);
        int room = from - leastOverlap(overlap);
        return room < 0
                ? Optional.empty()
                : least(0, room, step -> pins.with(overlap, Measure.of(from - step, Unit.PERCENT)))
                        .map(step -> Measure.of(from - step, Unit.PERCENT));
    }

    /** What the costs would be at the least over the real ground: at the coarsest where the scale is free, else with free overlaps at their least. */
    private Optional<BlockPlan> cheapest() {
        Pins cheap = pins.withoutCosts();
        if (!pins.scaleFixed()) {
            cheap = cheap.with(Quantity.GSD, centimetres(coarsest()));
        } else {
            for (Quantity overlap : List.of(Quantity.SIDE_OVERLAP, Quantity.FORWARD_OVERLAP)) {
                Quantity step = overlap == Quantity.SIDE_OVERLAP ? Quantity.STRIP_SPACING : Quantity.AIR_BASE;
                if (!pins.has(overlap) && !pins.has(step)) {
                    cheap = cheap.with(overlap, Measure.of(leastOverlap(overlap), Unit.PERCENT));
                }
            }
        }
        try {
            return Optional.of(BlockPlan.unsolved(block, request.with(cheap)).laid());
        } catch (InputFault cannotBePlanned) {
            return Optional.empty();
        }
    }

    /** The least step whose pins hold; steps grow cheaper. Halves, then walks over the last few uneven ones. */
    private Optional<Integer> least(int from, int to, DoubleFunction<Pins> pinsAt) {
        int low = from;
        int high = Math.min(to, Math.max(from + 1, 32));
        while (high < to && !holds(pinsAt.apply(high))) {
            low = high;
            high = Math.min(to, high * 2);
        }
        high = Math.min(high, to);
        if (!holds(pinsAt.apply(high))) {
            return Optional.empty();
        }
        if (high == from) {
            return Optional.of(high);
        }
        int first = Halving.first(low, high, step -> holds(pinsAt.apply(step)));
        return Optional.of(holds(pinsAt.apply(first - 1)) ? first - 1 : first);
    }

    private boolean holds(Pins trial) {
        try {
            BlockPlan plan = BlockPlan.unsolved(block, request.with(trial.withoutCosts()));
            return flown(plan)
                    && pins.costs().stream().allMatch(cost -> within(cost(plan, cost, ground.s()), limit(pins, cost)));
        } catch (InputFault tooManyOrNone) {
            return false;
        }
    }

    private static boolean within(double cost, double limit) {
        return cost <= limit * (1 + 1e-9);
    }

    /** Whether a plan costs no more than was pinned. */
    static boolean keepsCosts(BlockPlan plan) {
        return unmet(plan).isEmpty();
    }

    /** The costs of which a plan takes more than was pinned. */
    public static Set<Quantity> unmet(BlockPlan plan) {
        Pins pins = plan.request().pins();
        return pins.costs().stream()
                .filter(cost -> !within(cost(plan, cost, 0), limit(pins, cost)))
                .collect(Collectors.toSet());
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

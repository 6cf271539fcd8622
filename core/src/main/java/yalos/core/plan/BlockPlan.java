package yalos.core.plan;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.flight.BatteryUse;
import yalos.core.flight.Flight;
import yalos.core.flight.Timeline;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.height.Relief;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Passes;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.Structures;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.SiteMap;
import yalos.core.units.Measure;
import yalos.core.wind.Wind;

/**
 * The plan of one block: what follows from a {@link PlanRequest}.
 *
 * <pre>{@code
 * BlockPlan plan = BlockPlan.of(new PlanRequest(kit, Pins.ofGsd(2), outline, launch, OptionalInt.empty()));
 * int photos = plan.flight().exposures().size();
 * double seconds = plan.flightTimeS();
 * }</pre>
 *
 * @param request what was decided
 * @param design scale, overlaps, speed
 * @param block the block without margin, in its plane
 * @param covered the block widened by the margin
 * @param passes flown over level ground, every pattern decided
 * @param solution what gave way to pinned costs, and whether they hold
 * @param overGround the same over real ground; empty over level ground
 * @param timeline of the flight as it is flown, in the wind to plan for
 * @param batteries that it takes
 * @param structures objects and what is flown round them; empty without any
 */
public record BlockPlan(
        PlanRequest request,
        Design design,
        PlaneBlock block,
        PlaneBlock covered,
        Passes passes,
        PinSolver.Solution solution,
        Optional<KnownGround> overGround,
        Timeline timeline,
        BatteryUse batteries,
        Optional<StructurePlan> structures) {
    /** How often what is free is solved for again with what the ground adds to the flight. */
    private static final int MOST_ROUNDS = 6;
    /** So little over the ceiling is nothing. */
    private static final double CEILING_DUST_M = 0.05;
    /** Nobody climbs a whole metre for less. */
    private static final double CENTIMETRE_M = 0.01;

    /**
     * @throws InputFault for an outline that is not sound, settings that cannot be flown, or too many photos
     */
    public static BlockPlan of(PlanRequest request) {
        Outline outline = OutlineCheck.sound(request.outline());
        PlaneBlock block = PlaneBlock.of(outline, request.grid());
        return over(block, request);
    }

    /** The plan over a block already laid into its plane, for callers that try many settings on one block. */
    public static BlockPlan over(PlaneBlock block, PlanRequest request) {
        BlockPlan solved = solved(block, request);
        return solved.solution.holds() && solved.overCeilingM() == 0 ? solved : GroundSolver.solved(solved);
    }

    /** Solved over level ground, again and again with what the real ground adds. */
    private static BlockPlan solved(PlaneBlock block, PlanRequest request) {
        PinSolver.Added ground = PinSolver.Added.NOTHING;
        CeilingSearch below = new CeilingSearch();
        for (int round = 1; ; round++) {
            PinSolver.Solution solution = PinSolver.solve(block, request, ground);
            BlockPlan level = with(block, request, solution);
            BlockPlan plan = level.laid();
            boolean kept = !solution.holds() || PinSolver.keepsCosts(plan);
            OptionalDouble lowerM = kept ? below.after(plan, ground.m()) : OptionalDouble.empty();
            if (kept && lowerM.isEmpty() || round == MOST_ROUNDS) {
                return kept ? below.best().orElse(plan) : plan.missing();
            }
            double moreS =
                    Math.max(0, plan.timeline().totalS() - level.timeline().totalS());
            ground = new PinSolver.Added(kept ? ground.s() : moreS, lowerM.orElse(ground.m()));
        }
    }

    /** By how much its path passes the ceiling over the real ground, in metres; 0 where it does not, or nobody knows. */
    public double overCeilingM() {
        double over = aboveCeilingM();
        return over > CEILING_DUST_M ? over : 0;
    }

    /** How high above the ceiling the highest of its path lies; less than 0 where it keeps below. */
    double aboveCeilingM() {
        return heights()
                .flatMap(HeightPlan::greatestAboveGround)
                .map(greatest -> greatest.m() - ceilingM())
                .orElse(Double.NEGATIVE_INFINITY);
    }

    /** The plan of pins that fix the scale over level ground, whatever it costs. */
    static BlockPlan unsolved(PlaneBlock block, PlanRequest request) {
        return with(block, request, PinSolver.Solution.asPinned(request.pins()));
    }

    /** This plan with other pins, whatever they cost: for comparing. */
    public BlockPlan tried(Pins pins) {
        return unsolved(block, request.with(pins.withoutCosts())).laid();
    }

    /** This plan with another margin, its passes flown the same way as now, over its ground. */
    public BlockPlan withMargin(Measure strips) {
        PlanRequest wider = request.with(solution.pins().withoutCosts().with(Quantity.MARGIN_STRIPS, strips));
        Design other = designOf(block, wider, wider.pins());
        PlaneBlock covering = block.widened(other.marginM());
        PassPlan passPlan = new PassPlan(block, wider, other);
        return made(wider, other, block, covering, passPlan.flown(covering, passPlan.main(mainPass())), solution)
                .laid();
    }

    /** This plan with its main pass flown otherwise; those added follow it. */
    public BlockPlan flown(Pass otherwise) {
        PassPlan passPlan = new PassPlan(block, request.with(solution.pins()), design);
        return made(request, design, block, covered, passPlan.flown(covered, otherwise), solution)
                .laid();
    }

    static BlockPlan with(PlaneBlock block, PlanRequest request, PinSolver.Solution solution) {
        Design design = designOf(block, request, solution.pins());
        PlaneBlock covered = block.widened(design.marginM());
        PassPlan passPlan = new PassPlan(block, request.with(solution.pins()), design);
        return made(request, design, block, covered, passPlan.flown(covered, passPlan.main()), solution);
    }

    private static Design designOf(PlaneBlock block, PlanRequest request, Pins pins) {
        return Design.of(pins, request.kit(), KnownGround.loweringM(request, block), request.usual());
    }

    private static BlockPlan made(
            PlanRequest request,
            Design design,
            PlaneBlock block,
            PlaneBlock covered,
            Passes passes,
            PinSolver.Solution solution) {
        Patience.check();
        Timeline timeline = Timeline.of(passes.flight(), new PassPlan(block, request, design).pace());
        return new BlockPlan(
                request,
                design,
                block,
                covered,
                passes,
                solution,
                Optional.empty(),
                timeline,
                use(request, timeline),
                Optional.empty());
    }

    private static BatteryUse use(PlanRequest request, Timeline timeline) {
        return BatteryUse.of(timeline, usableMinutes(request) * 60);
    }

    private static double usableMinutes(PlanRequest request) {
        return request.aircraft()
                .battery()
                .usableMinutes(request.pins().siOr(Quantity.TEMPERATURE, Defaults.TEMPERATURE_K));
    }

    /** Over its real ground, where there is any. */
    BlockPlan laid() {
        Optional<GroundRequest> real = request.ground().filter(ground -> !ground.isLevel());
        BlockPlan laid =
                real.isEmpty() ? this : over(KnownGround.of(real.get(), request, design, block, passes.flight()));
        return StructurePlan.of(laid).map(laid::round).orElse(laid);
    }

    /** With objects, and what is flown round them. */
    private BlockPlan round(StructurePlan objects) {
        Timeline whole = objects.flown()
                .map(flown -> Timeline.of(flown.flight(), timeline.pace()))
                .orElse(timeline);
        return made(request, overGround, whole, Optional.of(objects));
    }

    private BlockPlan over(KnownGround ground) {
        Timeline real = ground.heights()
                .map(heights -> Timeline.of(heights.flight(), timeline.pace()))
                .orElse(timeline);
        return made(request, Optional.of(ground), real, Optional.empty());
    }

    /** The same passes with other surroundings. */
    private BlockPlan made(
            PlanRequest asked, Optional<KnownGround> ground, Timeline flown, Optional<StructurePlan> objects) {
        return new BlockPlan(
                asked, design, block, covered, passes, solution, ground, flown, use(asked, flown), objects);
    }

    /** The plan whose pinned costs do not hold after all. */
    BlockPlan missing() {
        PinSolver.Solution off = solution.failing();
        return new BlockPlan(request, design, block, covered, passes, off, overGround, timeline, batteries, structures);
    }

    /**
     * The flight as it is flown: over the real ground as far as that is known, otherwise over level ground, then round objects. Where
     * {@link #heightsUnknown()} it is a drawing only, and its heights mean nothing.
     */
    public Flight flight() {
        return structures
                .flatMap(StructurePlan::flown)
                .map(StructureFlight::flight)
                .orElseGet(() -> heights().map(HeightPlan::flight).orElse(passes.flight()));
    }

    /** This plan with other objects, or flown round them otherwise; what is flown over the ground stays as it is. */
    public BlockPlan round(Structures otherwise) {
        PlanRequest asked = request.with(request.patterns().with(otherwise));
        Flight ground = heights().map(HeightPlan::flight).orElse(passes.flight());
        Timeline bare = Timeline.of(ground, timeline.pace());
        BlockPlan without = made(asked, overGround, bare, Optional.empty());
        return StructurePlan.of(without).map(without::round).orElse(without);
    }

    /** Height of the ground at the take-off point, in the height system of the flight; not a number where nobody knows it. */
    double takeOffM() {
        return heights().map(HeightPlan::takeOffM).orElseGet(() -> flight().takeOffUpM());
    }

    /** Whether nothing is flown over the ground, only round objects. */
    public boolean objectsAlone() {
        return structures.filter(StructurePlan::alone).isPresent();
    }

    /** The pass that everything else is held against: the first. */
    public Pass mainPass() {
        return passes.passes().get(0);
    }

    /** Heights of the path over real ground; empty over level ground, and where {@link #heightsUnknown()}. */
    public Optional<HeightPlan> heights() {
        return overGround.flatMap(KnownGround::heights);
    }

    /** Whether the ground is to be real, but so little of it is known that nothing can be said about heights. */
    public boolean heightsUnknown() {
        return overGround.isPresent() && heights().isEmpty();
    }

    /**
     * The path held against obstacles and zones over level ground, its heights counted from the take-off; empty where a model
     * tells the ground, or nothing stands or hangs there.
     */
    public Optional<HeightPlan> overLevelSite() {
        return request.ground()
                .filter(GroundRequest::isLevel)
                .map(ground -> new HeightPlan(
                        ground.source().over(block, 0).grid(),
                        new SiteMap(block.plane(), ground.obstacles(), ground.zones()),
                        ground.choice().with(HeightReference.TAKE_OFF),
                        new Relief(0, 0, 0),
                        0,
                        passes.flight(),
                        design.scale().heightM(),
                        request.aircraft()));
    }

    /** The GSD the brief asks for, in metres. */
    public OptionalDouble briefGsdM() {
        return request.pins().si(Quantity.BRIEF_GSD);
    }

    /** The GSD every place is judged by, in metres: what the brief asks for, otherwise what is pinned. */
    public OptionalDouble askedGsdM() {
        return briefGsdM().isPresent() ? briefGsdM() : request.pins().si(Quantity.GSD);
    }

    /** The greatest height above ground the operator allows, in metres. */
    public double ceilingM() {
        return request.pins().siOr(Quantity.CEILING, Defaults.CEILING_M);
    }

    /** How many photos should see every bit of ground. */
    public int leastPhotos() {
        return (int) Math.round(request.pins().siOr(Quantity.LEAST_PHOTOS, Defaults.LEAST_PHOTOS));
    }

    /**
     * The wind to plan for, from the grid's north; empty while strength or direction is not pinned, and for one so weak that practice ignores it, unless
     * strips were laid by it.
     */
    public Optional<Wind> wind() {
        return timeline.pace().wind();
    }

    /** The pinned wind at flying height; as it was measured where nobody said at what height, 0 where none is pinned. */
    public double windAloftMps() {
        return PlannedWind.aloftMps(request, design.scale().heightM());
    }

    /** How many photos are taken. */
    public int photos() {
        return flight().exposures().size();
    }

    /**
     * From take-off to landing with all ways between to change batteries, in the wind to plan for, in seconds; between first and last
     * photo where the launch point is not known; infinite where the wind forbids it.
     */
    public double flightTimeS() {
        return timeline.totalS() + batteries.tripsS();
    }

    /** Minutes that each battery set carries the aircraft in the air to plan for, its reserve untouched. */
    public double usableMinutes() {
        return usableMinutes(request);
    }

    /** Battery sets that the flight takes, each down to its reserve; 0 where it cannot be flown. */
    public int batterySets() {
        return batteries.sets();
    }

    /** Files that the captures write, all heads together. */
    public long files() {
        return (long) photos() * request.kit().payload().filesPerCapture();
    }

    /** Bytes that the photos take. */
    public double storageBytes() {
        return photos() * request.kit().payload().bytesPerCapture();
    }

    /** Share of its card that the leading camera fills, 0..1 and beyond. */
    public double cardShare() {
        Camera.Storage storage = request.camera().storage();
        return photos() * storage.bytesPerPhoto() / storage.cardBytes();
    }

    /**
     * Height above take-off to come home at, in whole metres: over what is known of ground, obstacles and objects, or the planned height over level
     * ground of which nothing is known. Empty where heights or the take-off level are unknown, which a finding stops for.
     */
    public OptionalDouble returnAboveTakeOffM() {
        if (heightsUnknown()) {
            return OptionalDouble.empty();
        }
        double height = heights()
                .or(this::overLevelSite)
                .map(HeightPlan::returnAboveTakeOffM)
                .orElse(Math.ceil(design.scale().heightM()));
        OptionalDouble objects = structures.map(StructurePlan::clearOverM).orElse(OptionalDouble.empty());
        double over = objects.isEmpty() ? 0 : Math.ceil(objects.getAsDouble() - takeOffM() - CENTIMETRE_M);
        return Double.isNaN(height + over) ? OptionalDouble.empty() : OptionalDouble.of(Math.max(height, over));
    }

    /** Area of the block on the ellipsoid, in square metres, without margin. */
    public double areaM2() {
        return request.outline().areaM2();
    }
}

package yalos.core.plan;

import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.block.LocalPlane;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.pattern.BestDirection;
import yalos.core.pattern.StripLayout;
import yalos.core.pattern.StripPattern;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.site.SiteMap;
import yalos.core.wind.Wind;

/**
 * The plan of one block over level ground: what follows from a {@link PlanRequest}.
 *
 * @param request what was decided
 * @param design scale, overlaps, speed
 * @param block the block without margin, in its plane
 * @param flown the block widened by the margin
 * @param layout strips, stations, links, time
 * @param solution what gave way to pinned costs, and whether they hold
 * @param overGround heights over real ground; empty over level ground
 */
public record BlockPlan(
        PlanRequest request,
        Design design,
        PlaneBlock block,
        PlaneBlock flown,
        StripLayout layout,
        PinSolver.Solution solution,
        Optional<KnownGround> overGround) {

    /**
     * @throws InputFault for an outline that is not sound, settings that cannot be flown, or too many stations
     */
    public static BlockPlan of(PlanRequest request) {
        Outline outline = OutlineCheck.sound(request.outline());
        PlaneBlock block = PlaneBlock.of(outline, request.grid());
        return over(block, request);
    }

    /** The plan over a block already laid into its plane, for callers that try many settings on one block. */
    public static BlockPlan over(PlaneBlock block, PlanRequest request) {
        PinSolver.Solution solution = PinSolver.solve(block, request);
        BlockPlan level = with(block, request, solution);
        return request.ground()
                .filter(ground -> !ground.isLevel())
                .map(ground -> level.over(KnownGround.of(ground, request, level.design(), block, level.layout())))
                .orElse(level);
    }

    /** The plan of pins that fix the scale, whatever it costs. */
    static BlockPlan unsolved(PlaneBlock block, PlanRequest request) {
        return with(block, request, new PinSolver.Solution(request.pins(), Optional.empty(), true));
    }

    /** This plan with other pins, whatever they cost: for comparing. */
    public BlockPlan tried(Pins pins) {
        return unsolved(block, request.with(pins.withoutCosts()));
    }

    private static BlockPlan with(PlaneBlock block, PlanRequest request, PinSolver.Solution solution) {
        Design design = Design.of(solution.pins(), request.kit(), loweringM(block, request));
        PlaneBlock flown = block.widened(design.marginM());
        StripPattern pattern = patternOf(request, design, block.plane());
        StripLayout.refuseFarTooMany(flown, pattern);
        OptionalDouble fixed = request.pins().si(Quantity.DIRECTION);
        double direction = fixed.isPresent()
                ? halfTurn(fixed.getAsDouble())
                : BestDirection.of(flown, pattern).directionRad();
        return new BlockPlan(
                request, design, block, flown, StripLayout.of(flown, pattern, direction), solution, Optional.empty());
    }

    private BlockPlan over(KnownGround ground) {
        return new BlockPlan(request, design, block, flown, layout, solution, Optional.of(ground));
    }

    /** By how much the ground comes nearer to a level flight whose GSD holds on the lowest ground; strips are spaced for it. */
    private static double loweringM(PlaneBlock block, PlanRequest request) {
        return request.ground()
                .filter(ground -> ground.choice().plane() == DesignPlane.BOTH)
                .filter(ground -> ground.choice().reference() == HeightReference.GEOID)
                .map(ground -> KnownGround.reliefM(ground, block))
                .orElse(0.0);
    }

    /** Heights of the path over real ground; empty over level ground, or where the model leaves part of it unknown. */
    public Optional<HeightPlan> heights() {
        return overGround.flatMap(KnownGround::heights);
    }

    /**
     * The path held against obstacles and zones over level ground, its heights counted from the take-off; empty where a model
     * tells the ground, or nothing stands or hangs there.
     */
    public Optional<HeightPlan> overLevelSite() {
        return request.ground()
                .filter(GroundRequest::isLevel)
                .map(ground -> new HeightPlan(
                        ground.source().over(block, 0),
                        new SiteMap(block.plane(), ground.obstacles(), ground.zones()),
                        ground.choice().with(HeightReference.TAKE_OFF),
                        new HeightPlan.Relief(0, 0, 0),
                        layout,
                        design.scale().heightM(),
                        design.speedMps(),
                        request.aircraft(),
                        request.launch().map(block.plane()::toPlane)));
    }

    /** What the strips need besides the block. */
    public StripPattern pattern() {
        return patternOf(request, design, block.plane());
    }

    private static StripPattern patternOf(PlanRequest request, Design design, LocalPlane plane) {
        Optional<double[]> launch = request.launch().map(plane::toPlane);
        return new StripPattern(
                design.spacingM(),
                design.baseM(),
                design.scale().heightM(),
                design.speedMps(),
                request.aircraft(),
                launch);
    }

    /** Strips lie the same in a direction and its opposite. */
    private static double halfTurn(double directionRad) {
        double turned = directionRad % Math.PI;
        return turned < 0 ? turned + Math.PI : turned;
    }

    /** The GSD the brief asks for, in metres. */
    public OptionalDouble briefGsdM() {
        return request.pins().si(Quantity.BRIEF_GSD);
    }

    /** The greatest height above ground the operator allows, in metres. */
    public double ceilingM() {
        return request.pins().siOr(Quantity.CEILING, Defaults.CEILING_M);
    }

    /** How many photos should see every bit of ground. */
    public int leastPhotos() {
        return (int) Math.round(request.pins().siOr(Quantity.LEAST_PHOTOS, Defaults.LEAST_PHOTOS));
    }

    /** The wind to plan for, from the grid's north; empty while strength or direction is not pinned. */
    public Optional<Wind> wind() {
        OptionalDouble speed = request.pins().si(Quantity.WIND);
        OptionalDouble from = request.pins().si(Quantity.WIND_FROM);
        return speed.isEmpty() || from.isEmpty()
                ? Optional.empty()
                : Optional.of(new Wind(from.getAsDouble() - block.plane().convergenceRad(), speed.getAsDouble()));
    }

    public int photos() {
        return layout.stations().size();
    }

    /** Battery sets that the flight time takes, each down to its reserve; the way back between them is not counted. */
    public int batterySets() {
        return request.aircraft().battery().setsFor(layout.flightTimeS());
    }

    /** Files that the captures write, all heads together. */
    public long files() {
        return (long) photos() * request.kit().payload().filesPerCapture();
    }

    /** Bytes that the photos take. */
    public double storageBytes() {
        return photos() * request.kit().payload().bytesPerCapture();
    }

    /** Area of the block on the ellipsoid, in square metres, without margin. */
    public double areaM2() {
        return request.outline().areaM2();
    }
}

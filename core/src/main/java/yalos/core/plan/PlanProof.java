package yalos.core.plan;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.Bounds;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.kit.Positioning;
import yalos.core.pattern.Gaze;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Passes;
import yalos.core.pattern.Pattern;
import yalos.core.pattern.Task;
import yalos.core.pins.Quantity;
import yalos.core.proof.CountGrid;
import yalos.core.proof.Coverage;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Noise;
import yalos.core.proof.PhotoCount;
import yalos.core.proof.SurfaceProof;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/** Holds a plan against its real ground: its photos, the ground in cells of a size, and what is asked of them. */
public final class PlanProof {
    /** Cells of the block in a first answer over real ground, quick enough for every change. */
    private static final int COARSE_CELLS = 10_000;

    /** So much less of a pinned overlap is allowed. */
    private static final double OVERLAP_LOST = 0.02;

    private static final double OBLIQUE_PITCH = Math.toRadians(-60);

    private final BlockPlan plan;
    private final Optional<HeightPlan> heights;
    private final HeightGrid ground;

    private PlanProof(BlockPlan plan, double cellM) {
        this.plan = plan;
        this.heights = plan.heights();
        this.ground =
                plan.overGround().map(known -> known.grid().resampled(cellM)).orElseGet(() -> level(plan, cellM));
    }

    /** Level ground under the block and one cell round it. */
    private static HeightGrid level(BlockPlan plan, double cellM) {
        Bounds bounds = plan.block().bounds();
        return HeightGrid.level(
                bounds.west() - cellM,
                bounds.north() + cellM,
                cellM,
                (int) Math.ceil(bounds.width() / cellM) + 2,
                (int) Math.ceil(bounds.height() / cellM) + 2,
                0);
    }

    /** The coverage of a plan as finely as a screen can show it; quick enough for every change. */
    public static Coverage coverage(BlockPlan plan) {
        int cells = plan.overGround().isPresent() ? COARSE_CELLS : PhotoCount.SCREEN_CELLS;
        return coverage(plan, PhotoCount.cellSizeM(plan.block(), cells));
    }

    /** The coverage of a plan in cells of the given size. */
    public static Coverage coverage(BlockPlan plan, double cellM) {
        CountGrid count = plan.overGround().isPresent()
                ? of(plan, cellM).counted()
                : PhotoCount.of(plan.block(), plan.flight().exposures(), cellM);
        return Coverage.of(count, plan.leastPhotos());
    }

    /** A plan in cells of the given size; over level ground where it has no heights. */
    public static PlanProof of(BlockPlan plan, double cellM) {
        return new PlanProof(plan, cellM);
    }

    /** The photos alone, counted. */
    public GroundProof counted() {
        return proved(Noise.ofImage(Noise.USUAL_IMAGE_PX), EnumSet.noneOf(SurfaceProof.Layer.class), share -> true);
    }

    /**
     * A plan judged as finely as is quick enough for every change.
     *
     * @param wanted how the positions of the photos are to be known; no better than the aircraft can
     */
    public static Judgement glance(BlockPlan plan, Positioning wanted, Accuracy accuracy) {
        PlanProof proof = new PlanProof(plan, PhotoCount.cellSizeM(plan.block(), COARSE_CELLS));
        Judgement.Asked asked = proof.asked(accuracy);
        Positioning mode = able(plan, wanted);
        return proof.judged(proof.proved(noise(mode), asked.layers(), share -> true), wanted, accuracy);
    }

    /** How positions are really known: as wanted, unless the aircraft knows them less well. Control points do not ask it. */
    public static Positioning able(BlockPlan plan, Positioning wanted) {
        return plan.request().able(wanted);
    }

    /** Everything, with the accuracy that a positioning mode is good for, as far as the aircraft has it. */
    public GroundProof whole(Positioning mode, SurfaceProof.Watcher watcher) {
        return proved(noise(able(plan, mode)), SurfaceProof.Layer.ofGround(), watcher);
    }

    private boolean[] asked() {
        return plan.block()
                .inside(ground.west(), ground.north(), ground.cellX(), ground.cellY(), ground.columns(), ground.rows());
    }

    private GroundProof proved(Noise noise, Set<SurfaceProof.Layer> layers, SurfaceProof.Watcher watcher) {
        return GroundProof.of(ground, asked(), photos(), noise, scope(layers), watcher);
    }

    private SurfaceProof.Scope scope(Set<SurfaceProof.Layer> layers) {
        return new SurfaceProof.Scope(layers, plan.leastPhotos());
    }

    /** None where nobody knows how high they are taken. */
    private List<Exposure> photos() {
        return plan.heightsUnknown() ? List.of() : plan.flight().exposures();
    }

    /**
     * How accurate the result must be, one standard deviation in metres each; empty where nothing is asked.
     *
     * @param positionM along each axis of the plane
     * @param heightM of heights
     */
    public record Accuracy(OptionalDouble positionM, OptionalDouble heightM) {
        public static final Accuracy ANY = new Accuracy(OptionalDouble.empty(), OptionalDouble.empty());
    }

    /**
     * Another flight, held against what is asked of this plan: one made earlier, or one that was flown.
     *
     * @param wanted how the positions of its photos are known
     */
    public Judgement judged(Flight other, Positioning wanted, Accuracy accuracy) {
        List<Exposure> known = other.exposures().stream()
                .filter(photo -> !Double.isNaN(photo.upM()))
                .toList();
        GroundProof proof = GroundProof.of(
                ground, asked(), known, noise(able(plan, wanted)), scope(SurfaceProof.Layer.ofGround()), share -> true);
        return judged(proof, wanted, accuracy);
    }

    /** What the pins and the brief ask of every cell, and whether it is given. */
    public Judgement judged(GroundProof proof, Positioning wanted, Accuracy accuracy) {
        Judgement.Far far = heights.filter(known -> known.choice().reference() == HeightReference.FOLLOW)
                .<Judgement.Far>map(followed ->
                        new FarFromPath(followed, plan.design().scale().gsdM()))
                .orElse(Judgement.Far.LEVEL);
        return new Judgement(
                proof,
                asked(accuracy),
                new Judgement.Flown(plan.design().scale().gsdM(), far, able(plan, wanted)));
    }

    private Judgement.Asked asked(Accuracy accuracy) {
        Accuracy asked = asked(plan, accuracy);
        return new Judgement.Asked(
                plan.leastPhotos(), plan.askedGsdM(), asked.positionM(), asked.heightM(), nearestGsdM());
    }

    /** What is asked of a plan: a pinned accuracy counts instead of the brief's. */
    public static Accuracy asked(BlockPlan plan, Accuracy brief) {
        return new Accuracy(
                pinned(plan, Quantity.POSITIONS_TO, brief.positionM()),
                pinned(plan, Quantity.HEIGHTS_TO, brief.heightM()));
    }

    private static OptionalDouble pinned(BlockPlan plan, Quantity accuracy, OptionalDouble otherwise) {
        OptionalDouble pin = plan.request().pins().si(accuracy);
        return pin.isPresent() ? pin : otherwise;
    }

    /** Where the ground is nearer, footprints are smaller and a pinned overlap is less by more than is allowed. */
    private OptionalDouble nearestGsdM() {
        Design design = plan.design();
        double side = kept(Quantity.SIDE_OVERLAP, design.sideOverlap());
        double forward = kept(Quantity.FORWARD_OVERLAP, design.forwardOverlap());
        double nearest = design.scale().gsdM() * Math.max(side, forward);
        return nearest > 0 ? OptionalDouble.of(nearest) : OptionalDouble.empty();
    }

    /** Share of the planned distance at which a pinned overlap is at its least; 0 where it is not pinned. */
    private double kept(Quantity overlap, double planned) {
        OptionalDouble pinned = plan.request().pins().si(overlap);
        return pinned.isEmpty() ? 0 : (1 - planned) / (1 - pinned.getAsDouble() + OVERLAP_LOST);
    }

    /**
     * What oblique strips across the planned ones would give.
     *
     * @param share of the block then given enough, 0..1
     * @param minutes more to fly
     */
    public record Gain(double share, double minutes) {}

    /**
     * Lines square to the planned ones, half as dense, flown once with the camera tilted 30° from straight down ahead and once back:
     * they look into steep sides that the planned ones cannot see. Judged like the plan itself.
     */
    public Gain withObliques(Judgement planned, SurfaceProof.Watcher watcher) {
        Pass main = plan.mainPass();
        Pattern across = main.pattern().across();
        Task sparse = main.task().sparser(2);
        Flight crossing = Passes.flown(
                        plan.covered(),
                        List.of(
                                new Pass(across.looking(Gaze.tilted(OBLIQUE_PITCH, 0)), sparse),
                                new Pass(across.looking(Gaze.tilted(OBLIQUE_PITCH, Math.PI)), sparse)),
                        plan.timeline().pace(),
                        plan.flight().launch())
                .flight();
        Flight laid = heights.map(known -> known.alike(crossing)).orElse(crossing);
        List<Exposure> all = new ArrayList<>(photos());
        int lines = plan.flight().lines().size();
        laid.exposures().stream()
                .filter(exposure -> !Double.isNaN(exposure.upM()))
                .forEach(exposure -> all.add(exposure.onLine(lines + exposure.line())));
        GroundProof proof = GroundProof.of(
                ground, asked(), all, noise(planned.positioning()), scope(SurfaceProof.Layer.ofGround()), watcher);
        double minutes = Timeline.of(laid, plan.timeline().pace()).totalS() / 60;
        return new Gain(new Judgement(proof, planned).share(), minutes);
    }

    /** The photos of a plan that see a cell of the ground it was proved over. */
    public static List<Exposure> seeing(BlockPlan plan, HeightGrid grid, int column, int row) {
        double x = grid.x(column);
        double y = grid.y(row);
        double ground = grid.cell(column, row);
        SightLine sight = SightLine.plane(grid);
        return plan.flight().exposures().stream()
                .filter(photo -> new View(photo.lens(), photo.pose())
                        .of(x, y, ground)
                        .filter(View.Sighting::inFrame)
                        .isPresent())
                .filter(photo -> sight.clear(
                        x,
                        y,
                        ground,
                        photo.pose().eastM(),
                        photo.pose().northM(),
                        photo.pose().upM()))
                .toList();
    }

    /**
     * What a positioning mode leaves in a camera's position from photo to photo, and what all photos share. Half of each, in
     * quadrature (common practice); control points take the shared part out.
     */
    public static Noise noise(Positioning mode) {
        double own = Math.sqrt(0.5);
        boolean controlled = mode == Positioning.CONTROL;
        return Noise.of(
                Noise.USUAL_IMAGE_PX,
                mode.horizontalM() * own,
                mode.verticalM() * own,
                controlled ? 0 : mode.horizontalM() * own,
                controlled ? 0 : mode.verticalM() * own);
    }
}

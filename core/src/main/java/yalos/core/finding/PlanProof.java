package yalos.core.finding;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import yalos.core.brief.Brief;
import yalos.core.camera.Camera;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.Station;
import yalos.core.height.HeightPlan;
import yalos.core.kit.Positioning;
import yalos.core.pattern.StripLayout;
import yalos.core.pattern.StripPattern;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Noise;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/** Holds a plan against its real ground: the stations as photos, the ground in cells of a size, and what is asked of them. */
public final class PlanProof {
    private static final double OBLIQUE_PITCH = Math.toRadians(-60);

    private final BlockPlan plan;
    private final Optional<HeightPlan> heights;
    private final HeightGrid ground;

    private PlanProof(BlockPlan plan, double cellM) {
        this.plan = plan;
        this.heights = plan.heights();
        this.ground = heights.map(known -> known.grid().resampled(cellM)).orElseGet(() -> level(plan, cellM));
    }

    /** Level ground under the block and one cell round it. */
    private static HeightGrid level(BlockPlan plan, double cellM) {
        double[] bounds = plan.block().bounds();
        return HeightGrid.level(
                bounds[0] - cellM,
                bounds[3] + cellM,
                cellM,
                (int) Math.ceil((bounds[1] - bounds[0]) / cellM) + 2,
                (int) Math.ceil((bounds[3] - bounds[2]) / cellM) + 2,
                0);
    }

    /** A plan in cells of the given size; over level ground where it has no heights. */
    public static PlanProof of(BlockPlan plan, double cellM) {
        return new PlanProof(plan, cellM);
    }

    /** The photos alone, counted. */
    GroundProof counted() {
        return proved(Noise.ofImage(Noise.USUAL_IMAGE_PX), EnumSet.noneOf(GroundProof.Layer.class), share -> true);
    }

    /** Everything, with the accuracy that a positioning mode is good for. */
    public GroundProof whole(Positioning mode, GroundProof.Watcher watcher) {
        return proved(noise(mode), EnumSet.allOf(GroundProof.Layer.class), watcher);
    }

    private boolean[] asked() {
        return plan.block()
                .inside(ground.west(), ground.north(), ground.cellX(), ground.cellY(), ground.columns(), ground.rows());
    }

    private GroundProof proved(Noise noise, Set<GroundProof.Layer> layers, GroundProof.Watcher watcher) {
        return GroundProof.of(ground, asked(), Lens.of(plan.request().camera()), photos(plan), noise, layers, watcher);
    }

    /** What the brief and the pins ask of every cell, and whether it is given. */
    public Judgement judged(GroundProof proof, Brief brief) {
        return new Judgement(
                proof,
                new Judgement.Asked(plan.leastPhotos(), plan.briefGsdM(), brief.verticalM()),
                plan.design().scale().gsdM());
    }

    /**
     * What oblique strips across the planned ones would give.
     *
     * @param share of the block then given enough, 0..1
     * @param minutes more to fly
     */
    public record Gain(double share, double minutes) {}

    /**
     * Strips square to the planned ones, half as dense, the camera tilted 30° from straight down towards where the aircraft goes
     * and back: they look into steep sides that the planned ones cannot see. Judged like the plan itself.
     */
    public Gain withObliques(Brief brief, GroundProof.Watcher watcher) {
        StripPattern usual = plan.pattern();
        StripPattern crossing = new StripPattern(
                usual.spacingM() * 2,
                usual.baseM() * 2,
                usual.heightM(),
                usual.speedMps(),
                usual.aircraft(),
                usual.launch());
        StripLayout layout =
                StripLayout.of(plan.flown(), crossing, (plan.layout().directionRad() + Math.PI / 2) % Math.PI);
        Camera camera = plan.request().camera();
        List<GroundProof.Photo> all = new ArrayList<>(photos(plan));
        int strips = plan.layout().strips().size();
        for (Station station : layout.stations()) {
            double below = heights.map(known -> known.grid().at(station.xM(), station.yM()))
                    .orElse(0.0);
            if (!Double.isNaN(below)) {
                double up = below + plan.design().scale().heightM();
                double yaw = camera.imageYawRad(station.yawRad());
                for (double turn : new double[] {0, Math.PI}) {
                    all.add(new GroundProof.Photo(
                            new Pose(station.xM(), station.yM(), up, yaw + turn, OBLIQUE_PITCH, 0),
                            strips + station.strip()));
                }
            }
        }
        GroundProof proof = GroundProof.of(
                ground,
                asked(),
                Lens.of(camera),
                all,
                noise(brief.positioning()),
                EnumSet.allOf(GroundProof.Layer.class),
                watcher);
        return new Gain(judged(proof, brief).share(), 2 * layout.flightTimeS() / 60);
    }

    /** The stations as photos, at their heights above the geoid; above the ground where that is level. */
    private static List<GroundProof.Photo> photos(BlockPlan plan) {
        Camera camera = plan.request().camera();
        Optional<HeightPlan> heights = plan.heights();
        List<GroundProof.Photo> photos = new ArrayList<>();
        List<Station> stations = plan.layout().stations();
        for (int i = 0; i < stations.size(); i++) {
            Station station = stations.get(i);
            photos.add(new GroundProof.Photo(
                    new Pose(
                            station.xM(),
                            station.yM(),
                            heights.isPresent() ? heights.get().stationM(i) : station.heightM(),
                            camera.imageYawRad(station.yawRad()),
                            station.pitchRad(),
                            0),
                    station.strip()));
        }
        return photos;
    }

    /** The photos of a plan that see a cell of the ground it was proved over. */
    public static List<GroundProof.Photo> seeing(BlockPlan plan, HeightGrid grid, int column, int row) {
        double x = grid.x(column);
        double y = grid.y(row);
        double ground = grid.cell(column, row);
        Lens lens = Lens.of(plan.request().camera());
        SightLine sight = SightLine.plane(grid);
        return photos(plan).stream()
                .filter(photo -> new View(lens, photo.pose())
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

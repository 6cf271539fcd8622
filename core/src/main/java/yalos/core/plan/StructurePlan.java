package yalos.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleBinaryOperator;
import java.util.function.Predicate;
import java.util.stream.DoubleStream;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Flight;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.AirWays;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.pins.Defaults;
import yalos.core.pins.Quantity;
import yalos.core.proof.FaceProof;
import yalos.core.proof.StructureProof;
import yalos.core.proof.SurfaceProof;
import yalos.core.site.Detour;
import yalos.core.site.SiteMap;
import yalos.core.site.Structure;
import yalos.core.site.Structure.Built;
import yalos.core.surface.Box;
import yalos.core.surface.Occluder;
import yalos.core.surface.PrismFace;
import yalos.core.surface.TerrainOccluder;
import yalos.core.units.Measure;

/**
 * Objects of a block laid on its ground, and what is flown round them.
 *
 * @param wanted as the operator decided
 * @param built solids of all objects that stand on known ground
 * @param faults why an object is not among them
 * @param flown the whole flight with its passes round objects; empty where there are none, or no ground for them
 * @param scene what stands round the passes
 * @param ways through the air between the objects
 */
public record StructurePlan(
        Structures wanted,
        List<Built> built,
        List<InputFault> faults,
        Optional<StructureFlight> flown,
        StructurePass.Scene scene,
        AirWays ways) {
    /** Around a way something stands within this. */
    private static final double STANDING_M = 5;

    /** Empty where the block has no objects and no passes round any. */
    static Optional<StructurePlan> of(BlockPlan plan) {
        Structures wanted = plan.request().patterns().structures();
        return wanted.objects().isEmpty() && !wanted.flown()
                ? Optional.empty()
                : Optional.of(new Making(plan, wanted).made());
    }

    /** Whether nothing is flown over the ground. */
    public boolean alone() {
        return wanted.alone() && flown.isPresent();
    }

    /**
     * What is flown round objects once more with only some of its photos, after another flight.
     *
     * @param ground what is flown over the ground before
     * @return nothing where nothing is flown round objects
     */
    Optional<Flight> again(Optional<Flight> ground, Pace pace, Predicate<Exposure> kept) {
        Optional<Flight> before = ground.filter(one -> !one.exposures().isEmpty());
        return flown.map(one -> one.again(scene, before, pace, ways, kept));
    }

    /** The highest top of all objects with what is kept clear of it, in the height system of the ground; empty where none stands. */
    public OptionalDouble clearOverM() {
        double clear = wanted.clear().si();
        return built.stream().mapToDouble(one -> one.solid().topM() + clear).max();
    }

    /** The passes round objects; none where they are not flown. */
    public List<StructureFlight.OfPass> passes() {
        return flown.map(StructureFlight::passes).orElse(List.of());
    }

    /** What became of the pass with a number in the flight; empty where that is one over the ground. */
    public Optional<StructureFlight.OfPass> pass(int number) {
        return passes().stream().filter(one -> one.number() == number).findFirst();
    }

    /**
     * What the faces of a plan's objects are given by its flight; empty without objects.
     *
     * @param brief accuracy that it asks for; a pinned one counts instead, and the stricter of positions and heights holds for faces
     * @param cells into which all faces are cut, about
     */
    public static Optional<StructureProof> faces(
            BlockPlan plan, PlanProof.Accuracy brief, int cells, SurfaceProof.Watcher watcher) {
        PlanProof.Accuracy asked = PlanProof.asked(plan, brief);
        OptionalDouble sigma = DoubleStream.concat(asked.positionM().stream(), asked.heightM().stream())
                .min();
        return plan.structures().map(objects -> objects.proved(plan, cells, sigma, watcher));
    }

    private StructureProof proved(BlockPlan plan, int cells, OptionalDouble sigmaM, SurfaceProof.Watcher watcher) {
        return StructureProof.of(
                built,
                plan.flight().exposures(),
                terrain(plan),
                scene.ground(),
                object -> new FaceProof.Asked(plan.leastPhotos(), gsdM(plan, object), sigmaM, wanted.oneView()),
                PlanProof.noise(plan.request().able()),
                StructureProof.cellM(built, cells),
                watcher);
    }

    private static Occluder terrain(BlockPlan plan) {
        return plan.overGround()
                .map(over -> (Occluder) new TerrainOccluder(over.grid()))
                .orElse(Occluder.NONE);
    }

    /**
     * The photos of a plan that see a place of a face, as its proof counts them.
     *
     * @param plan that has these objects
     * @param place east, north, up in the block's plane
     */
    public List<Exposure> seeing(BlockPlan plan, PrismFace face, double[] place) {
        Box here = new Box(place[0], place[0], place[1], place[1], place[2], place[2]);
        Occluder standing = StructureProof.standing(built, terrain(plan));
        double[] normal = new double[3];
        face.normal(0, 0, normal);
        return plan.flight().exposures().stream()
                .filter(photo -> {
                    Pose eye = photo.pose();
                    double before = (eye.eastM() - place[0]) * normal[0]
                            + (eye.northM() - place[1]) * normal[1]
                            + (eye.upM() - place[2]) * normal[2];
                    return before > 0
                            && new View(photo.lens(), eye)
                                    .of(place[0], place[1], place[2])
                                    .filter(View.Sighting::inFrame)
                                    .isPresent()
                            && standing.towards(here, eye.eastM(), eye.northM(), eye.upM())
                                    .clear(place[0], place[1], place[2]);
                })
                .toList();
    }

    /** The GSD that an object's faces are judged by: the finest pinned in a pass round it, else that of the plan. */
    private OptionalDouble gsdM(BlockPlan plan, String object) {
        OptionalDouble pinned = wanted.passes().stream()
                .filter(pass -> pass.object().filter(object::equals).isPresent())
                .flatMap(pass -> off(pass).stream())
                .flatMap(off -> off.gsd().stream())
                .mapToDouble(Measure::si)
                .min();
        return pinned.isPresent() ? pinned : plan.askedGsdM();
    }

    private static Optional<StandOff> off(StructurePass pass) {
        if (pass instanceof Facade facade) {
            return Optional.of(facade.off());
        }
        if (pass instanceof Rings rings) {
            return Optional.of(rings.off());
        }
        return pass instanceof UnderDeck under ? Optional.of(under.off()) : Optional.empty();
    }

    /** Lays objects on the ground and flies round them. */
    private static final class Making {
        private final BlockPlan plan;
        private final Structures wanted;
        private final DoubleBinaryOperator ground;
        private final Optional<SiteMap> site;
        private final List<Built> built = new ArrayList<>();
        private final List<InputFault> faults = new ArrayList<>();

        Making(BlockPlan plan, Structures wanted) {
            this.plan = plan;
            this.wanted = wanted;
            this.site = plan.request()
                    .ground()
                    .map(real -> new SiteMap(plan.block().plane(), real.obstacles(), real.zones()));
            this.ground = plan.overGround()
                    .map(KnownGround::grid)
                    .map(grid -> (DoubleBinaryOperator) grid::at)
                    .orElse((x, y) -> 0);
        }

        StructurePlan made() {
            boolean level = plan.overGround().isEmpty();
            for (Structure one : wanted.objects()) {
                try {
                    boolean absolute = one.parts().stream().anyMatch(part -> part.counted() == Structure.Counted.GEOID);
                    if (level && absolute) {
                        throw new InputFault(
                                "ground",
                                one.name(),
                                "Heights of “%s” count from the geoid, and no model tells where the ground is. Add a model on Ground, or count them from the ground."
                                        .formatted(one.name()));
                    }
                    built.addAll(one.built(plan.block().plane(), ground));
                } catch (InputFault fault) {
                    faults.add(fault);
                }
            }
            StructurePass.Scene scene = scene();
            AirWays ways = ways();
            Optional<StructureFlight> flown = wanted.flown() ? Optional.of(flown(scene, ways)) : Optional.empty();
            return new StructurePlan(wanted, List.copyOf(built), List.copyOf(faults), flown, scene, ways);
        }

        /** Beyond the block's own grid the model itself is asked. */
        private double farGroundM(double x, double y) {
            double near = ground.applyAsDouble(x, y);
            return Double.isNaN(near)
                    ? plan.request()
                            .ground()
                            .map(real ->
                                    real.source().heightM(plan.block().plane().toLonLat(x, y)))
                            .orElse(near)
                    : near;
        }

        private double standingM(double x, double y) {
            return site.map(map -> map.obstacleM(
                            x, y, Math.max(STANDING_M, wanted.clear().si())))
                    .orElse(0.0);
        }

        private StructurePass.Scene scene() {
            StructurePass.Limits limits = new StructurePass.Limits(
                    plan.request().pins().siOr(Quantity.BLUR, Defaults.BLUR_PX),
                    plan.design().shutterTimeS(),
                    plan.request().kit().payload().slowestIntervalS());
            return new StructurePass.Scene(
                    plan.block(),
                    plan.request().camera(),
                    plan.request().aircraft(),
                    limits,
                    ground,
                    this::standingM,
                    List.copyOf(built),
                    wanted.clear().si());
        }

        private AirWays ways() {
            Detour zones = plan.request()
                    .ground()
                    .map(real -> Detour.of(plan.block().plane(), real.zones(), plan.ceilingM()))
                    .orElse(Detour.NONE);
            return new AirWays(
                    built.stream().map(Built::solid).toList(),
                    this::farGroundM,
                    this::standingM,
                    zones,
                    wanted.clear().si());
        }

        private StructureFlight flown(StructurePass.Scene scene, AirWays ways) {
            double takeOffM = plan.takeOffM();
            Optional<PlanePoint> launch =
                    Double.isNaN(takeOffM) ? Optional.empty() : plan.flight().launch();
            Optional<Flight> before =
                    wanted.alone() || plan.flight().exposures().isEmpty()
                            ? Optional.empty()
                            : Optional.of(plan.flight());
            return StructureFlight.of(
                    wanted,
                    scene,
                    before,
                    plan.passes().passes().size(),
                    plan.timeline().pace(),
                    launch,
                    takeOffM,
                    ways);
        }
    }
}

package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.Bounds;
import yalos.core.kit.Positioning;
import yalos.core.network.ExpectedAccuracy;
import yalos.core.network.JointCovariance;
import yalos.core.network.Network;
import yalos.core.network.Network.Axes;
import yalos.core.network.Network.GroundPoint;
import yalos.core.network.Network.Kind;
import yalos.core.network.Network.Sight;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Noise;
import yalos.core.terrain.SightLine;

/**
 * The network of a plan: its photos, tie points spread over the ground as densely as matching finds them, and places of which the accuracy is asked. Ground hides what lies behind it.
 *
 * <p>KNOWN LIMITS: the lens of the leading camera for all photos, without distortion; tie points on a regular grid; what stands on the ground hides nothing.
 */
public final class BlockNetwork {
    /** More photos are not adjusted together here. */
    public static final int MOST_PHOTOS = 5000;

    private static final int MOST_TIES = 15_000;
    /** A mark is above the ground by a hair, so that the ground at its own foot does not hide it. */
    private static final double ABOVE_M = 0.05;

    private static final double ANGLE_RAD = Math.toRadians(5);
    /** Before it is solved with the photos the lens is known to 1 % of its focal length, 0.3 % of its width, 0.01 of radial term (from memory). */
    private static final double FOCAL = 0.01;

    private static final double PRINCIPAL = 0.003;
    private static final double RADIAL = 0.01;

    private final List<Exposure> exposures;
    private final List<View> views;
    private final Bounds[] reach;
    private final Optional<SightLine> sight;
    private final List<GroundPoint> points = new ArrayList<>();
    private final List<Sight> sights = new ArrayList<>();
    private final int[] asked;
    private final Network network;

    private BlockNetwork(BlockPlan plan, Assumptions assumptions, Positioning mode, List<MarkedPlace> places) {
        exposures = plan.flight().exposures();
        if (plan.heightsUnknown()) {
            throw new InputFault(
                    "ground", "unknown", "Nobody knows how high this is flown; see the findings of Ground.");
        }
        if (exposures.size() < 2 || exposures.size() > MOST_PHOTOS) {
            throw new InputFault("photos", exposures.size(), tooMany(exposures.size()));
        }
        views = exposures.stream()
                .map(photo -> new View(photo.lens(), photo.pose()))
                .toList();
        sight = plan.overGround().map(known -> SightLine.forManyRays(known.grid()));
        double lowest =
                plan.overGround().map(known -> known.grid().range().least()).orElse(0.0);
        reach = views.stream().map(view -> Bounds.of(view.footprint(lowest))).toArray(Bounds[]::new);
        ties(plan, assumptions);
        asked = new int[places.size()];
        for (int i = 0; i < asked.length; i++) {
            asked[i] = add(Kind.CHECK, places.get(i)) ? points.size() - 1 : -1;
        }
        Lens lens = exposures.get(0).lens();
        List<Pose> photos = exposures.stream().map(Exposure::pose).toList();
        network =
                new Network(lens.fx(), sigmas(assumptions, mode, lens), assumptions.freeLens(), photos, points, sights);
    }

    /**
     * @param mode how the positions of the photos are known, as far as the aircraft has it
     * @param places of which the accuracy is asked
     * @throws InputFault for a plan without known heights, or with too few or too many photos
     */
    static BlockNetwork of(BlockPlan plan, Assumptions assumptions, Positioning mode, List<MarkedPlace> places) {
        return new BlockNetwork(plan, assumptions, mode, places);
    }

    /** What is said of a block with more or fewer photos than are adjusted together. */
    public static String tooMany(int photos) {
        return "%,d photos: accuracy is foretold for 2 to %,d. Split the block; points can be set all the same."
                .formatted(photos, MOST_PHOTOS);
    }

    Network network() {
        return network;
    }

    /** About what adjusting so many photos takes, in bytes. */
    public static long bytes(BlockPlan plan) {
        return 60_000_000L + 300_000L * plan.photos();
    }

    /** Which of the places are seen by two photos or more: places asked for, by their index. */
    List<Integer> seen() {
        List<Integer> seen = new ArrayList<>();
        for (int i = 0; i < asked.length; i++) {
            if (asked[i] >= 0) {
                seen.add(i);
            }
        }
        return seen;
    }

    /** What is known of those that are seen, in that order. */
    JointCovariance joint() {
        return ExpectedAccuracy.joint(
                network, seen().stream().mapToInt(i -> asked[i]).toArray());
    }

    private static Network.Sigmas sigmas(Assumptions assumptions, Positioning mode, Lens lens) {
        Noise noise = PlanProof.noise(mode == Positioning.CONTROL ? Positioning.SINGLE : mode);
        return new Network.Sigmas(
                assumptions.imagePx(),
                assumptions.imagePx(),
                new Axes(noise.eastM(), noise.northM(), noise.verticalM()),
                new Axes(noise.sharedHorizontalM(), noise.sharedHorizontalM(), noise.sharedVerticalM()),
                ANGLE_RAD,
                FOCAL * lens.fx(),
                PRINCIPAL * lens.width(),
                PRINCIPAL * lens.width(),
                RADIAL);
    }

    /** Tie points on a square grid under all photos, so dense that a photo holds as many as are found in it. */
    private void ties(BlockPlan plan, Assumptions assumptions) {
        double within = usual(plan);
        Bounds field = plan.block().bounds().widened(Math.sqrt(within));
        double step = Math.max(
                Math.sqrt(within / assumptions.tiesPerPhoto()), Math.sqrt(field.width() * field.height() / MOST_TIES));
        for (double x = field.west() + step / 2; x < field.east(); x += step) {
            Patience.check();
            for (double y = field.south() + step / 2; y < field.north(); y += step) {
                add(Kind.TIE, MarkedPlace.on(plan, x, y));
            }
        }
    }

    /** Ground that a photo of the plan shows where it looks straight down, in square metres. */
    private static double usual(BlockPlan plan) {
        Lens lens = plan.flight().exposures().get(0).lens();
        double gsd = plan.design().scale().gsdM();
        return gsd * gsd * lens.width() * lens.height();
    }

    /** Adds a point where two photos see it. */
    private boolean add(Kind kind, MarkedPlace at) {
        if (!Double.isFinite(at.upM())) {
            return false;
        }
        int index = points.size();
        int before = sights.size();
        for (int i = 0; i < views.size(); i++) {
            if (reach[i].contains(at.xM(), at.yM()) && sees(i, at)) {
                sights.add(new Sight(i, index));
            }
        }
        if (sights.size() - before < 2) {
            sights.subList(before, sights.size()).clear();
            return false;
        }
        points.add(new GroundPoint(kind, at.xM(), at.yM(), at.upM(), Optional.empty()));
        return true;
    }

    private boolean sees(int photo, MarkedPlace at) {
        Pose pose = exposures.get(photo).pose();
        return views.get(photo)
                        .of(at.xM(), at.yM(), at.upM())
                        .filter(View.Sighting::inFrame)
                        .isPresent()
                && sight.map(clear -> clear.clear(
                                at.xM(), at.yM(), at.upM() + ABOVE_M, pose.eastM(), pose.northM(), pose.upM()))
                        .orElse(true);
    }
}

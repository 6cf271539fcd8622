package yalos.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import org.ejml.dense.row.RandomMatrices_DDRM;
import yalos.core.camera.Pose;
import yalos.core.network.ExpectedAccuracy;
import yalos.core.network.JointCovariance;
import yalos.core.network.Network;
import yalos.core.network.Network.Axes;
import yalos.core.network.Network.GroundPoint;
import yalos.core.network.Network.Kind;
import yalos.core.network.Network.Sight;

/**
 * What it takes to know how accurate a block will be.
 *
 * @param smallMs of 200 photos and 600 points; the best of three
 * @param denseMs of inverting a matrix of as many unknowns whole, by the linear algebra library
 * @param largeMs of 1,500 photos and 4,000 points
 * @param layoutsMs of twenty layouts of control on the 200 photos: adjusted once, each layout conditioned
 * @param eachMs of the same when each layout is adjusted by itself; three of them, taken for twenty
 */
record NetworkBench(double smallMs, double denseMs, double largeMs, double layoutsMs, double eachMs) {
    private static final int LAYOUTS = 20;
    private static final int TRIED = 3;
    private static final double FOCAL_PX = 3745;
    private static final double HALF_ACROSS_M = 75 * 2640 / FOCAL_PX;
    private static final double HALF_ALONG_M = 75 * 1978 / FOCAL_PX;

    static NetworkBench measure() {
        Network small = block(10, 20, 600);
        double best = Double.POSITIVE_INFINITY;
        for (int i = 0; i < 3; i++) {
            best = Math.min(best, ms(() -> ExpectedAccuracy.of(small)));
        }
        int unknowns = 6 * small.photos().size() + 7 + 3 * small.points().size();
        DMatrixRMaj whole = RandomMatrices_DDRM.symmetricPosDef(unknowns, new Random(1));
        double dense = ms(() -> CommonOps_DDRM.invert(whole));
        Network large = block(30, 50, 4000);
        double layouts = ms(() -> conditioned(small));
        double each = ms(() -> {
            for (int i = 0; i < TRIED; i++) {
                ExpectedAccuracy.of(small);
            }
        });
        return new NetworkBench(best, dense, ms(() -> ExpectedAccuracy.of(large)), layouts, each * LAYOUTS / TRIED);
    }

    /** Twenty layouts of five points each, out of a hundred places of which the accuracy is asked. */
    private static void conditioned(Network network) {
        JointCovariance free =
                ExpectedAccuracy.joint(network, IntStream.range(0, 100).toArray());
        for (int i = 0; i < LAYOUTS; i++) {
            Map<Integer, Axes> control = new HashMap<>();
            for (int k = 0; k < 5; k++) {
                control.put((7 * i + 19 * k) % 100, new Axes(0.015, 0.015, 0.025));
            }
            free.measured(control).of(50);
        }
    }

    private static double ms(Runnable work) {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e6;
    }

    private static Network block(int strips, int photos, int count) {
        List<Pose> poses = new ArrayList<>();
        for (int strip = 0; strip < strips; strip++) {
            for (int i = 0; i < photos; i++) {
                int along = strip % 2 == 0 ? i : photos - 1 - i;
                poses.add(Pose.vertical(along * 16, strip * 32, 75, strip % 2 == 0 ? Math.PI / 2 : -Math.PI / 2));
            }
        }
        Random random = new Random(1);
        List<GroundPoint> points = new ArrayList<>();
        List<Sight> sights = new ArrayList<>();
        for (int point = 0; point < count; point++) {
            double east = random.nextDouble() * photos * 16;
            double north = random.nextDouble() * strips * 32;
            points.add(new GroundPoint(Kind.TIE, east, north, 0, Optional.empty()));
            for (int photo = 0; photo < poses.size(); photo++) {
                if (Math.abs(poses.get(photo).eastM() - east) < HALF_ALONG_M
                        && Math.abs(poses.get(photo).northM() - north) < HALF_ACROSS_M) {
                    sights.add(new Sight(photo, point));
                }
            }
        }
        Network.Sigmas sigmas = new Network.Sigmas(
                0.5, 0.5, new Axes(0.02, 0.02, 0.04), new Axes(0.03, 0.03, 0.05), Math.toRadians(5), 5, 3, 3, 0.001);
        return new Network(FOCAL_PX, sigmas, true, poses, points, sights);
    }
}

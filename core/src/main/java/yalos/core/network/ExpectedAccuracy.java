package yalos.core.network;

import java.util.ArrayList;
import java.util.List;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;

/**
 * How well a block will know each of its points: the covariance of a least-squares bundle adjustment, linearised at the plan. Unknown are each photo's position and three
 * small rotations, each point, one shift shared by all logged positions, and with self-calibration the lens. Points are eliminated one by one. What is left hangs together along the
 * strips; of its inverse only what points ask for is made ({@link Skyline}). Time grows with the photos, times the square of how many a photo shares points with.
 *
 * <p>KNOWN LIMITS: linear, so right where errors are small against distances; gross errors and matching on poor surfaces are no part of it.
 */
public final class ExpectedAccuracy {
    private static final int OF_PHOTO = 6;
    /** A point known no better than to ten kilometres is not known. */
    private static final double LOST_M2 = 1e8;

    private static final double LEAST_DIAGONAL = 1e-12;

    private final Network network;
    private final int photoUnknowns;
    /** Column of each lens parameter and of each axis of the common shift; below 0 for those that are known. */
    private final int[] lensAt = {-1, -1, -1, -1};

    private final int[] commonAt = {-1, -1, -1};
    private final int unknowns;
    private final List<Elimination> points = new ArrayList<>();

    private ExpectedAccuracy(Network given) {
        this.network = Ordering.narrow(given);
        this.photoUnknowns = OF_PHOTO * network.photos().size();
        int next = photoUnknowns;
        Network.Sigmas sigmas = network.sigmas();
        double[] lens = sigmas.lens();
        for (int i = 0; i < 4; i++) {
            lensAt[i] = network.selfCalibration() && lens[i] > 0 ? next++ : -1;
        }
        for (int axis = 0; axis < 3; axis++) {
            commonAt[axis] = sigmas.common().of(axis) > 0 ? next++ : -1;
        }
        this.unknowns = next;
    }

    /**
     * What is known of a point after the adjustment, in square metres.
     */
    public record Covariance(double ee, double en, double eu, double nn, double nu, double uu) {
        public double sigmaEastM() {
            return Math.sqrt(ee);
        }

        public double sigmaNorthM() {
            return Math.sqrt(nn);
        }

        public double sigmaUpM() {
            return Math.sqrt(uu);
        }
    }

    /**
     * The covariance of each point, in the network's order.
     *
     * @throws InputFault for a network in which something cannot be determined at all
     */
    public static List<Covariance> of(Network network) {
        return new ExpectedAccuracy(network).covariances();
    }

    /** About how much memory it takes, in bytes. */
    public static long bytes(Network network) {
        ExpectedAccuracy accuracy = new ExpectedAccuracy(network);
        return 4 * accuracy.skyline(accuracy.photosOf()).bytes()
                + 2_000L * network.sights().size();
    }

    /**
     * A point's own 3 × 3 system, inverted, and how it hangs on the others.
     *
     * @param inverse of its normal matrix
     * @param columns of the reduced system that it touches
     * @param coupling normal matrix between those columns and the point
     */
    private record Elimination(DMatrixRMaj inverse, int[] columns, DMatrixRMaj coupling) {}

    /**
     * What is known of some points together. Memory grows with their number times that of the photos.
     *
     * @param wanted points, by their index
     * @throws InputFault for a network in which something cannot be determined at all
     */
    public static JointCovariance joint(Network network, int[] wanted) {
        return new ExpectedAccuracy(network).joint(wanted);
    }

    private JointCovariance joint(int[] wanted) {
        Skyline.Factor factor = reduced().factor().orElseThrow(ExpectedAccuracy::undetermined);
        int width = 3 * wanted.length;
        double[] sides = new double[unknowns * width];
        for (int i = 0; i < wanted.length; i++) {
            Elimination point = points.get(wanted[i]);
            for (int k = 0; k < point.columns().length; k++) {
                for (int axis = 0; axis < 3; axis++) {
                    sides[point.columns()[k] * width + 3 * i + axis] +=
                            point.coupling().get(k, axis);
                }
            }
        }
        factor.half(sides, width);
        DMatrixRMaj all = new DMatrixRMaj(width, width);
        for (int i = 0; i < wanted.length; i++) {
            CommonOps_DDRM.insert(points.get(wanted[i]).inverse(), all, 3 * i, 3 * i);
        }
        for (int row = 0; row < unknowns; row++) {
            Patience.check();
            for (int i = 0; i < width; i++) {
                double times = sides[row * width + i];
                if (times != 0) {
                    for (int j = 0; j < width; j++) {
                        all.data[i * width + j] += times * sides[row * width + j];
                    }
                }
            }
        }
        for (int i = 0; i < width; i++) {
            if (!(all.get(i, i) > 0 && all.get(i, i) < LOST_M2)) {
                throw undetermined();
            }
        }
        return new JointCovariance(all);
    }

    /** The system that is left when every point is eliminated; fills {@link #points}. */
    private Skyline reduced() {
        List<List<Integer>> photosOf = photosOf();
        Skyline reduced = skyline(photosOf).laid();
        priors(reduced);
        for (int i = 0; i < network.points().size(); i++) {
            Patience.check();
            points.add(eliminated(i, photosOf.get(i), reduced));
        }
        return reduced;
    }

    private List<Covariance> covariances() {
        Skyline inverse = reduced().inverse().orElseThrow(ExpectedAccuracy::undetermined);
        List<Covariance> found =
                points.stream().map(point -> covariance(point, inverse)).toList();
        boolean sound = found.stream()
                .allMatch(one ->
                        one.ee() > 0 && one.nn() > 0 && one.uu() > 0 && one.ee() + one.nn() + one.uu() < LOST_M2);
        if (!sound) {
            throw undetermined();
        }
        return found;
    }

    private List<List<Integer>> photosOf() {
        List<List<Integer>> photosOf = new ArrayList<>();
        network.points().forEach(point -> photosOf.add(new ArrayList<>()));
        network.sights().forEach(sight -> photosOf.get(sight.point()).add(sight.photo()));
        return photosOf;
    }

    /** Photos hang on those that share a point with them; the lens and the common shift on all. */
    private Skyline skyline(List<List<Integer>> photosOf) {
        int[] first = new int[unknowns];
        for (int row = 0; row < photoUnknowns; row++) {
            first[row] = OF_PHOTO * (row / OF_PHOTO);
        }
        for (List<Integer> photos : photosOf) {
            int least =
                    OF_PHOTO * photos.stream().mapToInt(Integer::intValue).min().orElse(0);
            for (int photo : photos) {
                for (int k = 0; k < OF_PHOTO; k++) {
                    first[OF_PHOTO * photo + k] = Math.min(first[OF_PHOTO * photo + k], least);
                }
            }
        }
        return new Skyline(first);
    }

    private void priors(Skyline reduced) {
        Network.Sigmas sigmas = network.sigmas();
        double angle = 1 / (sigmas.angleRad() * sigmas.angleRad());
        for (int axis = 0; axis < 3; axis++) {
            double logged = 1 / (sigmas.position().of(axis) * sigmas.position().of(axis));
            for (int photo = 0; photo < network.photos().size(); photo++) {
                int at = OF_PHOTO * photo + axis;
                reduced.add(at, at, logged);
                reduced.add(at + 3, at + 3, angle);
                if (commonAt[axis] >= 0) {
                    reduced.add(commonAt[axis], at, logged);
                    reduced.add(commonAt[axis], commonAt[axis], logged);
                }
            }
            if (commonAt[axis] >= 0) {
                reduced.add(
                        commonAt[axis],
                        commonAt[axis],
                        1 / (sigmas.common().of(axis) * sigmas.common().of(axis)));
            }
        }
        double[] lens = sigmas.lens();
        for (int i = 0; i < 4; i++) {
            if (lensAt[i] >= 0) {
                reduced.add(lensAt[i], lensAt[i], 1 / (lens[i] * lens[i]));
            }
        }
    }

    /** Adds what a point's observations say of photos and lens, less what the point takes for itself. */
    private Elimination eliminated(int index, List<Integer> photos, Skyline reduced) {
        Network.GroundPoint point = network.points().get(index);
        int border = unknowns - photoUnknowns;
        int[] columns = new int[OF_PHOTO * photos.size() + border];
        for (int i = 0; i < photos.size(); i++) {
            for (int k = 0; k < OF_PHOTO; k++) {
                columns[OF_PHOTO * i + k] = OF_PHOTO * photos.get(i) + k;
            }
        }
        for (int k = 0; k < border; k++) {
            columns[OF_PHOTO * photos.size() + k] = photoUnknowns + k;
        }
        DMatrixRMaj own = new DMatrixRMaj(3, 3);
        DMatrixRMaj coupling = new DMatrixRMaj(columns.length, 3);
        double weight = 1 / Math.pow(network.sigmas().imagePx(point.kind()), 2);
        for (int i = 0; i < photos.size(); i++) {
            int photo = photos.get(i);
            Sighted sighted = Sighted.of(network.photos().get(photo), point, network.focalPx())
                    .orElseThrow(() -> new InputFault(
                            "observations",
                            photo + " " + index,
                            "A point lies behind the photo that is said to show it."));
            for (int row = 0; row < 2; row++) {
                observe(sighted, row, weight, i, photo, photos.size(), own, coupling, reduced);
            }
        }
        point.sigma().ifPresent(sigma -> {
            for (int axis = 0; axis < 3; axis++) {
                own.add(axis, axis, 1 / (sigma.of(axis) * sigma.of(axis)));
            }
        });
        DMatrixRMaj inverse = new DMatrixRMaj(3, 3);
        boolean determined = own.get(0, 0) > LEAST_DIAGONAL && CommonOps_DDRM.invert(own, inverse);
        if (!determined || !(inverse.get(0, 0) > 0 && inverse.get(1, 1) > 0 && inverse.get(2, 2) > 0)) {
            throw new InputFault(
                    "points",
                    index,
                    "Point %d cannot be determined: it is seen by %d %s, and needs two from different places."
                            .formatted(index + 1, photos.size(), photos.size() == 1 ? "photo" : "photos"));
        }
        DMatrixRMaj through = new DMatrixRMaj(columns.length, 3);
        CommonOps_DDRM.mult(coupling, inverse, through);
        for (int a = 0; a < columns.length; a++) {
            for (int b = 0; b < columns.length; b++) {
                double taken = through.get(a, 0) * coupling.get(b, 0)
                        + through.get(a, 1) * coupling.get(b, 1)
                        + through.get(a, 2) * coupling.get(b, 2);
                reduced.add(columns[a], columns[b], -taken);
            }
        }
        return new Elimination(inverse, columns, through);
    }

    private void observe(
            Sighted sighted,
            int row,
            double weight,
            int at,
            int photo,
            int photos,
            DMatrixRMaj own,
            DMatrixRMaj coupling,
            Skyline reduced) {
        int[] columns = new int[OF_PHOTO + 4];
        int[] local = new int[OF_PHOTO + 4];
        double[] by = new double[OF_PHOTO + 4];
        int count = 0;
        for (int k = 0; k < OF_PHOTO; k++) {
            columns[count] = OF_PHOTO * photo + k;
            local[count] = OF_PHOTO * at + k;
            by[count++] = sighted.photo()[row][k];
        }
        for (int k = 0; k < 4; k++) {
            if (lensAt[k] >= 0) {
                columns[count] = lensAt[k];
                local[count] = OF_PHOTO * photos + lensAt[k] - photoUnknowns;
                by[count++] = sighted.lens()[row][k];
            }
        }
        for (int a = 0; a < count; a++) {
            for (int b = 0; b < count; b++) {
                reduced.add(columns[a], columns[b], weight * by[a] * by[b]);
            }
            for (int axis = 0; axis < 3; axis++) {
                coupling.add(local[a], axis, weight * by[a] * sighted.point()[row][axis]);
            }
        }
        for (int a = 0; a < 3; a++) {
            for (int b = 0; b < 3; b++) {
                own.add(a, b, weight * sighted.point()[row][a] * sighted.point()[row][b]);
            }
        }
    }

    private static InputFault undetermined() {
        return new InputFault(
                "network",
                "undetermined",
                "Something in this network cannot be determined: nothing holds it in place, or photos hang on too few points.");
    }

    private static Covariance covariance(Elimination point, Skyline inverse) {
        int count = point.columns().length;
        double[][] sum = new double[3][3];
        for (int a = 0; a < count; a++) {
            double[] mixed = new double[3];
            for (int b = 0; b < count; b++) {
                double between = inverse.get(point.columns()[a], point.columns()[b]);
                for (int axis = 0; axis < 3; axis++) {
                    mixed[axis] += between * point.coupling().unsafe_get(b, axis);
                }
            }
            for (int i = 0; i < 3; i++) {
                for (int j = 0; j < 3; j++) {
                    sum[i][j] += point.coupling().unsafe_get(a, i) * mixed[j];
                }
            }
        }
        return covariance(point, sum);
    }

    private static Covariance covariance(Elimination point, double[][] sum) {
        DMatrixRMaj own = point.inverse();
        return new Covariance(
                own.get(0, 0) + sum[0][0],
                own.get(0, 1) + sum[0][1],
                own.get(0, 2) + sum[0][2],
                own.get(1, 1) + sum[1][1],
                own.get(1, 2) + sum[1][2],
                own.get(2, 2) + sum[2][2]);
    }
}

package yalos.core.network;

import java.util.Map;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import yalos.core.fault.InputFault;
import yalos.core.network.ExpectedAccuracy.Covariance;

/**
 * What a block knows of some of its points together, so that any of them can be measured afterwards without the whole adjustment being made again: a measured point is one more
 * observation of an adjusted quantity, and conditions all others (Kalman's update; exact, since the adjustment is linear). A layout of control costs milliseconds this way.
 *
 * <pre>{@code
 * JointCovariance free = ExpectedAccuracy.joint(network, new int[] {3, 7, 20});
 * double up = free.measured(Map.of(0, new Axes(0.02, 0.02, 0.03))).of(2).sigmaUpM();
 * }</pre>
 */
public final class JointCovariance {
    /** East, north, up of each point in turn. */
    private final DMatrixRMaj all;

    JointCovariance(DMatrixRMaj all) {
        this.all = all;
    }

    /** How many points it knows. */
    public int size() {
        return all.numRows / 3;
    }

    /** What is known of one. */
    public Covariance of(int point) {
        int at = 3 * point;
        return new Covariance(
                all.get(at, at),
                all.get(at, at + 1),
                all.get(at, at + 2),
                all.get(at + 1, at + 1),
                all.get(at + 1, at + 2),
                all.get(at + 2, at + 2));
    }

    /**
     * Variance of a sum of weighted coordinates, in square metres.
     *
     * @param weights of east, north, up of each point in turn
     */
    public double variance(double[] weights) {
        double sum = 0;
        for (int i = 0; i < weights.length; i++) {
            if (weights[i] != 0) {
                double row = 0;
                for (int j = 0; j < weights.length; j++) {
                    row += all.unsafe_get(i, j) * weights[j];
                }
                sum += weights[i] * row;
            }
        }
        return Math.max(0, sum);
    }

    /**
     * The same after some of the points were measured on the ground as control.
     *
     * @param control how well each was measured, by its place here
     * @throws InputFault for a point that is not here
     */
    public JointCovariance measured(Map<Integer, Network.Axes> control) {
        if (control.isEmpty()) {
            return this;
        }
        Measured observed = observed(control);
        DMatrixRMaj after = all.copy();
        CommonOps_DDRM.multAddTransA(-1, observed.seen(), observed.gain(), after);
        return new JointCovariance(after);
    }

    /**
     * What is known of each coordinate after some points were measured: east, north, up of each point in turn, in square metres. As {@link #measured} gives them, many times quicker.
     */
    public double[] variancesMeasured(Map<Integer, Network.Axes> control) {
        double[] variances = new double[all.numCols];
        for (int i = 0; i < variances.length; i++) {
            variances[i] = all.unsafe_get(i, i);
        }
        if (control.isEmpty()) {
            return variances;
        }
        Measured observed = observed(control);
        for (int i = 0; i < observed.seen().numRows; i++) {
            for (int j = 0; j < variances.length; j++) {
                variances[j] -=
                        observed.seen().unsafe_get(i, j) * observed.gain().unsafe_get(i, j);
            }
        }
        return variances;
    }

    /** Rows of what is measured, and how much of each goes into all others. */
    private record Measured(DMatrixRMaj seen, DMatrixRMaj gain) {}

    private Measured observed(Map<Integer, Network.Axes> control) {
        int[] rows = new int[3 * control.size()];
        double[] noise = new double[rows.length];
        int at = 0;
        for (Map.Entry<Integer, Network.Axes> one : control.entrySet()) {
            if (one.getKey() < 0 || one.getKey() >= size()) {
                throw new InputFault("points", one.getKey(), "A control point is not among the points looked at.");
            }
            for (int axis = 0; axis < 3; axis++) {
                rows[at] = 3 * one.getKey() + axis;
                noise[at++] = one.getValue().of(axis) * one.getValue().of(axis);
            }
        }
        int count = rows.length;
        DMatrixRMaj innovation = new DMatrixRMaj(count, count);
        DMatrixRMaj seen = new DMatrixRMaj(count, all.numCols);
        for (int i = 0; i < count; i++) {
            System.arraycopy(all.data, rows[i] * all.numCols, seen.data, i * all.numCols, all.numCols);
            for (int j = 0; j < count; j++) {
                innovation.unsafe_set(i, j, all.get(rows[i], rows[j]) + (i == j ? noise[i] : 0));
            }
        }
        DMatrixRMaj inverse = new DMatrixRMaj(count, count);
        if (!CommonOps_DDRM.invert(innovation, inverse)) {
            throw new InputFault("points", count, "Two control points lie at the same place.");
        }
        DMatrixRMaj gain = new DMatrixRMaj(count, all.numCols);
        CommonOps_DDRM.mult(inverse, seen, gain);
        return new Measured(seen, gain);
    }
}

package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.CommonOps_DDRM;
import yalos.core.network.ExpectedAccuracy.Covariance;
import yalos.core.network.JointCovariance;
import yalos.core.plan.PlanProof.Accuracy;

/**
 * The accuracy foretold of a block with some control. One standard deviation in metres everywhere; horizontal is that of each axis of the plane, {@code sqrt((ee + nn) / 2)}.
 */
public final class Foretold {
    /** A typical place is the root of the mean square over the block; what is asked may be missed by so much at the worst one. */
    private static final double WORST_ALLOWED = 1.5;

    private final BlockWorth worth;
    private final JointCovariance known;
    private final List<Integer> seen = new ArrayList<>();

    Foretold(BlockWorth worth, JointCovariance known) {
        this.worth = worth;
        this.known = known;
        for (int i = 0; i < worth.places().size(); i++) {
            if (worth.seen(i)) {
                seen.add(i);
            }
        }
    }

    /** Horizontal and vertical standard deviation of one place. */
    public record Sigma(double horizontalM, double verticalM) {
        static Sigma of(Covariance covariance) {
            return new Sigma(Math.sqrt((covariance.ee() + covariance.nn()) / 2), covariance.sigmaUpM());
        }
    }

    /** Of a place of the block; empty where it is not seen twice. */
    public Optional<Sigma> atPlace(int place) {
        return worth.atPlace(known, place).map(Sigma::of);
    }

    /** Of a point of the layout, by its place in the list. */
    public Optional<Sigma> atPoint(int point) {
        return worth.atPoint(known, point).map(Sigma::of);
    }

    /** Over the block: the root of the mean square. */
    public Sigma typical() {
        double horizontal = 0;
        double vertical = 0;
        for (int place : seen) {
            Sigma sigma = atPlace(place).orElseThrow();
            horizontal += sigma.horizontalM() * sigma.horizontalM();
            vertical += sigma.verticalM() * sigma.verticalM();
        }
        int count = Math.max(1, seen.size());
        return new Sigma(Math.sqrt(horizontal / count), Math.sqrt(vertical / count));
    }

    /** At the worst place for each. */
    public Sigma worst() {
        double horizontal = 0;
        double vertical = 0;
        for (int place : seen) {
            Sigma sigma = atPlace(place).orElseThrow();
            horizontal = Math.max(horizontal, sigma.horizontalM());
            vertical = Math.max(vertical, sigma.verticalM());
        }
        return new Sigma(horizontal, vertical);
    }

    /** What the whole block is off together: of the mean over its places. */
    public Sigma shared() {
        double[] east = new double[3 * known.size()];
        double[] north = new double[east.length];
        double[] up = new double[east.length];
        for (int place : seen) {
            int at = 3 * worth.index(place);
            east[at] = north[at + 1] = up[at + 2] = 1.0 / seen.size();
        }
        return new Sigma(Math.sqrt((known.variance(east) + known.variance(north)) / 2), Math.sqrt(known.variance(up)));
    }

    /**
     * How far the middle may bulge against the rim: the standard deviation of the bowl fitted through all heights, from its middle to its farthest place.
     */
    public double domingM() {
        int count = seen.size();
        if (count < 6) {
            return 0;
        }
        double x0 = 0;
        double y0 = 0;
        for (int place : seen) {
            x0 += worth.places().get(place).xM() / count;
            y0 += worth.places().get(place).yM() / count;
        }
        DMatrixRMaj shape = new DMatrixRMaj(count, 4);
        double reach = 1e-9;
        for (int i = 0; i < count; i++) {
            MarkedPlace at = worth.places().get(seen.get(i));
            reach = Math.max(reach, Math.hypot(at.xM() - x0, at.yM() - y0));
        }
        for (int i = 0; i < count; i++) {
            MarkedPlace at = worth.places().get(seen.get(i));
            double x = (at.xM() - x0) / reach;
            double y = (at.yM() - y0) / reach;
            shape.set(i, 0, 1);
            shape.set(i, 1, x);
            shape.set(i, 2, y);
            shape.set(i, 3, x * x + y * y);
        }
        DMatrixRMaj fit = new DMatrixRMaj(4, count);
        if (!CommonOps_DDRM.solve(normal(shape), CommonOps_DDRM.transpose(shape, null), fit)) {
            return 0;
        }
        double[] weights = new double[3 * known.size()];
        for (int i = 0; i < count; i++) {
            weights[3 * worth.index(seen.get(i)) + 2] = fit.get(3, i);
        }
        return Math.sqrt(known.variance(weights));
    }

    private static DMatrixRMaj normal(DMatrixRMaj shape) {
        DMatrixRMaj normal = new DMatrixRMaj(4, 4);
        CommonOps_DDRM.multTransA(shape, shape, normal);
        return normal;
    }

    /** Whether it gives what is asked: at a typical place, and at the worst within one and a half of it. */
    public enum Verdict {
        NOT_ASKED,
        ENOUGH,
        EDGE,
        NOT_ENOUGH
    }

    public Verdict against(Accuracy asked) {
        if (asked.positionM().isEmpty() && asked.heightM().isEmpty()) {
            return Verdict.NOT_ASKED;
        }
        boolean typical = within(typical().horizontalM(), asked.positionM(), 1)
                && within(typical().verticalM(), asked.heightM(), 1);
        boolean worst = within(worst().horizontalM(), asked.positionM(), WORST_ALLOWED)
                && within(worst().verticalM(), asked.heightM(), WORST_ALLOWED);
        return !typical ? Verdict.NOT_ENOUGH : worst ? Verdict.ENOUGH : Verdict.EDGE;
    }

    private static boolean within(double sigma, OptionalDouble asked, double times) {
        return asked.isEmpty() || sigma <= asked.getAsDouble() * times + 1e-9;
    }
}

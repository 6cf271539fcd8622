package yalos.core.control;

import yalos.core.block.LocalPlane;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;

/** A place on the ground of a block: in its plane, with the height of the ground there, as {@code Exposure.upM}. */
public record MarkedPlace(double xM, double yM, double upM) {

    /** A place on the ground of a plan; its height is NaN where the ground is not known. */
    static MarkedPlace on(BlockPlan plan, double xM, double yM) {
        return new MarkedPlace(
                xM, yM, plan.overGround().map(known -> known.grid().at(xM, yM)).orElse(0.0));
    }

    /** A position on the ground of a plan. */
    public static MarkedPlace at(BlockPlan plan, LonLat position) {
        PlanePoint at = plan.block().plane().toPlane(position);
        return on(plan, at.xM(), at.yM());
    }

    /** Where a point is planned, on the ground or at its own height. */
    public static MarkedPlace of(BlockPlan plan, ControlPoint point) {
        LocalPlane plane = plan.block().plane();
        PlanePoint at = plane.toPlane(point.place());
        MarkedPlace ground = on(plan, at.xM(), at.yM());
        return point.upM().isPresent() && plan.overGround().isPresent()
                ? new MarkedPlace(at.xM(), at.yM(), point.upM().getAsDouble())
                : ground;
    }

    double distanceTo(MarkedPlace other) {
        return Math.hypot(other.xM - xM, other.yM - yM);
    }
}

package yalos.core.proof;

import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.surface.Box;

/** A pose as plain figures for the inner loops; the same camera model as {@link yalos.core.camera.View}, without distortion. */
final class CameraFrame {
    final double east;
    final double north;
    final double up;
    final double axisE;
    final double axisN;
    final double axisU;
    final double rightE;
    final double rightN;
    final double rightU;
    final double downE;
    final double downN;
    final double downU;
    final double fx;
    final double fy;
    final double cx;
    final double cy;
    final double width;
    final double height;
    /** GSD at each metre of depth, in metres: the coarser of the axes. */
    final double gsdPerDepth;

    CameraFrame(Pose pose, Lens lens) {
        east = pose.eastM();
        north = pose.northM();
        up = pose.upM();
        double sinYaw = Math.sin(pose.yawRad());
        double cosYaw = Math.cos(pose.yawRad());
        double sinPitch = Math.sin(pose.pitchRad());
        double cosPitch = Math.cos(pose.pitchRad());
        double sinRoll = Math.sin(pose.rollRad());
        double cosRoll = Math.cos(pose.rollRad());
        axisE = cosPitch * sinYaw;
        axisN = cosPitch * cosYaw;
        axisU = sinPitch;
        double belowE = axisU * sinYaw;
        double belowN = axisU * cosYaw;
        double belowU = -axisE * sinYaw - axisN * cosYaw;
        rightE = cosYaw * cosRoll + belowE * sinRoll;
        rightN = -sinYaw * cosRoll + belowN * sinRoll;
        rightU = belowU * sinRoll;
        downE = -cosYaw * sinRoll + belowE * cosRoll;
        downN = sinYaw * sinRoll + belowN * cosRoll;
        downU = belowU * cosRoll;
        fx = lens.fx();
        fy = lens.fy();
        cx = lens.cx();
        cy = lens.cy();
        width = lens.width();
        height = lens.height();
        gsdPerDepth = Math.max(1 / fx, 1 / fy);
    }

    /** A ground point in the camera's own axes: right, down, ahead. */
    double[] camera(double e, double n, double u) {
        double de = e - east;
        double dn = n - north;
        double du = u - up;
        return new double[] {
            rightE * de + rightN * dn + rightU * du,
            downE * de + downN * dn + downU * du,
            axisE * de + axisN * dn + axisU * du
        };
    }

    /**
     * Whether any place in a box may lie in the frame: not so where the whole box lies behind the camera or beyond one of the frame's four
     * sides. Near the frame's corners it may say yes for no.
     */
    boolean mayHold(Box box) {
        double e = (box.minX() + box.maxX()) / 2 - east;
        double n = (box.minY() + box.maxY()) / 2 - north;
        double u = (box.minZ() + box.maxZ()) / 2 - up;
        double he = (box.maxX() - box.minX()) / 2;
        double hn = (box.maxY() - box.minY()) / 2;
        double hu = (box.maxZ() - box.minZ()) / 2;
        return before(0, 0, 1, e, n, u, he, hn, hu)
                && before(fx, 0, cx, e, n, u, he, hn, hu)
                && before(-fx, 0, width - cx, e, n, u, he, hn, hu)
                && before(0, fy, cy, e, n, u, he, hn, hu)
                && before(0, -fy, height - cy, e, n, u, he, hn, hu);
    }

    /** Whether some of a box lies on the inner side of a plane through the camera: right · r + down · d + axis · a ≥ 0. */
    private boolean before(
            double right, double down, double axis, double e, double n, double u, double he, double hn, double hu) {
        double pe = right * rightE + down * downE + axis * axisE;
        double pn = right * rightN + down * downN + axis * axisN;
        double pu = right * rightU + down * downU + axis * axisU;
        double reach = Math.abs(pe) * he + Math.abs(pn) * hn + Math.abs(pu) * hu;
        return pe * e + pn * n + pu * u + reach >= -1e-9 * (Math.abs(e) + Math.abs(n) + Math.abs(u));
    }

    /**
     * A box round all ground between two heights that the frame can hold: least and greatest x, least and greatest y. Without
     * bounds where a corner of the frame looks at or above the horizon.
     */
    double[] box(double lowest, double highest) {
        double[] box = {Double.MAX_VALUE, -Double.MAX_VALUE, Double.MAX_VALUE, -Double.MAX_VALUE};
        for (int corner = 0; corner < 4; corner++) {
            double x = ((corner & 1) == 0 ? -cx : width - cx) / fx;
            double y = ((corner & 2) == 0 ? -cy : height - cy) / fy;
            double rayU = axisU + x * rightU + y * downU;
            if (rayU > -1e-6) {
                return new double[] {
                    Double.NEGATIVE_INFINITY,
                    Double.POSITIVE_INFINITY,
                    Double.NEGATIVE_INFINITY,
                    Double.POSITIVE_INFINITY
                };
            }
            double rayE = axisE + x * rightE + y * downE;
            double rayN = axisN + x * rightN + y * downN;
            for (double ground : new double[] {lowest, Math.min(highest, up)}) {
                double stretch = Math.max(0, (ground - up) / rayU);
                box[0] = Math.min(box[0], east + stretch * rayE);
                box[1] = Math.max(box[1], east + stretch * rayE);
                box[2] = Math.min(box[2], north + stretch * rayN);
                box[3] = Math.max(box[3], north + stretch * rayN);
            }
        }
        return box;
    }
}

package yalos.core.network;

import java.util.Optional;
import yalos.core.camera.Pose;

/**
 * An observation linearised: how an image point moves with everything that is adjusted.
 *
 * <p>Rows are u and v in pixels. Rotations are small ones about the camera's own axes: right, down, forward.
 *
 * @param point derivatives by the point's east, north, up
 * @param photo derivatives by the camera's position and its three rotations
 * @param lens derivatives by focal length, principal point x and y, first radial term
 */
record Sighted(double[][] point, double[][] photo, double[][] lens) {
    /** Empty where the point does not lie in front of the camera. */
    static Optional<Sighted> of(Pose pose, Network.GroundPoint at, double focalPx) {
        double[][] axes = axes(pose);
        double[] ray = {at.eastM() - pose.eastM(), at.northM() - pose.northM(), at.upM() - pose.upM()};
        double[] q = new double[3];
        for (int i = 0; i < 3; i++) {
            q[i] = axes[i][0] * ray[0] + axes[i][1] * ray[1] + axes[i][2] * ray[2];
        }
        if (q[2] <= 0) {
            return Optional.empty();
        }
        double x = q[0] / q[2];
        double y = q[1] / q[2];
        double perM = focalPx / q[2];
        double[][] point = new double[2][3];
        double[][] photo = new double[2][6];
        for (int axis = 0; axis < 3; axis++) {
            point[0][axis] = perM * (axes[0][axis] - x * axes[2][axis]);
            point[1][axis] = perM * (axes[1][axis] - y * axes[2][axis]);
            photo[0][axis] = -point[0][axis];
            photo[1][axis] = -point[1][axis];
        }
        // A small turn w of the camera turns the ray by q × w in its own axes.
        for (int turn = 0; turn < 3; turn++) {
            double[] w = {turn == 0 ? 1 : 0, turn == 1 ? 1 : 0, turn == 2 ? 1 : 0};
            double[] d = {q[1] * w[2] - q[2] * w[1], q[2] * w[0] - q[0] * w[2], q[0] * w[1] - q[1] * w[0]};
            photo[0][3 + turn] = perM * (d[0] - x * d[2]);
            photo[1][3 + turn] = perM * (d[1] - y * d[2]);
        }
        double r2 = x * x + y * y;
        double[][] lens = {{x, 1, 0, focalPx * x * r2}, {y, 0, 1, focalPx * y * r2}};
        return Optional.of(new Sighted(point, photo, lens));
    }

    /** The camera's right, down and forward as east, north, up; see {@link yalos.core.camera.View}. */
    private static double[][] axes(Pose pose) {
        double sinYaw = Math.sin(pose.yawRad());
        double cosYaw = Math.cos(pose.yawRad());
        double sinPitch = Math.sin(pose.pitchRad());
        double cosPitch = Math.cos(pose.pitchRad());
        double[] forward = {cosPitch * sinYaw, cosPitch * cosYaw, sinPitch};
        double[] level = {cosYaw, -sinYaw, 0};
        double[] below = {
            forward[1] * level[2] - forward[2] * level[1],
            forward[2] * level[0] - forward[0] * level[2],
            forward[0] * level[1] - forward[1] * level[0]
        };
        double sinRoll = Math.sin(pose.rollRad());
        double cosRoll = Math.cos(pose.rollRad());
        double[][] axes = new double[3][3];
        for (int i = 0; i < 3; i++) {
            axes[0][i] = level[i] * cosRoll + below[i] * sinRoll;
            axes[1][i] = -level[i] * sinRoll + below[i] * cosRoll;
            axes[2][i] = forward[i];
        }
        return axes;
    }
}

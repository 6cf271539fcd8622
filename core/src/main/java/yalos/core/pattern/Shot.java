package yalos.core.pattern;

import java.util.Optional;
import yalos.core.camera.Pose;
import yalos.core.geodesy.PlanePoint;

/**
 * One photo aimed at an object, at a height of its own.
 *
 * @param at where it is taken, in the block's plane
 * @param upM how high, in the height system of the ground
 * @param yawRad which way the camera looks, clockwise from grid north
 * @param pitchRad how far above the horizon
 * @param round the place round which one flies to it from the shot before; straight where empty
 */
public record Shot(PlanePoint at, double upM, double yawRad, double pitchRad, Optional<PlanePoint> round) {
    /** Reached straight from the shot before. */
    public static Shot straight(PlanePoint at, double upM, double yawRad, double pitchRad) {
        return new Shot(at, upM, yawRad, pitchRad, Optional.empty());
    }

    /** The same, reached straight. */
    Shot straight() {
        return new Shot(at, upM, yawRad, pitchRad, Optional.empty());
    }

    /** Its pose; the camera's mount is its roll. */
    Pose pose(double rollRad) {
        return new Pose(at.xM(), at.yM(), upM, yawRad, pitchRad, rollRad);
    }
}

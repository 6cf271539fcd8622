package yalos.core.camera;

/**
 * Where a camera is and which way it looks, in a right-handed ground frame of metres (east, north, up).
 *
 * @param eastM position
 * @param northM position
 * @param upM position, in the height system of the ground it is held against
 * @param yawRad clockwise from north
 * @param pitchRad elevation of the optical axis above the horizon; straight down is -π/2
 * @param rollRad clockwise as seen from behind the camera looking forward
 */
public record Pose(double eastM, double northM, double upM, double yawRad, double pitchRad, double rollRad) {

    /** A camera looking straight down, the top of its image pointing along {@code yawRad}. */
    public static Pose vertical(double eastM, double northM, double upM, double yawRad) {
        return new Pose(eastM, northM, upM, yawRad, -Math.PI / 2, 0);
    }
}

package yalos.core.light;

import java.util.Optional;

/**
 * The shadow of an upright pole on a plane slope.
 *
 * @param horizontalM length on the map
 * @param alongGroundM from the foot to the tip
 * @param eastM tip from the foot
 * @param northM tip from the foot
 */
public record Shadow(double horizontalM, double alongGroundM, double eastM, double northM) {

    /**
     * @param heightM of the pole
     * @param sun where it stands
     * @param slopeRad of the ground
     * @param aspectRad direction of descent, clockwise from north
     * @return empty where the sun is down, or the slope lies in its own shade
     */
    public static Optional<Shadow> of(double heightM, Sun sun, double slopeRad, double aspectRad) {
        double elevation = sun.elevationRad();
        double east = -Math.tan(slopeRad) * Math.sin(aspectRad);
        double north = -Math.tan(slopeRad) * Math.cos(aspectRad);
        double towardsEast = Math.cos(elevation) * Math.sin(sun.azimuthRad());
        double towardsNorth = Math.cos(elevation) * Math.cos(sun.azimuthRad());
        double over = Math.sin(elevation) - east * towardsEast - north * towardsNorth;
        if (elevation <= 0 || over <= 0) {
            return Optional.empty();
        }
        double ray = heightM / over;
        double tipEast = -ray * towardsEast;
        double tipNorth = -ray * towardsNorth;
        double level = Math.hypot(tipEast, tipNorth);
        double up = heightM - ray * Math.sin(elevation);
        return Optional.of(new Shadow(level, Math.hypot(level, up), tipEast, tipNorth));
    }
}

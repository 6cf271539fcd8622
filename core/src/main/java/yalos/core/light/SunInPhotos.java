package yalos.core.light;

import java.util.List;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;

/**
 * How many photos hold the hot spot, where shadows hide behind what casts them, and how many the glint, where level water mirrors the sun. By geometry: the hot spot lies straight away from the sun, the glint as far on the other side of straight down.
 *
 * @param hotSpots share of the photos, 0..1
 * @param glints share of the photos, 0..1; it matters over water and wet ground
 */
public record SunInPhotos(double hotSpots, double glints) {
    private static final double FAR_M = 1000;

    /** A photo as far as light asks for it. */
    public record Shot(Pose pose, Lens lens) {}

    /**
     * @param sun where it stands, its azimuth from the same north as the yaw of the photos
     */
    public static SunInPhotos of(List<Shot> shots, Sun sun) {
        if (shots.isEmpty() || sun.elevationRad() <= 0) {
            return new SunInPhotos(0, 0);
        }
        double level = Math.cos(sun.elevationRad()) * FAR_M;
        double down = -Math.sin(sun.elevationRad()) * FAR_M;
        double east = level * Math.sin(sun.azimuthRad());
        double north = level * Math.cos(sun.azimuthRad());
        long hot =
                shots.stream().filter(shot -> sees(shot, -east, -north, down)).count();
        long glint =
                shots.stream().filter(shot -> sees(shot, east, north, down)).count();
        return new SunInPhotos((double) hot / shots.size(), (double) glint / shots.size());
    }

    private static boolean sees(Shot shot, double east, double north, double up) {
        Pose pose = shot.pose();
        return new View(shot.lens(), pose)
                .of(pose.eastM() + east, pose.northM() + north, pose.upM() + up)
                .filter(View.Sighting::inFrame)
                .isPresent();
    }
}

package yalos.core.camera;

import java.util.Optional;

/**
 * The scale of a tilted camera, or of one that looks at a wall, exact for the ideal lens. With R the slant range, φ the angle of the ray
 * from the optical axis and δ its depression, a pixel covers {@code p R cos φ / f} of level ground across the tilt and
 * {@code p R cos² φ / (f sin δ)} along it.
 *
 * @param camera with its lens; the image's height is taken to lie in the tilt's plane
 * @param pitchRad elevation of the optical axis; straight down is -π/2, level is 0
 * @param heightM above level ground
 */
public record ObliqueScale(Camera camera, double pitchRad, double heightM) {

    /** Ground covered by one pixel at a distance square to the view, such as the stand-off from a wall; metres. */
    public static double gsdAtM(Camera camera, double distanceM) {
        return camera.pitchM() * distanceM / camera.focalLengthM();
    }

    /** Where in the picture, from the lower edge (nearest ground) to the upper one. */
    public enum Part {
        NEAR,
        MIDDLE,
        FAR
    }

    /**
     * A place in the picture.
     *
     * @param slantM distance to the ground seen there
     * @param acrossM level ground covered by one pixel across the tilt
     * @param alongM level ground covered by one pixel along the tilt, away from the camera
     * @param aheadM how far the place lies ahead of the point below the camera
     */
    public record Sight(double slantM, double acrossM, double alongM, double aheadM) {}

    /** What is seen there; empty at or above the horizon. */
    public Optional<Sight> at(Part part) {
        double half =
                Math.atan(camera.sensor().pixelsHigh() * camera.sensor().pitchHighM() / 2 / camera.focalLengthM());
        double off = switch (part) {
            case NEAR -> half;
            case MIDDLE -> 0;
            case FAR -> -half;
        };
        double depression = -pitchRad + off;
        if (depression <= 1e-3) {
            return Optional.empty();
        }
        double slant = heightM / Math.sin(depression);
        double square = gsdAtM(camera, slant);
        return Optional.of(new Sight(
                slant,
                square * Math.cos(off),
                square * Math.cos(off) * Math.cos(off) / Math.sin(depression),
                heightM / Math.tan(depression)));
    }
}

package yalos.core.camera;

import java.util.Optional;

/**
 * Which pixel shows a ground point, and which ground point a pixel shows, for one lens at one pose.
 *
 * <p>Pinhole model with Brown distortion. At yaw 0 looking straight down the top of the image points north and its
 * right side east. Exact to rounding for the ideal lens; 1e-9 of the focal length through the distortion.
 */
public final class View {
    private final Lens lens;
    private final Pose pose;
    /** Optical axis, image right and image down, each as east, north, up. */
    private final double[] axis;

    private final double[] right;
    private final double[] down;

    /** A ground point seen in an image: pixel, distance along the optical axis, and whether the frame holds it. */
    public record Sighting(double u, double v, double depthM, boolean inFrame) {}

    /** Where a ray meets level ground, and how long it is. */
    public record GroundHit(double eastM, double northM, double slantRangeM) {}

    public View(Lens lens, Pose pose) {
        this.lens = lens;
        this.pose = pose;
        double sinYaw = Math.sin(pose.yawRad());
        double cosYaw = Math.cos(pose.yawRad());
        double sinPitch = Math.sin(pose.pitchRad());
        double cosPitch = Math.cos(pose.pitchRad());
        axis = new double[] {cosPitch * sinYaw, cosPitch * cosYaw, sinPitch};
        double[] level = {cosYaw, -sinYaw, 0};
        double[] below = cross(axis, level);
        double sinRoll = Math.sin(pose.rollRad());
        double cosRoll = Math.cos(pose.rollRad());
        right = combine(level, cosRoll, below, sinRoll);
        down = combine(level, -sinRoll, below, cosRoll);
    }

    /** The sighting of a ground point; empty for a point not in front of the camera. */
    public Optional<Sighting> of(double eastM, double northM, double upM) {
        double[] ray = {eastM - pose.eastM(), northM - pose.northM(), upM - pose.upM()};
        double depth = dot(axis, ray);
        if (depth <= 0) {
            return Optional.empty();
        }
        double x = dot(right, ray) / depth;
        double y = dot(down, ray) / depth;
        double[] pixel = lens.pixel(x, y);
        boolean inFrame = lens.inFrame(pixel[0], pixel[1]) && !lens.folds(x, y);
        return Optional.of(new Sighting(pixel[0], pixel[1], depth, inFrame));
    }

    /** Where the ray through a pixel meets the level ground at {@code groundM}; empty when it does not go down to it. */
    public Optional<GroundHit> ground(double u, double v, double groundM) {
        double[] ideal = lens.direction(u, v);
        double[] ray = new double[3];
        for (int i = 0; i < 3; i++) {
            ray[i] = axis[i] + ideal[0] * right[i] + ideal[1] * down[i];
        }
        double drop = groundM - pose.upM();
        double stretch = drop / ray[2];
        if (!(stretch > 0) || !Double.isFinite(stretch)) {
            return Optional.empty();
        }
        return Optional.of(new GroundHit(
                pose.eastM() + stretch * ray[0], pose.northM() + stretch * ray[1], stretch * Math.sqrt(dot(ray, ray))));
    }

    /**
     * The corners of the photo on level ground, in the order top-left, top-right, bottom-right, bottom-left of the
     * image, as east and north in turn; empty when a corner looks at or above the horizon.
     */
    public Optional<double[]> footprint(double groundM) {
        double[] corners = new double[8];
        double[][] pixels = {{0, 0}, {lens.width(), 0}, {lens.width(), lens.height()}, {0, lens.height()}};
        for (int i = 0; i < 4; i++) {
            Optional<GroundHit> hit = ground(pixels[i][0], pixels[i][1], groundM);
            if (hit.isEmpty()) {
                return Optional.empty();
            }
            corners[2 * i] = hit.get().eastM();
            corners[2 * i + 1] = hit.get().northM();
        }
        return Optional.of(corners);
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    private static double[] cross(double[] a, double[] b) {
        return new double[] {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
    }

    private static double[] combine(double[] a, double fa, double[] b, double fb) {
        return new double[] {a[0] * fa + b[0] * fb, a[1] * fa + b[1] * fb, a[2] * fa + b[2] * fb};
    }
}

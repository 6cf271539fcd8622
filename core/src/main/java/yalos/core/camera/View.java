package yalos.core.camera;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Which pixel shows a ground point, and which ground point a pixel shows, for one lens at one pose.
 *
 * <p>Pinhole model with Brown distortion. At yaw 0 looking straight down the top of the image points north and its
 * right side east. Exact to rounding for the ideal lens; 1e-9 of the focal length through the distortion.
 */
public final class View {
    /** How many heights away a footprint is cut where it would reach to the horizon. */
    private static final int FARTHEST = 1000;

    private static final double LOWEST_RAY = -1.0 / FARTHEST;

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
     * The corners of the photo on level ground, going round the image from its top-left, as east and north in turn. Where the photo
     * sees the horizon it is cut just below it, at {@value #FARTHEST} times the height, so there may be three to five; none for a photo
     * that sees no ground at all. Of the lens without distortion where there is any horizon.
     */
    public double[] footprint(double groundM) {
        double[][] pixels = {{0, 0}, {lens.width(), 0}, {lens.width(), lens.height()}, {0, lens.height()}};
        double[][] rays = new double[4][];
        boolean horizon = false;
        for (int i = 0; i < 4; i++) {
            double[] ideal = lens.direction(pixels[i][0], pixels[i][1]);
            rays[i] = combine(axis, 1, combine(right, ideal[0], down, ideal[1]), 1);
            horizon |= rays[i][2] >= LOWEST_RAY;
        }
        return landed(horizon ? belowHorizon(rays) : rays, groundM);
    }

    /** The frame's corner rays cut where they would rise above the lowest ray, after Sutherland and Hodgman. */
    private static double[][] belowHorizon(double[][] rays) {
        List<double[]> kept = new ArrayList<>();
        for (int i = 0, j = rays.length - 1; i < rays.length; j = i++) {
            double before = rays[j][2] - LOWEST_RAY;
            double here = rays[i][2] - LOWEST_RAY;
            if (before < 0 != here < 0) {
                double share = before / (before - here);
                kept.add(combine(rays[j], 1 - share, rays[i], share));
            }
            if (here < 0) {
                kept.add(rays[i]);
            }
        }
        return kept.toArray(double[][]::new);
    }

    private double[] landed(double[][] rays, double groundM) {
        double drop = groundM - pose.upM();
        if (!(drop < 0)) {
            return new double[0];
        }
        double[] corners = new double[2 * rays.length];
        for (int i = 0; i < rays.length; i++) {
            double stretch = drop / rays[i][2];
            corners[2 * i] = pose.eastM() + stretch * rays[i][0];
            corners[2 * i + 1] = pose.northM() + stretch * rays[i][1];
        }
        return corners;
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

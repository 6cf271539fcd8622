package yalos.core.network;

import java.util.List;
import java.util.Optional;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;

/**
 * Photos, points and which photo shows which point: the observations of a bundle adjustment.
 *
 * @param focalPx focal length in pixels; the lens is ideal, its principal point in the middle
 * @param sigmas how good everything is that is not adjusted
 * @param selfCalibration whether focal length, principal point and the first radial term are adjusted with the photos
 * @param photos where each is and which way it looks
 * @param points on the ground
 * @param sights photo and point of each observation, by their index
 */
public record Network(
        double focalPx,
        Sigmas sigmas,
        boolean selfCalibration,
        List<Pose> photos,
        List<GroundPoint> points,
        List<Sight> sights) {
    /** How well positions are known that nobody logged: not at all. */
    public static final Axes UNKNOWN =
            new Axes(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);

    public Network {
        if (!(focalPx > 0)) {
            throw new InputFault("camera.focalPx", focalPx, "The focal length in pixels must be above 0.");
        }
        photos = List.copyOf(photos);
        points = List.copyOf(points);
        sights = List.copyOf(sights);
        for (Sight sight : sights) {
            if (sight.photo() < 0
                    || sight.photo() >= photos.size()
                    || sight.point() < 0
                    || sight.point() >= points.size()) {
                throw new InputFault(
                        "observations", sight, "An observation names a photo or a point that is not there.");
            }
        }
    }

    /** What a point is for. */
    public enum Kind {
        /** Found by the program in several photos. */
        TIE,
        /** Measured on the ground, and held to. */
        CONTROL,
        /** Measured on the ground, and only compared. */
        CHECK
    }

    /**
     * A point on the ground.
     *
     * @param sigma how well a control point was measured; empty for others, which hold nothing
     */
    public record GroundPoint(Kind kind, double eastM, double northM, double upM, Optional<Axes> sigma) {}

    /** An observation: which photo shows which point. */
    public record Sight(int photo, int point) {}

    /** A figure for each axis of the ground, in metres. */
    public record Axes(double eastM, double northM, double upM) {
        double of(int axis) {
            return axis == 0 ? eastM : axis == 1 ? northM : upM;
        }

        /** Whether all three are finite and above a bound. */
        boolean above(double bound) {
            return eastM > bound && northM > bound && upM > bound;
        }
    }

    /**
     * Standard deviations before the adjustment.
     *
     * @param tiePx of a tie point's image
     * @param markedPx of a marked point's image
     * @param position of each logged camera position by itself; infinite where nothing is logged
     * @param common of one shift shared by all of them, such as a base's; 0 on an axis for none
     * @param angleRad of a logged angle, about each of the camera's own axes
     * @param focalPx of the focal length; 0 for one that is known, as with the next three
     * @param principalXPx of the principal point
     * @param principalYPx of the principal point
     * @param k1 of the first radial term
     */
    public record Sigmas(
            double tiePx,
            double markedPx,
            Axes position,
            Axes common,
            double angleRad,
            double focalPx,
            double principalXPx,
            double principalYPx,
            double k1) {
        public Sigmas {
            if (!(tiePx > 0) || !(markedPx > 0)) {
                throw new InputFault("sigmas.tiePx", tiePx, "Image errors are above 0 pixels; 0.5 is usual.");
            }
            if (!position.above(0)) {
                throw new InputFault(
                        "sigmas.positionM",
                        position,
                        "Position errors are above 0 m on each axis; leave them out where nothing is logged.");
            }
            if (!common.above(-1e-300) || !(angleRad > 0)) {
                throw new InputFault("sigmas", "negative", "Errors are no less than 0, that of an angle above it.");
            }
        }

        /** Those of the lens: focal length, principal point x and y, first radial term. */
        double[] lens() {
            return new double[] {focalPx, principalXPx, principalYPx, k1};
        }

        double imagePx(Kind kind) {
            return kind == Kind.TIE ? tiePx : markedPx;
        }
    }
}

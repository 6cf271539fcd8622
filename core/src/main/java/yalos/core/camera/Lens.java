package yalos.core.camera;

/**
 * Interior orientation: how a direction in the camera becomes a pixel. Pixels count from the top-left corner of the
 * image, u to the right and v down, so the frame is 0..width and 0..height.
 *
 * <p>Distortion after Brown 1971 (from memory): three radial and two tangential coefficients, on coordinates divided
 * by the focal length.
 *
 * @param width image width in pixels
 * @param height image height in pixels
 * @param fx focal length in pixels along u
 * @param fy focal length in pixels along v
 * @param cx principal point along u
 * @param cy principal point along v
 * @param distortion zero for an ideal lens
 */
public record Lens(int width, int height, double fx, double fy, double cx, double cy, Distortion distortion) {

    /** Brown's coefficients, radial k1..k3 and tangential p1, p2. */
    public record Distortion(double k1, double k2, double k3, double p1, double p2) {
        public static final Distortion NONE = new Distortion(0, 0, 0, 0, 0);

        boolean isNone() {
            return k1 == 0 && k2 == 0 && k3 == 0 && p1 == 0 && p2 == 0;
        }

        private double radial(double r2) {
            return 1 + r2 * (k1 + r2 * (k2 + r2 * k3));
        }

        /** Slope of r · radial(r²); where it turns negative the formula folds the image back on itself. */
        private double radialSlope(double r2) {
            return 1 + r2 * (3 * k1 + r2 * (5 * k2 + r2 * 7 * k3));
        }
    }

    /** The ideal lens of a camera, principal point in the middle. */
    public static Lens of(Camera camera) {
        Sensor sensor = camera.sensor();
        return new Lens(
                sensor.pixelsWide(),
                sensor.pixelsHigh(),
                camera.focalLengthM() / sensor.pitchWideM(),
                camera.focalLengthM() / sensor.pitchHighM(),
                sensor.pixelsWide() / 2.0,
                sensor.pixelsHigh() / 2.0,
                Distortion.NONE);
    }

    /** Pixel of a direction given by its ideal coordinates x = X/Z, y = Y/Z. */
    double[] pixel(double x, double y) {
        double r2 = x * x + y * y;
        double radial = distortion.radial(r2);
        double dx = x * radial + 2 * distortion.p1 * x * y + distortion.p2 * (r2 + 2 * x * x);
        double dy = y * radial + distortion.p1 * (r2 + 2 * y * y) + 2 * distortion.p2 * x * y;
        return new double[] {fx * dx + cx, fy * dy + cy};
    }

    /** Whether a direction lies beyond the radius up to which the radial distortion still grows. */
    boolean folds(double x, double y) {
        double r2 = x * x + y * y;
        int steps = 64;
        for (int i = 1; i <= steps; i++) {
            if (distortion.radialSlope(r2 * i * i / (steps * steps)) <= 0) {
                return true;
            }
        }
        return false;
    }

    /** Ideal coordinates of a pixel, by Newton steps on the distortion formula. */
    double[] direction(double u, double v) {
        double targetX = (u - cx) / fx;
        double targetY = (v - cy) / fy;
        double x = targetX;
        double y = targetY;
        if (distortion.isNone()) {
            return new double[] {x, y};
        }
        for (int i = 0; i < 50; i++) {
            double[] here = pixel(x, y);
            double ex = (here[0] - u) / fx;
            double ey = (here[1] - v) / fy;
            if (Math.abs(ex) + Math.abs(ey) < 1e-15) {
                break;
            }
            double step = 1e-7;
            double[] alongX = pixel(x + step, y);
            double[] alongY = pixel(x, y + step);
            double a = (alongX[0] - here[0]) / fx / step;
            double b = (alongY[0] - here[0]) / fx / step;
            double c = (alongX[1] - here[1]) / fy / step;
            double d = (alongY[1] - here[1]) / fy / step;
            double det = a * d - b * c;
            x -= (d * ex - b * ey) / det;
            y -= (a * ey - c * ex) / det;
        }
        return new double[] {x, y};
    }

    boolean inFrame(double u, double v) {
        return u >= 0 && u < width && v >= 0 && v < height;
    }
}

package yalos.core.proof;

/**
 * How well photos measure: standard deviations of one measurement.
 *
 * @param imagePx of a point measured in an image, along u and v alike; half a pixel is usual (common practice)
 * @param eastM of a camera's position, independent from photo to photo
 * @param northM of a camera's position
 * @param verticalM of a camera's position, up
 * @param sharedHorizontalM of an error that all positions share, as a base on a wrong point gives; added apart
 * @param sharedVerticalM the same, up
 */
public record Noise(
        double imagePx,
        double eastM,
        double northM,
        double verticalM,
        double sharedHorizontalM,
        double sharedVerticalM) {
    public static final double USUAL_IMAGE_PX = 0.5;

    /** Positions as accurate east as north, with an error that all share. */
    public static Noise of(
            double imagePx, double horizontalM, double verticalM, double sharedHorizontalM, double sharedVerticalM) {
        return new Noise(imagePx, horizontalM, horizontalM, verticalM, sharedHorizontalM, sharedVerticalM);
    }

    /** Images alone, with positions free of error. */
    public static Noise ofImage(double imagePx) {
        return new Noise(imagePx, 0, 0, 0, 0, 0);
    }
}

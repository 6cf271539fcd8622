package yalos.core.camera;

import static yalos.core.fault.InputFault.within;

/**
 * The light-sensitive area of a camera.
 *
 * @param pixelsWide pixels along the width of the image
 * @param pixelsHigh pixels along its height
 * @param widthM width of the part that makes the image, in metres
 * @param heightM its height, in metres
 */
public record Sensor(int pixelsWide, int pixelsHigh, double widthM, double heightM) {
    /** Catalogues round sensor sides to a tenth of a millimetre, so a side is known to half of that. */
    private static final double SIDE_ROUNDING_M = 0.05e-3;

    public Sensor {
        within("pixelsAcross", pixelsWide, 16, 200_000, "px");
        within("pixelsAlong", pixelsHigh, 16, 200_000, "px");
        within("sensorAcrossMm", widthM * 1000, 0.5, 500, "mm");
        within("sensorAlongMm", heightM * 1000, 0.5, 500, "mm");
    }

    /** A sensor with its sides in millimetres, as catalogues give them. */
    public static Sensor ofMillimetres(int pixelsWide, int pixelsHigh, double widthMm, double heightMm) {
        return new Sensor(pixelsWide, pixelsHigh, widthMm / 1000, heightMm / 1000);
    }

    /** Pixel pitch along the width in metres, as pixels and side give it. */
    private double givenPitchWideM() {
        return widthM / pixelsWide;
    }

    /** Pixel pitch along the height in metres, as pixels and side give it. */
    private double givenPitchHighM() {
        return heightM / pixelsHigh;
    }

    /**
     * Whether the pixels are taken as square: the two pitches differ by no more than what rounding both sides to a tenth of
     * a millimetre explains.
     */
    public boolean squarePixels() {
        double explained = SIDE_ROUNDING_M / widthM + SIDE_ROUNDING_M / heightM;
        return Math.abs(givenPitchHighM() / givenPitchWideM() - 1) <= explained;
    }

    /**
     * The pixel pitch that stands for the camera, in metres. Square pixels: that of the longer side, which rounding
     * spoils least. Others: the coarser one, so that a GSD asked for is held along both sides.
     */
    public double pitchM() {
        if (squarePixels()) {
            return widthM >= heightM ? givenPitchWideM() : givenPitchHighM();
        }
        return Math.max(givenPitchWideM(), givenPitchHighM());
    }

    /** Distance between pixel centres along the width, in metres. */
    public double pitchWideM() {
        return squarePixels() ? pitchM() : givenPitchWideM();
    }

    /** Distance between pixel centres along the height, in metres. */
    public double pitchHighM() {
        return squarePixels() ? pitchM() : givenPitchHighM();
    }
}

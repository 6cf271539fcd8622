package yalos.core.camera;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.List;

/**
 * A camera with its lens, as a plan needs it. Named by class, never by model.
 *
 * @param name what the operator calls it
 * @param sensor pixels and size
 * @param focalLengthM principal distance in metres
 * @param shutter kind and read-out time
 * @param minIntervalS shortest time between two photos, in seconds
 * @param mount which side of the image lies across the strip
 * @param storage what a photo takes and the card holds
 */
public record Camera(
        String name,
        Sensor sensor,
        double focalLengthM,
        Shutter shutter,
        double minIntervalS,
        Mount mount,
        Storage storage) {

    /**
     * What photos take up.
     *
     * @param bytesPerPhoto all files of one release of the shutter together
     * @param cardBytes room on the card
     * @param photosPerFlight the most photos the camera or the aircraft takes in one flight
     * @param rawIntervalS shortest time between two photos in raw format, in seconds; 0 for a camera without
     */
    public record Storage(double bytesPerPhoto, double cardBytes, int photosPerFlight, double rawIntervalS) {
        public Storage {
            within("rawIntervalS", rawIntervalS, 0, 120, "s");
            within("megabytesPerPhoto", bytesPerPhoto / 1e6, 0.01, 5000, "MB");
            within("cardGigabytes", cardBytes / 1e9, 0.1, 100_000, "GB");
            within("photosPerFlight", photosPerFlight, 1, 10_000_000, "photos");
        }

        /** Storage in the units of a catalogue. */
        public static Storage of(double megabytesPerPhoto, double cardGigabytes, int photosPerFlight) {
            return new Storage(megabytesPerPhoto * 1e6, cardGigabytes * 1e9, photosPerFlight, 0);
        }

        /** The same for a camera that also writes raw files, so many seconds apart. */
        public Storage withRawInterval(double seconds) {
            return new Storage(bytesPerPhoto, cardBytes, photosPerFlight, seconds);
        }

        /** Whether the camera can write raw files. */
        public boolean hasRaw() {
            return rawIntervalS > 0;
        }
    }

    /** A figure of a camera that is possible but hard to believe, with the question to ask about it. */
    public record Doubt(String field, String question) {}

    public Camera {
        within("focalLengthMm", focalLengthM * 1000, 0.5, 2000, "mm");
        within("minIntervalS", minIntervalS, 0, 60, "s");
    }

    /** Pixels across the strip, by the mount. */
    public int pixelsAcross() {
        return mount == Mount.WIDTH_ACROSS ? sensor.pixelsWide() : sensor.pixelsHigh();
    }

    /** Pixels along the strip, by the mount. */
    public int pixelsAlong() {
        return mount == Mount.WIDTH_ACROSS ? sensor.pixelsHigh() : sensor.pixelsWide();
    }

    /** Length of the image across the strip on the sensor, in metres: pixels times pitch. */
    public double sideAcrossM() {
        return mount == Mount.WIDTH_ACROSS ? imageWidthM() : imageHeightM();
    }

    /** Length of the image along the strip on the sensor, in metres: pixels times pitch. */
    public double sideAlongM() {
        return mount == Mount.WIDTH_ACROSS ? imageHeightM() : imageWidthM();
    }

    private double imageWidthM() {
        return sensor.pixelsWide() * sensor.pitchWideM();
    }

    private double imageHeightM() {
        return sensor.pixelsHigh() * sensor.pitchHighM();
    }

    /** Which way the top of the image points when the aircraft flies along {@code trackRad}, clockwise from north. */
    public double imageYawRad(double trackRad) {
        return mount == Mount.WIDTH_ACROSS ? trackRad : trackRad + Math.PI / 2;
    }

    /** Pixel pitch that stands for the camera, in metres; see {@link Sensor#pitchM()}. */
    public double pitchM() {
        return sensor.pitchM();
    }

    /** Angle of view across the strip, in radians. */
    public double fieldOfViewAcrossRad() {
        return 2 * Math.atan(sideAcrossM() / (2 * focalLengthM));
    }

    /** Angle of view along the strip, in radians. */
    public double fieldOfViewAlongRad() {
        return 2 * Math.atan(sideAlongM() / (2 * focalLengthM));
    }

    /** Whole millions of pixels. */
    public long megapixels() {
        return (long) sensor.pixelsWide() * sensor.pixelsHigh() / 1_000_000;
    }

    /**
     * Figures that cannot well be right: a pixel pitch no survey camera has, pixels far from square, a focal length
     * equal to a sensor side (the two are easily swapped), an angle of view out of proportion. Empty for a sound camera.
     */
    public List<Doubt> doubts() {
        List<Doubt> doubts = new ArrayList<>();
        double pitchUm = pitchM() * 1e6;
        if (pitchUm < 0.7 || pitchUm > 30) {
            doubts.add(new Doubt(
                    "sensorAcrossMm",
                    "Pixels and sensor size give a pixel pitch of %.2f µm; cameras have 0.7 to 30 µm. Is one of them mistyped?"
                            .formatted(pitchUm)));
        }
        double ratio = sensor.pitchHighM() / sensor.pitchWideM();
        if (!sensor.squarePixels() && Math.abs(ratio - 1) > 0.02) {
            doubts.add(new Doubt(
                    "sensorAlongMm",
                    "The pixels would be %.2f × %.2f µm. Pixels are nearly always square; a cropped image needs the cropped sensor size."
                            .formatted(sensor.pitchWideM() * 1e6, sensor.pitchHighM() * 1e6)));
        }
        if (same(focalLengthM, sensor.widthM()) || same(focalLengthM, sensor.heightM())) {
            doubts.add(new Doubt(
                    "focalLengthMm",
                    "The focal length equals a side of the sensor (%.2f mm). Was the sensor size typed twice?"
                            .formatted(focalLengthM * 1000)));
        }
        double widest = Math.toDegrees(Math.max(fieldOfViewAcrossRad(), fieldOfViewAlongRad()));
        if (widest > 120 || widest < 2) {
            doubts.add(new Doubt(
                    "focalLengthMm",
                    "The angle of view would be %.0f°; mapping cameras see 2° to 120°. The focal length asked for is the true one, not the full-frame equivalent."
                            .formatted(widest)));
        }
        return doubts;
    }

    private static boolean same(double a, double b) {
        return Math.abs(a - b) < 0.5e-6;
    }
}

package yalos.web.store;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;

/**
 * A camera of the catalogue, in its units: millimetres, megabytes.
 *
 * @param otherLensesMm focal lengths of other lenses it takes, parted by commas; may be empty
 */
public record CameraRow(
        long id,
        String name,
        int pixelsWide,
        int pixelsHigh,
        double sensorWidthMm,
        double sensorHeightMm,
        double focalLengthMm,
        String shutter,
        double readoutS,
        double minIntervalS,
        String mount,
        double megabytesPerPhoto,
        double cardGigabytes,
        int photosPerFlight,
        double rawIntervalS,
        String otherLensesMm) {

    /** A camera without other lenses. */
    public static CameraRow of(long id, Camera camera) {
        return of(id, camera, "");
    }

    public static CameraRow of(long id, Camera camera, String otherLensesMm) {
        return new CameraRow(
                id,
                camera.name(),
                camera.sensor().pixelsWide(),
                camera.sensor().pixelsHigh(),
                rounded(camera.sensor().widthM() * 1000),
                rounded(camera.sensor().heightM() * 1000),
                rounded(camera.focalLengthM() * 1000),
                camera.shutter().kind().name(),
                camera.shutter().readoutS(),
                camera.minIntervalS(),
                camera.mount().name(),
                rounded(camera.storage().bytesPerPhoto() / 1e6),
                rounded(camera.storage().cardBytes() / 1e9),
                camera.storage().photosPerFlight(),
                camera.storage().rawIntervalS(),
                otherLensesMm);
    }

    private static double rounded(double figure) {
        return Math.round(figure * 1e9) / 1e9;
    }

    /** Whether it is the same camera with the same figures, whatever its number in the catalogue. */
    public boolean same(CameraRow other) {
        return known(0, name).equals(other.known(0, other.name));
    }

    public Camera camera() {
        return new Camera(
                name,
                Sensor.ofMillimetres(pixelsWide, pixelsHigh, sensorWidthMm, sensorHeightMm),
                focalLengthMm / 1000,
                new Shutter(Shutter.Kind.valueOf(shutter), readoutS),
                minIntervalS,
                Mount.valueOf(mount),
                Camera.Storage.of(megabytesPerPhoto, cardGigabytes, photosPerFlight)
                        .withRawInterval(rawIntervalS));
    }

    /** The same camera under another name. */
    public CameraRow named(String other) {
        return known(id, other);
    }

    private CameraRow known(long number, String as) {
        return new CameraRow(
                number,
                as,
                pixelsWide,
                pixelsHigh,
                sensorWidthMm,
                sensorHeightMm,
                focalLengthMm,
                shutter,
                readoutS,
                minIntervalS,
                mount,
                megabytesPerPhoto,
                cardGigabytes,
                photosPerFlight,
                rawIntervalS,
                otherLensesMm);
    }

    /** Why it makes no camera, or one of its lenses none; empty where all do. */
    public Optional<String> fault() {
        try {
            lensesMm().forEach(this::withLens);
            return Optional.empty();
        } catch (RuntimeException cannotBe) {
            return Optional.of(String.valueOf(cannotBe.getMessage()));
        }
    }

    /** Focal lengths of all its lenses in millimetres, its own first. */
    public List<Double> lensesMm() {
        List<Double> lenses = new ArrayList<>(List.of(focalLengthMm));
        Arrays.stream(otherLensesMm.split(","))
                .map(String::strip)
                .filter(text -> !text.isEmpty())
                .map(Double::parseDouble)
                .forEach(lenses::add);
        return lenses;
    }

    /** The camera with one of its lenses; named by it when it is not its own. */
    public Camera withLens(double focalMm) {
        Camera own = camera();
        if (focalMm == focalLengthMm) {
            return own;
        }
        String lens = ", %s mm"
                .formatted(BigDecimal.valueOf(focalMm).stripTrailingZeros().toPlainString());
        return new Camera(
                name.replaceFirst(", [0-9.]+ mm$", "") + lens,
                own.sensor(),
                focalMm / 1000,
                own.shutter(),
                own.minIntervalS(),
                own.mount(),
                own.storage());
    }
}

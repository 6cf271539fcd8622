package yalos.web.kit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.fault.InputFault;
import yalos.web.store.CameraRow;

/** A camera as typed into the form: texts, so that nothing typed is lost when one of them is wrong. */
public record CameraForm(
        String name,
        String pixelsWide,
        String pixelsHigh,
        String sensorWidthMm,
        String sensorHeightMm,
        String focalLengthMm,
        String shutter,
        String readoutS,
        String minIntervalS,
        String mount,
        String megabytesPerPhoto,
        String cardGigabytes,
        String photosPerFlight,
        String rawIntervalS,
        String otherLensesMm) {

    private static final int LONGEST_NAME = 80;

    static CameraForm of(CameraRow row) {
        return new CameraForm(
                row.name(),
                String.valueOf(row.pixelsWide()),
                String.valueOf(row.pixelsHigh()),
                plain(row.sensorWidthMm()),
                plain(row.sensorHeightMm()),
                plain(row.focalLengthMm()),
                row.shutter(),
                plain(row.readoutS()),
                plain(row.minIntervalS()),
                row.mount(),
                plain(row.megabytesPerPhoto()),
                plain(row.cardGigabytes()),
                String.valueOf(row.photosPerFlight()),
                plain(row.rawIntervalS()),
                row.otherLensesMm());
    }

    static CameraForm empty() {
        return new CameraForm(
                "",
                "",
                "",
                "",
                "",
                "",
                Shutter.Kind.MECHANICAL.name(),
                "0",
                "1",
                Mount.WIDTH_ACROSS.name(),
                "10",
                "128",
                "9999",
                "0",
                "");
    }

    /**
     * @throws InputFault for a figure that is none or cannot be, naming the field of the form
     */
    Camera camera() {
        if (name == null || name.isBlank() || name.strip().length() > LONGEST_NAME) {
            throw new InputFault("name", name, "Give the camera a name of up to 80 characters, by its class.");
        }
        Sensor sensor = Sensor.ofMillimetres(
                whole("pixelsWide", pixelsWide, "Pixels along the width"),
                whole("pixelsHigh", pixelsHigh, "Pixels along the height"),
                number("sensorWidthMm", sensorWidthMm, "Sensor width"),
                number("sensorHeightMm", sensorHeightMm, "Sensor height"));
        return new Camera(
                name.strip(),
                sensor,
                number("focalLengthMm", focalLengthMm, "Focal length") / 1000,
                new Shutter(
                        choice(Shutter.Kind.class, "shutter", shutter), number("readoutS", readoutS, "Read-out time")),
                number("minIntervalS", minIntervalS, "Shortest interval"),
                choice(Mount.class, "mount", mount),
                Camera.Storage.of(
                                number("megabytesPerPhoto", megabytesPerPhoto, "Megabytes a photo"),
                                number("cardGigabytes", cardGigabytes, "Card"),
                                whole("photosPerFlight", photosPerFlight, "Photos in one flight"))
                        .withRawInterval(rawInterval()));
    }

    private double rawInterval() {
        boolean none = rawIntervalS == null || rawIntervalS.isBlank();
        return none ? 0 : number("rawIntervalS", rawIntervalS, "Interval with raw files");
    }

    /**
     * The other lenses, checked one by one and written alike.
     *
     * @throws InputFault for a focal length that is none
     */
    String lenses() {
        if (otherLensesMm == null || otherLensesMm.isBlank()) {
            return "";
        }
        List<String> lenses = new ArrayList<>();
        for (String text : otherLensesMm.split("[,;]")) {
            double focal = number("otherLensesMm", text.replace("mm", ""), "Other lenses");
            lenses.add(plain(InputFault.within("otherLensesMm", focal, 0.5, 2000, "mm")));
        }
        return String.join(", ", lenses);
    }

    private static double number(String field, String text, String label) {
        try {
            return Double.parseDouble(text.strip().replace(',', '.'));
        } catch (NumberFormatException | NullPointerException e) {
            throw new InputFault(field, text, "%s: “%s” is not a number.".formatted(label, text));
        }
    }

    private static int whole(String field, String text, String label) {
        double number = number(field, text, label);
        if (number != Math.rint(number) || Math.abs(number) > 1e9) {
            throw new InputFault(field, text, "%s: “%s” is not a whole number.".formatted(label, text));
        }
        return (int) number;
    }

    private static <E extends Enum<E>> E choice(Class<E> type, String field, String text) {
        try {
            return Enum.valueOf(type, text);
        } catch (IllegalArgumentException | NullPointerException e) {
            throw new InputFault(field, text, "“%s” is not one of the choices.".formatted(text));
        }
    }

    private static String plain(double figure) {
        return BigDecimal.valueOf(figure).stripTrailingZeros().toPlainString();
    }
}

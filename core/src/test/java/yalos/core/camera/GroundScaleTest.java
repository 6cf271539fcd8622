package yalos.core.camera;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.data.Percentage.withPercentage;

import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.Samples;
import yalos.core.units.Unit;

class GroundScaleTest {
    private static final double REFERENCE_TOLERANCE = 1e-9;

    static Stream<Reference.Row> gsd() {
        return Reference.rows("gsd.csv");
    }

    @ParameterizedTest
    @MethodSource("gsd")
    void agreesWithExactRationalNumbers(Reference.Row row) {
        int wide = row.whole("image_width_px");
        int high = row.whole("image_height_px");
        Camera camera = new Camera(
                "reference",
                new Sensor(
                        wide,
                        high,
                        wide * row.number("pixel_pitch_x_um") * 1e-6,
                        high * row.number("pixel_pitch_y_um") * 1e-6),
                row.number("focal_mm") / 1000,
                Shutter.mechanical(),
                0.5,
                row.text("mounting").equals("landscape") ? Mount.WIDTH_ACROSS : Mount.HEIGHT_ACROSS,
                Camera.Storage.of(10, 100, 10_000));
        Unit unit = switch (row.text("height_unit")) {
            case "m" -> Unit.METRE;
            case "ft" -> Unit.FOOT;
            default -> Unit.US_SURVEY_FOOT;
        };
        GroundScale scale = new GroundScale(camera, unit.toSi(row.number("height_value")));

        close(scale.heightM(), row, "height_m");
        close(scale.gsdWideM(), row, "gsd_x_m");
        close(scale.gsdHighM(), row, "gsd_y_m");
        close(scale.gsdAcrossM(), row, "gsd_across_m");
        close(scale.gsdAlongM(), row, "gsd_along_m");
        close(scale.footprintAcrossM(), row, "footprint_across_m");
        close(scale.footprintAlongM(), row, "footprint_along_m");
        GroundScale back = GroundScale.ofGsd(camera, row.number("target_gsd_cm") / 100);
        close(back.heightM(), row, "height_for_target_gsd_m");
    }

    private static void close(double ours, Reference.Row row, String column) {
        assertThat(ours).as(column).isCloseTo(row.number(column), withPercentage(100 * REFERENCE_TOLERANCE));
    }

    /** Trade figures (common practice): GSD in centimetres to the last digit given. */
    @ParameterizedTest
    @CsvSource({
        "5280, 3956, 17.3,   13.0,   12.29, 68,       ft, 0.55",
        "5280, 3956, 17.3,   13.0,   12.29, 303,      ft, 2.46",
        "2592, 1944, 5.184,  3.888,  4.34,  98,       ft, 1.38",
        "6252, 4168, 23.5,   15.7,   15.6,  60,       m,  1.45",
    })
    void agreesWithTradeFigures(
            int wide,
            int high,
            double widthMm,
            double heightMm,
            double focalMm,
            double height,
            String unit,
            double cm) {
        Camera camera = Samples.camera(Sensor.ofMillimetres(wide, high, widthMm, heightMm), focalMm);
        double heightM = Unit.typed(unit, Unit.Family.LENGTH).orElseThrow().toSi(height);
        assertThat(new GroundScale(camera, heightM).gsdM() * 100).isCloseTo(cm, Offset.offset(0.005));
    }

    /** Trade figure (common practice): a 42-megapixel full-frame camera with 35 mm needs about 310 m for 4 cm. */
    @Test
    void fullFrameNeedsAbout310MetresForFourCentimetres() {
        Camera camera = Samples.camera(Sensor.ofMillimetres(7952, 5304, 35.9, 24.0), 35);
        assertThat(GroundScale.ofGsd(camera, 0.04).heightM()).isCloseTo(310, Offset.offset(1.0));
    }

    @Test
    void roundedSensorSidesDoNotMakePixelsOblong() {
        Sensor sensor = Sensor.ofMillimetres(5280, 3956, 17.3, 13.0);
        assertThat(sensor.squarePixels()).isTrue();
        assertThat(sensor.pitchM() * 1e6).isCloseTo(3.27652, Offset.offset(1e-5));
        assertThat(new Sensor(1000, 1000, 4e-3, 4.4e-3).squarePixels()).isFalse();
    }

    @Test
    void questionsAFocalLengthEqualToASensorSide() {
        Camera camera = Samples.camera(Sensor.ofMillimetres(5280, 3956, 17.3, 13.0), 13.0);
        assertThat(camera.doubts()).extracting(Camera.Doubt::field).containsExactly("focalLengthMm");
        assertThat(Samples.twentyMegapixel().doubts()).isEmpty();
    }
}

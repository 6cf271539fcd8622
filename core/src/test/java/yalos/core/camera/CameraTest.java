package yalos.core.camera;

import static org.assertj.core.api.Assertions.assertThat;

import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CameraTest {
    private static Camera camera(Sensor sensor, double focalMm, Mount mount) {
        return new Camera(
                "test", sensor, focalMm / 1000, Shutter.mechanical(), 0.7, mount, Camera.Storage.of(10, 128, 10_000));
    }

    /** A full frame of 36 by 24 mm behind 50 mm sees 39.6° by 27.0° (textbook figures of photography, from memory). */
    @Test
    void anglesOfViewOfTheTextbook() {
        Sensor full = Sensor.ofMillimetres(6000, 4000, 36, 24);
        Camera wide = camera(full, 50, Mount.WIDTH_ACROSS);
        assertThat(Math.toDegrees(wide.fieldOfViewAcrossRad())).isCloseTo(39.6, Offset.offset(0.05));
        assertThat(Math.toDegrees(wide.fieldOfViewAlongRad())).isCloseTo(27.0, Offset.offset(0.05));
        Camera high = camera(full, 50, Mount.HEIGHT_ACROSS);
        assertThat(high.fieldOfViewAcrossRad()).isEqualTo(wide.fieldOfViewAlongRad());
        assertThat(high.fieldOfViewAlongRad()).isEqualTo(wide.fieldOfViewAcrossRad());
    }

    @Test
    void theMountSaysWhichSideLiesAcross() {
        Sensor sensor = Sensor.ofMillimetres(5280, 3956, 17.3, 13.0);
        Camera wide = camera(sensor, 12.29, Mount.WIDTH_ACROSS);
        Camera high = camera(sensor, 12.29, Mount.HEIGHT_ACROSS);
        assertThat(wide.pixelsAcross()).isEqualTo(5280);
        assertThat(wide.pixelsAlong()).isEqualTo(3956);
        assertThat(high.pixelsAcross()).isEqualTo(3956);
        assertThat(high.pixelsAlong()).isEqualTo(5280);
        assertThat(wide.sideAcrossM()).isCloseTo(0.0173, Offset.offset(1e-9));
        // the pixels are as good as square, so the width's pitch holds for both sides: 3956 · 17.3 mm / 5280
        assertThat(high.sideAcrossM()).isCloseTo(0.0129619, Offset.offset(1e-7));
        assertThat(wide.megapixels()).isEqualTo(20);
        assertThat(wide.imageYawRad(1)).isEqualTo(1);
        assertThat(high.imageYawRad(1)).isCloseTo(1 + Math.PI / 2, Offset.offset(1e-12));
    }

    /** Pitch is side over pixels, so 4000 pixels on 2.8 mm are 0.7 µm, on 120 mm they are 30 µm. */
    @ParameterizedTest
    @CsvSource({
        "4000, 3000, 2.79, 2.0925, 5, sensorAcrossMm",
        "4000, 3000, 2.81, 2.1075, 5,",
        "4000, 3000, 119.9, 89.925, 100,",
        "4000, 3000, 120.1, 90.075, 100, sensorAcrossMm",
        // pixels 1.9 % and 2.1 % from square
        "4000, 3000, 16.0, 12.228, 12,",
        "4000, 3000, 16.0, 12.252, 12.1, sensorAlongMm",
        "4000, 3000, 16.0, 11.748, 12.1, sensorAlongMm",
        // the focal length is a side of the sensor
        "4000, 3000, 16.0, 12.0, 16.0, focalLengthMm",
        "4000, 3000, 16.0, 12.0, 12.0, focalLengthMm",
        "4000, 3000, 16.0, 12.0, 12.01,",
        // 2 atan(8 / f): 120° at 4.62 mm, 2° at 458 mm
        "4000, 3000, 16.0, 12.0, 4.60, focalLengthMm",
        "4000, 3000, 16.0, 12.0, 4.64,",
        "4000, 3000, 16.0, 12.0, 457,",
        "4000, 3000, 16.0, 12.0, 460, focalLengthMm",
    })
    void doubtsFiguresThatCannotWellBe(
            int wide, int high, double widthMm, double heightMm, double focalMm, String field) {
        Camera camera = camera(Sensor.ofMillimetres(wide, high, widthMm, heightMm), focalMm, Mount.WIDTH_ACROSS);
        if (field == null) {
            assertThat(camera.doubts()).isEmpty();
        } else {
            assertThat(camera.doubts()).extracting(Camera.Doubt::field).containsExactly(field);
        }
    }

    @Test
    void aDoubtTellsItsFigures() {
        Camera skew = camera(Sensor.ofMillimetres(4000, 3000, 16.0, 12.6), 12.1, Mount.WIDTH_ACROSS);
        assertThat(skew.doubts().get(0).question()).contains("4.00 × 4.20 µm");
        Camera fish = camera(Sensor.ofMillimetres(4000, 3000, 16.0, 12.0), 4, Mount.WIDTH_ACROSS);
        assertThat(fish.doubts().get(0).question()).contains("127°");
    }
}

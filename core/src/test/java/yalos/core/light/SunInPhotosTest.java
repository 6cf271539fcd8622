package yalos.core.light;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.geodesy.LonLat;

/** Hot spot and glint by the angles of a frame; the same sun on another day. */
class SunInPhotosTest {
    /** Half its frame sees 35.1° to the sides and 27.9° ahead: atan(8.65 / 12.29), atan(6.5 / 12.29). */
    private static final Lens LENS = Lens.of(Samples.twentyMegapixel());

    private static List<SunInPhotos.Shot> looking(double pitchDeg) {
        return List.of(new SunInPhotos.Shot(new Pose(0, 0, 100, 0, Math.toRadians(pitchDeg), 0), LENS));
    }

    private static Sun sun(double elevationDeg, double azimuthDeg) {
        return new Sun(Math.toRadians(elevationDeg), Math.toRadians(azimuthDeg));
    }

    /** The sun 30° from overhead: within the frame to the side, beyond it ahead. */
    @Test
    void aPhotoStraightDownHoldsBothUnderAHighSun() {
        assertThat(SunInPhotos.of(looking(-90), sun(60, 90))).isEqualTo(new SunInPhotos(1, 1));
        assertThat(SunInPhotos.of(looking(-90), sun(60, 0))).isEqualTo(new SunInPhotos(0, 0));
        assertThat(SunInPhotos.of(looking(-90), sun(63, 0))).isEqualTo(new SunInPhotos(1, 1));
        assertThat(SunInPhotos.of(looking(-90), sun(30, 90))).isEqualTo(new SunInPhotos(0, 0));
        assertThat(SunInPhotos.of(looking(-90), sun(-5, 90))).isEqualTo(new SunInPhotos(0, 0));
    }

    /** Tilted 45° to the north: with the sun in the north it holds the glint, in the south the hot spot. */
    @Test
    void aTiltedPhotoHoldsOneOfThem() {
        assertThat(SunInPhotos.of(looking(-45), sun(45, 0))).isEqualTo(new SunInPhotos(0, 1));
        assertThat(SunInPhotos.of(looking(-45), sun(45, 180))).isEqualTo(new SunInPhotos(1, 0));
    }

    @Test
    void theSameSunComesAgainOnTheSameSideOfNoon() {
        LonLat place = Samples.at(0, 0);
        Instant earlier = Instant.parse("2026-05-02T09:30:00Z");
        SameSun again = SameSun.of(place, earlier, LocalDate.of(2027, 5, 2)).orElseThrow();
        assertThat(Math.abs(again.at().getEpochSecond()
                        - Instant.parse("2027-05-02T09:30:00Z").getEpochSecond()))
                .isLessThan(120);
        assertThat(again.asHigh()).isTrue();
        assertThat(again.then().elevationRad()).isCloseTo(again.before().elevationRad(), Offset.offset(1e-4));
        SameSun later = SameSun.of(place, earlier, LocalDate.of(2027, 4, 1)).orElseThrow();
        assertThat(later.at()).isAfter(Instant.parse("2027-04-01T09:45:00Z"));
        assertThat(later.turnedRad()).isPositive();
        SameSun winter = SameSun.of(place, earlier, LocalDate.of(2027, 12, 1)).orElseThrow();
        assertThat(winter.asHigh()).isFalse();
        assertThat(SameSun.of(place, Instant.parse("2026-05-02T01:00:00Z"), LocalDate.of(2027, 5, 2)))
                .isEmpty();
    }

    /** In the southern hemisphere the morning sun stands in the north-east; the date line makes no other day of it. */
    @Test
    void southernAndFarEasternPlaces() {
        LonLat south = LonLat.of(179.9, -40);
        Instant morning = Instant.parse("2027-01-14T20:30:00Z");
        SameSun again = SameSun.of(south, morning, LocalDate.of(2027, 1, 15)).orElseThrow();
        assertThat(Math.abs(again.at().getEpochSecond() - morning.getEpochSecond()))
                .isLessThan(120);
    }
}

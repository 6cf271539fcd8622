package yalos.core.light;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.geodesy.LonLat;

/** Against positions of the sun by an astronomers' library, its events by two of them, shadows by exact geometry. */
class SunTest {
    static Stream<Reference.Row> positions() {
        return Reference.rows("sun_position.csv");
    }

    static Stream<Reference.Row> events() {
        return Reference.rows("sun_events.csv");
    }

    static Stream<Reference.Row> poles() {
        return Reference.rows("shadow_objects.csv");
    }

    private static LonLat place(Reference.Row row) {
        return LonLat.of(row.number("lon_deg"), row.number("lat_deg"));
    }

    @ParameterizedTest
    @MethodSource("positions")
    void standsWhereTheReferenceHasIt(Reference.Row row) {
        Sun sun = Sun.at(place(row), Instant.parse(row.text("utc")));
        double elevation = Math.toRadians(row.number("elevation_deg"));
        double azimuth = Math.toRadians(row.number("azimuth_deg"));
        double cos = Math.sin(elevation) * Math.sin(sun.elevationRad())
                + Math.cos(elevation) * Math.cos(sun.elevationRad()) * Math.cos(azimuth - sun.azimuthRad());
        assertThat(Math.toDegrees(Math.acos(Math.min(1, cos)))).isLessThan(0.05);
    }

    @ParameterizedTest
    @MethodSource("events")
    void risesAndSetsWhenTheReferenceSays(Reference.Row row) {
        LonLat place = place(row);
        SunDay day = SunDay.of(place, LocalDate.parse(row.text("local_date")));
        // Near the poles the sun grazes the horizon, and a hundredth of a degree is minutes.
        long tolerance = Math.abs(place.latDeg()) > 65 ? 240 : 60;
        assertClose(day.noon(), row.text("solar_noon_utc"), tolerance);
        assertThat(Math.toDegrees(day.noonElevationRad()))
                .isCloseTo(row.number("elevation_at_noon_deg"), Offset.offset(0.05));
        assertThat(day.alwaysUp()).isEqualTo(row.text("state").equals("sun always up"));
        assertThat(day.alwaysDown()).isEqualTo(row.text("state").equals("sun always down"));
        if (row.text("state").equals("normal")) {
            assertClose(day.rise().orElseThrow(), row.text("sunrise_utc"), tolerance);
            assertClose(day.set().orElseThrow(), row.text("sunset_utc"), tolerance);
        }
        List<SunDay.Span> above = SunDay.above(place, day.noon(), Math.toRadians(30));
        double minutes = above.stream()
                        .map(SunDay.Span::length)
                        .mapToDouble(Duration::toSeconds)
                        .sum()
                / 60;
        assertThat(minutes).isCloseTo(row.number("above_30_minutes"), Offset.offset(tolerance / 30.0));
    }

    private static void assertClose(Instant found, String expected, long seconds) {
        assertThat(Math.abs(Duration.between(found, Instant.parse(expected)).toSeconds()))
                .as("%s, expected %s", found, expected)
                .isLessThanOrEqualTo(seconds);
    }

    @ParameterizedTest
    @MethodSource("poles")
    void shadowsAreAsLongAsGeometryHasThem(Reference.Row row) {
        Sun sun =
                new Sun(Math.toRadians(row.number("sun_elevation_deg")), Math.toRadians(row.number("sun_azimuth_deg")));
        Optional<Shadow> shadow = Shadow.of(
                row.number("height_m"),
                sun,
                Math.toRadians(row.number("slope_deg")),
                Math.toRadians(row.number("slope_aspect_deg")));
        assertThat(shadow.isPresent()).isEqualTo(row.text("state").equals("shadow"));
        shadow.ifPresent(found -> {
            double level = row.number("shadow_length_horizontal_m");
            double along = row.number("shadow_length_along_ground_m");
            assertThat(found.horizontalM()).isCloseTo(level, Offset.offset(1e-9 * (1 + level)));
            assertThat(found.alongGroundM()).isCloseTo(along, Offset.offset(1e-9 * (1 + along)));
        });
    }

    /** The same rows of the reference, in a sentence: Munich at midsummer, and a place where the sun does not rise. */
    @Test
    void aDayIsToldInASentence() {
        LonLat munich = LonLat.of(11.575, 48.137);
        assertThat(Daylight.words(munich, LocalDate.of(2025, 6, 21), ZoneOffset.UTC))
                .isEqualTo("the sun is above 30° from 06:33 to 15:57, highest at 11:15 with 65°; shadows then 0.5 times"
                        + " the height (Z)");
        assertThat(Daylight.words(munich, LocalDate.of(2025, 12, 21), ZoneOffset.UTC))
                .contains("never above 30°");
        assertThat(Daylight.words(LonLat.of(20, 78), LocalDate.of(2025, 12, 21), ZoneOffset.UTC))
                .isEqualTo("the sun does not rise");
    }
}

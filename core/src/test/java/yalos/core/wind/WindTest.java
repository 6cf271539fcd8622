package yalos.core.wind;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;

class WindTest {
    static Stream<Reference.Row> winds() {
        return Reference.rows("wind.csv");
    }

    /** Reference values to 40 digits, and by vector sum; wind.csv. */
    @ParameterizedTest
    @MethodSource("winds")
    void agreesWithTheTriangleOfVelocities(Reference.Row row) {
        Wind wind = new Wind(Math.toRadians(row.number("wind_from_deg")), row.number("wind_speed_m_s"));
        double track = Math.toRadians(row.number("track_deg"));
        double airspeed = row.number("airspeed_m_s");
        assertThat(wind.crosswindMps(track)).isCloseTo(row.number("cross_wind_from_right_m_s"), Offset.offset(1e-9));
        assertThat(wind.headwindMps(track)).isCloseTo(row.number("head_wind_m_s"), Offset.offset(1e-9));
        if (row.whole("feasible") == 0) {
            assertThat(wind.groundSpeedMps(track, airspeed)).isEmpty();
            return;
        }
        double ground = wind.groundSpeedMps(track, airspeed).orElseThrow();
        assertThat(ground).isCloseTo(row.number("ground_speed_m_s"), Offset.offset(1e-6));
        assertThat(Math.toDegrees(wind.crabRad(track, airspeed).orElseThrow()))
                .isCloseTo(row.number("crab_deg"), Offset.offset(1e-6));
        assertThat(wind.airspeedMps(track, ground)).isCloseTo(airspeed, Offset.offset(1e-9));
    }
}

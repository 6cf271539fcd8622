package yalos.web.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import yalos.core.exchange.FlightLog.Moment;
import yalos.core.fault.InputFault;

/** Flight logs as GeoJSON: each place has the time that stands for it, in whatever feature it is. */
class LogJsonTest {
    private static final Instant TEN = Instant.parse("2026-06-18T10:00:00Z");

    private static List<Moment> read(String features) {
        String text = "{\"type\": \"FeatureCollection\", \"features\": [%s]}".formatted(features);
        return LogJson.read(text.getBytes(StandardCharsets.UTF_8), Optional.of(TEN));
    }

    private static String line(String places, String properties) {
        return "{\"type\": \"Feature\", \"geometry\": {\"type\": \"LineString\", \"coordinates\": %s}, \"properties\": {%s}}"
                .formatted(places, properties);
    }

    @Test
    void eachLineCountsItsOwnSeconds() {
        List<Moment> moments = read(line("[[-4.3, 54.5, 80], [-4.2, 54.5]]", "\"seconds\": [0, 2.5]")
                + ","
                + line("[[-4.1, 54.5], [-4.0, 54.5]]", "\"seconds\": [60, 61]"));
        assertThat(moments)
                .extracting(Moment::at)
                .containsExactly(TEN, TEN.plusMillis(2500), TEN.plusSeconds(60), TEN.plusSeconds(61));
        assertThat(moments.get(0).upM()).hasValue(80);
        assertThat(moments.get(3).upM()).isEmpty();
    }

    @Test
    void timesMayNameAZoneOnEitherSideOfGreenwich() {
        assertThat(
                        read(
                                line(
                                        "[[1, 2], [1, 2], [1, 2]]",
                                        "\"coordTimes\": [\"2026-06-18T05:00:00-05:00\", \"2026-06-18T12:00:00+02:00\", \"2026-06-18T10:00:00\"]")))
                .extracting(Moment::at)
                .containsOnly(TEN)
                .hasSize(3);
    }

    @Test
    void whatCannotBeUsedIsToldWithItsPlace() {
        assertThatThrownBy(() -> read(line("[[1, 2], [1, 2]]", "\"times\": [\"2026-06-18T05:00:00Z\"]")))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("2 places and 1 times");
        assertThatThrownBy(() -> read(line("[[1, 2]]", "\"times\": [\"noon\"]")))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("noon");
        assertThatThrownBy(() -> LogJson.read("{".getBytes(StandardCharsets.UTF_8), Optional.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no sound GeoJSON");
        assertThatThrownBy(() -> LogJson.read(
                        "{\"features\":[%s]}"
                                .formatted(line("[[1, 2]]", "\"seconds\": [1]"))
                                .getBytes(StandardCharsets.UTF_8),
                        Optional.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("seconds only");
    }
}

package yalos.core.weather;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.OptionalDouble;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.exchange.WeatherTable;
import yalos.core.fault.InputFault;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits.Sky;
import yalos.core.weather.Limits.Verdict;

/** Hours judged against limits, and tables in other people's units. */
class WeatherTest {
    private static final LocalDate DAY = LocalDate.of(2027, 4, 30);
    private static final ZoneId ZONE = ZoneId.of("UTC+1");
    private static final Limits LIMITS = Limits.USUAL.forAircraft(10, 70);

    private static WeatherHour hour(double wind, double gust, double rain, double celsius, double cloud, double sight) {
        return new WeatherHour(
                DAY.atTime(10, 0),
                OptionalDouble.of(wind),
                OptionalDouble.of(gust),
                OptionalDouble.empty(),
                OptionalDouble.of(rain),
                OptionalDouble.of(celsius + 273.15),
                OptionalDouble.of(cloud),
                OptionalDouble.of(sight));
    }

    private static WeatherTable read(String text) {
        return WeatherTable.read(text.getBytes(StandardCharsets.UTF_8), DAY, ZONE);
    }

    @Test
    void everyHourIsGoMindOrStopWithItsFigure() {
        assertThat(LIMITS.judge(hour(4, 6, 0, 15, 0.1, 20_000), Sky.EVEN, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.GO);
        assertThat(LIMITS.judge(hour(7, 9, 0, 15, 0.1, 20_000), Sky.ANY, UnitChoice.METRIC)
                        .reasons())
                .containsExactly("wind 7.0 m/s, near the limit of 8.0");
        assertThat(LIMITS.judge(hour(9, 11, 0, 15, 0.1, 20_000), Sky.ANY, UnitChoice.METRIC)
                        .reasons()
                        .get(0))
                .isEqualTo("wind 9.0 m/s, limit 8.0");
        assertThat(LIMITS.judge(hour(4, 13, 0, 15, 0.1, 20_000), Sky.ANY, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.STOP);
        assertThat(LIMITS.judge(hour(4, 6, 0.5, 15, 0.1, 20_000), Sky.ANY, UnitChoice.METRIC)
                        .reasons())
                .containsExactly("rain 0.5 mm");
        assertThat(LIMITS.judge(hour(4, 6, 0, 15, 0.1, 600), Sky.ANY, UnitChoice.METRIC)
                        .reasons())
                .containsExactly("fog, 600.0 m");
        assertThat(LIMITS.judge(hour(4, 6, 0, 2, 0.1, 20_000), Sky.ANY, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.MIND);
        assertThat(LIMITS.judge(hour(4, 6, 0, 15, 0.5, 20_000), Sky.EVEN, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.MIND);
        assertThat(LIMITS.judge(hour(4, 6, 0, 15, 0.95, 20_000), Sky.EVEN, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.GO);
        assertThat(LIMITS.judge(hour(4, 6, 0, 15, 0.3, 20_000), Sky.SOFT, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.MIND);
    }

    /** The aircraft's own limit counts where it is less; at 70 m a wind of 6 m/s at ten metres blows (70/10)^(1/7) as hard. */
    @Test
    void limitsAndHeights() {
        assertThat(Limits.USUAL.forAircraft(6, 70).windMps()).isEqualTo(6);
        assertThat(hour(6, 8, 0, 15, 0, 20_000).aloftMps(70).orElseThrow())
                .isCloseTo(6 * Math.pow(7, 1.0 / 7), Offset.offset(1e-12));
    }

    @Test
    void theStationsOwnTableIsReadBack() {
        WeatherTable table = read(SimulatedStation.csv(DAY));
        assertThat(table.remarks()).isEmpty();
        assertThat(table.hours()).hasSize(16);
        for (int i = 0; i < 16; i++) {
            WeatherHour own = SimulatedStation.day(DAY).get(i);
            WeatherHour read = table.hours().get(i);
            assertThat(read.at()).isEqualTo(own.at());
            assertThat(read.windMps().orElseThrow()).isCloseTo(own.windMps().orElseThrow(), Offset.offset(0.051));
            assertThat(read.airK().orElseThrow()).isCloseTo(own.airK().orElseThrow(), Offset.offset(0.51));
        }
    }

    /** 36 km/h, 10 kn, 50 °F, 4 of 8 eighths, 3 miles, 0.1 inch: by the definitions of the units. */
    @Test
    void otherUnitsAreThoseOfTheHeading() {
        WeatherTable table = read("Time;Wind speed (km/h);Gusts kn;Temp (F);Cloud (okta);Vis (mi);Rain (in)\n"
                + "09:00;36;20;50;4;3;0,1\n10:00;18;10;41;8;3;0\n");
        WeatherHour nine = table.hours().get(0);
        assertThat(nine.at()).isEqualTo(LocalDateTime.of(2027, 4, 30, 9, 0));
        assertThat(nine.windMps().orElseThrow()).isCloseTo(10, Offset.offset(1e-9));
        assertThat(nine.gustMps().orElseThrow()).isCloseTo(20 * 1852 / 3600.0, Offset.offset(1e-9));
        assertThat(nine.airK().orElseThrow()).isCloseTo(283.15, Offset.offset(1e-9));
        assertThat(nine.cloud().orElseThrow()).isCloseTo(0.5, Offset.offset(1e-9));
        assertThat(nine.visibilityM().orElseThrow()).isCloseTo(4828.032, Offset.offset(1e-6));
        assertThat(nine.rainMm().orElseThrow()).isCloseTo(2.54, Offset.offset(1e-9));
    }

    @Test
    void gapsMissingFiguresAndUnitsAreSaid() {
        WeatherTable table =
                read("time,wind,temp\n2027-04-30 08:00,4,12\n2027-04-30T12:00,,n/a\n2027-04-30T13:00Z,5,10\n");
        assertThat(table.hours()).hasSize(3);
        assertThat(table.hours().get(1).windMps()).isEmpty();
        assertThat(table.hours().get(2).at()).isEqualTo(DAY.atTime(14, 0));
        assertThat(table.remarks())
                .anyMatch(remark -> remark.contains("“wind” does not say its unit"))
                .anyMatch(remark -> remark.contains("Nothing is known between 09:00 and 12:00"));
        assertThat(LIMITS.judge(table.hours().get(1), Sky.ANY, UnitChoice.METRIC)
                        .verdict())
                .isEqualTo(Verdict.UNKNOWN);
    }

    @Test
    void crookedTablesAreRefusedInASentence() {
        assertThatThrownBy(() -> read("wind (m/s),rain (mm)\n4,0\n")).hasMessageContaining("No column is named time");
        assertThatThrownBy(() -> read("time,rain\n09:00,2\n")).hasMessageContaining("No column is named wind");
        assertThatThrownBy(() -> read("time,wind\nnoonish,2\n")).hasMessageContaining("“noonish” is no time");
        assertThatThrownBy(() -> read("time,wind\n09:00,180\n")).hasMessageContaining("other units");
        assertThatThrownBy(() -> read("")).hasMessageContaining("no row");
    }

    /** Whatever stands in a file, it is read or refused in a sentence; nothing else comes out. */
    @Test
    void crookedBytesAreReadOrRefused() {
        byte[] good = SimulatedStation.csv(DAY).getBytes(StandardCharsets.UTF_8);
        for (int seed = 0; seed < 400; seed++) {
            Random random = new Random(seed);
            byte[] bad = good.clone();
            for (int i = 0; i <= random.nextInt(30); i++) {
                bad[random.nextInt(bad.length)] = (byte) random.nextInt(256);
            }
            byte[] cut = Arrays.copyOf(bad, random.nextInt(bad.length) + 1);
            try {
                assertThat(WeatherTable.read(cut, DAY, ZONE).hours()).isNotEmpty();
            } catch (InputFault refused) {
                assertThat(refused.getMessage()).isNotBlank();
            }
        }
    }
}

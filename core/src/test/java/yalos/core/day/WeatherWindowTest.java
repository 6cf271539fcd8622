package yalos.core.day;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;
import yalos.core.geodesy.LonLat;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Sky;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.WeatherHour;

/** The longest stretch that told weather leaves, by hand. */
class WeatherWindowTest {
    private static final LonLat MOOR = LonLat.of(-4.349, 54.513);
    private static final ZoneId LONDON = ZoneId.of("Europe/London");
    private static final LocalDate DAY = LocalDate.of(2027, 4, 30);

    private static Optional<WeatherWindow> window(double... windMps) {
        List<WeatherHour> hours = new ArrayList<>();
        for (int hour = 0; hour < windMps.length; hour++) {
            if (!Double.isNaN(windMps[hour])) {
                hours.add(new WeatherHour(
                        DAY.atTime(hour, 0),
                        OptionalDouble.of(windMps[hour]),
                        OptionalDouble.of(windMps[hour] + 1),
                        OptionalDouble.empty(),
                        OptionalDouble.of(0),
                        OptionalDouble.of(285),
                        OptionalDouble.of(0.2),
                        OptionalDouble.of(20_000)));
            }
        }
        return WeatherWindow.of(hours, MOOR, LONDON, DAY, Limits.USUAL, Sky.ANY, UnitChoice.METRIC);
    }

    private static double[] day(double wind) {
        double[] hours = new double[24];
        Arrays.fill(hours, wind);
        return hours;
    }

    @Test
    void aCalmDayLastsFromSunriseToSunset() {
        WeatherWindow window = window(day(3)).orElseThrow();
        assertThat(window.verdict()).isEqualTo(Verdict.GO);
        // Sunrise 5:46 and sunset 20:52 by British summer time at this place on that day, from memory, to a few
        // minutes.
        assertThat(window.from().orElseThrow()).isBetween(DAY.atTime(5, 36), DAY.atTime(5, 56));
        assertThat(window.to().orElseThrow()).isBetween(DAY.atTime(20, 42), DAY.atTime(21, 2));
    }

    @Test
    void theLongerOfTwoStretchesIsTakenAndAGapInWhatIsToldEndsOne() {
        double[] hours = day(15);
        for (int hour : new int[] {7, 8, 13, 14, 15}) {
            hours[hour] = 3;
        }
        WeatherWindow window = window(hours).orElseThrow();
        assertThat(window.from()).contains(DAY.atTime(13, 0));
        assertThat(window.to()).contains(DAY.atTime(16, 0));
        hours[14] = Double.NaN;
        window = window(hours).orElseThrow();
        assertThat(window.from()).contains(DAY.atTime(7, 0));
        assertThat(window.minutes()).isEqualTo(120);
    }

    @Test
    void aDayTooWindyHasNoneAndSaysWhy() {
        WeatherWindow window = window(day(15)).orElseThrow();
        assertThat(window.from()).isEmpty();
        assertThat(window.verdict()).isEqualTo(Verdict.STOP);
        assertThat(window.against()).contains("wind");
        assertThat(window()).isEmpty();
    }

    @Test
    void hoursOfTheNightAreNoWindow() {
        double[] hours = day(15);
        hours[1] = 2;
        hours[2] = 2;
        assertThat(window(hours).orElseThrow().from()).isEmpty();
        List<WeatherHour> none = List.of();
        assertThat(WeatherWindow.of(
                        none, MOOR, LONDON, LocalDateTime.MAX.toLocalDate(), Limits.USUAL, Sky.ANY, UnitChoice.METRIC))
                .isEmpty();
    }
}

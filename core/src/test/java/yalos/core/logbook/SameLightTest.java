package yalos.core.logbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Sun;

/** The same light and the next date: against the sun asked minute by minute, against what symmetry of the year demands, and a calendar read by another library. */
class SameLightTest {
    private static final LonLat MOOR = LonLat.of(-4.349, 54.513);
    private static final LonLat SOUTH = LonLat.of(151.215, -33.857);
    private static final double FIVE = Math.toRadians(5);

    @ParameterizedTest
    @CsvSource({
        "2026-05-14T09:30:00Z, 54.513, -4.349",
        "2026-01-20T23:10:00Z, -33.857, 151.215",
        "2026-06-21T11:50:00Z, 69.6, 18.9"
    })
    void onTheSameDayTheLightIsThatOfThen(String then, double lat, double lon) {
        LonLat place = LonLat.of(lon, lat);
        Instant before = Instant.parse(then);
        LocalDate date = before.plus(Duration.ofHours(Math.round(lon / 15)))
                .atZone(ZoneOffset.UTC)
                .toLocalDate();
        SameLight light = SameLight.of(place, Sun.at(place, before), date, FIVE).orElseThrow();
        assertThat(Math.abs(Duration.between(before, light.closest()).toSeconds()))
                .isLessThan(2);
        assertThat(light.offRad()).isLessThan(1e-4);
        assertThat(light.spans())
                .anyMatch(span -> !span.from().isAfter(before) && !span.to().isBefore(before));
    }

    /** The spans are those minutes in which the angle on the sky, by the dot product of the two directions, is small enough. */
    @Test
    void spansAgreeWithTheSunAskedMinuteByMinute() {
        Sun before = Sun.at(MOOR, Instant.parse("2026-05-14T09:30:00Z"));
        LocalDate date = LocalDate.of(2026, 8, 2);
        SameLight light = SameLight.of(MOOR, before, date, FIVE).orElseThrow();
        assertThat(light.spans()).hasSize(1);
        Instant midnight = Instant.parse("2026-08-02T00:00:00Z");
        for (int minute = 0; minute < 24 * 60; minute++) {
            Instant at = midnight.plusSeconds(60L * minute);
            boolean inside = light.spans().stream()
                    .anyMatch(span -> !span.from().isAfter(at) && !span.to().isBefore(at));
            Sun now = Sun.at(MOOR, at);
            boolean near = angle(before, now) <= FIVE && now.elevationRad() > 0;
            boolean edge = light.spans().stream()
                    .anyMatch(span -> Math.abs(Duration.between(span.from(), at).toSeconds()) < 2
                            || Math.abs(Duration.between(span.to(), at).toSeconds()) < 2);
            if (!edge) {
                assertThat(inside).as("minute %d", minute).isEqualTo(near);
            }
        }
    }

    private static double angle(Sun one, Sun other) {
        double[] a = {
            Math.cos(one.elevationRad()) * Math.sin(one.azimuthRad()),
            Math.cos(one.elevationRad()) * Math.cos(one.azimuthRad()),
            Math.sin(one.elevationRad())
        };
        double[] b = {
            Math.cos(other.elevationRad()) * Math.sin(other.azimuthRad()),
            Math.cos(other.elevationRad()) * Math.cos(other.azimuthRad()),
            Math.sin(other.elevationRad())
        };
        return Math.acos(a[0] * b[0] + a[1] * b[1] + a[2] * b[2]);
    }

    /** The sun's declination passes each value twice a year: a morning of May comes back about 30 July (textbook: as many days after the solstice as before), not at midwinter. */
    @Test
    void theLightOfMayComesBackAsFarBehindTheSolsticeAsItWasBeforeIt() {
        Sun before = Sun.at(MOOR, Instant.parse("2026-05-14T09:30:00Z"));
        List<SameLight> days = SameLight.days(MOOR, before, LocalDate.of(2026, 6, 22), Math.toRadians(1));
        assertThat(days).isNotEmpty();
        LocalDate nearest = days.stream()
                .min((one, other) -> Double.compare(one.offRad(), other.offRad()))
                .orElseThrow()
                .date();
        boolean summer = nearest.isAfter(LocalDate.of(2026, 7, 25)) && nearest.isBefore(LocalDate.of(2026, 8, 4));
        boolean may = nearest.isAfter(LocalDate.of(2027, 5, 11)) && nearest.isBefore(LocalDate.of(2027, 5, 17));
        assertThat(summer || may).isTrue();
        assertThat(days).noneMatch(day -> day.date().getMonthValue() == 12);
        assertThat(days)
                .anyMatch(day -> day.date().getMonthValue() == 7 || day.date().getMonthValue() == 8);
    }

    @Test
    void whereTheSunNeverComesNearNoSpanIsMadeUp() {
        Sun summer = Sun.at(SOUTH, Instant.parse("2026-12-21T01:50:00Z"));
        SameLight winter =
                SameLight.of(SOUTH, summer, LocalDate.of(2026, 6, 21), FIVE).orElseThrow();
        assertThat(winter.spans()).isEmpty();
        // At noon it stands lower by twice the obliquity.
        assertThat(Math.toDegrees(winter.offRad())).isCloseTo(46.9, within(0.6));
        assertThat(SameLight.of(LonLat.of(18.9, 69.6), summer, LocalDate.of(2026, 12, 21), FIVE))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "2026-01-31, 1, MONTHS, 2026-02-28 2026-03-31 2026-04-30",
        "2024-02-29, 1, YEARS, 2026-02-28 2027-02-28 2028-02-29",
        "2026-01-01, 2, WEEKS, 2026-02-12 2026-02-26 2026-03-12",
        "2026-01-01, 90, DAYS, 2026-04-01 2026-06-30 2026-09-28"
    })
    void datesOfASeriesCountFromTheFirst(String first, int every, Series.Step step, String expected) {
        Series series = new Series(LocalDate.parse(first), every, step);
        assertThat(series.after(LocalDate.of(2026, 1, 31), 3))
                .extracting(LocalDate::toString)
                .containsExactly(expected.split(" "));
    }

    @Test
    void aSeriesOfNothingIsRefused() {
        assertThatThrownBy(() -> new Series(LocalDate.of(2026, 1, 1), 0, Series.Step.DAYS))
                .isInstanceOf(InputFault.class);
    }

    /** Read by another library than the one that wrote it. */
    @Test
    void anotherLibraryReadsTheReminders() throws Exception {
        Instant from = Instant.parse("2027-05-14T09:10:00Z");
        byte[] file = Reminder.file(
                List.of(
                        new Reminder.Entry(
                                "block-3-2027-05-14@yalos",
                                "Fly Rigg, meadow; again",
                                "Same light: 10:10 to 10:52, with a comma; and more\nlines, long enough that the line must be folded somewhere on its way.",
                                LocalDate.of(2027, 5, 14),
                                Optional.of(from),
                                Optional.of(from.plusSeconds(2520)),
                                Optional.of(MOOR)),
                        new Reminder.Entry(
                                "block-3-2028-05-14@yalos",
                                "Fly Rigg again",
                                "",
                                LocalDate.of(2028, 5, 14),
                                Optional.empty(),
                                Optional.empty(),
                                Optional.empty())),
                10,
                Instant.parse("2026-05-14T00:00:00Z"));
        Calendar calendar = new CalendarBuilder().build(new ByteArrayInputStream(file));
        List<VEvent> events = calendar.getComponents("VEVENT");
        assertThat(events).hasSize(2);
        VEvent first = events.get(0);
        assertThat(first.getSummary().getValue()).isEqualTo("Fly Rigg, meadow; again");
        assertThat(first.getDescription().getValue()).contains("10:52, with a comma; and more\nlines");
        assertThat(first.getDateTimeStart().getValue()).isEqualTo("20270514T091000Z");
        assertThat(first.getDateTimeEnd().getValue()).isEqualTo("20270514T095200Z");
        assertThat(first.getGeographicPos().getLatitude().doubleValue()).isCloseTo(54.513, within(1e-6));
        assertThat(first.getAlarms()).hasSize(1);
        assertThat(first.getAlarms().get(0).getRequiredProperty("TRIGGER").getValue())
                .isEqualTo("-P10D");
        VEvent day = events.get(1);
        assertThat(day.getDateTimeStart().getValue()).isEqualTo("20280514");
        assertThat(day.getDateTimeEnd().getValue()).isEqualTo("20280515");
        assertThat(new String(file, StandardCharsets.UTF_8).lines())
                .allMatch(line -> line.getBytes(StandardCharsets.UTF_8).length <= 75);
    }
}

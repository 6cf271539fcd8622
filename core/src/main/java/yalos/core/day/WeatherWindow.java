package yalos.core.day;

import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.LonLat;
import yalos.core.light.SunDay;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Judged;
import yalos.core.weather.Limits.Sky;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.WeatherHour;

/**
 * The longest stretch of a day that the told weather lets be flown, between sunrise and sunset: a first look by whole hours, for a list of days. {@link Slot} and {@link Window} look closer.
 *
 * @param from by the clock of the place
 * @param verdict go, or mind where something speaks against some of it
 * @param against what speaks against the day where nothing can be flown, or against this stretch; empty where nothing does
 */
public record WeatherWindow(Optional<LocalDateTime> from, Optional<LocalDateTime> to, Verdict verdict, String against) {

    /** Empty where no weather is told for the day. */
    public static Optional<WeatherWindow> of(
            List<WeatherHour> weather,
            LonLat place,
            ZoneId zone,
            LocalDate date,
            Limits limits,
            Sky sky,
            UnitChoice units) {
        List<WeatherHour> day = weather.stream()
                .filter(hour -> hour.at().toLocalDate().equals(date))
                .sorted(Comparator.comparing(WeatherHour::at))
                .toList();
        if (day.isEmpty()) {
            return Optional.empty();
        }
        SunDay sun = SunDay.of(place, date);
        LocalDateTime rise =
                sun.rise().map(at -> LocalDateTime.ofInstant(at, zone)).orElse(date.atStartOfDay());
        LocalDateTime set = sun.set()
                .map(at -> LocalDateTime.ofInstant(at, zone))
                .orElse(date.plusDays(1).atStartOfDay());
        if (sun.alwaysDown()) {
            return Optional.of(
                    new WeatherWindow(Optional.empty(), Optional.empty(), Verdict.STOP, "the sun does not rise"));
        }
        WeatherWindow clear = longest(day, rise, set, Verdict.GO, limits, sky, units);
        WeatherWindow wide =
                clear.from().isPresent() ? clear : longest(day, rise, set, Verdict.MIND, limits, sky, units);
        return Optional.of(wide);
    }

    private static WeatherWindow longest(
            List<WeatherHour> day,
            LocalDateTime rise,
            LocalDateTime set,
            Verdict worst,
            Limits limits,
            Sky sky,
            UnitChoice units) {
        List<WeatherWindow> runs = new ArrayList<>();
        LocalDateTime from = null;
        LocalDateTime to = null;
        String against = "";
        String stopped = "";
        for (WeatherHour hour : day) {
            Judged judged = limits.judge(hour, sky, units);
            LocalDateTime start = hour.at().isBefore(rise) ? rise : hour.at();
            LocalDateTime end =
                    hour.at().plusHours(1).isAfter(set) ? set : hour.at().plusHours(1);
            boolean flown = judged.verdict().compareTo(worst) <= 0 && start.isBefore(end);
            if (flown && (to == null || to.isBefore(start))) {
                add(runs, from, to, worst, against);
                from = start;
                against = "";
            }
            if (flown) {
                to = end;
                against = against.isEmpty() && !judged.reasons().isEmpty()
                        ? judged.reasons().get(0)
                        : against;
            } else {
                add(runs, from, to, worst, against);
                from = null;
                to = null;
                stopped = stopped.isEmpty()
                                && start.isBefore(end)
                                && !judged.reasons().isEmpty()
                        ? judged.reasons().get(0)
                        : stopped;
            }
        }
        add(runs, from, to, worst, against);
        String why = stopped;
        return runs.stream()
                .max(Comparator.comparing(WeatherWindow::minutes))
                .orElseGet(() -> new WeatherWindow(Optional.empty(), Optional.empty(), Verdict.STOP, why));
    }

    private static void add(
            List<WeatherWindow> runs, LocalDateTime from, LocalDateTime to, Verdict verdict, String against) {
        if (from != null && to != null) {
            runs.add(new WeatherWindow(Optional.of(from), Optional.of(to), verdict, against));
        }
    }

    /** How long it is; 0 where nothing can be flown. */
    public long minutes() {
        return from.isEmpty() || to.isEmpty()
                ? 0
                : Duration.between(from.orElseThrow(), to.orElseThrow()).toMinutes();
    }
}

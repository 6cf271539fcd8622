package yalos.core.weather;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;

/** A small weather station that is not there: a plausible upland day, the same for the same date, to try things with. It says so. */
public final class SimulatedStation {
    private SimulatedStation() {}

    /** Hours of a day: a calm morning, wind that grows to about ten metres a second early in the afternoon and goes down again. */
    public static List<WeatherHour> day(LocalDate date) {
        List<WeatherHour> hours = new ArrayList<>();
        double shift = (date.getDayOfYear() % 5) * 0.15;
        for (int hour = 5; hour <= 20; hour++) {
            double gale = Math.exp(-Math.pow((hour - 13.0) / 1.3, 2));
            double wind = round(2.2 + shift + 0.15 * (hour - 5) + 5.4 * gale);
            hours.add(new WeatherHour(
                    LocalDateTime.of(date, LocalTime.of(hour, 0)),
                    OptionalDouble.of(wind),
                    OptionalDouble.of(round(wind * (1.25 + 0.2 * gale))),
                    OptionalDouble.of(Math.toRadians((225 + 4 * (hour - 5)) % 360)),
                    OptionalDouble.of(hour >= 18 ? 0.4 : 0),
                    OptionalDouble.of(273.15 + Math.round(8 + 6 * Math.sin((hour - 7) * Math.PI / 16))),
                    OptionalDouble.of(Math.round(100 * Math.min(1, 0.1 + 0.05 * (hour - 5) + 0.2 * gale)) / 100.0),
                    OptionalDouble.of(hour < 6 ? 3000 : 20_000)));
        }
        return hours;
    }

    private static double round(double figure) {
        return Math.round(figure * 10) / 10.0;
    }

    /** The same as an open table, units in the heading. */
    public static String csv(LocalDate date) {
        StringBuilder csv = new StringBuilder(
                "time,wind (m/s),gust (m/s),wind from (deg),rain (mm),temperature (C),cloud (%),visibility (km)\n");
        for (WeatherHour hour : day(date)) {
            csv.append(String.format(
                    Locale.ROOT,
                    "%s,%.1f,%.1f,%.0f,%.1f,%.0f,%.0f,%.0f%n",
                    hour.at(),
                    hour.windMps().orElse(0),
                    hour.gustMps().orElse(0),
                    Math.toDegrees(hour.windFromRad().orElse(0)),
                    hour.rainMm().orElse(0),
                    hour.airK().orElse(0) - 273.15,
                    100 * hour.cloud().orElse(0),
                    hour.visibilityM().orElse(0) / 1000));
        }
        return csv.toString().replace("\r\n", "\n");
    }
}

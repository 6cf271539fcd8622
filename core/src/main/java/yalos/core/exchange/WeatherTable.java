package yalos.core.exchange;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.DoubleUnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.fault.InputFault;
import yalos.core.weather.WeatherHour;

/**
 * Weather by the hour from an open table: a column of times and one of wind at the least, units in the heading ({@code wind (km/h)}, {@code gust_kn}, {@code temp F}). Metres a second, degrees Celsius and millimetres where the heading says none, which is told.
 *
 * @param hours in their order
 * @param remarks what was taken for granted or is missing, in sentences
 */
public record WeatherTable(List<WeatherHour> hours, List<String> remarks) {
    private static final int MOST_HOURS = 240;
    private static final double SUSPICIOUS_MPS = 45;
    private static final Pattern CLOCK = Pattern.compile("(\\d{1,2})[:.]?(\\d{2})?\\s*h?");
    private static final List<DateTimeFormatter> TIMES = List.of(
            DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH:mm[:ss]", Locale.ROOT),
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm[:ss]", Locale.ROOT),
            DateTimeFormatter.ofPattern("d.M.uuuu HH:mm", Locale.ROOT),
            DateTimeFormatter.ofPattern("uuuu/M/d HH:mm", Locale.ROOT));

    public WeatherTable {
        hours = List.copyOf(hours);
        remarks = List.copyOf(remarks);
    }

    /** What a column tells. */
    private enum Column {
        TIME("time|date|hour|zeit"),
        GUST("gust"),
        FROM("from|dir|bearing"),
        WIND("wind|speed"),
        RAIN("rain|precip|snow"),
        AIR("temp|air"),
        CLOUD("cloud|sky|cover"),
        SIGHT("vis|sight");

        private final Pattern names;

        Column(String names) {
            this.names = Pattern.compile(names);
        }
    }

    /** How a column's figures become SI, and whether its heading says in which unit they are. */
    private record Scale(DoubleUnaryOperator toSi, boolean said) {}

    /**
     * @param date of hours without one
     * @param zone of the place, for times that say their offset
     * @throws InputFault for a table without times or wind, or with none that can be read
     */
    public static WeatherTable read(byte[] file, LocalDate date, ZoneId zone) {
        PointTable table = PointTable.read(file, 2);
        if (table.heading().isEmpty()) {
            throw new InputFault(
                    "file",
                    "heading",
                    "The table has no heading. Its first line names the columns, with units: time, wind (m/s), gust (m/s), wind from (deg), rain (mm), temperature (C), cloud (%), visibility (km).");
        }
        Map<Column, Integer> columns = columns(table.heading());
        for (Column needed : List.of(Column.TIME, Column.WIND)) {
            if (!columns.containsKey(needed)) {
                throw new InputFault(
                        "file",
                        String.join(", ", table.heading()),
                        "No column is named %s. The columns are: %s."
                                .formatted(needed.name().toLowerCase(Locale.ROOT), String.join(", ", table.heading())));
            }
        }
        List<String> remarks = new ArrayList<>();
        Map<Column, Scale> scales = new EnumMap<>(Column.class);
        columns.forEach((column, at) -> {
            Scale scale = scale(column, table.heading().get(at).toLowerCase(Locale.ROOT));
            scales.put(column, scale);
            if (!scale.said && (column == Column.WIND || column == Column.GUST || column == Column.AIR)) {
                remarks.add("“%s” does not say its unit; it was taken as %s."
                        .formatted(table.heading().get(at), column == Column.AIR ? "°C" : "m/s"));
            }
        });
        List<WeatherHour> hours = new ArrayList<>();
        int unread = 0;
        for (List<String> row : table.rows()) {
            try {
                hours.add(hour(row, columns, scales, date, zone));
            } catch (InputFault | DateTimeException cannot) {
                unread++;
                if (unread <= 3) {
                    remarks.add("Passed over “%s”: %s".formatted(shown(row), cannot.getMessage()));
                }
            }
        }
        if (hours.isEmpty()) {
            throw new InputFault(
                    "file",
                    unread,
                    "None of the %d rows could be read. %s"
                            .formatted(unread, remarks.isEmpty() ? "" : remarks.get(remarks.size() - 1)));
        }
        if (unread > 3) {
            remarks.add("%d rows more were passed over.".formatted(unread - 3));
        }
        hours.sort(Comparator.comparing(WeatherHour::at));
        return new WeatherTable(thinned(hours, remarks), remarks);
    }

    private static String shown(List<String> row) {
        String text = String.join(", ", row);
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }

    private static Map<Column, Integer> columns(List<String> heading) {
        Map<Column, Integer> columns = new EnumMap<>(Column.class);
        for (int i = 0; i < heading.size(); i++) {
            String name = heading.get(i).toLowerCase(Locale.ROOT);
            for (Column column : Column.values()) {
                if (column.names.matcher(name).find()) {
                    columns.putIfAbsent(column, i);
                    break;
                }
            }
        }
        return columns;
    }

    private static Scale scale(Column column, String heading) {
        return switch (column) {
            case WIND, GUST -> speed(heading);
            case AIR ->
                heading.matches(".*(\\(|_|\\s|°)f(\\)|$|ahr).*")
                        ? new Scale(f -> (f - 32) / 1.8 + 273.15, true)
                        : heading.matches(".*(\\(|_|\\s)k(\\)|$|elv).*")
                                ? new Scale(k -> k, true)
                                : new Scale(c -> c + 273.15, heading.matches(".*(\\(|_|\\s|°)c(\\)|$|els).*"));
            case FROM -> new Scale(Math::toRadians, true);
            case RAIN ->
                heading.matches(".*(\\(|_|\\s)in(\\)|$|ch).*")
                        ? new Scale(inch -> inch * 25.4, true)
                        : new Scale(mm -> mm, true);
            case CLOUD ->
                heading.matches(".*(okta|/8|eighth).*")
                        ? new Scale(okta -> okta / 8, true)
                        : new Scale(percent -> percent / 100, true);
            case SIGHT ->
                heading.matches(".*(\\(|_|\\s)km.*")
                        ? new Scale(km -> km * 1000, true)
                        : heading.matches(".*(\\(|_|\\s)(mi|mile).*")
                                ? new Scale(mile -> mile * 1609.344, true)
                                : new Scale(m -> m, true);
            case TIME -> new Scale(x -> x, true);
        };
    }

    private static Scale speed(String heading) {
        if (heading.matches(".*(km/?h|kph|kmh).*")) {
            return new Scale(kmh -> kmh / 3.6, true);
        }
        if (heading.matches(".*(\\(|_|\\s)(kn|kt|knot).*")) {
            return new Scale(knots -> knots * 1852 / 3600, true);
        }
        if (heading.contains("mph")) {
            return new Scale(mph -> mph * 0.44704, true);
        }
        return new Scale(mps -> mps, heading.matches(".*(m/s|mps|m_s|ms-1).*"));
    }

    private static WeatherHour hour(
            List<String> row, Map<Column, Integer> columns, Map<Column, Scale> scales, LocalDate date, ZoneId zone) {
        LocalDateTime at = time(cell(row, columns, Column.TIME), date, zone);
        OptionalDouble wind = figure(row, columns, scales, Column.WIND);
        if (wind.isPresent() && wind.getAsDouble() > SUSPICIOUS_MPS) {
            throw new InputFault(
                    "wind",
                    wind.getAsDouble(),
                    "a wind of %.0f m/s; are these other units? Name them in the heading, such as wind (km/h)."
                            .formatted(wind.getAsDouble()));
        }
        return new WeatherHour(
                at,
                wind,
                figure(row, columns, scales, Column.GUST),
                figure(row, columns, scales, Column.FROM),
                figure(row, columns, scales, Column.RAIN),
                figure(row, columns, scales, Column.AIR),
                figure(row, columns, scales, Column.CLOUD),
                figure(row, columns, scales, Column.SIGHT));
    }

    private static String cell(List<String> row, Map<Column, Integer> columns, Column column) {
        Integer at = columns.get(column);
        return at == null || at >= row.size() ? "" : row.get(at).strip();
    }

    private static OptionalDouble figure(
            List<String> row, Map<Column, Integer> columns, Map<Column, Scale> scales, Column column) {
        String text = cell(row, columns, column);
        if (text.isEmpty() || text.matches("(?i)-+|n/?a|nan|null|none")) {
            return OptionalDouble.empty();
        }
        try {
            return OptionalDouble.of(scales.get(column).toSi.applyAsDouble(Double.parseDouble(text)));
        } catch (NumberFormatException e) {
            throw new InputFault(column.name(), text, "“%s” is no figure.".formatted(text));
        }
    }

    /** A time of the day, a day and a time, or a time with its offset, which is brought to the place's clock. */
    public static LocalDateTime time(String text, LocalDate date, ZoneId zone) {
        Matcher clock = CLOCK.matcher(text);
        if (clock.matches()) {
            String minutes = clock.group(2) == null ? "0" : clock.group(2);
            return date.atTime(LocalTime.of(Integer.parseInt(clock.group(1)), Integer.parseInt(minutes)));
        }
        for (DateTimeFormatter format : TIMES) {
            try {
                return LocalDateTime.parse(text, format);
            } catch (DateTimeException other) {
                continue;
            }
        }
        try {
            return OffsetDateTime.parse(text).atZoneSameInstant(zone).toLocalDateTime();
        } catch (DateTimeException none) {
            throw new InputFault(
                    "time", text, "“%s” is no time. Write it as 09:00 or 2027-04-30 09:00.".formatted(text));
        }
    }

    /** One row an hour: the first of each; gaps and too many are told. */
    private static List<WeatherHour> thinned(List<WeatherHour> hours, List<String> remarks) {
        List<WeatherHour> kept = new ArrayList<>();
        for (WeatherHour hour : hours) {
            LocalDateTime before =
                    kept.isEmpty() ? null : kept.get(kept.size() - 1).at();
            if (before != null && hour.at().isBefore(before.plusHours(1))) {
                continue;
            }
            if (before != null && Duration.between(before, hour.at()).toMinutes() > 90) {
                remarks.add("Nothing is known between %s and %s."
                        .formatted(before.plusHours(1).toLocalTime(), hour.at().toLocalTime()));
            }
            kept.add(hour);
        }
        if (kept.size() < hours.size()) {
            remarks.add("%d rows within an hour of another were passed over.".formatted(hours.size() - kept.size()));
        }
        if (kept.size() > MOST_HOURS) {
            remarks.add("The first %d hours were kept.".formatted(MOST_HOURS));
            return kept.subList(0, MOST_HOURS);
        }
        return kept;
    }
}

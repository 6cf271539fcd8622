package yalos.web.store;

import static yalos.web.store.Plain.or;
import static yalos.web.store.StoredSorties.boxed;
import static yalos.web.store.StoredSorties.figure;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import yalos.core.day.DaySettings;
import yalos.core.day.PackPart;
import yalos.core.day.Papers;
import yalos.core.fault.InputFault;
import yalos.core.weather.Limits;
import yalos.core.weather.WeatherHour;

/** The day on site as it is stored. */
record StoredDay(
        String date,
        String zone,
        Integer startMin,
        Map<String, Integer> notBefore,
        Double changeMin,
        Double panelMin,
        Integer chargers,
        Double chargeMin,
        StoredLimits limits,
        List<StoredHour> weather,
        String earlier,
        List<String> checks,
        List<StoredLine> card,
        List<StoredLine> contacts,
        List<String> laws,
        List<String> leftOut,
        String sheet,
        Integer edition) {

    record StoredLimits(Double windMps, Double gustMps, Double coldK, Double visibilityM) {}

    record StoredLine(String what, String effect) {}

    record StoredHour(
            String at,
            Double windMps,
            Double gustMps,
            Double fromRad,
            Double rainMm,
            Double airK,
            Double cloud,
            Double visibilityM) {
        static StoredHour of(WeatherHour hour) {
            return new StoredHour(
                    hour.at().toString(),
                    boxed(hour.windMps()),
                    boxed(hour.gustMps()),
                    boxed(hour.windFromRad()),
                    boxed(hour.rainMm()),
                    boxed(hour.airK()),
                    boxed(hour.cloud()),
                    boxed(hour.visibilityM()));
        }

        WeatherHour hour() {
            return new WeatherHour(
                    LocalDateTime.parse(at),
                    figure(windMps),
                    figure(gustMps),
                    figure(fromRad),
                    figure(rainMm),
                    figure(airK),
                    figure(cloud),
                    figure(visibilityM));
        }
    }

    /** Null for what is usual, so that nothing is written of it. */
    static StoredDay of(DaySettings one) {
        if (one.equals(DaySettings.USUAL)) {
            return null;
        }
        Map<String, Integer> held = new TreeMap<>();
        one.notBefore().forEach((sortie, minute) -> held.put(String.valueOf(sortie), minute));
        boolean example = one.papers().equals(Papers.EXAMPLE);
        Limits limits = one.limits();
        return new StoredDay(
                one.date().map(LocalDate::toString).orElse(null),
                one.zone(),
                one.startMin().isPresent() ? one.startMin().getAsInt() : null,
                held,
                one.changeMin(),
                one.panelMin(),
                one.chargers(),
                one.chargeMin(),
                new StoredLimits(limits.windMps(), limits.gustMps(), limits.coldK(), limits.visibilityM()),
                one.weather().stream().map(StoredHour::of).toList(),
                one.earlier().map(LocalDateTime::toString).orElse(null),
                example ? null : one.papers().checks(),
                example ? null : lines(one.papers().card()),
                example ? null : lines(one.papers().contacts()),
                example ? null : one.papers().laws(),
                example
                        ? null
                        : one.papers().leftOut().stream().map(PackPart::key).toList(),
                example ? null : one.papers().sheet().name(),
                example ? null : one.papers().edition());
    }

    private static List<StoredLine> lines(List<Papers.Emergency> all) {
        return all.stream()
                .map(line -> new StoredLine(line.what(), line.effect()))
                .toList();
    }

    /** What is missing or out of reason is read as what is usual; an hour that cannot be read is left out. */
    DaySettings settings() {
        DaySettings usual = DaySettings.USUAL;
        try {
            Map<Integer, Integer> held = new TreeMap<>();
            if (notBefore != null) {
                notBefore.forEach((sortie, minute) -> held.put(Integer.valueOf(sortie), minute));
            }
            return new DaySettings(
                    Optional.ofNullable(date).map(LocalDate::parse),
                    zone == null ? "" : zone,
                    startMin == null ? OptionalInt.empty() : OptionalInt.of(startMin),
                    held,
                    changeMin == null ? usual.changeMin() : changeMin,
                    panelMin == null ? usual.panelMin() : panelMin,
                    chargers == null ? usual.chargers() : chargers,
                    chargeMin == null ? usual.chargeMin() : chargeMin,
                    readLimits(),
                    hours(),
                    Optional.ofNullable(earlier).map(LocalDateTime::parse),
                    papers());
        } catch (InputFault | DateTimeException | IllegalArgumentException | NullPointerException outOfReason) {
            return usual;
        }
    }

    private Limits readLimits() {
        Limits usual = Limits.USUAL;
        return limits == null
                ? usual
                : new Limits(
                        limits.windMps() == null ? usual.windMps() : limits.windMps(),
                        limits.gustMps() == null ? usual.gustMps() : limits.gustMps(),
                        limits.coldK() == null ? usual.coldK() : limits.coldK(),
                        limits.visibilityM() == null ? usual.visibilityM() : limits.visibilityM(),
                        usual.heightM());
    }

    private List<WeatherHour> hours() {
        List<WeatherHour> hours = new ArrayList<>();
        for (StoredHour stored : or(weather)) {
            try {
                hours.add(stored.hour());
            } catch (InputFault | DateTimeException | NullPointerException unreadable) {
                continue;
            }
        }
        return hours;
    }

    /** Papers of a form that knew only a list and a card are read with the rest as usual. */
    private Papers papers() {
        if (checks == null && card == null) {
            return Papers.EXAMPLE;
        }
        Set<PackPart> without = EnumSet.noneOf(PackPart.class);
        or(leftOut).forEach(key -> PackPart.ofKey(key).ifPresent(without::add));
        return new Papers(
                or(checks),
                emergencies(card),
                emergencies(contacts),
                or(laws),
                without,
                "LETTER".equals(sheet) ? Papers.Sheet.LETTER : Papers.Sheet.A4,
                edition == null ? 1 : edition);
    }

    private static List<Papers.Emergency> emergencies(List<StoredLine> lines) {
        return or(lines).stream()
                .map(line -> new Papers.Emergency(line.what(), line.effect()))
                .toList();
    }
}

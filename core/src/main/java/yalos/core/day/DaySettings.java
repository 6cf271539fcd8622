package yalos.core.day;

import static yalos.core.fault.InputFault.within;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeMap;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.weather.Limits;
import yalos.core.weather.WeatherHour;

/**
 * The day on site, as the operator decides.
 *
 * @param date of the flight; the brief's, or today, where empty
 * @param zone whose clock is read; see {@link #clock} where empty
 * @param startMin minute of the day at which the crew leaves; so that flying is round solar noon where empty
 * @param notBefore minute before which a sortie is not begun, by its number
 * @param changeMin to land, change the battery and take off again
 * @param panelMin to photograph the reflectance panel
 * @param chargers that charge on site, each one set at a time
 * @param chargeMin that a set takes
 * @param limits in what weather is flown
 * @param weather by the hour
 * @param earlier flight whose sun is wanted again
 * @param papers checklist and emergency card
 */
public record DaySettings(
        Optional<LocalDate> date,
        String zone,
        OptionalInt startMin,
        Map<Integer, Integer> notBefore,
        double changeMin,
        double panelMin,
        int chargers,
        double chargeMin,
        Limits limits,
        List<WeatherHour> weather,
        Optional<LocalDateTime> earlier,
        Papers papers) {
    /** Common practice. */
    public static final DaySettings USUAL = new DaySettings(
            Optional.empty(),
            "",
            OptionalInt.empty(),
            Map.of(),
            4,
            5,
            0,
            60,
            Limits.USUAL,
            List.of(),
            Optional.empty(),
            Papers.EXAMPLE);

    private static final int A_DAY = 24 * 60;
    private static final int MOST_HOURS = 240;
    private static final double DEGREES_AN_HOUR = 15;
    private static final double NEAR_HOURS = 3;

    public DaySettings {
        startMin.ifPresent(minute -> within("start", minute, 0, A_DAY, "min"));
        notBefore = Map.copyOf(new TreeMap<>(notBefore));
        within("change", changeMin, 0, 120, "min");
        within("panel", panelMin, 0, 120, "min");
        within("chargers", chargers, 0, 20, "");
        within("charge", chargeMin, 5, 600, "min");
        weather = List.copyOf(weather);
        if (weather.size() > MOST_HOURS) {
            throw new InputFault(
                    "weather", weather.size(), "More than %d hours of weather are not kept.".formatted(MOST_HOURS));
        }
        if (!zone.isEmpty()) {
            try {
                ZoneId.of(zone);
            } catch (DateTimeException e) {
                throw new InputFault(
                        "zone", zone, "“%s” is no time zone. Write it as Europe/London, or UTC+1.".formatted(zone));
            }
        }
    }

    /** The clock that is read at a place: as set; else the program's own, unless the sun there is hours away from it; then whole hours by the sun. */
    public ZoneId clock(LonLat place) {
        if (!zone.isEmpty()) {
            return ZoneId.of(zone);
        }
        ZoneId own = ZoneId.systemDefault();
        double offset = own.getRules().getOffset(Instant.now()).getTotalSeconds() / 3600.0;
        double sun = place.lonDeg() / DEGREES_AN_HOUR;
        return Math.abs(offset - sun) <= NEAR_HOURS ? own : ZoneOffset.ofHours((int) Math.round(sun));
    }

    public DaySettings with(List<WeatherHour> hours) {
        return new DaySettings(
                date, zone, startMin, notBefore, changeMin, panelMin, chargers, chargeMin, limits, hours, earlier,
                papers);
    }

    public DaySettings with(Papers other) {
        return new DaySettings(
                date, zone, startMin, notBefore, changeMin, panelMin, chargers, chargeMin, limits, weather, earlier,
                other);
    }

    /** The same begun at another time; what was held for single sorties is let go. */
    public DaySettings startingAt(OptionalInt minute) {
        return new DaySettings(
                date, zone, minute, Map.of(), changeMin, panelMin, chargers, chargeMin, limits, weather, earlier,
                papers);
    }

    /** The same with a sortie held back until a minute of the day. */
    public DaySettings holding(int sortie, int minute) {
        within("sortie", sortie, 1, 1000, "");
        within("minute", minute, 0, A_DAY, "min");
        Map<Integer, Integer> held = new TreeMap<>(notBefore);
        held.put(sortie, minute);
        return new DaySettings(
                date, zone, startMin, held, changeMin, panelMin, chargers, chargeMin, limits, weather, earlier, papers);
    }

    /** The same habits on a certain day, with the sun of an earlier flight wanted again. */
    public DaySettings again(Optional<LocalDate> day, Optional<LocalDateTime> flown) {
        return new DaySettings(
                day,
                zone,
                OptionalInt.empty(),
                Map.of(),
                changeMin,
                panelMin,
                chargers,
                chargeMin,
                limits,
                List.of(),
                flown,
                papers);
    }

    /** The same on any day: without date, weather and what hangs on them. */
    public DaySettings anyDay() {
        return new DaySettings(
                Optional.empty(),
                zone,
                OptionalInt.empty(),
                Map.of(),
                changeMin,
                panelMin,
                chargers,
                chargeMin,
                limits,
                List.of(),
                Optional.empty(),
                papers);
    }
}

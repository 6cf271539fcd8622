package yalos.core.day;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.geodesy.LonLat;
import yalos.core.light.Daylight;
import yalos.core.units.UnitChoice;
import yalos.core.weather.Limits;
import yalos.core.weather.Limits.Judged;
import yalos.core.weather.Limits.Verdict;
import yalos.core.weather.WeatherHour;

/**
 * Ten minutes of a day, judged by light and by weather.
 *
 * @param minute of the day at which they begin
 * @param light how the light serves
 * @param weather how the weather serves; not known where nobody said
 * @param verdict of both. Weather of which nothing is told all day does not count; a gap in what is told is a thing to mind
 * @param reasons of both, the gravest first
 * @param elevationRad of the sun
 * @param windMps near the ground; not a number where unknown
 */
public record Slot(
        int minute,
        Verdict light,
        Verdict weather,
        Verdict verdict,
        List<String> reasons,
        double elevationRad,
        double windMps) {
    public static final int MINUTES = 10;

    /** Below it no picture serves that shall be measured (common practice). */
    private static final double LOW_RAD = Math.toRadians(10);

    private static final double SHADED = 0.1;
    private static final double GLINTS = 0.02;
    private static final int A_DAY = 24 * 60;

    /** A whole day, in the operator's units. */
    public static List<Slot> of(
            DayLight day, LonLat place, Needs needs, List<WeatherHour> weather, Limits limits, UnitChoice units) {
        boolean told = weather.stream().anyMatch(one -> one.at().toLocalDate().equals(day.date()));
        List<Slot> slots = new ArrayList<>();
        for (int minute = 0; minute < A_DAY; minute += MINUTES) {
            double elevation = day.elevationRad(place, minute + MINUTES / 2);
            List<String> reasons = new ArrayList<>();
            Verdict light = light(day, needs, minute, elevation, reasons);
            Optional<WeatherHour> hour = hour(weather, day.date().atStartOfDay().plusMinutes(minute));
            Verdict verdict = Verdict.UNKNOWN;
            if (hour.isPresent()) {
                Judged judged = limits.judge(hour.get(), needs.sky(), units);
                verdict = judged.verdict();
                reasons.addAll(verdict == Verdict.STOP ? 0 : reasons.size(), judged.reasons());
            }
            if (told && hour.isEmpty()) {
                reasons.add("weather not known");
            }
            slots.add(new Slot(
                    minute,
                    light,
                    verdict,
                    told ? light.worse(verdict == Verdict.UNKNOWN ? Verdict.MIND : verdict) : light,
                    List.copyOf(reasons),
                    elevation,
                    hour.map(one -> one.windMps().orElse(Double.NaN)).orElse(Double.NaN)));
        }
        return slots;
    }

    private static Verdict light(DayLight day, Needs needs, int minute, double elevation, List<String> reasons) {
        if (elevation <= Math.toRadians(-0.8333)) {
            reasons.add("the sun is down");
            return needs.light() ? Verdict.STOP : Verdict.MIND;
        }
        if (!needs.light()) {
            return Verdict.GO;
        }
        if (elevation < Daylight.USABLE_RAD) {
            reasons.add(String.format(
                    Locale.ROOT,
                    "sun %.0f°, shadows %s",
                    Math.toDegrees(elevation),
                    elevation < Math.toRadians(3)
                            ? "without end"
                            : String.format(Locale.ROOT, "%.1f times the height", 1 / Math.tan(elevation))));
        }
        day.hours().stream()
                .filter(hour -> Math.abs(hour.minute() - minute - MINUTES / 2) <= 30)
                .findFirst()
                .ifPresent(hour -> inPhotos(hour, needs, reasons));
        return reasons.isEmpty() ? Verdict.GO : elevation < LOW_RAD ? Verdict.STOP : Verdict.MIND;
    }

    private static void inPhotos(DayLight.Hour hour, Needs needs, List<String> reasons) {
        if (hour.shaded() > SHADED) {
            reasons.add(String.format(Locale.ROOT, "%.0f %% of the block in shadow", 100 * hour.shaded()));
        }
        if (needs.calmWater() && hour.photos().glints() > GLINTS) {
            reasons.add(String.format(
                    Locale.ROOT,
                    "mirrored sun in %.0f %% of the photos",
                    100 * hour.photos().glints()));
        }
        if (needs.evenAngle() && hour.photos().hotSpots() > GLINTS) {
            reasons.add(String.format(
                    Locale.ROOT,
                    "hot spot in %.0f %% of the photos",
                    100 * hour.photos().hotSpots()));
        }
    }

    /** The hour that holds a time: the last that began, no more than an hour before. */
    public static Optional<WeatherHour> hour(List<WeatherHour> weather, LocalDateTime time) {
        return weather.stream()
                .filter(one ->
                        !one.at().isAfter(time) && one.at().plusMinutes(60).isAfter(time))
                .reduce((first, second) -> second);
    }
}

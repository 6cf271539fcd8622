package yalos.core.light;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import yalos.core.geodesy.LonLat;

/** The light of a day at a place, in a sentence. */
public final class Daylight {
    /** Below it shadows are long and colours weak (common practice). */
    public static final double USABLE_RAD = Math.toRadians(30);

    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

    private Daylight() {}

    /**
     * When the sun is high enough, when it is highest and how long shadows are then.
     *
     * @param zone whose clock the times are told by
     */
    public static String words(LonLat place, LocalDate date, ZoneId zone) {
        SunDay day = SunDay.of(place, date);
        if (day.alwaysDown()) {
            return "the sun does not rise";
        }
        double highest = Math.toDegrees(day.noonElevationRad());
        List<SunDay.Span> spans = SunDay.above(place, day.noon(), USABLE_RAD);
        String usable = spans.isEmpty()
                ? "never above 30°"
                : spans.stream()
                        .map(span -> CLOCK.format(span.from().atZone(zone)) + " to "
                                + CLOCK.format(span.to().atZone(zone)))
                        .collect(Collectors.joining(" and ", "above 30° from ", ""));
        String shadow = highest > 1
                ? String.format(
                        Locale.ROOT, "; shadows then %.1f times the height", 1 / Math.tan(day.noonElevationRad()))
                : "";
        return String.format(
                Locale.ROOT,
                "the sun is %s, highest at %s with %.0f°%s (%s)",
                usable,
                CLOCK.format(day.noon().atZone(zone)),
                highest,
                shadow,
                zone.getId());
    }
}

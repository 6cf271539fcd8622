package yalos.core.light;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.LonLat;

/**
 * A day of the sun at a place. The day is that of local mean solar time, so that it holds one noon anywhere, the date line included.
 *
 * @param noon when the sun is highest
 * @param rise the last sunrise before noon; empty where it is always up or always down
 * @param set the first sunset after it
 * @param noonElevationRad of the sun at noon
 */
public record SunDay(Instant noon, Optional<Instant> rise, Optional<Instant> set, double noonElevationRad) {
    private static final Duration HALF_DAY = Duration.ofHours(12);
    private static final double SECONDS_A_DEGREE = 240;

    /** A stretch of time. */
    public record Span(Instant from, Instant to) {
        public Duration length() {
            return Duration.between(from, to);
        }
    }

    public static SunDay of(LonLat place, LocalDate date) {
        Instant meanNoon = date.atTime(12, 0)
                .toInstant(ZoneOffset.UTC)
                .minusMillis(Math.round(place.lonDeg() * SECONDS_A_DEGREE * 1000));
        Instant noon = Sun.noon(place, meanNoon);
        double highest = Sun.at(place, noon).elevationRad();
        Optional<Instant> rise = Optional.empty();
        Optional<Instant> set = Optional.empty();
        if (highest > Sun.RISE_RAD) {
            rise = rise(place, noon);
            Instant end = noon.plus(HALF_DAY);
            set = Optional.of(Sun.crossing(place, noon, end, Sun.RISE_RAD)).filter(time -> time.isBefore(end));
        }
        return new SunDay(noon, rise, set, highest);
    }

    /** The last crossing before a noon at which it is up. */
    private static Optional<Instant> rise(LonLat place, Instant noon) {
        Instant from = noon.minus(HALF_DAY);
        Optional<Instant> last = Optional.empty();
        while (from.isBefore(noon)) {
            Instant next = Sun.crossing(place, from, noon, Sun.RISE_RAD);
            if (!next.isBefore(noon)) {
                break;
            }
            last = Optional.of(next);
            from = next.plusSeconds(1);
        }
        return last;
    }

    /** Whether the sun never sets on this day. */
    public boolean alwaysUp() {
        return rise.isEmpty() && set.isEmpty() && noonElevationRad > Sun.RISE_RAD;
    }

    /** Whether it never rises. */
    public boolean alwaysDown() {
        return noonElevationRad <= Sun.RISE_RAD;
    }

    /** When its centre stands above an elevation, within half a day of noon. */
    public static List<Span> above(LonLat place, Instant noon, double elevationRad) {
        List<Span> spans = new ArrayList<>();
        Instant end = noon.plus(HALF_DAY);
        Instant from = noon.minus(HALF_DAY);
        boolean up = Sun.at(place, from).elevationRad() > elevationRad;
        while (from.isBefore(end)) {
            Instant next = Sun.crossing(place, from, end, elevationRad);
            if (up) {
                spans.add(new Span(from, next));
            }
            from = next;
            up = !up;
            if (from.isBefore(end)) {
                // Past the crossing itself, so that it is not found again.
                from = from.plusMillis(200);
            }
        }
        return spans;
    }
}

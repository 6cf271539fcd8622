package yalos.core.light;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import yalos.core.geodesy.LonLat;

/**
 * When does the sun stand as it did on an earlier flight? Seasons move it: the same height on the same side of noon is as near as a day comes.
 *
 * @param before where it stood
 * @param at when it stands so high again
 * @param then where it stands then
 * @param asHigh whether it gets as high on that day at all; if not, {@code at} is noon
 */
public record SameSun(Sun before, Instant at, Sun then, boolean asHigh) {

    /** Empty where the sun did not stand over the horizon, or does not rise on that day. */
    public static Optional<SameSun> of(LonLat place, Instant earlier, LocalDate date) {
        Sun before = Sun.at(place, earlier);
        SunDay day = SunDay.of(place, date);
        if (before.elevationRad() <= 0 || day.alwaysDown()) {
            return Optional.empty();
        }
        boolean morning = Math.sin(before.azimuthRad()) > 0;
        if (day.noonElevationRad() <= before.elevationRad()) {
            return Optional.of(new SameSun(before, day.noon(), Sun.at(place, day.noon()), false));
        }
        Instant at = SunDay.above(place, day.noon(), before.elevationRad()).stream()
                .filter(span -> !span.from().isAfter(day.noon()) && !span.to().isBefore(day.noon()))
                .map(span -> morning ? span.from() : span.to())
                .findFirst()
                .orElse(day.noon());
        return Optional.of(new SameSun(before, at, Sun.at(place, at), true));
    }

    /** How far it stands to the side of where it stood, clockwise; −π to π. */
    public double turnedRad() {
        return Math.IEEEremainder(then.azimuthRad() - before.azimuthRad(), 2 * Math.PI);
    }
}

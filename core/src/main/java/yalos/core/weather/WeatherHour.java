package yalos.core.weather;

import static yalos.core.fault.InputFault.within;

import java.time.LocalDateTime;
import java.util.OptionalDouble;
import yalos.core.wind.Wind;

/**
 * The weather of one hour as it is typed, measured or forecast. What is not known is empty, never zero.
 *
 * @param at beginning of the hour, on the clock of the place
 * @param windMps near the ground
 * @param gustMps the same in gusts
 * @param windFromRad where it blows from, clockwise from true north
 * @param rainMm in that hour
 * @param airK temperature
 * @param cloud share of the sky, 0..1
 * @param visibilityM how far one sees
 */
public record WeatherHour(
        LocalDateTime at,
        OptionalDouble windMps,
        OptionalDouble gustMps,
        OptionalDouble windFromRad,
        OptionalDouble rainMm,
        OptionalDouble airK,
        OptionalDouble cloud,
        OptionalDouble visibilityM) {
    /** Height above open ground at which wind is forecast and stations measure it (World Meteorological Organization, Guide to Instruments, from memory). */
    public static final double STATION_M = 10;

    public WeatherHour {
        windMps.ifPresent(wind -> within("wind", wind, 0, 60, "m/s"));
        gustMps.ifPresent(gust -> within("gust", gust, 0, 90, "m/s"));
        rainMm.ifPresent(rain -> within("rain", rain, 0, 300, "mm"));
        airK.ifPresent(air -> within("temperature", air - 273.15, -60, 60, "°C"));
        cloud.ifPresent(share -> within("cloud", share * 100, 0, 100, "%"));
        visibilityM.ifPresent(far -> within("visibility", far, 0, 200_000, "m"));
    }

    /** The wind at a height above ground; see {@link Wind#aloftMps}. */
    public OptionalDouble aloftMps(double heightM) {
        return windMps.isPresent()
                ? OptionalDouble.of(Wind.aloftMps(windMps.getAsDouble(), STATION_M, Math.max(2, heightM)))
                : OptionalDouble.empty();
    }
}

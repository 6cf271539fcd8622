package yalos.core.kit;

import static yalos.core.fault.InputFault.within;

import java.util.OptionalDouble;
import yalos.core.fault.InputFault;

/**
 * How power changes with speed, in the figures an operator has; what is missing is taken from common practice and said.
 *
 * @param hoverMinutes longest hover of a full new battery
 * @param longestMinutes longest flight of it, at the speed that takes least power
 * @param longestAtMps airspeed at which that is reached
 */
public record Endurance(OptionalDouble hoverMinutes, OptionalDouble longestMinutes, OptionalDouble longestAtMps) {
    /** Nothing is known but the battery's minutes while mapping. */
    public static final Endurance UNKNOWN =
            new Endurance(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());

    public Endurance {
        hoverMinutes.ifPresent(minutes -> within("hoverMinutes", minutes, 1, 600, "min"));
        longestMinutes.ifPresent(minutes -> within("longestMinutes", minutes, 1, 600, "min"));
        longestAtMps.ifPresent(speed -> within("longestAt", speed, 1, 60, "m/s"));
        if (hoverMinutes.isPresent()
                && longestMinutes.isPresent()
                && longestMinutes.getAsDouble() <= hoverMinutes.getAsDouble()) {
            throw new InputFault(
                    "longestMinutes",
                    longestMinutes.getAsDouble(),
                    "The longest flight, %.1f min, is not longer than the longest hover, %.1f min. A rotor takes less power in slow flight than in hover; are the two exchanged?"
                            .formatted(longestMinutes.getAsDouble(), hoverMinutes.getAsDouble()));
        }
    }
}

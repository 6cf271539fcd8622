package yalos.core.kit;

import static yalos.core.fault.InputFault.within;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.fault.InputFault;

/**
 * How long a battery set carries the aircraft while mapping, with its reserve untouched.
 *
 * @param nominalMinutes endurance when new, as the maker or the operator's log gives it
 * @param rtkMinutes endurance when new with a correction link switched on, where it differs
 * @param sets how many sets are carried
 * @param reserve share that must be left at landing, 0..1
 * @param health share of the nominal endurance that is left with age, 0..1
 * @param measured what a flight really took, which counts more than nominal figure and age
 * @param endurance how power changes with speed
 */
public record Battery(
        double nominalMinutes,
        Optional<Double> rtkMinutes,
        int sets,
        double reserve,
        double health,
        Optional<Use> measured,
        Endurance endurance) {

    /**
     * What a flight took: so much of a full battery in so many minutes.
     *
     * @param share of a full battery, 0..1
     */
    public record Use(double share, double minutes) {
        private static final Pattern TYPED =
                Pattern.compile("\\s*(\\d+(?:\\.\\d+)?)\\s*%\\s*in\\s*(\\d+(?:\\.\\d+)?)\\s*min(?:utes)?\\s*");

        public Use {
            within("measuredUse", share * 100, 5, 100, "%");
            within("measuredUse", minutes, 1, 300, "min");
        }

        /**
         * Reads {@code 42 % in 12 min}; nothing for an empty text.
         *
         * @throws InputFault for any other text
         */
        public static Optional<Use> typed(String text) {
            if (text.isBlank()) {
                return Optional.empty();
            }
            Matcher matcher = TYPED.matcher(text);
            if (!matcher.matches()) {
                throw new InputFault(
                        "measuredUse", text, "“%s” is no measured use. Write it as 42 %% in 12 min.".formatted(text));
            }
            return Optional.of(
                    new Use(Double.parseDouble(matcher.group(1)) / 100, Double.parseDouble(matcher.group(2))));
        }

        /** Minutes a full battery would last at this rate. */
        public double fullMinutes() {
            return minutes / share;
        }
    }

    public Battery {
        within("nominalMinutes", nominalMinutes, 1, 600, "min");
        rtkMinutes.ifPresent(minutes -> within("rtkMinutes", minutes, 1, 600, "min"));
        within("batterySets", sets, 1, 100, "sets");
        within("reserve", reserve * 100, 5, 80, "%");
        within("health", health * 100, 20, 100, "%");
    }

    /** One of which nobody knows how its power changes with speed. */
    public Battery(
            double nominalMinutes,
            Optional<Double> rtkMinutes,
            int sets,
            double reserve,
            double health,
            Optional<Use> measured) {
        this(nominalMinutes, rtkMinutes, sets, reserve, health, measured, Endurance.UNKNOWN);
    }

    /** The same with power that changes so with speed. */
    public Battery with(Endurance other) {
        return new Battery(nominalMinutes, rtkMinutes, sets, reserve, health, measured, other);
    }

    /** The battery of a flight on which the correction link is on: its endurance then is the nominal one. */
    public Battery withLinkOn() {
        return new Battery(
                rtkMinutes.orElse(nominalMinutes), Optional.empty(), sets, reserve, health, measured, endurance);
    }

    /** Minutes from full to empty: as measured, or nominal times health. */
    public double fullMinutes() {
        return measured.map(Use::fullMinutes).orElse(nominalMinutes * health);
    }

    /** Minutes of flight from full down to the reserve, at 20 °C or more. */
    public double usableMinutes() {
        return fullMinutes() * (1 - reserve);
    }

    /** The same in air of a temperature in kelvin. */
    public double usableMinutes(double airK) {
        return usableMinutes() * capacity(airK);
    }

    /**
     * Share of a lithium battery's capacity that air of a temperature leaves: 1 % less for each kelvin below 20 °C, 1.5 % below 0 °C, no
     * less than half (common practice; a measured use on a day as cold says more).
     */
    public static double capacity(double airK) {
        double celsius = airK - 273.15;
        double lost = 0.01 * Math.min(20, Math.max(0, 20 - celsius)) + 0.015 * Math.max(0, -celsius);
        return Math.max(0.5, 1 - lost);
    }
}

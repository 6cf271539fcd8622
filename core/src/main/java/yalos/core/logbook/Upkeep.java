package yalos.core.logbook;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * What is done to a thing from time to time; it comes round by hours, by days, or by whichever is first.
 *
 * @param thing aircraft, battery or sensor, by its name
 * @param what is done, such as propellers, firmware, calibration
 * @param doneOn when it was done last
 * @param hoursThen in the log of that thing when it was done
 */
public record Upkeep(
        String thing,
        String what,
        OptionalDouble everyHours,
        OptionalInt everyDays,
        LocalDate doneOn,
        double hoursThen) {
    /** The last tenth of the way is told ahead. */
    private static final double AHEAD = 0.9;

    private static final double SECONDS_IN_HOUR = 3600;

    public Upkeep {
        if (thing.isBlank() || what.isBlank()) {
            throw new InputFault("what", what, "Name the thing and what is done to it.");
        }
        if (everyHours.isEmpty() && everyDays.isEmpty()) {
            throw new InputFault("every", "", "Say after how many hours or days it falls due.");
        }
        everyHours.ifPresent(hours -> InputFault.within("every", hours, 0.1, 10_000, "h"));
        everyDays.ifPresent(days -> InputFault.within("every", days, 1, 10_000, "days"));
    }

    /**
     * When it falls due.
     *
     * @param used share of the way, 1 and more where it is overdue
     */
    public record Due(double used, String words, Optional<LocalDate> on) {
        /** {@code done}, {@code mind} ahead of it, {@code stop} where it is over. */
        public String mood() {
            return used >= 1 ? "stop" : used >= AHEAD ? "mind" : "done";
        }
    }

    /**
     * @param hours the thing has flown till now
     */
    public Due due(double hours, LocalDate today) {
        double flown = Math.max(0, hours - hoursThen);
        double byHours = everyHours.isPresent() ? flown / everyHours.getAsDouble() : 0;
        long passed = Math.max(0, ChronoUnit.DAYS.between(doneOn, today));
        double byDays = everyDays.isPresent() ? (double) passed / everyDays.getAsInt() : 0;
        Optional<LocalDate> on =
                everyDays.isPresent() ? Optional.of(doneOn.plusDays(everyDays.getAsInt())) : Optional.empty();
        String words;
        if (byHours >= byDays && everyHours.isPresent()) {
            double left = everyHours.getAsDouble() - flown;
            String hoursLeft = UnitChoice.METRIC.text(UnitKind.DURATION, Math.abs(left) * SECONDS_IN_HOUR);
            words = left >= 0 ? "in " + hoursLeft + " of flight" : "overdue by " + hoursLeft;
        } else {
            long left = everyDays.getAsInt() - passed;
            words = left > 0 ? "in %d days, on %s".formatted(left, on.orElseThrow()) : "due since " + on.orElseThrow();
        }
        return new Due(Math.max(byHours, byDays), words, on);
    }
}

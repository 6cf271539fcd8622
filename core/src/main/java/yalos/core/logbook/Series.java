package yalos.core.logbook;

import java.time.LocalDate;
import java.util.List;
import java.util.stream.IntStream;
import yalos.core.fault.InputFault;

/**
 * Flights of a site that come round.
 *
 * @param first date they are counted from
 * @param every so many days, weeks, months or years
 */
public record Series(LocalDate first, int every, Step step) {
    /** What is counted. */
    public enum Step {
        DAYS("days"),
        WEEKS("weeks"),
        MONTHS("months"),
        YEARS("years");

        private final String words;

        Step(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public Series {
        InputFault.within("every", every, 1, 1000, step.words());
    }

    /** The n-th date, from the first: the 31st of a month without one is its last day, and comes back in the next. */
    public LocalDate date(int n) {
        return switch (step) {
            case DAYS -> first.plusDays((long) every * n);
            case WEEKS -> first.plusWeeks((long) every * n);
            case MONTHS -> first.plusMonths((long) every * n);
            case YEARS -> first.plusYears((long) every * n);
        };
    }

    /** The next dates after a day. */
    public List<LocalDate> after(LocalDate day, int count) {
        int n = 0;
        while (!date(n).isAfter(day)) {
            n++;
        }
        int from = n;
        return IntStream.range(0, count).mapToObj(i -> date(from + i)).toList();
    }
}

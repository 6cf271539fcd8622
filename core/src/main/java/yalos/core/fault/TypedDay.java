package yalos.core.fault;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Optional;

/** A day as it is typed, in the one notation that nobody reads two ways. */
public final class TypedDay {
    private TypedDay() {}

    /**
     * Empty for nothing.
     *
     * @throws InputFault for what is no day
     */
    public static Optional<LocalDate> of(String field, String text) {
        try {
            return text.isBlank() ? Optional.empty() : Optional.of(LocalDate.parse(text.strip()));
        } catch (DateTimeException none) {
            throw new InputFault(field, text, "“%s” is no date. Write it as 2027-03-31.".formatted(text));
        }
    }

    /**
     * @throws InputFault for nothing, too
     */
    public static LocalDate needed(String field, String text) {
        return of(field, text).orElseThrow(() -> new InputFault(field, text, "Say which day, such as 2027-03-31."));
    }
}

package yalos.core.fault;

import java.math.BigDecimal;
import java.util.Locale;

/**
 * Something put in that cannot be used: which field, what stood there, and what would be right.
 *
 * <p>The web turns it into a message beside the field, the plan service into a problem answer. The
 * {@linkplain #getMessage() message} is a whole sentence for the operator and never holds a stack or a class name.
 */
public final class InputFault extends RuntimeException {
    private static final int LONGEST_VALUE = 80;

    private final String field;
    private final String value;

    /**
     * @param field the name of the field as the caller knows it, such as {@code sideOverlap}
     * @param value what stood there; shortened when long
     * @param sentence what is wrong and how to mend it
     */
    public InputFault(String field, Object value, String sentence) {
        super(sentence);
        this.field = field;
        String text = String.valueOf(value);
        this.value = text.length() > LONGEST_VALUE ? text.substring(0, LONGEST_VALUE) + "…" : text;
    }

    /** The field that holds the fault. */
    public String field() {
        return field;
    }

    /** What stood in the field, shortened when long. */
    public String value() {
        return value;
    }

    /** The same fault told of another field, for callers that know the field by another name. */
    public InputFault at(String otherField) {
        return new InputFault(otherField, value, getMessage());
    }

    /**
     * Passes a number that is finite and within bounds, and refuses any other.
     *
     * @param least smallest number that is right
     * @param most largest number that is right
     * @param unit shown behind the bounds, such as {@code m}; may be empty
     */
    public static double within(String field, double number, double least, double most, String unit) {
        if (!Double.isFinite(number) || number < least || number > most) {
            String tail = unit.isEmpty() ? "" : " " + unit;
            throw new InputFault(
                    field,
                    number,
                    "%s must be between %s and %s%s; %s is not."
                            .formatted(spoken(field), plain(least), plain(most), tail, plain(number)));
        }
        return number;
    }

    private static String spoken(String field) {
        String words = field.replaceAll("([a-z])([A-Z])", "$1 $2").toLowerCase(Locale.ROOT);
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    private static String plain(double number) {
        if (!Double.isFinite(number)) {
            return Double.isNaN(number) ? "“not a number”" : "an endless number";
        }
        return BigDecimal.valueOf(number).stripTrailingZeros().toPlainString();
    }
}

package yalos.core.units;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.fault.InputFault;

/**
 * A figure with the unit it was given in. What was typed as 300 ft stays 300 ft and is 91.44 m exactly.
 *
 * @param figure finite number in {@code unit}
 * @param unit the unit the figure is in
 */
public record Measure(double figure, Unit unit) {
    private static final Pattern CLOCK = Pattern.compile("(\\d{1,3}):([0-5]\\d)(?::([0-5]\\d))?");
    private static final Pattern HOURS = Pattern.compile("(\\d{1,3})\\s*h\\s*([0-5]?\\d)(?:\\s*min)?");
    private static final Pattern FRACTION = Pattern.compile("(\\d+)\\s*/\\s*(\\d+(?:\\.\\d+)?)\\s*(.*)");
    private static final Pattern FIGURE =
            Pattern.compile("([+-]?(?:\\d+(?:[.,]\\d*)?|[.,]\\d+)(?:[eE][+-]?\\d{1,3})?)\\s*(.*)");
    /** Commas that can only set thousands apart: a point follows, or there are two. */
    private static final Pattern THOUSANDS =
            Pattern.compile("[+-]?\\d{1,3}(?:(?:,\\d{3})+\\.\\d*|(?:,\\d{3}){2,}(?!\\d))(?:\\D.*)?");

    private static final Pattern UNCLEAR_COMMA = Pattern.compile("[+-]?\\d{1,3},\\d{3}");

    public Measure {
        if (!Double.isFinite(figure)) {
            throw new InputFault("figure", figure, "Only finite numbers can be used here.");
        }
    }

    /** A figure in its unit. */
    public static Measure of(double figure, Unit unit) {
        return new Measure(figure, unit);
    }

    /** A measure that shows an SI figure in the given unit. */
    public static Measure ofSi(double si, Unit unit) {
        return new Measure(unit.ofSi(si), unit);
    }

    /** The figure in the SI unit of its family. */
    public double si() {
        return unit.toSi(figure);
    }

    /**
     * Reads what an operator types: {@code 80}, {@code 80 m}, {@code 260ft}, {@code 1/1000 s}, {@code 24:40} (minutes
     * and seconds), {@code 1 h 10 min}, {@code 1,5}.
     *
     * @param field named in the fault
     * @param unitIfNone the unit meant when none is typed
     * @throws InputFault where no number stands first, the unit is of another family or unknown, or a comma could part
     *     thousands as well as decimals
     */
    public static Measure typed(String field, String text, Unit unitIfNone) {
        String typed = text == null ? "" : text.strip().replace('\u00a0', ' ').replace('\u2212', '-');
        if (unitIfNone.family() == Unit.Family.TIME) {
            Matcher clock = CLOCK.matcher(typed);
            if (clock.matches()) {
                return clockTime(clock);
            }
            Matcher hours = HOURS.matcher(typed);
            if (hours.matches()) {
                return of(Double.parseDouble(hours.group(1)) * 60 + Double.parseDouble(hours.group(2)), Unit.MINUTE);
            }
        }
        Matcher fraction = FRACTION.matcher(typed);
        if (fraction.matches()) {
            double figure = Double.parseDouble(fraction.group(1)) / Double.parseDouble(fraction.group(2));
            return inUnit(field, typed, figure, fraction.group(3), unitIfNone);
        }
        Matcher matcher = FIGURE.matcher(THOUSANDS.matcher(typed).matches() ? typed.replace(",", "") : typed);
        if (!matcher.matches()) {
            throw new InputFault(
                    field, typed, "“%s” is not a figure. Type a number, with or without a unit.".formatted(typed));
        }
        String digits = matcher.group(1);
        if (UNCLEAR_COMMA.matcher(digits).matches()) {
            throw new InputFault(
                    field,
                    typed,
                    "“%s” could mean %s or %s. Type it without a comma."
                            .formatted(typed, digits.replace(",", ""), digits.replace(',', '.')));
        }
        return inUnit(field, typed, Double.parseDouble(digits.replace(',', '.')), matcher.group(2), unitIfNone);
    }

    private static Measure clockTime(Matcher clock) {
        double first = Double.parseDouble(clock.group(1));
        double second = Double.parseDouble(clock.group(2));
        return clock.group(3) == null
                ? of(first + second / 60, Unit.MINUTE)
                : of(first * 60 + second + Double.parseDouble(clock.group(3)) / 60, Unit.MINUTE);
    }

    private static Measure inUnit(String field, String typed, double figure, String unitText, Unit unitIfNone) {
        if (!Double.isFinite(figure)) {
            throw new InputFault(field, typed, "“%s” is not a finite number.".formatted(typed));
        }
        if (unitText.isBlank()) {
            return of(figure, unitIfNone);
        }
        return Unit.typed(unitText, unitIfNone.family())
                .map(unit -> of(figure, unit))
                .orElseThrow(() -> new InputFault(
                        field,
                        typed,
                        "“%s” is not a unit for this. Use %s."
                                .formatted(unitText.strip(), Unit.symbolsOf(unitIfNone.family()))));
    }

    /** As typed: the shortest digits that give the figure back, and the unit. */
    public String asTyped() {
        String digits = new BigDecimal(Double.toString(round(figure)))
                .stripTrailingZeros()
                .toPlainString();
        return unit.symbol().isEmpty() ? digits : digits + " " + unit.symbol();
    }

    /** Without the dust that a conversion leaves behind the twelfth digit. */
    private static double round(double figure) {
        return figure == 0
                ? 0
                : new BigDecimal(figure).round(new MathContext(12)).doubleValue();
    }
}

package yalos.core.pins;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/**
 * What an operator typed into a row of the ledger: usually a figure for that row, but {@code 2 strips} in the margin's row
 * pins the margin in strips.
 *
 * @param quantity that is pinned
 * @param value as typed
 */
public record TypedPin(Quantity quantity, Measure value) {
    private static final Pattern STRIPS = Pattern.compile("(.+?)\\s*strips?", Pattern.CASE_INSENSITIVE);

    /**
     * @param units in which a figure without unit is meant
     * @throws yalos.core.fault.InputFault for text that is no figure of the row
     */
    public static TypedPin of(Quantity row, String text, UnitChoice units) {
        Matcher strips = STRIPS.matcher(text.strip());
        if (row == Quantity.MARGIN && strips.matches()) {
            return new TypedPin(Quantity.MARGIN_STRIPS, Measure.typed(row.key(), strips.group(1), Unit.COUNT));
        }
        return new TypedPin(row, Measure.typed(row.key(), text, units.unit(row.kind())));
    }
}

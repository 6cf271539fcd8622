package yalos.web.kit;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.Map;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Figures typed into a form of the catalogue, read back one by one. */
record Typed(Map<String, String> form) {
    private static final int LONGEST_NAME = 80;

    String text(String key) {
        return form.getOrDefault(key, "").strip();
    }

    /**
     * @throws InputFault for a name that is empty or too long
     */
    String name() {
        String name = text("name");
        if (name.isEmpty() || name.length() > LONGEST_NAME) {
            throw new InputFault("name", name, "Give it a name of up to 80 characters, by its class.");
        }
        return name;
    }

    /** A figure with any unit of its kind, in SI. */
    double si(String key, Unit unit) {
        double si = Measure.typed(key, text(key), unit).si();
        return Math.round(si * 1e12) / 1e12;
    }

    double number(String key) {
        return Measure.typed(key, text(key), Unit.COUNT).figure();
    }

    int whole(String key, String label) {
        double number = number(key);
        if (number != Math.rint(number) || Math.abs(number) > 1e9) {
            throw new InputFault(key, number, "%s: a whole number, please.".formatted(label));
        }
        return (int) number;
    }

    <E extends Enum<E>> E choice(String key, Class<E> type) {
        try {
            return Enum.valueOf(type, text(key));
        } catch (IllegalArgumentException e) {
            throw new InputFault(key, text(key), "“%s” is not one of the choices.".formatted(text(key)));
        }
    }

    /** A figure as a form shows it: no more digits than it has. */
    static String plain(double figure) {
        double rounded = Double.parseDouble(String.format(Locale.ROOT, "%.6f", figure));
        return BigDecimal.valueOf(rounded).stripTrailingZeros().toPlainString();
    }
}

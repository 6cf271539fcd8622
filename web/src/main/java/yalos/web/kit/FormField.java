package yalos.web.kit;

import java.util.List;

/**
 * One line of a form of the catalogue, holding what was typed.
 *
 * @param choices to choose from; empty for a line of text
 */
public record FormField(String key, String label, String value, String unit, List<Choice> choices) {
    /** One of several choices. */
    public record Choice(String value, String words) {}

    static FormField text(String key, String label, String value, String unit) {
        return new FormField(key, label, value, unit, List.of());
    }

    static FormField choice(String key, String label, String value, List<Choice> choices) {
        return new FormField(key, label, value, "", choices);
    }

    /** The same line holding something else. */
    FormField holding(String other) {
        return new FormField(key, label, other, unit, choices);
    }

    public boolean chosen(Choice choice) {
        return choice.value().equals(value);
    }
}

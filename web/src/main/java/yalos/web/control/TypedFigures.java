package yalos.web.control;

import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.springframework.stereotype.Component;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.web.shell.Preferences;

/** Figures as they are typed into forms, in the units the form was made with; empty for a field left empty. */
@Component
class TypedFigures {
    private final Preferences preferences;

    TypedFigures(Preferences preferences) {
        this.preferences = preferences;
    }

    OptionalDouble metres(String field, String text, UnitKind kind) {
        return text.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(
                        Measure.typed(field, text, preferences.typed().unit(kind))
                                .si());
    }

    static OptionalInt count(String field, String text) {
        if (text.isBlank()) {
            return OptionalInt.empty();
        }
        try {
            return OptionalInt.of(Integer.parseInt(text.strip()));
        } catch (NumberFormatException noCount) {
            throw new InputFault(field, text, "“%s” is no whole number.".formatted(text));
        }
    }
}

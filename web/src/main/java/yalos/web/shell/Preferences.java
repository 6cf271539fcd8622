package yalos.web.shell;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.PreferenceMapper;

/** The units the operator reads, kept in the database. */
@Service
public class Preferences {
    private static final String UNITS = "units";

    private final PreferenceMapper rows;

    Preferences(PreferenceMapper rows) {
        this.rows = rows;
    }

    public UnitChoice units() {
        return rows.get(UNITS).map(Preferences::read).orElse(UnitChoice.METRIC);
    }

    public void keep(UnitChoice units) {
        String text = units.chosen().entrySet().stream()
                .map(entry -> entry.getKey() + "=" + entry.getValue())
                .sorted()
                .collect(Collectors.joining(","));
        rows.put(UNITS, text);
    }

    private static UnitChoice read(String text) {
        Map<UnitKind, Unit> chosen = new EnumMap<>(UnitKind.class);
        Arrays.stream(text.split(","))
                .filter(part -> part.contains("="))
                .map(part -> part.split("="))
                .forEach(part -> chosen.put(UnitKind.valueOf(part[0]), Unit.valueOf(part[1])));
        return new UnitChoice(chosen);
    }
}

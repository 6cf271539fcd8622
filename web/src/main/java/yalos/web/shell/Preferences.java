package yalos.web.shell;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import yalos.core.fault.InputFault;
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
        try {
            return rows.get(UNITS).map(Preferences::read).orElse(UnitChoice.METRIC);
        } catch (InputFault damaged) {
            return UnitChoice.METRIC;
        }
    }

    /**
     * The units in which a bare number was typed: those of the page it was typed on, which that page sends along, whatever was chosen
     * elsewhere since.
     */
    public UnitChoice typed() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
                        && request.getRequest().getParameter(UNITS) != null
                ? read(request.getRequest().getParameter(UNITS))
                : units();
    }

    /** Units as a page sends them along. */
    public static String text(UnitChoice units) {
        return units.chosen().entrySet().stream()
                .map(entry -> entry.getKey() + "=" + entry.getValue())
                .sorted()
                .collect(Collectors.joining(","));
    }

    public void keep(UnitChoice units) {
        rows.put(UNITS, text(units));
    }

    private static UnitChoice read(String text) {
        Map<UnitKind, Unit> chosen = new EnumMap<>(UnitKind.class);
        try {
            Arrays.stream(text.split(","))
                    .map(part -> part.split("="))
                    .filter(part -> part.length == 2)
                    .forEach(part -> chosen.put(UnitKind.valueOf(part[0]), Unit.valueOf(part[1])));
        } catch (IllegalArgumentException unknown) {
            throw new InputFault(UNITS, text, "The page was made with units that are not known here. Reload it.");
        }
        return new UnitChoice(chosen);
    }
}

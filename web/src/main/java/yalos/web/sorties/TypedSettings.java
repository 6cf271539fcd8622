package yalos.web.sorties;

import java.util.Locale;
import java.util.OptionalDouble;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.sortie.SortieSettings;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.core.weather.Limits;
import yalos.web.store.BlockFacts;

/** Settings of the stage as they stand in their fields, in the operator's units. */
public record TypedSettings(
        String pilot,
        String eye,
        String span,
        String charge,
        int repeated,
        String returnHeight,
        String margin,
        String fence,
        String windLimit,
        String gustLimit,
        String cold,
        String visibility) {

    static TypedSettings of(BlockFacts facts, UnitChoice units) {
        SortieSettings settings = facts.field().sorties();
        Limits limits = facts.field().day().limits();
        return new TypedSettings(
                settings.pilot()
                        .flatMap(at -> facts.grid().map(grid -> place(grid, grid.toGrid(at))))
                        .orElse(""),
                units.text(UnitKind.HEIGHT, settings.eyeM()),
                text(settings.spanM(), UnitKind.DISTANCE, units),
                String.format(Locale.ROOT, "%.0f %%", 100 * settings.charge()),
                settings.repeated(),
                text(settings.returnM(), UnitKind.HEIGHT, units),
                units.text(UnitKind.HEIGHT, settings.marginM()),
                units.text(UnitKind.DISTANCE, settings.fenceM()),
                units.text(UnitKind.SPEED, limits.windMps()),
                units.text(UnitKind.SPEED, limits.gustMps()),
                units.text(UnitKind.TEMPERATURE, limits.coldK()),
                units.text(UnitKind.LENGTH, limits.visibilityM()));
    }

    private static String place(Grid grid, EastNorth at) {
        return String.format(Locale.ROOT, "%.2f %.2f", at.east(), at.north());
    }

    private static String text(OptionalDouble si, UnitKind kind, UnitChoice units) {
        return si.isPresent() ? units.text(kind, si.getAsDouble()) : "";
    }
}

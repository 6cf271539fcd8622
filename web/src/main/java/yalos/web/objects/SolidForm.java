package yalos.web.objects;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import yalos.core.exchange.TypedPosition;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * A solid as its form has it.
 *
 * @param places one to a line
 * @param width of a wall, or of a deck along its axis; empty for a footprint
 */
record SolidForm(
        String places,
        Structure.Kind kind,
        String width,
        String bottom,
        String top,
        Structure.Counted counted,
        String piers,
        String pierAlong,
        String pierAcross) {
    private static final String WALL_WIDTH = "0.5 m";
    private static final String PIER_SIDE = "1 m";

    /** The part at the places typed. */
    Structure.Part part(Optional<Grid> grid, UnitChoice units) {
        boolean line = kind == Structure.Kind.WALL || kind == Structure.Kind.DECK && width != null && !width.isBlank();
        List<LonLat> there = Arrays.stream(or(places, "").split("[\\n;]"))
                .filter(typed -> !typed.isBlank())
                .map(typed -> TypedPosition.read(typed, grid))
                .toList();
        return part(there, line, units);
    }

    /**
     * The part at places that are known.
     *
     * @param line whether they are the middle of it, not its footprint
     */
    Structure.Part part(List<LonLat> there, boolean line, UnitChoice units) {
        int count = (int)
                Math.round(Measure.typed("piers", or(piers, "0"), Unit.COUNT).si());
        return new Structure.Part(
                kind == null ? Structure.Kind.BODY : kind,
                there,
                line ? metres("width", or(width, WALL_WIDTH), UnitKind.DISTANCE, units) : 0,
                metres("bottom", or(bottom, "0"), UnitKind.HEIGHT, units),
                metres("top", or(top, ""), UnitKind.HEIGHT, units),
                counted == null ? Structure.Counted.GROUND : counted,
                count == 0
                        ? Structure.Piers.NONE
                        : new Structure.Piers(
                                count,
                                metres("pierAlong", or(pierAlong, PIER_SIDE), UnitKind.DISTANCE, units),
                                metres("pierAcross", or(pierAcross, PIER_SIDE), UnitKind.DISTANCE, units)));
    }

    /** The same for something along a line: a deck, or else a wall. */
    SolidForm along() {
        Structure.Kind lined = kind == Structure.Kind.DECK ? Structure.Kind.DECK : Structure.Kind.WALL;
        return new SolidForm(places, lined, width, bottom, top, counted, piers, pierAlong, pierAcross);
    }

    /** A length to the micrometre, so that what is shown and typed again stays the same. */
    static double metres(String field, String typed, UnitKind kind, UnitChoice units) {
        double metres = Measure.typed(field, typed, units.unit(kind)).si();
        return Math.round(metres * 1e6) / 1e6;
    }

    private static String or(String typed, String otherwise) {
        return typed == null || typed.isBlank() ? otherwise : typed;
    }
}

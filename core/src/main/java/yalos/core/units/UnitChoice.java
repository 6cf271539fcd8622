package yalos.core.units;

import java.util.EnumMap;
import java.util.Map;

/**
 * The units an operator reads, one for each kind of quantity. Any mixture is allowed; kinds left out are metric.
 *
 * @param chosen the kinds that differ from the metric default
 */
public record UnitChoice(Map<UnitKind, Unit> chosen) {
    /** Metres, centimetres, metres per second, hectares. */
    public static final UnitChoice METRIC = new UnitChoice(Map.of());

    /** Feet, inches, miles per hour, acres. */
    public static final UnitChoice FEET = new UnitChoice(Map.of(
            UnitKind.GSD, Unit.INCH,
            UnitKind.HEIGHT, Unit.FOOT,
            UnitKind.DISTANCE, Unit.FOOT,
            UnitKind.LENGTH, Unit.MILE,
            UnitKind.SPEED, Unit.MILE_PER_HOUR,
            UnitKind.AREA, Unit.ACRE));

    public UnitChoice {
        chosen = Map.copyOf(chosen);
    }

    /** The unit in which figures of a kind are shown and read. */
    public Unit unit(UnitKind kind) {
        return kind.shownIn(chosen.getOrDefault(kind, kind.choices().get(0).unit()))
                .unit();
    }

    /** The choice with another unit for a kind. */
    public UnitChoice with(UnitKind kind, Unit unit) {
        Map<UnitKind, Unit> changed = new EnumMap<>(UnitKind.class);
        changed.putAll(chosen);
        changed.put(kind, unit);
        return new UnitChoice(changed);
    }

    /** The figure alone, as it stands in the ledger's column. */
    public String figure(UnitKind kind, double si) {
        return kind.figure(si, unit(kind));
    }

    /** The figure with its unit, as it stands in a sentence. */
    public String text(UnitKind kind, double si) {
        String symbol = unit(kind).symbol();
        String figure = parted(figure(kind, si));
        if (symbol.isEmpty()) {
            return figure;
        }
        return kind == UnitKind.ANGLE ? figure + symbol : figure + " " + symbol;
    }

    /** An area in the operator's unit, or in square metres or feet where that unit would show next to nothing. */
    public String areaText(double m2) {
        Unit unit = unit(UnitKind.AREA);
        boolean tiny = Math.abs(unit.ofSi(m2)) < 0.1;
        if (!tiny || m2 == 0) {
            return text(UnitKind.AREA, m2);
        }
        return surfaceText(m2);
    }

    /** The area of a face, in square metres or feet, whatever fields are counted in. */
    public String surfaceText(double m2) {
        Unit unit = unit(UnitKind.AREA);
        Unit small = unit == Unit.ACRE || unit == Unit.SQUARE_FOOT ? Unit.SQUARE_FOOT : Unit.SQUARE_METRE;
        return parted(UnitKind.AREA.figure(m2, small)) + " " + small.symbol();
    }

    /**
     * Thousands before the point set apart, as all sentences and tables have them; fields keep the bare figure that is typed. Shutter times stay as
     * cameras name them, 1/1000.
     */
    public static String parted(String figure) {
        if (figure.contains("/")) {
            return figure;
        }
        int point = figure.indexOf('.');
        String whole = point < 0 ? figure : figure.substring(0, point);
        return whole.replaceAll("(?<=\\d)(?=(\\d{3})+$)", ",") + figure.substring(whole.length());
    }
}

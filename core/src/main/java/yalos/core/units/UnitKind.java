package yalos.core.units;

import java.util.List;
import java.util.Locale;

/**
 * A kind of quantity that has its own unit on the operator's page: a height may be read in feet while the GSD stays in
 * centimetres. Each kind lists the units it may be shown in, the first being the metric default, with digits and the step
 * of one nudge.
 */
public enum UnitKind {
    GSD("GSD", new Shown(Unit.CENTIMETRE, 2, 0.1), new Shown(Unit.MILLIMETRE, 1, 1), new Shown(Unit.INCH, 3, 0.05)),
    HEIGHT("heights", new Shown(Unit.METRE, 1, 1), new Shown(Unit.FOOT, 1, 5), new Shown(Unit.US_SURVEY_FOOT, 1, 5)),
    DISTANCE(
            "distances", new Shown(Unit.METRE, 1, 1), new Shown(Unit.FOOT, 1, 5), new Shown(Unit.US_SURVEY_FOOT, 1, 5)),
    LENGTH("flown lengths", new Shown(Unit.KILOMETRE, 2, 0.1), new Shown(Unit.MILE, 2, 0.1)),
    SPEED(
            "speeds",
            new Shown(Unit.METRE_PER_SECOND, 1, 0.5),
            new Shown(Unit.KILOMETRE_PER_HOUR, 1, 1),
            new Shown(Unit.MILE_PER_HOUR, 1, 1),
            new Shown(Unit.KNOT, 1, 1)),
    AREA(
            "areas",
            new Shown(Unit.HECTARE, 2, 0.1),
            new Shown(Unit.SQUARE_METRE, 0, 100),
            new Shown(Unit.SQUARE_KILOMETRE, 4, 0.01),
            new Shown(Unit.ACRE, 2, 0.1),
            new Shown(Unit.SQUARE_FOOT, 0, 1000)),
    ANGLE("angles", new Shown(Unit.DEGREE, 1, 1)),
    SHARE("shares", new Shown(Unit.PERCENT, 1, 1)),
    INTERVAL("intervals", new Shown(Unit.SECOND, 2, 0.1)),
    SHUTTER("shutter times", new Shown(Unit.SECOND, 6, 0)),
    DURATION("flight times", new Shown(Unit.MINUTE, 1, 1)),
    DENSITY("point densities", new Shown(Unit.POINT_PER_M2, 1, 5), new Shown(Unit.POINT_PER_FT2, 2, 0.5)),
    TEMPERATURE("temperatures", new Shown(Unit.CELSIUS, 0, 1), new Shown(Unit.FAHRENHEIT, 0, 1)),
    PIXELS("pixels", new Shown(Unit.PIXEL, 2, 0.1)),
    COUNT("counts", new Shown(Unit.COUNT, 0, 1)),
    DATA("storage", new Shown(Unit.GIGABYTE, 1, 1));

    /**
     * One way of showing a kind.
     *
     * @param decimals digits behind the point; trailing zeros are dropped for shares and angles only
     * @param step one nudge, in the unit
     */
    public record Shown(Unit unit, int decimals, double step) {}

    private final String words;
    private final List<Shown> choices;

    UnitKind(String words, Shown... choices) {
        this.words = words;
        this.choices = List.of(choices);
    }

    /** What the kind covers, for the page on which the operator chooses. */
    public String words() {
        return words;
    }

    /** Units it can be shown in, the usual one first. */
    public List<Shown> choices() {
        return choices;
    }

    /** How a unit of this kind is shown; the default where the unit is not one of its choices. */
    public Shown shownIn(Unit unit) {
        return choices.stream()
                .filter(shown -> shown.unit() == unit)
                .findFirst()
                .orElse(choices.get(0));
    }

    /** Figure of an SI value in a unit of this kind, without the unit, in the digits of the kind. */
    public String figure(double si, Unit unit) {
        if (!Double.isFinite(si)) {
            return "–";
        }
        double figure = unit.ofSi(si);
        return switch (this) {
            case SHARE, COUNT -> trimmed(figure, shownIn(unit).decimals());
            case ANGLE -> bearing(figure);
            case DURATION -> clock(si);
            case SHUTTER -> shutter(si);
            default ->
                shownAsChosen(unit)
                        ? String.format(Locale.ROOT, "%." + shownIn(unit).decimals() + "f", positiveZero(figure))
                        : significant(figure);
        };
    }

    private boolean shownAsChosen(Unit unit) {
        return choices.stream().anyMatch(shown -> shown.unit() == unit);
    }

    /** Four digits that count, for a unit that was typed and is none of the page's: 0.05 mi stays so. */
    private static String significant(double figure) {
        int decimals = figure == 0 ? 0 : (int) Math.max(0, 3 - Math.floor(Math.log10(Math.abs(figure))));
        return trimmed(figure, decimals);
    }

    private static double positiveZero(double figure) {
        return figure == 0 ? 0 : figure;
    }

    private static String trimmed(double figure, int decimals) {
        String text = String.format(Locale.ROOT, "%." + decimals + "f", figure);
        return text.contains(".") ? text.replaceAll("\\.?0+$", "") : text;
    }

    /** Bearings have three digits before the point: 064, 064.5. */
    private static String bearing(double degrees) {
        double tenths = Math.round(degrees * 10) / 10.0 % 360;
        String text = String.format(Locale.ROOT, "%05.1f", tenths);
        return text.endsWith(".0") ? text.substring(0, 3) : text;
    }

    /** Minutes and seconds, 24:40; above an hour in hours and minutes, 1 h 10, with the unit behind it. */
    private static String clock(double seconds) {
        long whole = Math.round(seconds);
        if (whole < 3600) {
            return String.format(Locale.ROOT, "%d:%02d", whole / 60, whole % 60);
        }
        long minutes = Math.round(seconds / 60);
        return "%d h %02d".formatted(minutes / 60, minutes % 60);
    }

    /** Shutter times below half a second read as fractions: 1/1000. */
    private static String shutter(double seconds) {
        if (seconds <= 0 || seconds >= 0.5) {
            return trimmed(seconds, 2);
        }
        return "1/" + Math.round(1 / seconds);
    }
}

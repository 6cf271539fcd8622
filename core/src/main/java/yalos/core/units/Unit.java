package yalos.core.units;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A unit an operator may type or read, with its size in the SI unit of its family.
 *
 * <p>The two feet are different units: the international foot is 0.3048 m exactly, the US survey foot 1200/3937 m
 * (NIST Special Publication 811, from memory). {@code ft} always means the international one.
 */
public enum Unit {
    METRE(Family.LENGTH, 1, "m", "metre", "metres", "meter", "meters"),
    CENTIMETRE(Family.LENGTH, 0.01, "cm", "centimetre", "centimetres"),
    MILLIMETRE(Family.LENGTH, 0.001, "mm", "millimetre", "millimetres"),
    KILOMETRE(Family.LENGTH, 1000, "km", "kilometre", "kilometres"),
    FOOT(Family.LENGTH, 0.3048, "ft", "foot", "feet", "'"),
    US_SURVEY_FOOT(Family.LENGTH, 1200.0 / 3937.0, "ftUS", "usft", "us survey foot", "us survey feet"),
    INCH(Family.LENGTH, 0.0254, "in", "inch", "inches", "\""),
    MILE(Family.LENGTH, 1609.344, "mi", "mile", "miles"),

    METRE_PER_SECOND(Family.SPEED, 1, "m/s", "mps"),
    KILOMETRE_PER_HOUR(Family.SPEED, 1 / 3.6, "km/h", "kmh", "kph"),
    MILE_PER_HOUR(Family.SPEED, 0.44704, "mph", "mi/h"),
    KNOT(Family.SPEED, 1852.0 / 3600.0, "kn", "kt", "knot", "knots"),
    FOOT_PER_SECOND(Family.SPEED, 0.3048, "ft/s", "fps"),

    DEGREE(Family.ANGLE, Math.PI / 180, "°", "deg", "degree", "degrees"),

    PERCENT(Family.SHARE, 0.01, "%", "percent"),

    SECOND(Family.TIME, 1, "s", "sec", "second", "seconds"),
    MILLISECOND(Family.TIME, 0.001, "ms"),
    MINUTE(Family.TIME, 60, "min", "minute", "minutes"),
    HOUR(Family.TIME, 3600, "h", "hour", "hours"),

    SQUARE_METRE(Family.AREA, 1, "m²", "m2"),
    HECTARE(Family.AREA, 10_000, "ha"),
    SQUARE_KILOMETRE(Family.AREA, 1_000_000, "km²", "km2"),
    SQUARE_FOOT(Family.AREA, 0.3048 * 0.3048, "ft²", "ft2"),
    ACRE(Family.AREA, 4046.8564224, "ac", "acre", "acres"),

    POINT_PER_M2(Family.DENSITY, 1, "/m²", "/m2", "pts/m²", "pts/m2"),
    POINT_PER_FT2(Family.DENSITY, 1 / (0.3048 * 0.3048), "/ft²", "/ft2", "pts/ft²", "pts/ft2"),

    CELSIUS(Family.TEMPERATURE, 1, 273.15, "°C", "c", "deg c"),
    FAHRENHEIT(Family.TEMPERATURE, 5.0 / 9, 459.67 * 5 / 9, "°F", "f", "deg f"),

    PIXEL(Family.PIXELS, 1, "px", "pixel", "pixels"),
    COUNT(Family.COUNT, 1, ""),
    MEGABYTE(Family.DATA, 1e6, "MB"),
    GIGABYTE(Family.DATA, 1e9, "GB");

    /** What kind of quantity a unit measures. The SI unit of each is the one of size 1 (radians for angles). */
    public enum Family {
        LENGTH,
        SPEED,
        ANGLE,
        SHARE,
        TIME,
        AREA,
        DENSITY,
        TEMPERATURE,
        PIXELS,
        COUNT,
        DATA
    }

    private final Family family;
    private final double size;
    private final double zero;
    private final String symbol;
    private final List<String> alsoTyped;

    Unit(Family family, double size, String symbol, String... alsoTyped) {
        this(family, size, 0, symbol, alsoTyped);
    }

    /**
     * @param zero SI figure of its zero
     */
    Unit(Family family, double size, double zero, String symbol, String... alsoTyped) {
        this.family = family;
        this.size = size;
        this.zero = zero;
        this.symbol = symbol;
        this.alsoTyped = List.of(alsoTyped);
    }

    /** What it measures; units of a family convert into each other. */
    public Family family() {
        return family;
    }

    /** One of this unit in the SI unit of its family. */
    public double size() {
        return size;
    }

    /** As printed behind a figure. */
    public String symbol() {
        return symbol;
    }

    /** A figure in this unit as SI. */
    public double toSi(double figure) {
        return figure * size + zero;
    }

    /** An SI figure in this unit. */
    public double ofSi(double si) {
        return (si - zero) / size;
    }

    /** The unit of a family that is typed so, ignoring case unless that would confuse two units. */
    public static Optional<Unit> typed(String text, Family family) {
        String wanted = text.strip();
        return Stream.of(values())
                .filter(unit -> unit.family == family)
                .filter(unit -> unit.symbol.equalsIgnoreCase(wanted)
                        || unit.alsoTyped.contains(wanted.toLowerCase(Locale.ROOT)))
                .findFirst();
    }

    /** The symbols of a family, for messages: {@code m, cm, mm}. */
    public static String symbolsOf(Family family) {
        return Stream.of(values())
                .filter(unit -> unit.family == family)
                .map(Unit::symbol)
                .filter(symbol -> !symbol.isEmpty())
                .reduce((a, b) -> a + ", " + b)
                .orElse("none");
    }
}

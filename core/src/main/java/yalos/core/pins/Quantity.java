package yalos.core.pins;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;

/**
 * The quantities of the ledger, in the order of its rows. Those with bounds can be pinned; pins of the same
 * {@linkplain #slot() slot} decide the same thing, so the later one takes the place of the earlier.
 */
public enum Quantity {
    GSD("gsd", "GSD", UnitKind.GSD, Section.SCALE, Slot.SCALE, 0.0002, 2),
    HEIGHT("height", "Height above ground", UnitKind.HEIGHT, Section.SCALE, Slot.SCALE, 1, 1500),
    FOOTPRINT_ACROSS("footprint-across", "Footprint across", UnitKind.DISTANCE, Section.SCALE),
    FOOTPRINT_ALONG("footprint-along", "Footprint along", UnitKind.DISTANCE, Section.SCALE),

    FORWARD_OVERLAP("forward-overlap", "Forward", UnitKind.SHARE, Section.OVERLAP, Slot.FORWARD, 0.01, 0.98),
    SIDE_OVERLAP("side-overlap", "Side", UnitKind.SHARE, Section.OVERLAP, Slot.SIDE, 0.01, 0.98),
    AIR_BASE("air-base", "Air base", UnitKind.DISTANCE, Section.OVERLAP, Slot.BASE, 0.05, 2000),
    STRIP_SPACING("strip-spacing", "Strip spacing", UnitKind.DISTANCE, Section.OVERLAP, Slot.SPACING, 0.05, 5000),

    DIRECTION("direction", "Direction", UnitKind.ANGLE, Section.PACE, Slot.DIRECTION, 0, 2 * Math.PI),
    MARGIN("margin", "Margin", UnitKind.DISTANCE, Section.PACE, Slot.MARGIN, 0, 2000),
    MARGIN_STRIPS("margin-strips", "Margin in strips", UnitKind.COUNT, Section.PACE, Slot.MARGIN, 0, 20),
    SPEED("speed", "Ground speed", UnitKind.SPEED, Section.PACE, Slot.SPEED, 0.1, 60),
    INTERVAL("interval", "Photo every", UnitKind.INTERVAL, Section.PACE, Slot.INTERVAL, 0.05, 600),
    SHUTTER_TIME("shutter-time", "Shutter time", UnitKind.SHUTTER, Section.PACE, Slot.SHUTTER, 1 / 64_000.0, 1),
    BLUR("blur", "Motion blur", UnitKind.PIXELS, Section.PACE, Slot.BLUR, 0.05, 20),
    POINT_DENSITY("point-density", "Point density", UnitKind.DENSITY, Section.PACE, Slot.POINT_DENSITY, 0.1, 20_000),

    BRIEF_GSD("brief-gsd", "GSD asked for", UnitKind.GSD, Section.LIMITS, Slot.BRIEF_GSD, 0.0002, 2),
    CEILING("ceiling", "Ceiling", UnitKind.HEIGHT, Section.LIMITS, Slot.CEILING, 1, 10_000),
    LEAST_PHOTOS("least-photos", "Seen at least", UnitKind.COUNT, Section.LIMITS, Slot.LEAST_PHOTOS, 1, 100),
    POSITIONS_TO("positions-to", "Positions to", UnitKind.GSD, Section.LIMITS, Slot.POSITIONS_TO, 0.001, 10),
    HEIGHTS_TO("heights-to", "Heights to", UnitKind.GSD, Section.LIMITS, Slot.HEIGHTS_TO, 0.001, 10),
    TEMPERATURE(
            "temperature", "Air temperature", UnitKind.TEMPERATURE, Section.LIMITS, Slot.TEMPERATURE, 233.15, 328.15),
    WIND("wind", "Wind to plan for", UnitKind.SPEED, Section.LIMITS, Slot.WIND, 0, 40),
    WIND_FROM("wind-from", "Wind from", UnitKind.ANGLE, Section.LIMITS, Slot.WIND_FROM, 0, 2 * Math.PI),
    WIND_AT("wind-at", "Wind measured at", UnitKind.HEIGHT, Section.LIMITS, Slot.WIND_AT, 0.5, 1500),

    STRIPS("strips", "Strips", UnitKind.COUNT, Section.COST),
    PHOTOS("photos", "Photos", UnitKind.COUNT, Section.COST, Slot.PHOTOS, 2, 200_000),
    PATH_LENGTH("path-length", "Path length", UnitKind.LENGTH, Section.COST),
    FLIGHT_TIME("flight-time", "Flight time", UnitKind.DURATION, Section.COST, Slot.FLIGHT_TIME, 60, 360_000),
    BATTERY_SETS("battery-sets", "Battery sets", UnitKind.COUNT, Section.COST, Slot.BATTERY_SETS, 1, 100),
    STORAGE("storage", "Storage", UnitKind.DATA, Section.COST),
    AREA("area", "Area", UnitKind.AREA, Section.COST);

    /** The ruled sections of the ledger. */
    public enum Section {
        SCALE("Scale"),
        OVERLAP("Overlap"),
        PACE("Pace"),
        LIMITS("Your limits"),
        COST("Cost");

        private final String title;

        Section(String title) {
            this.title = title;
        }

        /** Heading of the section on the page. */
        public String title() {
            return title;
        }
    }

    /** What a pin decides. */
    public enum Slot {
        SCALE,
        FORWARD,
        SIDE,
        BASE,
        SPACING,
        DIRECTION,
        MARGIN,
        SPEED,
        INTERVAL,
        POINT_DENSITY,
        SHUTTER,
        BLUR,
        BRIEF_GSD,
        CEILING,
        LEAST_PHOTOS,
        POSITIONS_TO,
        HEIGHTS_TO,
        TEMPERATURE,
        WIND,
        WIND_FROM,
        WIND_AT,
        PHOTOS,
        FLIGHT_TIME,
        BATTERY_SETS;

        /** Whether a pin here says how much the plan may cost at most, so that something else must give. */
        public boolean isCost() {
            return this == PHOTOS || this == FLIGHT_TIME || this == BATTERY_SETS;
        }
    }

    private final String key;
    private final String label;
    private final UnitKind kind;
    private final Section section;
    private final Optional<Slot> slot;
    private final double least;
    private final double most;

    Quantity(String key, String label, UnitKind kind, Section section) {
        this(key, label, kind, section, null, Double.NaN, Double.NaN);
    }

    Quantity(String key, String label, UnitKind kind, Section section, Slot slot, double least, double most) {
        this.key = key;
        this.label = label;
        this.kind = kind;
        this.section = section;
        this.slot = Optional.ofNullable(slot);
        this.least = least;
        this.most = most;
    }

    /** Name in addresses and stored facts; never changes. */
    public String key() {
        return key;
    }

    /** Name on the page. */
    public String label() {
        return label;
    }

    /** What its figures measure, and so in which units they can be shown. */
    public UnitKind kind() {
        return kind;
    }

    /** The section of the ledger it stands in. */
    public Section section() {
        return section;
    }

    /** What a pin of this quantity decides; empty for quantities that only follow. */
    public Optional<Slot> slot() {
        return slot;
    }

    /** Whether a pin of it is a cost that must not be exceeded. */
    public boolean isCost() {
        return slot.filter(Slot::isCost).isPresent();
    }

    /** Whether a pin of it says how accurate the result must be. */
    public boolean isAccuracy() {
        return this == POSITIONS_TO || this == HEIGHTS_TO;
    }

    /** Whether the scale can follow from a pin of it: the finest that a cost allows, the coarsest that an accuracy does. */
    public boolean drivesScale() {
        return isCost() || isAccuracy();
    }

    /** Whether the operator can fix it. */
    public boolean pinnable() {
        return slot.isPresent();
    }

    /**
     * Passes a value that can be pinned.
     *
     * @throws InputFault with the bounds, told in the unit the value was typed in
     */
    public Measure checked(Measure value) {
        if (!pinnable()) {
            throw new InputFault(key, value.asTyped(), "%s only follows from the others.".formatted(label));
        }
        double si = value.si();
        double dust = 1e-9 * Math.max(1, Math.abs(most));
        if (si < least - dust || si > most + dust) {
            throw new InputFault(
                    key,
                    value.asTyped(),
                    "%s must be between %s and %s; %s is not."
                            .formatted(label, bound(least, value), bound(most, value), typed(value)));
        }
        return value;
    }

    private String bound(double si, Measure like) {
        return typed(Measure.ofSi(si, like.unit()));
    }

    /** A value of it as somebody would type it: shutter times are fractions of a second. */
    public String typed(Measure value) {
        return kind == UnitKind.SHUTTER
                ? kind.figure(value.si(), value.unit()) + " " + value.unit().symbol()
                : value.asTyped();
    }

    /** The quantity of a key; empty for a key that nobody knows. */
    public static Optional<Quantity> ofKey(String key) {
        return Stream.of(values())
                .filter(quantity -> quantity.key.equals(key.toLowerCase(Locale.ROOT)))
                .findFirst();
    }
}

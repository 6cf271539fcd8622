package yalos.core.pins;

import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * What the operator has fixed, each figure as it was typed. At most one pin for each {@link Quantity.Slot}. Either the
 * scale has a pin, or a cost or an accuracy has one and the scale follows from it.
 */
public final class Pins {
    private final Map<Quantity, Measure> values;
    /** What each pin pushed out when it was set; comes back when it is released. */
    private final Map<Quantity, Map<Quantity, Measure>> displaced;

    private Pins(Map<Quantity, Measure> values) {
        this(values, Map.of());
    }

    private Pins(Map<Quantity, Measure> values, Map<Quantity, Map<Quantity, Measure>> displaced) {
        this.values = Collections.unmodifiableMap(values);
        this.displaced = Map.copyOf(displaced);
    }

    /** A pinned GSD and nothing else: every other slot keeps the program's default. */
    public static Pins ofGsd(double cm) {
        return new Pins(new EnumMap<>(Quantity.class)).with(Quantity.GSD, Measure.of(cm, Unit.CENTIMETRE));
    }

    /** A pinned height and nothing else. */
    public static Pins ofHeight(double m) {
        return new Pins(new EnumMap<>(Quantity.class)).with(Quantity.HEIGHT, Measure.of(m, Unit.METRE));
    }

    /**
     * Stored pins, read back.
     *
     * @throws InputFault when they hold no scale or a figure out of bounds
     */
    public static Pins of(Map<Quantity, Measure> stored) {
        Pins pins = new Pins(new EnumMap<>(Quantity.class));
        for (Map.Entry<Quantity, Measure> entry : stored.entrySet()) {
            pins = pins.with(entry.getKey(), entry.getValue());
        }
        if (pins.isOpen()) {
            throw new InputFault("gsd", "nothing", "The GSD, the height, a cost or an accuracy must be pinned.");
        }
        return pins;
    }

    /**
     * The pins after the operator pinned one. A cost or an accuracy that was not pinned before takes the place of the scale, which
     * then follows from it; a scale pinned afterwards stays beside it.
     */
    public Pins pinned(Quantity quantity, Measure value) {
        return remembering(quantity, decided(quantity, value));
    }

    /** The pins after a height or GSD was pinned as a way to what is asked for: a GSD that was pinned, and asked for by that, is asked for still. */
    public Pins pinnedFiner(Quantity quantity, Measure value) {
        Optional<Measure> asked = has(Quantity.BRIEF_GSD) ? Optional.empty() : of(Quantity.GSD);
        return asked.map(gsd -> with(Quantity.BRIEF_GSD, gsd)).orElse(this).pinned(quantity, value);
    }

    /** The pins after one was set, with what it pushed out; a pin that was there already keeps what it had pushed out before. */
    private Pins remembering(Quantity latest, Pins after) {
        Map<Quantity, Map<Quantity, Measure>> remembered = new EnumMap<>(Quantity.class);
        remembered.putAll(displaced);
        Map<Quantity, Measure> lost = new EnumMap<>(Quantity.class);
        if (has(latest)) {
            lost.putAll(displaced.getOrDefault(latest, Map.of()));
        }
        values.forEach((pin, value) -> {
            if (!after.has(pin)) {
                lost.put(pin, value);
            }
        });
        lost.keySet().removeIf(after::has);
        remembered.put(latest, lost);
        return after.remembering(remembered);
    }

    /** What each pin pushed out when it was set. */
    public Map<Quantity, Map<Quantity, Measure>> displaced() {
        return displaced;
    }

    /** The same pins with what each had pushed out; a pin that was pushed out itself keeps what it had, for when it comes back. */
    public Pins remembering(Map<Quantity, Map<Quantity, Measure>> pushedOut) {
        Map<Quantity, Map<Quantity, Measure>> known = new EnumMap<>(Quantity.class);
        known.putAll(pushedOut);
        known.values().removeIf(Map::isEmpty);
        return new Pins(values, known);
    }

    /**
     * The pins without one, and with what it had pushed out back in place, as far as nothing pinned since stands against it.
     * Empty where nothing would fix the scale any more.
     */
    public Optional<Pins> released(Quantity quantity) {
        EnumMap<Quantity, Measure> left = new EnumMap<>(Quantity.class);
        left.putAll(values);
        left.remove(quantity);
        Map<Quantity, Map<Quantity, Measure>> remembered = new EnumMap<>(Quantity.class);
        remembered.putAll(displaced);
        Map<Quantity, Measure> lost =
                Optional.ofNullable(remembered.remove(quantity)).orElse(Map.of());
        Pins released = new Pins(left, remembered);
        for (Map.Entry<Quantity, Measure> one : lost.entrySet()) {
            Pins with = released.with(one.getKey(), one.getValue());
            if (with.values.keySet().containsAll(released.values.keySet())) {
                released = with;
            }
        }
        return released.isOpen() ? Optional.empty() : Optional.of(released);
    }

    private Pins decided(Quantity quantity, Measure value) {
        Pins pinned = with(quantity, value);
        if (!quantity.drivesScale() || has(quantity)) {
            return pinned;
        }
        EnumMap<Quantity, Measure> changed = new EnumMap<>(Quantity.class);
        changed.putAll(pinned.values);
        changed.remove(Quantity.GSD);
        changed.remove(Quantity.HEIGHT);
        ScaleFix.of(new Pins(changed))
                .ifPresent(fix -> changed.remove(fix.needs().get(0)));
        return new Pins(changed);
    }

    /** The pins without those of costs. */
    public Pins withoutCosts() {
        EnumMap<Quantity, Measure> changed = new EnumMap<>(Quantity.class);
        changed.putAll(values);
        changed.keySet().removeIf(Quantity::isCost);
        return new Pins(changed);
    }

    /** The costs that are pinned. */
    public List<Quantity> costs() {
        return values.keySet().stream().filter(Quantity::isCost).toList();
    }

    /** Whether nothing says what the scale is. */
    private boolean isOpen() {
        return !scaleFixed() && values.keySet().stream().noneMatch(Quantity::drivesScale);
    }

    /** Whether pins other than costs and accuracies fix the scale. */
    public boolean scaleFixed() {
        return scaleFix().isPresent();
    }

    /** Which pins fix the scale; empty when it follows from a cost or an accuracy. */
    public Optional<ScaleFix> scaleFix() {
        return ScaleFix.of(this);
    }

    /**
     * The pins with one more; it takes the place of pins that decide the same. Step and overlap decide the same while the
     * scale is fixed otherwise; speed and interval do while something else fixes the base.
     */
    public Pins with(Quantity quantity, Measure value) {
        Measure checked = quantity.checked(value);
        EnumMap<Quantity, Measure> changed = new EnumMap<>(Quantity.class);
        values.forEach((other, pinned) -> {
            if (!other.slot().equals(quantity.slot())) {
                changed.put(other, pinned);
            }
        });
        changed.put(quantity, checked);
        giveWay(changed, quantity);
        return new Pins(changed).remembering(displaced);
    }

    private static void giveWay(EnumMap<Quantity, Measure> pins, Quantity latest) {
        boolean scale = pins.containsKey(Quantity.GSD) || pins.containsKey(Quantity.HEIGHT);
        boolean across = pins.containsKey(Quantity.SIDE_OVERLAP) && pins.containsKey(Quantity.STRIP_SPACING);
        boolean along = pins.containsKey(Quantity.FORWARD_OVERLAP) && pins.containsKey(Quantity.AIR_BASE);
        if (across && scale) {
            pins.remove(latest == Quantity.STRIP_SPACING ? Quantity.SIDE_OVERLAP : Quantity.STRIP_SPACING);
        }
        if (along && (scale || across)) {
            pins.remove(latest == Quantity.AIR_BASE ? Quantity.FORWARD_OVERLAP : Quantity.AIR_BASE);
        }
        boolean pace = pins.containsKey(Quantity.SPEED) && pins.containsKey(Quantity.INTERVAL);
        boolean baseFixed =
                pins.containsKey(Quantity.AIR_BASE) || pins.containsKey(Quantity.FORWARD_OVERLAP) && (scale || across);
        if (pace && baseFixed) {
            pins.remove(latest == Quantity.INTERVAL ? Quantity.SPEED : Quantity.INTERVAL);
        }
    }

    /**
     * The pins without one, where the scale stays fixed without it.
     *
     * @throws InputFault for the last pin that fixes the scale
     */
    public Pins without(Quantity quantity) {
        EnumMap<Quantity, Measure> changed = new EnumMap<>(Quantity.class);
        changed.putAll(values);
        changed.remove(quantity);
        Pins left = new Pins(changed, displaced);
        if (left.isOpen()) {
            Quantity other = quantity == Quantity.GSD ? Quantity.HEIGHT : Quantity.GSD;
            throw new InputFault(
                    quantity.key(),
                    "unpinned",
                    "Something must fix the scale. Pin %s instead; this pin then goes by itself."
                            .formatted(other.label()));
        }
        return left;
    }

    /**
     * The pins with the scale let go: it then follows from the strip spacing and the side overlap, which are pinned as they
     * stand where they are not yet.
     *
     * @param spacing as it stands
     * @param side overlap as it stands
     */
    public Pins scaleReleased(Measure spacing, Measure side) {
        EnumMap<Quantity, Measure> changed = new EnumMap<>(Quantity.class);
        changed.putAll(values);
        changed.remove(Quantity.GSD);
        changed.remove(Quantity.HEIGHT);
        Pins left = new Pins(changed, displaced);
        if (!left.isOpen()) {
            return left;
        }
        changed.putIfAbsent(Quantity.SIDE_OVERLAP, Quantity.SIDE_OVERLAP.checked(side));
        changed.putIfAbsent(Quantity.STRIP_SPACING, Quantity.STRIP_SPACING.checked(spacing));
        return new Pins(changed, displaced);
    }

    /**
     * The pins with one moved by so many steps of the unit it is shown in, to a whole step.
     *
     * @param presentSi the figure before, which need not be pinned
     */
    public Pins nudged(Quantity quantity, double presentSi, int steps, UnitChoice units) {
        UnitKind kind = quantity.kind();
        Unit unit = of(quantity).map(Measure::unit).orElse(units.unit(kind));
        if (kind == UnitKind.SHUTTER) {
            return with(quantity, Measure.of(nextShutterTime(presentSi, steps), Unit.SECOND));
        }
        double step = kind.shownIn(unit).step();
        double figure = (Math.round(unit.ofSi(presentSi) / step) + steps) * step;
        if (quantity == Quantity.DIRECTION) {
            figure = ((figure % 360) + 360) % 360;
        }
        return pinned(quantity, Measure.of(Math.round(figure * 1e9) / 1e9, unit));
    }

    /** Shutter times go by thirds of a stop, upwards to longer ones. */
    private static double nextShutterTime(double presentS, int steps) {
        double thirds = Math.round(3 * Math.log(presentS * 1000) / Math.log(2)) + steps;
        double seconds = Math.pow(2, thirds / 3) / 1000;
        return seconds >= 0.5 ? seconds : 1.0 / Math.round(1 / seconds);
    }

    /** What is pinned of a quantity, as it was typed. */
    public Optional<Measure> of(Quantity quantity) {
        return Optional.ofNullable(values.get(quantity));
    }

    /** Whether a quantity is pinned. */
    public boolean has(Quantity quantity) {
        return values.containsKey(quantity);
    }

    /** The pinned figure in SI. */
    public OptionalDouble si(Quantity quantity) {
        Measure value = values.get(quantity);
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value.si());
    }

    /**
     * The figure of a quantity that is known to be pinned, in SI.
     *
     * @throws IllegalStateException when it is not
     */
    public double pinned(Quantity quantity) {
        return si(quantity).orElseThrow(() -> new IllegalStateException(quantity + " is not pinned"));
    }

    /** The pinned figure in SI, or another where nothing is pinned. */
    public double siOr(Quantity quantity, double otherwise) {
        return si(quantity).orElse(otherwise);
    }

    /** All pins, in the order of the ledger. */
    public Map<Quantity, Measure> asMap() {
        return values;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Pins pins && pins.values.equals(values) && pins.displaced.equals(displaced);
    }

    @Override
    public int hashCode() {
        return values.hashCode();
    }

    @Override
    public String toString() {
        return values.toString();
    }
}

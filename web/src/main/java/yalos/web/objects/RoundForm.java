package yalos.web.objects;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.UnderDeck;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * What was typed about a pass round an object.
 *
 * @param fields by name; those of another pattern are passed over
 * @param units in which bare figures were typed
 */
record RoundForm(Map<String, String> fields, UnitChoice units) {
    /** In the operator's own unit the usual lengths are round too. */
    private static final double ROUND_TO = 5;

    /** A new pass of a kind, with what is usual. */
    static StructurePass usual(String pattern, String object, double heightM, UnitChoice units) {
        StructurePass.Habit habit = StructurePass.Habit.USUAL;
        Measure none = Measure.of(0, Unit.DEGREE);
        return switch (pattern) {
            case "facade" -> Facade.usual(object, StandOff.of(usual(10, units)));
            case "rings" -> Rings.usual(object, StandOff.of(usual(15, units)));
            case "circles" ->
                new Circles(
                        usual(40, units),
                        Measure.of(50, Unit.PERCENT),
                        usual(Math.round(heightM), units),
                        false,
                        OptionalInt.empty(),
                        Optional.empty(),
                        habit);
            case "under-deck" ->
                new UnderDeck(object, StandOff.of(usual(5, units)), Measure.of(90, Unit.DEGREE), habit);
            default -> throw new InputFault("pattern", pattern, "There is no such pattern.");
        };
    }

    private static Measure usual(double metres, UnitChoice units) {
        Unit unit = units.unit(UnitKind.DISTANCE);
        return unit == Unit.METRE
                ? Measure.of(metres, unit)
                : Measure.of(Math.max(1, Math.round(unit.ofSi(metres) / ROUND_TO)) * ROUND_TO, unit);
    }

    /** The pass as it is wanted now. */
    StructurePass changed(StructurePass was) {
        StructurePass.Habit habit = new StructurePass.Habit(
                measure("forward", Unit.PERCENT).orElse(was.habit().forward()),
                measure("side", Unit.PERCENT).orElse(was.habit().side()),
                measure("speed", units.unit(UnitKind.SPEED)),
                measure("floor", height()),
                measure("ceiling", height()));
        String object = fields.getOrDefault("object", was.object().orElse(""));
        if (was instanceof Facade facade) {
            return new Facade(
                    object,
                    off(facade.off()),
                    "up".equals(fields.get("runs")),
                    degrees("footTilt", 0),
                    degrees("roofTilt", 0),
                    !"no".equals(fields.get("rounded")),
                    "yes".equals(fields.get("overRoof")),
                    habit);
        }
        if (was instanceof Rings rings) {
            return new Rings(
                    object,
                    off(rings.off()),
                    measure("radius", distance()),
                    measure("low", height()),
                    measure("high", height()),
                    count("rings"),
                    count("photos"),
                    measure("aim", height()),
                    habit);
        }
        if (was instanceof Circles circles) {
            return new Circles(
                    measure("radius", distance()).orElse(circles.radius()),
                    measure("overlap", Unit.PERCENT).orElse(circles.overlap()),
                    measure("height", height()).orElse(circles.height()),
                    "yes".equals(fields.get("follows")),
                    count("photos"),
                    measure("tilt", Unit.DEGREE),
                    habit);
        }
        return new UnderDeck(object, off(((UnderDeck) was).off()), degrees("up", 90), habit);
    }

    /** What was typed last holds: the figure in the field that was empty before. */
    private StandOff off(StandOff was) {
        Optional<Measure> distance = measure("off", distance());
        Optional<Measure> gsd = measure("gsd", units.unit(UnitKind.GSD));
        if (distance.isEmpty() && gsd.isEmpty()) {
            return was;
        }
        boolean byGsd = gsd.isPresent() && (distance.isEmpty() || was.gsd().isEmpty());
        return byGsd ? StandOff.ofGsd(gsd.get()) : StandOff.of(distance.orElseThrow());
    }

    private Unit height() {
        return units.unit(UnitKind.HEIGHT);
    }

    private Unit distance() {
        return units.unit(UnitKind.DISTANCE);
    }

    private Measure degrees(String field, double otherwise) {
        return measure(field, Unit.DEGREE).orElse(Measure.of(otherwise, Unit.DEGREE));
    }

    private Optional<Measure> measure(String field, Unit unit) {
        String typed = fields.getOrDefault(field, "");
        return typed.isBlank() ? Optional.empty() : Optional.of(Measure.typed(field, typed, unit));
    }

    private OptionalInt count(String field) {
        return measure(field, Unit.COUNT)
                .map(count -> OptionalInt.of((int) Math.round(count.si())))
                .orElse(OptionalInt.empty());
    }
}

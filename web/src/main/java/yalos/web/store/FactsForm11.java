package yalos.web.store;

import static yalos.web.store.Plain.or;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.TreeMap;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.control.ControlLayout;
import yalos.core.day.DaySettings;
import yalos.core.fault.InputFault;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.sortie.SortieSettings;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.web.store.StoredGear.StoredKit;

/**
 * Facts of a block in their eleventh form, the present one, in their tenth, whose turns are square, in their ninth, which has no objects, in their eighth, whose papers are a list and a card alone, in their seventh, which has no sorties and no day, in their sixth, which has no points on the ground, and in their fifth, which has no lidar alignment and no zones to be kept in either. Plain types alone; places are pairs of longitude and latitude. A part that is
 * missing is read as what is usual, an unknown word or pin is passed over, so that facts of any age give a block.
 */
record FactsForm11(
        Integer shape,
        List<StoredPart> outline,
        double[] launch,
        Integer epsg,
        Long cameraId,
        StoredKit kit,
        Map<String, String> pins,
        Map<String, Map<String, String>> displaced,
        StoredBrief brief,
        Map<String, String> notes,
        StoredGround ground,
        StoredPatterns patterns,
        StoredControl control,
        StoredSorties sorties,
        StoredDay day) {
    private static final double USUAL_GSD_CM = 2;

    static FactsForm11 of(BlockFacts facts) {
        Map<String, String> pins = new LinkedHashMap<>();
        facts.pins().asMap().forEach((quantity, value) -> pins.put(quantity.key(), value.asTyped()));
        Map<String, String> notes = new LinkedHashMap<>();
        new TreeMap<>(facts.notes()).forEach((quantity, note) -> notes.put(quantity.key(), note));
        return new FactsForm11(
                FactsJson.PRESENT,
                facts.outline().parts().stream().map(StoredPart::of).toList(),
                facts.launch()
                        .map(at -> new double[] {at.lonDeg(), at.latDeg()})
                        .orElse(null),
                facts.epsg().isPresent() ? facts.epsg().getAsInt() : null,
                facts.cameraId().isPresent() ? facts.cameraId().getAsLong() : null,
                StoredKit.of(facts.kit()),
                pins,
                displaced(facts.pins()),
                StoredBrief.of(facts.brief()),
                notes,
                StoredGround.of(facts.ground()),
                StoredPatterns.of(facts.patterns()),
                StoredControl.of(facts.control()),
                StoredSorties.of(facts.field().sorties()),
                StoredDay.of(facts.field().day()));
    }

    private static Map<String, Map<String, String>> displaced(Pins pins) {
        Map<String, Map<String, String>> all = new TreeMap<>();
        pins.displaced().forEach((pin, lost) -> {
            Map<String, String> typed = new TreeMap<>();
            lost.forEach((quantity, value) -> typed.put(quantity.key(), value.asTyped()));
            all.put(pin.key(), typed);
        });
        return all.isEmpty() ? null : all;
    }

    BlockFacts facts() {
        return new BlockFacts(
                new Outline(or(outline).stream().map(StoredPart::part).toList()),
                Optional.ofNullable(launch).filter(pair -> pair.length == 2).map(StoredPart::corner),
                epsg == null ? OptionalInt.empty() : OptionalInt.of(epsg),
                cameraId == null ? OptionalLong.empty() : OptionalLong.of(cameraId),
                (kit == null ? new StoredKit(null, null, null, null) : kit).kit(),
                readPins(),
                brief == null ? Brief.EMPTY : brief.brief(),
                readNotes(),
                ground == null ? GroundFacts.LEVEL : ground.ground(),
                patterns == null ? Patterns.SINGLE : patterns.patterns(),
                new Fieldwork(
                        control == null ? ControlLayout.NONE : control.layout(),
                        sorties == null ? SortieSettings.USUAL : sorties.settings(),
                        day == null ? DaySettings.USUAL : day.settings()));
    }

    /** Pins nobody knows or that cannot be any more are passed over; without a scale the usual GSD stands in. */
    private Pins readPins() {
        Map<Quantity, Measure> known = new EnumMap<>(Quantity.class);
        or(pins).forEach((key, typed) -> Quantity.ofKey(key)
                .ifPresent(quantity -> typed(quantity, typed).ifPresent(value -> known.put(quantity, value))));
        try {
            return Pins.of(known).remembering(readDisplaced());
        } catch (InputFault noScale) {
            known.put(Quantity.GSD, Measure.of(USUAL_GSD_CM, Unit.CENTIMETRE));
            return Pins.of(known);
        }
    }

    private Map<Quantity, Map<Quantity, Measure>> readDisplaced() {
        Map<Quantity, Map<Quantity, Measure>> all = new EnumMap<>(Quantity.class);
        or(displaced)
                .forEach((key, lost) -> Quantity.ofKey(key).ifPresent(pin -> {
                    Map<Quantity, Measure> read = new EnumMap<>(Quantity.class);
                    or(lost).forEach((other, typed) -> Quantity.ofKey(other)
                            .ifPresent(
                                    quantity -> typed(quantity, typed).ifPresent(value -> read.put(quantity, value))));
                    all.put(pin, read);
                }));
        return all;
    }

    private static Optional<Measure> typed(Quantity quantity, String typed) {
        try {
            Unit unit = quantity.kind().choices().get(0).unit();
            return Optional.of(quantity.checked(Measure.typed(quantity.key(), typed, unit)));
        } catch (InputFault cannotBeAnyMore) {
            return Optional.empty();
        }
    }

    private Map<Quantity, String> readNotes() {
        Map<Quantity, String> known = new EnumMap<>(Quantity.class);
        or(notes).forEach((key, note) -> Quantity.ofKey(key).ifPresent(quantity -> known.put(quantity, note)));
        return known;
    }
}

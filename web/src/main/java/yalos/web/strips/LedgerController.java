package yalos.web.strips;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.ledger.Entry;
import yalos.core.pattern.DirectionBy;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.pins.TypedPin;
import yalos.core.units.Measure;
import yalos.core.units.UnitChoice;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Visit;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** Changes rows of the ledger: types, pins, unpins, nudges. */
@Controller
class LedgerController {
    private static final int MOST_STEPS = 500;
    private static final int LONGEST_NOTE = 160;

    private final Blocks blocks;
    private final BlockPage page;
    private final PlanDesk desk;
    private final Preferences preferences;

    LedgerController(Blocks blocks, BlockPage page, PlanDesk desk, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.desk = desk;
        this.preferences = preferences;
    }

    /**
     * @param act {@code type} pins the value typed, {@code pin} the present figure, {@code unpin} releases, a whole number
     *     nudges by so many steps
     */
    @PostMapping("/blocks/{id}/ledger/{key}")
    String change(
            @PathVariable long id,
            @PathVariable String key,
            @RequestParam(defaultValue = "type") String act,
            @RequestParam(defaultValue = "") String value,
            Visit visit) {
        Quantity quantity = Quantity.ofKey(key).orElseThrow(() -> new NotThere("The ledger has no row “" + key + "”."));
        UnitChoice units = preferences.typed();
        Change change = changeOf(quantity, act, value, units, blocks.open(id).facts());
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        change.label(),
                        facts -> redirected(facts, change.facts().apply(facts))),
                visit);
    }

    /** Pins several figures at once, each under its own key, in the order of the ledger. */
    @PostMapping("/blocks/{id}/pins")
    String pins(@PathVariable long id, @RequestParam Map<String, String> form, Visit visit) {
        UnitChoice units = preferences.typed();
        List<TypedPin> typed = Arrays.stream(Quantity.values())
                .filter(quantity -> form.containsKey(quantity.key()))
                .map(quantity -> TypedPin.of(quantity, form.get(quantity.key()), units))
                .toList();
        if (typed.isEmpty()) {
            throw new InputFault("", "", "Nothing was named that is to be pinned.");
        }
        String label = typed.stream()
                .map(pin -> pin.quantity().label() + " " + pin.quantity().typed(pin.value()))
                .collect(Collectors.joining(", "));
        return page.changed(
                blocks.change(id, visit.version(), label, facts -> {
                    Pins pins = facts.pins();
                    for (TypedPin pin : typed) {
                        pins = pins.pinned(pin.quantity(), pin.value());
                    }
                    return redirected(facts, facts.with(pins));
                }),
                visit);
    }

    /** A direction typed or let go has no longer the reason for which it was chosen before. */
    private static BlockFacts redirected(BlockFacts before, BlockFacts after) {
        Optional<Measure> pinned = after.pins().of(Quantity.DIRECTION);
        return before.patterns().direction().isEmpty()
                        || pinned.equals(before.pins().of(Quantity.DIRECTION))
                ? after
                : after.with(after.patterns().turned(pinned.isPresent() ? DirectionBy.FIXED : DirectionBy.TIME));
    }

    private record Change(String label, UnaryOperator<BlockFacts> facts) {}

    private Change changeOf(Quantity quantity, String act, String value, UnitChoice units, BlockFacts present) {
        String name = quantity.label();
        return switch (act) {
            case "type" -> {
                TypedPin typed = TypedPin.of(quantity, value, units);
                yield new Change(
                        name + " " + quantity.typed(typed.value()),
                        facts -> facts.with(facts.pins().pinned(typed.quantity(), typed.value())));
            }
            case "finer" -> {
                TypedPin typed = TypedPin.of(quantity, value, units);
                yield new Change(
                        name + " " + quantity.typed(typed.value()),
                        facts -> facts.with(facts.pins().pinnedFiner(typed.quantity(), typed.value())));
            }
            case "pin" -> new Change(name + " pinned", facts -> facts.with(pinned(facts, quantity, units)));
            case "unpin" ->
                new Change(
                        releaseLabel(present, quantity, units), facts -> facts.with(released(facts, quantity, units)));
            case "note" ->
                new Change(
                        value.isBlank() ? name + ", why: taken away" : name + ", why: " + value.strip(),
                        facts -> facts.withNote(quantity, checkedNote(value)));
            default ->
                new Change(name + " nudged", facts -> facts.with(nudged(facts, quantity, steps(quantity, act), units)));
        };
    }

    /** Says what comes back, or is pinned so that the scale stays fixed: nothing is pinned silently. */
    private String releaseLabel(BlockFacts facts, Quantity quantity, UnitChoice units) {
        Map<Quantity, Measure> before = facts.pins().asMap();
        String come = released(facts, quantity, units).asMap().entrySet().stream()
                .filter(pin -> !before.containsKey(pin.getKey()))
                .map(pin -> pin.getKey().label() + " " + pin.getKey().typed(pin.getValue()))
                .collect(Collectors.joining(", "));
        return quantity.label() + " released" + (come.isEmpty() ? "" : "; pinned instead: " + come);
    }

    private static int steps(Quantity quantity, String act) {
        try {
            return Math.max(-MOST_STEPS, Math.min(MOST_STEPS, Integer.parseInt(act)));
        } catch (NumberFormatException e) {
            throw new InputFault(quantity.key(), act, "That is nothing a row of the ledger can do.");
        }
    }

    private static String checkedNote(String note) {
        if (note.strip().length() > LONGEST_NOTE) {
            throw new InputFault("note", note, "Keep the reason to %d characters.".formatted(LONGEST_NOTE));
        }
        return note;
    }

    /** What a pin had pushed out comes back; a scale that is let go otherwise follows from strip spacing and side overlap as they stand. */
    private Pins released(BlockFacts facts, Quantity quantity, UnitChoice units) {
        Pins pins = facts.pins();
        boolean byStrips = quantity == Quantity.MARGIN && pins.has(Quantity.MARGIN_STRIPS);
        Quantity released = byStrips ? Quantity.MARGIN_STRIPS : quantity;
        boolean scale = quantity == Quantity.GSD || quantity == Quantity.HEIGHT;
        return pins.released(released)
                .orElseGet(() -> scale && desk.plan(facts).whole().isPresent()
                        ? pins.scaleReleased(
                                shown(facts, Quantity.STRIP_SPACING, units), shown(facts, Quantity.SIDE_OVERLAP, units))
                        : pins.without(released));
    }

    /** Pins the figure that is shown, in the digits that are shown. */
    private Pins pinned(BlockFacts facts, Quantity quantity, UnitChoice units) {
        return facts.pins().pinned(quantity, shown(facts, quantity, units));
    }

    private Measure shown(BlockFacts facts, Quantity quantity, UnitChoice units) {
        String shown = units.figure(quantity.kind(), presentSi(facts, quantity));
        return Measure.typed(quantity.key(), shown, units.unit(quantity.kind()));
    }

    private Pins nudged(BlockFacts facts, Quantity quantity, int steps, UnitChoice units) {
        return facts.pins().nudged(quantity, presentSi(facts, quantity), steps, units);
    }

    private double presentSi(BlockFacts facts, Quantity quantity) {
        Planned planned = desk.plan(facts);
        Optional<Double> figure = planned.whole()
                .map(whole -> whole.ledger().entry(quantity))
                .map(Entry::si)
                .filter(si -> !si.isNaN());
        return figure.or(() -> facts.pins().of(quantity).map(Measure::si))
                .orElseThrow(
                        () -> new InputFault(quantity.key(), "nothing", "There is no figure to start from; type one."));
    }
}

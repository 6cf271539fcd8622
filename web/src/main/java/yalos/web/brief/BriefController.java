package yalos.web.brief;

import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.brief.Advice;
import yalos.core.brief.Brief;
import yalos.core.fault.InputFault;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.pins.TypedPin;
import yalos.core.units.UnitChoice;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.Visit;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;

/** Changes the brief, and takes or leaves its advice. */
@Controller
class BriefController {
    private static final int LONGEST_NOTE = 200;

    private final Blocks blocks;
    private final BlockPage page;
    private final Preferences preferences;

    BriefController(Blocks blocks, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    @PostMapping("/blocks/{id}/brief")
    String keep(@PathVariable long id, @RequestParam Map<String, String> form, Visit visit) {
        return page.changed(
                blocks.change(id, visit.version(), "brief", facts -> facts.with(BriefForm.read(form, facts.brief()))),
                visit);
    }

    /**
     * Positions of photos known otherwise: a remedy.
     *
     * @param height pinned with it, a GSD that was pinned asked for still; empty for none
     */
    @PostMapping("/blocks/{id}/brief/positioning")
    String positioning(
            @PathVariable long id,
            @RequestParam(defaultValue = "") String height,
            @RequestParam Map<String, String> form,
            Visit visit) {
        Positioning mode = BriefForm.choice(Positioning.class, form, "value")
                .orElseThrow(() -> new InputFault("value", "", "Choose how the positions of photos are known."));
        Optional<TypedPin> finer = height.isEmpty()
                ? Optional.empty()
                : Optional.of(TypedPin.of(Quantity.HEIGHT, height, preferences.typed()));
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        "positions by " + mode.words()
                                + finer.map(pin -> ", height " + pin.value().asTyped())
                                        .orElse(""),
                        facts -> {
                            BlockFacts known = facts.with(facts.brief().with(mode));
                            return finer.map(pin -> known.with(known.pins().pinnedFiner(pin.quantity(), pin.value())))
                                    .orElse(known);
                        }),
                visit);
    }

    /** Takes a piece of advice: its pins go into the ledger. */
    @PostMapping("/blocks/{id}/brief/{key}/accept")
    String accept(@PathVariable long id, @PathVariable String key, Visit visit) {
        UnitChoice units = preferences.units();
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        "advice on " + key + " taken",
                        facts -> taken(facts, advice(facts, key, units))),
                visit);
    }

    /** Takes all advice that was neither taken nor overruled. */
    @PostMapping("/blocks/{id}/brief/all/accept")
    String acceptAll(@PathVariable long id, Visit visit) {
        UnitChoice units = preferences.units();
        return page.changed(
                blocks.change(id, visit.version(), "open advice taken", facts -> {
                    BlockFacts taken = facts;
                    for (Advice advice : Advice.of(facts.brief(), units)) {
                        if (!facts.brief().rulings().containsKey(advice.key())
                                && !advice.followedBy(taken.brief(), taken.pins())) {
                            taken = taken(taken, advice);
                        }
                    }
                    return taken;
                }),
                visit);
    }

    private static BlockFacts taken(BlockFacts facts, Advice advice) {
        Pins pins = facts.pins();
        for (Advice.Pin pin : advice.pins()) {
            pins = pins.pinned(pin.quantity(), pin.value());
        }
        Brief brief = advice.mode().map(facts.brief()::with).orElse(facts.brief());
        return facts.with(pins).with(brief.ruled(advice.key(), new Brief.Ruling(true, "")));
    }

    /** Leaves a piece of advice, with a line why. */
    @PostMapping("/blocks/{id}/brief/{key}/overrule")
    String overrule(
            @PathVariable long id,
            @PathVariable String key,
            @RequestParam(defaultValue = "") String note,
            Visit visit) {
        UnitChoice units = preferences.units();
        String line =
                note.strip().substring(0, Math.min(LONGEST_NOTE, note.strip().length()));
        return page.changed(
                blocks.change(id, visit.version(), "advice on " + key + " overruled: " + line, facts -> {
                    advice(facts, key, units);
                    return facts.with(facts.brief().ruled(key, new Brief.Ruling(false, line)));
                }),
                visit);
    }

    private static Advice advice(BlockFacts facts, String key, UnitChoice units) {
        return Advice.of(facts.brief(), units).stream()
                .filter(advice -> advice.key().equals(key))
                .findFirst()
                .orElseThrow(() -> new NotThere("The brief gives no such advice any more."));
    }
}

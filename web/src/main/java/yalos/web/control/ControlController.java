package yalos.web.control;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.control.Assumptions;
import yalos.core.control.Avoided;
import yalos.core.control.BlockWorth;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.ControlPoint.Role;
import yalos.core.control.Proposal;
import yalos.core.exchange.TypedOutline;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** Points on the ground: typed, dragged, proposed; and what is taken for granted of them. */
@Controller
class ControlController {
    private final Blocks blocks;
    private final BlockPage page;
    private final PlanDesk plans;
    private final Preferences preferences;
    private final MeasuredPoints measured;
    private final PageWork work;

    ControlController(
            Blocks blocks,
            BlockPage page,
            PlanDesk plans,
            Preferences preferences,
            MeasuredPoints measured,
            PageWork work) {
        this.blocks = blocks;
        this.page = page;
        this.plans = plans;
        this.preferences = preferences;
        this.measured = measured;
        this.work = work;
    }

    private String change(long id, Visit visit, String label, UnaryOperator<ControlLayout> change) {
        return page.changed(
                blocks.change(id, visit.version(), label, facts -> facts.with(change.apply(facts.control()))), visit);
    }

    /** A new point; without a name it takes the next number. */
    @PostMapping("/blocks/{id}/control/points")
    String add(
            @PathVariable long id,
            @RequestParam String place,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "CONTROL") Role role,
            @RequestParam(defaultValue = "TARGET") ControlPoint.Kind kind,
            @RequestParam(defaultValue = "") String up,
            @RequestParam(defaultValue = "") String note,
            Visit visit) {
        return page.changed(
                blocks.change(id, visit.version(), role.words() + " point added", facts -> {
                    ControlLayout layout = facts.control();
                    return facts.with(layout.plus(new ControlPoint(
                            name.isBlank() ? layout.nextName() : name,
                            role,
                            kind,
                            TypedPosition.read(place, facts.grid()),
                            metres("up", up),
                            false,
                            note)));
                }),
                visit);
    }

    /** A point put elsewhere. */
    @PostMapping("/blocks/{id}/control/points/move")
    String move(@PathVariable long id, @RequestParam String point, @RequestParam String place, Visit visit) {
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        "point " + point + " moved",
                        facts -> facts.with(facts.control()
                                .changed(point, one -> one.at(TypedPosition.read(place, facts.grid()))))),
                visit);
    }

    /** A point written anew: name, role, kind, place, height, note. The role of one that is measured changes only with a reason. */
    @PostMapping("/blocks/{id}/control/points/edit")
    String edit(
            @PathVariable long id,
            @RequestParam String point,
            @RequestParam String name,
            @RequestParam Role role,
            @RequestParam ControlPoint.Kind kind,
            @RequestParam String place,
            @RequestParam(defaultValue = "") String up,
            @RequestParam(defaultValue = "") String note,
            @RequestParam(defaultValue = "") String reason,
            Visit visit) {
        BlockFacts before = blocks.open(id).facts();
        ControlPoint old = before.control()
                .named(point)
                .orElseThrow(() -> new InputFault("name", point, "There is no point " + point + " any more."));
        boolean known = measured.names(id).contains(ControlLayout.key(point));
        boolean changed = old.role() != role;
        if (known && changed && reason.isBlank()) {
            throw new InputFault(
                    "reason",
                    point,
                    "Point %s is measured; its role stands. Give a reason to change it: a check point that was held to vouches for nothing."
                            .formatted(point));
        }
        if (known && !ControlLayout.key(old.name()).equals(ControlLayout.key(name))) {
            throw new InputFault(
                    "name", name, "Point %s is measured under this name; its observations go by it.".formatted(point));
        }
        String label = changed
                ? "point %s is now %s%s".formatted(point, role.words(), reason.isBlank() ? "" : ": " + reason.strip())
                : "point " + point + " edited";
        String answer = page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        facts -> facts.with(facts.control()
                                .changed(
                                        point,
                                        one -> new ControlPoint(
                                                name,
                                                role,
                                                kind,
                                                // The typed place has centimetres; one that stays does not lose its
                                                // rest.
                                                place.equals(shown(facts, one))
                                                        ? one.place()
                                                        : TypedPosition.read(place, facts.grid()),
                                                metres("up", up),
                                                one.locked(),
                                                note)))),
                visit);
        if (known && changed) {
            measured.noted(id, point, label);
        }
        return answer;
    }

    private String shown(BlockFacts facts, ControlPoint point) {
        return ControlBook.place(plans.needed(facts), point);
    }

    @PostMapping("/blocks/{id}/control/points/lock")
    String lock(@PathVariable long id, @RequestParam String point, @RequestParam boolean locked, Visit visit) {
        return change(
                id,
                visit,
                "point %s %s".formatted(point, locked ? "locked" : "let go"),
                layout -> layout.changed(point, one -> one.locked(locked)));
    }

    @PostMapping("/blocks/{id}/control/points/remove")
    String remove(@PathVariable long id, @RequestParam String point, Visit visit) {
        return change(id, visit, "point %s taken away".formatted(point), layout -> layout.without(point));
    }

    /** Points proposed by count or by spacing; what is locked or measured stays. */
    @PostMapping("/blocks/{id}/control/propose")
    String propose(
            @PathVariable long id,
            @RequestParam(defaultValue = "5") int control,
            @RequestParam(defaultValue = "") String spacing,
            @RequestParam(defaultValue = "3") int checks,
            Visit visit) {
        InputFault.within("control", control, 0, ControlLayout.MOST / 2, "");
        InputFault.within("checks", checks, 0, ControlLayout.MOST / 2, "");
        OpenBlock block = blocks.open(id);
        BlockFacts facts = block.facts();
        BlockPlan plan = plans.needed(facts);
        OptionalDouble every = metres("spacing", spacing);
        every.ifPresent(m -> InputFault.within("spacing", m, 5, 5000, "m"));
        Set<String> kept = new HashSet<>(measured.names(id));
        facts.control().points().stream()
                .filter(ControlPoint::locked)
                .forEach(point -> kept.add(ControlLayout.key(point.name())));
        ControlLayout proposed = work.answer("The proposal", () -> {
            BlockWorth worth = ControlDesk.worth(plan, facts, facts.brief().positioning());
            Proposal proposal = new Proposal(worth);
            return every.isPresent()
                    ? proposal.layoutSpaced(every.getAsDouble(), checks, kept)
                    : proposal.layout(control, checks, kept);
        });
        return change(id, visit, "points proposed", layout -> proposed);
    }

    /** What is taken for granted. */
    @PostMapping("/blocks/{id}/control/assumptions")
    String assumptions(
            @PathVariable long id,
            @RequestParam double ties,
            @RequestParam double image,
            @RequestParam String horizontal,
            @RequestParam String vertical,
            @RequestParam(defaultValue = "false") boolean lens,
            @RequestParam int epochs,
            @RequestParam String walk,
            @RequestParam(defaultValue = "false") boolean closed,
            @RequestParam String slope,
            Visit visit) {
        Unit small = preferences.typed().unit(UnitKind.GSD);
        Unit speed = preferences.typed().unit(UnitKind.SPEED);
        return change(
                id,
                visit,
                "assumptions of control",
                layout -> layout.with(new Assumptions(
                        ties,
                        image,
                        Measure.typed("horizontal", horizontal, small).si(),
                        Measure.typed("vertical", vertical, small).si(),
                        lens,
                        epochs,
                        Measure.typed("walk", walk, speed).si(),
                        closed,
                        Measure.typed("slope", slope, Unit.DEGREE).si())));
    }

    /** An area without targets: drawn on the sheet or typed, one corner a line. */
    @PostMapping("/blocks/{id}/control/avoided")
    String avoid(
            @PathVariable long id,
            @RequestParam String places,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "TREES") Avoided.Kind kind,
            Visit visit) {
        return page.changed(
                blocks.change(id, visit.version(), kind.words() + " drawn", facts -> {
                    Outline outline = OutlineCheck.sound(Outline.ofRing(TypedOutline.line(places, facts.grid())));
                    List<Avoided> more = new ArrayList<>(facts.control().avoided());
                    more.add(new Avoided(name, kind, outline));
                    return facts.with(facts.control().avoiding(more));
                }),
                visit);
    }

    @PostMapping("/blocks/{id}/control/avoided/remove")
    String removeAvoided(@PathVariable long id, @RequestParam int at, Visit visit) {
        return change(id, visit, "area taken away", layout -> {
            if (at < 0 || at >= layout.avoided().size()) {
                throw new InputFault("at", at, "It is gone already; reload the page.");
            }
            List<Avoided> fewer = new ArrayList<>(layout.avoided());
            fewer.remove(at);
            return layout.avoiding(fewer);
        });
    }

    private OptionalDouble metres(String field, String text) {
        if (text.isBlank()) {
            return OptionalDouble.empty();
        }
        double metres = Measure.typed(field, text, preferences.typed().unit(UnitKind.HEIGHT))
                .si();
        return OptionalDouble.of(Math.round(metres * 1e6) / 1e6);
    }
}

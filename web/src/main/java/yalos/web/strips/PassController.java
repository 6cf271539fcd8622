package yalos.web.strips;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.fault.InputFault;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StartCorner;
import yalos.core.pattern.TieStrips;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.Directions;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.block.Visit;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** Adds, changes and takes away the passes flown besides the main one, and turns the aircraft's nose. */
@Controller
class PassController {
    private final Blocks blocks;
    private final BlockPage page;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final PageWork work;

    PassController(Blocks blocks, BlockPage page, PlanDesk desk, Preferences preferences, PageWork work) {
        this.work = work;
        this.desk = desk;
        this.blocks = blocks;
        this.page = page;
        this.preferences = preferences;
    }

    @PostMapping("/blocks/{id}/passes/add")
    String add(@PathVariable long id, @RequestParam String pattern, Visit visit) {
        AddedPass pass = switch (pattern) {
            case "crossing" -> Crossing.SQUARE;
            case "tilted" -> TiltedPasses.FOUR;
            case "tie" -> TieStrips.ONE;
            case "alignment" -> AlignmentPass.USUAL;
            default -> throw new InputFault("pattern", pattern, "There is no such pattern.");
        };
        return changed(id, visit, pass.words() + " added", patterns -> patterns.adding(pass));
    }

    /**
     * @param number of the added pass, from 1
     * @param fields of its form, empty ones as in the main pass
     */
    @PostMapping("/blocks/{id}/passes/{number}")
    String change(
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam Map<String, String> fields,
            @RequestParam(name = "looks", required = false) List<String> looks,
            Visit visit) {
        AddedPass was = pass(blocks.open(id).facts().patterns(), number);
        AddedPass pass = new Form(fields, looks == null ? List.of() : looks).changed(was);
        return changed(id, visit, "pass " + (number + 1) + ": " + pass.words(), patterns -> {
            pass(patterns, number);
            List<AddedPass> others = new ArrayList<>(patterns.added());
            others.set(number - 1, pass);
            return patterns.with(others);
        });
    }

    @PostMapping("/blocks/{id}/passes/{number}/remove")
    String remove(@PathVariable long id, @PathVariable int number, Visit visit) {
        String words = pass(blocks.open(id).facts().patterns(), number).words();
        return changed(id, visit, words + " taken away", patterns -> {
            pass(patterns, number);
            List<AddedPass> others = new ArrayList<>(patterns.added());
            others.remove(number - 1);
            return patterns.with(others);
        });
    }

    /** Holds the aircraft's nose to a heading, or lets it point along the strips again. */
    @PostMapping("/blocks/{id}/heading")
    String heading(@PathVariable long id, @RequestParam(defaultValue = "") String value, Visit visit) {
        Optional<Measure> held =
                value.isBlank() ? Optional.empty() : Optional.of(Measure.typed("heading", value, Unit.DEGREE));
        String label = held.map(heading -> "nose held to " + heading.asTyped()).orElse("nose along the strips");
        return changed(id, visit, label, patterns -> patterns.holding(held));
    }

    /** Keeps a wing's turns within the outline, or lets them reach beyond it; lets a multirotor turn back in a bend, or square. */
    @PostMapping("/blocks/{id}/turns")
    String turns(
            @PathVariable long id,
            @RequestParam(required = false) Boolean inside,
            @RequestParam(required = false) Boolean rounded,
            Visit visit) {
        String label = rounded != null
                ? rounded ? "turns rounded" : "turns square"
                : Boolean.TRUE.equals(inside) ? "turns inside the outline" : "turns outside the outline";
        return changed(id, visit, label, patterns -> {
            Patterns.Turns was = patterns.turns();
            return patterns.turning(new Patterns.Turns(
                    inside == null ? was.inside() : inside, rounded == null ? was.rounded() : rounded));
        });
    }

    /** Begins the main pass at a corner of the block, or nearest to the launch point again. */
    @PostMapping("/blocks/{id}/start")
    String start(@PathVariable long id, @RequestParam(defaultValue = "") String corner, Visit visit) {
        Optional<StartCorner> start = Stream.of(StartCorner.values())
                .filter(one -> one.name().equals(corner))
                .findFirst();
        String label = "begun " + start.map(StartCorner::words).orElse("nearest to the launch point");
        return changed(id, visit, label, patterns -> patterns.begun(start));
    }

    /** Lays the strips as a school of practice has them here and now, and keeps which it was, so that it can be asked again. */
    @PostMapping("/blocks/{id}/direction")
    String direction(@PathVariable long id, @RequestParam DirectionBy by, Visit visit) {
        BlockFacts facts = blocks.open(id).facts();
        BlockPlan plan = desk.plan(facts)
                .whole()
                .map(Planned.Whole::plan)
                .orElseThrow(() -> new InputFault("direction", by.words(), "There is no plan to turn yet."));
        // Least time is searched for anew with every change, so nothing is pinned for it.
        Optional<Measure> direction = by == DirectionBy.TIME
                ? Optional.empty()
                : Optional.of(work.answer("The direction", () -> Directions.asked(plan, by)).stream()
                        .mapToObj(rad -> Measure.of(Math.round(Math.toDegrees(rad) * 10) / 10.0, Unit.DEGREE))
                        .findFirst()
                        .orElseThrow(() -> new InputFault(
                                "direction", by.words(), "There is no direction %s here.".formatted(by.words()))));
        String label = "strips " + by.words()
                + direction.map(at -> ", " + at.asTyped()).orElse("");
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        label,
                        was -> was.with(was.patterns().turned(by))
                                .with(direction
                                        .map(at -> was.pins().pinned(Quantity.DIRECTION, at))
                                        .orElseGet(() -> was.pins().without(Quantity.DIRECTION)))),
                visit);
    }

    private static AddedPass pass(Patterns patterns, int number) {
        if (number < 1 || number > patterns.added().size()) {
            throw new InputFault("pass", number, "There is no such pass any more.");
        }
        return patterns.added().get(number - 1);
    }

    private String changed(long id, Visit visit, String label, UnaryOperator<Patterns> change) {
        return page.changed(
                blocks.change(id, visit.version(), label, facts -> facts.with(change.apply(facts.patterns()))), visit);
    }

    /** What was typed about a pass. */
    private final class Form {
        private final Map<String, String> fields;
        private final List<String> looks;

        Form(Map<String, String> fields, List<String> looks) {
            this.fields = fields;
            this.looks = looks;
        }

        AddedPass changed(AddedPass was) {
            AddedPass.Own own = new AddedPass.Own(
                    measure("height", preferences.typed().unit(UnitKind.HEIGHT)),
                    measure("forward", Unit.PERCENT),
                    measure("side", Unit.PERCENT));
            if (was instanceof Crossing crossing) {
                return new Crossing(own, angle("angle", crossing.angle()));
            }
            if (was instanceof TieStrips tie) {
                return new TieStrips(own, count(tie.count()), angle("angle", tie.angle()), angle("tilt", tie.tilt()));
            }
            if (was instanceof AlignmentPass alignment) {
                return new AlignmentPass(
                        measure("still", Unit.SECOND).orElse(alignment.still()),
                        measure("straight", Unit.SECOND).orElse(alignment.straight()),
                        measure("eights", Unit.COUNT)
                                .map(count -> (int) Math.round(count.si()))
                                .orElse(alignment.eights()));
            }
            TiltedPasses tilted = (TiltedPasses) was;
            return new TiltedPasses(own, angle("tilt", tilted.tilt()), ways());
        }

        private Optional<Measure> measure(String field, Unit unit) {
            String typed = fields.getOrDefault(field, "");
            return typed.isBlank() ? Optional.empty() : Optional.of(Measure.typed(field, typed, unit));
        }

        private Measure angle(String field, Measure otherwise) {
            return measure(field, Unit.DEGREE).orElse(otherwise);
        }

        private int count(int otherwise) {
            return fields.getOrDefault("count", "" + otherwise).strip().equals("2") ? 2 : 1;
        }

        private Set<TiltedPasses.Toward> ways() {
            Set<TiltedPasses.Toward> ways = EnumSet.noneOf(TiltedPasses.Toward.class);
            Stream.of(TiltedPasses.Toward.values())
                    .filter(way -> looks.contains(way.name().toLowerCase(Locale.ROOT)))
                    .forEach(ways::add);
            return ways;
        }
    }
}

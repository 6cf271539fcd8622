package yalos.web.jobs;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.block.Splitting;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Preferences;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;

/** Parts a block into several of the same job, and joins two into one. The block itself stays, hidden, so that nothing is lost. */
@Controller
class SplitController {
    /** So many parts more than sets are tried. */
    private static final int MOST_MORE = 6;

    private final Blocks blocks;
    private final Jobs jobs;
    private final PlanDesk desk;
    private final Preferences preferences;
    private final PageWork work;

    SplitController(Blocks blocks, Jobs jobs, PlanDesk desk, Preferences preferences, PageWork work) {
        this.work = work;
        this.blocks = blocks;
        this.jobs = jobs;
        this.desk = desk;
        this.preferences = preferences;
    }

    /**
     * @param how {@code parts} into a number of even parts, {@code sets} into as many as it takes battery sets, {@code line} by a line through two places
     * @param overlap width that neighbours share; one strip spacing where empty
     */
    @PostMapping("/jobs/{job}/split")
    String split(
            @PathVariable long job,
            @RequestParam("block") long id,
            @RequestParam String how,
            @RequestParam(defaultValue = "2") String parts,
            @RequestParam(defaultValue = "") String overlap,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to) {
        jobs.refuseElsewhere(job, id);
        BlockFacts facts = blocks.open(id).facts();
        if (facts.outline().isEmpty() || facts.patterns().corridor().isPresent()) {
            throw new InputFault("split", "none", "Only an area can be split; draw its outline first.");
        }
        Grid grid = facts.grid().orElseThrow();
        Optional<BlockPlan> plan = desk.plan(facts).whole().map(Planned.Whole::plan);
        double shared = overlap.isBlank()
                ? plan.map(there -> there.design().spacingM()).orElse(0.0)
                : Measure.typed("overlap", overlap, preferences.typed().unit(UnitKind.DISTANCE))
                        .si();
        InputFault.within("overlap", shared, 0, 1000, "m");
        List<Outline> split = switch (how) {
            case "line" -> Splitting.byLine(facts.outline(), grid, place(from, facts), place(to, facts), shared);
            case "sets" -> work.answer("The split", () -> bySets(facts, plan, shared));
            default -> even(facts, plan, count(parts), shared);
        };
        List<Outline> sound = split.stream().map(OutlineCheck::sound).toList();
        jobs.split(id, sound, facts);
        return "redirect:/jobs/" + job;
    }

    private static LonLat place(String typed, BlockFacts facts) {
        return TypedPosition.read(typed, facts.grid());
    }

    private static int count(String parts) {
        try {
            return Integer.parseInt(parts.strip());
        } catch (NumberFormatException e) {
            throw new InputFault("parts", parts, "The number of parts is a whole number.");
        }
    }

    private static double direction(Optional<BlockPlan> plan) {
        return plan.flatMap(there -> there.mainPass().pattern().directionRad().stream()
                        .boxed()
                        .findFirst())
                .orElse(0.0);
    }

    private static List<Outline> even(BlockFacts facts, Optional<BlockPlan> plan, int parts, double shared) {
        double strip = plan.map(there -> there.design().spacingM()).orElse(0.0);
        return Splitting.even(facts.outline(), facts.grid().orElseThrow(), parts, direction(plan), shared, strip);
    }

    /** The fewest even parts of which each, planned by itself with its ways out and home, is flown on one battery set. */
    private List<Outline> bySets(BlockFacts facts, Optional<BlockPlan> plan, double shared) {
        int sets = plan.map(BlockPlan::batterySets).orElse(0);
        if (sets < 2) {
            throw new InputFault(
                    "parts", sets, "This block takes %d battery set, so there is nothing to split.".formatted(sets));
        }
        for (int parts = sets; parts <= sets + MOST_MORE; parts++) {
            List<Outline> split = even(facts, plan, parts, shared);
            boolean fits = split.stream()
                    .map(part -> desk.plan(facts.with(OutlineCheck.sound(part))).whole())
                    .allMatch(whole ->
                            whole.filter(one -> one.plan().batterySets() == 1).isPresent());
            if (fits) {
                return split;
            }
        }
        throw new InputFault(
                "parts",
                sets,
                "Not even %d parts are flown on one set each: the ways out and home take too much. Move the launch point nearer, or split by number."
                        .formatted(sets + MOST_MORE));
    }

    /** Joins another block of the job to this one; both stay, hidden. */
    @PostMapping("/jobs/{job}/join")
    String join(@PathVariable long job, @RequestParam("block") long id, @RequestParam long with) {
        jobs.refuseElsewhere(job, id);
        OpenBlock one = blocks.open(id);
        OpenBlock other = blocks.open(with);
        if (one.jobId() != other.jobId() || id == with) {
            throw new InputFault("with", with, "Choose another block of the same job.");
        }
        if (one.facts().outline().isEmpty() || other.facts().outline().isEmpty()) {
            throw new InputFault("with", other.name(), "Both blocks need an outline to be joined.");
        }
        Grid grid = one.facts().grid().orElseThrow();
        Outline joined = OutlineCheck.sound(
                Splitting.joined(one.facts().outline(), other.facts().outline(), grid));
        long made = jobs.join(id, with, one.facts().with(joined));
        return "redirect:/blocks/" + made + "/strips";
    }
}

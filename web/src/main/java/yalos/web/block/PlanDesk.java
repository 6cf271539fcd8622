package yalos.web.block;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import yalos.core.fault.InputFault;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.Judgement;
import yalos.web.elevation.Grounds;
import yalos.web.shell.NotThere;
import yalos.web.store.BlockFacts;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;
import yalos.web.work.TookTooLong;

/** Where plans lie while they are looked at: each state of a block is planned once. Holds the last few. */
@Component
public class PlanDesk {
    /** A plan over ground keeps that ground and its judgement. */
    private static final long BYTES_OF_A_PLAN = 8L << 20;
    /** As many as are looked at by many operators, where memory allows; fewer would be planned again for every page. */
    private static final int MANY_CORNERS = 400;

    private final Map<BlockFacts, Planned> plans = Recent.map(Recent.fitting(4, BYTES_OF_A_PLAN, 24));

    private final Grounds grounds;

    private final PageWork work;

    PlanDesk(Grounds grounds, PageWork work) {
        this.grounds = grounds;
        this.work = work;
    }

    /** The plan of these facts, or why there is none. */
    public Planned plan(BlockFacts all) {
        BlockFacts facts = all.planning();
        Planned known = plans.get(facts);
        if (known == null) {
            try {
                known = heavy(facts) ? work.answer("The plan", () -> compute(facts)) : compute(facts);
            } catch (TookTooLong fault) {
                return Planned.not(new InputFault("plan", "too long", fault.getMessage()));
            }
            plans.put(facts, known);
        }
        return known;
    }

    /** Whether a plan may take long: one that is solved for, and one over very many corners. */
    private static boolean heavy(BlockFacts facts) {
        Pins pins = facts.pins();
        boolean solved = !pins.costs().isEmpty() || pins.has(Quantity.HEIGHTS_TO) || pins.has(Quantity.POSITIONS_TO);
        return solved
                || facts.outline().rings().stream().mapToInt(List::size).sum() > MANY_CORNERS
                || facts.aircraft().kind().wing();
    }

    /** A finer judgement takes the place of the first one, where the plan it is of still lies here. */
    public void judgedFiner(BlockFacts facts, Judgement finer) {
        Planned kept = plans.get(facts.planning());
        if (kept != null) {
            kept.whole().ifPresent(whole -> whole.judgedFiner(finer));
        }
    }

    /**
     * The plan of these facts, for what cannot be shown without one.
     *
     * @throws NotThere when there is none
     */
    public BlockPlan needed(BlockFacts facts) {
        return plan(facts)
                .whole()
                .map(Planned.Whole::plan)
                .orElseThrow(() -> new NotThere("There is no plan yet; the block's page says what is missing."));
    }

    /**
     * Lets a change pass that gives a plan, or that only leaves a new outline too large for the present settings, which
     * the page then says.
     *
     * @throws InputFault for any other
     */
    void refuseUnplannable(BlockFacts before, BlockFacts after) {
        if (after.outline().isEmpty()) {
            return;
        }
        plan(after).fault().ifPresent(fault -> {
            boolean onlyTooLarge =
                    fault.field().equals("stations") && !before.outline().equals(after.outline());
            boolean noBetterBefore = fault.field().equals("stations")
                    && plan(before)
                            .fault()
                            .filter(old -> old.field().equals("stations"))
                            .isPresent();
            if (!onlyTooLarge && !noBetterBefore) {
                throw fault;
            }
        });
    }

    private Planned compute(BlockFacts facts) {
        try {
            PlanRequest request = facts.request();
            BlockPlan plan = grounds.ground(facts.ground())
                    .map(request::over)
                    .orElse(request)
                    .plan();
            return Planned.of(new Planned.Whole(plan, facts.brief()));
        } catch (InputFault fault) {
            return Planned.not(fault);
        }
    }
}

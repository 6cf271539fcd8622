package yalos.web.control;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import yalos.core.control.BlockNetwork;
import yalos.core.control.BlockWorth;
import yalos.core.control.ControlLayout;
import yalos.core.control.CrewTime;
import yalos.core.control.Foretold;
import yalos.core.control.Layouts;
import yalos.core.control.Walk;
import yalos.core.fault.InputFault;
import yalos.core.kit.Positioning;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.TieStrips;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanProof.Accuracy;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.store.BlockFacts;
import yalos.web.work.Busy;
import yalos.web.work.Order;
import yalos.web.work.Recent;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/** Foretells what blocks are worth in the background, once for each state; the newest state of a block calls off what was begun for an older one. */
@Component
public class ControlDesk {
    private static final Duration END = Duration.ofMinutes(10);
    private static final int KEPT = 24;
    /** How much higher the second flight is, to part focal length and height. */
    private static final double HIGHER = 1.3;

    private final PlanDesk plans;
    private final WorkQueue queue;
    private final Map<BlockFacts, Foretelling> kept = Recent.map(KEPT);
    private final Map<Long, Foretelling> newest = new ConcurrentHashMap<>();

    ControlDesk(PlanDesk plans, WorkQueue queue) {
        this.plans = plans;
        this.queue = queue;
    }

    /** What would do instead of control: in words, what it gives and what it costs in the air and on the ground, in minutes. */
    record Instead(String words, Foretold.Sigma typical, Foretold.Verdict verdict, double minutes) {}

    /** What is found out of a block, as far as it is: first its worth, then layouts, then what would do instead. */
    static final class Foretelling {
        private volatile Work<?> work;
        private volatile String refused = "";
        private volatile String step = "";
        private volatile BlockWorth worth;
        private volatile Walk walk;
        private volatile List<Layouts.Row> rows = List.of();
        private volatile List<Instead> instead = List.of();
        private volatile boolean whole;

        Optional<BlockWorth> worth() {
            return Optional.ofNullable(worth);
        }

        Optional<Walk> walk() {
            return Optional.ofNullable(walk);
        }

        List<Layouts.Row> rows() {
            return rows;
        }

        List<Instead> instead() {
            return instead;
        }

        /** Whether something is still to come. */
        boolean running() {
            return work != null && !whole && work.open();
        }

        boolean calledOff() {
            return work != null && !whole && work.calledOff();
        }

        /** What is being done, in words. */
        String step() {
            return step;
        }

        /** Why nothing can be foretold. */
        String fault() {
            if (work == null) {
                return refused;
            }
            return work.failed() && worth == null
                    ? work.failure()
                            .filter(InputFault.class::isInstance)
                            .map(Throwable::getMessage)
                            .orElse("It could not be worked out.")
                    : "";
        }
    }

    /** What a block is worth, as far as it is found out; begun when nobody asked before. */
    public Optional<BlockWorth> worth(long block, BlockFacts facts, BlockPlan plan) {
        return of(block, facts, plan).worth();
    }

    /** What is found out of a block; begun when nobody asked before. Where too much waits it says so, and is begun when it is asked again. */
    synchronized Foretelling of(long block, BlockFacts facts, BlockPlan plan) {
        Foretelling known = kept.get(facts);
        if (known == null || known.calledOff()) {
            return begun(block, facts, plan);
        }
        known.work.looked();
        return known;
    }

    private Foretelling begun(long block, BlockFacts facts, BlockPlan plan) {
        Foretelling begun = new Foretelling();
        begun.step = "%,d photos are being adjusted".formatted(plan.photos());
        if (plan.photos() > BlockNetwork.MOST_PHOTOS) {
            begun.refused = BlockNetwork.tooMany(plan.photos());
            return begun;
        }
        Foretelling before = newest.put(block, begun);
        if (before != null && before.running()) {
            before.work.callOff();
        }
        Order order = new Order("block " + block, "What the points are worth", BlockNetwork.bytes(plan), END);
        try {
            begun.work = queue.submitWhileLookedAt(order, work -> {
                foretell(facts, plan, begun);
                return true;
            });
            kept.put(facts, begun);
        } catch (Busy busy) {
            begun.refused = busy.getMessage();
        }
        return begun;
    }

    private void foretell(BlockFacts facts, BlockPlan plan, Foretelling to) {
        ControlLayout layout = facts.control();
        Positioning wanted = facts.brief().positioning();
        Positioning mode = plan.request().able(wanted);
        Accuracy asked = asked(facts, plan);
        if (!layout.points().isEmpty()) {
            to.walk = Walk.of(plan, layout);
        }
        to.worth = worth(plan, facts, wanted);
        to.step = "layouts are being compared";
        to.rows = Layouts.of(to.worth, asked, mode);
        to.step = "tie strips and a second height are being tried";
        List<Instead> found = new ArrayList<>();
        positions(facts, plan, asked, mode, found);
        to.instead = List.copyOf(found);
        flown("a tie strip across", facts, TieStrips.ONE, plan, asked, found);
        to.instead = List.copyOf(found);
        double higherM = plan.design().scale().heightM() * HIGHER;
        AddedPass.Own higher = new AddedPass.Own(
                Optional.of(Measure.of(Math.round(higherM), Unit.METRE)),
                Optional.of(Measure.of(60, Unit.PERCENT)),
                Optional.of(Measure.of(40, Unit.PERCENT)));
        flown("crossing strips 30 % higher, 60/40", facts, Crossing.SQUARE.with(higher), plan, asked, found);
        to.instead = List.copyOf(found);
        to.whole = true;
    }

    /** What a plan of a block is worth, with its points and on its surface. */
    static BlockWorth worth(BlockPlan plan, BlockFacts facts, Positioning wanted) {
        return BlockWorth.of(
                plan, facts.control(), wanted, facts.brief().surface().ties());
    }

    /** Better positions: what the aircraft can do and the brief does not ask. */
    private void positions(BlockFacts facts, BlockPlan plan, Accuracy asked, Positioning mode, List<Instead> found) {
        for (Positioning better : new Positioning[] {Positioning.RTK_NETWORK, Positioning.RTK_BASE, Positioning.PPK}) {
            boolean able = plan.request().able(better) == better;
            if (able && better.horizontalM() < mode.horizontalM() - 1e-9) {
                BlockWorth worth = worth(plan, facts, better);
                double base = CrewTime.of(0, 0, 1, better).baseS() / 60;
                found.add(instead(better.words(), worth, asked, base));
                return;
            }
        }
    }

    private void flown(
            String words, BlockFacts facts, AddedPass pass, BlockPlan plan, Accuracy asked, List<Instead> found) {
        List<AddedPass> more = new ArrayList<>(facts.patterns().added());
        more.add(pass);
        Planned planned = plans.plan(facts.with(facts.patterns().with(more)));
        planned.whole().map(Planned.Whole::plan).ifPresent(other -> {
            try {
                BlockWorth worth = worth(other, facts, facts.brief().positioning());
                found.add(instead(words, worth, asked, (other.flightTimeS() - plan.flightTimeS()) / 60));
            } catch (InputFault tooMany) {
                // A block that is only just small enough has no room for more photos; the row is left out.
            }
        });
    }

    private static Instead instead(String words, BlockWorth worth, Accuracy asked, double minutes) {
        Foretold foretold = worth.planned();
        return new Instead(words, foretold.typical(), foretold.against(asked), minutes);
    }

    /** What brief and pins ask of the block. */
    static Accuracy asked(BlockFacts facts, BlockPlan plan) {
        return PlanProof.asked(plan, facts.brief().accuracy());
    }
}

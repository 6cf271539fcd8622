package yalos.web.proof;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.LockSupport;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.PhotoCount;
import yalos.web.block.PlanDesk;
import yalos.web.shell.NotThere;
import yalos.web.store.BlockFacts;
import yalos.web.work.Order;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/**
 * Proves plans in the background, each with its progress, each to be called off. What was proved lies here under the facts it follows
 * from: all that somebody looks at, and as much besides as a quarter of the heap holds. One viewer's proof never ends another's.
 */
@Component
public class ProofDesk {
    private static final Logger LOG = LoggerFactory.getLogger(ProofDesk.class);
    /** Share of hidden ground from which oblique strips are looked at. */
    private static final double WORTH_OBLIQUES = 0.0005;
    /** All layers of a cell, twice while oblique strips are weighed, with the search structures. */
    private static final long BYTES_A_CELL = 96;

    private static final long BYTES_A_PHOTO = 400;
    private static final int LEAST_KEPT = 12;
    /** A page asks every second while it waits; nobody looks at what was not asked for in so long. */
    private static final long LOOKED_AT_NANOS = 60_000_000_000L;

    private static final long LOOK_NANOS = 50_000_000;

    private final PlanDesk plans;
    private final WorkQueue queue;
    private final LongSupplier nanoClock;
    private final int most;
    private final Map<BlockFacts, Proving> provings = new LinkedHashMap<>(16, 0.75f, true);
    private final Map<Long, Shares> shares = new LinkedHashMap<>(16, 0.75f, true);

    @Autowired
    ProofDesk(PlanDesk plans, WorkQueue queue) {
        this(plans, queue, System::nanoTime, (int)
                Math.max(LEAST_KEPT, Runtime.getRuntime().maxMemory() / 4 / (PhotoCount.SCREEN_CELLS * BYTES_A_CELL)));
    }

    /** A desk that keeps so many, by a clock of one's own. */
    ProofDesk(PlanDesk plans, WorkQueue queue, LongSupplier nanoClock, int most) {
        this.plans = plans;
        this.queue = queue;
        this.nanoClock = nanoClock;
        this.most = most;
    }

    /** Shares of a block given enough: before the last change that was proved, and since. */
    record Shares(BlockFacts facts, double now, double before) {}

    /** A proof that waits, is under way, done or called off. */
    static final class Proving {
        private volatile Work<?> work;
        private volatile Judgement judgement;
        private volatile PlanProof.Gain gain;
        private volatile boolean weighing;
        private volatile long lookedAt;

        double progress() {
            return work.progress();
        }

        boolean calledOff() {
            return work.calledOff() && judgement == null;
        }

        boolean failed() {
            return work.failed() && judgement == null;
        }

        /** What was found, once it is done. */
        Optional<Judgement> judgement() {
            return Optional.ofNullable(judgement);
        }

        /** What oblique strips would add, where ground is hidden; known a little after the rest. */
        Optional<PlanProof.Gain> gain() {
            return Optional.ofNullable(gain);
        }

        /** Whether oblique strips are still being weighed. */
        boolean weighing() {
            return weighing && work.open();
        }

        boolean running() {
            return judgement == null && work.open();
        }
    }

    /**
     * The proof of a plan; begun when nobody asked for it before.
     *
     * @throws yalos.web.work.Busy when too much waits already
     */
    synchronized Proving of(long block, BlockFacts all, BlockPlan plan) {
        BlockFacts facts = all.planning();
        Proving known = provings.get(facts);
        if (known == null) {
            known = new Proving();
            known.work = begun(block, facts, plan, known);
            provings.put(facts, known);
        }
        known.lookedAt = nanoClock.getAsLong();
        tidy();
        return known;
    }

    /**
     * The judgement of a plan in all its layers, waited for.
     *
     * @throws NotThere when it was called off or failed
     */
    public Judgement settled(long block, BlockFacts all, BlockPlan plan) {
        Proving proving = of(block, all, plan);
        while (proving.running()) {
            LockSupport.parkNanos(LOOK_NANOS);
            // Somebody looks at it still.
            proving.lookedAt = nanoClock.getAsLong();
        }
        return proving.judgement()
                .orElseThrow(() -> new NotThere(
                        "The proof was called off, or failed; open the Proof stage and have it made again."));
    }

    private Work<?> begun(long block, BlockFacts facts, BlockPlan plan, Proving proving) {
        long bytes = PhotoCount.SCREEN_CELLS * BYTES_A_CELL + plan.photos() * BYTES_A_PHOTO;
        return queue.submit(new Order("block " + block, "The proof", bytes), work -> {
            prove(block, facts, plan, proving, work);
            return true;
        });
    }

    /** Begins a proof anew that was called off. */
    synchronized Proving again(long block, BlockFacts all, BlockPlan plan) {
        BlockFacts facts = all.planning();
        Proving known = provings.get(facts);
        if (known != null && known.judgement().isEmpty() && (known.calledOff() || known.failed())) {
            provings.remove(facts);
        }
        return of(block, facts, plan);
    }

    @PreDestroy
    synchronized void close() {
        provings.values().forEach(proving -> proving.work.callOff());
    }

    /** What nobody looks at any more is called off where it runs, and goes where there is too much of it. */
    private void tidy() {
        long now = nanoClock.getAsLong();
        List<BlockFacts> unseen = new ArrayList<>();
        provings.forEach((facts, proving) -> {
            if (now - proving.lookedAt > LOOKED_AT_NANOS) {
                unseen.add(facts);
            }
        });
        for (BlockFacts facts : unseen) {
            Proving proving = provings.get(facts);
            if (proving.running() || provings.size() > most) {
                proving.work.callOff();
                provings.remove(facts);
            }
        }
        for (BlockFacts oldest : new ArrayList<>(provings.keySet())) {
            if (provings.size() > most && !provings.get(oldest).running()) {
                provings.remove(oldest);
            }
        }
    }

    synchronized void callOff(BlockFacts facts) {
        Proving known = provings.get(facts.planning());
        if (known != null && known.running()) {
            known.work.callOff();
        }
    }

    private void prove(long block, BlockFacts facts, BlockPlan plan, Proving proving, Work<?> work) {
        double cell = PhotoCount.cellSizeM(plan.block(), PhotoCount.SCREEN_CELLS);
        PlanProof proof = PlanProof.of(plan, cell);
        Positioning wanted = facts.brief().positioning();
        GroundProof whole = proof.whole(wanted, work::goOn);
        Judgement judgement = proof.judged(whole, wanted, facts.brief().accuracy());
        remember(block, facts, judgement.share());
        proving.weighing = judgement.share(Adequacy.HIDDEN) > WORTH_OBLIQUES;
        plans.judgedFiner(facts, judgement);
        proving.judgement = judgement;
        if (proving.weighing) {
            weigh(proof, judgement, proving, work);
        }
    }

    /** What oblique strips would add comes after the judgement, and its end leaves the judgement as it is. */
    private static void weigh(PlanProof proof, Judgement judgement, Proving proving, Work<?> work) {
        try {
            proving.gain = proof.withObliques(judgement, work::goOn);
        } catch (CancellationException off) {
            LOG.debug("Oblique strips were not weighed to the end");
        } catch (RuntimeException e) {
            LOG.error("Oblique strips could not be weighed", e);
        } finally {
            proving.weighing = false;
        }
    }

    private synchronized void remember(long block, BlockFacts facts, double share) {
        Shares last = shares.get(block);
        double before = last == null || last.facts().equals(facts) ? Double.NaN : last.now();
        shares.put(block, new Shares(facts, share, before));
    }

    /** Share given enough before the last change, where one was proved. */
    synchronized Optional<Double> before(long block, BlockFacts facts) {
        return Optional.ofNullable(shares.get(block))
                .filter(known -> known.facts().equals(facts.planning()) && !Double.isNaN(known.before()))
                .map(Shares::before);
    }
}

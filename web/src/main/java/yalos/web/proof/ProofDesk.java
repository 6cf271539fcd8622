package yalos.web.proof;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import yalos.core.kit.Positioning;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.PhotoCount;
import yalos.web.block.PlanDesk;
import yalos.web.store.BlockFacts;

/**
 * Proves plans in the background: one after the other, each with its progress, each to be called off. What was proved lies here
 * under the facts it follows from, the last few of it.
 */
@Component
class ProofDesk {
    private static final Logger LOG = LoggerFactory.getLogger(ProofDesk.class);
    private static final int KEPT = 6;
    /** Share of hidden ground from which oblique strips are looked at. */
    private static final double WORTH_OBLIQUES = 0.0005;

    private final PlanDesk plans;
    private final Map<BlockFacts, Work> works = new LinkedHashMap<>(16, 0.75f, true);
    private final Map<Long, Shares> shares = new LinkedHashMap<>();
    private final ExecutorService bench = Executors.newSingleThreadExecutor(task -> {
        Thread thread = new Thread(task, "proof");
        thread.setDaemon(true);
        return thread;
    });

    ProofDesk(PlanDesk plans) {
        this.plans = plans;
    }

    /** Shares of a block given enough: before the last change that was proved, and since. */
    record Shares(BlockFacts facts, double now, double before) {}

    /** A proof that is under way, done or called off. */
    static final class Work {
        private volatile double progress;
        private volatile boolean off;
        private volatile Judgement judgement;
        private volatile boolean failed;
        private volatile PlanProof.Gain gain;
        private volatile boolean weighing;

        double progress() {
            return progress;
        }

        boolean calledOff() {
            return off && judgement == null;
        }

        boolean failed() {
            return failed;
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
            return weighing && !off;
        }

        boolean running() {
            return judgement == null && !off && !failed;
        }
    }

    /** The proof of a plan; begun when nobody asked for it before. */
    synchronized Work of(long block, BlockFacts facts, BlockPlan plan) {
        Work known = works.get(facts);
        if (known != null) {
            return known;
        }
        Work work = new Work();
        works.put(facts, work);
        forgetOldest();
        bench.execute(() -> prove(block, facts, plan, work));
        return work;
    }

    /** Begins a proof anew that was called off. */
    synchronized Work again(long block, BlockFacts facts, BlockPlan plan) {
        Work known = works.get(facts);
        if (known != null && (known.judgement().isEmpty() && (known.calledOff() || known.failed()))) {
            works.remove(facts);
        }
        return of(block, facts, plan);
    }

    @PreDestroy
    synchronized void close() {
        works.values().forEach(work -> work.off = true);
        bench.shutdownNow();
    }

    private void forgetOldest() {
        for (BlockFacts oldest : new ArrayList<>(works.keySet())) {
            if (works.size() <= KEPT) {
                return;
            }
            works.remove(oldest).off = true;
        }
    }

    synchronized void callOff(BlockFacts facts) {
        Work work = works.get(facts);
        if (work != null && work.running()) {
            work.off = true;
        }
    }

    private void prove(long block, BlockFacts facts, BlockPlan plan, Work work) {
        if (work.off) {
            return;
        }
        try {
            double cell = PhotoCount.cellSizeM(plan.block(), PhotoCount.SCREEN_CELLS);
            PlanProof proof = PlanProof.of(plan, cell);
            Positioning wanted = facts.brief().positioning();
            GroundProof whole = proof.whole(wanted, share -> {
                work.progress = share;
                return !work.off;
            });
            Judgement judgement = proof.judged(whole, wanted, facts.brief().accuracy());
            remember(block, facts, judgement.share());
            work.weighing = judgement.share(Adequacy.HIDDEN) > WORTH_OBLIQUES;
            plans.judgedFiner(facts, judgement);
            work.judgement = judgement;
            if (work.weighing) {
                weigh(proof, judgement, work);
            }
        } catch (CancellationException off) {
            work.off = true;
        } catch (RuntimeException e) {
            LOG.error("A proof failed", e);
            work.failed = true;
        }
    }

    /** What oblique strips would add comes after the judgement, and its end leaves the judgement as it is. */
    private static void weigh(PlanProof proof, Judgement judgement, Work work) {
        try {
            work.gain = proof.withObliques(judgement, share -> !work.off);
        } catch (CancellationException off) {
            LOG.debug("Oblique strips were not weighed to the end");
        } catch (RuntimeException e) {
            LOG.error("Oblique strips could not be weighed", e);
        } finally {
            work.weighing = false;
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
                .filter(known -> known.facts().equals(facts) && !Double.isNaN(known.before()))
                .map(Shares::before);
    }
}

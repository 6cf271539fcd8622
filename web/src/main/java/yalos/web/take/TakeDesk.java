package yalos.web.take;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.springframework.stereotype.Component;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.PhotoCount;
import yalos.core.take.Take;
import yalos.core.take.Taken;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.store.BlockFacts;
import yalos.web.work.Busy;
import yalos.web.work.Order;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;
import yalos.web.work.TookTooLong;
import yalos.web.work.Work;
import yalos.web.work.WorkQueue;

/** Takes of blocks, matched when somebody looks, proved in the background beside their plan. What follows from a state of plan and take is worked out once. */
@Component
public class TakeDesk {
    private static final int KEPT = 12;
    private static final long BYTES = 2L * PhotoCount.SCREEN_CELLS * 96 + 30_000_000;
    private static final Duration END = Duration.ofMinutes(10);
    /** More photos are matched in a worker of their own. */
    private static final int HEAVY = 400;

    private final TakeStore store;
    private final PlanDesk plans;
    private final PageWork page;
    private final WorkQueue queue;
    private final Map<Key, Found> found = Recent.map(KEPT);

    TakeDesk(TakeStore store, PlanDesk plans, PageWork page, WorkQueue queue) {
        this.store = store;
        this.plans = plans;
        this.page = page;
        this.queue = queue;
    }

    private record Key(long block, BlockFacts facts, long version) {}

    /** What was found out, as far as it is. */
    public static final class Found {
        private final Take take;
        private final List<TakeStore.Kept> kept;
        private volatile Work<?> work;
        private volatile Judgement planned;
        private volatile Judgement taken;
        private volatile List<Take.Gap> gaps;

        Found(Take take, List<TakeStore.Kept> kept) {
            this.take = take;
            this.kept = kept;
        }

        public Take take() {
            return take;
        }

        /** The photos in the take's order. */
        List<TakeStore.Kept> kept() {
            return kept;
        }

        /** What the plan was to give, over the same cells. */
        public Optional<Judgement> planned() {
            return Optional.ofNullable(planned);
        }

        /** What the take gives. */
        public Optional<Judgement> taken() {
            return gaps == null ? Optional.empty() : Optional.ofNullable(taken);
        }

        /** Where it gives too little, and why. */
        public List<Take.Gap> gaps() {
            return gaps == null ? List.of() : gaps;
        }

        boolean running() {
            return gaps == null && work != null && work.open();
        }

        boolean failed() {
            return gaps == null && work != null && (work.failed() || work.calledOff());
        }

        double progress() {
            return work == null ? 0 : work.progress();
        }

        /** Waits until it is proved, or that was called off. */
        public void settle() {
            if (work != null) {
                try {
                    work.await(() -> true);
                } catch (CancellationException | TookTooLong off) {
                    // what is there is shown
                }
            }
        }
    }

    /** The take of a block; nothing while there is no plan or no photo. */
    public Optional<Found> of(OpenBlock block) {
        TakeStore.Loaded photos = store.loaded(block.id());
        Optional<BlockPlan> plan = plans.plan(block.facts()).whole().map(Planned.Whole::plan);
        return photos.photos().isEmpty() ? Optional.empty() : plan.map(known -> of(block, known, photos));
    }

    /** The take as far as it was worked out before; never works for it. */
    Optional<Found> known(OpenBlock block) {
        return Optional.ofNullable(found.get(new Key(block.id(), block.facts().planning(), store.version(block.id()))));
    }

    private Found of(OpenBlock block, BlockPlan plan, TakeStore.Loaded loaded) {
        Key key = new Key(block.id(), block.facts().planning(), loaded.version());
        Found known = found.get(key);
        if (known == null) {
            List<Taken> photos =
                    loaded.photos().stream().map(TakeStore.Kept::photo).toList();
            Optional<ZoneOffset> zone = zone(block, photos);
            Take take = photos.size() > HEAVY
                    ? page.answer("Matching the photos", () -> Take.of(plan, photos, zone))
                    : Take.of(plan, photos, zone);
            known = kept(key, new Found(take, loaded.photos()), block, plan);
        }
        return known;
    }

    /** Whoever was first is kept and proved; what was found of older states is forgotten. */
    private Found kept(Key key, Found made, OpenBlock block, BlockPlan plan) {
        synchronized (found) {
            Found first = found.putIfAbsent(key, made);
            if (first != null) {
                return first;
            }
            found.keySet().removeIf(old -> old.block() == key.block() && old.version() < key.version());
        }
        try {
            prove(block, plan, made);
        } catch (Busy busy) {
            // It is begun when somebody looks again.
            found.remove(key);
        }
        return made;
    }

    /** By the clock of the place on the day of the photos. */
    private static Optional<ZoneOffset> zone(OpenBlock block, List<Taken> photos) {
        if (block.facts().outline().isEmpty()) {
            return Optional.empty();
        }
        Instant day = photos.stream()
                .flatMap(photo -> photo.facts().gps().stream())
                .findFirst()
                .orElseGet(Instant::now);
        return Optional.of(block.facts()
                .field()
                .day()
                .clock(block.facts().outline().middle())
                .getRules()
                .getOffset(day));
    }

    private void prove(OpenBlock block, BlockPlan plan, Found known) {
        if (plan.heightsUnknown() || known.take().flown().flight().exposures().isEmpty()) {
            return;
        }
        known.work = queue.submit(new Order("block " + block.id(), "The take, proved", BYTES, END), work -> {
            PlanProof proof = PlanProof.of(plan, PhotoCount.cellSizeM(plan.block(), PhotoCount.SCREEN_CELLS));
            known.planned = proof.judged(
                    plan.flight(),
                    block.facts().brief().positioning(),
                    block.facts().brief().accuracy());
            plans.judgedFiner(block.facts(), known.planned);
            work.goOn(0.5);
            work.check();
            Judgement taken = proof.judged(
                    known.take().flown().flight(),
                    block.facts().brief().positioning(),
                    block.facts().brief().accuracy());
            known.taken = taken;
            known.gaps = known.take().gaps(known.planned, taken);
            return true;
        });
    }
}

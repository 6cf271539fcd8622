package yalos.web.work;

import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;

/**
 * One piece of work in the {@link WorkQueue}: waiting, running, done, failed or called off. Whoever runs it reports through
 * {@link #goOn}; whoever asked for it looks at it, waits for it or calls it off.
 */
public final class Work<T> {
    /** What is done. */
    public interface Job<T> {
        /** Answers with the result; asks {@link Work#goOn} often, and ends at once where that says so. */
        T run(Work<?> work) throws Exception;
    }

    /** Looks whether somebody still waits for the answer. */
    public interface Waiting {
        /** Whether the client is still there; asked every second or so. */
        boolean stillThere();
    }

    private static final Logger LOG = LoggerFactory.getLogger(Work.class);

    /** Looked at by nobody for so long, its page was left: pages look every second or so. */
    private static final long LEFT_NS = TimeUnit.SECONDS.toNanos(20);

    private enum State {
        WAITING,
        RUNNING,
        DONE,
        FAILED,
        OFF
    }

    private final Order order;
    private final Job<T> job;
    private final LongSupplier nanoClock;
    private final CountDownLatch ended = new CountDownLatch(1);
    private volatile State state = State.WAITING;
    private volatile double progress;
    private volatile boolean off;
    private volatile boolean tooLong;
    private volatile long begunAt;
    private volatile long lookedAtNs;
    /** Whether others wait, for work that is worth its time only while somebody looks; never for other work. */
    private volatile BooleanSupplier othersWait = () -> false;

    private volatile T result;
    private volatile Throwable failure;

    Work(Order order, Job<T> job, LongSupplier nanoClock) {
        this.order = order;
        this.job = job;
        this.nanoClock = nanoClock;
    }

    Order order() {
        return order;
    }

    /** Runs to its end in the calling thread; nothing is thrown, not even an {@link Error}. */
    void run() {
        if (!begun()) {
            return;
        }
        try {
            check();
            result = Patience.during(() -> goOn(progress), () -> job.run(this));
            state = State.DONE;
        } catch (CancellationException calledOff) {
            state = tooLong ? State.FAILED : State.OFF;
            failure = tooLong ? new TookTooLong(order) : null;
        } catch (InputFault told) {
            failure = told;
            state = State.FAILED;
        } catch (Throwable fault) {
            LOG.error("{} failed", order.what(), fault);
            failure = fault;
            state = State.FAILED;
        } finally {
            ended.countDown();
        }
    }

    private synchronized boolean begun() {
        begunAt = nanoClock.getAsLong();
        state = state == State.OFF ? State.OFF : State.RUNNING;
        return state == State.RUNNING;
    }

    /**
     * Reports how far it is.
     *
     * @param share of the work that is done, 0..1
     * @return whether to go on; not so when it was called off or has run for longer than it may
     */
    public boolean goOn(double share) {
        progress = share;
        if (nanoClock.getAsLong() - begunAt > order.deadline().toNanos()) {
            tooLong = true;
        }
        if (nanoClock.getAsLong() - lookedAtNs > LEFT_NS && othersWait.getAsBoolean()) {
            off = true;
        }
        return !off && !tooLong;
    }

    /**
     * From now on it is worth its time only as long as somebody looks: left for a while, it ends for the sake of others that wait.
     *
     * @param others whether anything else waits in the background
     */
    void onlyWhileLookedAt(BooleanSupplier others) {
        looked();
        othersWait = others;
    }

    /** Somebody looks at how far it is. */
    public void looked() {
        lookedAtNs = nanoClock.getAsLong();
    }

    /** Between two steps of the work. */
    public void check() {
        if (!goOn(progress)) {
            throw new CancellationException(order.what());
        }
    }

    /** It ends as soon as it looks up; one that waits is never begun. */
    public synchronized void callOff() {
        off = true;
        if (state == State.WAITING) {
            state = State.OFF;
            ended.countDown();
        }
    }

    public double progress() {
        return progress;
    }

    /** Whether it waits or runs, and nobody has called it off. */
    public boolean open() {
        return !off && (state == State.WAITING || state == State.RUNNING);
    }

    /** Whether it ended without a result because somebody wished so, or is about to. */
    public boolean calledOff() {
        return state == State.OFF || off && state == State.RUNNING;
    }

    public boolean failed() {
        return state == State.FAILED;
    }

    /** What came of it, once it is done. */
    public Optional<T> result() {
        return Optional.ofNullable(result);
    }

    /** Why it failed, in a sentence, where that can be said. */
    public Optional<Throwable> failure() {
        return Optional.ofNullable(failure);
    }

    /**
     * Waits for the result, as long as somebody is there to take it.
     *
     * @throws CancellationException when it was called off, or the client went away
     * @throws TookTooLong when it did not end in time
     * @throws RuntimeException as the work threw it
     */
    public T await(Waiting client) {
        try {
            while (!ended.await(1, TimeUnit.SECONDS)) {
                if (!client.stillThere()) {
                    callOff();
                    throw new CancellationException(order.what() + " was called off: the client went away.");
                }
            }
        } catch (InterruptedException stopped) {
            callOff();
            Thread.currentThread().interrupt();
            throw new CancellationException("The program stops.");
        }
        if (failure instanceof RuntimeException known) {
            throw known;
        }
        if (failure instanceof OutOfMemoryError) {
            throw new Busy(
                    order.what() + " needs more memory than there is. Ask for less, or give the program more.", false);
        }
        if (failure != null) {
            throw new IllegalStateException(order.what() + " failed.", failure);
        }
        return result().orElseThrow(() -> new CancellationException(order.what() + " was called off."));
    }
}

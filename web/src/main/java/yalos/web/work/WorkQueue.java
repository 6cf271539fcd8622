package yalos.web.work;

import jakarta.annotation.PreDestroy;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongSupplier;
import java.util.stream.Stream;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * One queue for everything heavy. As many workers as processors less one, so that pages are always answered, and one more for answers alone: what a
 * client waits for goes before what is done in the background, and never waits behind it, which may take minutes. Clients take turns: one that
 * asks for much waits for itself, not others for it. Work is begun only when the memory it names is free within half of the heap.
 */
@Component
public final class WorkQueue {
    private static final int MOST_WAITING = 96;
    private static final int MOST_OF_ONE = 24;

    private final Turns answers = new Turns();
    private final Turns background = new Turns();
    private final List<Work<?>> running = new ArrayList<>();
    private final List<Thread> workers = new ArrayList<>();
    private final long budget;
    private final LongSupplier nanoClock;
    private boolean closed;

    @Autowired
    WorkQueue() {
        this(
                Math.max(1, Runtime.getRuntime().availableProcessors() - 1),
                1,
                Runtime.getRuntime().maxMemory() / 2,
                System::nanoTime);
    }

    /**
     * A queue of so many bytes, by a clock of one's own.
     *
     * @param count of workers that do everything
     * @param answering workers besides that do only what clients wait for
     */
    WorkQueue(int count, int answering, long budget, LongSupplier nanoClock) {
        this.budget = budget;
        this.nanoClock = nanoClock;
        for (int i = 1; i <= count + answering; i++) {
            boolean onlyAnswers = i > count;
            Thread worker = new Thread(() -> serve(onlyAnswers), "work-" + i);
            worker.setDaemon(true);
            worker.start();
            workers.add(worker);
        }
    }

    /**
     * Puts work into the queue, to be done in the background.
     *
     * @throws Busy when too much waits already, or it asks for more memory than will ever be free
     */
    public <T> Work<T> submit(Order order, Work.Job<T> job) {
        return submit(background, order, job);
    }

    /**
     * The same, for work that may take minutes and is worth nothing to who no longer looks: left for a while it ends for the sake of others that wait,
     * and is called off then. Whoever shows how far it is says that it is {@linkplain Work#looked() looked at}.
     */
    public <T> Work<T> submitWhileLookedAt(Order order, Work.Job<T> job) {
        Work<T> work = submit(background, order, job);
        work.onlyWhileLookedAt(this::backgroundWaits);
        return work;
    }

    private synchronized boolean backgroundWaits() {
        return background.all().anyMatch(Work::open);
    }

    private synchronized <T> Work<T> submit(Turns turns, Order order, Work.Job<T> job) {
        if (order.bytes() > budget) {
            throw new Busy(
                    "%s would take %d MB of memory; %d MB are for such work here. Ask for less, or start the program with more."
                            .formatted(order.what(), order.bytes() >> 20, budget >> 20),
                    false);
        }
        answers.forgetOff();
        background.forgetOff();
        if (waitingWork()
                        .filter(work -> work.order().client().equals(order.client()))
                        .count()
                >= MOST_OF_ONE) {
            throw new Busy(
                    "%d things you asked for still wait. Let some of them end, then ask again.".formatted(MOST_OF_ONE),
                    true);
        }
        if (waitingWork().count() >= MOST_WAITING) {
            throw new Busy("The machine is busy with %d things. Try again in a minute.".formatted(MOST_WAITING), false);
        }
        Work<T> work = new Work<>(order, job, nanoClock);
        turns.add(work);
        notifyAll();
        return work;
    }

    private Stream<Work<?>> waitingWork() {
        return Stream.concat(answers.all(), background.all());
    }

    /**
     * Works for a request, as long as its client waits, and answers with the result; in the name of its address.
     *
     * @param what it is, as a sentence begins
     * @param bytes of memory at the most
     * @throws Busy as {@link #submit}
     * @throws TookTooLong as {@link Work#await}
     */
    public <T> T answer(HttpServletRequest request, String what, long bytes, Duration deadline, Work.Job<T> job) {
        return answer(new Order(request.getRemoteAddr(), what, bytes, deadline), ClientWatch.of(request), job);
    }

    /** Works as long as somebody waits, and answers with the result; before everything in the background. */
    <T> T answer(Order order, Work.Waiting client, Work.Job<T> job) {
        return submit(answers, order, job).await(client);
    }

    /** How many pieces of work wait and were not called off. */
    public synchronized long waiting() {
        return waitingWork().filter(Work::open).count();
    }

    /** What is counted against the budget now, in bytes. */
    public synchronized long bytesTaken() {
        return running.stream().mapToLong(work -> work.order().bytes()).sum();
    }

    /** How much may be taken by all that runs together, in bytes. */
    public long budget() {
        return budget;
    }

    private void serve(boolean onlyAnswers) {
        try {
            while (true) {
                Work<?> work = next(onlyAnswers);
                try {
                    work.run();
                } finally {
                    done(work);
                }
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    private synchronized Work<?> next(boolean onlyAnswers) throws InterruptedException {
        while (true) {
            Turns turns = onlyAnswers || answers.first().isPresent() ? answers : background;
            Optional<Work<?>> found = closed ? Optional.empty() : turns.first().filter(this::fits);
            if (found.isPresent()) {
                turns.take(found.get());
                running.add(found.get());
                return found.get();
            }
            wait();
        }
    }

    /** What does not fit yet keeps its turn: small work that slips past for ever would starve it. */
    private boolean fits(Work<?> first) {
        return first.order().bytes() <= budget - bytesTaken();
    }

    private synchronized void done(Work<?> work) {
        running.remove(work);
        notifyAll();
    }

    @PreDestroy
    synchronized void close() {
        closed = true;
        waitingWork().forEach(Work::callOff);
        running.forEach(Work::callOff);
        workers.forEach(Thread::interrupt);
    }
}

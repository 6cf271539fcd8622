package yalos.web.work;

import jakarta.annotation.PreDestroy;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.function.LongSupplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * One queue for everything heavy. As many workers as processors less one, so that pages are always answered. Clients take turns: one that
 * asks for much waits for itself, not others for it. Work is begun only when the memory it names is free within half of the heap.
 */
@Component
public final class WorkQueue {
    private static final int MOST_WAITING = 96;
    private static final int MOST_OF_ONE = 24;

    private final Map<String, Queue<Work<?>>> waiting = new LinkedHashMap<>();
    private final List<Work<?>> running = new ArrayList<>();
    private final List<Thread> workers = new ArrayList<>();
    private final long budget;
    private final LongSupplier nanoClock;
    private boolean closed;

    @Autowired
    WorkQueue() {
        this(
                Math.max(1, Runtime.getRuntime().availableProcessors() - 1),
                Runtime.getRuntime().maxMemory() / 2,
                System::nanoTime);
    }

    /** A queue of so many workers and bytes, by a clock of one's own. */
    WorkQueue(int count, long budget, LongSupplier nanoClock) {
        this.budget = budget;
        this.nanoClock = nanoClock;
        for (int i = 1; i <= count; i++) {
            Thread worker = new Thread(this::serve, "work-" + i);
            worker.setDaemon(true);
            worker.start();
            workers.add(worker);
        }
    }

    /**
     * Puts work into the queue.
     *
     * @throws Busy when too much waits already, or it asks for more memory than will ever be free
     */
    public synchronized <T> Work<T> submit(Order order, Work.Job<T> job) {
        if (order.bytes() > budget) {
            throw new Busy(
                    "%s would take %d MB of memory; %d MB are for such work here. Ask for less, or start the program with more."
                            .formatted(order.what(), order.bytes() >> 20, budget >> 20),
                    false);
        }
        Queue<Work<?>> own = waiting.computeIfAbsent(order.client(), client -> new ArrayDeque<>());
        own.removeIf(work -> !work.open());
        if (own.size() >= MOST_OF_ONE) {
            throw new Busy(
                    "%d things you asked for still wait. Let some of them end, then ask again.".formatted(MOST_OF_ONE),
                    true);
        }
        if (waiting.values().stream().mapToInt(Queue::size).sum() >= MOST_WAITING) {
            throw new Busy("The machine is busy with %d things. Try again in a minute.".formatted(MOST_WAITING), false);
        }
        Work<T> work = new Work<>(order, job, nanoClock);
        own.add(work);
        notifyAll();
        return work;
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
        return submit(new Order(request.getRemoteAddr(), what, bytes, deadline), job)
                .await(ClientWatch.of(request));
    }

    /** How many pieces of work wait and were not called off. */
    public synchronized long waiting() {
        return waiting.values().stream()
                .flatMap(Queue::stream)
                .filter(Work::open)
                .count();
    }

    /** What is counted against the budget now, in bytes. */
    public synchronized long bytesTaken() {
        return running.stream().mapToLong(work -> work.order().bytes()).sum();
    }

    /** How much may be taken by all that runs together, in bytes. */
    public long budget() {
        return budget;
    }

    private void serve() {
        try {
            while (true) {
                Work<?> work = next();
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

    private synchronized Work<?> next() throws InterruptedException {
        while (true) {
            Optional<Work<?>> found = closed ? Optional.empty() : fitting();
            if (found.isPresent()) {
                running.add(found.get());
                return found.get();
            }
            wait();
        }
    }

    /** The first that fits of the client whose turn it is; that client then stands last. */
    private Optional<Work<?>> fitting() {
        long free = budget - bytesTaken();
        Iterator<Map.Entry<String, Queue<Work<?>>>> clients = waiting.entrySet().iterator();
        while (clients.hasNext()) {
            Map.Entry<String, Queue<Work<?>>> client = clients.next();
            client.getValue().removeIf(work -> !work.open());
            Work<?> first = client.getValue().peek();
            if (first == null) {
                clients.remove();
            } else if (first.order().bytes() > free) {
                // It keeps its turn: small work that slips past for ever would starve it.
                return Optional.empty();
            } else {
                client.getValue().remove();
                clients.remove();
                if (!client.getValue().isEmpty()) {
                    waiting.put(client.getKey(), client.getValue());
                }
                return Optional.of(first);
            }
        }
        return Optional.empty();
    }

    private synchronized void done(Work<?> work) {
        running.remove(work);
        notifyAll();
    }

    @PreDestroy
    synchronized void close() {
        closed = true;
        waiting.values().forEach(own -> own.forEach(Work::callOff));
        running.forEach(Work::callOff);
        workers.forEach(Thread::interrupt);
    }
}

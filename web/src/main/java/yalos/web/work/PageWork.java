package yalos.web.work;

import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.function.Supplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import yalos.core.fault.Patience;

/**
 * What a page cannot be shown without and what may take long: a solve, a comparison, an outline of thousands of corners. It has workers of its
 * own, so that it never waits behind proofs; it is as fair, has a deadline, and is called off when the client goes away.
 */
@Component
public final class PageWork {
    private static final Duration DEADLINE = Duration.ofSeconds(20);
    private static final long BYTES = 20_000_000;

    private final WorkQueue queue;
    private final Duration deadline;

    @Autowired
    PageWork() {
        this(
                new WorkQueue(
                        Math.max(1, Runtime.getRuntime().availableProcessors() - 1),
                        0,
                        Runtime.getRuntime().maxMemory() / 4,
                        System::nanoTime),
                DEADLINE);
    }

    PageWork(WorkQueue queue, Duration deadline) {
        this.queue = queue;
        this.deadline = deadline;
    }

    /**
     * Works, and answers with the result.
     *
     * @param what it is, as a sentence begins
     * @throws Busy where too much waits
     * @throws TookTooLong after the deadline
     * @throws java.util.concurrent.CancellationException when the client went away
     */
    public <T> T answer(String what, Supplier<T> job) {
        if (Patience.asked()) {
            // Already work of a queue; waiting for another worker could be for ever.
            return job.get();
        }
        if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes attributes) {
            return queue.answer(attributes.getRequest(), what, BYTES, deadline, work -> job.get());
        }
        return queue.submit(new Order("the program", what, BYTES, deadline), work -> job.get())
                .await(() -> true);
    }

    @PreDestroy
    void close() {
        queue.close();
    }
}

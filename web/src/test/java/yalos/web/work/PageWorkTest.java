package yalos.web.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;

class PageWorkTest {
    private final AtomicLong clock = new AtomicLong();
    private final WorkQueue queue = new WorkQueue(1, 0, 100_000_000, clock::get);
    private final PageWork pages = new PageWork(queue, Duration.ofSeconds(20));

    @AfterEach
    void close() {
        pages.close();
    }

    /** With one worker a second piece would wait for the first for ever. */
    @Test
    void workWithinWorkIsDoneAtOnce() {
        assertThat(pages.answer("The plan", () -> pages.answer("The ground", () -> 7)))
                .isEqualTo(7);
        Work<Integer> proof = queue.submit(new Order("a", "The proof", 1), work -> pages.answer("The plan", () -> 8));
        assertThat(proof.await(() -> true)).isEqualTo(8);
    }

    @Test
    void faultsComeThroughAsTheyAre() {
        assertThatThrownBy(() -> pages.answer("The plan", () -> {
                    throw new InputFault("gsd", "0", "Type more than 0.");
                }))
                .isInstanceOf(InputFault.class)
                .hasMessage("Type more than 0.");
    }

    /** The core asks, the queue's deadline answers. */
    @Test
    void planningEndsAtTheDeadline() {
        assertThatThrownBy(() -> pages.answer("The plan", () -> {
                    clock.addAndGet(Duration.ofSeconds(21).toNanos());
                    Patience.check();
                    return 1;
                }))
                .isInstanceOf(TookTooLong.class)
                .hasMessageContaining("The plan took longer than 20 s");
    }
}

package yalos.web.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Every wait is for an event; the clock is the test's own. */
class WorkQueueTest {
    private static final long BUDGET = 1000;

    private final AtomicLong clock = new AtomicLong();
    private final WorkQueue queue = new WorkQueue(1, 0, BUDGET, clock::get);
    private final CountDownLatch gate = new CountDownLatch(1);

    @AfterEach
    void close() {
        gate.countDown();
        queue.close();
    }

    private static Order order(String client) {
        return new Order(client, "The work", 10, Duration.ofSeconds(60));
    }

    /** Holds the only worker until the gate opens. */
    private Work<String> hold() {
        CountDownLatch begun = new CountDownLatch(1);
        Work<String> held = queue.submit(order("holder"), work -> {
            begun.countDown();
            gate.await();
            return "held";
        });
        try {
            begun.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return held;
    }

    @Test
    void clientsTakeTurns() {
        hold();
        List<String> ran = Collections.synchronizedList(new ArrayList<>());
        List<Work<Boolean>> all = new ArrayList<>();
        for (String client : List.of("greedy", "greedy", "greedy", "modest", "other")) {
            all.add(queue.submit(order(client), work -> ran.add(client)));
        }
        gate.countDown();
        all.forEach(work -> work.await(() -> true));
        assertThat(ran).containsExactly("greedy", "modest", "other", "greedy", "greedy");
    }

    /** A proof that takes minutes does not hold up who waits for a page. */
    @Test
    void whatAClientWaitsForIsDoneBesideTheBackground() {
        WorkQueue busy = new WorkQueue(1, 1, BUDGET, clock::get);
        CountDownLatch begun = new CountDownLatch(1);
        Work<Boolean> first = busy.submit(order("a"), work -> {
            begun.countDown();
            gate.await();
            return true;
        });
        List<String> ran = Collections.synchronizedList(new ArrayList<>());
        Work<Boolean> second = busy.submit(order("b"), work -> ran.add("background"));
        String answer = busy.answer(order("c"), () -> true, work -> "answer");
        assertThat(answer).isEqualTo("answer");
        assertThat(ran).as("the worker for answers does nothing else").isEmpty();
        gate.countDown();
        assertThat(second.await(() -> true)).isTrue();
        assertThat(first.await(() -> true)).isTrue();
        busy.close();
    }

    /** What may take minutes ends when its page was left and others wait; alone, or looked at, it goes on. */
    @Test
    void whatNobodyLooksAtEndsForOthers() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        Work<Boolean> looked = queue.submitWhileLookedAt(order("a"), work -> {
            begun.countDown();
            gate.await();
            assertThat(work.goOn(0.1)).as("nobody else waits").isTrue();
            Work<Boolean> other = queue.submit(order("b"), more -> true);
            work.looked();
            assertThat(work.goOn(0.2)).as("somebody looks").isTrue();
            clock.addAndGet(Duration.ofSeconds(21).toNanos());
            assertThat(work.goOn(0.3)).as("left, and another waits").isFalse();
            assertThat(other.open()).isTrue();
            work.check();
            return true;
        });
        begun.await();
        clock.addAndGet(Duration.ofSeconds(30).toNanos());
        gate.countDown();
        assertThatThrownBy(() -> looked.await(() -> true)).isInstanceOf(CancellationException.class);
        assertThat(looked.calledOff()).isTrue();
    }

    @Test
    void answersGoBeforeTheBackground() throws InterruptedException {
        hold();
        List<String> ran = Collections.synchronizedList(new ArrayList<>());
        Work<Boolean> background = queue.submit(order("a"), work -> ran.add("background"));
        Thread client = new Thread(() -> queue.answer(order("b"), () -> true, work -> ran.add("answer")));
        client.start();
        while (queue.waiting() < 2) {
            Thread.onSpinWait();
        }
        gate.countDown();
        background.await(() -> true);
        client.join();
        assertThat(ran).containsExactly("answer", "background");
    }

    @Test
    void whatAsksForMoreMemoryThanThereIsIsRefusedAndTheRestWaitsForIt() {
        assertThatThrownBy(() -> queue.submit(new Order("a", "The proof", BUDGET + 1), work -> 1))
                .isInstanceOf(Busy.class)
                .hasMessageContaining("The proof would take");
        WorkQueue two = new WorkQueue(2, 0, BUDGET, clock::get);
        CountDownLatch begun = new CountDownLatch(1);
        Work<Long> large = two.submit(new Order("a", "x", BUDGET), work -> {
            begun.countDown();
            gate.await();
            return two.bytesTaken();
        });
        Work<Long> second = two.submit(new Order("b", "y", BUDGET), work -> two.bytesTaken());
        gate.countDown();
        assertThat(large.await(() -> true)).isEqualTo(BUDGET);
        assertThat(second.await(() -> true)).as("never both at once").isEqualTo(BUDGET);
        two.close();
    }

    /** Large work keeps its turn: small work of others does not slip past it for ever. */
    @Test
    void whatDoesNotFitYetKeepsItsTurn() {
        WorkQueue two = new WorkQueue(2, 0, BUDGET, clock::get);
        CountDownLatch begun = new CountDownLatch(1);
        List<String> ran = Collections.synchronizedList(new ArrayList<>());
        Work<Integer> first = two.submit(new Order("a", "x", 10), work -> {
            begun.countDown();
            gate.await();
            return 1;
        });
        try {
            begun.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        Work<Boolean> large = two.submit(new Order("b", "y", BUDGET), work -> ran.add("large"));
        Work<Boolean> small = two.submit(new Order("c", "z", 10), work -> ran.add("small"));
        gate.countDown();
        first.await(() -> true);
        large.await(() -> true);
        small.await(() -> true);
        assertThat(ran).containsExactly("large", "small");
        two.close();
    }

    @Test
    void tooMuchOfOneClientIsRefusedOthersAreServed() {
        hold();
        for (int i = 0; i < 24; i++) {
            queue.submit(order("one"), work -> 1);
        }
        assertThatThrownBy(() -> queue.submit(order("one"), work -> 1))
                .isInstanceOfSatisfying(
                        Busy.class, busy -> assertThat(busy.oneClient()).isTrue());
        Work<Integer> other = queue.submit(order("two"), work -> 2);
        gate.countDown();
        assertThat(other.await(() -> true)).isEqualTo(2);
    }

    @Test
    void whatRunsLongerThanItMayEndsAndSaysSo() {
        Work<Integer> slow = queue.submit(order("a"), work -> {
            clock.addAndGet(Duration.ofSeconds(61).toNanos());
            work.check();
            return 1;
        });
        assertThatThrownBy(() -> slow.await(() -> true))
                .isInstanceOf(TookTooLong.class)
                .hasMessageContaining("longer than 60 s");
        assertThat(slow.failed()).isTrue();
    }

    @Test
    void anErrorEndsAsASaidFailureAndTheWorkerGoesOn() {
        Work<Integer> out = queue.submit(order("a"), work -> {
            throw new OutOfMemoryError("pretended");
        });
        assertThatThrownBy(() -> out.await(() -> true)).isInstanceOf(Busy.class).hasMessageContaining("more memory");
        Work<Integer> deep = queue.submit(order("a"), work -> {
            throw new StackOverflowError("pretended");
        });
        assertThatThrownBy(() -> deep.await(() -> true)).isInstanceOf(IllegalStateException.class);
        assertThat(queue.submit(order("a"), work -> 3).await(() -> true)).isEqualTo(3);
    }

    @Test
    void whenTheClientGoesAwayItsWorkEnds() throws InterruptedException {
        CountDownLatch ended = new CountDownLatch(1);
        Work<Integer> work = queue.submit(order("a"), running -> {
            try {
                while (running.goOn(0.5)) {
                    Thread.onSpinWait();
                }
                running.check();
                return 1;
            } finally {
                ended.countDown();
            }
        });
        assertThatThrownBy(() -> work.await(() -> false)).isInstanceOf(CancellationException.class);
        ended.await();
        Work<String> held = hold();
        Work<Integer> never = queue.submit(order("b"), running -> 1);
        never.callOff();
        gate.countDown();
        held.await(() -> true);
        assertThat(never.calledOff()).isTrue();
        assertThat(never.result()).isEmpty();
    }
}

package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.fault.Patience;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Long planning asks again and again whether it is to go on, and ends at once where it is not. */
class CalledOffTest {
    private static BlockPlan solved() {
        Pins cost = Pins.ofGsd(2).pinned(Quantity.FLIGHT_TIME, Measure.of(10, Unit.MINUTE));
        return Samples.request(Samples.concaveWithHole(), cost).plan();
    }

    @Test
    void aSolveAsksOften() throws Exception {
        AtomicInteger asked = new AtomicInteger();
        BlockPlan plan = Patience.during(
                () -> {
                    asked.incrementAndGet();
                    return true;
                },
                CalledOffTest::solved);
        assertThat(plan.solution().holds()).isTrue();
        assertThat(asked.get()).as("half degrees, each of several plans").isGreaterThan(1000);
        assertThat(Patience.asked()).isFalse();
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 10, 700})
    void andEndsWhereItIsCalledOff(int after) {
        AtomicInteger asked = new AtomicInteger();
        assertThatThrownBy(() -> Patience.during(() -> asked.incrementAndGet() < after, CalledOffTest::solved))
                .isInstanceOf(CancellationException.class);
        assertThat(asked.get()).isEqualTo(after);
        assertThat(solved().solution().holds()).as("what comes after is whole").isTrue();
    }

    @Test
    void theInnerWordCountsWhileItHoldsThenTheOuter() throws Exception {
        AtomicInteger outer = new AtomicInteger();
        Patience.during(() -> outer.incrementAndGet() > 0, () -> {
            Patience.during(() -> true, () -> {
                Patience.check();
                return 0;
            });
            assertThat(outer.get()).isZero();
            Patience.check();
            return 0;
        });
        assertThat(outer.get()).isEqualTo(1);
    }
}

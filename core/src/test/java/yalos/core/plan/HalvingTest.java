package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Every place where a row can change is found, below zero too, in as few questions as halving takes. */
class HalvingTest {
    @Test
    void findsWhereARowChangesWhereverThatIs() {
        for (int from = -40; from <= 40; from += 8) {
            for (int to = from + 1; to <= from + 33; to++) {
                for (int change = from + 1; change <= to; change++) {
                    int at = change;
                    assertThat(Halving.first(from, to, step -> step >= at)).isEqualTo(change);
                    assertThat(Halving.last(from, to, 0, step -> step < at)).isEqualTo(change - 1);
                }
            }
        }
    }

    @Test
    void asksNoMoreThanHalvingTakes() {
        AtomicInteger asked = new AtomicInteger();
        assertThat(Halving.first(0, 1024, step -> {
                    asked.incrementAndGet();
                    return step >= 700;
                }))
                .isEqualTo(700);
        assertThat(asked).hasValueLessThanOrEqualTo(10);
    }

    @ParameterizedTest
    @ValueSource(ints = {210, 333, 500, 999})
    void isShortByNoMoreThanIsAllowed(int change) {
        int last = Halving.last(200, 1000, 0.01, step -> step < change);
        assertThat(last).isLessThan(change).isGreaterThanOrEqualTo((int) (change / 1.01) - 1);
    }
}

package yalos.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

class WhatIfTest {
    private final BlockPlan plan = Samples.request(
                    Samples.square(600), Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE)))
            .plan();
    private final WhatIf whatIf = WhatIf.of(plan);

    @Test
    void higherIsCoarserAndCheaper() {
        List<WhatIf.Height> heights = whatIf.heights();
        assertThat(heights).hasSize(5);
        assertThat(heights.get(2).plan().photos()).isEqualTo(plan.photos());
        for (int i = 1; i < heights.size(); i++) {
            assertThat(heights.get(i).plan().photos())
                    .isLessThan(heights.get(i - 1).plan().photos());
            assertThat(heights.get(i).plan().design().scale().gsdM())
                    .isCloseTo(0.02 * heights.get(i).factor(), Offset.offset(1e-9));
        }
    }

    /** (1 - 0.8)(1 - 0.7) / ((1 - 0.75)(1 - 0.6)): the textbook ratio of photos; strip ends add a few. */
    @Test
    void lowerOverlapsCostLessAsTheTextbookSays() {
        WhatIf.Overlap least = whatIf.overlaps().get(0);
        double ratio = (double) least.plan().photos() / plan.photos();
        assertThat(ratio).isCloseTo(0.06 / 0.10, Offset.offset(0.06));
        assertThat(whatIf.photosAgainstUsual().orElseThrow()).isEqualTo(1);
    }

    @Test
    void theTimerRunsInWholeStepsAndKeepsTheOverlap() {
        WhatIf.Trigger timer = whatIf.triggers().get(1);
        assertThat(timer.intervalS() / WhatIf.TIMER_STEP_S % 1).isZero();
        assertThat(timer.intervalS() * timer.speedMps())
                .isLessThanOrEqualTo(plan.design().baseM() + 1e-9);
        assertThat(timer.photos()).isGreaterThanOrEqualTo(plan.photos());
    }

    @Test
    void stoppingIsSharpestAndSlowest() {
        WhatIf.Trigger stop = whatIf.triggers().get(2);
        assertThat(stop.blurPx()).isZero();
        assertThat(stop.flightTimeS()).isGreaterThan(2 * plan.flightTimeS());
        // between stations: triangle of speed over 15.8 m at 2.5 m/s², 2 sqrt(d / a), and 2 s to settle
        assertThat(stop.intervalS()).isCloseTo(2 * Math.sqrt(plan.design().baseM() / 2.5) + 2, Offset.offset(1e-9));
    }
}

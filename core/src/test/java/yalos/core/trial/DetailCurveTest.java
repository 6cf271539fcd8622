package yalos.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;

/** What detail costs: finer is never quicker, and nothing is shown that flies over the ceiling. */
class DetailCurveTest {
    @Test
    void finerTakesLongerAndThePlanIsOneOfThePoints() {
        BlockPlan plan = Samples.request(Samples.square(400), Pins.ofGsd(2)).plan();
        List<BlockPlan> curve = DetailCurve.of(plan);
        assertThat(curve).contains(plan).hasSizeGreaterThan(5);
        for (int i = 1; i < curve.size(); i++) {
            assertThat(curve.get(i).design().scale().gsdM())
                    .isGreaterThan(curve.get(i - 1).design().scale().gsdM());
            assertThat(curve.get(i).flightTimeS()).isLessThan(curve.get(i - 1).flightTimeS() * 1.02);
        }
    }

    @Test
    void nothingIsShownAboveTheCeilingButThePlanItself() {
        BlockPlan high =
                Samples.request(Samples.square(400), Pins.ofHeight(115)).plan();
        assertThat(DetailCurve.of(high))
                .allSatisfy(point -> assertThat(
                                point == high || point.design().scale().heightM() <= 120)
                        .isTrue());
    }
}

package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.Samples;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.finding.Remedy;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

class PinSolverTest {
    private static final Pins USUAL = Pins.ofGsd(2);

    private static BlockPlan plan(Pins pins) {
        return Samples.request(Samples.concaveWithHole(), pins).plan();
    }

    private static Measure unitOf(Quantity cost, double figure) {
        return Measure.of(figure, cost == Quantity.FLIGHT_TIME ? Unit.MINUTE : Unit.COUNT);
    }

    /** The answer holds on the true plan, and the next finer hundredth of a centimetre does not. */
    @ParameterizedTest
    @CsvSource({
        "PHOTOS, 400",
        "PHOTOS, 90",
        "PHOTOS, 3000",
        "FLIGHT_TIME, 25",
        "FLIGHT_TIME, 8",
        "BATTERY_SETS, 1",
        "BATTERY_SETS, 2",
        "BATTERY_SETS, 5",
    })
    void findsTheFinestGsdThatACostBuys(Quantity cost, double most) {
        BlockPlan plan = plan(USUAL.pinned(cost, unitOf(cost, most)));
        assertThat(plan.solution().holds()).isTrue();
        assertThat(plan.solution().solved()).contains(Quantity.GSD);
        double limit = unitOf(cost, most).si();
        assertThat(PinSolver.cost(plan, cost, 0)).isLessThanOrEqualTo(limit + 1e-9);
        double gsdCm = plan.design().scale().gsdM() * 100;
        assertThat(Math.abs(gsdCm * 100 - Math.round(gsdCm * 100))).isLessThan(1e-6);
        BlockPlan finer = plan(Pins.ofGsd(gsdCm - 0.01));
        assertThat(PinSolver.cost(finer, cost, 0)).isGreaterThan(limit);
    }

    @Test
    void severalCostsHoldTogether() {
        Pins both = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, 400))
                .pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 9));
        BlockPlan plan = plan(both);
        assertThat(plan.photos()).isLessThanOrEqualTo(400);
        assertThat(plan.flightTimeS()).isLessThanOrEqualTo(540);
    }

    @Test
    void withTheScalePinnedTheFreeOverlapGivesWay() {
        int usual = plan(USUAL).photos();
        Pins pins = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, Math.floor(usual * 0.85)))
                .pinned(Quantity.GSD, Measure.of(2, Unit.CENTIMETRE));
        BlockPlan plan = plan(pins);
        assertThat(plan.solution().holds()).isTrue();
        assertThat(plan.solution().solved()).contains(Quantity.SIDE_OVERLAP);
        assertThat(plan.design().sideOverlap()).isLessThan(Defaults.SIDE_OVERLAP);
        assertThat(plan.design().scale().gsdM()).isCloseTo(0.02, Offset.offset(1e-12));
    }

    @Test
    void pinsThatCannotHoldAreNamedAndEachWayOutHolds() {
        Pins pins = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, 150))
                .pinned(Quantity.GSD, Measure.of(2, Unit.CENTIMETRE))
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT));
        BlockPlan plan = plan(pins);
        assertThat(plan.solution().holds()).isFalse();
        Finding conflict =
                Findings.of(plan, PlanProof.coverage(plan), UnitChoice.METRIC).get(0);
        assertThat(conflict.key()).isEqualTo("pins-in-conflict");
        assertThat(conflict.sentence()).contains("photos 150", "GSD 2 cm", "side 70 %", "forward 80 %");
        assertThat(conflict.remedies())
                .extracting(remedy -> ((Remedy.Pin) remedy.change()).quantity())
                .contains(Quantity.GSD, Quantity.FORWARD_OVERLAP, Quantity.PHOTOS);
        for (Remedy remedy : conflict.remedies()) {
            Remedy.Pin way = (Remedy.Pin) remedy.change();
            assertThat(plan(pins.pinned(way.quantity(), way.value())).solution().holds())
                    .as(remedy.label())
                    .isTrue();
        }
    }

    @Test
    void aCostIsPinnedInsteadOfTheScaleAndTheLastOfThemStays() {
        Pins photos = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, 400));
        assertThat(photos.scaleFixed()).isFalse();
        assertThat(photos.pinned(Quantity.GSD, Measure.of(3, Unit.CENTIMETRE)).costs())
                .isEqualTo(List.of(Quantity.PHOTOS));
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> photos.without(Quantity.PHOTOS))
                .hasMessageContaining("Something must fix the scale");
    }
}

package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.block.ReflexCuts;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.PhotoCount;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Concave outlines cut into cells where that is quicker. */
class QuickestGridTest {
    private static final Outline ELL = Samples.outline(0, 0, 800, 0, 800, 150, 150, 150, 150, 800, 0, 800);
    private static final Outline TEE =
            Samples.outline(0, 0, 900, 0, 900, 150, 525, 150, 525, 700, 375, 700, 375, 150, 0, 150);
    private static final Outline WYE = Samples.outline(
            0, 0, 100, 0, 250, 400, 600, 700, 550, 800, 200, 500, 150, 500, -200, 800, -250, 700, 100, 400);

    static Stream<Outline> shapes() {
        return Stream.of(ELL, TEE, WYE, Samples.concaveWithHole());
    }

    private static BlockPlan plan(Outline outline, double gsdCm, Aircraft aircraft) {
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        Pins.ofGsd(gsdCm),
                        outline,
                        Optional.of(Samples.at(-30, -30)),
                        OptionalInt.of(32630))
                .plan();
    }

    private static BlockPlan single(BlockPlan plan) {
        return plan.flown(new Pass(StripGrid.QUICKEST, plan.mainPass().task()));
    }

    /** Two bars square to each other and apart, as one block: each is flown along, in one flight. */
    @Test
    void partsThatLieApartAreFlownEachInItsOwnDirection() {
        Outline bars = new Outline(Stream.of(
                        Samples.outline(0, 0, 900, 0, 900, 120, 0, 120),
                        Samples.outline(1000, 0, 1120, 0, 1120, 900, 1000, 900))
                .flatMap(one -> one.parts().stream())
                .toList());
        BlockPlan plan = plan(bars, 2, Aircraft.smallMultirotor());
        assertThat(plan.mainPass().pattern()).isInstanceOf(CellGrid.class);
        assertThat(plan.flightTimeS()).isLessThan(0.9 * single(plan).flightTimeS());
    }

    /** Arms of 150 m at 2 cm: one sweep turns in the arm that lies across it as often as there are strips; in cells each arm is flown along. */
    @Test
    void armsAreFlownAlongEach() {
        for (Outline outline : List.of(ELL, TEE, WYE)) {
            BlockPlan plan = plan(outline, 2, Aircraft.smallMultirotor());
            assertThat(plan.mainPass().pattern()).isInstanceOf(CellGrid.class);
            assertThat(plan.flightTimeS()).isLessThan(0.95 * single(plan).flightTimeS());
        }
    }

    @ParameterizedTest
    @MethodSource("shapes")
    void cellsCoverTheBlockAsOneSweepDoes(Outline outline) {
        for (Aircraft aircraft : List.of(Aircraft.smallMultirotor(), Aircraft.smallWing())) {
            BlockPlan plan = plan(outline, 2, aircraft);
            PhotoCount count = PhotoCount.of(plan.block(), plan.flight().exposures(), 4);
            for (int row = 0; row < count.rows(); row++) {
                for (int column = 0; column < count.columns(); column++) {
                    if (count.inside(column, row)) {
                        assertThat(count.at(column, row)).isGreaterThanOrEqualTo(3);
                    }
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {0, 100, 200})
    void neverSlowerThanOneSweep(long from) {
        for (long seed = from; seed < from + 40; seed++) {
            BlockPlan plan = plan(Samples.random(seed), 2.5, Aircraft.smallMultirotor());
            assertThat(plan.flightTimeS())
                    .as("seed " + seed)
                    .isLessThanOrEqualTo(single(plan).flightTimeS() + 1e-6);
        }
    }

    /** Parts of a cut are all of the block and nothing else; corners of holes count too. */
    @Test
    void aCutLosesNoGround() {
        for (long seed = 1; seed < 40; seed++) {
            PlaneBlock block =
                    PlaneBlock.of(seed % 4 == 0 ? Samples.concaveWithHole() : Samples.random(seed), Samples.UTM30);
            for (ReflexCuts.Cut cut : ReflexCuts.of(block, 12)) {
                double sum = ReflexCuts.cut(block, cut).stream()
                        .mapToDouble(PlaneBlock::areaM2)
                        .sum();
                assertThat(sum).isCloseTo(block.areaM2(), Offset.offset(0.01));
            }
        }
    }

    /** By hand: an ell has one reflex corner, a square none, a square hole four. */
    @Test
    void reflexCornersAreFound() {
        assertThat(ReflexCuts.of(PlaneBlock.of(ELL, Samples.UTM30), 12)).hasSize(2);
        assertThat(ReflexCuts.of(PlaneBlock.of(Samples.square(100), Samples.UTM30), 12))
                .isEmpty();
        PlaneBlock holed = PlaneBlock.of(Samples.concaveWithHole(), Samples.UTM30);
        assertThat(ReflexCuts.of(holed, 20).size()).isEqualTo(2 * (2 + 4));
    }

    /** A margin of two strips widens the cells too: as many photos as a plan made with it. */
    @Test
    void cellsGrowWithTheirMargin() {
        BlockPlan plan = plan(ELL, 2, Aircraft.smallMultirotor());
        Measure two = Measure.of(2, Unit.COUNT);
        BlockPlan wider = plan.withMargin(two);
        BlockPlan anew = plan.request()
                .with(plan.request().pins().with(Quantity.MARGIN_STRIPS, two))
                .plan();
        assertThat(wider.photos()).isEqualTo(anew.photos()).isGreaterThan(plan.photos());
    }
}

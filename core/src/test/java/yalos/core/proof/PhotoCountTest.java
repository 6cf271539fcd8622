package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.camera.Lens;
import yalos.core.camera.View;
import yalos.core.finding.Findings;
import yalos.core.flight.Station;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

class PhotoCountTest {
    private static BlockPlan plan(double directionDeg, int marginStrips) {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.DIRECTION, Measure.of(directionDeg, Unit.DEGREE))
                .with(Quantity.LEAST_PHOTOS, Measure.of(9, Unit.COUNT))
                .with(Quantity.MARGIN_STRIPS, Measure.of(marginStrips, Unit.COUNT));
        return Samples.request(Samples.concaveWithHole(), pins).plan();
    }

    /** The plain way: every cell against every photo, by projecting the cell into the image. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 17.5, 90, 133})
    void agreesWithProjectingEveryCellIntoEveryPhoto(double directionDeg) {
        BlockPlan plan = plan(directionDeg, 0);
        CountGrid count = Findings.coverage(plan, 10).count();
        Lens lens = Lens.of(plan.request().camera());
        for (int row = 0; row < count.rows(); row += 3) {
            for (int column = 0; column < count.columns(); column += 3) {
                double x = count.x(column);
                double y = count.y(row);
                long seen = plan.layout().stations().stream()
                        .filter(station -> sees(lens, station, x, y))
                        .count();
                assertThat(count.at(column, row)).as("cell %d %d", column, row).isEqualTo((int) seen);
                assertThat(count.inside(column, row)).isEqualTo(plan.block().contains(x, y));
            }
        }
    }

    private static boolean sees(Lens lens, Station station, double x, double y) {
        return new View(lens, station.pose())
                .of(x, y, 0)
                .map(View.Sighting::inFrame)
                .orElse(false);
    }

    @Test
    void aPointWellInsideIsSeenAsOftenAsTheOverlapsSay() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE))
                .with(Quantity.MARGIN_STRIPS, Measure.of(4, Unit.COUNT));
        BlockPlan plan = Samples.request(Samples.square(600), pins).plan();
        Coverage coverage = Findings.coverage(plan, 2);
        // 1 / ((1 - 0.8) * (1 - 0.7)), the textbook's mean number of photos
        assertThat(coverage.meanPhotos()).isCloseTo(1 / (0.2 * 0.3), Offset.offset(0.25));
        assertThat(coverage.shareAtLeast(5)).isEqualTo(1);
    }

    @Test
    void aMarginMendsTheWeakRim() {
        Coverage bare = Findings.coverage(plan(20, 0), 2);
        Coverage widened = Findings.coverage(plan(20, 2), 2);
        assertThat(bare.shareShort()).isGreaterThan(0.002);
        assertThat(bare.weakSpots()).isNotEmpty().allMatch(WeakSpot::atEdge);
        assertThat(widened.shareShort()).isZero();
        assertThat(widened.weakSpots()).isEmpty();
    }

    @Test
    void histogramHoldsEveryCellOfTheBlockOnce() {
        BlockPlan plan = plan(60, 0);
        Coverage coverage = Findings.coverage(plan, 1);
        assertThat((double) coverage.cells())
                .isCloseTo(plan.block().areaM2(), Offset.offset(plan.block().areaM2() * 0.005));
        assertThat(coverage.shareAtLeast(0)).isEqualTo(1);
    }
}

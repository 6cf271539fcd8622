package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.flight.Exposure;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.terrain.HeightGrid;
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
        CountGrid count = PlanProof.coverage(plan, 10).count();
        for (int row = 0; row < count.rows(); row += 3) {
            for (int column = 0; column < count.columns(); column += 3) {
                double x = count.x(column);
                double y = count.y(row);
                long seen = plan.flight().exposures().stream()
                        .filter(photo -> sees(photo, x, y))
                        .count();
                assertThat(count.at(column, row)).as("cell %d %d", column, row).isEqualTo((int) seen);
                assertThat(count.inside(column, row)).isEqualTo(plan.block().contains(x, y));
            }
        }
    }

    /** The camera's equations written out by themselves (conventions as in the reference's README), so that nothing is shared. */
    private static boolean sees(Exposure photo, double x, double y) {
        Pose pose = photo.pose();
        double sy = Math.sin(pose.yawRad());
        double cy = Math.cos(pose.yawRad());
        double sp = Math.sin(pose.pitchRad());
        double cp = Math.cos(pose.pitchRad());
        double e = x - pose.eastM();
        double n = y - pose.northM();
        double u = -pose.upM();
        double ahead = cp * sy * e + cp * cy * n + sp * u;
        double level = cy * e - sy * n;
        double below = sp * sy * e + sp * cy * n - cp * u;
        double right = Math.cos(pose.rollRad()) * level + Math.sin(pose.rollRad()) * below;
        double down = -Math.sin(pose.rollRad()) * level + Math.cos(pose.rollRad()) * below;
        Lens lens = photo.lens();
        double column = lens.fx() * right / ahead + lens.cx();
        double row = lens.fy() * down / ahead + lens.cy();
        return ahead > 0 && column >= 0 && column < lens.width() && row >= 0 && row < lens.height();
    }

    /** Tilted and rolled photos, some of them seeing the horizon and some the sky alone: cut, never dropped, never invented. */
    @ParameterizedTest
    @ValueSource(doubles = {-80, -50, -20, -5, 0, 10, 40, 90})
    void photosThatSeeTheHorizonAreCountedWhereTheySeeGround(double pitchDeg) {
        PlaneBlock block = PlaneBlock.of(Samples.square(400), Samples.UTM30);
        Lens lens = Lens.of(Samples.twentyMegapixel());
        List<Exposure> photos = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            Pose pose = new Pose(20.0 * i - 70, -150, 60, 0.8 * i, Math.toRadians(pitchDeg), 0.2 * i - 0.7);
            photos.add(Exposure.of(i + 1, i, pose, lens));
        }
        PhotoCount count = PhotoCount.of(block, photos, 5);
        long seen = 0;
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                double x = count.x(column);
                double y = count.y(row);
                long expected =
                        photos.stream().filter(photo -> sees(photo, x, y)).count();
                assertThat(count.at(column, row)).as("cell at %.1f %.1f", x, y).isEqualTo((int) expected);
                seen += expected;
            }
        }
        if (pitchDeg < 0) {
            assertThat(seen).isPositive();
        }
    }

    /** The quick count on level ground is held against the proof itself. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 40})
    void theQuickCountIsTheProofsOnLevelGround(double directionDeg) {
        BlockPlan plan = plan(directionDeg, 1);
        CountGrid quick = PhotoCount.of(plan.block(), plan.flight().exposures(), 10);
        HeightGrid level = HeightGrid.level(
                quick.westM(), quick.southM() + 10 * quick.rows(), 10, quick.columns(), quick.rows(), 0);
        GroundProof proof = GroundProof.of(level, plan.flight().exposures(), Noise.ofImage(0.5));
        for (int row = 0; row < quick.rows(); row++) {
            for (int column = 0; column < quick.columns(); column++) {
                assertThat(quick.at(column, row)).isEqualTo(proof.at(column, row));
            }
        }
    }

    @Test
    void aPointWellInsideIsSeenAsOftenAsTheOverlapsSay() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE))
                .with(Quantity.MARGIN_STRIPS, Measure.of(4, Unit.COUNT));
        BlockPlan plan = Samples.request(Samples.square(600), pins).plan();
        Coverage coverage = PlanProof.coverage(plan, 2);
        // 1 / ((1 - 0.8) * (1 - 0.7)), the textbook's mean number of photos
        assertThat(coverage.meanPhotos()).isCloseTo(1 / (0.2 * 0.3), Offset.offset(0.25));
        assertThat(coverage.shareAtLeast(5)).isEqualTo(1);
    }

    @Test
    void aMarginMendsTheWeakRim() {
        Coverage bare = PlanProof.coverage(plan(20, 0), 2);
        Coverage widened = PlanProof.coverage(plan(20, 2), 2);
        assertThat(bare.shareShort()).isGreaterThan(0.002);
        assertThat(bare.weakSpots()).isNotEmpty().allMatch(WeakSpot::atEdge);
        assertThat(widened.shareShort()).isZero();
        assertThat(widened.weakSpots()).isEmpty();
    }

    @Test
    void histogramHoldsEveryCellOfTheBlockOnce() {
        BlockPlan plan = plan(60, 0);
        Coverage coverage = PlanProof.coverage(plan, 1);
        assertThat((double) coverage.cells())
                .isCloseTo(plan.block().areaM2(), Offset.offset(plan.block().areaM2() * 0.005));
        assertThat(coverage.shareAtLeast(0)).isEqualTo(1);
    }
}

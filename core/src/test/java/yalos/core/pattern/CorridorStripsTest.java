package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.stream.Collectors;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.Corridor;
import yalos.core.fault.InputFault;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.PhotoCount;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Strips along an axis. */
class CorridorStripsTest {
    private static final LonLat LAUNCH = Samples.at(-50, -50);

    private static List<LonLat> axis(double... corners) {
        List<LonLat> axis = new ArrayList<>();
        for (int i = 0; i < corners.length; i += 2) {
            axis.add(Samples.at(corners[i], corners[i + 1]));
        }
        return axis;
    }

    private static Corridor corridor(List<LonLat> axis, double leftM, double rightM) {
        return new Corridor(axis, Measure.of(leftM, Unit.METRE), Measure.of(rightM, Unit.METRE));
    }

    private static BlockPlan plan(Corridor corridor, Aircraft aircraft, Pins pins) {
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        pins,
                        corridor.outline(),
                        Optional.of(LAUNCH),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.along(Optional.of(corridor)))
                .plan();
    }

    private static BlockPlan plan(Corridor corridor) {
        return plan(corridor, Aircraft.smallMultirotor(), Pins.ofGsd(2));
    }

    private static int leastSeen(BlockPlan plan) {
        PhotoCount count = PhotoCount.of(plan.block(), plan.flight().exposures(), 2);
        int least = Integer.MAX_VALUE;
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                if (count.inside(column, row)) {
                    least = Math.min(least, count.at(column, row));
                }
            }
        }
        return least;
    }

    /** Hand figure: 1000 m at 2 cm, 85 % forward of 79.1 m along: a base of 11.87 m, 85 stretches, 86 photos on each of two strips. */
    @Test
    void twoStripsAtLeastWithLinearOverlap() {
        BlockPlan plan = plan(corridor(axis(0, 0, 1000, 0), 5, 5));
        assertThat(plan.flight().strips()).isEqualTo(2);
        assertThat(plan.design().forwardOverlap()).isEqualTo(0.85);
        double along = 0.02 * 3956;
        assertThat(plan.design().baseM()).isCloseTo(along * 0.15, Offset.offset(1e-9));
        assertThat(plan.photos()).isEqualTo(2 * ((int) Math.ceil(1000 / (along * 0.15)) + 1));
        // 2 cm × 5280 × 30 % apart, half of it on either side
        List<Double> off = plan.flight().lines().stream()
                .map(line -> line.from().yM() - middleOf(plan))
                .map(Math::abs)
                .toList();
        assertThat(off).allSatisfy(m -> assertThat(m).isCloseTo(0.02 * 5280 * 0.3 / 2, Offset.offset(0.02)));
    }

    private static double middleOf(BlockPlan plan) {
        Bounds bounds = plan.block().bounds();
        return bounds.middle().yM();
    }

    @Test
    void widthsLeftAndRightAreKeptApart() {
        BlockPlan plan = plan(corridor(axis(0, 0, 1000, 0), 120, 0));
        // seen from west to east left is north
        assertThat(plan.block().areaM2()).isCloseTo(120_000, Offset.offset(60.0));
        assertThat(leastSeen(plan)).isGreaterThanOrEqualTo(3);
    }

    /** Bends of any kind, fine and coarse, to the left and to the right, with what flies on the spot and what must come round. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void everyCornerOfTheCorridorIsSeen(long seed) {
        Random random = new Random(seed);
        List<LonLat> axis = new ArrayList<>();
        double east = 0;
        double north = 0;
        double heading = 0;
        for (int i = 0; i < 8; i++) {
            axis.add(Samples.at(east, north));
            heading += (random.nextDouble() - 0.5) * (seed % 2 == 0 ? 2.4 : 0.8);
            double length = 120 + 200 * random.nextDouble();
            east += length * Math.cos(heading);
            north += length * Math.sin(heading);
        }
        Corridor corridor = corridor(axis, 30, 45);
        for (Aircraft aircraft : List.of(Aircraft.smallMultirotor(), Aircraft.smallWing())) {
            BlockPlan plan = plan(corridor, aircraft, Pins.ofGsd(3));
            assertThat(leastSeen(plan)).as(aircraft.name()).isGreaterThanOrEqualTo(2);
            joins(plan);
        }
    }

    private static void joins(BlockPlan plan) {
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
            }
            before = leg;
        }
    }

    /** A right angle with long arms: each arm by itself would fly two strips there and back; whole strips are shorter from their end. */
    @Test
    void oneStripKeepsItsNumberRoundItsBends() {
        BlockPlan plan = plan(corridor(axis(0, 0, 400, 0, 400, 400), 10, 10));
        assertThat(plan.flight().strips()).isEqualTo(2);
        assertThat(plan.flight().lines()).hasSize(4);
        assertThat(plan.flight().lines().stream().map(Line::strip).collect(Collectors.toSet()))
                .containsExactly(1, 2);
    }

    /** From a launch point at the bend each arm is flown out and back by itself: there is nothing to fly to its far end for. */
    @Test
    void partsAreFlownOneAfterTheOtherWhereThatIsQuicker() {
        Corridor corner = corridor(axis(-50, 850, -50, -50, 850, -50), 10, 10);
        BlockPlan plan = plan(corner);
        assertThat(plan.flight().strips()).isEqualTo(4);
        // four lines of 900 m, and little else: 3.6 km and some tens of metres
        assertThat(plan.flight().pathLengthM()).isBetween(3600.0, 3760.0);
        joins(plan);
    }

    @Test
    void whatIsNoCorridorIsRefused() {
        assertThatThrownBy(() -> corridor(axis(0, 0), 5, 5)).hasMessageContaining("two different points");
        assertThatThrownBy(() -> corridor(axis(0, 0, 0, 0), 5, 5)).hasMessageContaining("two different points");
        assertThatThrownBy(() -> corridor(axis(0, 0, 9, 0), 0, 0))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no width");
    }

    /** An axis that runs back over itself is one corridor; it is flown without an endless number of strips, and all of it is seen. */
    @Test
    void anAxisThatDoublesBackIsFlown() {
        BlockPlan plan = plan(corridor(axis(0, 0, 300, 0, 10, 5, 300, 10), 20, 20));
        assertThat(leastSeen(plan)).isGreaterThanOrEqualTo(2);
        joins(plan);
    }
}

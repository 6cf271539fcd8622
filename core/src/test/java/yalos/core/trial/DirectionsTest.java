package yalos.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumMap;
import java.util.Map;
import java.util.OptionalDouble;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.PlaneBlock;
import yalos.core.finding.Findings;
import yalos.core.geodesy.Bounds;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Schools of direction on one block. */
class DirectionsTest {
    private static BlockPlan plan(Pins pins) {
        return Samples.request(Samples.outline(0, 0, 600, 0, 600, 200, 0, 200), pins)
                .plan();
    }

    private static Pins wind(double mps, double fromDeg) {
        return Pins.ofGsd(2)
                .with(Quantity.WIND, Measure.of(mps, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(fromDeg, Unit.DEGREE));
    }

    private static Map<DirectionBy, Directions.Row> rows(BlockPlan plan) {
        Map<DirectionBy, Directions.Row> rows = new EnumMap<>(DirectionBy.class);
        Directions.of(plan).forEach(row -> rows.put(row.by(), row));
        return rows;
    }

    /** Hand figures: 600 m by 200 m at 31.68 m apart: 7 strips along the long side; shortest strips lie across it at the widest. */
    @Test
    void longestAndShortestStripsOfARectangle() {
        Map<DirectionBy, Directions.Row> rows = rows(plan(Pins.ofGsd(2)));
        assertThat(rows).containsOnlyKeys(DirectionBy.TIME, DirectionBy.LONGEST, DirectionBy.SHORTEST);
        Directions.Row longest = rows.get(DirectionBy.LONGEST);
        assertThat(Math.toDegrees(longest.directionRad())).isCloseTo(90, Offset.offset(0.1));
        assertThat(longest.strips()).isEqualTo(7);
        assertThat(longest.turns()).isEqualTo(6);
        assertThat(rows.get(DirectionBy.SHORTEST).strips()).isGreaterThan(18);
        assertThat(rows.get(DirectionBy.TIME).flightTimeS())
                .isLessThanOrEqualTo(longest.flightTimeS() + 1e-6)
                .isLessThan(rows.get(DirectionBy.SHORTEST).flightTimeS());
    }

    /** Hand figures: 6 m/s from 40° at 10 m/s over the ground: across it, the nose 31.0° off at an airspeed of 11.66 m/s. */
    @Test
    void theWindsSchoolsAreComparedWithCrabAndIntervals() {
        BlockPlan plan = plan(wind(6, 40));
        double convergence = plan.block().plane().convergenceRad();
        Map<DirectionBy, Directions.Row> rows = rows(plan);
        assertThat(rows.get(DirectionBy.INTO_WIND).directionRad())
                .isCloseTo(Math.toRadians(40) - convergence, Offset.offset(1e-9));
        assertThat(rows.get(DirectionBy.INTO_WIND).crabRad()).isCloseTo(0, Offset.offset(1e-9));
        assertThat(Math.toDegrees(rows.get(DirectionBy.ACROSS_WIND).crabRad())).isCloseTo(30.96, Offset.offset(0.05));
        double base = plan.design().baseM();
        Directions.Row across = rows.get(DirectionBy.ACROSS_WIND);
        assertThat(across.intoS()).isCloseTo(base / across.slowMps(), Offset.offset(1e-9));
    }

    /** The power law by hand: 5 m/s at 10 m is 5 · 7.5^(1/7) = 6.67 m/s at 75 m. */
    @Test
    void windGrowsFromWhereItWasMeasured() {
        BlockPlan plan = plan(wind(5, 0).with(Quantity.WIND_AT, Measure.of(10, Unit.METRE)));
        assertThat(plan.wind().orElseThrow().speedMps()).isCloseTo(6.67, Offset.offset(0.01));
    }

    /** A height that gives way to a pinned number of photos is the height the wind is reckoned at. */
    @Test
    void windIsReckonedAtTheHeightThatIsFlown() {
        Pins pins = wind(5, 0)
                .with(Quantity.WIND_AT, Measure.of(10, Unit.METRE))
                .pinned(Quantity.PHOTOS, Measure.of(60, Unit.COUNT));
        BlockPlan plan = plan(pins);
        double heightM = plan.design().scale().heightM();
        assertThat(heightM).isGreaterThan(80);
        assertThat(plan.windAloftMps()).isCloseTo(5 * Math.pow(heightM / 10, 1 / 7.0), Offset.offset(1e-9));
        assertThat(plan.wind().orElseThrow().speedMps()).isCloseTo(plan.windAloftMps(), Offset.offset(1e-9));
    }

    /** One school asked for alone answers as it does among all. */
    @Test
    void eachSchoolAnswersTheSameAlone() {
        BlockPlan plan = plan(wind(6, 40));
        rows(plan).forEach((by, row) -> {
            if (by != DirectionBy.TIME) {
                assertThat(Directions.asked(plan, by).orElseThrow())
                        .isCloseTo(row.directionRad(), Offset.offset(1e-12));
            }
        });
        assertThat(Directions.asked(plan, DirectionBy.CONTOUR)).isEmpty();
        assertThat(Directions.asked(plan, DirectionBy.FIXED)).isEmpty();
    }

    @Test
    void aWeakWindIsLeftOutUnlessStripsWereLaidByIt() {
        assertThat(plan(wind(1.5, 40)).wind()).isEmpty();
        assertThat(Findings.of(plan(wind(1.5, 40)), UnitChoice.METRIC))
                .anySatisfy(finding -> assertThat(finding.key()).isEqualTo("wind-weak"));
        BlockPlan asked = Samples.request(Samples.square(300), wind(1.5, 40))
                .with(Patterns.SINGLE.turned(DirectionBy.ACROSS_WIND))
                .plan();
        assertThat(asked.wind()).isPresent();
    }

    /** A plane that falls to the east by 10 %: its contours run north. */
    @Test
    void theContourIsSquareToTheSlope() {
        PlaneBlock block = PlaneBlock.of(Samples.square(200), Samples.UTM30);
        float[] heights = new float[80 * 80];
        for (int i = 0; i < heights.length; i++) {
            heights[i] = 100 - 0.5f * (i % 80);
        }
        Bounds bounds = block.bounds();
        HeightGrid slope = new HeightGrid(bounds.west() - 100, bounds.north() + 100, 5, 5, 80, 80, heights);
        assertThat(Math.toDegrees(Directions.contour(slope, block).orElseThrow()) % 180)
                .isCloseTo(0, Offset.offset(1e-6));
        HeightGrid flat = HeightGrid.level(bounds.west() - 100, bounds.north() + 100, 5, 80, 80, 3);
        assertThat(Directions.contour(flat, block)).isEqualTo(OptionalDouble.empty());
    }

    /** Strips laid along a wind from 40°; on the day it blows from 90°. */
    @Test
    void aChosenDirectionIsAskedForAgainOnTheDay() {
        Pins pins = wind(6, 90).with(Quantity.DIRECTION, Measure.of(40, Unit.DEGREE));
        BlockPlan plan = Samples.request(Samples.square(300), pins)
                .with(Patterns.SINGLE.turned(DirectionBy.INTO_WIND))
                .plan();
        assertThat(Findings.of(plan, UnitChoice.METRIC))
                .filteredOn(finding -> finding.key().equals("direction-again"))
                .singleElement()
                .satisfies(finding -> {
                    assertThat(finding.sentence()).contains("40").contains("into and away from the wind");
                    assertThat(finding.remedies()).hasSize(1);
                });
        assertThat(Findings.of(Samples.request(Samples.square(300), pins).plan(), UnitChoice.METRIC))
                .noneSatisfy(finding -> assertThat(finding.key()).isEqualTo("direction-again"));
    }
}

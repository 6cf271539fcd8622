package yalos.core.sortie;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;

/** Places to take off from, over ground whose shape is known. */
class LaunchSearchTest {
    private static final PlanRequest REQUEST = new PlanRequest(
            Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
            Pins.ofGsd(2),
            Samples.square(400),
            Optional.empty(),
            OptionalInt.of(32630));

    private static BlockPlan over(GroundRequest.Source source, List<Obstacle> obstacles, List<Zone> zones) {
        return REQUEST.over(new GroundRequest(source, HeightChoice.USUAL, obstacles, zones, OptionalDouble.empty()))
                .plan();
    }

    /** Over level ground whatever is nearest to both ends of the flight, apart from each other. */
    @Test
    void overLevelGroundTheShortestWaysCount() {
        List<LaunchSearch.Spot> spots = LaunchSearch.of(REQUEST.plan());
        assertThat(spots).hasSize(4);
        assertThat(spots).allMatch(spot -> spot.seen() == 1 && spot.slopeRad() == 0);
        assertThat(spots.get(0).seconds()).isLessThanOrEqualTo(spots.get(1).seconds());
        assertThat(spots.get(0).at().distanceM(spots.get(1).at())).isGreaterThanOrEqualTo(60);
    }

    /** A slope of 1 in 4 (14°) but for a shelf: spots lie on the shelf. */
    @Test
    void whatIsTooSteepIsLeftOut() {
        BlockPlan plan = over(
                FormulaGround.of(5, (x, y) -> 200 + (Math.abs(x) < 60 ? 0 : (Math.abs(x) - 60) / 4)),
                List.of(),
                List.of());
        List<LaunchSearch.Spot> spots = LaunchSearch.of(plan);
        assertThat(spots).isNotEmpty().allMatch(spot -> spot.slopeRad() <= Math.toRadians(10));
        assertThat(spots).allMatch(spot -> Math.abs(spot.at().xM()) < 70);
    }

    /**
     * A flat-topped ridge of 40 m under a flight 75 m above the ground: from its top all of it is seen, from its foot the far side is hidden. By hand: from 170 m
     * beyond the edge an eye at 201.6 m looks at 275 m, 280 m beyond it, along a line that passes the edge at 229 m, below its 240.
     */
    @Test
    void whatSeesMoreOfTheFlightComesFirst() {
        BlockPlan plan = over(
                FormulaGround.of(5, (x, y) -> 200 + 40 * Math.max(0, Math.min(1, (180 - Math.abs(x)) / 100))),
                List.of(),
                List.of());
        List<LaunchSearch.Spot> spots = LaunchSearch.of(plan);
        assertThat(spots).hasSize(4).allMatch(spot -> spot.seen() > 0.98);
        assertThat(spots).allMatch(spot -> Math.abs(spot.at().xM()) < 90);
    }

    @Test
    void obstaclesAndZonesKeepTheirRoom() {
        List<LaunchSearch.Spot> free = LaunchSearch.of(REQUEST.plan());
        BlockPlan plan = REQUEST.plan();
        PlanePoint first = free.get(0).at();
        Obstacle tree = new Obstacle(
                "tree", Obstacle.Kind.TREE, List.of(plan.block().plane().toLonLat(first.xM(), first.yM())), 12, 2);
        Zone yard =
                new Zone("yard", Zone.Kind.CAUTION, Samples.outline(-300, -300, 900, -300, 900, 200, -300, 200), 0, 50);
        BlockPlan held = over(GroundRequest.LEVEL, List.of(tree), List.of(yard));
        for (LaunchSearch.Spot spot : LaunchSearch.of(held)) {
            assertThat(spot.at().distanceM(first)).isGreaterThan(15);
            assertThat(plan.block()
                            .plane()
                            .toLonLat(spot.at().xM(), spot.at().yM())
                            .latDeg())
                    .isGreaterThan(Samples.at(0, 199).latDeg());
        }
    }
}

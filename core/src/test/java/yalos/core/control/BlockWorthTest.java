package yalos.core.control;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.brief.Surface;
import yalos.core.control.ControlPoint.Role;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanProof.Accuracy;
import yalos.core.plan.PlanRequest;
import yalos.core.site.Obstacle;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What control makes of a block, against what the reference network cases show and what the trade knows. */
class BlockWorthTest {
    private static final PlanRequest REQUEST = new PlanRequest(
            Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
            Pins.ofGsd(3),
            Samples.square(300),
            Optional.empty(),
            OptionalInt.of(32630));
    private static final BlockPlan LEVEL = REQUEST.plan();
    private static final BlockWorth ALONE = BlockWorth.of(LEVEL, ControlLayout.NONE, Positioning.SINGLE, 1);

    private static ControlLayout at(BlockPlan plan, double... places) {
        ControlLayout layout = ControlLayout.NONE;
        for (int i = 0; i < places.length; i += 2) {
            LonLat place = plan.block().plane().toLonLat(places[i], places[i + 1]);
            layout = layout.plus(ControlPoint.target(layout.nextName(), Role.CONTROL, place));
        }
        return layout;
    }

    private static BlockPlan over(GroundRequest.Source source, List<Obstacle> obstacles) {
        return REQUEST.over(new GroundRequest(source, HeightChoice.USUAL, obstacles, List.of(), OptionalDouble.empty()))
                .plan();
    }

    /** With nothing but logged positions the whole block may be off by what they share: half of their variance (common practice). */
    @Test
    void withoutControlTheSharedErrorOfThePositionsStaysWhole() {
        Foretold bare = ALONE.bare();
        double horizontal = Positioning.SINGLE.horizontalM() * Math.sqrt(0.5);
        assertThat(bare.shared().horizontalM()).isCloseTo(horizontal, Percentage.withPercentage(5));
        assertThat(bare.typical().horizontalM()).isGreaterThan(horizontal);
    }

    /** James and Robson 2014 (from memory): with the lens solved along, points at the rim leave the middle free to bulge; one in the middle holds it. */
    @Test
    void aPointInTheMiddleTakesTheDomingAway() {
        BlockWorth four =
                BlockWorth.of(LEVEL, at(LEVEL, -130, -130, 130, -130, 130, 130, -130, 130), Positioning.SINGLE, 1);
        BlockWorth five = BlockWorth.of(
                LEVEL, at(LEVEL, -130, -130, 130, -130, 130, 130, -130, 130, 0, 0), Positioning.SINGLE, 1);
        assertThat(five.planned().domingM()).isLessThan(four.planned().domingM() * 0.7);
        assertThat(five.planned().typical().verticalM())
                .isLessThan(four.planned().typical().verticalM());
        assertThat(four.planned().typical().horizontalM()).isLessThan(0.05);
    }

    @Test
    void proposalsFollowTheTradesRulesAndGainAccuracy() {
        Proposal proposal = new Proposal(ALONE);
        List<Integer> five = proposal.control(5);
        assertThat(five).hasSize(5).doesNotHaveDuplicates();
        int[] quadrants = new int[4];
        five.stream().map(ALONE.places()::get).forEach(place -> {
            if (Math.abs(place.xM()) > 60 && Math.abs(place.yM()) > 60) {
                quadrants[(place.xM() > 0 ? 1 : 0) + (place.yM() > 0 ? 2 : 0)]++;
            }
        });
        assertThat(quadrants).containsOnly(1);
        double three = ALONE.cost(proposal.control(3));
        double ten = ALONE.cost(proposal.control(10));
        assertThat(ALONE.cost(five)).isLessThan(three).isGreaterThan(ten);
        assertThat(three).isLessThan(ALONE.cost(List.of()) / 100);
    }

    @Test
    void aSpacingIsKept() {
        List<Integer> spaced = new Proposal(ALONE).spaced(100);
        assertThat(spaced).hasSize(9);
        for (int i : spaced) {
            double gap = spaced.stream()
                    .filter(j -> j != i)
                    .mapToDouble(
                            j -> ALONE.places().get(i).distanceTo(ALONE.places().get(j)))
                    .min()
                    .orElseThrow();
            assertThat(gap).isBetween(65.0, 135.0);
        }
    }

    @Test
    void keptPointsStayAndNamesGoOn() {
        ControlLayout own = at(LEVEL, 100, 100).changed("1", point -> point.locked(true));
        BlockWorth worth = BlockWorth.of(LEVEL, own, Positioning.SINGLE, 1);
        ControlLayout proposed = new Proposal(worth).layout(5, 3, Set.of("1"));
        assertThat(proposed.points().get(0)).isEqualTo(own.points().get(0));
        assertThat(proposed.of(Role.CONTROL)).hasSize(5);
        assertThat(proposed.of(Role.CHECK)).hasSize(3);
        assertThat(proposed.points())
                .extracting(ControlPoint::name)
                .containsExactly("1", "2", "3", "4", "5", "6", "7", "8");
    }

    @Test
    void nothingIsProposedWhereNoTargetCanLie() {
        // A face of 45° over the eastern half, and a wood.
        BlockPlan plan = over(
                FormulaGround.of(5, (x, y) -> 100 + Math.max(0, x)),
                List.of(new Obstacle(
                        "old oak",
                        Obstacle.Kind.TREE,
                        List.of(LEVEL.block().plane().toLonLat(-75, 0)),
                        25,
                        6)));
        Suitability suitability = new Suitability(plan, ControlLayout.NONE);
        assertThat(suitability.faults(new MarkedPlace(100, 0, 200))).contains("on a slope of 45°");
        assertThat(suitability.faults(new MarkedPlace(-60, 0, 100))).contains("sky hidden by old oak");
        assertThat(suitability.faults(new MarkedPlace(-76, 1, 100))).contains("at the foot of old oak");
        assertThat(suitability.faults(new MarkedPlace(-149, 0, 100))).contains("on the edge of the block");
        assertThat(suitability.faults(new MarkedPlace(-200, 0, 100))).contains("outside the block");
        assertThat(suitability.faults(new MarkedPlace(-100, 100, 100))).isEmpty();
        BlockWorth worth = BlockWorth.of(plan, ControlLayout.NONE, Positioning.SINGLE, 1);
        assertThat(new Proposal(worth).control(8))
                .allMatch(i -> worth.places().get(i).xM() < 5)
                .allMatch(i -> Math.hypot(
                                worth.places().get(i).xM() + 75,
                                worth.places().get(i).yM())
                        > 25);
        Outline everywhere = plan.block().outline();
        ControlLayout none = ControlLayout.NONE.avoiding(List.of(new Avoided("", Avoided.Kind.WATER, everywhere)));
        BlockWorth water = BlockWorth.of(LEVEL, none, Positioning.SINGLE, 1);
        assertThatThrownBy(() -> new Proposal(water).layout(5, 5, Set.of()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("No place in the block takes a target. Most often: water.");
    }

    /** A pinned accuracy is asked instead of the brief's, in Control as in Proof. */
    @Test
    void whatIsPinnedIsAsked() {
        Accuracy brief = new Accuracy(OptionalDouble.of(0.03), OptionalDouble.of(0.05));
        assertThat(PlanProof.asked(LEVEL, brief)).isEqualTo(brief);
        BlockPlan pinned =
                LEVEL.tried(LEVEL.request().pins().with(Quantity.HEIGHTS_TO, Measure.of(2, Unit.CENTIMETRE)));
        assertThat(PlanProof.asked(pinned, brief).heightM()).hasValue(0.02);
        assertThat(PlanProof.asked(pinned, brief).positionM()).hasValue(0.03);
    }

    /** The quick cost of a layout is the mean of what the whole update gives place by place; what all share is no more than what each has. */
    @Test
    void whatIsKnownTogetherAddsUp() {
        Foretold planned = ALONE.bare();
        double shared = planned.shared().verticalM();
        assertThat(shared).isLessThanOrEqualTo(planned.typical().verticalM() + 1e-12);
        List<Integer> three = new Proposal(ALONE).control(3);
        Foretold held = ALONE.with(three);
        double sum = 0;
        int count = 0;
        for (int i = 0; i < ALONE.places().size(); i++) {
            Optional<Foretold.Sigma> sigma = held.atPlace(i);
            if (sigma.isPresent()) {
                sum += 2 * Math.pow(sigma.get().horizontalM(), 2)
                        + Math.pow(sigma.get().verticalM(), 2);
                count++;
            }
        }
        assertThat(ALONE.cost(three)).isCloseTo(sum / count, Percentage.withPercentage(1e-6));
    }

    /** Snow gives fewer tie points than heather, and the block is worth less. */
    @Test
    void poorTextureCostsAccuracy() {
        double rich = ALONE.bare().worst().verticalM();
        BlockWorth snow = BlockWorth.of(LEVEL, ControlLayout.NONE, Positioning.SINGLE, Surface.SAND_SNOW_WATER.ties());
        assertThat(snow.bare().worst().verticalM()).isGreaterThan(rich);
    }

    @Test
    void isHeldAgainstWhatIsAsked() {
        Accuracy asked = new Accuracy(OptionalDouble.of(0.03), OptionalDouble.of(0.05));
        assertThat(ALONE.bare().against(asked)).isEqualTo(Foretold.Verdict.NOT_ENOUGH);
        assertThat(ALONE.bare().against(Accuracy.ANY)).isEqualTo(Foretold.Verdict.NOT_ASKED);
        assertThat(ALONE.with(new Proposal(ALONE).control(9)).against(asked)).isEqualTo(Foretold.Verdict.ENOUGH);
    }

    /** A place that no two photos see is not made up. */
    @Test
    void aPointOutOfSightHasNoAccuracy() {
        BlockWorth worth = BlockWorth.of(LEVEL, at(LEVEL, 0, 0, 900, 0), Positioning.PPK, 1);
        assertThat(worth.planned().atPoint(0)).isPresent();
        assertThat(worth.planned().atPoint(1)).isEmpty();
    }
}

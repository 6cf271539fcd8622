package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleBinaryOperator;
import org.assertj.core.api.Assertions;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.brief.Brief;
import yalos.core.finding.Case;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.finding.Mends;
import yalos.core.finding.Remedy;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.kit.Positioning;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.proof.GroundProof;
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
        Pins high = USUAL.with(Quantity.CEILING, Measure.of(1500, Unit.METRE));
        BlockPlan plan = plan(high.pinned(cost, unitOf(cost, most)));
        assertThat(plan.solution().holds()).isTrue();
        assertThat(plan.solution().solved()).contains(Quantity.GSD);
        double limit = unitOf(cost, most).si();
        assertThat(PinSolver.cost(plan, cost, 0)).isLessThanOrEqualTo(limit + 1e-9);
        double gsdCm = plan.design().scale().gsdM() * 100;
        assertThat(Math.abs(gsdCm * 100 - Math.round(gsdCm * 100))).isLessThan(1e-6);
        BlockPlan finer = plan(Pins.ofGsd(gsdCm - 0.01));
        assertThat(PinSolver.cost(finer, cost, 0)).isGreaterThan(limit);
    }

    private static BlockPlan accurate(Quantity accuracy, double cm, Positioning mode, double forward, double side) {
        Pins pins = USUAL.with(Quantity.CEILING, Measure.of(500, Unit.METRE))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(forward, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(side, Unit.PERCENT))
                .pinned(accuracy, Measure.of(cm, Unit.CENTIMETRE));
        return Samples.request(Samples.square(1200), pins).with(mode).plan();
    }

    private static double inside(BlockPlan plan, Quantity accuracy, Positioning mode) {
        GroundProof proof = PlanProof.of(plan, 5).whole(mode, share -> true);
        float[] sigmas = accuracy == Quantity.HEIGHTS_TO ? proof.sigmaVerticalM() : proof.sigmaHorizontalM();
        int middle = proof.grid().columns() * (proof.grid().rows() / 2)
                + proof.grid().columns() / 2;
        double most = 0;
        for (int down = -6; down <= 6; down++) {
            for (int across = -6; across <= 6; across++) {
                most = Math.max(most, sigmas[middle + down * proof.grid().columns() + across]);
            }
        }
        return accuracy == Quantity.HEIGHTS_TO ? most : most / Math.sqrt(2);
    }

    /** By hand, common practice: heights are 1.5 GSD at best, positions 1, with the positions of the photos added in quadrature. */
    @ParameterizedTest
    @CsvSource({
        "HEIGHTS_TO, 5, CONTROL, 2.66",
        "HEIGHTS_TO, 8, RTK_NETWORK, 4.61",
        "POSITIONS_TO, 3, CONTROL, 2.23",
    })
    void findsTheCoarsestGsdOfTheRuleOfThumb(Quantity accuracy, double cm, Positioning mode, double gsdCm) {
        BlockPlan plan = accurate(accuracy, cm, mode, 80, 70);
        assertThat(plan.solution().solved()).contains(Quantity.GSD);
        assertThat(plan.design().scale().gsdM() * 100).isCloseTo(gsdCm, Offset.offset(1e-6));
        assertThat(inside(plan, accuracy, mode)).isLessThanOrEqualTo(cm / 100);
    }

    /** With few rays these bind. The whole proof, at other points and over real strips, agrees: met, and not met 6 % coarser. */
    @ParameterizedTest
    @CsvSource({"HEIGHTS_TO, 9, CONTROL", "HEIGHTS_TO, 8, PPK"})
    void findsTheCoarsestGsdThatFewRaysMeasure(Quantity accuracy, double cm, Positioning mode) {
        BlockPlan plan = accurate(accuracy, cm, mode, 60, 20);
        assertThat(plan.solution().solved()).contains(Quantity.GSD);
        assertThat(plan.request().pins().has(Quantity.GSD)).isFalse();
        assertThat(inside(plan, accuracy, mode)).isLessThanOrEqualTo(cm / 100 * 1.001);
        double gsdCm = plan.design().scale().gsdM() * 100;
        Pins sparse = Pins.ofGsd(gsdCm * 1.06)
                .with(Quantity.FORWARD_OVERLAP, Measure.of(60, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(20, Unit.PERCENT));
        BlockPlan coarser =
                Samples.request(Samples.square(1200), sparse).with(mode).plan();
        assertThat(inside(coarser, accuracy, mode)).isGreaterThan(cm / 100);
    }

    /**
     * Satellites alone give 3 m of height: no GSD mends that, and none is driven into the ground for it, nor up to the ceiling. Where its logged data would do, the
     * scale is the one that does with them; where nothing does, pixels add as much as positions (rule of thumb, common practice: 3 cm over 1.5).
     */
    @ParameterizedTest
    @CsvSource({"5, SINGLE, 2.66, true", "1, SINGLE, 2.00, false", "3, CONTROL, 2.00, false", "3, PPK, 2.00, false"})
    void anAccuracyBeyondThePositionsIsSaidAndDrivesNoNonsense(
            double cm, Positioning mode, double gsdCm, boolean byLoggedData) {
        BlockPlan plan = accurate(Quantity.HEIGHTS_TO, cm, mode, 80, 70);
        assertThat(plan.solution().holds()).isFalse();
        assertThat(plan.solution().reachable())
                .isEqualTo(byLoggedData ? Optional.of(Positioning.PPK) : Optional.empty());
        assertThat(plan.design().scale().gsdM() * 100).isCloseTo(gsdCm, Offset.offset(0.03));
        assertThat(Findings.of(plan, UnitChoice.METRIC))
                .extracting(Finding::key)
                .contains("height-accuracy");
    }

    /** Released, the accuracy gives back the GSD it took the place of. */
    @Test
    void aReleasedAccuracyBringsTheScaleBack() {
        Pins pins = USUAL.pinned(Quantity.HEIGHTS_TO, Measure.of(5, Unit.CENTIMETRE));
        assertThat(pins.scaleFixed()).isFalse();
        assertThat(pins.released(Quantity.HEIGHTS_TO)).contains(USUAL);
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
        Pins pins = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, 300))
                .pinned(Quantity.GSD, Measure.of(2, Unit.CENTIMETRE))
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT));
        BlockPlan plan = plan(pins);
        assertThat(plan.solution().holds()).isFalse();
        Case one = Case.of(plan, Brief.EMPTY);
        List<Finding> said = Findings.of(one, UnitChoice.METRIC);
        Finding conflict = said.get(0);
        assertThat(conflict.key()).isEqualTo("pins-in-conflict");
        assertThat(conflict.sentence()).contains("photos 300", "GSD 2 cm", "side 70 %", "forward 80 %");
        List<Mends.Mend> mends = Mends.of(one, said, conflict, UnitChoice.METRIC);
        assertThat(mends).extracting(mend -> mend.remedy().label()).anyMatch(label -> label.startsWith("GSD "));
        assertThat(mends)
                .as("a forward overlap too low for a reconstruction cures nothing")
                .noneMatch(mend -> mend.remedy().label().startsWith("Forward"));
        for (Mends.Mend mend : mends) {
            assertThat(mend.cures()).isTrue();
            Pins mended = mend.remedy().change() instanceof Remedy.Pin way
                    ? pins.pinned(way.quantity(), way.value())
                    : pins.released(((Remedy.Unpin) mend.remedy().change()).quantity())
                            .orElseThrow();
            assertThat(plan(mended).solution().holds())
                    .as(mend.remedy().label())
                    .isTrue();
            assertThat(mend.minutes())
                    .isCloseTo((plan(mended).flightTimeS() - plan.flightTimeS()) / 60, Offset.offset(1e-9));
        }
    }

    /** A time no plan below the ceiling takes: it ends at the ceiling, not at 3,750 m, and says so. */
    @Test
    void neverEndsBeyondTheCeilingOrBelowTheClearance() {
        BlockPlan quick = plan(USUAL.pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 1)));
        assertThat(quick.solution().holds()).isFalse();
        assertThat(quick.design().scale().heightM()).isBetween(119.0, 120.0);
        BlockPlan slow = plan(USUAL.pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 5000)));
        assertThat(slow.solution().holds()).isTrue();
        assertThat(slow.design().scale().heightM()).isBetween(1.0, 10.0);
    }

    private static PlanRequest over(DoubleBinaryOperator ground, HeightChoice choice, Pins pins) {
        GroundRequest real =
                new GroundRequest(FormulaGround.of(5, ground), choice, List.of(), List.of(), OptionalDouble.empty());
        return Samples.request(Samples.square(400), pins).over(real);
    }

    /**
     * On a ridge that the aircraft cannot follow the path comes higher above the ground than is planned: what is solved for keeps the path below the
     * ceiling, not the height alone, and no lower than that asks for.
     */
    @ParameterizedTest
    @CsvSource({"0.3", "0.4", "0.5"})
    void thePathKeepsBelowTheCeilingOnARidge(double slope) {
        Pins quick = USUAL.with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE))
                .pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 1));
        DoubleBinaryOperator ridge = (x, y) -> 300 - slope * Math.abs(x);
        BlockPlan plan = over(ridge, HeightChoice.USUAL, quick).plan();
        assertThat(plan.solution().holds()).as("nothing is that quick").isFalse();
        double highest = plan.heights()
                .flatMap(HeightPlan::greatestAboveGround)
                .orElseThrow()
                .m();
        assertThat(highest).isBetween(114.0, 120.05);
        assertThat(plan.overCeilingM()).isZero();
        BlockPlan higher = over(ridge, HeightChoice.USUAL, quick.pinned(Quantity.HEIGHT, Measure.of(119.5, Unit.METRE)))
                .plan();
        assertThat(higher.overCeilingM()).as("the ceiling itself is too high").isPositive();
        assertThat(plan.design().scale().heightM()).isLessThan(119.5);
        Measure least = PinSolver.waysOut(plan).stream()
                .filter(way -> way.quantity() == Quantity.FLIGHT_TIME)
                .findFirst()
                .orElseThrow()
                .value();
        BlockPlan longer = over(ridge, HeightChoice.USUAL, quick.pinned(Quantity.FLIGHT_TIME, least))
                .plan();
        assertThat(longer.solution().holds()).as("the way out is one").isTrue();
        assertThat(longer.overCeilingM()).isZero();
        assertThat(Findings.of(plan, UnitChoice.METRIC))
                .extracting(Finding::key)
                .doesNotContain("ceiling")
                .contains("pins-in-conflict");
    }

    /**
     * Over a cone and a slope, which add to time and photos as unevenly as they like, tilted passes besides or not: what the cheapest plan really takes can be pinned, and more as
     * well. Each is kept, and every path below the ceiling where one can be.
     */
    @ParameterizedTest
    @CsvSource({"FLIGHT_TIME, false", "FLIGHT_TIME, true", "PHOTOS, false", "PHOTOS, true", "BATTERY_SETS, true"})
    void aCostThatCanBeHadOverTheRealGroundIsKept(Quantity cost, boolean tilted) {
        TiltedPasses looks = new TiltedPasses(
                AddedPass.Own.NONE, Measure.of(30, Unit.DEGREE), EnumSet.allOf(TiltedPasses.Toward.class));
        Patterns patterns = tilted ? Patterns.SINGLE.adding(looks) : Patterns.SINGLE;
        for (DoubleBinaryOperator ground : List.<DoubleBinaryOperator>of(
                (x, y) -> 300 - 0.5 * Math.hypot(x - 300, y - 300), (x, y) -> 300 + 0.4 * x)) {
            PlanRequest request = over(ground, HeightChoice.USUAL, USUAL).with(patterns);
            BlockPlan cheapest = request.with(USUAL.pinned(cost, unitOf(cost, cost == Quantity.PHOTOS ? 2 : 1)))
                    .plan();
            double least = PinSolver.cost(cheapest, cost, 0) / (cost == Quantity.FLIGHT_TIME ? 60 : 1);
            for (double share : List.of(1.0, 1.1, 1.3, 2.0)) {
                BlockPlan plan = request.with(USUAL.pinned(cost, unitOf(cost, Math.ceil(least * share))))
                        .plan();
                assertThat(PinSolver.unmet(plan))
                        .as("%s times %s: %s", share, least, PinSolver.cost(plan, cost, 0))
                        .isEmpty();
                assertThat(plan.solution().holds()).isTrue();
                assertThat(plan.overCeilingM()).isLessThanOrEqualTo(cheapest.overCeilingM());
            }
        }
    }

    /** From the foot of a slope the way home passes the ceiling whatever is flown, and below some height nothing can be planned: the time is kept all the same. */
    @Test
    void aTimeIsKeptWhereNoPathKeepsBelowTheCeiling() {
        Pins pins = USUAL.pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 60))
                .with(Quantity.INTERVAL, Measure.of(3, Unit.SECOND))
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE))
                .with(Quantity.WIND, Measure.of(6, Unit.METRE_PER_SECOND));
        GroundRequest slope = new GroundRequest(
                FormulaGround.of(5, (x, y) -> 300 + 0.5 * x),
                HeightChoice.USUAL,
                List.of(),
                List.of(),
                OptionalDouble.empty());
        PlanRequest usual = Samples.request(Samples.square(800), pins);
        BlockPlan plan = new PlanRequest(
                        usual.kit(), pins, usual.outline(), Optional.of(Samples.at(-30, 0)), usual.epsg())
                .over(slope)
                .plan();
        assertThat(plan.overCeilingM()).isPositive();
        assertThat(plan.solution().holds()).isTrue();
        assertThat(plan.flightTimeS()).isBetween(3200.0, 3600.0);
    }

    /** Flown level over 100 m of relief nothing keeps below the ceiling; that is said, and drives no nonsense. */
    @Test
    void whereNoPathKeepsBelowTheCeilingTheStopSaysSo() {
        Pins quick = USUAL.pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 1));
        DoubleBinaryOperator cliff = (x, y) -> x < 0 ? 300 : 100;
        HeightChoice level = new HeightChoice(HeightReference.TAKE_OFF, DesignPlane.BOTH, 20, 40);
        BlockPlan plan = over(cliff, level, quick).plan();
        assertThat(plan.design().scale().heightM()).isBetween(100.0, 120.0);
        assertThat(plan.overCeilingM()).isPositive();
        assertThat(Findings.of(plan, UnitChoice.METRIC))
                .extracting(Finding::key)
                .contains("ceiling");
    }

    /** The way out of a conflict names the time that can really be had, with what is free at its cheapest. */
    @Test
    void aCostThatCannotBeMetNamesTheLeastThatCan() {
        Pins pins = USUAL.pinned(Quantity.FLIGHT_TIME, unitOf(Quantity.FLIGHT_TIME, 2))
                .pinned(Quantity.GSD, Measure.of(2, Unit.CENTIMETRE));
        BlockPlan plan = plan(pins);
        assertThat(plan.solution().holds()).isFalse();
        Measure least = PinSolver.waysOut(plan).stream()
                .filter(way -> way.quantity() == Quantity.FLIGHT_TIME)
                .findFirst()
                .orElseThrow()
                .value();
        BlockPlan met = plan(pins.pinned(Quantity.FLIGHT_TIME, least));
        assertThat(met.solution().holds()).isTrue();
        assertThat(plan(pins.pinned(Quantity.FLIGHT_TIME, Measure.of(least.figure() - 1, Unit.MINUTE)))
                        .solution()
                        .holds())
                .isFalse();
    }

    @Test
    void aCostIsPinnedInsteadOfTheScaleAndTheLastOfThemStays() {
        Pins photos = USUAL.pinned(Quantity.PHOTOS, unitOf(Quantity.PHOTOS, 400));
        assertThat(photos.scaleFixed()).isFalse();
        assertThat(photos.pinned(Quantity.GSD, Measure.of(3, Unit.CENTIMETRE)).costs())
                .isEqualTo(List.of(Quantity.PHOTOS));
        Assertions.assertThatThrownBy(() -> photos.without(Quantity.PHOTOS))
                .hasMessageContaining("Something must fix the scale");
    }
}

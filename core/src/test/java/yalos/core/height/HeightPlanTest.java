package yalos.core.height;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.IntStream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.flight.Arc;
import yalos.core.flight.Exposure;
import yalos.core.flight.Line;
import yalos.core.flight.Link;
import yalos.core.flight.Way;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanProof;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Coverage;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Heights over ground whose shape is known exactly. */
class HeightPlanTest {
    private static final Outline SQUARE = Samples.square(400);

    private static GroundRequest.Source source(DoubleBinaryOperator heightAt) {
        return FormulaGround.of(2, heightAt);
    }

    private static BlockPlan plan(DoubleBinaryOperator ground, HeightChoice choice, Pins pins) {
        return plan(ground, choice, pins, List.of(), List.of(), OptionalDouble.empty());
    }

    private static BlockPlan plan(
            DoubleBinaryOperator ground,
            HeightChoice choice,
            Pins pins,
            List<Obstacle> obstacles,
            List<Zone> zones,
            OptionalDouble takeOff) {
        return Samples.request(SQUARE, pins)
                .over(new GroundRequest(source(ground), choice, obstacles, zones, takeOff))
                .plan();
    }

    private static HeightChoice choice(HeightReference reference, DesignPlane plane) {
        return new HeightChoice(reference, plane, 20, 0);
    }

    private static List<String> keys(BlockPlan plan) {
        return Findings.of(plan, UnitChoice.METRIC).stream().map(Finding::key).toList();
    }

    @ParameterizedTest
    @EnumSource(HeightReference.class)
    void overLevelGroundEveryReferenceFliesTheSame(HeightReference reference) {
        BlockPlan plan = plan((x, y) -> 250, choice(reference, DesignPlane.MEAN), Pins.ofHeight(70));
        HeightPlan heights = plan.heights().orElseThrow();
        for (Exposure photo : plan.flight().exposures()) {
            assertThat(heights.aboveGroundM(photo)).isCloseTo(70, Offset.offset(1e-3));
            assertThat(photo.upM()).isCloseTo(320, Offset.offset(1e-3));
            assertThat(plan.flight().aboveTakeOffM(photo)).isCloseTo(70, Offset.offset(1e-3));
        }
    }

    /** A gentle plane is followed exactly but for the corridor, of which the upper side counts. */
    @Test
    void aGentleSlopeIsFollowed() {
        double slope = 0.1;
        Pins along = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE));
        BlockPlan plan = plan((x, y) -> 300 + slope * x, choice(HeightReference.FOLLOW, DesignPlane.BOTH), along);
        HeightPlan heights = plan.heights().orElseThrow();
        double[] above = heights.aboveGroundM();
        assertThat(above[0]).isCloseTo(60, Offset.offset(0.1));
        assertThat(above[2]).isCloseTo(60, Offset.offset(0.1));
        assertThat(keys(plan)).doesNotContain("overlap-over-relief", "clearance");
    }

    /** A model good to 3 m (one sigma): 6 m more are kept above it, over a hill flown level and in the sentence. */
    @Test
    void theModelsErrorWidensTheClearance() {
        DoubleBinaryOperator hill = (x, y) -> 300 + 45 * Math.exp(-(x * x + y * y) / 5000);
        HeightChoice exact = choice(HeightReference.GEOID, DesignPlane.LOWEST);
        BlockPlan trusted = plan(hill, exact, Pins.ofHeight(68));
        assertThat(keys(trusted)).doesNotContain("clearance");
        BlockPlan doubted = plan(hill, exact.withModelSigma(3), Pins.ofHeight(68));
        assertThat(finding(doubted, "clearance").sentence())
                .contains("26.0 m above it are to be kept, 6.0 m of it because the model may be wrong");
        BlockPlan stepped = plan(
                (x, y) -> x > 0 ? 380 : 300,
                choice(HeightReference.FOLLOW, DesignPlane.BOTH).withModelSigma(3),
                Pins.ofHeight(22));
        assertThat(stepped.heights().orElseThrow().nearestSection().clearanceM())
                .isGreaterThanOrEqualTo(26 - 1e-6);
    }

    /** Climb 4 m/s and sink 3 m/s (the aircraft's figures) at the plan's speed: no leg is steeper. */
    @Test
    void aCliffIsApproachedWithinTheClimbLimitAndClearedAll() {
        Pins across = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE));
        BlockPlan plan = plan((x, y) -> x > 0 ? 380 : 300, choice(HeightReference.FOLLOW, DesignPlane.BOTH), across);
        HeightPlan heights = plan.heights().orElseThrow();
        double speed = plan.design().speedMps();
        for (LegSection leg : heights.sections()) {
            double step = leg.lengthM() / (leg.pathM().length - 1);
            for (int i = 1; i < leg.pathM().length; i++) {
                double rise = (leg.pathM()[i] - leg.pathM()[i - 1]) / step * speed;
                assertThat(rise).isBetween(-3.0 - 1e-6, 4.0 + 1e-6);
            }
            assertThat(leg.clearanceM()).isGreaterThanOrEqualTo(20 - 1e-6);
        }
        assertThat(keys(plan)).contains("raised");
    }

    /** o' = 1 − (1 − o) H / H' (Wolf and others, from memory), over a ridge 40 m high flown level from its foot. */
    @Test
    void overAHillALevelFlightLosesOverlapAndSaysSo() {
        DoubleBinaryOperator hill = (x, y) -> 200 + Math.max(0, 40 - Math.hypot(x, y) / 2.5);
        BlockPlan level = plan(hill, choice(HeightReference.TAKE_OFF, DesignPlane.LOWEST), Pins.ofHeight(80));
        double least = level.heights().orElseThrow().aboveGroundM()[0];
        assertThat(least).isBetween(40.0, 50.0);
        List<Finding> found = Findings.of(level, UnitChoice.METRIC);
        assertThat(found).extracting(Finding::key).contains("overlap-over-relief", "return-height");
        double side = 1 - 0.3 * 80 / least;
        assertThat(found)
                .filteredOn(f -> f.key().equals("overlap-over-relief"))
                .singleElement()
                .satisfies(f -> assertThat(f.sentence()).contains("%.0f %%".formatted(side * 100)));
        BlockPlan followed = plan(hill, choice(HeightReference.FOLLOW, DesignPlane.LOWEST), Pins.ofHeight(80));
        assertThat(keys(followed)).doesNotContain("overlap-over-relief");
    }

    @Test
    void theDesignPlaneDecidesFromWhereALevelFlightIsMeasured() {
        DoubleBinaryOperator slope = (x, y) -> 200 + 0.05 * (x + 200);
        double low = flight(slope, DesignPlane.LOWEST);
        double mean = flight(slope, DesignPlane.MEAN);
        double high = flight(slope, DesignPlane.HIGHEST);
        assertThat(low).isCloseTo(270, Offset.offset(0.2));
        assertThat(mean).isCloseTo(280, Offset.offset(0.2));
        assertThat(high).isCloseTo(290, Offset.offset(0.2));
        BlockPlan both = plan(slope, choice(HeightReference.GEOID, DesignPlane.BOTH), Pins.ofHeight(70));
        BlockPlan lowest = plan(slope, choice(HeightReference.GEOID, DesignPlane.LOWEST), Pins.ofHeight(70));
        assertThat(both.design().spacingM() / lowest.design().spacingM()).isCloseTo(50 / 70.0, Offset.offset(0.01));
        assertThat(both.design().scale().gsdM())
                .isEqualTo(lowest.design().scale().gsdM());
        assertThatThrownBy(() -> plan((x, y) -> x, choice(HeightReference.GEOID, DesignPlane.BOTH), Pins.ofHeight(70)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("Follow the ground");
    }

    /**
     * A ridge that rises and falls 45 m on 100 m, evened out over 40 m to a parabola 4.5 m lower: the straight line that touches it and is as steep as
     * the aircraft can fly lies above the ridge by its difference in slope, less what it gains at the top (analysis).
     */
    @Test
    void aPhotoKnowsHowMuchTheClimbHoldsItUp() {
        double slope = 0.45;
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE))
                .with(Quantity.SPEED, Measure.of(10, Unit.METRE_PER_SECOND));
        BlockPlan plan = plan((x, y) -> 300 - slope * Math.abs(x), HeightChoice.USUAL, pins);
        HeightPlan heights = plan.heights().orElseThrow();
        Aircraft aircraft = plan.request().aircraft();
        int compared = 0;
        for (Exposure photo : heights.flight().exposures()) {
            boolean east = Math.cos(heights.flight().line(photo.line()).trackRad()) > 0;
            double x = photo.point().xM();
            double able = (x > 0 == east ? aircraft.descentMps() : aircraft.climbMps()) / 10;
            double touches = able / slope * 20;
            double line = 300 - 4.5 - slope * touches * touches / 40 + able * touches;
            double held = line - able * Math.abs(x) - (300 - slope * Math.abs(x));
            if (Math.abs(x) > 30 && Math.abs(x) < 150) {
                assertThat(heights.heldUpM(photo)).as("at %.1f", x).isCloseTo(Math.max(0, held), Offset.offset(0.4));
                compared++;
            }
        }
        assertThat(compared).isGreaterThan(50);
        HeightPlan level =
                plan((x, y) -> 300, HeightChoice.USUAL, pins).heights().orElseThrow();
        assertThat(level.flight().exposures()).allMatch(photo -> level.heldUpM(photo) == 0);
    }

    private static double flight(DoubleBinaryOperator ground, DesignPlane plane) {
        return plan(ground, choice(HeightReference.GEOID, plane), Pins.ofHeight(70))
                .heights()
                .orElseThrow()
                .flight()
                .exposures()
                .get(0)
                .upM();
    }

    @Test
    void aSteppedStripIsLevelAtItsOwnHeight() {
        Pins across = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
        BlockPlan plan = plan((x, y) -> 200 + 0.2 * x, choice(HeightReference.STEPPED, DesignPlane.MEAN), across);
        HeightPlan heights = plan.heights().orElseThrow();
        LegSection first = heights.section(1);
        LegSection last = heights.section(plan.flight().lines().size());
        assertThat(first.pathM()[0]).isEqualTo(first.pathM()[first.pathM().length - 1]);
        assertThat(Math.abs(first.pathM()[0] - last.pathM()[0])).isGreaterThan(50);
    }

    @Test
    void aMastBesideAStripIsClearedOrReported() {
        BlockPlan bare = plan((x, y) -> 100, choice(HeightReference.FOLLOW, DesignPlane.BOTH), Pins.ofHeight(60));
        PlanePoint at = bare.flight().exposures().get(40).point();
        Obstacle mast = new Obstacle(
                "radio mast", Obstacle.Kind.MAST, List.of(bare.block().plane().toLonLat(at)), 55, 2);
        BlockPlan followed = plan(
                (x, y) -> 100,
                choice(HeightReference.FOLLOW, DesignPlane.BOTH),
                Pins.ofHeight(60),
                List.of(mast),
                List.of(),
                OptionalDouble.empty());
        assertThat(followed.heights().orElseThrow().nearestSection().clearanceM())
                .isGreaterThanOrEqualTo(20 - 1e-6);
        BlockPlan level = plan(
                (x, y) -> 100,
                choice(HeightReference.TAKE_OFF, DesignPlane.BOTH),
                Pins.ofHeight(60),
                List.of(mast),
                List.of(),
                OptionalDouble.empty());
        assertThat(Findings.of(level, UnitChoice.METRIC))
                .filteredOn(f -> f.key().equals("clearance"))
                .singleElement()
                .satisfies(f -> assertThat(f.sentence()).contains("radio mast").contains("5.0 m"));
        assertThat(level.heights().orElseThrow().returnAboveTakeOffM()).isCloseTo(75, Offset.offset(0.5));
    }

    @Test
    void zonesStopOrWarnWithinTheirHeights() {
        Zone low = new Zone("nesting slope", Zone.Kind.CAUTION, SQUARE, 0, 100);
        Zone high = new Zone("approach", Zone.Kind.KEEP_OUT, SQUARE, 90, Double.POSITIVE_INFINITY);
        BlockPlan plan = plan(
                (x, y) -> 100,
                HeightChoice.USUAL,
                Pins.ofHeight(60),
                List.of(),
                List.of(low, high),
                OptionalDouble.empty());
        assertThat(keys(plan)).contains("zone-nesting slope").doesNotContain("zone-approach");
    }

    private static Finding finding(BlockPlan plan, String key) {
        return Findings.of(plan, UnitChoice.METRIC).stream()
                .filter(f -> f.key().equals(key))
                .findFirst()
                .orElseThrow(() -> new AssertionError(key + " not in " + keys(plan)));
    }

    /** A square of a side round a place of the block's plane. */
    private static Zone keepOut(String name, BlockPlan on, double x, double y, double side) {
        double half = side / 2;
        return new Zone(
                name,
                Zone.Kind.KEEP_OUT,
                Outline.ofRing(List.of(
                        on.block().plane().toLonLat(x - half, y - half),
                        on.block().plane().toLonLat(x + half, y - half),
                        on.block().plane().toLonLat(x + half, y + half),
                        on.block().plane().toLonLat(x - half, y + half))),
                0,
                Double.POSITIVE_INFINITY);
    }

    @Test
    void eachZoneTellsItsOwnPhotosAndOneBetweenTwoStationsIsFoundToo() {
        BlockPlan bare = plan((x, y) -> 100, HeightChoice.USUAL, Pins.ofHeight(60));
        PlanePoint one = bare.flight().exposures().get(40).point();
        PlanePoint next = bare.flight().exposures().get(41).point();
        Zone round = keepOut("round one station", bare, one.xM(), one.yM(), 4);
        Zone between = keepOut("between", bare, (one.xM() + next.xM()) / 2, (one.yM() + next.yM()) / 2, 5);
        BlockPlan plan = plan(
                (x, y) -> 100,
                HeightChoice.USUAL,
                Pins.ofHeight(60),
                List.of(),
                List.of(round, between),
                OptionalDouble.empty());
        assertThat(finding(plan, "zone-round one station").sentence()).contains("1 photo is taken in it");
        assertThat(finding(plan, "zone-between").sentence())
                .startsWith("Strip " + bare.flight().exposures().get(40).line())
                .contains("0 photos are taken in it");
    }

    @Test
    void theWayFromTheLaunchPointIsHeldAgainstZonesToo() {
        BlockPlan bare = plan((x, y) -> 100, HeightChoice.USUAL, Pins.ofHeight(60));
        PlanePoint first = bare.flight().line(1).from();
        double[] out = {first.xM() * 1.15, first.yM() * 1.15};
        PlanRequest usual = Samples.request(SQUARE, Pins.ofHeight(60));
        PlanRequest request = new PlanRequest(
                usual.kit(),
                usual.pins(),
                usual.outline(),
                Optional.of(bare.block().plane().toLonLat(first.xM() * 1.3, first.yM() * 1.3)),
                usual.epsg());
        Zone yard = keepOut("yard", bare, out[0], out[1], 20);
        Zone warned = new Zone("yard", Zone.Kind.CAUTION, yard.outline(), yard.floorM(), yard.ceilingM());
        assertThat(finding(request.over(levelWith(warned)).plan(), "zone-yard").sentence())
                .startsWith("The way out")
                .contains("0 photos");
        // What must not be flown over is gone round.
        BlockPlan round = request.over(levelWith(yard)).plan();
        assertThat(Findings.of(round, UnitChoice.METRIC))
                .noneSatisfy(said -> assertThat(said.key()).isEqualTo("zone-yard"));
        assertThat(round.flight().pathLengthM())
                .isGreaterThan(request.over(levelWith(warned)).plan().flight().pathLengthM());
    }

    private static GroundRequest levelWith(Zone zone) {
        return new GroundRequest(
                GroundRequest.LEVEL, HeightChoice.USUAL, List.of(), List.of(zone), OptionalDouble.empty());
    }

    /** Without a model the plan stays level, and what was drawn on the site still counts. */
    @Test
    void obstaclesAndZonesCountOnLevelGroundWithoutAModel() {
        BlockPlan bare = Samples.request(SQUARE, Pins.ofHeight(60)).plan();
        PlanePoint at = bare.flight().exposures().get(40).point();
        Obstacle mast = new Obstacle(
                "radio mast", Obstacle.Kind.MAST, List.of(bare.block().plane().toLonLat(at)), 70, 2);
        GroundRequest ground = new GroundRequest(
                GroundRequest.LEVEL,
                HeightChoice.USUAL,
                List.of(mast),
                List.of(keepOut("yard", bare, at.xM(), at.yM(), 4)),
                OptionalDouble.empty());
        BlockPlan plan = Samples.request(SQUARE, Pins.ofHeight(60)).over(ground).plan();
        assertThat(plan.heights()).isEmpty();
        assertThat(plan.flight().exposures()).isEqualTo(bare.flight().exposures());
        assertThat(finding(plan, "clearance").sentence())
                .contains("runs 10.0 m below the top of radio mast; 20.0 m above it");
        assertThat(finding(plan, "zone-yard").level()).isEqualTo(Finding.Level.STOP);
        assertThat(finding(plan, "return-height").sentence()).contains("90.0 m above take-off");
        assertThat(keys(bare)).doesNotContain("clearance", "return-height");
    }

    /** A mast between two cells of a coarse model, beside the strip and up the slope. */
    @Test
    void aMastIsNotLostInACoarseModelNorBelowASlope() {
        GroundRequest.Source coarse = FormulaGround.of(60, (x, y) -> 500 + 0.5 * x);
        Pins pins = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
        PlanRequest request = Samples.request(SQUARE, pins);
        BlockPlan bare = request.plan();
        Line strip = bare.flight().line(4);
        double middle = (strip.from().yM() + strip.to().yM()) / 2;
        for (double along = -30; along <= 30; along += 7) {
            Obstacle mast = new Obstacle(
                    "mast",
                    Obstacle.Kind.MAST,
                    List.of(bare.block().plane().toLonLat(strip.from().xM() + 9, middle + along)),
                    50,
                    0);
            HeightChoice followed = choice(HeightReference.FOLLOW, DesignPlane.BOTH);
            HeightPlan heights = request.over(
                            new GroundRequest(coarse, followed, List.of(mast), List.of(), OptionalDouble.empty()))
                    .plan()
                    .heights()
                    .orElseThrow();
            double top = 500 + 0.5 * (strip.from().xM() + 9) + 50;
            LegSection leg = heights.section(4);
            double there = leg.way().upAt(Math.abs(middle + along - strip.from().yM()));
            assertThat(there - top).as("%.0f m along", along).isGreaterThan(19.9);
        }
    }

    /** A mast of 70 m between the ends of two strips flown at 60 m, 10 m to be kept: the way between rises by 20 m to 80 m. */
    @Test
    void aWayThatMustRiseIsTold() {
        PlanRequest request = Samples.request(SQUARE, Pins.ofHeight(60));
        BlockPlan bare = request.plan();
        Way turn = bare.flight().ways().stream()
                .filter(way -> way instanceof Link link && link.kind() == Link.Kind.TURN)
                .findFirst()
                .orElseThrow();
        LonLat middle = bare.block().plane().toLonLat(turn.pointAt(turn.lengthM() / 2));
        Obstacle mast = new Obstacle("mast", Obstacle.Kind.MAST, List.of(middle), 70, 0);
        BlockPlan plan = request.over(new GroundRequest(
                        GroundRequest.LEVEL,
                        new HeightChoice(HeightReference.FOLLOW, DesignPlane.BOTH, 10, 0),
                        List.of(mast),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
        assertThat(finding(plan, "ways-raised").sentence())
                .contains("rise by 20.0 m")
                .contains("80.0 m above take-off or more");
        assertThat(keys(plan)).doesNotContain("clearance");
        BlockPlan wider = request.over(new GroundRequest(
                        GroundRequest.LEVEL, HeightChoice.USUAL, List.of(mast), List.of(), OptionalDouble.empty()))
                .plan();
        assertThat(keys(wider)).as("20 m to be kept to the side too").contains("clearance");
    }

    /** A plan 40 m off: the model counts from the ellipsoid and was taken for heights above the geoid. */
    @Test
    void aWrongDatumIsFoundByTheLevelOfTheTakeOff() {
        BlockPlan plan = plan(
                (x, y) -> 140, HeightChoice.USUAL, Pins.ofHeight(60), List.of(), List.of(), OptionalDouble.of(100));
        assertThat(Findings.of(plan, UnitChoice.METRIC))
                .filteredOn(f -> f.key().equals("take-off-level"))
                .singleElement()
                .satisfies(f -> assertThat(f.sentence()).contains("40.0 m apart"));
    }

    /** A hole 60 m wide in 160,000 m²: what stands on it is left out, the rest is planned at its heights, and the plan stops. */
    @Test
    void whatStandsOverAHoleIsLeftOutAndNothingIsGuessed() {
        BlockPlan whole = plan((x, y) -> 500, HeightChoice.USUAL, Pins.ofHeight(60));
        BlockPlan holed =
                plan((x, y) -> Math.hypot(x, y) < 30 ? Double.NaN : 500, HeightChoice.USUAL, Pins.ofHeight(60));
        assertThat(holed.overGround().orElseThrow().unknownInside())
                .isCloseTo(Math.PI * 900 / 160_000, Offset.offset(0.001));
        int leftOut = holed.overGround().orElseThrow().leftOut();
        assertThat(leftOut).isPositive();
        assertThat(holed.photos()).isEqualTo(whole.photos() - leftOut);
        for (Exposure photo : holed.flight().exposures()) {
            assertThat(photo.upM()).isCloseTo(560, Offset.offset(1e-3));
            assertThat(photo.point().distanceM(new PlanePoint(0, 0))).isGreaterThan(28);
        }
        assertThat(keys(holed)).contains("model-ends");
        assertThat(holed.flight().exposures().stream().map(Exposure::id))
                .containsExactlyElementsOf(
                        IntStream.rangeClosed(1, holed.photos()).boxed().toList());
        Coverage seen = PlanProof.coverage(holed);
        assertThat(seen.shareUnknown()).isCloseTo(Math.PI * 900 / 160_000, Offset.offset(0.002));
        assertThat(seen.shareAtLeast(1)).isLessThanOrEqualTo(1 - seen.shareUnknown());
    }

    /** The rims of the hole lie on a plane, so its span is that plane. */
    @Test
    void aSmallHoleIsSpannedByConsentWithItsFigures() {
        DoubleBinaryOperator slope = (x, y) -> Math.hypot(x, y) < 20 ? Double.NaN : 500 + 0.1 * x;
        BlockPlan holed = plan(slope, HeightChoice.USUAL, Pins.ofHeight(60));
        Finding told = finding(holed, "model-ends");
        assertThat(told.level()).isEqualTo(Finding.Level.STOP);
        assertThat(told.remedies())
                .singleElement()
                .satisfies(remedy -> assertThat(remedy.label()).startsWith("Span 1 hole up to 40.0 m wide, rims 4"));
        BlockPlan spanned = Samples.request(SQUARE, Pins.ofHeight(60))
                .over(new GroundRequest(
                        source(slope).spanning(40), HeightChoice.USUAL, List.of(), List.of(), OptionalDouble.empty()))
                .plan();
        assertThat(keys(spanned)).contains("holes-spanned").doesNotContain("model-ends");
        HeightGrid grid = spanned.heights().orElseThrow().grid();
        for (double x = -18; x <= 18; x += 6) {
            assertThat(grid.at(x, 3)).isCloseTo(500 + 0.1 * x, Offset.offset(0.01));
        }
    }

    /** The model ends in the middle of the block: the strips end there too. */
    @Test
    void stripsEndWhereTheModelEnds() {
        Pins across = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE));
        BlockPlan half = plan((x, y) -> x > 0 ? Double.NaN : 500, HeightChoice.USUAL, across);
        assertThat(half.flight().lines()).isNotEmpty();
        assertThat(half.flight().ways())
                .allSatisfy(way -> assertThat(way.shape())
                        .allSatisfy(point -> assertThat(point.xM()).isLessThan(2)));
        assertThat(finding(half, "model-ends").remedies())
                .as("an end is no hole")
                .isEmpty();
        assertThat(half.flightTimeS())
                .isLessThan(plan((x, y) -> 500, HeightChoice.USUAL, across).flightTimeS());
    }

    /** Nothing of the block is known: there is no height at all, nothing is given, and the plan says so. */
    @ParameterizedTest
    @EnumSource(HeightReference.class)
    void aModelOfElsewhereGivesNoHeightAtAll(HeightReference reference) {
        BlockPlan plan = plan((x, y) -> Double.NaN, choice(reference, DesignPlane.BOTH), Pins.ofHeight(60));
        assertThat(plan.heightsUnknown()).isTrue();
        assertThat(PlanProof.coverage(plan).shareAtLeast(1)).isZero();
        assertThat(PlanProof.coverage(plan).shareUnknown()).isEqualTo(1);
        assertThat(finding(plan, "model-ends").level()).isEqualTo(Finding.Level.STOP);
        GroundProof proof = PlanProof.of(plan, 10).whole(Positioning.PPK, share -> true);
        Judgement judgement = PlanProof.of(plan, 10).judged(proof, Positioning.PPK, PlanProof.Accuracy.ANY);
        assertThat(judgement.share()).isZero();
        assertThat(judgement.share(Adequacy.UNKNOWN)).isEqualTo(1);
    }

    @ParameterizedTest
    @EnumSource(HeightReference.class)
    void aLaunchPointBeyondTheModelHasNoLevelUntilItIsMeasured(HeightReference reference) {
        PlanRequest usual = Samples.request(SQUARE, Pins.ofHeight(60));
        PlanRequest far = new PlanRequest(
                usual.kit(), usual.pins(), usual.outline(), Optional.of(Samples.at(-900, 0)), usual.epsg());
        GroundRequest.Source known = source((x, y) -> x < -400 ? Double.NaN : 500);
        BlockPlan plan = far.over(new GroundRequest(
                        known, choice(reference, DesignPlane.BOTH), List.of(), List.of(), OptionalDouble.empty()))
                .plan();
        assertThat(plan.heightsUnknown()).isEqualTo(reference == HeightReference.TAKE_OFF);
        assertThat(keys(plan)).containsAnyOf("take-off-unknown", "model-ends");
        assertThat(plan.flightTimeS()).isFinite();
        BlockPlan measured = far.over(new GroundRequest(
                        known, choice(reference, DesignPlane.BOTH), List.of(), List.of(), OptionalDouble.of(490)))
                .plan();
        assertThat(measured.flight().takeOffUpM()).isEqualTo(490);
        assertThat(keys(measured)).doesNotContain("take-off-unknown", "model-ends", "take-off-level");
    }

    /** A mast of 200 m is flown over at the 20 m that are to be kept, not at the 60 m planned above ground. */
    @Test
    void aMastIsClearedNotFollowed() {
        BlockPlan bare = plan((x, y) -> 500, HeightChoice.USUAL, Pins.ofHeight(60));
        PlanePoint at = bare.flight().exposures().get(60).point();
        Obstacle mast = new Obstacle(
                "mast", Obstacle.Kind.MAST, List.of(bare.block().plane().toLonLat(at)), 200, 2);
        BlockPlan over = plan(
                (x, y) -> 500, HeightChoice.USUAL, Pins.ofHeight(60), List.of(mast), List.of(), OptionalDouble.empty());
        assertThat(over.heights().orElseThrow().highestM()).isCloseTo(720, Offset.offset(0.1));
    }

    @Test
    void theWholeProofHoldsEveryLayerOverTheBlock() {
        DoubleBinaryOperator hill = (x, y) -> 200 + 30 * Math.exp(-(x * x + y * y) / 8000);
        BlockPlan plan = plan(hill, HeightChoice.USUAL, Pins.ofGsd(2));
        GroundProof proof = PlanProof.of(plan, 4).whole(Positioning.PPK, share -> true);
        int middle = proof.index(proof.columns() / 2, proof.rows() / 2);
        assertThat(proof.counts()[middle]).isGreaterThan((short) 8);
        assertThat(proof.stripCounts()[middle]).isGreaterThan((short) 1);
        assertThat(proof.gsdBestM()[middle]).isCloseTo(0.02f, Offset.offset(0.004f));
        assertThat(proof.sigmaVerticalM()[middle]).isBetween(0.01f, 0.1f);
        assertThat(proof.anglesRad()[middle]).isBetween(0.5f, 1.6f);
        PlaneBlock block = plan.block();
        assertThat(block.contains(proof.x(proof.columns() / 2), proof.y(proof.rows() / 2)))
                .isTrue();
        assertThat(proof.inside(0, 0)).isFalse();
    }

    /** A step of 2 m evened out over 40 m rises from 20 m before it to 20 m behind it: a quarter of it 10 m before. */
    @Test
    void smoothingIsTheWindowsLength() {
        Pins across = Pins.ofHeight(60).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE));
        HeightChoice smoothed = new HeightChoice(HeightReference.FOLLOW, DesignPlane.BOTH, 20, 40);
        BlockPlan plan = plan((x, y) -> x > 0 ? 302 : 300, smoothed, across);
        Line line = plan.flight().line(3);
        for (double before : new double[] {-30, -10, 0, 10, 30}) {
            double along = Math.abs(before - line.from().xM());
            double share = Math.max(0, Math.min(1, (before + 20) / 40));
            assertThat(line.upAt(along))
                    .as("%.0f m from the step", before)
                    .isCloseTo(360 + 2 * share, Offset.offset(0.15));
        }
    }

    /** Wings fly arcs between lines; their sections lie on the arcs, and the path has no step where pieces meet. */
    @Test
    void theArcsOfAWingAreLaidOverTheGroundToo() {
        PlanRequest usual = Samples.request(SQUARE, Pins.ofHeight(90));
        PlanRequest request = new PlanRequest(
                Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()),
                usual.pins(),
                usual.outline(),
                Optional.of(Samples.at(-250, 100)),
                usual.epsg());
        BlockPlan plan = request.over(new GroundRequest(
                        source((x, y) -> 200 + 0.15 * x + 10 * Math.sin(y / 40)),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan();
        List<Way> ways = plan.flight().ways();
        assertThat(ways).hasAtLeastOneElementOfType(Arc.class);
        for (int i = 1; i < ways.size(); i++) {
            boolean arcToArc = !(ways.get(i) instanceof Line) && !(ways.get(i - 1) instanceof Line);
            if (arcToArc) {
                assertThat(ways.get(i).start().upM())
                        .isCloseTo(ways.get(i - 1).end().upM(), Offset.offset(1e-6));
            }
        }
        assertThat(plan.heights().orElseThrow().sections()).hasSameSizeAs(ways);
        assertThat(plan.heights().orElseThrow().nearestSection().clearanceM()).isGreaterThan(19.9);
    }
}

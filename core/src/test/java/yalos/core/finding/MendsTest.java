package yalos.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.brief.Brief;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightChoice;
import yalos.core.height.HeightReference;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Judgement;
import yalos.core.site.Obstacle;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Remedies are tried before they are offered, and do what they say. */
class MendsTest {
    /** Rises 45 m on each 100 m to the east and falls again: steeper than the aircraft sinks at 10 m/s. */
    private static final DoubleBinaryOperator RIDGE = (x, y) -> 300 - 0.45 * Math.abs(x);

    private static BlockPlan over(DoubleBinaryOperator ground, HeightChoice choice, Pins pins) {
        return Samples.request(Samples.square(400), pins)
                .over(new GroundRequest(
                        FormulaGround.of(5, ground), choice, List.of(), List.of(), OptionalDouble.empty()))
                .plan();
    }

    private static Case judged(BlockPlan plan) {
        return Case.of(plan, Brief.EMPTY);
    }

    private static Optional<Finding> finding(Case one, String key) {
        return Findings.of(one, UnitChoice.METRIC).stream()
                .filter(finding -> finding.key().equals(key))
                .findFirst();
    }

    private static List<Mends.Mend> mends(Case one, Finding finding) {
        return Mends.of(one, Findings.of(one, UnitChoice.METRIC), finding, UnitChoice.METRIC);
    }

    private static Remedy.Pin pin(Remedy remedy) {
        return remedy.change() instanceof Remedy.Finer finer ? finer.pin() : (Remedy.Pin) remedy.change();
    }

    private static final Pins ALONG = Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
    private static final Pins ACROSS = Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(90, Unit.DEGREE));

    /** What coarse ground comes from is the climb limit, and what cures it is said to: each by its own plan. */
    @Test
    void steepGroundIsNotCalledLowAndEachMendDoesWhatItSays() {
        Case one = judged(over(RIDGE, HeightChoice.USUAL, ACROSS));
        Finding coarse = finding(one, "too-coarse").orElseThrow();
        assertThat(coarse.sentence()).contains("climbs and sinks too slowly").doesNotContain("low ground");
        List<Mends.Mend> mends = mends(one, coarse);
        assertThat(mends).isNotEmpty();
        for (Mends.Mend mend : mends) {
            Case after = judged(Trial.of(one.plan(), mend.remedy().change()).orElseThrow());
            assertThat(finding(after, "too-coarse").isEmpty())
                    .as(mend.remedy().label())
                    .isEqualTo(mend.cures());
            assertThat(after.judgement().share()).isCloseTo(mend.share(), Offset.offset(1e-9));
            assertThat(after.plan().flightTimeS() - one.plan().flightTimeS())
                    .isCloseTo(mend.minutes() * 60, Offset.offset(1e-6));
            assertThat(stops(after)).isSubsetOf(stops(one));
        }
    }

    /** A plane that falls to the west, flown along its contours: nothing climbs, so neither climb nor speed is to blame, and no speed mends it. */
    @Test
    void aSlopeFlownAlongItsContoursIsNotBlamedOnTheClimb() {
        Case one = judged(over((x, y) -> 300 + 0.6 * x, HeightChoice.USUAL, ALONG));
        Finding coarse = finding(one, "too-coarse").orElseThrow();
        assertThat(coarse.sentence()).contains("steep ground").doesNotContain("climbs and sinks too slowly");
        PlanRequest request = one.plan().request();
        double slowly = judged(request.with(request.pins().pinned(Quantity.SPEED, Measure.of(2, Unit.METRE_PER_SECOND)))
                        .plan())
                .judgement()
                .share();
        assertThat(slowly).as("slower").isCloseTo(one.judgement().share(), Offset.offset(0.01));
        List<Mends.Mend> mends = mends(one, coarse);
        assertThat(mends).isNotEmpty().allMatch(Mends.Mend::cures);
        assertThat(mends).extracting(mend -> pin(mend.remedy()).quantity()).containsOnly(Quantity.HEIGHT);
    }

    /** A GSD that is asked for by its pin alone is not forgotten by the remedy that brings the aircraft nearer: it would cure by asking for nothing. */
    @Test
    void aRemedyDoesNotForgetWhatIsAskedFor() {
        Case one = judged(over((x, y) -> 300 + 0.6 * x, HeightChoice.USUAL, ALONG));
        for (Mends.Mend mend : mends(one, finding(one, "too-coarse").orElseThrow())) {
            BlockPlan after = Trial.of(one.plan(), mend.remedy().change()).orElseThrow();
            assertThat(after.design().scale().gsdM()).isLessThan(0.02);
            assertThat(after.askedGsdM()).hasValue(0.02);
            assertThat(judged(after).judgement().coarsestM())
                    .isLessThanOrEqualTo(0.02 * Judgement.GSD_TOLERANCE * 1.05);
        }
    }

    /** A slope that rises 60 m on each 100 m to the east, flown from a place beside or on it. */
    private static Case onASlope(double east, double north) {
        PlanRequest usual = Samples.request(Samples.square(400), ACROSS);
        return judged(new PlanRequest(
                        usual.kit(), ACROSS, usual.outline(), Optional.of(Samples.at(east, north)), usual.epsg())
                .over(new GroundRequest(
                        FormulaGround.of(5, (x, y) -> 300 + 0.6 * x),
                        HeightChoice.USUAL,
                        List.of(),
                        List.of(),
                        OptionalDouble.empty()))
                .plan());
    }

    /** The way home from the top of a slope is far above its foot at any speed; that slower photos see the slope better is another matter. */
    @Test
    void whatIsTooHighIsNotHelpedByWhatShowsTheGroundBetter() {
        Case one = onASlope(-30, 0);
        Finding ceiling = finding(one, "ceiling").orElseThrow();
        List<Case> tried = ceiling.remedies().stream()
                .map(remedy -> judged(Trial.of(one.plan(), remedy.change()).orElseThrow()))
                .toList();
        assertThat(tried)
                .as("none cures")
                .allMatch(after -> finding(after, "ceiling").isPresent());
        assertThat(tried)
                .as("one shows the ground better")
                .anyMatch(after -> after.judgement().share() > one.judgement().share() + 0.01);
        assertThat(mends(one, ceiling)).isEmpty();
    }

    /** What stands 90 m high is not cleared below a ceiling of 60 m, however low and slowly the rest is flown; what stands 30 m high is. */
    @Test
    void whatStandsTooHighForTheCeilingIsNamed() {
        for (double height : List.of(90.0, 30.0)) {
            Obstacle mast = new Obstacle("grey mast", Obstacle.Kind.MAST, List.of(Samples.at(200, 200)), height, 1);
            Case one = judged(Samples.request(
                            Samples.square(400), Pins.ofGsd(1.4).with(Quantity.CEILING, Measure.of(60, Unit.METRE)))
                    .over(new GroundRequest(
                            FormulaGround.of(5, (x, y) -> 300 + 0.45 * Math.abs(x)),
                            HeightChoice.USUAL,
                            List.of(mast),
                            List.of(),
                            OptionalDouble.empty()))
                    .plan());
            Optional<Finding> ceiling = finding(one, "ceiling");
            assertThat(ceiling.isPresent()).as("%.0f m", height).isEqualTo(height == 90);
            ceiling.ifPresent(told -> {
                assertThat(told.sentence()).contains("raised over grey mast, 90.0 m high, to clear it by");
                assertThat(told.remedies()).as("in vain").isEmpty();
            });
        }
    }

    /** Below a cliff of 220 m lies ground that enough photos see from near: those from its top make it no coarser, and a lower flight cures the rest. */
    @Test
    void belowACliffAHeightCures() {
        Case one = judged(over((x, y) -> 300 + 0.45 * x + (x > 120 ? 220 : 0), HeightChoice.USUAL, ALONG));
        List<Mends.Mend> lower = mends(one, finding(one, "too-coarse").orElseThrow());
        assertThat(lower).hasSize(1);
        assertThat(lower.get(0).cures()).isTrue();
        assertThat(pin(lower.get(0).remedy()).value().si())
                .as("no nearer than the clearance of 20 m")
                .isGreaterThanOrEqualTo(20);
    }

    /** Waves of 60 m that no path follows: no height makes all of it fine enough, and what is worth its time is offered before what helps most. */
    @Test
    void whereNoHeightCuresTheCheaperHalfIsOfferedToo() {
        Case one = judged(over((x, y) -> 300 + 60 * Math.sin(x / 15), HeightChoice.USUAL, ACROSS));
        List<Mends.Mend> mends = mends(one, finding(one, "too-coarse").orElseThrow());
        List<Mends.Mend> lower = mends.stream()
                .filter(mend -> mend.remedy().change() instanceof Remedy.Finer)
                .toList();
        assertThat(lower).hasSize(2);
        Mends.Mend cheaper = lower.get(0);
        Mends.Mend most = lower.get(1);
        assertThat(cheaper.minutes()).isLessThan(most.minutes() / 2);
        double before = one.judgement().share();
        assertThat(cheaper.share() - before).isBetween((most.share() - before) / 2, most.share() - before);
        for (Mends.Mend mend : mends) {
            assertThat(mends)
                    .as("none gives more in less time than " + mend.remedy().label())
                    .noneMatch(other -> other.share() > mend.share() + 0.01 && other.minutes() <= mend.minutes());
        }
    }

    private static Case accurate(double gsdCm, double heightsCm, Positioning mode) {
        Pins pins = Pins.ofGsd(gsdCm)
                .with(Quantity.CEILING, Measure.of(500, Unit.METRE))
                .with(Quantity.HEIGHTS_TO, Measure.of(heightsCm, Unit.CENTIMETRE));
        Brief brief = Brief.EMPTY.with(mode);
        return Case.of(Samples.request(Samples.square(600), pins).with(mode).plan(), brief);
    }

    /** Satellites alone know a photo's height to 3 m (common practice): neither rays nor pixels are to blame, and neither is offered. */
    @Test
    void positionsThatAreNotKnownAreMendedByKnowingThem() {
        Case one = accurate(2, 5, Positioning.SINGLE);
        Finding finding = finding(one, "height-accuracy").orElseThrow();
        assertThat(finding.sentence())
                .contains("positions of the photos are not known")
                .doesNotContain("too few");
        List<Mends.Mend> mends = mends(one, finding);
        assertThat(mends).hasSizeGreaterThan(1).allMatch(Mends.Mend::cures);
        for (Mends.Mend mend : mends.subList(0, mends.size() - 1)) {
            Remedy.Known known = (Remedy.Known) mend.remedy().change();
            assertThat(known.finer()).as("positions alone do").isEmpty();
            assertThat(finding(accurate(2, 5, known.mode()), "height-accuracy")).isEmpty();
        }
        Remedy.Pin less = less(mends.get(mends.size() - 1));
        assertThat(less.value().si())
                .as("the last resort: what satellites alone give")
                .isCloseTo(3, Offset.offset(0.1));
    }

    private static Remedy.Pin less(Mends.Mend mend) {
        return ((Remedy.Less) mend.remedy().change()).pin();
    }

    /**
     * Neither positions nor pixels do it alone: with positions to 3 cm a GSD of 4 cm gives the root of 6² and 3², 6.7 cm (rule of thumb, common practice); 2.67 cm it must
     * be.
     */
    @Test
    void whatTakesTwoChangesIsOfferedAsOnePress() {
        Case one = accurate(4, 5, Positioning.SINGLE);
        List<Mends.Mend> mends = mends(one, finding(one, "height-accuracy").orElseThrow());
        Remedy.Known known = (Remedy.Known) mends.get(0).remedy().change();
        assertThat(mends.get(0).cures()).isTrue();
        assertThat(known.mode()).isEqualTo(Positioning.PPK);
        assertThat(known.finer().orElseThrow().pin())
                .as("75 m are 2.00 cm with this camera")
                .isEqualTo(new Remedy.Pin(Quantity.HEIGHT, Measure.of(100, Unit.METRE)));
        assertThat(mends.get(0).remedy().label()).isEqualTo("PPK from logged data, flown at 100.0 m, GSD 2.67 cm");
        assertThat(mends.get(1).remedy().label()).startsWith("Control points on the ground, flown at 100.0 m");
    }

    /** Three centimetres are what control points give at best: no pixel is small enough, and what is had is offered to be asked for. */
    @Test
    void whatNothingReachesIsAskedForAsWellAsItIsHad() {
        Case one = accurate(2, 3, Positioning.CONTROL);
        Finding finding = finding(one, "height-accuracy").orElseThrow();
        assertThat(finding.sentence())
                .contains("positions of the photos are not known")
                .doesNotContain("pixels");
        List<Mends.Mend> mends = mends(one, finding);
        assertThat(mends).hasSize(1);
        assertThat(mends.get(0).cures()).isTrue();
        assertThat(less(mends.get(0)).value().si())
                .as("the root of 3² and 3² by the rule of thumb, a tenth of the GSD allowed")
                .isBetween(0.040, 0.043);
    }

    /** By the rule of thumb, common practice: the root of 5² - 3² over 1.5 is 2.67 cm. */
    @Test
    void pixelsThatAreTooLargeAreMendedBySmallerOnes() {
        Case one = accurate(5, 5, Positioning.CONTROL);
        Finding finding = finding(one, "height-accuracy").orElseThrow();
        assertThat(finding.sentence()).contains("pixels too large");
        Mends.Mend mend = mends(one, finding).get(0);
        assertThat(mend.cures()).isTrue();
        Remedy.Pin pin = pin(mend.remedy());
        assertThat(pin.quantity()).isEqualTo(Quantity.HEIGHT);
        assertThat(pin.value().si() * 0.02 / 75).isBetween(0.026, 0.02667);
    }

    /** What positions forbid is not asked of the pixels, which would have to be none; what they can give still is. */
    @Test
    void pixelsMendWhatPixelsCan() {
        Pins pins = Pins.ofGsd(5)
                .with(Quantity.CEILING, Measure.of(500, Unit.METRE))
                .with(Quantity.HEIGHTS_TO, Measure.of(2, Unit.CENTIMETRE))
                .with(Quantity.POSITIONS_TO, Measure.of(3, Unit.CENTIMETRE));
        Case one = Case.of(
                Samples.request(Samples.square(600), pins)
                        .with(Positioning.CONTROL)
                        .plan(),
                Brief.EMPTY.with(Positioning.CONTROL));
        Finding off = finding(one, "position-accuracy").orElseThrow();
        assertThat(off.sentence()).contains("pixels too large");
        assertThat(off.remedies())
                .first()
                .extracting(remedy -> pin(remedy).value().si())
                // The root of 3² - 2² is 2.24 cm; 75 m are 2.00 cm with this camera.
                .satisfies(height -> assertThat((double) height * 0.02 / 75).isBetween(0.022, 0.02237));
    }

    private static List<String> stops(Case one) {
        return Findings.stops(Findings.of(one, UnitChoice.METRIC)).stream()
                .map(Finding::key)
                .toList();
    }

    /** Flown slower the same climb is steeper: half the speed follows a slope twice as steep. */
    @Test
    void slowerIsAmongTheRemediesOfSteepGround() {
        Case one = judged(over(RIDGE, HeightChoice.USUAL, ACROSS));
        Case slow = judged(
                over(RIDGE, HeightChoice.USUAL, ACROSS.with(Quantity.SPEED, Measure.of(3, Unit.METRE_PER_SECOND))));
        assertThat(slow.judgement().share()).isGreaterThan(one.judgement().share());
        assertThat(finding(one, "too-coarse").orElseThrow().remedies())
                .anyMatch(remedy -> remedy.change() instanceof Remedy.Pin pin && pin.quantity() == Quantity.SPEED);
    }

    /** A plane rising to the east: its contours run north. */
    @Test
    void stripsAlongTheContoursAreProposedSquareToTheSlope() {
        BlockPlan plan = over((x, y) -> 300 + 0.3 * x, HeightChoice.USUAL, ACROSS);
        Case one = judged(plan);
        List<Remedy> along = new Candidates(plan, one.judgement(), new Collected(UnitChoice.METRIC)).alongContours();
        assertThat(along).singleElement().satisfies(remedy -> {
            Remedy.Pin pin = (Remedy.Pin) remedy.change();
            assertThat(pin.value().figure() % 180).isCloseTo(0, Offset.offset(1.0));
        });
        assertThat(new Candidates(
                                over((x, y) -> 300, HeightChoice.USUAL, ACROSS),
                                one.judgement(),
                                new Collected(UnitChoice.METRIC))
                        .alongContours())
                .as("level ground has no contours")
                .isEmpty();
    }

    /** In a valley one side falls as the other rises, and the mean slope is nothing; along its bed strips climb less all the same. */
    @Test
    void stripsAlongAValleyAreProposed() {
        DoubleBinaryOperator valley = (x, y) -> 300 + 0.6 * Math.abs(x - 200);
        Case one = judged(over(valley, HeightChoice.USUAL, ACROSS));
        Measure along = finding(one, "too-coarse").orElseThrow().remedies().stream()
                .flatMap(remedy -> remedy.change() instanceof Remedy.Pin pin && pin.quantity() == Quantity.DIRECTION
                        ? Stream.of(pin.value())
                        : Stream.empty())
                .findFirst()
                .orElseThrow();
        assertThat(along.figure()).isZero();
        assertThat(judged(over(valley, HeightChoice.USUAL, ACROSS.with(Quantity.DIRECTION, along)))
                        .judgement()
                        .share())
                .isGreaterThan(one.judgement().share());
    }

    /** A press on a cost releases the scale, as typing it does; a trial that kept both would promise another plan. */
    @Test
    void aTrialReleasesWhatAPressReleases() {
        BlockPlan plan = Samples.request(Samples.square(400), Pins.ofGsd(2)).plan();
        Measure fewer = Measure.of(Math.floor(plan.photos() * 0.7), Unit.COUNT);
        BlockPlan tried = Trial.of(plan, new Remedy.Pin(Quantity.PHOTOS, fewer)).orElseThrow();
        Pins pressed = plan.request().pins().pinned(Quantity.PHOTOS, fewer);
        assertThat(pressed.has(Quantity.GSD)).isFalse();
        assertThat(tried.request().pins()).isEqualTo(pressed);
        assertThat(tried.solution().holds()).isTrue();
        BlockPlan back = Trial.of(tried, new Remedy.Unpin(Quantity.PHOTOS)).orElseThrow();
        assertThat(back.design().scale().gsdM()).isCloseTo(0.02, Offset.offset(1e-12));
        assertThat(Trial.of(plan, new Remedy.Unpin(Quantity.GSD)))
                .as("nothing else fixes the scale")
                .isEmpty();
    }

    /** A level flight over a hill is cured by following it. */
    @Test
    void aLevelFlightOverAHillIsMendedByFollowing() {
        HeightChoice level = new HeightChoice(HeightReference.TAKE_OFF, DesignPlane.BOTH, 20, 40);
        Case one = judged(over((x, y) -> 40 * Math.exp(-(x * x + y * y) / 9000), level, Pins.ofHeight(75)));
        Finding lost = finding(one, "overlap-over-relief").orElseThrow();
        assertThat(mends(one, lost))
                .anySatisfy(mend -> assertThat(mend.remedy().label()).isEqualTo("Follow the ground"));
    }

    /** A mend that flies over the ceiling is none. */
    @Test
    void nothingIsOfferedThatBringsANewStop() {
        Pins pins = Pins.ofGsd(3)
                .with(Quantity.PHOTOS, Measure.of(40, Unit.COUNT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT));
        Case one = judged(Samples.request(Samples.square(400), pins).plan());
        Finding conflict = finding(one, "pins-in-conflict").orElseThrow();
        assertThat(mends(one, conflict))
                .isNotEmpty()
                .noneMatch(mend -> mend.remedy().label().startsWith("GSD"));
    }

    /** The judged GSD is the brief's where it asks for one, otherwise the pinned one. */
    @Test
    void whatIsPinnedIsJudgedOnTheRealGround() {
        HeightChoice level = new HeightChoice(HeightReference.GEOID, DesignPlane.HIGHEST, 20, 0);
        DoubleBinaryOperator basin = (x, y) -> 200 + 0.2 * Math.abs(x);
        Case one = judged(over(basin, level, Pins.ofGsd(2)));
        assertThat(one.judgement().share(Adequacy.TOO_COARSE)).isGreaterThan(0.3);
        assertThat(one.judgement().share() + one.judgement().share(Adequacy.TOO_COARSE))
                .isLessThanOrEqualTo(1 + 1e-9);
        Case asked = judged(over(basin, level, Pins.ofGsd(2).with(Quantity.BRIEF_GSD, Measure.of(4, Unit.CENTIMETRE))));
        assertThat(asked.judgement().share(Adequacy.TOO_COARSE)).isZero();
        // the lowest ground lies 40 m below the highest: 75 m + 40 m of depth
        assertThat(one.judgement().coarsestM()).isCloseTo(0.02 * 115 / 75, Offset.offset(0.0015));
    }

    /** Ground at twice the asked GSD is of no use; a speck of it in a funnel's tip is something to mind, more of it stops the plan. */
    @Test
    void aSpeckThatIsFarTooCoarseDoesNotStopAPlan() {
        HeightChoice level = new HeightChoice(HeightReference.GEOID, DesignPlane.HIGHEST, 20, 0);
        for (double deepest : new double[] {78, 95}) {
            DoubleBinaryOperator funnel = (x, y) -> 300 - Math.max(0, deepest * (1 - Math.hypot(x, y) / 195));
            Case one = judged(over(funnel, level, Pins.ofGsd(2)));
            // by the pinhole: 75 m and as much again below the aircraft
            double radius = 195 * (1 - 75 / deepest);
            double share = Math.PI * radius * radius / (400 * 400);
            assertThat(one.judgement().coarsestM()).isGreaterThan(0.04);
            assertThat(one.judgement().shareCoarserThan(0.04)).isCloseTo(share, Offset.offset(0.003));
            assertThat(finding(one, "too-coarse").orElseThrow().level())
                    .isEqualTo(share < 0.002 ? Finding.Level.MIND : Finding.Level.STOP);
        }
    }

    private static Case wing(double side, Pins pins) {
        return judged(Samples.request(Samples.square(side), pins)
                .with(Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()))
                .plan());
    }

    /** A wing that blur would hold below the speed it needs to stay up is stopped; a shorter shutter mends it. */
    @Test
    void aWingIsNotFlownBelowItsSlowest() {
        Case one = wing(800, Pins.ofGsd(2));
        assertThat(one.plan().design().speedMps()).isLessThan(13);
        Finding slow = finding(one, "below-slowest").orElseThrow();
        assertThat(slow.level()).isEqualTo(Finding.Level.STOP);
        assertThat(mends(one, slow))
                .anySatisfy(mend -> assertThat(mend.remedy().label()).startsWith("Shutter 1/"));
    }

    /** At 1.1 cm both blur and the camera's shortest interval hold this wing below 13 m/s: neither remedy does it alone. */
    @Test
    void aWingThatTwoLimitsHoldIsMendedByBoth() {
        Case one = wing(800, Pins.ofGsd(1.1));
        Mends.Mend both = mends(one, finding(one, "below-slowest").orElseThrow()).stream()
                .filter(mend -> mend.remedy().change() instanceof Remedy.Several)
                .findFirst()
                .orElseThrow();
        assertThat(both.cures()).isTrue();
        assertThat(both.remedy().label()).matches("Shutter 1/\\d+ s and forward 7\\d %");
        List<Remedy.Pin> pins = ((Remedy.Several) both.remedy().change()).pins();
        assertThat(pins).hasSize(2);
        for (Remedy.Pin alone : pins) {
            assertThat(finding(judged(Trial.of(one.plan(), alone).orElseThrow()), "below-slowest"))
                    .as("%s alone", alone)
                    .isPresent();
        }
    }

    /** Three seconds between photos hold it at a walking pace; photos sooner, and as far apart as the camera then needs, let it fly. */
    @Test
    void aWingThatAnAskedIntervalHoldsTakesItsPhotosSooner() {
        Case one = wing(800, Pins.ofGsd(2).pinned(Quantity.INTERVAL, Measure.of(3, Unit.SECOND)));
        List<Mends.Mend> mends = mends(one, finding(one, "below-slowest").orElseThrow());
        assertThat(mends).isNotEmpty().allMatch(Mends.Mend::cures);
        assertThat(mends.get(0).remedy().label())
                .matches("Shutter 1/\\d+ s (and forward 7\\d % )?and photo every [01]\\.\\d\\d s");
    }

    /** No scale below the ceiling lets it fly fast enough, while the time it would take is kept: the time is in no conflict with anything. */
    @Test
    void whatIsTooSlowToFlyIsNoConflictOfItsTime() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.FLIGHT_TIME, Measure.of(60, Unit.MINUTE))
                .with(Quantity.CEILING, Measure.of(40, Unit.METRE));
        Case one = wing(200, pins);
        assertThat(one.plan().solution().holds()).isFalse();
        assertThat(finding(one, "below-slowest")).isPresent();
        assertThat(finding(one, "pins-in-conflict")).isEmpty();
    }

    /** Five minutes are too few whatever the speed; that it must fly faster is told first, and mended though the time still does not do. */
    @Test
    void aTimeThatDoesNotDoAnywayDoesNotForbidToFlyFaster() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.FLIGHT_TIME, Measure.of(5, Unit.MINUTE))
                .with(Quantity.CEILING, Measure.of(60, Unit.METRE));
        Case one = wing(900, pins);
        assertThat(finding(one, "pins-in-conflict")).isEmpty();
        Finding slow = finding(one, "below-slowest").orElseThrow();
        Mends.Mend faster = mends(one, slow).get(0);
        assertThat(faster.cures()).isTrue();
        assertThat(faster.remedy().label()).startsWith("Shutter");
        Case after = judged(Trial.of(one.plan(), faster.remedy().change()).orElseThrow());
        assertThat(finding(after, "pins-in-conflict")).as("told then").isPresent();
    }

    /** A scale that follows from a pinned cost is mended by letting that go, where the figure asked for would only fail the cost. */
    @Test
    void aCostThatKeepsTheScaleCoarseCanBeLetGo() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.PHOTOS, Measure.of(60, Unit.COUNT))
                .with(Quantity.BRIEF_GSD, Measure.of(2, Unit.CENTIMETRE));
        Case one = judged(Samples.request(Samples.square(400), pins).plan());
        Finding coarse = finding(one, "brief-gsd").orElseThrow();
        List<Mends.Mend> mends = mends(one, coarse);
        assertThat(mends)
                .anySatisfy(mend -> assertThat(mend.remedy().label()).isEqualTo("Let photos go"))
                .allMatch(Mends.Mend::cures);
    }

    /** Finer pixels are wanted for the sake of heights: they ask for no GSD that nobody asked for, which would be a question of its own. */
    @Test
    void aRemedyAsksForNothingNew() {
        Pins pins = Pins.ofHeight(200)
                .with(Quantity.CEILING, Measure.of(500, Unit.METRE))
                .with(Quantity.HEIGHTS_TO, Measure.of(5, Unit.CENTIMETRE));
        Case one = Case.of(
                Samples.request(Samples.square(600), pins)
                        .with(Positioning.CONTROL)
                        .plan(),
                Brief.EMPTY.with(Positioning.CONTROL));
        for (Remedy remedy : finding(one, "height-accuracy").orElseThrow().remedies()) {
            assertThat(Trial.of(one.plan(), remedy.change()).orElseThrow().askedGsdM())
                    .as(remedy.label())
                    .isEmpty();
        }
    }

    /** Ground that fails by something else besides is none the less helped: satellites alone give no heights to 8 cm anywhere, and still the foot of a cliff is too coarse. */
    @Test
    void whatHelpsIsSeenWhereEverythingFailsByMore() {
        Pins pins = ACROSS.with(Quantity.HEIGHTS_TO, Measure.of(8, Unit.CENTIMETRE))
                .with(Quantity.CEILING, Measure.of(1000, Unit.METRE));
        PlanRequest request = Samples.request(Samples.square(400), pins)
                .over(new GroundRequest(
                        FormulaGround.of(5, RIDGE), HeightChoice.USUAL, List.of(), List.of(), OptionalDouble.empty()))
                .with(Positioning.SINGLE);
        Case one = Case.of(request.plan(), Brief.EMPTY.with(Positioning.SINGLE));
        assertThat(one.judgement().share()).isZero();
        List<Mends.Mend> mends = mends(one, finding(one, "too-coarse").orElseThrow());
        assertThat(mends).isNotEmpty().allMatch(mend -> mend.won() > 0.01);
    }

    private static Mends.Mend helping(String label, double won, double minutes) {
        return new Mends.Mend(
                new Remedy(label, Quantity.HEIGHT, Measure.of(won, Unit.METRE)),
                false,
                won,
                won,
                600,
                600 + 60 * minutes,
                0);
    }

    private static List<String> best(Mends.Mend... mends) {
        return Mends.best(List.of(mends)).stream()
                .map(mend -> mend.remedy().label())
                .toList();
    }

    @Test
    void askingForLessHidesNothingThatHelps() {
        Remedy.Pin heights = new Remedy.Pin(Quantity.HEIGHTS_TO, Measure.of(6, Unit.CENTIMETRE));
        Mends.Mend less = new Mends.Mend(new Remedy("less", new Remedy.Less(heights)), true, 1, 1, 600, 600, 0);
        Mends.Mend cure = new Mends.Mend(
                new Remedy("cure", Quantity.SPEED, Measure.of(5, Unit.METRE_PER_SECOND)), true, 1, 1, 600, 900, 0);
        assertThat(best(less, helping("helps", 0.3, 10))).containsExactly("helps", "less");
        assertThat(best(less, less, helping("helps", 0.3, 10), cure)).containsExactly("cure", "less");
    }

    @Test
    void ofWhatHelpsTheCheaperHalfComesFirstAndNothingTwice() {
        assertThat(best(helping("half", 0.2, 3), helping("most", 0.3, 10))).containsExactly("half", "most");
        assertThat(best(helping("less than half", 0.1, 3), helping("most", 0.3, 10)))
                .containsExactly("most");
        assertThat(best(helping("saves time", 0.3, -2))).containsExactly("saves time");
        assertThat(best(helping("outdone", 0.2, 3), helping("quicker and better", 0.3, -2)))
                .containsExactly("quicker and better");
    }

    /** Asked to fly at 9 m/s where blur allows 10, and needing 13 to stay up: what is asked is the second limit. */
    @Test
    void aWingThatIsAskedToFlyTooSlowlyIsAskedForMore() {
        Case one = wing(800, Pins.ofGsd(2).with(Quantity.SPEED, Measure.of(9, Unit.METRE_PER_SECOND)));
        assertThat(mends(one, finding(one, "below-slowest").orElseThrow()))
                .filteredOn(mend -> mend.remedy().change() instanceof Remedy.Several)
                .hasSize(1)
                .allSatisfy(mend -> {
                    assertThat(mend.cures()).isTrue();
                    assertThat(mend.remedy().label()).matches("Shutter 1/\\d+ s and speed 1[34]\\.\\d m/s");
                });
    }

    /** Ten minutes and sixty photos are both too few for what is pinned: neither is the way out alone, both are. */
    @Test
    void costsThatAreAllTooSmallAreRaisedTogether() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(80, Unit.PERCENT))
                .with(Quantity.PHOTOS, Measure.of(60, Unit.COUNT))
                .with(Quantity.FLIGHT_TIME, Measure.of(4, Unit.MINUTE));
        Case one = judged(Samples.request(Samples.square(400), pins).plan());
        List<Mends.Mend> mends = mends(one, finding(one, "pins-in-conflict").orElseThrow());
        Mends.Mend both = mends.stream()
                .filter(mend -> mend.remedy().change() instanceof Remedy.Several)
                .findFirst()
                .orElseThrow();
        assertThat(both.cures()).isTrue();
        assertThat(both.remedy().label()).matches("Photos \\d+, Flight time \\d+ min");
        for (Remedy.Pin alone : ((Remedy.Several) both.remedy().change()).pins()) {
            assertThat(finding(judged(Trial.of(one.plan(), alone).orElseThrow()), "pins-in-conflict"))
                    .as("%s alone", alone)
                    .isPresent();
        }
    }

    /** Positions fail first and heights behind them: known better, heights alone are left to fail, and they did before. */
    @Test
    void whatFailedBehindSomethingElseIsNoNewStop() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.HEIGHTS_TO, Measure.of(3, Unit.CENTIMETRE))
                .with(Quantity.POSITIONS_TO, Measure.of(10, Unit.CENTIMETRE));
        Case one = Case.of(
                Samples.request(Samples.square(600), pins)
                        .with(Positioning.SINGLE)
                        .plan(),
                Brief.EMPTY.with(Positioning.SINGLE));
        assertThat(finding(one, "height-accuracy")).isEmpty();
        List<Mends.Mend> mends = mends(one, finding(one, "position-accuracy").orElseThrow());
        assertThat(mends).anySatisfy(mend -> {
            assertThat(mend.remedy().label()).isEqualTo("Control points on the ground");
            assertThat(mend.cures()).isTrue();
        });
    }

    /** From the foot of a slope the way home from its top lies far above it, and no setting of the flight changes that: where to launch is said. */
    @Test
    void aLaunchPointAtTheFootOfASlopeIsSaidToBeLow() {
        for (double east : List.of(-30.0, 400.0)) {
            Case one = onASlope(east, 200);
            assertThat(finding(one, "ceiling").map(Finding::sentence).orElse(""))
                    .as("launched %.0f m east", east)
                    .matches(said -> said.contains("launch point higher up") == east < 0);
        }
    }
}

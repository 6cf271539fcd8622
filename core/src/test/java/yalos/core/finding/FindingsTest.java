package yalos.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.FormulaGround;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.brief.Brief;
import yalos.core.brief.Crop;
import yalos.core.brief.Day;
import yalos.core.brief.Priority;
import yalos.core.brief.Purpose;
import yalos.core.brief.Site;
import yalos.core.brief.Surface;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.finding.Finding.Level;
import yalos.core.height.HeightChoice;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Battery;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/**
 * Each rule on both sides of its bound. The camera has 20 megapixels on 17.3 mm behind 12.29 mm, so that 2 cm are 75.02 m up;
 * the other figures are worked out by hand beside their case.
 */
class FindingsTest {
    private static final Aircraft AIRCRAFT = Aircraft.smallMultirotor();
    private static final Outline BLOCK = Samples.square(300);

    private static Case of(BlockPlan plan, Brief brief) {
        return Case.of(plan, brief);
    }

    private static Optional<Finding> find(Case one, String key) {
        return Findings.of(one, UnitChoice.METRIC).stream()
                .filter(f -> f.key().equals(key))
                .findFirst();
    }

    private static Optional<Finding> find(Kit kit, Pins pins, String key) {
        return find(of(Samples.request(BLOCK, pins).with(kit).plan(), Brief.EMPTY), key);
    }

    private static Optional<Finding> find(Pins pins, String key) {
        return find(Kit.of(AIRCRAFT, Samples.twentyMegapixel()), pins, key);
    }

    /** What a remedy of a pin sets, in SI. */
    private static double remedy(Finding finding) {
        return ((Remedy.Pin) finding.remedies().get(0).change()).value().si();
    }

    private static Camera camera(Shutter shutter, Camera.Storage storage, double interval) {
        return new Camera(
                "test",
                Sensor.ofMillimetres(5280, 3956, 17.3, 13.0),
                12.29e-3,
                shutter,
                interval,
                Mount.WIDTH_ACROSS,
                storage);
    }

    private static final Camera.Storage ROOMY = Camera.Storage.of(10, 100, 10_000);

    @ParameterizedTest
    @CsvSource({"120.0, false, 0", "132.0, true, 10"})
    void aPlanOverTheCeilingStops(double height, boolean said, String percent) {
        Pins pins = Pins.ofHeight(height).with(Quantity.CEILING, Measure.of(120, Unit.METRE));
        Optional<Finding> finding = find(pins, "ceiling");
        assertThat(finding.isPresent()).isEqualTo(said);
        finding.ifPresent(f -> {
            assertThat(f.level()).isEqualTo(Level.STOP);
            assertThat(f.sentence())
                    .contains("132.0 m")
                    .contains(percent + " %")
                    .contains("local rules");
            assertThat(remedy(f)).isCloseTo(120, Offset.offset(1e-9));
        });
    }

    /** Blur in pixels is v t / GSD: 15 m/s in 1/1000, 1/500 and 1/250 s at 2 cm are 0.75, 1.5 and 3 pixels. */
    @ParameterizedTest
    @CsvSource({"1000, , 0", "500, MIND, 750", "250, STOP, 750"})
    void blurIsSaidAboveOnePixelAndStopsAboveTwo(double perSecond, Level level, double mended) {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.BLUR, Measure.of(20, Unit.PIXEL))
                .with(Quantity.SPEED, Measure.of(15, Unit.METRE_PER_SECOND))
                .with(Quantity.SHUTTER_TIME, Measure.of(1 / perSecond, Unit.SECOND));
        Optional<Finding> finding = find(pins, "blur");
        assertThat(finding.map(Finding::level)).isEqualTo(Optional.ofNullable(level));
        finding.ifPresent(f -> assertThat(1 / remedy(f)).isCloseTo(mended, Offset.offset(1e-6)));
    }

    /** A rolling shutter of 30 ms at 1.33 m/s: 4 cm, two pixels of 2 cm. One pixel is left at 0.66 m/s. */
    @Test
    void aRollingShutterSkews() {
        Kit rolling = Kit.of(AIRCRAFT, camera(Shutter.rolling(0.03), ROOMY, 0.7));
        Finding finding = find(rolling, Pins.ofGsd(2), "rolling-shutter").orElseThrow();
        assertThat(finding.sentence()).contains("2.0 pixels").contains("1.3 m/s");
        assertThat(remedy(finding)).isCloseTo(0.6, Offset.offset(1e-9));
        assertThat(find(Kit.of(AIRCRAFT, camera(Shutter.global(), ROOMY, 0.7)), Pins.ofGsd(2), "rolling-shutter"))
                .isEmpty();
    }

    /** South of the south-western corner; the grid's scale is within 0.04 % of one here. */
    @ParameterizedTest
    @CsvSource({"-499, false", "-510, true"})
    void aFarLaunchPointIsSaid(double north, boolean said) {
        PlanRequest usual = Samples.request(BLOCK, Pins.ofGsd(2));
        PlanRequest request = new PlanRequest(
                usual.kit(), usual.pins(), BLOCK, Optional.of(Samples.at(0, north)), OptionalInt.of(32630));
        Optional<Finding> finding = find(of(request.plan(), Brief.EMPTY), "launch-far");
        assertThat(finding.isPresent()).isEqualTo(said);
        finding.ifPresent(f -> assertThat(f.sentence()).contains("510"));
    }

    /** Before the middle of a side of 2.4 km, more than a kilometre from every corner. */
    @ParameterizedTest
    @CsvSource({"-100, false", "-510, true", "1200, false"})
    void theEdgeOfTheBlockCountsNotItsCorners(double north, boolean said) {
        Outline large = Samples.square(2400);
        PlanRequest usual = Samples.request(large, Pins.ofGsd(5));
        PlanRequest request = new PlanRequest(
                usual.kit(), usual.pins(), large, Optional.of(Samples.at(1200, north)), OptionalInt.of(32630));
        assertThat(find(of(request.plan(), Brief.EMPTY), "launch-far").isPresent())
                .isEqualTo(said);
    }

    /**
     * In the neighbouring zone but one the grid stretches: 13.35° from its meridian at 54.5° north the scale is near
     * 0.9996 (1 + (0.2330 cos 54.5°)² / 2) = 1.0088 (series of the transverse Mercator, first term).
     */
    @Test
    void aGridFarFromItsMeridianIsSaid() {
        PlanRequest usual = Samples.request(BLOCK, Pins.ofGsd(2));
        PlanRequest far = new PlanRequest(usual.kit(), usual.pins(), BLOCK, Optional.empty(), OptionalInt.of(32632));
        assertThat(find(of(far.plan(), Brief.EMPTY), "grid-scale").orElseThrow().sentence())
                .containsPattern("1\\.008\\d");
        assertThat(find(Pins.ofGsd(2), "grid-scale")).isEmpty();
    }

    /** The small multirotor's limit is 10 m/s. */
    @ParameterizedTest
    @CsvSource({"10.0, false", "10.1, true"})
    void windOverTheLimitStops(double wind, boolean stops) {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.WIND, Measure.of(wind, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(0, Unit.DEGREE));
        assertThat(find(pins, "wind-limit").isPresent()).isEqualTo(stops);
        find(pins, "wind-limit")
                .ifPresent(f -> assertThat(f.sentence()).contains("10.1 m/s").contains("Do not fly"));
        assertThat(find(pins, "wind").isPresent()).isEqualTo(!stops);
    }

    /**
     * Wind square to the strips at 10 m/s: the crab angle is atan(5 / 10) = 27°, the ground speed
     * being held.
     */
    @Test
    void theCrabAngleIsThatOfTheTriangle() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE))
                .with(Quantity.WIND, Measure.of(5, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(90, Unit.DEGREE));
        assertThat(find(pins, "wind").orElseThrow().sentence())
                .contains("crabbing up to 27°")
                .contains("Release by distance");
    }

    /** Slower through the air than the wind a wing holds no track; flown quicker it does, and no remedy is slower than it can fly. */
    @Test
    void aTrackThatTheWindForbidsIsFlownQuicker() {
        Aircraft wing = Aircraft.smallWing();
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.SPEED, Measure.of(8, Unit.METRE_PER_SECOND))
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE))
                .with(Quantity.WIND, Measure.of(9, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(90, Unit.DEGREE));
        Finding track = find(Kit.of(wing, Samples.twentyMegapixel()), pins, "wind-track")
                .orElseThrow();
        assertThat(track.sentence()).contains("9.0 m/s").contains("at 8.0 m/s");
        List<Double> speeds = track.remedies().stream()
                .map(remedy -> (Remedy.Pin) remedy.change())
                .filter(pin -> pin.quantity() == Quantity.SPEED)
                .map(pin -> pin.value().si())
                .toList();
        assertThat(speeds).isNotEmpty().allMatch(speed -> speed >= wing.slowestMps() && speed <= wing.maxSpeedMps());
        Pins quicker = pins.with(Quantity.SPEED, Measure.of(speeds.get(0), Unit.METRE_PER_SECOND));
        assertThat(find(Kit.of(wing, Samples.twentyMegapixel()), quicker, "wind-track"))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"1.9, true", "2.0, false"})
    void slowFlightIsSaid(double speed, boolean said) {
        Pins pins = Pins.ofGsd(2).with(Quantity.SPEED, Measure.of(speed, Unit.METRE_PER_SECOND));
        assertThat(find(pins, "slow").isPresent()).isEqualTo(said);
    }

    @Test
    void headsBelowTheirLeastHeightAndOfDifferentIntervals() {
        Payload heads = new Payload(
                List.of(
                        new Head("red", camera(Shutter.global(), ROOMY, 0.7), 1, 100),
                        new Head("near infrared", camera(Shutter.global(), ROOMY, 1.5), 1, 0)),
                Optional.empty());
        Kit kit = new Kit("two heads", AIRCRAFT, heads, Kit.Service.UNKNOWN);
        Finding low = find(kit, Pins.ofHeight(99), "least-height").orElseThrow();
        assertThat(remedy(low)).isCloseTo(100, Offset.offset(1e-9));
        assertThat(find(kit, Pins.ofHeight(100), "least-height")).isEmpty();
        assertThat(find(kit, Pins.ofHeight(100), "head-intervals").orElseThrow().sentence())
                .contains("1.5");
    }

    /** At 70° the edge of the swath is H / cos 35° away: 91.6 m from 75 m up. A reach of 80 m allows 65.5 m. */
    @ParameterizedTest
    @CsvSource({"80, true", "92, false"})
    void theScannersReachHoldsTheHeight(double reach, boolean stops) {
        Kit kit = new Kit(
                "lidar",
                AIRCRAFT,
                new Payload(
                        List.of(Head.of(Samples.twentyMegapixel())),
                        Optional.of(new Scanner("light scanner", Math.toRadians(70), 240_000, 0.5, reach))),
                Kit.Service.UNKNOWN);
        Optional<Finding> finding = find(kit, Pins.ofHeight(75), "scanner-range");
        assertThat(finding.isPresent()).isEqualTo(stops);
        finding.ifPresent(f -> {
            assertThat(f.sentence()).contains("91.6 m").contains("80.0 m");
            assertThat(remedy(f)).isCloseTo(65, Offset.offset(1e-9));
        });
    }

    /** A photo every 1.58 s at 2 cm, 80 % and 10 m/s (15.82 m / 10 m/s). */
    @ParameterizedTest
    @CsvSource({"1.5, false", "2.0, true"})
    void rawFilesThatTakeLongerThanTheIntervalAreSaid(double raw, boolean said) {
        Kit kit = Kit.of(AIRCRAFT, camera(Shutter.mechanical(), ROOMY.withRawInterval(raw), 0.7));
        Optional<Finding> finding = find(kit, Pins.ofGsd(2), "raw-interval");
        assertThat(finding.isPresent()).isEqualTo(said);
        finding.ifPresent(f -> {
            assertThat(f.sentence()).contains("2.00 s").contains("1.58 s");
            assertThat(remedy(f)).isCloseTo(2, Offset.offset(1e-9));
        });
    }

    @Test
    void moreSetsThanAreCarriedAndALaunchPointOutOfReach() {
        Battery one = new Battery(30, Optional.empty(), 1, 0.25, 1, Optional.empty());
        PlanRequest large = Samples.request(Samples.square(1200), Pins.ofGsd(2))
                .with(Kit.of(AIRCRAFT.with(one), Samples.twentyMegapixel()));
        BlockPlan plan = large.plan();
        Finding carried = find(of(plan, Brief.EMPTY), "batteries").orElseThrow();
        assertThat(carried.sentence()).contains("takes " + plan.batterySets()).contains("; 1 is carried");
        assertThat(plan.batterySets()).isGreaterThan(1);
        // 22.5 usable minutes at 15 m/s reach 10 km out and home: 15 km away no set does
        PlanRequest far = new PlanRequest(
                large.kit(), large.pins(), large.outline(), Optional.of(Samples.at(0, -15_000)), large.epsg());
        assertThat(find(of(far.plan(), Brief.EMPTY), "battery-reach").map(Finding::level))
                .contains(Level.STOP);
    }

    private static Brief brief(
            Purpose purpose, OptionalDouble horizontal, OptionalDouble vertical, Positioning positioning, Day day) {
        return new Brief(
                Optional.of(purpose),
                "",
                OptionalDouble.empty(),
                horizontal,
                vertical,
                Surface.GENERAL,
                Priority.DETAIL,
                positioning,
                "",
                "",
                Optional.empty(),
                Site.PLAIN,
                Crop.NONE,
                day,
                Map.of());
    }

    /** Travel and set-up alone take the hour that is planned in the second case. */
    @ParameterizedTest
    @CsvSource({"480, false", "60, true"})
    void aDayThatIsTooShortIsSaid(double minutes, boolean said) {
        Brief brief = brief(
                Purpose.ORTHOPHOTO,
                OptionalDouble.empty(),
                OptionalDouble.empty(),
                Positioning.SINGLE,
                new Day(30, 30, 0, 8, minutes));
        Optional<Finding> finding =
                find(of(Samples.request(BLOCK, Pins.ofGsd(2)).plan(), brief), "day-too-long");
        assertThat(finding.isPresent()).isEqualTo(said);
        finding.ifPresent(f -> assertThat(f.sentence()).contains("1 h 00 min are planned"));
    }

    @Test
    void positionsThatTheAircraftDoesNotOfferAreSaid() {
        Brief ppk =
                brief(Purpose.ORTHOPHOTO, OptionalDouble.empty(), OptionalDouble.empty(), Positioning.PPK, Day.USUAL);
        Aircraft plain = new Aircraft(
                "plain",
                AIRCRAFT.kind(),
                15,
                15,
                15,
                0,
                2.5,
                1.5,
                Math.toRadians(30),
                4,
                3,
                10,
                "",
                Positioning.SINGLE,
                AIRCRAFT.battery());
        PlanRequest request = Samples.request(BLOCK, Pins.ofGsd(2));
        assertThat(find(of(request.plan(), ppk), "positioning-missing")).isEmpty();
        BlockPlan lesser =
                request.with(Kit.of(plain, Samples.twentyMegapixel())).plan();
        assertThat(find(of(lesser, ppk), "positioning-missing").orElseThrow().sentence())
                .contains("1.50 cm")
                .contains("1.5 m");
    }

    @ParameterizedTest
    @CsvSource({"0.05, true", "0.06, false"})
    void severalHeadsSeldomReachSurveyGrade(double accuracy, boolean said) {
        Payload heads = new Payload(
                List.of(Head.of(Samples.twentyMegapixel()), Head.of(Samples.twentyMegapixel())), Optional.empty());
        BlockPlan plan = Samples.request(BLOCK, Pins.ofGsd(2))
                .with(new Kit("two", AIRCRAFT, heads, Kit.Service.UNKNOWN))
                .plan();
        Brief brief = brief(
                Purpose.ORTHOPHOTO, OptionalDouble.of(accuracy), OptionalDouble.empty(), Positioning.SINGLE, Day.USUAL);
        assertThat(find(of(plan, brief), "calibration").isPresent()).isEqualTo(said);
    }

    /** At 10 m/s the remedy is 5 m/s; a pinned speed was decided already. */
    @Test
    void halfTheSpeedIsCheapOnASmallBlock() {
        Brief fine = brief(
                Purpose.ORTHOPHOTO, OptionalDouble.empty(), OptionalDouble.of(0.05), Positioning.SINGLE, Day.USUAL);
        Finding finding = find(of(Samples.request(BLOCK, Pins.ofGsd(2)).plan(), fine), "half-speed")
                .orElseThrow();
        assertThat(remedy(finding)).isCloseTo(5, Offset.offset(0.051));
        Pins pinned = Pins.ofGsd(2).with(Quantity.SPEED, Measure.of(10, Unit.METRE_PER_SECOND));
        assertThat(find(of(Samples.request(BLOCK, pinned).plan(), fine), "half-speed"))
                .isEmpty();
    }

    @Test
    void lidarNeedsAScanner() {
        Brief lidar =
                brief(Purpose.LIDAR, OptionalDouble.empty(), OptionalDouble.empty(), Positioning.SINGLE, Day.USUAL);
        assertThat(find(of(Samples.request(BLOCK, Pins.ofGsd(2)).plan(), lidar), "no-scanner"))
                .isPresent();
    }

    private interface Height {
        double at(double x, double y);
    }

    private static BlockPlan over(Height ground, OptionalDouble measured) {
        return over(ground, measured, Pins.ofHeight(75));
    }

    private static BlockPlan over(Height ground, OptionalDouble measured, Pins pins) {
        GroundRequest.Source source = FormulaGround.of(5, ground::at);
        return Samples.request(BLOCK, pins)
                .over(new GroundRequest(source, HeightChoice.USUAL, List.of(), List.of(), measured))
                .plan();
    }

    @ParameterizedTest
    @CsvSource({"105.0, false", "105.5, true", "94.0, true"})
    void aTakeOffMeasuredElsewhereThanTheModelSaysStops(double measured, boolean stops) {
        BlockPlan plan = over((x, y) -> 100, OptionalDouble.of(measured));
        Optional<Finding> finding = find(of(plan, Brief.EMPTY), "take-off-level");
        assertThat(finding.isPresent()).isEqualTo(stops);
        finding.ifPresent(f -> assertThat(f.sentence())
                .contains("%.1f m apart".formatted(Math.abs(measured - 100)))
                .contains("height system"));
    }

    /**
     * A wall 8 m high and 10 m wide between two strips, 75 m below them: no photo stands over it, and of 70 % side overlap there are
     * 1 − 0.3 · 75 / 67 = 66.4 % left on it.
     */
    @Test
    void aPinnedOverlapLostBetweenStripsIsSaid() {
        Pins pins = Pins.ofHeight(75)
                .with(Quantity.SIDE_OVERLAP, Measure.of(70, Unit.PERCENT))
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
        BlockPlan level = over((x, y) -> 100, OptionalDouble.empty(), pins);
        double[] across = level.flight().lines().stream()
                .mapToDouble(line -> line.from().xM())
                .sorted()
                .toArray();
        double wall = (across[across.length / 2 - 1] + across[across.length / 2]) / 2;
        Height walled = (x, y) -> Math.abs(x - wall) < 5 ? 108 : 100;
        Case one = of(over(walled, OptionalDouble.empty(), pins), Brief.EMPTY);
        Finding lost = find(one, "overlap-lost").orElseThrow();
        assertThat(lost.level()).isEqualTo(Level.MIND);
        assertThat(find(one, "overlap-over-relief"))
                .as("no photo stands over the wall")
                .isEmpty();
        Pins free = Pins.ofHeight(75).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
        assertThat(find(of(over(walled, OptionalDouble.empty(), free), Brief.EMPTY), "overlap-lost"))
                .as("nothing is pinned")
                .isEmpty();
    }

    @Test
    void heightsThatCountFromTheFirstPhotoAreSaid() {
        PlanRequest request = over((x, y) -> 100, OptionalDouble.empty()).request();
        assertThat(find(of(request.plan(), Brief.EMPTY), "no-launch")).isPresent();
        PlanRequest launched = new PlanRequest(
                        request.kit(), request.pins(), BLOCK, Optional.of(Samples.at(0, 0)), OptionalInt.of(32630))
                .over(request.ground().orElseThrow());
        assertThat(find(of(launched.plan(), Brief.EMPTY), "no-launch")).isEmpty();
    }

    /** Where no model reaches the launch point nobody knows a return height, and none is told; a finding stops it. */
    @Test
    void noReturnHeightIsToldWithoutATakeOffLevel() {
        PlanRequest request = over((x, y) -> x < -140 && y < -140 ? Double.NaN : 100, OptionalDouble.empty())
                .request();
        BlockPlan plan = new PlanRequest(
                        request.kit(), request.pins(), BLOCK, Optional.of(Samples.at(2, 2)), OptionalInt.of(32630))
                .over(request.ground().orElseThrow())
                .plan();
        Case one = of(plan, Brief.EMPTY);
        assertThat(find(one, "take-off-unknown").orElseThrow().level()).isEqualTo(Level.STOP);
        assertThat(find(one, "return-height")).isEmpty();
        assertThat(plan.returnAboveTakeOffM()).isEmpty();
    }

    /** Of a pond of 20 by 20 cells of 5 m those count that are level with all neighbours: 18² · 25 m² = 8100 m². */
    @Test
    void aPondIsFoundByItsLevel() {
        Height pond = (x, y) -> Math.abs(x) < 50 && Math.abs(y) < 50 ? 90 : 100 + 0.05 * x;
        Finding water = find(of(over(pond, OptionalDouble.empty()), Brief.EMPTY), "water")
                .orElseThrow();
        assertThat(water.sentence()).containsPattern("0\\.81 ha|8,100 m²");
        assertThat(water.place()).isPresent();
        Height slope = (x, y) -> 100 + 0.05 * x;
        assertThat(find(of(over(slope, OptionalDouble.empty()), Brief.EMPTY), "water"))
                .isEmpty();
        assertThat(find(of(over((x, y) -> 100, OptionalDouble.empty()), Brief.EMPTY), "water"))
                .as("a model that is level everywhere is no lake")
                .isEmpty();
    }

    @Test
    void aHoleInTheModelStopsAndSaysHowMuch() {
        Height hole = (x, y) -> Math.abs(x) < 25 && Math.abs(y) < 25 ? Double.NaN : 100;
        Finding ends = find(of(over(hole, OptionalDouble.empty()), Brief.EMPTY), "model-ends")
                .orElseThrow();
        assertThat(ends.level()).isEqualTo(Level.STOP);
        // 50 m by 50 m of 300 m by 300 m are 2.8 %
        assertThat(ends.sentence()).contains("2.8 %").contains("not guessed");
    }

    /** The worst stands first, so that what can hurt is never below the fold. */
    @Test
    void theWorstStandsFirst() {
        Pins pins = Pins.ofHeight(132)
                .with(Quantity.CEILING, Measure.of(120, Unit.METRE))
                .with(Quantity.SIDE_OVERLAP, Measure.of(40, Unit.PERCENT));
        BlockPlan plan = Samples.request(BLOCK, pins).plan();
        List<Finding> findings = Findings.of(of(plan, Brief.EMPTY), UnitChoice.METRIC);
        assertThat(findings).extracting(Finding::level).isSorted();
        assertThat(findings.get(0).level()).isEqualTo(Level.STOP);
    }
}

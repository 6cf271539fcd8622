package yalos.core.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.Samples;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.ObliqueScale;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.ledger.CameraCard;
import yalos.core.pattern.CircleShots;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.SpeedLimit;
import yalos.core.trial.KitComparison;
import yalos.core.trial.WhatIf;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Kits on one block: heads, scanners, wings, and comparisons with the figures of the trade. */
class KitTest {
    private static Camera camera(int wide, int high, double widthMm, double heightMm, double focalMm, double interval) {
        return new Camera(
                "camera",
                Sensor.ofMillimetres(wide, high, widthMm, heightMm),
                focalMm / 1000,
                Shutter.mechanical(),
                interval,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 128, 10_000));
    }

    private static final Camera FOUR_THIRDS = camera(5280, 3956, 17.3, 13.0, 12.29, 0.7);

    private static BlockPlan plan(Kit kit, Pins pins) {
        return Samples.request(Samples.square(500), pins).with(kit).plan();
    }

    /** Trade figures (common practice): how many times as high a full-frame camera flies at the same GSD. */
    @ParameterizedTest
    @CsvSource({"35, 2.1", "24, 1.5"})
    void fullFrameFliesHigherByLensPixelsAndSensorTogether(double focalMm, double times) {
        Camera fullFrame = camera(8192, 5460, 35.9, 24.0, focalMm, 0.7);
        KitComparison.HeightRatio ratio = KitComparison.heightRatio(FOUR_THIRDS, fullFrame);
        assertThat(ratio.height()).isCloseTo(times, Offset.offset(0.05));
        List<KitComparison.Column> columns = KitComparison.of(
                plan(Kit.of(Aircraft.smallMultirotor(), FOUR_THIRDS), Pins.ofGsd(2)),
                List.of(Kit.of(Aircraft.smallMultirotor(), FOUR_THIRDS), Kit.of(Aircraft.smallMultirotor(), fullFrame)),
                KitComparison.Equal.GSD);
        double first = columns.get(0).plan().orElseThrow().design().scale().heightM();
        double second = columns.get(1).plan().orElseThrow().design().scale().heightM();
        assertThat(second / first).isCloseTo(ratio.height(), Offset.offset(1e-9));
    }

    /** Trade figure (common practice): 100 MP against 45 MP needs less than half the photos at equal GSD. */
    @Test
    void moreThanTwiceThePixelsHalveThePhotos() {
        Kit medium = Kit.of(Aircraft.smallMultirotor(), camera(11648, 8736, 43.8, 32.9, 35, 0.7));
        Kit full = Kit.of(Aircraft.smallMultirotor(), camera(8192, 5460, 35.9, 24.0, 35, 0.7));
        BlockPlan large =
                Samples.request(Samples.square(2000), Pins.ofGsd(1)).with(full).plan();
        List<KitComparison.Column> columns = KitComparison.of(large, List.of(full, medium), KitComparison.Equal.GSD);
        assertThat(columns.get(1).plan().orElseThrow().photos())
                .isLessThan(columns.get(0).plan().orElseThrow().photos() / 2);
    }

    @Test
    void atEqualHeightTheGsdDiffers() {
        Kit four = Kit.of(Aircraft.smallMultirotor(), FOUR_THIRDS);
        Kit full = Kit.of(Aircraft.smallMultirotor(), camera(8192, 5460, 35.9, 24.0, 35, 0.7));
        List<KitComparison.Column> columns =
                KitComparison.of(plan(four, Pins.ofHeight(80)), List.of(four, full), KitComparison.Equal.HEIGHT);
        assertThat(columns)
                .allSatisfy(column -> assertThat(
                                column.plan().orElseThrow().design().scale().heightM())
                        .isCloseTo(80, Offset.offset(1e-9)));
        assertThat(columns.get(1).plan().orElseThrow().design().scale().gsdM())
                .isLessThan(columns.get(0).plan().orElseThrow().design().scale().gsdM());
    }

    /** Lidar geometry (methods of the trade): swath 2 H tan(fov / 2), density pulse rate · usable / (v · swath). */
    @Test
    void aScannerSpacesTheStripsAndNoCameraHoldsItUp() {
        Scanner scanner = new Scanner("light scanner", Math.toRadians(70), 240_000, 0.5, 200);
        Camera slow = camera(5280, 3956, 17.3, 13.0, 12.29, 10);
        Kit kit = new Kit(
                "lidar",
                Aircraft.smallMultirotor(),
                new Payload(List.of(Head.of(slow)), Optional.of(scanner)),
                Kit.Service.UNKNOWN);
        BlockPlan plan = plan(kit, Pins.ofHeight(60));
        double swath = 2 * 60 * Math.tan(Math.toRadians(35));
        assertThat(plan.design().spacingM()).isCloseTo(swath * 0.7, Offset.offset(1e-9));
        assertThat(plan.design().speedMps()).isEqualTo(15);
        assertThat(plan.design().pointsPerM2(scanner)).isCloseTo(120_000 / (15 * swath), Offset.offset(1e-9));
        BlockPlan dense = plan(kit, Pins.ofHeight(60).with(Quantity.POINT_DENSITY, Measure.of(200, Unit.POINT_PER_M2)));
        assertThat(dense.design().binding().limit()).isEqualTo(SpeedLimit.POINT_DENSITY);
        assertThat(dense.design().pointsPerM2(scanner)).isCloseTo(200, Offset.offset(1e-9));
        assertThat(keys(plan(kit, Pins.ofHeight(180)))).contains("scanner-range");
    }

    private static List<String> keys(BlockPlan plan) {
        return Findings.of(plan, UnitChoice.METRIC).stream().map(Finding::key).toList();
    }

    @Test
    void theSlowestHeadCountsForAll() {
        Camera quick = camera(2592, 1944, 5.184, 3.888, 4.34, 0.5);
        Camera slow = camera(2592, 1944, 5.184, 3.888, 4.34, 3);
        Kit kit = Kit.of(Aircraft.smallMultirotor(), quick)
                .with(new Payload(
                        List.of(new Head("red", quick, 1, 0), new Head("near infrared", slow, 2, 35)),
                        Optional.empty()));
        Pins pins = Pins.ofHeight(30).with(Quantity.SHUTTER_TIME, Measure.of(0.0001, Unit.SECOND));
        BlockPlan plan = plan(kit, pins);
        assertThat(plan.design().intervalS()).isCloseTo(3, Offset.offset(1e-9));
        assertThat(plan.files()).isEqualTo(3L * plan.photos());
        assertThat(keys(plan)).contains("head-intervals", "least-height");
        assertThatThrownBy(() -> new Payload(List.of(), Optional.empty())).isInstanceOf(InputFault.class);
    }

    /** Plane geometry: wings fly arcs; at twice the radius a half circle, closer a bulb of 7/3 π r at the most. */
    @Test
    void aWingTurnsInArcs() {
        Aircraft wing = Aircraft.smallWing();
        double radius = wing.turnRadiusM(18);
        assertThat(radius).isCloseTo(18 * 18 / (9.80665 * Math.tan(Math.toRadians(30))), Offset.offset(1e-9));
        Camera camera = camera(5280, 3956, 17.3, 13.0, 12.29, 0.1);
        Pins pins = Pins.ofHeight(75).with(Quantity.SHUTTER_TIME, Measure.of(0.0001, Unit.SECOND));
        BlockPlan plan = plan(Kit.of(wing, camera), pins);
        int turns = plan.flight().lines().size() - 1;
        double strips = plan.flight().linesLengthM();
        double turning = (plan.flight().pathLengthM() - strips) / turns;
        assertThat(plan.design().spacingM()).isLessThan(2 * radius);
        assertThat(turning).isBetween(Math.PI * radius, 7 * Math.PI / 3 * radius);
        assertThat(WhatIf.of(plan).triggers()).extracting(WhatIf.Trigger::name).doesNotContain("stop at every station");
    }

    /**
     * Plane geometry: slant range H / sin(depression). At the far edge of a 13 mm side behind 12.29 mm, 27.9° off the axis and 32.1° below
     * the horizon, 60 m up, p R / f is 3.01 cm: 2.66 cm across and 4.42 cm along by hand.
     */
    @Test
    void aTiltedCameraSeesTheFarGroundCoarser() {
        ObliqueScale oblique = new ObliqueScale(FOUR_THIRDS, Math.toRadians(-60), 60);
        ObliqueScale.Sight middle = oblique.at(ObliqueScale.Part.MIDDLE).orElseThrow();
        assertThat(middle.slantM()).isCloseTo(60 / Math.sin(Math.toRadians(60)), Offset.offset(1e-9));
        assertThat(middle.acrossM())
                .isCloseTo(FOUR_THIRDS.pitchM() * middle.slantM() / FOUR_THIRDS.focalLengthM(), Offset.offset(1e-12));
        ObliqueScale.Sight far = oblique.at(ObliqueScale.Part.FAR).orElseThrow();
        assertThat(far.acrossM()).isCloseTo(0.0266, Offset.offset(0.0002));
        assertThat(far.alongM()).isCloseTo(0.0442, Offset.offset(0.0004));
        assertThat(oblique.at(ObliqueScale.Part.NEAR).orElseThrow().acrossM()).isLessThan(middle.acrossM());
        assertThat(oblique.at(ObliqueScale.Part.FAR).orElseThrow().acrossM()).isGreaterThan(middle.acrossM());
        assertThat(new ObliqueScale(FOUR_THIRDS, Math.toRadians(-20), 60).at(ObliqueScale.Part.FAR))
                .isEmpty();
    }

    @Test
    void aCircleIsRoundAndItsPhotosOverlap() {
        CircleShots shots = CircleShots.of(20, 10, 0.8, 3);
        assertThat(shots.photos()).isEqualTo((int) Math.ceil(2 * Math.PI * 20 / 2));
        assertThat(shots.arcM() * shots.photos()).isCloseTo(2 * Math.PI * 20, Offset.offset(1e-9));
        assertThat(Math.tan(shots.bankRad())).isCloseTo(9 / (9.80665 * 20), Offset.offset(1e-12));
    }

    @Test
    void theCardAsksForTheShutterThatKeepsTheBlur() {
        BlockPlan plan = plan(Kit.of(Aircraft.smallMultirotor(), FOUR_THIRDS), Pins.ofGsd(2));
        double blur = plan.design().speedMps()
                * CameraCard.longestShutterS(plan)
                / plan.design().scale().gsdAlongM();
        assertThat(blur).isCloseTo(Defaults.BLUR_PX, Offset.offset(1e-9));
        assertThat(CameraCard.of(plan, UnitChoice.METRIC))
                .anySatisfy(line -> assertThat(line.value()).contains("4:3"));
    }

    @Test
    void windOverTheLimitStopsAndWindUnderItIsCompared() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.WIND, Measure.of(6, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(270, Unit.DEGREE));
        Kit wing = Kit.of(Aircraft.smallWing(), FOUR_THIRDS);
        BlockPlan plan = plan(wing, pins);
        List<WhatIf.InWind> schools = WhatIf.of(plan).inWind();
        assertThat(schools).hasSize(3);
        WhatIf.InWind into = schools.get(1);
        WhatIf.InWind across = schools.get(2);
        double speed = plan.design().speedMps();
        assertThat(into.slowMps()).isCloseTo(speed - 6, Offset.offset(0.05));
        assertThat(into.fastMps()).isCloseTo(speed + 6, Offset.offset(0.05));
        assertThat(across.slowMps()).isCloseTo(Math.sqrt(speed * speed - 36), Offset.offset(0.05));
        assertThat(keys(plan(wing, pins.with(Quantity.WIND, Measure.of(14, Unit.METRE_PER_SECOND)))))
                .contains("wind-limit");
    }
}

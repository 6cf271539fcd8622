package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.Samples;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.finding.Remedy;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.ledger.Entry;
import yalos.core.ledger.Ledger;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.pins.ScaleFix;
import yalos.core.reason.Reason;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

class DesignTest {
    private static final Aircraft AIRCRAFT = Aircraft.smallMultirotor();

    static Stream<Reference.Row> gsd() {
        return Reference.rows("gsd.csv")
                .filter(row -> row.number("forward_overlap_pct") > 0 && row.number("side_overlap_pct") > 0)
                .filter(row -> row.number("motion_blur_px") <= 20);
    }

    /** Spacing, base, interval and blur against exact rational numbers, see the reference README; rows
     * that a plan refuses (no overlap, more than 20 px of blur) are left to {@code GroundScaleTest}. */
    @ParameterizedTest
    @MethodSource("gsd")
    void agreesWithTheReference(Reference.Row row) {
        int wide = row.whole("image_width_px");
        int high = row.whole("image_height_px");
        Camera camera = new Camera(
                "reference",
                new Sensor(
                        wide,
                        high,
                        wide * row.number("pixel_pitch_x_um") * 1e-6,
                        high * row.number("pixel_pitch_y_um") * 1e-6),
                row.number("focal_mm") / 1000,
                Shutter.mechanical(),
                0,
                row.text("mounting").equals("landscape") ? Mount.WIDTH_ACROSS : Mount.HEIGHT_ACROSS,
                Camera.Storage.of(10, 100, 10_000));
        double exposure = row.number("exposure_s");
        Pins pins = Pins.ofHeight(row.number("height_m"))
                .with(Quantity.FORWARD_OVERLAP, Measure.of(row.number("forward_overlap_pct"), Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(row.number("side_overlap_pct"), Unit.PERCENT))
                .with(Quantity.SPEED, Measure.of(row.number("speed_m_s"), Unit.METRE_PER_SECOND))
                .with(Quantity.SHUTTER_TIME, Measure.of(exposure, Unit.SECOND))
                .with(Quantity.BLUR, Measure.of(20, Unit.PIXEL));
        Design design = Design.of(pins, Kit.of(AIRCRAFT.withMaxSpeed(60), camera));
        Percentage tolerance = Percentage.withPercentage(1e-7);
        assertThat(design.spacingM()).isCloseTo(row.number("line_spacing_m"), tolerance);
        assertThat(design.baseM()).isCloseTo(row.number("photo_base_m"), tolerance);
        assertThat(design.intervalS()).isCloseTo(row.number("photo_interval_s"), tolerance);
        assertThat(design.blurPx()).isCloseTo(row.number("motion_blur_px"), tolerance);
    }

    @ParameterizedTest
    @CsvSource({
        "mechanical, 0.7, 0.001,  15, MOTION_BLUR,      10.0",
        "mechanical, 0.7, 0.0002, 15, AIRCRAFT,         15.0",
        "mechanical, 2.0, 0.0005, 15, SHUTTER_INTERVAL,  7.91",
        "rolling,    0.7, 0.0002, 15, ROLLING_SHUTTER,   1.33",
    })
    void saysWhichLimitHoldsTheSpeed(
            String shutter, double interval, double exposure, double fastest, SpeedLimit limit, double speed) {
        Camera camera = new Camera(
                "test",
                Sensor.ofMillimetres(5280, 3956, 17.3, 13.0),
                12.29e-3,
                shutter.equals("rolling") ? Shutter.rolling(0.03) : Shutter.mechanical(),
                interval,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 100, 10_000));
        Pins pins = Pins.ofGsd(2).with(Quantity.SHUTTER_TIME, Measure.of(exposure, Unit.SECOND));
        Design design = Design.of(pins, Kit.of(AIRCRAFT.withMaxSpeed(fastest), camera));
        assertThat(design.binding().limit()).isEqualTo(limit);
        assertThat(design.speedMps()).isCloseTo(speed, Offset.offset(0.01));
    }

    @Test
    void theLaterPinOfASlotTakesThePlaceOfTheEarlier() {
        Pins pins = Pins.ofGsd(2).with(Quantity.HEIGHT, Measure.of(300, Unit.FOOT));
        assertThat(pins.has(Quantity.GSD)).isFalse();
        assertThat(pins.of(Quantity.HEIGHT)).contains(Measure.of(300, Unit.FOOT));
        assertThat(pins.si(Quantity.HEIGHT)).hasValue(91.44);
        assertThatThrownBy(() -> pins.without(Quantity.HEIGHT))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("GSD");
    }

    @ParameterizedTest
    @CsvSource({
        "FORWARD_OVERLAP, 0, %",
        "FORWARD_OVERLAP, 100, %",
        "SIDE_OVERLAP, 130, %",
        "HEIGHT, 0, m",
        "HEIGHT, 5000, m",
        "SPEED, -3, m/s",
    })
    void refusesFiguresOutOfBoundsAndSaysTheBounds(Quantity quantity, double figure, String unit) {
        Unit typed = Unit.typed(
                        unit,
                        Measure.ofSi(1, quantity.kind().choices().get(0).unit())
                                .unit()
                                .family())
                .orElseThrow();
        assertThatThrownBy(() -> Pins.ofGsd(2).with(quantity, Measure.of(figure, typed)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("between");
    }

    @Test
    void nudgesGoToWholeStepsOfTheUnitShown() {
        Pins pins = Pins.ofGsd(2);
        assertThat(pins.nudged(Quantity.HEIGHT, 75.02, 1, UnitChoice.METRIC).of(Quantity.HEIGHT))
                .contains(Measure.of(76, Unit.METRE));
        assertThat(pins.nudged(Quantity.HEIGHT, 91.44, -1, UnitChoice.FEET).of(Quantity.HEIGHT))
                .contains(Measure.of(295, Unit.FOOT));
        assertThat(pins.nudged(Quantity.DIRECTION, 0, -1, UnitChoice.METRIC)
                        .si(Quantity.DIRECTION)
                        .orElseThrow())
                .isCloseTo(Math.toRadians(359), Offset.offset(1e-9));
    }

    /** The scale follows from whichever pins fix it; put back as a GSD pin it gives the same plan. */
    @ParameterizedTest
    @CsvSource({
        "STRIP_SPACING, 30, m, SIDE_OVERLAP, 70, %",
        "AIR_BASE, 15, m, FORWARD_OVERLAP, 80, %",
    })
    void theScaleFollowsFromStepAndOverlap(
            Quantity step, double stepFigure, String stepUnit, Quantity overlap, double share, String shareUnit) {
        Pins pins = Pins.of(Map.of(
                step, Measure.typed("", stepFigure + stepUnit, Unit.METRE),
                overlap, Measure.typed("", share + shareUnit, Unit.PERCENT)));
        Design design = Design.of(pins, Kit.of(AIRCRAFT, Samples.twentyMegapixel()));
        double along = overlap == Quantity.FORWARD_OVERLAP ? design.baseM() : design.spacingM();
        assertThat(along).isCloseTo(stepFigure, Offset.offset(1e-9));
        Pins byGsd = Pins.ofGsd(design.scale().gsdM() * 100)
                .with(overlap, pins.of(overlap).orElseThrow());
        Design same = Design.of(byGsd, Kit.of(AIRCRAFT, Samples.twentyMegapixel()));
        assertThat(step == Quantity.AIR_BASE ? same.baseM() : same.spacingM())
                .isCloseTo(stepFigure, Offset.offset(1e-9));
    }

    @Test
    void speedAndIntervalTogetherFixTheBase() {
        Pins pins = Pins.ofGsd(2)
                .with(Quantity.SPEED, Measure.of(5, Unit.METRE_PER_SECOND))
                .with(Quantity.INTERVAL, Measure.of(2, Unit.SECOND));
        Design design = Design.of(pins, Kit.of(AIRCRAFT, Samples.twentyMegapixel()));
        assertThat(design.baseM()).isCloseTo(10, Offset.offset(1e-9));
        assertThat(design.forwardOverlap()).isCloseTo(1 - 10 / design.scale().footprintAlongM(), Offset.offset(1e-9));
    }

    @Test
    void aScaleLetGoFollowsFromSpacingAndSideOverlap() {
        Pins let = Pins.ofGsd(2).scaleReleased(Measure.of(31.7, Unit.METRE), Measure.of(70, Unit.PERCENT));
        assertThat(let.scaleFix()).contains(ScaleFix.ACROSS);
        assertThat(let.with(Quantity.STRIP_SPACING, Measure.of(40, Unit.METRE)).scaleFix())
                .contains(ScaleFix.ACROSS);
        assertThat(let.with(Quantity.GSD, Measure.of(2, Unit.CENTIMETRE)).has(Quantity.STRIP_SPACING))
                .isFalse();
    }

    @Test
    void everyRowOfTheLedgerSaysWhy() {
        BlockPlan plan =
                Samples.request(Samples.concaveWithHole(), Pins.ofGsd(2)).plan();
        List<Entry> entries = Ledger.of(plan).entries();
        List<Quantity> withoutScanner = new ArrayList<>(List.of(Quantity.values()));
        withoutScanner.remove(Quantity.POINT_DENSITY);
        assertThat(entries).extracting(Entry::quantity).containsExactlyElementsOf(withoutScanner);
        assertThat(entries).extracting(Entry::reason).allSatisfy(reason -> {
            assertThat(reason.formula()).isNotBlank();
            assertThat(reason.source()).isNotBlank();
        });
        Reason speed = Ledger.of(plan).entry(Quantity.SPEED).reason();
        assertThat(speed.bindingLimit().map(Reason.Limit::name)).contains("motion blur");
    }

    @Test
    void findsWhatIsWrongAndEveryRemedyMendsIt() {
        Pins bad = Pins.ofGsd(4)
                .with(Quantity.BRIEF_GSD, Measure.of(2, Unit.CENTIMETRE))
                .with(Quantity.SPEED, Measure.of(30, Unit.METRE_PER_SECOND))
                .with(Quantity.SIDE_OVERLAP, Measure.of(40, Unit.PERCENT));
        Camera small = new Camera(
                "small card",
                Samples.twentyMegapixel().sensor(),
                12.29e-3,
                Shutter.mechanical(),
                0.7,
                Mount.WIDTH_ACROSS,
                Camera.Storage.of(10, 128, 60));
        PlanRequest request = new PlanRequest(
                Kit.of(AIRCRAFT, small), bad, Samples.square(900), Optional.empty(), OptionalInt.of(32630));
        BlockPlan plan = request.plan();
        List<Finding> findings = Findings.of(plan, UnitChoice.METRIC);
        assertThat(findings)
                .extracting(Finding::key)
                .contains(
                        "ceiling",
                        "brief-gsd",
                        "speed-held",
                        "side-overlap",
                        "photos-beyond-limit",
                        "seen-too-few-times");
        for (Finding finding : findings) {
            for (Remedy remedy : finding.remedies()) {
                BlockPlan mended = request.with(bad.pinned(
                                ((Remedy.Pin) remedy.change()).quantity(), ((Remedy.Pin) remedy.change()).value()))
                        .plan();
                assertThat(Findings.of(mended, UnitChoice.METRIC))
                        .as("%s mends %s", remedy.label(), finding.key())
                        .extracting(Finding::key)
                        .doesNotContain(finding.key());
            }
        }
    }
}

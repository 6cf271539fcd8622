package yalos.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.flight.Line;
import yalos.core.flight.Timeline;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.proof.CountGrid;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Noise;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What a plan makes of its settings, each against a figure worked by hand. */
class HandFiguresTest {
    /** 4,000 by 3,000 pixels of 4 µm behind 16 mm: 100 m up it shows 100 m by 75 m, 2.5 cm a pixel. */
    private static Camera camera(Mount mount, double intervalS) {
        return new Camera(
                "hand camera",
                Sensor.ofMillimetres(4000, 3000, 16, 12),
                0.016,
                Shutter.mechanical(),
                intervalS,
                mount,
                Camera.Storage.of(10, 128, 100_000));
    }

    private static PlanRequest request(Kit kit, Pins pins) {
        return new PlanRequest(kit, pins, Samples.square(600), Optional.empty(), OptionalInt.of(32630));
    }

    private static PlanRequest request(Pins pins) {
        return request(Kit.of(Aircraft.smallMultirotor(), camera(Mount.WIDTH_ACROSS, 0.7)), pins);
    }

    private static Pins overlaps(Pins pins, double forward, double side) {
        return pins.with(Quantity.FORWARD_OVERLAP, Measure.of(forward, Unit.PERCENT))
                .with(Quantity.SIDE_OVERLAP, Measure.of(side, Unit.PERCENT));
    }

    @Test
    void aMarginInStripsIsSoManyTimesTheStripSpacing() {
        Pins pins = overlaps(Pins.ofHeight(100), 80, 60).with(Quantity.MARGIN_STRIPS, Measure.of(2, Unit.COUNT));
        Design design = request(pins).plan().design();
        assertThat(design.spacingM()).isCloseTo(100 * 0.4, Offset.offset(1e-9));
        assertThat(design.baseM()).isCloseTo(75 * 0.2, Offset.offset(1e-9));
        assertThat(design.marginM()).isCloseTo(80, Offset.offset(1e-9));
    }

    /** 1 / ((1 − o)(1 − q)) with unequal overlaps; a side for a forward overlap would give 1 / (0.4 · 0.4). */
    @ParameterizedTest
    @CsvSource({"80, 60, 12.5", "90, 50, 20", "75, 70, 13.333333333333334"})
    void theMeanOfPhotosTakesEachOverlapOnce(double forward, double side, double photos) {
        Design design =
                request(overlaps(Pins.ofHeight(100), forward, side)).plan().design();
        assertThat(design.meanPhotos()).isCloseTo(photos, Offset.offset(1e-9));
    }

    /** Half the footprint and the margin, 50 m at least, in steps of 50 m. */
    @ParameterizedTest
    @CsvSource({"90, 0, 50", "110, 0, 100", "210, 0, 150", "110, 1, 100", "190, 1, 200"})
    void theModelMustReachHalfAFootprintBeyondTheBlock(double height, double marginStrips, double buffer) {
        Pins pins = overlaps(Pins.ofHeight(height), 80, 60)
                .with(Quantity.MARGIN_STRIPS, Measure.of(marginStrips, Unit.COUNT))
                .with(Quantity.CEILING, Measure.of(400, Unit.METRE));
        assertThat(KnownGround.bufferM(request(pins).plan().design())).isEqualTo(buffer);
    }

    /** The scanner holds 15 m/s; the camera that rides along can be released every 10 s, so its photos stand 150 m apart. */
    @Test
    void aCameraThatRidesAlongTakesWhatPhotosItCan() {
        Kit kit = new Kit(
                "lidar",
                Aircraft.smallMultirotor(),
                new Payload(
                        List.of(Head.of(camera(Mount.WIDTH_ACROSS, 10))),
                        Optional.of(new Scanner("scanner", Math.toRadians(70), 240_000, 0.5, 300))),
                Kit.Service.UNKNOWN);
        Design slow = request(kit, Pins.ofHeight(100)).plan().design();
        assertThat(slow.speedMps()).isEqualTo(15);
        assertThat(slow.baseM()).isCloseTo(150, Offset.offset(1e-9));
        assertThat(slow.intervalS()).isCloseTo(10, Offset.offset(1e-9));
        assertThat(slow.forwardOverlap()).isCloseTo(1 - 150 / 75.0, Offset.offset(1e-9));
        Kit quick = kit.with(kit.payload().withLeading(camera(Mount.WIDTH_ACROSS, 0.5)));
        assertThat(request(quick, Pins.ofHeight(100)).plan().design().baseM()).isCloseTo(15, Offset.offset(1e-9));
    }

    static Stream<Reference.Row> places() {
        return Reference.rows("utm.csv").limit(60).filter(row -> Math.abs(row.number("lat_deg")) < 70);
    }

    /**
     * A wind is told from true north and flown from grid north: grid = true − convergence (true azimuth = grid azimuth + convergence,
     * independent reference from PROJ).
     */
    @ParameterizedTest
    @MethodSource("places")
    void theWindIsTurnedFromTrueToGridNorth(Reference.Row row) {
        LonLat at = LonLat.of(row.number("lon_deg"), row.number("lat_deg"));
        double d = 0.002;
        Outline square = Outline.ofRing(List.of(
                LonLat.of(at.lonDeg() - d, at.latDeg() - d),
                LonLat.of(at.lonDeg() + d, at.latDeg() - d),
                LonLat.of(at.lonDeg() + d, at.latDeg() + d),
                LonLat.of(at.lonDeg() - d, at.latDeg() + d)));
        Pins pins = Pins.ofGsd(4)
                .with(Quantity.WIND, Measure.of(5, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(120, Unit.DEGREE));
        int epsg = row.whole("epsg");
        PlanRequest usual = request(pins);
        BlockPlan plan = new PlanRequest(usual.kit(), pins, square, Optional.empty(), OptionalInt.of(epsg)).plan();
        assertThat(plan.block().plane().grid().epsg())
                .isEqualTo(Grid.ofEpsg(epsg).epsg());
        assertThat(Math.toDegrees(plan.wind().orElseThrow().fromRad()))
                .isCloseTo(120 - row.number("grid_convergence_deg"), Offset.offset(1e-4));
    }

    /** A camera turned by a quarter: the 75 m lie across, the 100 m along; every point is seen as often as the formula says. */
    @ParameterizedTest
    @EnumSource(Mount.class)
    void theMountCountsInTheCountAndInTheProof(Mount mount) {
        Kit kit = Kit.of(Aircraft.smallMultirotor(), camera(mount, 0.1));
        Pins pins = overlaps(Pins.ofHeight(100), 80, 60)
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE))
                .with(Quantity.MARGIN_STRIPS, Measure.of(4, Unit.COUNT));
        BlockPlan plan = request(kit, pins).plan();
        boolean wide = mount == Mount.WIDTH_ACROSS;
        assertThat(plan.design().spacingM()).isCloseTo(wide ? 40 : 30, Offset.offset(1e-9));
        assertThat(plan.design().baseM()).isCloseTo(wide ? 15 : 20, Offset.offset(1e-9));
        CountGrid quick = PlanProof.coverage(plan).count();
        assertThat(mean(quick)).isCloseTo(12.5, Percentage.withPercentage(1));
        GroundProof proof = PlanProof.of(plan, 5).counted();
        assertThat(mean(proof)).isCloseTo(12.5, Percentage.withPercentage(1));
        // between lines the count changes across, not along: 2.5 lines see a point on average, each 5 times
        assertThat(most(quick) - least(quick)).isLessThanOrEqualTo(6);
    }

    private static double mean(CountGrid count) {
        double sum = 0;
        int cells = 0;
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                if (count.inside(column, row)) {
                    sum += count.at(column, row);
                    cells++;
                }
            }
        }
        return sum / cells;
    }

    private static int least(CountGrid count) {
        int[] cells = count.histogram();
        int least = 0;
        while (cells[least] == 0) {
            least++;
        }
        return least;
    }

    private static int most(CountGrid count) {
        return count.histogram().length - 1;
    }

    /** Half of a mode's error is each photo's own and half is shared, in quadrature; control points take the shared part out. */
    @Test
    void theErrorOfAPositioningModeIsPartedInQuadrature() {
        for (Positioning mode : Positioning.values()) {
            Noise noise = PlanProof.noise(mode);
            double half = Math.sqrt(0.5);
            assertThat(noise.eastM()).isCloseTo(mode.horizontalM() * half, Offset.offset(1e-12));
            assertThat(noise.northM()).isCloseTo(mode.horizontalM() * half, Offset.offset(1e-12));
            assertThat(noise.verticalM()).isCloseTo(mode.verticalM() * half, Offset.offset(1e-12));
            boolean control = mode == Positioning.CONTROL;
            assertThat(noise.sharedHorizontalM())
                    .isCloseTo(control ? 0 : mode.horizontalM() * half, Offset.offset(1e-12));
            assertThat(noise.sharedVerticalM()).isCloseTo(control ? 0 : mode.verticalM() * half, Offset.offset(1e-12));
        }
    }

    /** 10 MB a photo on a card of 128 GB: 128 photos are 1 %. Each head has its own card, so more heads fill none sooner. */
    @Test
    void theCardFillsByTheLeadingHeadAlone() {
        BlockPlan one = request(Pins.ofHeight(100)).plan();
        assertThat(one.cardShare()).isCloseTo(one.photos() / 12_800.0, Offset.offset(1e-12));
        Kit four = Kit.of(Aircraft.smallMultirotor(), camera(Mount.WIDTH_ACROSS, 0.7))
                .with(Payload.ofBands(camera(Mount.WIDTH_ACROSS, 0.7), 0, List.of("green", "red", "edge", "infrared")));
        BlockPlan bands = request(four, Pins.ofHeight(100)).plan();
        assertThat(bands.cardShare()).isCloseTo(bands.photos() / 12_800.0, Offset.offset(1e-12));
    }

    /** Over level ground: a flight of exactly one set lands with nothing but its reserve, one second less takes two. */
    @Test
    void batterySetsAreCountedFromTheClock() {
        BlockPlan plan = request(Pins.ofHeight(100)).plan();
        double minutes = plan.flightTimeS() / 60;
        assertThat(plan.flightTimeS()).isEqualTo(plan.timeline().totalS());
        assertThat(plan.batterySets()).isEqualTo((int)
                Math.ceil(minutes / plan.request().aircraft().battery().usableMinutes()));
        assertThat(plan.batteries().leftS())
                .isCloseTo(
                        plan.batterySets() * plan.request().aircraft().battery().usableMinutes() * 60
                                - plan.flightTimeS(),
                        Offset.offset(1e-6));
    }

    /** The wind makes a flight longer for a wing whichever way it blows along the lines: 1/(a−w) + 1/(a+w) > 2/a. */
    @Test
    void windCountsInFlightTimeAndSets() {
        Kit wing = Kit.of(Aircraft.smallWing(), camera(Mount.WIDTH_ACROSS, 0.1));
        Pins still = Pins.ofHeight(100).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE));
        BlockPlan calm = request(wing, still).plan();
        BlockPlan windy = request(
                        wing,
                        still.with(Quantity.WIND, Measure.of(9, Unit.METRE_PER_SECOND))
                                .with(Quantity.WIND_FROM, Measure.of(0, Unit.DEGREE)))
                .plan();
        double speed = calm.design().speedMps();
        double hand = calm.flight().lines().stream()
                .mapToDouble(line -> line.lengthM() / (Math.cos(line.trackRad()) > 0 ? speed - 9 : speed + 9))
                .sum();
        double more = hand - calm.flight().linesLengthM() / speed;
        double lineTimes = windy.timeline().spans().stream()
                .filter(span -> span.leg() instanceof Line)
                .mapToDouble(Timeline.Span::seconds)
                .sum();
        assertThat(lineTimes).isCloseTo(hand, Percentage.withPercentage(0.5));
        assertThat(windy.flightTimeS()).isGreaterThan(calm.flightTimeS() + more * 0.9);
        BlockPlan storm = request(
                        wing,
                        still.with(Quantity.WIND, Measure.of(30, Unit.METRE_PER_SECOND))
                                .with(Quantity.WIND_FROM, Measure.of(90, Unit.DEGREE)))
                .plan();
        assertThat(storm.flightTimeS()).isInfinite();
        assertThat(storm.batterySets()).isZero();
    }
}

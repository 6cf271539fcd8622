package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Samples;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.Range;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.proof.PhotoCount;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Passes flown besides the main one: what they cover, which way they look, and what they leave alone. */
class AddedPassTest {
    private static final LonLat LAUNCH = Samples.at(-60, 40);

    private static BlockPlan plan(Outline outline, Aircraft aircraft, AddedPass... added) {
        Pins pins = Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(20, Unit.DEGREE));
        return new PlanRequest(
                        Kit.of(aircraft, Samples.twentyMegapixel()),
                        pins,
                        outline,
                        Optional.of(LAUNCH),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.with(List.of(added)))
                .plan();
    }

    private static BlockPlan plan(Outline outline, AddedPass... added) {
        return plan(outline, Aircraft.smallMultirotor(), added);
    }

    private static List<Exposure> ofPass(BlockPlan plan, int pass) {
        return plan.flight().exposures().stream()
                .filter(photo -> photo.pass() == pass)
                .toList();
    }

    /** Photos of one pass that see each cell of the block: least, and mean. */
    private static double[] seen(BlockPlan plan, int pass) {
        PhotoCount count = PhotoCount.of(plan.block(), ofPass(plan, pass), 5);
        double least = Double.MAX_VALUE;
        double sum = 0;
        long cells = 0;
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                if (count.inside(column, row)) {
                    least = Math.min(least, count.at(column, row));
                    sum += count.at(column, row);
                    cells++;
                }
            }
        }
        return new double[] {least, sum / cells};
    }

    /** Each pass covers the block by itself: forward 80 and side 70 % show a place 16.7 times on average, a quarter of it at a corner. */
    @Test
    void aCrossingCoversTheBlockOnceMoreSquareToTheMainPass() {
        BlockPlan plan = plan(Samples.square(300), Crossing.SQUARE);
        assertThat(plan.passes().passes()).hasSize(2);
        assertThat(plan.passes().passes().get(1).pattern().directionRad().orElseThrow())
                .isCloseTo(Math.toRadians(110), Offset.offset(1e-9));
        for (int pass = 1; pass <= 2; pass++) {
            assertThat(seen(plan, pass)[0]).as("pass " + pass).isGreaterThanOrEqualTo(3);
            assertThat(seen(plan, pass)[1]).isGreaterThan(10);
        }
        BlockPlan single = plan(Samples.square(300));
        assertThat(ofPass(plan, 1)).hasSameSizeAs(ofPass(single, 1));
        assertThat(plan.flightTimeS()).isGreaterThan(1.7 * single.flightTimeS());
    }

    @Test
    void aPassHasItsOwnHeightAndOverlaps() {
        AddedPass.Own own = new AddedPass.Own(
                Optional.of(Measure.of(100, Unit.METRE)),
                Optional.of(Measure.of(60, Unit.PERCENT)),
                Optional.of(Measure.of(40, Unit.PERCENT)));
        BlockPlan plan = plan(Samples.square(400), Crossing.SQUARE.with(own));
        Task task = plan.passes().passes().get(1).task();
        // 17.3 mm of sensor across, 3956 of its 5280 square pixels along, 100 m / 12.29 mm
        assertThat(task.heightM()).isEqualTo(100);
        assertThat(task.baseM()).isCloseTo(17.3 * 3956 / 5280 / 12.29 * 100 * 0.4, Offset.offset(1e-6));
        assertThat(task.spacingM()).isCloseTo(17.3 / 12.29 * 100 * 0.6, Offset.offset(1e-6));
        assertThat(ofPass(plan, 2)).allSatisfy(photo -> assertThat(photo.upM()).isEqualTo(100));
        assertThat(ofPass(plan, 1))
                .allSatisfy(photo ->
                        assertThat(photo.upM()).isEqualTo(plan.design().scale().heightM()));
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            assertThat(leg.start().upM())
                    .as("no step in height")
                    .isCloseTo(before == null ? 0 : before.end().upM(), Offset.offset(1e-9));
            before = leg;
        }
        assertThat(before.end().upM()).isZero();
    }

    /** The middle of a picture tilted by 30° from 75 m lies 43 m ahead; every pass still shows every corner of the block. */
    @ParameterizedTest
    @ValueSource(doubles = {20, 30, 45})
    void tiltedPassesReachTheEdgesOnAllSides(double tiltDeg) {
        for (Outline outline : List.of(Samples.square(300), Samples.concaveWithHole())) {
            BlockPlan plan = plan(
                    outline,
                    new TiltedPasses(
                            AddedPass.Own.NONE,
                            Measure.of(tiltDeg, Unit.DEGREE),
                            EnumSet.allOf(TiltedPasses.Toward.class)));
            assertThat(plan.passes().passes()).hasSize(5);
            for (int pass = 2; pass <= 5; pass++) {
                double look = Math.toRadians(20) + (pass - 2) * Math.PI / 2;
                assertThat(seen(plan, pass)[0]).as("pass " + pass).isGreaterThanOrEqualTo(2);
                assertThat(ofPass(plan, pass)).allSatisfy(photo -> {
                    assertThat(Math.cos(photo.pose().yawRad() - look)).isCloseTo(1, Offset.offset(1e-9));
                    assertThat(photo.pose().pitchRad()).isCloseTo(Math.toRadians(tiltDeg - 90), Offset.offset(1e-9));
                });
            }
        }
    }

    @Test
    void tiltedPassesCanBeLeftOut() {
        BlockPlan plan = plan(
                Samples.square(300),
                new TiltedPasses(
                        AddedPass.Own.NONE, Measure.of(30, Unit.DEGREE), EnumSet.of(TiltedPasses.Toward.RIGHT)));
        assertThat(plan.passes().passes()).hasSize(2);
        assertThat(ofPass(plan, 2))
                .allSatisfy(photo -> assertThat(Math.cos(photo.pose().yawRad() - Math.toRadians(110)))
                        .isCloseTo(1, Offset.offset(1e-9)));
    }

    /** A wing cannot fly backwards: its camera looks ahead on lines there and back, each way seen everywhere. */
    @Test
    void aWingLooksAheadThereAndBack() {
        BlockPlan plan = plan(Samples.square(500), Aircraft.smallWing(), TiltedPasses.FOUR);
        assertThat(plan.passes().passes()).hasSize(3);
        for (int pass = 2; pass <= 3; pass++) {
            List<Exposure> photos = ofPass(plan, pass);
            assertThat(photos)
                    .allSatisfy(photo -> assertThat(Math.cos(photo.pose().yawRad() - photo.trackRad()))
                            .isCloseTo(1, Offset.offset(1e-9)));
            double track = photos.get(0).trackRad();
            for (double way : new double[] {track, track + Math.PI}) {
                List<Exposure> one = photos.stream()
                        .filter(photo -> Math.cos(photo.trackRad() - way) > 0.99)
                        .toList();
                PhotoCount count = PhotoCount.of(plan.block(), one, 5);
                for (int row = 0; row < count.rows(); row++) {
                    for (int column = 0; column < count.columns(); column++) {
                        if (count.inside(column, row)) {
                            assertThat(count.at(column, row)).isGreaterThanOrEqualTo(2);
                        }
                    }
                }
            }
        }
    }

    @Test
    void oneTieStripRunsThroughTheMiddleTwoNearTheEnds() {
        BlockPlan one = plan(Samples.square(400), TieStrips.ONE);
        assertThat(one.flight().lines().stream().filter(line -> line.pass() == 2))
                .hasSize(1);
        BlockPlan two = plan(
                Samples.square(400),
                new TieStrips(AddedPass.Own.NONE, 2, Measure.of(90, Unit.DEGREE), Measure.of(30, Unit.DEGREE)));
        List<Line> ties =
                two.flight().lines().stream().filter(line -> line.pass() == 2).toList();
        assertThat(ties).hasSize(2);
        // as wide as 400 m turned by 20°, less one footprint of 2 cm × 5280
        Range extent = two.block().extent(Math.toRadians(20));
        double apart = Math.abs(along(ties.get(0)) - along(ties.get(1)));
        assertThat(apart).isCloseTo(extent.length() - two.design().coverAcrossM(), Offset.offset(1e-6));
        assertThat(ofPass(two, 2))
                .allSatisfy(photo ->
                        assertThat(photo.pose().pitchRad()).isCloseTo(Math.toRadians(-60), Offset.offset(1e-9)));
    }

    /** Across the arms of a U a tie strip has two pieces, and no photo looks at the gap of 220 m between them. */
    @Test
    void aTieStripLeavesGapsOut() {
        BlockPlan plan = plan(
                Samples.outline(0, 0, 600, 0, 600, 500, 420, 500, 420, 150, 200, 150, 200, 500, 0, 500),
                new TieStrips(AddedPass.Own.NONE, 2, Measure.of(70, Unit.DEGREE), Measure.of(0, Unit.DEGREE)));
        List<Line> ties =
                plan.flight().lines().stream().filter(line -> line.pass() == 2).toList();
        assertThat(ties).as("two pieces over the arms, one over the foot").hasSize(3);
        double coverAlongM = plan.design().coverAcrossM();
        ofPass(plan, 2)
                .forEach(photo -> assertThat(plan.block().widened(coverAlongM).contains(photo.point()))
                        .isTrue());
    }

    private static double along(Line line) {
        return line.from().xM() * Math.sin(Math.toRadians(20)) + line.from().yM() * Math.cos(Math.toRadians(20));
    }

    /** One flight through all passes: legs join, and what was flown first stays as it was. */
    @ParameterizedTest
    @EnumSource(names = {"ROTOR", "WING"})
    void thePathIsOne(Flyer flyer) {
        BlockPlan plan =
                plan(Samples.concaveWithHole(), flyer.aircraft, Crossing.SQUARE, TiltedPasses.FOUR, TieStrips.ONE);
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
            }
            before = leg;
        }
        int number = 1;
        for (Exposure photo : plan.flight().exposures()) {
            assertThat(photo.id()).isEqualTo(number++);
        }
    }

    enum Flyer {
        ROTOR(Aircraft.smallMultirotor()),
        WING(Aircraft.smallWing());

        private final Aircraft aircraft;

        Flyer(Aircraft aircraft) {
            this.aircraft = aircraft;
        }
    }

    @Test
    void settingsThatTieOrCrossNothingAreRefused() {
        assertThatThrownBy(() -> new Crossing(AddedPass.Own.NONE, Measure.of(184, Unit.DEGREE)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("along the others");
        assertThatThrownBy(() ->
                        new TieStrips(AddedPass.Own.NONE, 3, Measure.of(90, Unit.DEGREE), Measure.of(0, Unit.DEGREE)))
                .hasMessageContaining("one or two");
        assertThatThrownBy(() -> new TiltedPasses(
                        AddedPass.Own.NONE, Measure.of(60, Unit.DEGREE), EnumSet.of(TiltedPasses.Toward.AHEAD)))
                .hasMessageContaining("between 20° and 45°");
        assertThatThrownBy(() -> new TiltedPasses(
                        AddedPass.Own.NONE, Measure.of(30, Unit.DEGREE), EnumSet.noneOf(TiltedPasses.Toward.class)))
                .hasMessageContaining("at least one");
    }
}

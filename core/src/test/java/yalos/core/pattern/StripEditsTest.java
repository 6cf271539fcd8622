package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.Corridor;
import yalos.core.fault.InputFault;
import yalos.core.finding.Findings;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** Changes made to strips by hand, and what becomes of them when the block is planned anew. */
class StripEditsTest {
    private static BlockPlan plan(double gsdCm, StripEdit... edits) {
        return new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(gsdCm).with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE)),
                        Samples.square(300),
                        Optional.of(Samples.at(-50, -50)),
                        OptionalInt.of(32630))
                .with(Patterns.SINGLE.edited(List.of(edits)))
                .plan();
    }

    private static LonLat place(BlockPlan plan, PlanePoint at) {
        return plan.block().plane().toLonLat(at);
    }

    private static LonLat middle(BlockPlan plan, Line line) {
        return place(
                plan,
                new PlanePoint(
                        (line.from().xM() + line.to().xM()) / 2,
                        (line.from().yM() + line.to().yM()) / 2));
    }

    private static void joins(BlockPlan plan) {
        Leg before = null;
        for (Leg leg : plan.flight().legs()) {
            if (before != null) {
                assertThat(before.end().point().distanceM(leg.start().point())).isLessThan(1e-6);
            }
            before = leg;
        }
    }

    @Test
    void aStripIsDroppedAndThePathJoined() {
        BlockPlan whole = plan(2);
        Line third = whole.flight().line(3);
        BlockPlan without = plan(2, StripEdit.drop(middle(whole, third)));
        assertThat(without.flight().strips()).isEqualTo(whole.flight().strips() - 1);
        assertThat(without.photos()).isEqualTo(whole.photos() - third.exposures());
        joins(without);
    }

    /** By hand: two photos more at one end and one less at the other, a base of 15.82 m each. */
    @Test
    void aStripIsMadeLongerAndShorter() {
        BlockPlan whole = plan(2);
        Line second = whole.flight().line(2);
        BlockPlan changed = plan(
                2, StripEdit.reach(place(whole, second.from()), 2), StripEdit.reach(place(whole, second.to()), -1));
        Line now = changed.flight().line(2);
        double base = whole.design().baseM();
        assertThat(now.exposures()).isEqualTo(second.exposures() + 1);
        assertThat(now.lengthM() - second.lengthM()).isCloseTo(base, Offset.offset(1e-6));
        assertThat(now.from().distanceM(second.from())).isCloseTo(2 * base, Offset.offset(1e-6));
        assertThat(now.to().distanceM(second.to())).isCloseTo(base, Offset.offset(1e-6));
        joins(changed);
    }

    /** A corridor round a right angle: two strips of two lines each. Without the first line of the second its other line is still that strip. */
    @Test
    void whatIsLeftOfABentStripKeepsItsNumber() {
        Corridor corner = Corridor.usual(List.of(Samples.at(0, 0), Samples.at(400, 0), Samples.at(400, 400)));
        Patterns patterns = Patterns.SINGLE.along(Optional.of(corner));
        PlanRequest request = Samples.request(corner.outline(), Pins.ofGsd(2)).with(patterns);
        BlockPlan whole = request.plan();
        assertThat(whole.flight().lines()).extracting(Line::strip).containsExactly(1, 1, 2, 2);
        StripEdit first = StripEdit.drop(middle(whole, whole.flight().line(3)));
        BlockPlan without = request.with(patterns.edited(List.of(first))).plan();
        assertThat(without.flight().lines()).extracting(Line::strip).containsExactly(1, 1, 2);
        joins(without);
    }

    @Test
    void aStripIsAdded() {
        BlockPlan whole = plan(2);
        BlockPlan more = plan(2, StripEdit.add(Samples.at(0, -80), Samples.at(300, -80)));
        assertThat(more.flight().strips()).isEqualTo(whole.flight().strips() + 1);
        assertThat(more.flight().line(more.flight().lines().size()).lengthM())
                .isBetween(300 * 0.999, 300 * 1.001 + whole.design().baseM());
        joins(more);
    }

    /** Another GSD moves strips: the change goes to the nearest; where none lies near it waits, and that is said. */
    @Test
    void changesFindTheirStripAgainOrWait() {
        BlockPlan whole = plan(2);
        StripEdit drop = StripEdit.drop(middle(whole, whole.flight().line(4)));
        BlockPlan coarser = plan(2.2, drop);
        assertThat(coarser.flight().strips()).isEqualTo(plan(2.2).flight().strips() - 1);
        StripEdit far = StripEdit.drop(Samples.at(2000, 2000));
        BlockPlan waits = plan(2, far);
        assertThat(waits.flight().strips()).isEqualTo(whole.flight().strips());
        assertThat(waits.passes().waiting()).containsExactly(far);
        assertThat(Findings.of(waits, UnitChoice.METRIC))
                .anySatisfy(finding -> assertThat(finding.key()).isEqualTo("changes-wait"));
    }

    @Test
    void whatCannotBeIsRefused() {
        assertThatThrownBy(() -> StripEdit.add(Samples.at(0, 0), Samples.at(0, 0)))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> StripEdit.reach(Samples.at(0, 0), 0)).hasMessageContaining("longer or shorter");
        BlockPlan whole = plan(2);
        StripEdit[] all = whole.flight().lines().stream()
                .map(line -> StripEdit.drop(middle(whole, line)))
                .collect(Collectors.toList())
                .toArray(StripEdit[]::new);
        assertThatThrownBy(() -> plan(2, all)).hasMessageContaining("No strip is left");
    }

    /** Each corner begins there, though the launch point lies in the south-west; the way home does not change what is flown. */
    @Test
    void theMainPassBeginsAtTheChosenCorner() {
        PlanRequest request = plan(2).request();
        Bounds bounds = plan(2).covered().bounds();
        for (StartCorner corner : StartCorner.values()) {
            BlockPlan begun =
                    request.with(Patterns.SINGLE.begun(Optional.of(corner))).plan();
            PlanePoint first = begun.flight().exposures().get(0).point();
            boolean east = Math.abs(first.xM() - bounds.east()) < Math.abs(first.xM() - bounds.west());
            boolean north = Math.abs(first.yM() - bounds.north()) < Math.abs(first.yM() - bounds.south());
            assertThat(corner.name()).isEqualTo((north ? "NORTH" : "SOUTH") + (east ? "_EAST" : "_WEST"));
            assertThat(begun.photos()).isEqualTo(plan(2).photos());
        }
    }
}

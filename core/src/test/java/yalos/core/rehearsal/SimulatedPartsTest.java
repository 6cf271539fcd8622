package yalos.core.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.flight.Place;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Positioning;
import yalos.core.pins.Pins;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.sortie.Draw;
import yalos.core.sortie.Surroundings;
import yalos.core.terrain.SightLine;

/** The parts of the simulated aircraft by figures that a textbook gives. */
class SimulatedPartsTest {
    private static final double STEP = SimulatedFlight.STEP_S;

    /** A first-order process: its standard deviation is what is asked, and it forgets by e in its time. */
    @Test
    void gustsAreAsStrongAsAskedAndForget() {
        Air air = new Air(3, 4, STEP);
        Random random = new Random(1);
        int n = 200_000;
        double[] gusts = new double[n];
        double square = 0;
        for (int i = 0; i < n; i++) {
            air.step(random, 2);
            gusts[i] = air.gustX();
            square += gusts[i] * gusts[i];
        }
        assertThat(Math.sqrt(square / n)).isCloseTo(2, Percentage.withPercentage(4));
        double together = 0;
        int later = 30;
        for (int i = 0; i + later < n; i++) {
            together += gusts[i] * gusts[i + later];
        }
        assertThat(together / (n - later) / (square / n)).isCloseTo(Math.exp(-1), Offset.offset(0.04));
        assertThat(air.x() - air.gustX()).isCloseTo(3, Offset.offset(1e-9));
    }

    @Test
    void theReceiverIsAsGoodAsItsModeAndSaysWhenItIsNot() {
        Receiver receiver = new Receiver(Positioning.RTK_BASE, STEP);
        Random random = new Random(1);
        double square = 0;
        int n = 300_000;
        for (int i = 0; i < n; i++) {
            receiver.step(random, false, true);
            square += receiver.errorX() * receiver.errorX();
        }
        assertThat(Math.sqrt(square / n)).isCloseTo(Positioning.RTK_BASE.horizontalM(), Percentage.withPercentage(8));
        receiver.step(random, false, false);
        assertThat(receiver.solution()).isEqualTo(Receiver.Solution.FLOAT);
        for (int i = 0; i < 300; i++) {
            receiver.step(random, true, true);
        }
        assertThat(receiver.solution()).isEqualTo(Receiver.Solution.NONE);
        assertThat(receiver.satellites()).isLessThan(6);
        assertThat(new Receiver(Positioning.SINGLE, STEP).solution()).isEqualTo(Receiver.Solution.SINGLE);
    }

    /** Held against a steady push it stands off by push over stiffness; blind it ends up as fast as the wind. */
    @Test
    void aPushIsHeldAgainstAndBlindItDrifts() {
        Air wind = new Air(6, 0, STEP);
        Motion held = new Motion();
        Motion blind = new Motion();
        for (int i = 0; i < 600; i++) {
            held.step(wind, false, false);
            blind.step(wind, true, false);
        }
        // The steady wind is flown against; only gusts push.
        assertThat(held.x()).isZero();
        assertThat(blind.speedX()).isCloseTo(6, Offset.offset(0.05));
        assertThat(blind.x()).isCloseTo(6 * 60 - 6 / 0.35, Offset.offset(2.0));
        for (int i = 0; i < 200; i++) {
            blind.step(wind, false, false);
        }
        assertThat(Math.hypot(blind.x(), blind.speedX())).isLessThan(0.01);
        held.nudge(3, -1);
        for (int i = 0; i < 20; i++) {
            held.step(wind, false, true);
        }
        assertThat(held.x()).isCloseTo(2, Offset.offset(1e-9));
        assertThat(held.y()).isCloseTo(-1, Offset.offset(1e-9));
        held.anew();
        assertThat(held.nudgedM()).isZero();
    }

    private static BlockPlan plan() {
        return new PlanRequest(
                        Kit.of(Aircraft.smallMultirotor(), Samples.twentyMegapixel()),
                        Pins.ofGsd(2),
                        Samples.square(200),
                        Optional.of(Samples.at(0, 0)),
                        OptionalInt.of(32630))
                .plan();
    }

    /** {@code 20 log10(6000 / d)} of 30 dB: two thirds at a tenth of the range, none at the range. */
    @Test
    void theLinkFadesWithTheLogarithmOfDistance() {
        Surroundings around = Surroundings.of(plan(), List.of());
        Radio radio = new Radio(around, SightLine.forManyRays(around.surface()), new PlanePoint(0, 0));
        radio.hear(new Place(600, 0, 1.3), true, false, 1);
        assertThat(radio.strength()).isCloseTo(20.0 / 30, Offset.offset(1e-3));
        assertThat(radio.hear(new Place(6001, 0, 1.3), true, false, 1)).isEqualTo(Radio.Change.NONE);
        assertThat(radio.strength()).isZero();
        radio.hear(new Place(6001, 0, 1.3), true, false, 1);
        assertThat(radio.hear(new Place(6001, 0, 1.3), true, false, 1)).isEqualTo(Radio.Change.LOST);
        assertThat(radio.lost()).isTrue();
        assertThat(radio.hear(new Place(100, 0, 1.3), true, false, 1)).isEqualTo(Radio.Change.HEARD);
        assertThat(radio.hear(new Place(100, 0, 1.3), true, true, 5)).isEqualTo(Radio.Change.LOST);
    }

    /** A minute of each, against what the energy model says of a second. */
    @Test
    void theBatteryGivesWhatTheModelSays() {
        Draw draw = Draw.of(Aircraft.smallMultirotor(), 10);
        Cells cells = new Cells(draw, 0.9, 0.8);
        for (int i = 0; i < 600; i++) {
            cells.fly(10, false, 0, false);
        }
        assertThat(0.9 - cells.charge()).isCloseTo(60 * draw.level(10) / 0.8, Offset.offset(1e-9));
        double before = cells.charge();
        cells.fly(10, false, 2, false);
        assertThat(before - cells.charge())
                .isCloseTo((draw.level(10) * STEP + 2 * draw.perMetreUp()) / 0.8, Offset.offset(1e-12));
        before = cells.charge();
        cells.climb(4, true);
        assertThat(before - cells.charge()).isCloseTo(2.4 * draw.vertical(4) * STEP / 0.8, Offset.offset(1e-12));
        assertThat(cells.hangs(0, false)).isEqualTo(draw.vertical(0) / 0.8);
        cells.change();
        assertThat(cells.charge()).isEqualTo(0.9);
    }

    /** What mends takes its time; the first press counts; what passes by itself does so too. */
    @Test
    void faultsEndWhenTheyAreMendedOrPass() {
        FaultWatch faults = new FaultWatch();
        faults.begin(Fault.STUCK_SHUTTER, 10);
        faults.begin(Fault.CLOUD, 10);
        faults.answered(Command.Kind.CAMERA, 14);
        faults.mend(Fault.STUCK_SHUTTER, 14, 20);
        faults.mend(Fault.STUCK_SHUTTER, 16, 22);
        assertThat(faults.mending(Fault.STUCK_SHUTTER, 19.9)).isTrue();
        assertThat(faults.ended(19.9)).isEmpty();
        assertThat(faults.ended(20)).containsExactly(Fault.STUCK_SHUTTER);
        assertThat(faults.signs()).containsExactly(Fault.CLOUD.sign());
        assertThat(faults.ended(161)).containsExactly(Fault.CLOUD);
        Came stuck = faults.all().stream()
                .filter(one -> one.fault() == Fault.STUCK_SHUTTER)
                .findFirst()
                .orElseThrow();
        assertThat(stuck.answered()).isEqualTo(14);
        assertThat(stuck.by()).contains(Command.Kind.CAMERA);
    }
}

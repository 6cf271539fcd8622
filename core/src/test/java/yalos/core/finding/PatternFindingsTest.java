package yalos.core.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.block.Corridor;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.TiltedPasses;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;

/** What is said about patterns. */
class PatternFindingsTest {
    private static List<Finding> said(Aircraft aircraft, Pins pins, Patterns patterns) {
        return Findings.of(
                new PlanRequest(
                                Kit.of(aircraft, Samples.twentyMegapixel()),
                                pins,
                                patterns.corridor().map(Corridor::outline).orElse(Samples.square(300)),
                                Optional.of(Samples.at(-20, -20)),
                                OptionalInt.of(32630))
                        .with(patterns)
                        .plan(),
                UnitChoice.METRIC);
    }

    private static Finding finding(List<Finding> said, String key) {
        return said.stream().filter(one -> one.key().equals(key)).findFirst().orElseThrow();
    }

    private static Patterns crossingAt(double heightM) {
        return Patterns.SINGLE.adding(Crossing.SQUARE.with(
                new AddedPass.Own(Optional.of(Measure.of(heightM, Unit.METRE)), Optional.empty(), Optional.empty())));
    }

    @Test
    void aPassAboveTheCeilingStops() {
        Finding stop = finding(said(Aircraft.smallMultirotor(), Pins.ofGsd(2), crossingAt(150)), "pass-ceiling");
        assertThat(stop.level()).isEqualTo(Finding.Level.STOP);
        assertThat(stop.sentence()).contains("150").contains("120");
        assertThat(said(Aircraft.smallMultirotor(), Pins.ofGsd(2), crossingAt(110)))
                .noneMatch(one -> one.key().equals("pass-ceiling"))
                .anyMatch(one -> one.key().equals("two-heights"));
    }

    @Test
    void aWingCannotHoldItsNoseAndLooksAhead() {
        Patterns held = Patterns.SINGLE.adding(TiltedPasses.FOUR).holding(Optional.of(Measure.of(10, Unit.DEGREE)));
        List<Finding> said = said(Aircraft.smallWing(), Pins.ofGsd(2), held);
        assertThat(finding(said, "nose-held").level()).isEqualTo(Finding.Level.STOP);
        assertThat(finding(said, "wing-tilted").sentence()).contains("4 ways");
        assertThat(said(Aircraft.smallMultirotor(), Pins.ofGsd(2), held))
                .noneMatch(one -> one.key().equals("nose-held"));
    }

    @Test
    void aPinThatDoesNotApplyIsKeptAndSaid() {
        Corridor corridor = Corridor.usual(List.of(Samples.at(0, 0), Samples.at(500, 20)));
        Pins pins = Pins.ofGsd(2).with(Quantity.DIRECTION, Measure.of(33, Unit.DEGREE));
        List<Finding> said = said(Aircraft.smallMultirotor(), pins, Patterns.SINGLE.along(Optional.of(corridor)));
        assertThat(finding(said, "direction-unused").sentence()).contains("33");
    }
}

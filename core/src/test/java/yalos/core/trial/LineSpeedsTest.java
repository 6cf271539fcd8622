package yalos.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import java.util.OptionalInt;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.flight.Line;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.Patterns;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What a wind does strip by strip, by hand. */
class LineSpeedsTest {
    private static final double SHUTTER_S = 1 / 1000.0;

    private static BlockPlan plan(double windFromDeg, Patterns patterns) {
        Pins pins = Pins.ofGsd(3)
                .with(Quantity.DIRECTION, Measure.of(0, Unit.DEGREE))
                .with(Quantity.SPEED, Measure.of(15, Unit.METRE_PER_SECOND))
                .with(Quantity.SHUTTER_TIME, Measure.of(SHUTTER_S, Unit.SECOND))
                .with(Quantity.WIND, Measure.of(5, Unit.METRE_PER_SECOND))
                .with(Quantity.WIND_FROM, Measure.of(windFromDeg, Unit.DEGREE));
        return new PlanRequest(
                        Kit.of(Aircraft.smallWing(), Samples.twentyMegapixel()),
                        pins,
                        Samples.square(500),
                        Optional.empty(),
                        OptionalInt.of(32630))
                .with(patterns)
                .plan();
    }

    /** The wind at the height flown along a strip: 15 − w against it, 15 + w with it, no crab; the interval is base over ground speed, blur ground speed by shutter over GSD. */
    @Test
    void againstTheWindAndWithIt() {
        BlockPlan plan = plan(0, Patterns.SINGLE);
        double wind = plan.wind().orElseThrow().speedMps();
        double convergence = plan.wind().orElseThrow().fromRad();
        for (Line line : plan.flight().lines()) {
            LineSpeeds.OfLine speeds = LineSpeeds.of(plan, line);
            double along = wind * Math.cos(line.trackRad() - convergence);
            double across = wind * Math.sin(line.trackRad() - convergence);
            double ground = Math.sqrt(15 * 15 - across * across) - along;
            assertThat(speeds.groundMps()).isCloseTo(ground, Offset.offset(1e-6));
            assertThat(speeds.crabRad()).isCloseTo(Math.abs(Math.asin(across / 15)), Offset.offset(1e-6));
            assertThat(speeds.intervalS())
                    .isCloseTo(line.lengthM() / (line.exposures() - 1) / ground, Offset.offset(1e-6));
            assertThat(speeds.blurPx())
                    .isCloseTo(ground * SHUTTER_S / plan.design().scale().gsdAlongM(), Offset.offset(1e-6));
        }
    }

    /** A crossing at half the height has half the GSD: twice the blur at one ground speed. */
    @Test
    void anotherHeightBlursOtherwise() {
        double heightM = plan(90, Patterns.SINGLE).design().scale().heightM();
        AddedPass.Own half =
                new AddedPass.Own(Optional.of(Measure.of(heightM / 2, Unit.METRE)), Optional.empty(), Optional.empty());
        BlockPlan plan = plan(90, Patterns.SINGLE.adding(Crossing.SQUARE.with(half)));
        for (Line line : plan.flight().lines()) {
            LineSpeeds.OfLine speeds = LineSpeeds.of(plan, line);
            double gsd = plan.design().scale().gsdAlongM() / (line.pass() == 1 ? 1 : 2);
            assertThat(speeds.blurPx()).isCloseTo(speeds.groundMps() * SHUTTER_S / gsd, Offset.offset(1e-3));
        }
    }
}

package yalos.core.pins;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** What a pin pushes out comes back when it is released. */
class PinsTest {
    private static final Measure GSD = Measure.of(2, Unit.CENTIMETRE);
    private static final Measure PHOTOS = Measure.of(400, Unit.COUNT);

    @Test
    void aScaleThatACostPushedOutComesBack() {
        Pins cost = Pins.ofGsd(2).pinned(Quantity.PHOTOS, PHOTOS);
        assertThat(cost.has(Quantity.GSD)).isFalse();
        Pins back = cost.restored(Quantity.PHOTOS).orElseThrow();
        assertThat(back.asMap()).isEqualTo(Map.of(Quantity.GSD, GSD));
    }

    @Test
    void aHeightPinnedOverAGsdGivesItBack() {
        Pins height = Pins.ofGsd(2).pinned(Quantity.HEIGHT, Measure.of(80, Unit.METRE));
        assertThat(height.asMap()).containsOnlyKeys(Quantity.HEIGHT);
        assertThat(height.restored(Quantity.HEIGHT).orElseThrow().of(Quantity.GSD))
                .contains(GSD);
    }

    @Test
    void anOverlapThatAStepPushedOutComesBack() {
        Pins step = Pins.ofGsd(2)
                .pinned(Quantity.SIDE_OVERLAP, Measure.of(75, Unit.PERCENT))
                .pinned(Quantity.STRIP_SPACING, Measure.of(30, Unit.METRE));
        assertThat(step.has(Quantity.SIDE_OVERLAP)).isFalse();
        Pins back = step.restored(Quantity.STRIP_SPACING).orElseThrow();
        assertThat(back.of(Quantity.SIDE_OVERLAP)).contains(Measure.of(75, Unit.PERCENT));
        assertThat(back.has(Quantity.STRIP_SPACING)).isFalse();
    }

    @Test
    void whatSomebodyPinnedSinceIsNotPushedOutByWhatComesBack() {
        Pins pins = Pins.ofGsd(2).pinned(Quantity.PHOTOS, PHOTOS).pinned(Quantity.HEIGHT, Measure.of(90, Unit.METRE));
        assertThat(pins.restored(Quantity.PHOTOS))
                .as("the height fixes the scale now, and the GSD would push it out")
                .isEmpty();
        assertThat(pins.without(Quantity.PHOTOS).asMap()).containsOnlyKeys(Quantity.HEIGHT);
    }

    /** GSD, pushed out by a height, pushed out by a cost: releasing the cost brings the height, then the height the GSD. */
    @Test
    void whatWasPushedOutInTurnsComesBackInTurns() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.HEIGHT, Measure.of(80, Unit.METRE))
                .pinned(Quantity.FLIGHT_TIME, Measure.of(20, Unit.MINUTE));
        Pins back = pins.restored(Quantity.FLIGHT_TIME).orElseThrow();
        assertThat(back.has(Quantity.GSD) ^ back.has(Quantity.HEIGHT)).isTrue();
    }

    @Test
    void typingAPinAgainForgetsNothing() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.PHOTOS, PHOTOS)
                .pinned(Quantity.PHOTOS, Measure.of(300, Unit.COUNT))
                .pinned(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE));
        assertThat(pins.restored(Quantity.PHOTOS).orElseThrow().of(Quantity.GSD))
                .contains(GSD);
    }

    @Test
    void nothingComesBackWhereNothingWasPushedOut() {
        Pins pins = Pins.ofGsd(2).pinned(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE));
        assertThat(pins.restored(Quantity.DIRECTION)).isEmpty();
        assertThat(pins.without(Quantity.DIRECTION).asMap()).containsOnlyKeys(Quantity.GSD);
    }
}

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
        Pins back = cost.released(Quantity.PHOTOS).orElseThrow();
        assertThat(back.asMap()).isEqualTo(Map.of(Quantity.GSD, GSD));
    }

    @Test
    void aHeightPinnedOverAGsdGivesItBack() {
        Pins height = Pins.ofGsd(2).pinned(Quantity.HEIGHT, Measure.of(80, Unit.METRE));
        assertThat(height.asMap()).containsOnlyKeys(Quantity.HEIGHT);
        assertThat(height.released(Quantity.HEIGHT).orElseThrow().of(Quantity.GSD))
                .contains(GSD);
    }

    @Test
    void anOverlapThatAStepPushedOutComesBack() {
        Pins step = Pins.ofGsd(2)
                .pinned(Quantity.SIDE_OVERLAP, Measure.of(75, Unit.PERCENT))
                .pinned(Quantity.STRIP_SPACING, Measure.of(30, Unit.METRE));
        assertThat(step.has(Quantity.SIDE_OVERLAP)).isFalse();
        Pins back = step.released(Quantity.STRIP_SPACING).orElseThrow();
        assertThat(back.of(Quantity.SIDE_OVERLAP)).contains(Measure.of(75, Unit.PERCENT));
        assertThat(back.has(Quantity.STRIP_SPACING)).isFalse();
    }

    @Test
    void whatSomebodyPinnedSinceIsNotPushedOutByWhatComesBack() {
        Pins pins = Pins.ofGsd(2).pinned(Quantity.PHOTOS, PHOTOS).pinned(Quantity.HEIGHT, Measure.of(90, Unit.METRE));
        assertThat(pins.released(Quantity.PHOTOS).orElseThrow().asMap())
                .as("the height fixes the scale now, and the GSD would push it out")
                .containsOnlyKeys(Quantity.HEIGHT);
    }

    /** A GSD pushed out by a height, the height by a time: the time gives the height back, and the height the GSD. */
    @Test
    void whatWasPushedOutInTurnsComesBackInTurns() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.HEIGHT, Measure.of(80, Unit.METRE))
                .pinned(Quantity.FLIGHT_TIME, Measure.of(20, Unit.MINUTE));
        Pins height = pins.released(Quantity.FLIGHT_TIME).orElseThrow();
        assertThat(height.asMap()).isEqualTo(Map.of(Quantity.HEIGHT, Measure.of(80, Unit.METRE)));
        assertThat(height.released(Quantity.HEIGHT).orElseThrow().asMap()).isEqualTo(Map.of(Quantity.GSD, GSD));
    }

    /** What a pin had pushed out long ago is forgotten when it is set anew after it was gone. */
    @Test
    void aPinSetAnewRemembersOnlyWhatItPushesOutNow() {
        Pins anew = Pins.ofGsd(2)
                .pinned(Quantity.HEIGHT, Measure.of(80, Unit.METRE))
                .pinned(Quantity.GSD, Measure.of(3, Unit.CENTIMETRE))
                .pinned(Quantity.HEIGHT, Measure.of(90, Unit.METRE));
        assertThat(anew.released(Quantity.HEIGHT).orElseThrow().of(Quantity.GSD))
                .contains(Measure.of(3, Unit.CENTIMETRE));
    }

    @Test
    void typingAPinAgainForgetsNothing() {
        Pins pins = Pins.ofGsd(2)
                .pinned(Quantity.PHOTOS, PHOTOS)
                .pinned(Quantity.PHOTOS, Measure.of(300, Unit.COUNT))
                .pinned(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE));
        assertThat(pins.released(Quantity.PHOTOS).orElseThrow().of(Quantity.GSD))
                .contains(GSD);
    }

    @Test
    void nothingComesBackWhereNothingWasPushedOut() {
        Pins pins = Pins.ofGsd(2).pinned(Quantity.DIRECTION, Measure.of(30, Unit.DEGREE));
        assertThat(pins.released(Quantity.DIRECTION).orElseThrow().asMap()).containsOnlyKeys(Quantity.GSD);
        assertThat(pins.released(Quantity.GSD))
                .as("nothing else fixes the scale")
                .isEmpty();
    }

    /** An exposure is spoken of as cameras name it, whatever it was typed as. */
    @Test
    void aShutterTimeIsAFractionInWords() {
        assertThat(Quantity.SHUTTER_TIME.typed(Measure.of(0.0005, Unit.SECOND))).isEqualTo("1/2000 s");
        assertThat(Quantity.INTERVAL.typed(Measure.of(0.5, Unit.SECOND))).isEqualTo("0.5 s");
    }
}

package yalos.core.units;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimesTest {
    @ParameterizedTest
    @CsvSource({
        "0, 0 min, 0:00 min",
        "59, 1 min, 0:59 min",
        "89.9, 1 min, 1:29 min",
        "3569, 59 min, 59:29 min",
        "3570, 1 h 00 min, 59:30 min",
        "4259.9, 1 h 11 min, 1 h 10 min",
        "4200, 1 h 10 min, 1 h 10 min"
    })
    void areReadToTheMinuteOrRoundedDown(double seconds, String minutes, String pause) {
        assertThat(Times.minutes(seconds)).isEqualTo(minutes);
        assertThat(Times.pause(seconds)).isEqualTo(pause);
    }

    /** Against a wind that cannot be held a flight never ends. */
    @Test
    void whatIsNeverDoneHasNoTime() {
        assertThat(Times.minutes(Double.POSITIVE_INFINITY)).isEqualTo("–");
        assertThat(Times.pause(Double.NaN)).isEqualTo("–");
        assertThat(Times.more(600, 690)).isEqualTo("+1.5 min");
        assertThat(Times.more(600, 597.1)).isEqualTo("same time");
        assertThat(Times.more(600, 594)).isEqualTo("-0.1 min");
        assertThat(Times.more(600, 600 + 3590)).isEqualTo("+59.8 min");
        assertThat(Times.more(600, 600 + 7428)).isEqualTo("+2 h 04 min");
        assertThat(Times.more(8000, 600)).isEqualTo("-2 h 03 min");
        assertThat(Times.more(Double.POSITIVE_INFINITY, 4200)).isEqualTo("1 h 10 min in the air");
        assertThat(Times.more(600, Double.POSITIVE_INFINITY)).isEqualTo("still not to be flown");
    }
}

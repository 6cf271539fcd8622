package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A share is told to the nearest digit, and what is not whole is never told as whole. */
class SharesTest {
    @ParameterizedTest
    @CsvSource({
        "0, 0 %",
        "1, 100 %",
        "0.375, 37.5 %",
        "0.027777, 2.8 %",
        "0.98, 98.0 %",
        "0.9949, 99.49 %",
        "0.0041, 0.41 %",
        "0.99999, 99.99 %",
        "0.000000001, 0.01 %"
    })
    void nothingButAWholeIsAHundredPercent(double share, String words) {
        assertThat(Shares.percent(share)).isEqualTo(words);
    }
}

package yalos.core.units;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoundFiguresTest {
    @ParameterizedTest
    @CsvSource({
        "1, 1, 1",
        "1.9999999, 2, 2",
        "2.0000001, 2, 2",
        "3, 2, 5",
        "4.9, 2, 5",
        "5, 5, 5",
        "7, 5, 10",
        "10, 10, 10",
        "0.03, 0.02, 0.05",
        "0.0999999999, 0.1, 0.1",
        "1234, 1000, 2000",
        "0, 1e-9, 1e-9",
    })
    void oneTwoOrFive(double figure, double below, double above) {
        assertThat(RoundFigures.upTo(figure)).isCloseTo(below, within(1e-9 * below));
        assertThat(RoundFigures.from(figure)).isCloseTo(above, within(1e-9 * above));
    }

    @Test
    void limitsAreEvenAndFew() {
        assertThat(RoundFigures.limits(0.21, 0.93, 6, 0.01))
                .usingElementComparator((a, b) -> Math.abs(a - b) < 1e-9 ? 0 : 1)
                .isEqualTo(List.of(0.4, 0.6, 0.8));
        assertThat(RoundFigures.limits(3, 3, 6, 0.01)).as("one figure alone").hasSize(1);
        assertThat(RoundFigures.limits(0, 1e9, 6, 0.01)).hasSizeBetween(3, 6).isSorted();
    }
}

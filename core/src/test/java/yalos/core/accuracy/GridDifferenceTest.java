package yalos.core.accuracy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import yalos.core.fault.InputFault;
import yalos.core.terrain.HeightGrid;

/** Two surfaces made of one formula, the later moved by a known shift and built upon. */
class GridDifferenceTest {
    private static final int SIDE = 120;

    private interface Ground {
        double at(double x, double y);
    }

    private static HeightGrid grid(Ground ground, double noise, long seed) {
        Random random = new Random(seed);
        float[] heights = new float[SIDE * SIDE];
        for (int row = 0; row < SIDE; row++) {
            for (int column = 0; column < SIDE; column++) {
                heights[row * SIDE + column] = (float) (ground.at(column, -row) + noise * random.nextGaussian());
            }
        }
        return new HeightGrid(0, 0, 1, 1, SIDE, SIDE, heights);
    }

    private static double hill(double x, double y) {
        return 12 * Math.sin(x / 17) + 9 * Math.cos(y / 13) + 0.1 * x;
    }

    @Test
    void aShiftIsFoundBesideWhatWasBuilt() {
        HeightGrid earlier = grid(GridDifferenceTest::hill, 0.01, 1);
        HeightGrid later = grid(
                (x, y) -> hill(x - 0.3, y + 0.2) + 0.15 + (x > 40 && x < 55 && y < -40 && y > -60 ? 3 : 0), 0.01, 2);
        GridDifference found = GridDifference.of(later, earlier);

        assertThat(found.eastM()).isCloseTo(0.3, within(0.02));
        assertThat(found.northM()).isCloseTo(-0.2, within(0.02));
        assertThat(found.upM()).isCloseTo(0.15, within(0.01));
        assertThat(found.leftM()).isLessThan(0.03);
        assertThat(found.changed()).isCloseTo(14.0 * 19 / (SIDE * SIDE), within(0.02));
    }

    @Test
    void levelGroundSaysNothingSideways() {
        GridDifference found = GridDifference.of(grid((x, y) -> 0.05, 0.01, 1), grid((x, y) -> 0, 0.01, 2));

        assertThat(found.eastM()).isNaN();
        assertThat(found.upM()).isCloseTo(0.05, within(0.002));
        assertThat(found.medianM()).isCloseTo(0.05, within(0.002));
    }

    @Test
    void modelsThatDoNotMeetAreRefused() {
        HeightGrid nothing = grid((x, y) -> Double.NaN, 0, 1);

        assertThatThrownBy(() -> GridDifference.of(nothing, grid((x, y) -> 0, 0, 1)))
                .isInstanceOf(InputFault.class);
    }
}

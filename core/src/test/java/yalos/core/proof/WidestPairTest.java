package yalos.core.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The widest pair of rays against all pairs tried, for bundles narrow and wide, and where the angle is known. */
class WidestPairTest {
    private static double brute(double[] rays, int count) {
        double widest = 0;
        for (int a = 0; a < count; a++) {
            for (int b = a + 1; b < count; b++) {
                double x = rays[3 * a + 1] * rays[3 * b + 2] - rays[3 * a + 2] * rays[3 * b + 1];
                double y = rays[3 * a + 2] * rays[3 * b] - rays[3 * a] * rays[3 * b + 2];
                double z = rays[3 * a] * rays[3 * b + 1] - rays[3 * a + 1] * rays[3 * b];
                double cosine = rays[3 * a] * rays[3 * b]
                        + rays[3 * a + 1] * rays[3 * b + 1]
                        + rays[3 * a + 2] * rays[3 * b + 2];
                widest = Math.max(widest, Math.atan2(Math.sqrt(x * x + y * y + z * z), cosine));
            }
        }
        return widest;
    }

    private static double[] rays(double... directions) {
        double[] rays = new double[directions.length / 3 * 3];
        for (int i = 0; i < rays.length; i += 3) {
            double length = Math.sqrt(directions[i] * directions[i]
                    + directions[i + 1] * directions[i + 1]
                    + directions[i + 2] * directions[i + 2]);
            for (int axis = 0; axis < 3; axis++) {
                rays[i + axis] = directions[i + axis] / length;
            }
        }
        return rays;
    }

    @Test
    void whereItIsKnown() {
        WidestPair widest = new WidestPair(8);
        assertThat(widest.angleRad(rays(1, 0, 0, 0, 1, 0), 2)).isCloseTo(Math.PI / 2, within(1e-12));
        assertThat(widest.angleRad(rays(1, 0, 0, -1, 0, 0, 0, 0, 1), 3)).isCloseTo(Math.PI, within(1e-12));
        assertThat(widest.angleRad(rays(0, 0, 1, 0, 0, 1, 0, 0, 1), 3)).isZero();
        // Three evenly round a circle: no two are farther apart than 120°.
        assertThat(widest.angleRad(rays(1, 0, 0, -0.5, Math.sqrt(0.75), 0, -0.5, -Math.sqrt(0.75), 0), 3))
                .isCloseTo(2 * Math.PI / 3, within(1e-12));
        // Of a buffer only so many count.
        assertThat(widest.angleRad(rays(1, 0, 0, 1, 0.01, 0, -1, 0, 0), 2)).isCloseTo(Math.atan(0.01), within(1e-12));
    }

    @ParameterizedTest
    @CsvSource({"1e-6, 40", "0.02, 3", "0.3, 60", "1, 25", "5, 120"})
    void agreesWithAllPairs(double spread, int count) {
        Random random = new Random(count);
        WidestPair widest = new WidestPair(count);
        for (int run = 0; run < 300; run++) {
            double[] directions = new double[3 * count];
            for (int i = 0; i < directions.length; i += 3) {
                directions[i] = spread * random.nextGaussian();
                directions[i + 1] = spread * random.nextGaussian() * 0.3;
                directions[i + 2] = 1;
            }
            double[] rays = rays(directions);
            double expected = brute(rays, count);
            assertThat(widest.angleRad(rays, count)).as("run %d", run).isCloseTo(expected, within(1e-9));
        }
    }
}

package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** Held against trying every pairing. */
class AssignmentTest {
    private static final double ALONE = 1.2;

    @Test
    void costsNoMoreThanTheBestOfAllPairings() {
        Random random = new Random(14);
        for (int round = 0; round < 400; round++) {
            int rows = 1 + random.nextInt(6);
            int columns = 1 + random.nextInt(6);
            double[][] cost = new double[rows][columns];
            for (double[] row : cost) {
                for (int j = 0; j < columns; j++) {
                    row[j] = random.nextInt(4) == 0 ? Double.POSITIVE_INFINITY : 2 * random.nextDouble();
                }
            }
            int[] found = Assignment.least(cost, ALONE);

            assertThat(cost(cost, found)).isCloseTo(best(cost, 0, 0), within(1e-12));
        }
    }

    private static double cost(double[][] cost, int[] found) {
        double sum = 0;
        boolean[] used = new boolean[cost[0].length];
        for (int i = 0; i < found.length; i++) {
            if (found[i] >= 0) {
                assertThat(used[found[i]]).isFalse();
                used[found[i]] = true;
            }
            sum += found[i] < 0 ? ALONE : cost[i][found[i]];
        }
        return sum;
    }

    private static double best(double[][] cost, int row, int used) {
        if (row == cost.length) {
            return 0;
        }
        double best = ALONE + best(cost, row + 1, used);
        for (int j = 0; j < cost[row].length; j++) {
            if ((used & 1 << j) == 0) {
                best = Math.min(best, cost[row][j] + best(cost, row + 1, used | 1 << j));
            }
        }
        return best;
    }
}

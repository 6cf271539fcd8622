package yalos.core.take;

import java.util.Arrays;

/**
 * Who goes with whom at the least cost in all? Rows with columns, each at most once; a row may stay alone.
 *
 * <p>The Hungarian method in the form of shortest augmenting paths with potentials (Kuhn 1955, Jonker and Volgenant 1987; from memory), n³ for n rows; exact.
 */
final class Assignment {
    private Assignment() {}

    /**
     * @param cost of row i with column j; infinite where they cannot go together
     * @param alone what a row costs that goes with nobody
     * @return for each row its column, -1 for none
     */
    static int[] least(double[][] cost, double alone) {
        int rows = cost.length;
        int columns = rows == 0 ? 0 : cost[0].length;
        // A column of its own for each row lets it stay alone.
        int all = columns + rows;
        double never = alone * rows * 4 + 1e6;
        double[][] full = new double[rows][all];
        for (int i = 0; i < rows; i++) {
            for (int j = 0; j < all; j++) {
                double own = j - columns == i ? alone : never;
                full[i][j] = j < columns ? Math.min(never, cost[i][j]) : own;
            }
        }
        int[] rowOf = solved(full, rows, all);
        int[] columnOf = new int[rows];
        Arrays.fill(columnOf, -1);
        for (int j = 0; j < columns; j++) {
            if (rowOf[j + 1] > 0 && Double.isFinite(cost[rowOf[j + 1] - 1][j])) {
                columnOf[rowOf[j + 1] - 1] = j;
            }
        }
        return columnOf;
    }

    /** The row of each column, both counted from 1. */
    private static int[] solved(double[][] cost, int rows, int columns) {
        double[] u = new double[rows + 1];
        double[] v = new double[columns + 1];
        int[] rowOf = new int[columns + 1];
        int[] before = new int[columns + 1];
        for (int row = 1; row <= rows; row++) {
            rowOf[0] = row;
            int at = 0;
            double[] least = new double[columns + 1];
            boolean[] used = new boolean[columns + 1];
            Arrays.fill(least, Double.POSITIVE_INFINITY);
            do {
                used[at] = true;
                int here = rowOf[at];
                int next = 0;
                double step = Double.POSITIVE_INFINITY;
                for (int j = 1; j <= columns; j++) {
                    if (!used[j]) {
                        double reduced = cost[here - 1][j - 1] - u[here] - v[j];
                        if (reduced < least[j]) {
                            least[j] = reduced;
                            before[j] = at;
                        }
                        if (least[j] < step) {
                            step = least[j];
                            next = j;
                        }
                    }
                }
                for (int j = 0; j <= columns; j++) {
                    if (used[j]) {
                        u[rowOf[j]] += step;
                        v[j] -= step;
                    } else {
                        least[j] -= step;
                    }
                }
                at = next;
            } while (rowOf[at] != 0);
            while (at != 0) {
                rowOf[at] = rowOf[before[at]];
                at = before[at];
            }
        }
        return rowOf;
    }
}

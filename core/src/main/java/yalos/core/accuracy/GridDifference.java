package yalos.core.accuracy;

import java.util.Arrays;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.figures.Median;
import yalos.core.terrain.HeightGrid;

/**
 * Two surfaces of the same place: how far the later lies over the earlier, by how much all of it is shifted, and how much of it changed.
 *
 * <p>The shift is that by which the later surface, moved east, north and up, fits the earlier best on ground that did not change: {@code d = up - east dz/dx - north dz/dy}, least squares, what lies three spreads off left
 * out, four rounds (after Nuth and Kääb 2011, from memory). On level ground a shift sideways cannot be told.
 *
 * @param differenceM later less earlier, cell by cell; NaN where one of them knows nothing
 * @param medianM of all differences
 * @param spreadM robust, of all differences
 * @param eastM by which the later lies to the east; NaN where the ground is too level to tell
 * @param upM by which the later lies over the earlier once that is taken out
 * @param leftM robust spread once the shift is taken out
 * @param changed share of the cells that differ by more than three spreads then
 */
public record GridDifference(
        HeightGrid grid,
        float[] differenceM,
        int cells,
        double medianM,
        double spreadM,
        double eastM,
        double northM,
        double upM,
        double leftM,
        double changed) {
    private static final int ROUNDS = 4;
    private static final double STRAY = 3;
    private static final int LEAST = 30;
    private static final double SLOPED = 0.02;

    /**
     * @param earlier over the same cells as the later
     * @throws InputFault where too few cells are known in both
     */
    public static GridDifference of(HeightGrid later, HeightGrid earlier) {
        int columns = later.columns();
        int rows = later.rows();
        float[] difference = new float[columns * rows];
        Arrays.fill(difference, Float.NaN);
        int known = 0;
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                float d = later.cell(column, row) - earlier.cell(column, row);
                difference[row * columns + column] = d;
                known += Float.isNaN(d) ? 0 : 1;
            }
        }
        if (known < LEAST) {
            throw new InputFault(
                    "file",
                    known,
                    "The two models have %d cells of the block in common; that is too few to say anything."
                            .formatted(known));
        }
        double[] all = finite(difference);
        double median = Median.of(all);
        double spread = Median.spread(all);
        double[] shift = {Double.NaN, Double.NaN, median};
        double left = spread;
        boolean[] stable = new boolean[difference.length];
        for (int i = 0; i < stable.length; i++) {
            stable[i] = Math.abs(difference[i] - median) <= STRAY * Math.max(spread, 1e-4);
        }
        for (int round = 0; round < ROUNDS; round++) {
            Patience.check();
            shift = fitted(earlier, difference, stable);
            float[] rest = rest(earlier, difference, shift);
            left = Median.spread(finite(rest));
            for (int i = 0; i < stable.length; i++) {
                stable[i] = Math.abs(rest[i]) <= STRAY * Math.max(left, 1e-4);
            }
        }
        float[] rest = rest(earlier, difference, shift);
        int strays = 0;
        for (float one : rest) {
            strays += Math.abs(one) > STRAY * Math.max(left, 1e-4) ? 1 : 0;
        }
        return new GridDifference(
                later,
                difference,
                known,
                median,
                spread,
                shift[0],
                shift[1],
                shift[2],
                left,
                (double) strays / finite(rest).length);
    }

    private static double[] finite(float[] values) {
        double[] found = new double[values.length];
        int count = 0;
        for (float one : values) {
            if (!Float.isNaN(one)) {
                found[count++] = one;
            }
        }
        return Arrays.copyOf(found, count);
    }

    private static double slopeX(HeightGrid grid, int column, int row) {
        return (grid.cell(column + 1, row) - grid.cell(column - 1, row)) / (2 * grid.cellX());
    }

    private static double slopeY(HeightGrid grid, int column, int row) {
        return (grid.cell(column, row - 1) - grid.cell(column, row + 1)) / (2 * grid.cellY());
    }

    /** East, north and up; sideways NaN where slopes tell too little. */
    private static double[] fitted(HeightGrid grid, float[] difference, boolean[] stable) {
        double[][] normal = new double[3][4];
        double slopes = 0;
        int count = 0;
        for (int row = 1; row < grid.rows() - 1; row++) {
            for (int column = 1; column < grid.columns() - 1; column++) {
                int at = row * grid.columns() + column;
                double[] a = {-slopeX(grid, column, row), -slopeY(grid, column, row), 1};
                if (stable[at] && !Double.isNaN(a[0]) && !Double.isNaN(a[1])) {
                    for (int i = 0; i < 3; i++) {
                        for (int j = 0; j < 3; j++) {
                            normal[i][j] += a[i] * a[j];
                        }
                        normal[i][3] += a[i] * difference[at];
                    }
                    slopes += a[0] * a[0] + a[1] * a[1];
                    count++;
                }
            }
        }
        double up = count == 0 ? Double.NaN : normal[2][3] / count;
        if (count < LEAST || Math.sqrt(slopes / count) < SLOPED) {
            return new double[] {Double.NaN, Double.NaN, up};
        }
        return solved(normal);
    }

    /** Three equations, by elimination with the largest first. */
    private static double[] solved(double[][] n) {
        for (int i = 0; i < 3; i++) {
            int best = i;
            for (int k = i + 1; k < 3; k++) {
                best = Math.abs(n[k][i]) > Math.abs(n[best][i]) ? k : best;
            }
            double[] swap = n[i];
            n[i] = n[best];
            n[best] = swap;
            for (int k = i + 1; k < 3; k++) {
                double factor = n[k][i] / n[i][i];
                for (int j = i; j < 4; j++) {
                    n[k][j] -= factor * n[i][j];
                }
            }
        }
        double[] x = new double[3];
        for (int i = 2; i >= 0; i--) {
            double sum = n[i][3];
            for (int j = i + 1; j < 3; j++) {
                sum -= n[i][j] * x[j];
            }
            x[i] = sum / n[i][i];
        }
        return x;
    }

    /** What is left of the differences once a shift is taken out. */
    private static float[] rest(HeightGrid grid, float[] difference, double[] shift) {
        float[] rest = difference.clone();
        boolean level = Double.isNaN(shift[0]);
        for (int row = 0; row < grid.rows(); row++) {
            for (int column = 0; column < grid.columns(); column++) {
                int at = row * grid.columns() + column;
                boolean rim = row == 0 || column == 0 || row == grid.rows() - 1 || column == grid.columns() - 1;
                double side =
                        level || rim ? 0 : -shift[0] * slopeX(grid, column, row) - shift[1] * slopeY(grid, column, row);
                // The rim has no slope of its own.
                rest[at] = rim && !level ? Float.NaN : (float) (difference[at] - shift[2] - side);
            }
        }
        return rest;
    }
}

package yalos.core.network;

import java.util.Arrays;
import java.util.Optional;
import org.ejml.data.DMatrixSparseCSC;
import org.ejml.sparse.csc.decomposition.chol.CholeskyUpLooking_DSCC;
import yalos.core.fault.Patience;

/**
 * A symmetric matrix of which each row is kept from its first figure to the diagonal. Of its inverse the same places can be had without the rest (Takahashi, Fagan and Chen 1973,
 * from memory): they are all that a point asks for that hangs on them.
 */
final class Skyline {
    private final int[] first;
    private final double[][] rows;

    /** @param first column of each row that may hold a figure */
    Skyline(int[] first) {
        this.first = first;
        rows = new double[first.length][];
    }

    /** What its figures take, in bytes; nothing of it is taken before the first is added. */
    long bytes() {
        long figures = 0;
        for (int row = 0; row < first.length; row++) {
            figures += row - first[row] + 1L;
        }
        return figures * Double.BYTES;
    }

    /** Makes room for its figures, all 0. */
    Skyline laid() {
        for (int row = 0; row < rows.length; row++) {
            rows[row] = new double[row - first[row] + 1];
        }
        return this;
    }

    /** Adds to a place; what lies above the diagonal is the same as below it, and is passed over. */
    void add(int row, int column, double value) {
        if (column <= row) {
            rows[row][column - first[row]] += value;
        }
    }

    /** A figure, on either side of the diagonal. */
    double get(int row, int column) {
        return column <= row ? rows[row][column - first[row]] : rows[column][row - first[column]];
    }

    /** Its inverse, where it has one and it is positive, at the same places. */
    Optional<Skyline> inverse() {
        CholeskyUpLooking_DSCC cholesky = new CholeskyUpLooking_DSCC();
        return cholesky.decompose(upper()) ? Optional.of(inverse(cholesky.getL())) : Optional.empty();
    }

    /** Its factor L of L Lᵀ, where it is positive. */
    Optional<Factor> factor() {
        CholeskyUpLooking_DSCC cholesky = new CholeskyUpLooking_DSCC();
        return cholesky.decompose(upper()) ? Optional.of(new Factor(cholesky.getL())) : Optional.empty();
    }

    /** A lower factor by columns, the diagonal first in each. */
    record Factor(DMatrixSparseCSC lower) {
        /**
         * Solves L x = b in place for many right sides at once. The scalar product of two such halves is bᵀ A⁻¹ c.
         *
         * @param sides row by row, so many figures in each
         */
        void half(double[] sides, int width) {
            int size = lower.numCols;
            boolean[] filled = new boolean[size];
            for (int j = 0; j < size; j++) {
                Patience.check();
                int at = j * width;
                for (int k = at; k < at + width && !filled[j]; k++) {
                    filled[j] = sides[k] != 0;
                }
                if (!filled[j]) {
                    continue;
                }
                int from = lower.col_idx[j];
                double by = 1 / lower.nz_values[from];
                for (int k = at; k < at + width; k++) {
                    sides[k] *= by;
                }
                for (int i = from + 1; i < lower.col_idx[j + 1]; i++) {
                    int to = lower.nz_rows[i] * width;
                    double times = lower.nz_values[i];
                    filled[lower.nz_rows[i]] = true;
                    for (int k = 0; k < width; k++) {
                        sides[to + k] -= times * sides[at + k];
                    }
                }
            }
        }
    }

    /** Its upper triangle, by columns. */
    private DMatrixSparseCSC upper() {
        int count = Arrays.stream(rows).mapToInt(row -> row.length).sum();
        DMatrixSparseCSC upper = new DMatrixSparseCSC(rows.length, rows.length, count);
        int at = 0;
        for (int column = 0; column < rows.length; column++) {
            for (int i = 0; i < rows[column].length; i++) {
                upper.nz_rows[at] = first[column] + i;
                upper.nz_values[at++] = rows[column][i];
            }
            upper.col_idx[column + 1] = at;
        }
        upper.nz_length = count;
        upper.indicesSorted = true;
        return upper;
    }

    /**
     * From the last column to the first: of Z L = L⁻ᵀ each column of Z asks only for columns of it that come after, and only at places that are kept.
     *
     * @param lower factor, by columns
     */
    private Skyline inverse(DMatrixSparseCSC lower) {
        int size = rows.length;
        Skyline inverse = new Skyline(first).laid();
        double[] column = new double[size];
        double[] product = new double[size];
        for (int j = size - 1; j >= 0; j--) {
            Patience.check();
            int from = lower.col_idx[j];
            int to = lower.col_idx[j + 1];
            double diagonal = 0;
            int last = j;
            for (int i = from; i < to; i++) {
                int row = lower.nz_rows[i];
                if (row == j) {
                    diagonal = lower.nz_values[i];
                } else {
                    column[row] = lower.nz_values[i];
                    last = Math.max(last, row);
                }
            }
            multiply(inverse, j, last, column, product);
            double sum = 0;
            for (int i = j + 1; i <= last; i++) {
                if (first[i] <= j) {
                    inverse.rows[i][j - first[i]] = -product[i] / diagonal;
                    sum += product[i] * column[i];
                }
            }
            inverse.rows[j][j - first[j]] = (1 / diagonal + sum / diagonal) / diagonal;
            Arrays.fill(column, j, last + 1, 0);
        }
        return inverse;
    }

    /** The product of what is known of the inverse, right of and below a column, with that column of the factor. */
    private void multiply(Skyline inverse, int j, int last, double[] column, double[] product) {
        Arrays.fill(product, j + 1, last + 1, 0);
        for (int i = j + 1; i <= last; i++) {
            if (first[i] > j) {
                continue;
            }
            double[] row = inverse.rows[i];
            int off = first[i];
            double by = column[i];
            double sum = 0;
            for (int k = j + 1; k < i; k++) {
                double z = row[k - off];
                sum += z * column[k];
                product[k] += z * by;
            }
            product[i] += sum + row[i - off] * by;
        }
    }
}

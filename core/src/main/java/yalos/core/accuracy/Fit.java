package yalos.core.accuracy;

import java.util.Arrays;
import org.apache.commons.statistics.distribution.FDistribution;
import org.ejml.data.DMatrixRMaj;
import org.ejml.dense.row.factory.LinearSolverFactory_DDRM;
import org.ejml.interfaces.linsol.LinearSolverDense;

/**
 * Figures explained by a few others, by least squares; and whether that explains more than chance would.
 *
 * @param factors one for each column
 * @param left sum of squares that is left
 * @param freedom figures less columns
 */
record Fit(double[] factors, double left, int freedom) {
    private static final double RARE = 0.01;

    /**
     * @param columns of each row what explains it
     * @return NaN factors where the columns tell nothing apart
     */
    static Fit of(double[][] columns, double[] figures) {
        int rows = figures.length;
        int count = columns[0].length;
        DMatrixRMaj a = new DMatrixRMaj(columns);
        DMatrixRMaj b = new DMatrixRMaj(rows, 1, true, figures);
        DMatrixRMaj x = new DMatrixRMaj(count, 1);
        LinearSolverDense<DMatrixRMaj> solver = LinearSolverFactory_DDRM.leastSquaresQrPivot(true, false);
        double[] factors = new double[count];
        if (rows < count || !solver.setA(a.copy())) {
            Arrays.fill(factors, Double.NaN);
            return new Fit(factors, Double.NaN, 0);
        }
        solver.solve(b, x);
        double left = 0;
        for (int i = 0; i < rows; i++) {
            double found = 0;
            for (int j = 0; j < count; j++) {
                found += columns[i][j] * x.get(j);
            }
            left += (figures[i] - found) * (figures[i] - found);
        }
        System.arraycopy(x.getData(), 0, factors, 0, count);
        return new Fit(factors, left, rows - count);
    }

    /** Whether it explains more than a poorer one by more than chance in a hundred, by the F test. */
    boolean betterThan(Fit poorer) {
        int more = poorer.freedom - freedom;
        if (freedom < 1 || more < 1 || Double.isNaN(left)) {
            return false;
        }
        double worth = Math.max(left, 1e-12);
        double f = (poorer.left - left) / more / (worth / freedom);
        return f > 0 && FDistribution.of(more, freedom).survivalProbability(f) < RARE;
    }
}

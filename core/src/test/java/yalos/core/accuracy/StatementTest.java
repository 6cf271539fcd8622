package yalos.core.accuracy;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import yalos.core.Reference;

/** Reference section 10: sets of residuals worked out with exact fractions. */
class StatementTest {
    private static List<Residual> residuals(String set) {
        return Reference.rows("accuracy_residuals.csv")
                .filter(row -> row.text("set").equals(set))
                .map(row -> new Residual(
                        row.text("point"),
                        Residual.Kind.CHECK,
                        OptionalDouble.of(row.number("dx_m")),
                        OptionalDouble.of(row.number("dy_m")),
                        OptionalDouble.of(row.number("dz_m")),
                        Optional.empty(),
                        OptionalDouble.empty(),
                        ""))
                .toList();
    }

    @TestFactory
    List<DynamicTest> setsAmountToWhatExactFractionsSay() {
        return Reference.rows("accuracy_sets.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("set"), () -> amounts(row)))
                .toList();
    }

    private static void amounts(Reference.Row row) {
        Statement all =
                Statement.of(residuals(row.text("set")), row.number("survey_rmse_h_m"), row.number("survey_rmse_z_m"));

        same(all.east(), row, "x");
        same(all.north(), row, "y");
        same(all.up(), row, "z");
        assertThat(all.rmseLevelM()).isCloseTo(row.number("rmse_h_m"), within(1e-9));
        assertThat(all.rmseSpaceM()).isCloseTo(row.number("rmse_3d_m"), within(1e-9));
        assertThat(all.wholeLevelM()).isCloseTo(row.number("combined_rmse_h_m"), within(1e-9));
        assertThat(all.wholeUpM()).isCloseTo(row.number("combined_rmse_z_m"), within(1e-9));
        assertThat(all.wholeSpaceM()).isCloseTo(row.number("combined_rmse_3d_m"), within(1e-9));
        assertThat(all.up95M()).isCloseTo(row.number("nssda_z95_m"), within(1e-9));
        assertThat(all.level95M().isPresent()).isEqualTo(!row.isEmpty("nssda_h95_m"));
        all.level95M().ifPresent(level -> assertThat(level).isCloseTo(row.number("nssda_h95_m"), within(1e-9)));
        assertThat(all.outliers()).hasSize(row.whole("outliers"));
        List<Integer> told = Reference.rows("accuracy_residuals.csv")
                .filter(one -> one.text("set").equals(row.text("set"))
                        && one.text("outlier_any").equals("1"))
                .map(one -> one.whole("point"))
                .toList();
        assertThat(all.outliers().stream().map(index -> index + 1)).isEqualTo(told);
        assertThat(all.enoughForClass()).isEqualTo(row.whole("n") >= 30);
    }

    private static void same(Axis axis, Reference.Row row, String name) {
        assertThat(axis.count()).isEqualTo(row.whole("n"));
        assertThat(axis.mean()).isCloseTo(row.number("mean_" + name + "_m"), within(1e-9));
        assertThat(axis.deviation()).isCloseTo(row.number("std_" + name + "_m"), within(1e-9));
        assertThat(axis.rmse()).isCloseTo(row.number("rmse_" + name + "_m"), within(1e-9));
        assertThat(Math.abs(axis.worst())).isCloseTo(row.number("max_abs_" + name + "_m"), within(1e-9));
    }

    /** Tables of any textbook: t(4, 97.5 %) = 2.776, chi-square(10, 2.5 %) = 3.247 and (97.5 %) = 20.483. */
    @Test
    void fewPointsSayLittle() {
        Axis five = Axis.of(new double[] {1, 2, 3, 4, 5});
        Axis ten = Axis.of(new double[] {1, -1, 1, -1, 1, -1, 1, -1, 1, -1});

        assertThat(five.meanRange().to()).isCloseTo(3 + 2.776 * Math.sqrt(2.5) / Math.sqrt(5), within(1e-3));
        assertThat(five.shifted()).isTrue();
        assertThat(ten.shifted()).isFalse();
        assertThat(ten.rmseRange().from()).isCloseTo(Math.sqrt(10 / 20.483), within(1e-4));
        assertThat(ten.rmseRange().to()).isCloseTo(Math.sqrt(10 / 3.247), within(1e-4));
    }

    @Test
    void residualsAllEqualHaveNoSpread() {
        Axis all = Axis.of(new double[] {0.02, 0.02, 0.02});

        assertThat(all.deviation()).isZero();
        assertThat(all.shifted()).isTrue();
        assertThat(all.outliers()).containsOnly(false);
    }

    @Test
    void whatWasForetoldIsTestedBothWays() {
        double[] sigmas = {0.02, 0.02, 0.02, 0.02, 0.02, 0.02, 0.02, 0.02};
        double[] fit = {0.02, -0.018, 0.011, -0.022, 0.015, 0.024, -0.019, 0.021};

        assertThat(Foreseen.of(fit, sigmas).answer()).isEqualTo(Foreseen.Answer.FITS);
        double[] worse = Arrays.stream(fit).map(d -> 3 * d).toArray();
        assertThat(Foreseen.of(worse, sigmas).answer()).isEqualTo(Foreseen.Answer.WORSE);
        double[] better = Arrays.stream(fit).map(d -> d / 5).toArray();
        assertThat(Foreseen.of(better, sigmas).answer()).isEqualTo(Foreseen.Answer.TOO_GOOD);
    }

    /** One degree of freedom: a residual of 1.96 sigma is passed by chance in one of twenty, 2.5 % on this side is 2.24 sigma (normal table). */
    @Test
    void chanceIsThatOfTheTable() {
        assertThat(Foreseen.of(new double[] {1.96}, new double[] {1}).chance()).isCloseTo(0.05, within(1e-4));
    }
}

package yalos.web.accuracy;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import yalos.core.accuracy.Residual;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.figure.Chart;

/** Residuals of one axis as a histogram: how many lie where, nought in the middle. */
final class AccuracyCharts {
    private static final int WIDTH = 300;
    private static final int HEIGHT = 128;
    private static final int BINS = 14;

    private AccuracyCharts() {}

    /** A chart with its name. */
    public record Named(String name, String svg) {}

    static List<Named> of(List<Residual> checks, UnitChoice units) {
        return List.of(
                        named("dE", checks.stream().map(Residual::eastM).toList(), units),
                        named("dN", checks.stream().map(Residual::northM).toList(), units),
                        named("dH", checks.stream().map(Residual::upM).toList(), units))
                .stream()
                .filter(chart -> !chart.svg().isEmpty())
                .toList();
    }

    private static Named named(String name, List<OptionalDouble> all, UnitChoice units) {
        double[] figures = all.stream()
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .toArray();
        return new Named(name, figures.length == 0 ? "" : histogram(name, figures, units.unit(UnitKind.GSD)));
    }

    private static String histogram(String name, double[] metres, Unit unit) {
        double[] figures = Arrays.stream(metres).map(unit::ofSi).toArray();
        double most = Math.max(1e-6, Arrays.stream(figures).map(Math::abs).max().orElse(1)) * 1.1;
        double reach = rounded(most);
        int[] counts = new int[BINS];
        for (double one : figures) {
            counts[(int) Math.min(BINS - 1, Math.floor((one + reach) / (2 * reach) * BINS))]++;
        }
        int high = Arrays.stream(counts).max().orElse(1);
        Chart chart = new Chart(WIDTH, HEIGHT, "Histogram of " + name)
                .within(24, 10, 26, 22)
                .over(-reach, reach, 0, high)
                .axes(
                        reach / 2,
                        Math.max(1, Math.ceil(high / 4.0)),
                        x -> String.format(Locale.ROOT, Math.abs(reach) < 2 ? "%.1f" : "%.0f", x)
                                + (x == reach ? " " + unit.symbol() : ""),
                        y -> String.format(Locale.ROOT, "%.0f", y));
        double wide = 2 * reach / BINS;
        for (int i = 0; i < BINS; i++) {
            if (counts[i] > 0) {
                double left = chart.x(-reach + i * wide);
                double right = chart.x(-reach + (i + 1) * wide);
                chart.path(
                        "c-sortie residual-bar",
                        "M%.1f %.1fH%.1fV%.1fH%.1fZ",
                        left + 0.8,
                        chart.y(counts[i]),
                        right - 0.8,
                        chart.y(0),
                        left + 0.8);
            }
        }
        double mean = Arrays.stream(figures).average().orElse(0);
        chart.path("c-pin", "M%.1f %.1fV%.1f", chart.x(mean), chart.y(0), chart.y(high));
        return chart.svg();
    }

    private static double rounded(double most) {
        double power = Math.pow(10, Math.floor(Math.log10(most)));
        for (double step : new double[] {1, 2, 4, 5, 10}) {
            if (step * power >= most) {
                return step * power;
            }
        }
        return 10 * power;
    }
}

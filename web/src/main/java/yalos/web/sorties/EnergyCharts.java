package yalos.web.sorties;

import java.util.Locale;
import yalos.core.plan.BlockPlan;
import yalos.core.sortie.Draw;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.figure.Chart;

/** What flying draws, as charts: against airspeed, and along a sortie with what the way home takes. */
final class EnergyCharts {
    private static final int STEPS = 60;
    private static final double MINUTE_PERCENT = 6000;

    private EnergyCharts() {}

    /** Percent of a battery a minute against airspeed, the planned speed on it. */
    static String curve(Draw draw, BlockPlan plan, UnitChoice units) {
        double fastest = plan.request().aircraft().maxSpeedMps() * 1.15;
        double slowest = plan.request().aircraft().slowestMps();
        Unit speed = units.unit(UnitKind.SPEED);
        double[] xs = new double[STEPS + 1];
        double[] ys = new double[STEPS + 1];
        double highest = 0;
        for (int i = 0; i <= STEPS; i++) {
            xs[i] = slowest + (fastest - slowest) * i / STEPS;
            ys[i] = MINUTE_PERCENT * draw.level(xs[i]);
            highest = Math.max(highest, ys[i]);
        }
        double most = highest;
        double planned = plan.design().speedMps();
        double step = speed.ofSi(fastest) > 30 ? 10 : 5;
        Chart chart = new Chart(340, 130, "Percent of a battery a minute against airspeed")
                .within(30, 8, 10, 22)
                .over(speed.ofSi(slowest), speed.ofSi(fastest), 0, Math.ceil(most));
        double[] shown = new double[xs.length];
        for (int i = 0; i < xs.length; i++) {
            shown[i] = speed.ofSi(xs[i]);
        }
        double at = chart.x(speed.ofSi(planned));
        double up = chart.y(MINUTE_PERCENT * draw.level(planned));
        return chart.axes(
                        step,
                        most > 8 ? 4 : most > 3 ? 1 : 0.5,
                        value -> String.format(Locale.ROOT, "%.0f", value),
                        value -> String.format(Locale.ROOT, most > 3 ? "%.0f" : "%.1f", value))
                .line("c-line", shown, ys)
                .path("c-pin", "M%.1f %.1fV%.1f", at, chart.y(0), up)
                .path("c-dot", "M%.1f %.1fm-3.5 0a3.5 3.5 0 1 0 7 0a3.5 3.5 0 1 0-7 0", at, up)
                .text("c-word", at + 6, chart.y(0) - 5, "start", "planned")
                .text("c-tick", 338, 126, "end", speed.symbol())
                .text("c-tick", 34, 16, "start", "% a minute")
                .svg();
    }

    /** What is in the battery along a sortie, what the way home would take, and the reserve. */
    static String along(Sortie sortie, Charged charged, Sorties sorties) {
        double whole = sortie.seconds();
        double holds = (charged.charge() - charged.left()) / Math.max(1e-9, sortie.taken());
        double reserve = sorties.given().plan().request().aircraft().battery().reserve();
        int n = 160;
        double[] xs = new double[n + 1];
        double[] left = new double[n + 1];
        double[] needed = new double[n + 1];
        double[] floor = new double[n + 1];
        for (int i = 0; i <= n; i++) {
            double at = whole * i / n;
            xs[i] = at / 60;
            left[i] = 100 * (charged.charge() - holds * sortie.tally().at(at));
            double margin = sortie.marginAt(sorties.given().draw(), at);
            needed[i] = Math.max(100 * reserve, left[i] - 100 * holds * margin);
            floor[i] = 100 * reserve;
        }
        Chart chart = new Chart(
                        860,
                        168,
                        "Sortie %d: charge left, and what the way home would need, minute by minute"
                                .formatted(sortie.number()))
                .within(40, 10, 14, 24)
                .over(0, whole / 60, 0, 100);
        double[] nothing = new double[n + 1];
        double worst = chart.x(sortie.least().seconds() / 60);
        return chart.band("c-reserve", xs, floor, nothing)
                .band("c-needed", xs, needed, floor)
                .axes(
                        whole > 1800 ? 5 : 2,
                        25,
                        value -> String.format(Locale.ROOT, "%.0f", value),
                        value -> String.format(Locale.ROOT, "%.0f %%", value))
                .line("c-line", xs, left)
                .path("c-pin", "M%.1f %.1fV%.1f", worst, chart.y(100), chart.y(0))
                .text(
                        "c-word",
                        worst + (worst > 700 ? -5 : 5),
                        20,
                        worst > 700 ? "end" : "start",
                        "least margin, " + Percent.margin(charged.marginAtWorst()))
                .text("c-tick", 856, 164, "end", "min")
                .text("c-word", 50, chart.y(100 * reserve) + 14, "start", "reserve")
                .text("c-word", 120, chart.y(100 * reserve) + 14, "start", "shaded above it: what the way home takes")
                .svg();
    }
}

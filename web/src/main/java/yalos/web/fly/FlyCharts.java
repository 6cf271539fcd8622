package yalos.web.fly;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import yalos.core.rehearsal.Sample;
import yalos.core.rehearsal.SimulatedFlight;
import yalos.core.sortie.Surroundings;
import yalos.core.units.RoundFigures;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.figure.Chart;

/** Height over ground and battery over time, of what was flown. */
final class FlyCharts {
    private static final int MOST = 400;

    private FlyCharts() {}

    static String svg(SimulatedFlight flight, UnitChoice units) {
        List<Sample> all = flight.samples();
        int every = Math.max(1, all.size() / MOST);
        int n = all.isEmpty() ? 0 : (all.size() - 1) / every + 1;
        double unit = units.unit(UnitKind.HEIGHT).size();
        Surroundings around = flight.sorties().given().around();
        double zero = flight.sortie().homing().takeOffUpM();
        double[] xs = new double[n];
        double[] path = new double[n];
        double[] ground = new double[n];
        double[] floor = new double[n];
        double[] charge = new double[n];
        double[] home = new double[n];
        double least = 0;
        double most = 10 / unit;
        for (int i = 0; i < n; i++) {
            Sample one = all.get(i * every);
            xs[i] = one.seconds() / 60;
            path[i] = (one.truly().upM() - zero) / unit;
            double below = around.groundM(one.truly().point());
            ground[i] = Double.isNaN(below) ? 0 : (below - zero) / unit;
            charge[i] = 100 * one.charge();
            home[i] = Math.min(100, 100 * one.home());
            least = Math.min(least, Math.min(path[i], ground[i]));
            most = Math.max(most, Math.max(path[i], ground[i]));
        }
        Arrays.fill(floor, least);
        double minutes = Math.max(flight.sortie().seconds() / 60, n == 0 ? 0 : xs[n - 1]);
        double step = minutes > 25 ? 5 : minutes > 8 ? 2 : 1;
        Chart height = new Chart(430, 150, "Height over time, above take-off, with the ground below")
                .within(40, 10, 30, 22)
                .over(0, minutes, least, most * 1.08)
                .axes(step, tick(most - least), FlyCharts::whole, FlyCharts::whole);
        Chart battery = new Chart(430, 150, "Battery over time, and what coming home needs of it")
                .within(40, 10, 30, 22)
                .over(0, minutes, 0, 100)
                .axes(step, 25, FlyCharts::whole, value -> whole(value) + " %");
        if (n > 1) {
            double[] nothing = new double[n];
            height.band("c-earth", xs, ground, floor).line("c-line", xs, path);
            battery.band("c-needed", xs, home, nothing).line("c-line", xs, charge);
        }
        height.text("c-tick", 426, 146, "end", "min")
                .text(
                        "c-word",
                        46,
                        18,
                        "start",
                        "height above take-off, " + units.unit(UnitKind.HEIGHT).symbol());
        battery.text("c-tick", 426, 146, "end", "min").text("c-word", 46, 18, "start", "battery; shaded: to come home");
        return height.svg() + battery.svg();
    }

    private static double tick(double range) {
        return RoundFigures.from(range / 4);
    }

    private static String whole(double value) {
        return String.format(Locale.ROOT, "%.0f", value + 0.0);
    }
}

package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.flight.Line;
import yalos.core.geodesy.EastNorth;
import yalos.core.height.HeightPlan;
import yalos.core.height.LegSection;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * The long section of a strip or of the whole path, in the operator's units: ground, what stands on it, the path, its stations.
 *
 * @param title in a line
 * @param along distance from the start at each step
 * @param ground height at each step, above the geoid; null where nobody knows it, as in the next two
 * @param top ground with what stands beside the path
 * @param path height flown
 * @param places easting, northing of each step in turn
 * @param stations distances of the stations; empty for the whole path
 * @param nearest step of least clearance
 * @param clearance there, in words
 * @param wanted height that must be kept above the top
 * @param unit symbol of heights and distances
 */
public record SectionView(
        String title,
        Double[] along,
        Double[] ground,
        Double[] top,
        Double[] path,
        double[] places,
        double[] stations,
        int nearest,
        String clearance,
        double wanted,
        String unit) {
    private static final int MOST_STEPS = 360;

    /** Of one strip, or of the whole path where the strip is 0. */
    public static SectionView of(BlockPlan plan, HeightPlan heights, int strip, UnitChoice units) {
        List<LegSection> legs = strip == 0 ? heights.sections() : List.of(heights.section(strip));
        double unitM = units.unit(UnitKind.HEIGHT).size();
        int steps = legs.stream().mapToInt(leg -> leg.pathM().length).sum();
        int every = Math.max(1, steps / MOST_STEPS);
        List<double[]> rows = new ArrayList<>();
        double start = 0;
        int seen = 0;
        int nearest = 0;
        double least = Double.POSITIVE_INFINITY;
        for (LegSection leg : legs) {
            for (int i = 0; i < leg.pathM().length; i++, seen++) {
                boolean closest = leg.pathM()[i] - leg.topM()[i] < least;
                if (closest) {
                    least = leg.pathM()[i] - leg.topM()[i];
                }
                if (closest || seen % every == 0 || i == leg.pathM().length - 1) {
                    if (closest) {
                        nearest = rows.size();
                    }
                    EastNorth at = plan.block().plane().toGrid(leg.pointAt(i));
                    rows.add(new double[] {
                        start + leg.alongM(i), leg.groundM()[i], leg.topM()[i], leg.pathM()[i], at.east(), at.north()
                    });
                }
            }
            start += leg.lengthM();
        }
        double[] places = new double[2 * rows.size()];
        for (int i = 0; i < rows.size(); i++) {
            places[2 * i] = Math.round(rows.get(i)[4] * 100) / 100.0;
            places[2 * i + 1] = Math.round(rows.get(i)[5] * 100) / 100.0;
        }
        return new SectionView(
                title(plan, legs, strip, start, units),
                column(rows, 0, unitM),
                column(rows, 1, unitM),
                column(rows, 2, unitM),
                column(rows, 3, unitM),
                places,
                strip == 0 ? new double[0] : stations(plan, strip, unitM),
                nearest,
                Double.isInfinite(least) ? "unknown" : units.text(UnitKind.HEIGHT, least),
                heights.choice().keptM() / unitM,
                units.unit(UnitKind.HEIGHT).symbol());
    }

    private static String title(BlockPlan plan, List<LegSection> legs, int strip, double lengthM, UnitChoice units) {
        if (strip == 0) {
            return "Section along the whole path, " + units.text(UnitKind.LENGTH, lengthM);
        }
        Line chosen = plan.flight().line(strip);
        return String.format(
                Locale.ROOT,
                "Section along strip %d, %s, %d photos, least clearance %s",
                strip,
                units.text(UnitKind.DISTANCE, lengthM),
                chosen.exposures(),
                clearance(legs.get(0), units));
    }

    private static String clearance(LegSection leg, UnitChoice units) {
        return Double.isInfinite(leg.clearanceM()) ? "unknown" : units.text(UnitKind.HEIGHT, leg.clearanceM());
    }

    private static double[] stations(BlockPlan plan, int strip, double unitM) {
        Line chosen = plan.flight().line(strip);
        return plan.flight().exposuresOf(chosen).stream()
                .mapToDouble(exposure -> chosen.from().distanceM(exposure.point()) / unitM)
                .toArray();
    }

    private static Double[] column(List<double[]> rows, int at, double unitM) {
        return rows.stream()
                .map(row -> Double.isNaN(row[at]) ? null : Double.valueOf(Math.round(row[at] / unitM * 100) / 100.0))
                .toArray(Double[]::new);
    }
}

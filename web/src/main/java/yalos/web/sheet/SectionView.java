package yalos.web.sheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.flight.Exposure;
import yalos.core.flight.Line;
import yalos.core.flight.Way;
import yalos.core.geodesy.EastNorth;
import yalos.core.height.HeightPlan;
import yalos.core.height.LegSection;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
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
        List<LegSection> legs = legs(plan, heights, strip);
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
                title(plan, legs, strip, start, least, units),
                column(rows, 0, unitM),
                column(rows, 1, unitM),
                column(rows, 2, unitM),
                column(rows, 3, unitM),
                places,
                strip == 0 ? new double[0] : stations(plan, legs, unitM),
                nearest,
                Double.isInfinite(least) ? "unknown" : units.text(UnitKind.HEIGHT, least),
                heights.choice().keptM() / unitM,
                units.unit(UnitKind.HEIGHT).symbol());
    }

    /** The path over the ground as it was laid; round objects the ways flown, of a run all of them. */
    private static List<LegSection> legs(BlockPlan plan, HeightPlan heights, int strip) {
        if (plan.structures().flatMap(StructurePlan::flown).isEmpty()) {
            return strip == 0 ? heights.sections() : List.of(heights.section(strip));
        }
        if (strip == 0) {
            return heights.sectionsOf(plan.flight().ways());
        }
        Line chosen = plan.flight().line(strip);
        return round(plan, chosen) ? heights.sectionsOf(run(plan, chosen)) : List.of(heights.section(strip));
    }

    private static boolean round(BlockPlan plan, Line line) {
        return plan.structures().flatMap(objects -> objects.pass(line.pass())).isPresent();
    }

    /** All ways of the run a line belongs to, from its first photo to its last. */
    private static List<Way> run(BlockPlan plan, Line chosen) {
        List<Way> run = new ArrayList<>();
        List<Way> since = new ArrayList<>();
        for (Way way : plan.flight().ways()) {
            if (way instanceof Line line && line.strip() == chosen.strip()) {
                run.addAll(since);
                run.add(line);
                since.clear();
            } else if (!run.isEmpty()) {
                since.add(way);
            }
        }
        return run;
    }

    private static String title(
            BlockPlan plan, List<LegSection> legs, int strip, double lengthM, double leastM, UnitChoice units) {
        if (strip == 0) {
            return "Section along the whole path, " + units.text(UnitKind.LENGTH, lengthM);
        }
        Line chosen = plan.flight().line(strip);
        if (round(plan, chosen)) {
            long photos = plan.flight().lines().stream()
                    .filter(line -> line.strip() == chosen.strip())
                    .mapToInt(Line::exposures)
                    .sum();
            return "Section along a run round an object, %s, %,d photos, least clearance over ground %s"
                    .formatted(
                            units.text(UnitKind.DISTANCE, lengthM),
                            photos,
                            Double.isInfinite(leastM) ? "unknown" : units.text(UnitKind.HEIGHT, leastM));
        }
        return String.format(
                Locale.ROOT,
                "Section along strip %d, %s, %,d photos, least clearance %s",
                strip,
                units.text(UnitKind.DISTANCE, lengthM),
                chosen.exposures(),
                clearance(legs.get(0), units));
    }

    private static String clearance(LegSection leg, UnitChoice units) {
        return Double.isInfinite(leg.clearanceM()) ? "unknown" : units.text(UnitKind.HEIGHT, leg.clearanceM());
    }

    /** Distances of all photos of the legs from their start. */
    private static double[] stations(BlockPlan plan, List<LegSection> legs, double unitM) {
        List<Double> along = new ArrayList<>();
        double start = 0;
        for (LegSection leg : legs) {
            if (leg.way() instanceof Line line) {
                for (Exposure photo : plan.flight().exposuresOf(line)) {
                    along.add((start + line.from().distanceM(photo.point())) / unitM);
                }
            }
            start += leg.lengthM();
        }
        return along.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static Double[] column(List<double[]> rows, int at, double unitM) {
        return rows.stream()
                .map(row -> Double.isNaN(row[at]) ? null : Double.valueOf(Math.round(row[at] / unitM * 100) / 100.0))
                .toArray(Double[]::new);
    }
}

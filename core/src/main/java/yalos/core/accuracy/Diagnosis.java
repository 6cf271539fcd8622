package yalos.core.accuracy;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.commons.statistics.distribution.FDistribution;
import yalos.core.figures.Median;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.PlanePoint;

/**
 * What the pattern of residuals suggests, each with its figure and with what would be seen next if it is true. Nothing is put right here.
 *
 * <p>A constant part is looked for by Student's test; tilt, bowl, turn and scale by what a fit explains beyond the constant (F test, 1 %).
 */
public final class Diagnosis {
    private static final double SAME_LENGTH_M = 0.01;
    private static final double UNDULATION_M = 0.5;
    private static final double FEET = 0.3048;
    private static final double SURVEY_FEET = 2e-6;
    private static final double OVERFITTED = 2;
    private static final double RARE = 0.02;
    private static final double TINY_M = 0.004;

    private final List<Residual> checks;
    private final List<Residual> control;
    private final Known known;
    private final List<Suspicion> found = new ArrayList<>();

    /**
     * What the job itself knows.
     *
     * @param lengths antenna and pole heights of the job, by what they are, in metres
     * @param undulationM geoid over ellipsoid here
     * @param grid easting and northing of the block's middle, in the grid's metres
     * @param usualM what residuals were to be: sigma of heights asked for or foretold
     */
    public record Known(Map<String, Double> lengths, double undulationM, EastNorth grid, double usualM) {}

    private Diagnosis(List<Residual> checks, List<Residual> control, Known known) {
        this.checks = checks;
        this.control = control;
        this.known = known;
    }

    /**
     * @param checks residuals of points that were not used
     * @param control residuals of those that were; may be empty
     */
    public static List<Suspicion> of(List<Residual> checks, List<Residual> control, Known known) {
        Diagnosis one = new Diagnosis(checks, control, known);
        one.overfitted(checks.size() >= 3 ? one.look() : checks);
        one.found.sort(Comparator.comparing(Suspicion::kind));
        return one.found;
    }

    /** Looks for all that may be; answers with the points that have no fault of their own. */
    private List<Residual> look() {
        if (feet()) {
            return List.of();
        }
        List<Residual> rest = swapped();
        List<Residual> tame = withoutBlunders(rest);
        heights(tame);
        positions(tame);
        return tame;
    }

    private static String cm(double metres) {
        return String.format(Locale.ROOT, "%.1f cm", 100 * metres);
    }

    private static String signed(double metres) {
        return String.format(Locale.ROOT, "%+.1f cm", 100 * metres);
    }

    private void add(Suspicion.Kind kind, String figure, String cause, String next) {
        found.add(new Suspicion(kind, figure, cause, next));
    }

    // Feet.

    private boolean feet() {
        List<Residual> levelled = checks.stream()
                .filter(one -> one.upM().isPresent() && one.upThereM().isPresent())
                .toList();
        double share = ratio(levelled);
        boolean asMetres = near(share, 1 / FEET - 1, 0.02);
        boolean asFeet = near(share, FEET - 1, 0.02);
        if (levelled.size() >= 3 && (asMetres || asFeet)) {
            add(
                    Suspicion.Kind.FEET,
                    "heights are %.4f times what they should be".formatted(share + 1),
                    asMetres ? "feet were taken for metres" : "metres were taken for feet",
                    "read the heights again in the other unit: every residual becomes centimetres");
            return true;
        }
        if (!known.grid().equals(new EastNorth(0, 0))) {
            surveyFeet();
        }
        return false;
    }

    private static boolean near(double value, double wanted, double tolerance) {
        return Math.abs(value - wanted) < tolerance * Math.abs(wanted);
    }

    /** Mean of residual over height, where heights are large beside residuals' spread. */
    private static double ratio(List<Residual> levelled) {
        double both = 0;
        double squares = 0;
        for (Residual one : levelled) {
            double up = one.upThereM().getAsDouble();
            both += up * one.upM().getAsDouble();
            squares += up * up;
        }
        return squares == 0 ? 0 : both / squares;
    }

    /** The two feet differ by two millionths: metres on a state grid of millions of feet. */
    private void surveyFeet() {
        Statement all = Statement.of(level(checks), 0, 0);
        double east = all.east().mean();
        double north = all.north().mean();
        for (int sign : new int[] {1, -1}) {
            double wantedE = sign * SURVEY_FEET * known.grid().east();
            double wantedN = sign * SURVEY_FEET * known.grid().north();
            double far = Math.hypot(wantedE, wantedN);
            if (all.east().count() >= 3 && far > 0.3 && Math.hypot(east - wantedE, north - wantedN) < 0.15 * far) {
                add(
                        Suspicion.Kind.FEET,
                        "%s east and %s north: two millionths of the coordinates"
                                .formatted(signed(east), signed(north)),
                        "international and US survey feet were mixed",
                        "with the other foot the shift is gone, and heights stay as they are");
            }
        }
    }

    // Points exchanged.

    private List<Residual> swapped() {
        List<Residual> rest = new ArrayList<>(checks);
        List<Residual> placed = checks.stream()
                .filter(one -> one.at().isPresent() && one.eastM().isPresent())
                .toList();
        for (int i = 0; i < placed.size(); i++) {
            for (int j = i + 1; j < placed.size(); j++) {
                Residual a = placed.get(i);
                Residual b = placed.get(j);
                PlanePoint from = a.at().orElseThrow();
                PlanePoint to = b.at().orElseThrow();
                double apart = from.distanceM(to);
                if (apart > 1 && meets(a, to, apart) && meets(b, from, apart)) {
                    rest.remove(a);
                    rest.remove(b);
                    add(
                            Suspicion.Kind.SWAPPED,
                            "%s and %s are off by %.1f m each, to each other's place"
                                    .formatted(a.point(), b.point(), apart),
                            "the two points were exchanged",
                            "with their names exchanged both fit as the others do");
                }
            }
        }
        return rest;
    }

    /** Whether a point's map position is the place of another. */
    private static boolean meets(Residual one, PlanePoint other, double apart) {
        PlanePoint at = one.at().orElseThrow();
        double off = Math.hypot(
                at.xM() + one.eastM().getAsDouble() - other.xM(),
                at.yM() + one.northM().getAsDouble() - other.yM());
        return off < Math.max(0.3, 0.02 * apart);
    }

    // Single blunders.

    private List<Residual> withoutBlunders(List<Residual> rest) {
        List<Residual> tame = new ArrayList<>(rest);
        if (rest.size() < 4) {
            return tame;
        }
        double[] up = ups(rest);
        double spread = Math.max(TINY_M, Median.spread(up));
        double middle = Median.of(up);
        double[] level =
                level(rest).stream().mapToDouble(one -> one.levelM().orElse(0)).toArray();
        double usual = Math.max(TINY_M, Median.of(level));
        for (Residual one : rest) {
            boolean high = one.upM().isPresent() && Math.abs(one.upM().getAsDouble() - middle) > 5 * spread;
            boolean off = one.levelM().isPresent() && one.levelM().getAsDouble() > 5 * usual;
            if ((high || off) && tame.size() > 3) {
                tame.remove(one);
                String pole = high ? length(one.upM().getAsDouble() - middle) : "";
                add(
                        Suspicion.Kind.BLUNDER,
                        "%s is off by %s, the others by %s"
                                .formatted(
                                        one.point(),
                                        high
                                                ? signed(one.upM().getAsDouble()) + " in height"
                                                : cm(one.levelM().orElse(0)),
                                        high ? cm(spread) + " about the middle" : cm(usual)),
                        pole.isEmpty()
                                ? "one wrong measurement: point, mark or name"
                                : "a height that was set wrong for this point: " + pole,
                        "measured once more it fits; the others do not move");
            }
        }
        return tame;
    }

    private static double[] ups(List<Residual> all) {
        return all.stream()
                .filter(one -> one.upM().isPresent())
                .mapToDouble(one -> one.upM().getAsDouble())
                .toArray();
    }

    private static List<Residual> level(List<Residual> all) {
        return all.stream().filter(one -> one.eastM().isPresent()).toList();
    }

    /** A length of the job, or a difference of two, that an offset is within a centimetre of. */
    private String length(double offset) {
        String found = "";
        double nearest = SAME_LENGTH_M;
        for (Map.Entry<String, Double> one : known.lengths().entrySet()) {
            double off = Math.abs(Math.abs(offset) - one.getValue());
            if (off <= nearest) {
                nearest = off;
                found = "%s of %.3f m fits within %s".formatted(one.getKey(), one.getValue(), cm(off));
            }
        }
        if (!found.isEmpty()) {
            return found;
        }
        for (Map.Entry<String, Double> one : known.lengths().entrySet()) {
            for (Map.Entry<String, Double> other : known.lengths().entrySet()) {
                double apart = one.getValue() - other.getValue();
                if (apart > SAME_LENGTH_M && Math.abs(Math.abs(offset) - apart) <= SAME_LENGTH_M) {
                    return "%s less %s, %.3f m, fits within %s"
                            .formatted(one.getKey(), other.getKey(), apart, cm(Math.abs(Math.abs(offset) - apart)));
                }
            }
        }
        return "";
    }

    // Heights.

    private void heights(List<Residual> tame) {
        List<Residual> levelled =
                tame.stream().filter(one -> one.upM().isPresent()).toList();
        if (levelled.size() < 3) {
            return;
        }
        Axis up = Axis.of(ups(levelled));
        if (up.shifted() && Math.abs(up.mean()) > Math.max(TINY_M, 0.5 * known.usualM())) {
            offset(up);
        }
        List<Residual> placed =
                levelled.stream().filter(one -> one.at().isPresent()).toList();
        if (placed.size() >= 5) {
            explained(Suspicion.Kind.OFFSET, up.mean(), shapes(placed));
        }
    }

    /** One cause, one suspicion: a constant part that a tilt, bowl or turn about a place among the points brings along is not told again. */
    private void explained(Suspicion.Kind constant, double mean, double atRimM) {
        if (Math.abs(mean) < atRimM) {
            found.removeIf(one -> one.kind() == constant);
        }
    }

    private void offset(Axis up) {
        String length = length(up.mean());
        boolean geoid = Math.abs(Math.abs(up.mean()) - Math.abs(known.undulationM())) < UNDULATION_M
                && Math.abs(known.undulationM()) > 2;
        String cause = "an antenna or pole height, or the geoid, counts wrongly for all points";
        if (geoid) {
            cause = "heights above the ellipsoid stand for heights above the geoid, which lies %.1f m over it here"
                    .formatted(known.undulationM());
        } else if (!length.isEmpty()) {
            cause = length + ": that height was counted twice, or not at all";
        }
        add(
                Suspicion.Kind.OFFSET,
                "%s on all points, %s about it".formatted(signed(up.mean()), cm(up.deviation())),
                cause,
                "taken out, heights are good to %s, and points measured with another pole are not off"
                        .formatted(cm(up.deviation())));
    }

    /** Tilt and bowl; by how much they lift the rim, in metres. */
    private double shapes(List<Residual> placed) {
        double x0 = placed.stream()
                .mapToDouble(one -> one.at().orElseThrow().xM())
                .average()
                .orElse(0);
        double y0 = placed.stream()
                .mapToDouble(one -> one.at().orElseThrow().yM())
                .average()
                .orElse(0);
        double reach = placed.stream()
                .mapToDouble(one -> one.at().orElseThrow().distanceM(new PlanePoint(x0, y0)))
                .max()
                .orElse(1);
        double[] up = ups(placed);
        double[][] level = new double[placed.size()][];
        double[][] plane = new double[placed.size()][];
        double[][] bowl = new double[placed.size()][];
        double[][] both = new double[placed.size()][];
        for (int i = 0; i < placed.size(); i++) {
            double x = (placed.get(i).at().orElseThrow().xM() - x0) / reach;
            double y = (placed.get(i).at().orElseThrow().yM() - y0) / reach;
            level[i] = new double[] {1};
            plane[i] = new double[] {1, x, y};
            bowl[i] = new double[] {1, x * x + y * y};
            both[i] = new double[] {1, x, y, x * x + y * y};
        }
        Fit flat = Fit.of(level, up);
        Fit tilted = Fit.of(plane, up);
        Fit domed = Fit.of(bowl, up);
        Fit all = Fit.of(both, up);
        double atRim = 0;
        boolean tilt = tilted.betterThan(flat) || all.betterThan(domed);
        if (tilt && !Double.isNaN(tilted.factors()[0])) {
            double slope = Math.hypot(tilted.factors()[1], tilted.factors()[2]);
            double towards = (Math.toDegrees(Math.atan2(tilted.factors()[1], tilted.factors()[2])) + 360) % 360;
            if (slope > Math.max(TINY_M, 0.3 * known.usualM())) {
                atRim = slope;
                add(
                        Suspicion.Kind.TILT,
                        "%s in 100 m, too high towards %.0f°".formatted(cm(slope / reach * 100), towards),
                        "control lies on one side, or one control height is wrong",
                        "a control point on the low side takes it out; photos' own heights drift along it");
            }
        }
        if (placed.size() >= 6 && all.betterThan(tilted)) {
            double high = -all.factors()[3];
            if (Math.abs(high) > Math.max(TINY_M, 0.3 * known.usualM())) {
                atRim = Math.max(atRim, Math.abs(high));
                add(
                        Suspicion.Kind.DOMING,
                        "%s from the middle to the rim, %s"
                                .formatted(cm(Math.abs(high)), high > 0 ? "a dome" : "a bowl"),
                        "the lens was solved along from parallel strips looking straight down",
                        "control in the middle, a tie strip or tilted photos take it out; a calibrated lens held fixed too");
            }
        }
        return atRim;
    }

    // Positions.

    private void positions(List<Residual> tame) {
        List<Residual> level = level(tame);
        if (level.size() < 3) {
            return;
        }
        Statement all = Statement.of(level, 0, 0);
        boolean shifted = all.east().shifted() || all.north().shifted();
        double far = Math.hypot(all.east().mean(), all.north().mean());
        if (shifted
                && far > Math.max(TINY_M, 0.5 * known.usualM())
                && found.stream().noneMatch(one -> one.kind() == Suspicion.Kind.FEET)) {
            add(
                    Suspicion.Kind.SHIFT,
                    "%s east, %s north on all points"
                            .formatted(
                                    signed(all.east().mean()),
                                    signed(all.north().mean())),
                    "the base stood on a wrong mark, or another datum was meant",
                    "heights are shifted too by a wrong base; the base's worked-out position tells the same vector");
        }
        List<Residual> placed =
                level.stream().filter(one -> one.at().isPresent()).toList();
        if (placed.size() >= 4) {
            explained(Suspicion.Kind.SHIFT, far, turned(placed));
        }
    }

    /** Turn and scale, and by how much they move the rim: dE = a + m x - w y, dN = b + m y + w x. */
    private double turned(List<Residual> placed) {
        double x0 = placed.stream()
                .mapToDouble(one -> one.at().orElseThrow().xM())
                .average()
                .orElse(0);
        double y0 = placed.stream()
                .mapToDouble(one -> one.at().orElseThrow().yM())
                .average()
                .orElse(0);
        int count = placed.size();
        double[] off = new double[2 * count];
        double[][] scaled = new double[2 * count][];
        double[][] turned = new double[2 * count][];
        double[][] all = new double[2 * count][];
        double reach = 0;
        for (int i = 0; i < count; i++) {
            Residual one = placed.get(i);
            double x = one.at().orElseThrow().xM() - x0;
            double y = one.at().orElseThrow().yM() - y0;
            reach = Math.max(reach, Math.hypot(x, y));
            off[2 * i] = one.eastM().getAsDouble();
            off[2 * i + 1] = one.northM().getAsDouble();
            double[][] row = {{1, 0, x, -y}, {0, 1, y, x}};
            for (int k = 0; k < 2; k++) {
                scaled[2 * i + k] = new double[] {row[k][0], row[k][1], row[k][2]};
                turned[2 * i + k] = new double[] {row[k][0], row[k][1], row[k][3]};
                all[2 * i + k] = row[k];
            }
        }
        Fit whole = Fit.of(all, off);
        double least = Math.max(TINY_M, 0.3 * known.usualM());
        double atRim = 0;
        if (whole.betterThan(Fit.of(scaled, off)) && Math.abs(whole.factors()[3]) * reach > least) {
            atRim = Math.abs(whole.factors()[3]) * reach;
            add(
                    Suspicion.Kind.TURN,
                    "turned by %.0f millionths, %s at the rim"
                            .formatted(1e6 * whole.factors()[3], cm(Math.abs(whole.factors()[3]) * reach)),
                    "true north stands for grid north, or one control point is off to the side",
                    "the angle is the meridian convergence, or one point alone explains it");
        }
        if (whole.betterThan(Fit.of(turned, off)) && Math.abs(whole.factors()[2]) * reach > least) {
            atRim = Math.max(atRim, Math.abs(whole.factors()[2]) * reach);
            add(
                    Suspicion.Kind.SCALE,
                    "%+.0f millionths too %s, %s at the rim"
                            .formatted(
                                    1e6 * whole.factors()[2],
                                    whole.factors()[2] > 0 ? "large" : "small",
                                    cm(Math.abs(whole.factors()[2]) * reach)),
                    "ground lengths stand for grid lengths, or the focal length and heights trade against each other",
                    "the figure is the grid's scale here, or heights are off by as many millionths of the flying height");
        }
        return atRim;
    }

    // Control against check.

    private void overfitted(List<Residual> tame) {
        double[] check = ups(tame);
        double[] own = ups(control);
        if (check.length < 3 || own.length < 3) {
            return;
        }
        double ratio = Axis.of(check).rmse() / Axis.of(own).rmse();
        double f = ratio * ratio;
        if (ratio > OVERFITTED && FDistribution.of(check.length, own.length).survivalProbability(f) < RARE) {
            add(
                    Suspicion.Kind.OVERFITTED,
                    "check points %s, control points %s in height: %.1f times"
                            .formatted(
                                    cm(Axis.of(check).rmse()), cm(Axis.of(own).rmse()), ratio),
                    "the adjustment bends to its control points",
                    "with half of them as check points those are as bad as the others");
        }
    }
}

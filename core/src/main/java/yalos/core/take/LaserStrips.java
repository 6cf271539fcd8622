package yalos.core.take;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import yalos.core.fault.InputFault;
import yalos.core.figures.Median;

/**
 * Laser strips in cells of a metre: how dense they are, and how well two that overlap agree. A strip is a point source of its file.
 */
public final class LaserStrips {
    private static final long MOST_POINTS = 25_000_000;
    /** A cell speaks for a strip with so many of its points. */
    public static final int LEAST_POINTS = 2;

    private final Map<String, Strip> strips = new TreeMap<>();
    private long points;

    /** One strip: heights by cell. */
    private static final class Strip {
        private final Map<Long, Heights> cells = new HashMap<>();
        private long points;
        private double first = Double.NaN;
        private double last = Double.NaN;
    }

    private static final class Heights {
        private float[] up = new float[4];
        private int count;

        void add(double z, double zero) {
            if (count == up.length) {
                up = Arrays.copyOf(up, count * 2);
            }
            up[count++] = (float) (z - zero);
        }

        double median() {
            double[] all = new double[count];
            for (int i = 0; i < count; i++) {
                all[i] = up[i];
            }
            return Median.of(all);
        }
    }

    /** Heights are held less this, so that they keep their millimetres. */
    private double zero = Double.NaN;

    /**
     * Adds a file.
     *
     * @return what to look at, one sentence each
     * @throws InputFault for more points than are held
     */
    public List<String> add(String name, LasFile file) throws IOException {
        if (points + file.points() > MOST_POINTS) {
            throw new InputFault(
                    "file",
                    points + file.points(),
                    "%,d points are more than are held at once (%,d). Bring the strips thinned out, or fewer of them."
                            .formatted(points + file.points(), MOST_POINTS));
        }
        double[] least = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        double[] greatest = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
        file.visit((x, y, z, time, source, echo) -> {
            least[0] = Math.min(least[0], x);
            least[1] = Math.min(least[1], y);
            greatest[0] = Math.max(greatest[0], x);
            greatest[1] = Math.max(greatest[1], y);
            if (Double.isNaN(zero)) {
                zero = Math.floor(z);
            }
            Strip strip = strips.computeIfAbsent(name + " · " + source, key -> new Strip());
            strip.points++;
            strip.first = Double.isNaN(strip.first) ? time : Math.min(strip.first, time);
            strip.last = Double.isNaN(strip.last) ? time : Math.max(strip.last, time);
            strip.cells
                    .computeIfAbsent(key((int) Math.floor(x), (int) Math.floor(y)), key -> new Heights())
                    .add(z, zero);
        });
        points += file.points();
        List<String> doubts = new ArrayList<>(file.doubts());
        double off = 0;
        for (int i = 0; i < 2 && file.points() > 0; i++) {
            off = Math.max(off, Math.abs(least[i] - file.least()[i]) - Math.abs(file.scale()[i]));
            off = Math.max(off, Math.abs(greatest[i] - file.greatest()[i]) - Math.abs(file.scale()[i]));
        }
        if (off > 0) {
            doubts.add("The bounds in the file's head are wrong by up to %,.2f m; those of its points were taken."
                    .formatted(off));
        }
        return doubts;
    }

    private static long key(int e, int n) {
        return (long) e << 32 ^ n & 0xffffffffL;
    }

    /**
     * A strip.
     *
     * @param cells of a square metre with a point
     * @param density points in each of them, in the mean
     * @param first time as stored; NaN without
     */
    public record Summary(String name, long points, int cells, double density, double first, double last) {}

    public List<Summary> summaries() {
        return strips.entrySet().stream()
                .map(entry -> new Summary(
                        entry.getKey(),
                        entry.getValue().points,
                        entry.getValue().cells.size(),
                        (double) entry.getValue().points
                                / entry.getValue().cells.size(),
                        entry.getValue().first,
                        entry.getValue().last))
                .toList();
    }

    /** Cells with any point, of all strips. */
    public int cells() {
        Set<Long> all = new HashSet<>();
        strips.values().forEach(strip -> all.addAll(strip.cells.keySet()));
        return all.size();
    }

    public long points() {
        return points;
    }

    /** A cell in which two strips can be compared, by its south-west corner; the second less the first. */
    public record Cell(int e, int n, int pointsA, int pointsB, double differenceM) {}

    /**
     * How two strips agree where they overlap.
     *
     * @param both cells with a point of each
     * @param medianM the second less the first
     * @param spreadM robust: what is normal among the differences
     * @param farM 95 % of the differences lie no farther from the median
     */
    public record Agreement(
            String a, String b, int both, List<Cell> cells, double medianM, double spreadM, double farM) {}

    /** Every two strips that overlap in some cells, those that overlap most first. */
    public List<Agreement> agreements() {
        List<Agreement> found = new ArrayList<>();
        List<String> names = new ArrayList<>(strips.keySet());
        for (int i = 0; i < names.size(); i++) {
            for (int j = i + 1; j < names.size(); j++) {
                Agreement one = agreement(names.get(i), names.get(j));
                if (!one.cells().isEmpty()) {
                    found.add(one);
                }
            }
        }
        found.sort((one, other) ->
                Integer.compare(other.cells().size(), one.cells().size()));
        return found;
    }

    private Agreement agreement(String a, String b) {
        Strip first = strips.get(a);
        Strip second = strips.get(b);
        boolean turned = first.cells.size() > second.cells.size();
        List<Cell> cells = new ArrayList<>();
        int both = 0;
        for (long key : (turned ? second : first).cells.keySet()) {
            Heights one = first.cells.get(key);
            Heights other = second.cells.get(key);
            if (one != null && other != null) {
                both++;
                if (one.count >= LEAST_POINTS && other.count >= LEAST_POINTS) {
                    cells.add(new Cell(
                            (int) (key >> 32), (int) key, one.count, other.count, other.median() - one.median()));
                }
            }
        }
        double[] differences = cells.stream().mapToDouble(Cell::differenceM).toArray();
        double median = Median.of(differences);
        double[] far =
                Arrays.stream(differences).map(one -> Math.abs(one - median)).toArray();
        return new Agreement(a, b, both, cells, median, Median.spread(differences), Median.quantile(far, 0.95));
    }
}

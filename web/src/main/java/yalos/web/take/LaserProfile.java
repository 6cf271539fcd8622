package yalos.web.take;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import yalos.core.figures.Median;
import yalos.core.take.LasFile;
import yalos.core.take.LaserStrips;
import yalos.web.figure.Chart;

/** A slice across two strips where they overlap most, each point by its strip's time: what lies apart there was flown apart, not grown. */
final class LaserProfile {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 190;
    private static final double HALF_M = 0.5;
    private static final double REACH_M = 15;
    private static final int MOST_POINTS = 3000;

    private LaserProfile() {}

    /** A point of the slice. */
    private record Slice(double along, double up, String strip, double time) {}

    /** Nothing where no two strips overlap. */
    static String svg(List<Path> files, LaserStrips strips) throws IOException {
        List<LaserStrips.Agreement> agreements = strips.agreements();
        if (agreements.isEmpty()) {
            return "";
        }
        List<LaserStrips.Cell> cells = agreements.get(0).cells();
        double middleE =
                Median.of(cells.stream().mapToDouble(LaserStrips.Cell::e).toArray());
        double middleN =
                Median.of(cells.stream().mapToDouble(LaserStrips.Cell::n).toArray());
        boolean acrossEast = spread(cells, true) <= spread(cells, false);
        List<Slice> slice = new ArrayList<>();
        for (Path file : files) {
            LasFile.open(file).visit((x, y, z, time, source, echo) -> {
                double along = acrossEast ? x - middleE : y - middleN;
                double beside = acrossEast ? y - middleN : x - middleE;
                if (Math.abs(beside) <= HALF_M && Math.abs(along) <= REACH_M && slice.size() < MOST_POINTS) {
                    slice.add(new Slice(along, z, file.getFileName() + " " + source, time));
                }
            });
        }
        return slice.size() < 2 ? "" : drawn(slice);
    }

    private static double spread(List<LaserStrips.Cell> cells, boolean east) {
        return Median.spread(
                cells.stream().mapToDouble(cell -> east ? cell.e() : cell.n()).toArray());
    }

    private static String drawn(List<Slice> slice) {
        double least = slice.stream().mapToDouble(Slice::up).min().orElse(0);
        double most = slice.stream().mapToDouble(Slice::up).max().orElse(1);
        Map<String, List<Slice>> byStrip = new TreeMap<>();
        slice.forEach(one ->
                byStrip.computeIfAbsent(one.strip(), name -> new ArrayList<>()).add(one));
        double step = Math.max(0.1, Math.ceil((most - least) * 10 / 4) / 10);
        Chart chart = new Chart(WIDTH, HEIGHT, "A slice across two strips")
                .within(46, 14, 14, 24)
                .over(-REACH_M, REACH_M, least - 0.05, most + 0.05)
                .axes(
                        5,
                        step,
                        x -> String.format(Locale.ROOT, "%.0f m", x),
                        y -> String.format(Locale.ROOT, "%.1f", y));
        int look = 0;
        for (List<Slice> one : byStrip.values()) {
            StringBuilder dots = new StringBuilder();
            for (Slice point : one) {
                dots.append(String.format(Locale.ROOT, "M%.1f %.1fh.01", chart.x(point.along()), chart.y(point.up())));
            }
            chart.path("slice slice-" + look % 2, "%s", dots);
            look++;
        }
        return chart.svg();
    }
}

package yalos.core.terrain;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import yalos.core.geodesy.Range;

/**
 * Lines of equal height over a grid, by marching squares: the level is interpolated along each edge between two cell centres, and
 * the pieces are joined. Squares with an unknown corner have none; a saddle is parted by the mean of its corners.
 */
public final class Contours {
    private static final double[] STEPS = {0.5, 1, 2, 5, 10, 20, 50, 100};
    private static final int MOST_LEVELS = 40;

    private final HeightGrid grid;

    private Contours(HeightGrid grid) {
        this.grid = grid;
    }

    /** A line of equal height: x and y in turn. */
    public record Line(double levelM, double[] points) {}

    /** A round step with which the grid has no more than so many levels. */
    public static double stepM(HeightGrid grid) {
        Range range = grid.range();
        for (double step : STEPS) {
            if (range.length() / step <= MOST_LEVELS) {
                return step;
            }
        }
        return STEPS[STEPS.length - 1];
    }

    /** The lines of every whole multiple of a step. */
    public static List<Line> of(HeightGrid grid, double stepM) {
        Range range = grid.range();
        List<Line> lines = new ArrayList<>();
        Contours contours = new Contours(grid);
        for (long level = (long) Math.ceil(range.least() / stepM); level * stepM <= range.most(); level++) {
            contours.trace(level * stepM, lines);
        }
        return lines;
    }

    private void trace(double level, List<Line> lines) {
        Map<Long, List<Long>> joins = new HashMap<>();
        for (int row = 0; row + 1 < grid.rows(); row++) {
            for (int column = 0; column + 1 < grid.columns(); column++) {
                square(column, row, level, joins);
            }
        }
        while (!joins.isEmpty()) {
            Deque<Long> path = new ArrayDeque<>();
            long start = joins.keySet().iterator().next();
            path.add(start);
            extend(path, joins, true);
            extend(path, joins, false);
            double[] points = new double[2 * path.size()];
            int at = 0;
            for (long edge : path) {
                point(edge, level, points, at);
                at += 2;
            }
            if (path.size() > 1) {
                lines.add(new Line(level, points));
            }
        }
    }

    private static void extend(Deque<Long> path, Map<Long, List<Long>> joins, boolean atEnd) {
        while (true) {
            long here = atEnd ? path.getLast() : path.getFirst();
            List<Long> next = joins.get(here);
            if (next == null || next.isEmpty()) {
                joins.remove(here);
                return;
            }
            long to = next.remove(next.size() - 1);
            if (next.isEmpty()) {
                joins.remove(here);
            }
            List<Long> back = joins.get(to);
            if (back != null) {
                back.remove(here);
                if (back.isEmpty()) {
                    joins.remove(to);
                }
            }
            if (atEnd) {
                path.addLast(to);
            } else {
                path.addFirst(to);
            }
        }
    }

    /** Edges are numbered 2 · cell for the one to the next column, 2 · cell + 1 for the one to the next row. */
    private void square(int column, int row, double level, Map<Long, List<Long>> joins) {
        int at = row * grid.columns() + column;
        float a = grid.heights()[at];
        float b = grid.heights()[at + 1];
        float c = grid.heights()[at + grid.columns()];
        float d = grid.heights()[at + grid.columns() + 1];
        if (Float.isNaN(a + b + c + d)) {
            return;
        }
        int kind = (a >= level ? 1 : 0) | (b >= level ? 2 : 0) | (d >= level ? 4 : 0) | (c >= level ? 8 : 0);
        if (kind == 0 || kind == 15) {
            return;
        }
        long top = 2L * at;
        long left = 2L * at + 1;
        long right = 2L * (at + 1) + 1;
        long bottom = 2L * (at + grid.columns());
        boolean middleAbove = (a + b + c + d) / 4 >= level;
        switch (kind) {
            case 1, 14 -> join(joins, left, top);
            case 2, 13 -> join(joins, top, right);
            case 4, 11 -> join(joins, right, bottom);
            case 8, 7 -> join(joins, bottom, left);
            case 3, 12 -> join(joins, left, right);
            case 6, 9 -> join(joins, top, bottom);
            default -> {
                boolean lowCornersApart = kind == 5 == middleAbove;
                join(joins, left, lowCornersApart ? bottom : top);
                join(joins, right, lowCornersApart ? top : bottom);
            }
        }
    }

    private static void join(Map<Long, List<Long>> joins, long from, long to) {
        joins.computeIfAbsent(from, edge -> new ArrayList<>(2)).add(to);
        joins.computeIfAbsent(to, edge -> new ArrayList<>(2)).add(from);
    }

    private void point(long edge, double level, double[] points, int at) {
        int cell = (int) (edge / 2);
        boolean down = edge % 2 == 1;
        int column = cell % grid.columns();
        int row = cell / grid.columns();
        double from = grid.heights()[cell];
        double to = grid.heights()[cell + (down ? grid.columns() : 1)];
        double share = to == from ? 0.5 : (level - from) / (to - from);
        points[at] = grid.x(column) + (down ? 0 : share * grid.cellX());
        points[at + 1] = grid.y(row) - (down ? share * grid.cellY() : 0);
    }
}

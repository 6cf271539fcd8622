package yalos.core.terrain;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;

/**
 * Places that a model does not know, though it knows all the ground round them.
 *
 * <p>They are never filled unasked: what stands in a hole nobody knows. Where the operator consents, each is spanned by the surface that
 * every cell of it has the mean height of its four neighbours (Laplace's equation), so no filled height leaves the range of its rim.
 */
public final class Holes {
    /** So little does the last round of spanning still move a cell, in metres. */
    private static final double STILL_M = 1e-4;

    private static final int MOST_ROUNDS = 4000;
    private static final double OVERSHOOT = 1.8;

    private final HeightGrid grid;
    private final boolean[] done;

    private Holes(HeightGrid grid) {
        this.grid = grid;
        this.done = new boolean[grid.heights().length];
    }

    /**
     * One hole.
     *
     * @param areaM2 its size
     * @param widthM the longer side of the rectangle round it
     * @param rimLeastM lowest known height at its rim
     * @param rimMostM highest
     * @param cells its cells, as indexes into the grid's heights
     */
    public record Hole(double areaM2, double widthM, double rimLeastM, double rimMostM, int[] cells) {
        /** How much its rim rises, in metres: about how far off a filled height can be. */
        public double rimRangeM() {
            return rimMostM - rimLeastM;
        }
    }

    /** All holes of a grid, the largest first; what is unknown up to the grid's edge is no hole. */
    public static List<Hole> of(HeightGrid grid) {
        Holes search = new Holes(grid);
        List<Hole> found = new ArrayList<>();
        for (int at = 0; at < search.done.length; at++) {
            if (!search.done[at] && Float.isNaN(grid.heights()[at])) {
                search.from(at, found);
            }
        }
        found.sort((one, other) -> Double.compare(other.areaM2(), one.areaM2()));
        return found;
    }

    private void from(int start, List<Hole> into) {
        int columns = grid.columns();
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        done[start] = true;
        List<Integer> cells = new ArrayList<>();
        boolean closed = true;
        int west = columns;
        int east = 0;
        float least = Float.POSITIVE_INFINITY;
        float most = Float.NEGATIVE_INFINITY;
        while (!open.isEmpty()) {
            int at = open.pop();
            cells.add(at);
            int column = at % columns;
            int row = at / columns;
            west = Math.min(west, column);
            east = Math.max(east, column);
            if (column == 0 || row == 0 || column == columns - 1 || row == grid.rows() - 1) {
                closed = false;
                continue;
            }
            for (int next : new int[] {at - 1, at + 1, at - columns, at + columns}) {
                float height = grid.heights()[next];
                if (!Float.isNaN(height)) {
                    least = Math.min(least, height);
                    most = Math.max(most, height);
                } else if (!done[next]) {
                    done[next] = true;
                    open.push(next);
                }
            }
        }
        if (closed) {
            int[] all = cells.stream().mapToInt(Integer::intValue).sorted().toArray();
            double high = (all[all.length - 1] / columns - all[0] / columns + 1) * grid.cellY();
            into.add(new Hole(
                    all.length * grid.cellX() * grid.cellY(),
                    Math.max((east - west + 1) * grid.cellX(), high),
                    least,
                    most,
                    all));
        }
    }

    /** A grid with these holes of it spanned. */
    public static HeightGrid spanned(HeightGrid grid, List<Hole> holes) {
        float[] heights = grid.heights().clone();
        HeightGrid spanned = new HeightGrid(
                grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows(), heights);
        holes.forEach(hole -> span(hole, heights, grid.columns()));
        return spanned;
    }

    /** By successive over-relaxation from the middle of the rim's range. */
    private static void span(Hole hole, float[] heights, int columns) {
        for (int at : hole.cells()) {
            heights[at] = (float) ((hole.rimLeastM() + hole.rimMostM()) / 2);
        }
        for (int round = 0; round < MOST_ROUNDS; round++) {
            double moved = 0;
            for (int at : hole.cells()) {
                double mean = (heights[at - 1] + heights[at + 1] + heights[at - columns] + heights[at + columns]) / 4.0;
                double by = OVERSHOOT * (mean - heights[at]);
                double to = Math.max(hole.rimLeastM(), Math.min(hole.rimMostM(), heights[at] + by));
                moved = Math.max(moved, Math.abs(to - heights[at]));
                heights[at] = (float) to;
            }
            if (moved < STILL_M) {
                return;
            }
        }
    }
}

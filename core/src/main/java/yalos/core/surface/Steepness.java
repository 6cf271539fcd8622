package yalos.core.surface;

import java.util.Arrays;
import java.util.stream.IntStream;
import yalos.core.terrain.HeightGrid;

/**
 * The highest and the steepest ground in each tile of a grid. A ray that rises more steeply than any ground between its ends
 * cannot be blocked, which spares following it; the bound is strict, so nothing is lost.
 */
final class Steepness {
    static final int TILE = 32;

    private final int across;
    private final int down;
    private final float[] steepest;
    private final float[] highest;

    Steepness(HeightGrid grid) {
        across = (grid.columns() + TILE - 1) / TILE;
        down = (grid.rows() + TILE - 1) / TILE;
        steepest = new float[across * down];
        highest = new float[across * down];
        Arrays.fill(highest, Float.NEGATIVE_INFINITY);
        IntStream.range(0, down).parallel().forEach(tileRow -> {
            for (int row = tileRow * TILE; row < Math.min(grid.rows(), (tileRow + 1) * TILE); row++) {
                for (int column = 0; column < grid.columns(); column++) {
                    note(grid, column, row, tileRow * across + column / TILE);
                }
            }
        });
    }

    private void note(HeightGrid grid, int column, int row, int tile) {
        float[] heights = grid.heights();
        int at = row * grid.columns() + column;
        float a = heights[at];
        highest[tile] = Math.max(highest[tile], Float.isNaN(a) ? Float.NEGATIVE_INFINITY : a);
        if (column + 1 >= grid.columns() || row + 1 >= grid.rows()) {
            return;
        }
        float b = heights[at + 1];
        float c = heights[at + grid.columns()];
        float d = heights[at + grid.columns() + 1];
        float x = Math.max(Math.abs(b - a), Math.abs(d - c)) / (float) grid.cellX();
        float y = Math.max(Math.abs(c - a), Math.abs(d - b)) / (float) grid.cellY();
        float slope = x * x + y * y;
        if (slope > steepest[tile]) {
            steepest[tile] = slope;
        }
        float top = Math.max(Math.max(a, b), Math.max(c, d));
        if (top > highest[tile]) {
            highest[tile] = top;
        }
    }

    int across() {
        return across;
    }

    int down() {
        return down;
    }

    /** Steepest ground in a rectangle of tiles, as rise over run. */
    double steepest(int fromColumn, int toColumn, int fromRow, int toRow) {
        float most = 0;
        for (int row = fromRow; row <= toRow; row++) {
            for (int column = fromColumn; column <= toColumn; column++) {
                most = Math.max(most, steepest[row * across + column]);
            }
        }
        return Math.sqrt(most) * (1 + 1e-6);
    }

    /** Highest ground in a rectangle of tiles; minus infinity where nothing is known. */
    double highest(int fromColumn, int toColumn, int fromRow, int toRow) {
        float most = Float.NEGATIVE_INFINITY;
        for (int row = fromRow; row <= toRow; row++) {
            for (int column = fromColumn; column <= toColumn; column++) {
                most = Math.max(most, highest[row * across + column]);
            }
        }
        return most;
    }
}

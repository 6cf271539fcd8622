package yalos.core.terrain;

import java.util.Arrays;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Range;

/**
 * Heights in memory on a plane grid of metres, row 0 in the north. A value belongs to its cell's centre; between centres the
 * surface is bilinear. Not a number where nothing is known.
 *
 * @param west x of the western edge of the first column
 * @param north y of the northern edge of row 0
 * @param cellX width of a cell in metres
 * @param cellY height of a cell in metres
 * @param columns of the grid
 * @param rows of the grid
 * @param heights row by row, in metres
 */
public record HeightGrid(
        double west, double north, double cellX, double cellY, int columns, int rows, float[] heights) {
    public HeightGrid {
        if (heights.length != columns * rows) {
            throw new IllegalArgumentException("heights do not fill the grid");
        }
    }

    /** Level ground over a rectangle. */
    public static HeightGrid level(double west, double north, double cell, int columns, int rows, double height) {
        float[] heights = new float[columns * rows];
        Arrays.fill(heights, (float) height);
        return new HeightGrid(west, north, cell, cell, columns, rows, heights);
    }

    /** West, south, east, north of the grid in the units of the projected grid its plane belongs to. */
    public double[] extent(LocalPlane plane) {
        EastNorth southWest = plane.toGrid(west, south());
        EastNorth northEast = plane.toGrid(east(), north);
        return new double[] {southWest.east(), southWest.north(), northEast.east(), northEast.north()};
    }

    /** Height of a cell, rows counting from the north; not a number where it is not known. */
    public float cell(int column, int row) {
        return heights[row * columns + column];
    }

    /** x of a column's centre. */
    public double x(int column) {
        return west + (column + 0.5) * cellX;
    }

    /** y of a row's centre. */
    public double y(int row) {
        return north - (row + 0.5) * cellY;
    }

    /** x of the eastern edge of the last column. */
    public double east() {
        return west + columns * cellX;
    }

    /** y of the southern edge of the last row. */
    public double south() {
        return north - rows * cellY;
    }

    /** The bilinear surface; not a number outside the outermost centres, or where one of the four heights is not known. */
    public double at(double x, double y) {
        double column = (x - west) / cellX - 0.5;
        double row = (north - y) / cellY - 0.5;
        int c = (int) Math.floor(column);
        int r = (int) Math.floor(row);
        if (c == columns - 1 && column == c && c > 0) {
            c--;
        }
        if (r == rows - 1 && row == r && r > 0) {
            r--;
        }
        if (c < 0 || r < 0 || c + 1 >= columns || r + 1 >= rows) {
            return nearEdge(column, row);
        }
        double dx = column - c;
        double dy = row - r;
        int at = r * columns + c;
        double upper = heights[at] + (heights[at + 1] - heights[at]) * dx;
        double lower = heights[at + columns] + (heights[at + columns + 1] - heights[at + columns]) * dx;
        return upper + (lower - upper) * dy;
    }

    /** Within the outer half of an edge cell the height of the cell holds. */
    private double nearEdge(double column, double row) {
        int c = (int) Math.round(column);
        int r = (int) Math.round(row);
        return c < 0 || r < 0 || c >= columns || r >= rows ? Double.NaN : heights[r * columns + c];
    }

    /** The same ground in square cells of another size, read bilinearly; this grid where the size is the same. */
    public HeightGrid resampled(double cell) {
        if (cell == cellX && cell == cellY) {
            return this;
        }
        int wide = (int) Math.max(1, Math.floor((east() - west) / cell));
        int high = (int) Math.max(1, Math.floor((north - south()) / cell));
        float[] resampled = new float[wide * high];
        for (int row = 0; row < high; row++) {
            for (int column = 0; column < wide; column++) {
                resampled[row * wide + column] = (float) at(west + (column + 0.5) * cell, north - (row + 0.5) * cell);
            }
        }
        return new HeightGrid(west, north, cell, cell, wide, high, resampled);
    }

    /** Least and greatest height; not numbers when nothing is known. */
    public Range range() {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (float height : heights) {
            if (height < least) {
                least = height;
            }
            if (height > most) {
                most = height;
            }
        }
        return least > most ? new Range(Double.NaN, Double.NaN) : new Range(least, most);
    }

    /** Share of the cells in which a height is known, 0..1. */
    public double known() {
        long known = 0;
        for (float height : heights) {
            known += Float.isNaN(height) ? 0 : 1;
        }
        return (double) known / heights.length;
    }
}

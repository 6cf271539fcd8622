package yalos.core.terrain;

import java.util.stream.IntStream;

/**
 * Can one point be seen from another over the ground?
 *
 * <p>The ray is followed from lattice square to lattice square of the bilinear surface; within a square the surface along the ray
 * is a parabola, whose highest point over the ray is computed, not sampled. The drop by the earth's curvature less refraction can
 * be taken in. For many rays over one ground the highest point of each block of squares is noted first, and blocks that lie wholly
 * below the ray are stepped over.
 */
public final class SightLine {
    /** The earth's radius used for the drop, in metres. */
    private static final double RADIUS_M = 6_378_137;

    /** A surface no higher than this over the ray does not block it, in metres. */
    private static final double GRAZING_M = 0.005;

    private static final int BLOCK_BITS = 3;
    private static final int BLOCK = 1 << BLOCK_BITS;

    private final HeightGrid grid;
    private final double dropPerM2;
    /** Highest ground of each block of squares, by rows of blocks; empty where blocks are not stepped over. */
    private final float[] highest;

    private final int blocksAcross;

    private SightLine(HeightGrid grid, double dropPerM2, boolean manyRays) {
        this.grid = grid;
        this.dropPerM2 = dropPerM2;
        this.blocksAcross = (grid.columns() + BLOCK - 1) / BLOCK;
        this.highest = manyRays ? highest(grid, blocksAcross) : new float[0];
    }

    /** On a plane. */
    public static SightLine plane(HeightGrid grid) {
        return new SightLine(grid, 0, false);
    }

    /** On a plane, made ready for many rays. */
    public static SightLine forManyRays(HeightGrid grid) {
        return new SightLine(grid, 0, true);
    }

    /**
     * Over the round earth.
     *
     * @param coefficient 1 less refraction; 6/7 is usual
     */
    public static SightLine curved(HeightGrid grid, double coefficient) {
        return new SightLine(grid, coefficient / (2 * RADIUS_M), false);
    }

    /** A square reaches to the next column and row, so a block takes in one of each beyond its own. */
    private static float[] highest(HeightGrid grid, int across) {
        int down = (grid.rows() + BLOCK - 1) / BLOCK;
        float[] highest = new float[across * down];
        IntStream.range(0, down).parallel().forEach(blockRow -> {
            int toRow = Math.min(grid.rows(), (blockRow + 1) * BLOCK + 1);
            for (int blockColumn = 0; blockColumn < across; blockColumn++) {
                int toColumn = Math.min(grid.columns(), (blockColumn + 1) * BLOCK + 1);
                float most = Float.NEGATIVE_INFINITY;
                for (int row = blockRow * BLOCK; row < toRow; row++) {
                    for (int column = blockColumn * BLOCK; column < toColumn; column++) {
                        float height = grid.heights()[row * grid.columns() + column];
                        most = height > most ? height : most;
                    }
                }
                highest[blockRow * across + blockColumn] = most;
            }
        });
        return highest;
    }

    /** Share of the ray at which it leaves the block it is in; the same place where the block has to be looked into. */
    private double over(
            int column,
            int row,
            double startColumn,
            double startRow,
            double columns,
            double rows,
            double along,
            double fromZ,
            double toZ) {
        if (column < 0 || row < 0 || column >= grid.columns() || row >= grid.rows()) {
            return along;
        }
        int blockColumn = column >> BLOCK_BITS;
        int blockRow = row >> BLOCK_BITS;
        double next = Math.min(
                columns == 0
                        ? 2
                        : ((columns > 0 ? (blockColumn + 1) * BLOCK : blockColumn * BLOCK) - startColumn) / columns,
                rows == 0 ? 2 : ((rows > 0 ? (blockRow + 1) * BLOCK : blockRow * BLOCK) - startRow) / rows);
        double lowest = fromZ + (toZ - fromZ) * (toZ > fromZ ? along : Math.min(1, next));
        return highest[blockRow * blocksAcross + blockColumn] <= lowest ? next : along;
    }

    /** Whether nothing between stands over the line from a ground point to an eye; nodata does not stand in the way. */
    public boolean clear(double fromX, double fromY, double fromZ, double toX, double toY, double toZ) {
        double length = Math.hypot(toX - fromX, toY - fromY);
        if (length == 0) {
            return true;
        }
        double startColumn = (fromX - grid.west()) / grid.cellX() - 0.5;
        double startRow = (grid.north() - fromY) / grid.cellY() - 0.5;
        double columns = (toX - fromX) / grid.cellX();
        double rows = (fromY - toY) / grid.cellY();
        // Beyond the lattice nothing stands in the way: only the piece over it is followed.
        double along = Math.max(
                0,
                Math.max(
                        enters(startColumn, columns, grid.columns() - 1.0), enters(startRow, rows, grid.rows() - 1.0)));
        double end = Math.min(
                1,
                Math.min(
                        leaves(startColumn, columns, grid.columns() - 1.0), leaves(startRow, rows, grid.rows() - 1.0)));
        int column = (int) Math.floor(startColumn + along * columns);
        int row = (int) Math.floor(startRow + along * rows);
        while (along < end) {
            if (highest.length > 0) {
                double beyond = over(column, row, startColumn, startRow, columns, rows, along, fromZ, toZ);
                if (beyond > along) {
                    if (beyond >= end) {
                        return true;
                    }
                    along = beyond;
                    double inside = beyond + 1e-9;
                    column = (int) Math.floor(startColumn + inside * columns);
                    row = (int) Math.floor(startRow + inside * rows);
                    continue;
                }
            }
            double nextColumn = columns == 0 ? 2 : ((columns > 0 ? column + 1 : column) - startColumn) / columns;
            double nextRow = rows == 0 ? 2 : ((rows > 0 ? row + 1 : row) - startRow) / rows;
            double next = Math.min(1, Math.min(nextColumn, nextRow));
            if (next > along
                    && blocked(column, row, startColumn, startRow, columns, rows, along, next, fromZ, toZ, length)) {
                return false;
            }
            along = Math.max(along, next);
            if (nextColumn <= nextRow) {
                column += columns > 0 ? 1 : -1;
            }
            if (nextRow <= nextColumn) {
                row += rows > 0 ? 1 : -1;
            }
        }
        return true;
    }

    /** Where along a line it comes between 0 and a most; infinite where it never does. */
    private static double enters(double start, double step, double most) {
        if (step == 0) {
            return start >= 0 && start <= most ? 0 : Double.POSITIVE_INFINITY;
        }
        return ((step > 0 ? 0 : most) - start) / step;
    }

    private static double leaves(double start, double step, double most) {
        return step == 0 ? Double.POSITIVE_INFINITY : ((step > 0 ? most : 0) - start) / step;
    }

    /** Whether the surface of one lattice square rises over the ray between two places along it. */
    private boolean blocked(
            int column,
            int row,
            double startColumn,
            double startRow,
            double columns,
            double rows,
            double from,
            double to,
            double fromZ,
            double toZ,
            double length) {
        if (column < 0 || row < 0 || column + 1 >= grid.columns() || row + 1 >= grid.rows()) {
            return false;
        }
        int at = row * grid.columns() + column;
        float[] heights = grid.heights();
        double a = heights[at];
        double b = heights[at + 1] - a;
        double c = heights[at + grid.columns()] - a;
        double d = heights[at + grid.columns() + 1] - a - b - c;
        double u = startColumn - column;
        double v = startRow - row;
        double drop = dropPerM2 * length * length;
        // surface(t) − ray(t) = k0 + k1 t + k2 t²
        double k0 = a + b * u + c * v + d * u * v - fromZ;
        double k1 = b * columns + c * rows + d * (u * rows + v * columns) - (toZ - fromZ);
        double k2 = d * columns * rows;
        if (drop != 0) {
            // seen from the eye at t = 1 both ground and target sink; the target's own sinking tilts the ray
            k1 += drop;
            k2 -= drop;
        }
        if (k0 + from * (k1 + from * k2) > GRAZING_M || k0 + to * (k1 + to * k2) > GRAZING_M) {
            return true;
        }
        if (k2 < 0) {
            double top = -k1 / (2 * k2);
            return top > from && top < to && k0 + top * (k1 + top * k2) > GRAZING_M;
        }
        return false;
    }
}

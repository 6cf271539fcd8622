package yalos.core.terrain;

/**
 * Can one point be seen from another over the ground?
 *
 * <p>The ray is followed from lattice square to lattice square of the bilinear surface; within a square the surface along the ray
 * is a parabola, whose highest point over the ray is computed, not sampled. The drop by the earth's curvature less refraction can
 * be taken in.
 *
 * @param grid the ground
 * @param dropPerM2 by which the ground sinks below the ray's level at a distance, divided by the distance squared; 0 for a plane
 */
public record SightLine(HeightGrid grid, double dropPerM2) {
    /** The earth's radius used for the drop, in metres. */
    private static final double RADIUS_M = 6_378_137;

    /** A surface no higher than this over the ray does not block it, in metres. */
    private static final double GRAZING_M = 0.005;

    /** On a plane. */
    public static SightLine plane(HeightGrid grid) {
        return new SightLine(grid, 0);
    }

    /**
     * Over the round earth.
     *
     * @param coefficient 1 less refraction; 6/7 is usual
     */
    public static SightLine curved(HeightGrid grid, double coefficient) {
        return new SightLine(grid, coefficient / (2 * RADIUS_M));
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
        double along = 0;
        int column = (int) Math.floor(startColumn);
        int row = (int) Math.floor(startRow);
        while (along < 1) {
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

package yalos.core.surface;

import yalos.core.terrain.HeightGrid;

/** The ground as a surface: the cells of a height grid, row 0 in the north. */
public record GroundSurface(HeightGrid grid) implements Surface {
    @Override
    public int columns() {
        return grid.columns();
    }

    @Override
    public int rows() {
        return grid.rows();
    }

    @Override
    public void place(int column, int row, double[] into) {
        into[0] = grid.x(column);
        into[1] = grid.y(row);
        into[2] = grid.cell(column, row);
    }

    /** By the differences to the neighbours; straight up where one of them is not known. */
    @Override
    public void normal(int column, int row, double[] into) {
        int west = Math.max(0, column - 1);
        int east = Math.min(grid.columns() - 1, column + 1);
        int north = Math.max(0, row - 1);
        int south = Math.min(grid.rows() - 1, row + 1);
        double run = Math.max(1, east - west) * grid.cellX();
        double fall = Math.max(1, south - north) * grid.cellY();
        double slopeE = (grid.cell(east, row) - grid.cell(west, row)) / run;
        double slopeN = (grid.cell(column, north) - grid.cell(column, south)) / fall;
        boolean known = Double.isFinite(slopeE) && Double.isFinite(slopeN);
        double length = known ? Math.sqrt(1 + slopeE * slopeE + slopeN * slopeN) : 1;
        into[0] = known ? -slopeE / length : 0;
        into[1] = known ? -slopeN / length : 0;
        into[2] = 1 / length;
    }

    @Override
    public boolean oneSided() {
        return false;
    }

    @Override
    public Box box(int fromColumn, int toColumn, int fromRow, int toRow) {
        float low = Float.POSITIVE_INFINITY;
        float high = Float.NEGATIVE_INFINITY;
        for (int row = fromRow; row < toRow; row++) {
            for (int at = row * columns() + fromColumn; at < row * columns() + toColumn; at++) {
                float height = grid.heights()[at];
                low = height < low ? height : low;
                high = height > high ? height : high;
            }
        }
        return low > high
                ? Box.EMPTY
                : new Box(grid.x(fromColumn), grid.x(toColumn - 1), grid.y(toRow - 1), grid.y(fromRow), low, high);
    }
}

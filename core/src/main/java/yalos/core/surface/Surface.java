package yalos.core.surface;

/**
 * Cells in columns and rows, each with a place and the direction it faces. Ground, wall, roof and underside are the same to whoever
 * looks at them.
 */
public interface Surface {
    int columns();

    int rows();

    /**
     * The middle of a cell.
     *
     * @param into x, y in the block's plane and the height; not a number as height where the cell is not known
     */
    void place(int column, int row, double[] into);

    /**
     * Which way a cell faces.
     *
     * @param into the outward normal of length 1: east, north, up
     */
    void normal(int column, int row, double[] into);

    /** Whether it is seen from its front alone, as a wall is; of ground what stands in the way decides. */
    boolean oneSided();

    /** Whether all cells lie in one plane, so that an eye is before all of them or none. */
    default boolean plane() {
        return false;
    }

    /** Places between which the cells of some columns and rows lie, seen from above, ends left out: x and y of each in turn. */
    default double[] hull(int fromColumn, int toColumn, int fromRow, int toRow) {
        if (!plane()) {
            return box(fromColumn, toColumn, fromRow, toRow).hull();
        }
        double[] at = new double[3];
        double[] hull = new double[8];
        for (int corner = 0; corner < 4; corner++) {
            place(corner % 2 == 0 ? fromColumn : toColumn - 1, corner / 2 == 0 ? fromRow : toRow - 1, at);
            hull[2 * corner] = at[0];
            hull[2 * corner + 1] = at[1];
        }
        return hull;
    }

    /** A box round the known cells of some columns and rows, ends left out; empty where none is known. */
    default Box box(int fromColumn, int toColumn, int fromRow, int toRow) {
        double[] at = new double[3];
        double[] least = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        double[] most = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
        for (int row = fromRow; row < toRow; row++) {
            for (int column = fromColumn; column < toColumn; column++) {
                place(column, row, at);
                if (!Double.isNaN(at[2])) {
                    for (int axis = 0; axis < 3; axis++) {
                        least[axis] = Math.min(least[axis], at[axis]);
                        most[axis] = Math.max(most[axis], at[axis]);
                    }
                }
            }
        }
        return new Box(least[0], most[0], least[1], most[1], least[2], most[2]);
    }
}

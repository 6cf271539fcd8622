package yalos.core.proof;

/**
 * Photos that see each cell of the ground, on a grid of square cells in the block's plane: rows from south to north, columns from
 * west to east.
 */
public interface CountGrid {
    int columns();

    int rows();

    /** Side of a cell in metres. */
    double cellM();

    double westM();

    double southM();

    /** Photos that see a cell's centre. */
    int at(int column, int row);

    /** Whether a cell's centre lies in the block, on ground that is known. */
    boolean inside(int column, int row);

    /** Whether a cell's centre lies in the block, but nobody knows how high its ground is. */
    default boolean unknown(int column, int row) {
        return false;
    }

    /** x of a column's centre. */
    double x(int column);

    /** y of a row's centre. */
    double y(int row);

    /** Cells of the block by the number of photos that see them; index is the number. */
    default int[] histogram() {
        int most = 0;
        for (int row = 0; row < rows(); row++) {
            for (int column = 0; column < columns(); column++) {
                most = Math.max(most, at(column, row));
            }
        }
        int[] cells = new int[most + 1];
        for (int row = 0; row < rows(); row++) {
            for (int column = 0; column < columns(); column++) {
                if (inside(column, row)) {
                    cells[at(column, row)]++;
                }
            }
        }
        return cells;
    }
}

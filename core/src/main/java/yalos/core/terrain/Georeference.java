package yalos.core.terrain;

/**
 * Where a raster lies: an affine map from cells to positions. Columns and rows count from the upper left <em>corner</em> of the
 * first cell, so the centre of the first cell is at 0.5, 0.5.
 *
 * @param originX position of that corner
 * @param originY position of that corner
 * @param xPerColumn change of x by one column
 * @param xPerRow change of x by one row; 0 for a grid that is not rotated
 * @param yPerColumn change of y by one column; 0 for a grid that is not rotated
 * @param yPerRow change of y by one row; negative where row 0 is north
 */
public record Georeference(
        double originX, double originY, double xPerColumn, double xPerRow, double yPerColumn, double yPerRow) {

    /** A grid with square or oblong cells, north up. */
    public static Georeference northUp(double west, double north, double cellX, double cellY) {
        return new Georeference(west, north, cellX, 0, 0, -cellY);
    }

    /** x of a place given in columns and rows, in the file's coordinates; whole figures are cell corners. */
    public double x(double column, double row) {
        return originX + xPerColumn * column + xPerRow * row;
    }

    /** y of a place given in columns and rows, in the file's coordinates; whole figures are cell corners. */
    public double y(double column, double row) {
        return originY + yPerColumn * column + yPerRow * row;
    }

    private double determinant() {
        return xPerColumn * yPerRow - xPerRow * yPerColumn;
    }

    /** Column of a place in the file's coordinates, with its fraction. */
    public double column(double x, double y) {
        return ((x - originX) * yPerRow - (y - originY) * xPerRow) / determinant();
    }

    /** Row of a place in the file's coordinates, with its fraction. */
    public double row(double x, double y) {
        return ((y - originY) * xPerColumn - (x - originX) * yPerColumn) / determinant();
    }

    /** Whether columns run along x and rows down along y. */
    public boolean isNorthUp() {
        return xPerRow == 0 && yPerColumn == 0 && xPerColumn > 0 && yPerRow < 0;
    }

    /** Whether it maps cells to positions at all. */
    boolean isSound() {
        double determinant = determinant();
        return Double.isFinite(originX) && Double.isFinite(originY) && Double.isFinite(determinant) && determinant != 0;
    }

    /** Length of a cell along its columns, in units of the positions. */
    public double cellWidth() {
        return Math.hypot(xPerColumn, yPerColumn);
    }

    /** Length of a cell along its rows, in units of the positions. */
    public double cellHeight() {
        return Math.hypot(xPerRow, yPerRow);
    }
}

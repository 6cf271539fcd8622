package yalos.core.terrain;

import java.util.OptionalInt;

/** A grid of heights that may be larger than memory: read window by window. Not a number where nothing is known. */
public interface Raster extends AutoCloseable {
    int columns();

    int rows();

    /** Where it lies, in units of its own coordinate system. */
    Georeference georeference();

    /** EPSG code of its coordinate system, where the file names one. */
    OptionalInt epsg();

    /** Columns of the pieces that are cheaply read at once. */
    default int blockColumns() {
        return columns();
    }

    /** Rows of the pieces that are cheaply read at once. */
    default int blockRows() {
        return Math.min(rows(), 64);
    }

    /** Heights of a window, row by row from row 0, in the unit of the file. Cells outside the raster are not numbers. */
    float[] window(int firstColumn, int firstRow, int columns, int rows);

    @Override
    void close();
}

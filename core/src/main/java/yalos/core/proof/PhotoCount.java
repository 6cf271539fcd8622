package yalos.core.proof;

import java.util.Arrays;
import java.util.List;
import yalos.core.block.PlaneBlock;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.Bounds;

/**
 * How many photos see each cell of the ground? Level ground; a photo sees a cell when its frame holds the cell's centre.
 *
 * <p>Each footprint writes only where it begins and ends in every row; one running sum over the row then gives the
 * counts. The work is one pass over the cells and one over the rows of each footprint, whatever the overlap.
 *
 * <p>Rows run from south to north, columns from west to east, in the block's plane. Cells outside the block are counted
 * too and marked outside.
 */
public final class PhotoCount implements CountGrid {
    /** Cells that a count made for a screen has at most: about as many as the sheet has pixels for the block. */
    public static final int SCREEN_CELLS = 250_000;

    private static final double[] CELL_SIZES = {
        0.1, 0.2, 0.3, 0.5, 0.75, 1, 1.5, 2, 3, 5, 7.5, 10, 15, 20, 30, 50, 75, 100, 200
    };

    private final double westM;
    private final double southM;
    private final double cellM;
    private final int columns;
    private final int rows;
    /** Counts by row, one cell wider than the grid so that a footprint may end behind the last column. */
    private final int[] counts;

    private final boolean[] inside;

    private PhotoCount(PlaneBlock block, double cellM) {
        Bounds bounds = block.bounds();
        this.westM = bounds.west();
        this.southM = bounds.south();
        this.cellM = cellM;
        this.columns = Math.max(1, (int) Math.ceil(bounds.width() / cellM));
        this.rows = Math.max(1, (int) Math.ceil(bounds.height() / cellM));
        this.counts = new int[rows * (columns + 1)];
        this.inside = new boolean[rows * columns];
    }

    /**
     * @param block without margin: the ground that is asked for
     * @param photos every one, over level ground at height 0
     * @param cellM side of a cell in metres
     */
    public static PhotoCount of(PlaneBlock block, List<Exposure> photos, double cellM) {
        PhotoCount count = new PhotoCount(block, cellM);
        count.markInside(block);
        count.addFootprints(photos);
        count.sumRows();
        return count;
    }

    /** The finest of a series of round cell sizes with which the block has no more than so many cells. */
    public static double cellSizeM(PlaneBlock block, int mostCells) {
        Bounds bounds = block.bounds();
        double area = bounds.width() * bounds.height();
        return Arrays.stream(CELL_SIZES)
                .filter(size -> area / size / size <= mostCells)
                .findFirst()
                .orElse(CELL_SIZES[CELL_SIZES.length - 1]);
    }

    @Override
    public int columns() {
        return columns;
    }

    @Override
    public int rows() {
        return rows;
    }

    @Override
    public double cellM() {
        return cellM;
    }

    @Override
    public double westM() {
        return westM;
    }

    @Override
    public double southM() {
        return southM;
    }

    /** Photos that see a cell's centre. */
    @Override
    public int at(int column, int row) {
        return counts[row * (columns + 1) + column];
    }

    /** Whether a cell's centre lies in the block. */
    @Override
    public boolean inside(int column, int row) {
        return inside[row * columns + column];
    }

    @Override
    public double x(int column) {
        return westM + (column + 0.5) * cellM;
    }

    @Override
    public double y(int row) {
        return southM + (row + 0.5) * cellM;
    }

    private void markInside(PlaneBlock block) {
        boolean[] fromNorth = block.inside(westM, southM + rows * cellM, cellM, cellM, columns, rows);
        for (int row = 0; row < rows; row++) {
            System.arraycopy(fromNorth, (rows - 1 - row) * columns, inside, row * columns, columns);
        }
    }

    /** The first column whose centre lies at or east of x; not below 0, may be beyond the last. */
    private int firstColumn(double x) {
        return (int) Math.max(0, Math.ceil((x - westM) / cellM - 0.5));
    }

    private int firstRow(double y) {
        return (int) Math.max(0, Math.ceil((y - southM) / cellM - 0.5));
    }

    private void addFootprints(List<Exposure> photos) {
        double[] wests = new double[rows];
        double[] easts = new double[rows];
        for (Exposure photo : photos) {
            add(new View(photo.lens(), photo.pose()).footprint(0), wests, easts);
        }
    }

    /** Adds one photo given by the corners of its convex footprint; none add nothing. */
    private void add(double[] corners, double[] wests, double[] easts) {
        double south = Double.POSITIVE_INFINITY;
        double north = Double.NEGATIVE_INFINITY;
        for (int i = 1; i < corners.length; i += 2) {
            south = Math.min(south, corners[i]);
            north = Math.max(north, corners[i]);
        }
        int first = firstRow(south);
        int end = Math.min(rows, firstRow(north));
        if (corners.length == 0 || first >= end) {
            return;
        }
        Arrays.fill(wests, first, end, Double.MAX_VALUE);
        Arrays.fill(easts, first, end, -Double.MAX_VALUE);
        for (int i = 0, j = corners.length - 2; i < corners.length; j = i, i += 2) {
            walkEdge(corners[j], corners[j + 1], corners[i], corners[i + 1], wests, easts);
        }
        for (int row = first; row < end; row++) {
            int from = firstColumn(wests[row]);
            int to = Math.min(columns, firstColumn(easts[row]));
            if (from < to) {
                int start = row * (columns + 1);
                counts[start + from]++;
                counts[start + to]--;
            }
        }
    }

    /** Widens the reach of every row whose centre line an edge crosses. */
    private void walkEdge(double x1, double y1, double x2, double y2, double[] wests, double[] easts) {
        int first = firstRow(Math.min(y1, y2));
        int end = Math.min(rows, firstRow(Math.max(y1, y2)));
        double slope = (x2 - x1) / (y2 - y1);
        for (int row = first; row < end; row++) {
            double x = x1 + (y(row) - y1) * slope;
            if (x < wests[row]) {
                wests[row] = x;
            }
            if (x > easts[row]) {
                easts[row] = x;
            }
        }
    }

    private void sumRows() {
        int stride = columns + 1;
        for (int row = 0; row < rows; row++) {
            int running = 0;
            for (int at = row * stride; at < (row + 1) * stride; at++) {
                running += counts[at];
                counts[at] = running;
            }
        }
    }
}

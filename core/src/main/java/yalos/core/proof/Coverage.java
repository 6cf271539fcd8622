package yalos.core.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;

/**
 * Is every bit of the block seen often enough? A count of photos, judged. Ground of unknown height belongs to the block and is never
 * counted as seen.
 *
 * @param count the counts
 * @param histogram cells of the block by number of photos
 * @param unknown cells of the block whose ground is not known
 * @param asked photos that should see every cell
 * @param weakSpots connected ground seen too few times, the largest first
 */
public record Coverage(CountGrid count, int[] histogram, long unknown, int asked, List<WeakSpot> weakSpots) {
    private static final int MOST_SPOTS = 8;

    /** A count held against the photos asked for. */
    public static Coverage of(CountGrid count, int asked) {
        return new Coverage(
                count, count.histogram(), unknown(count), asked, new Spots(count, asked).largest(MOST_SPOTS));
    }

    private static long unknown(CountGrid count) {
        long unknown = 0;
        for (int row = 0; row < count.rows(); row++) {
            for (int column = 0; column < count.columns(); column++) {
                unknown += count.unknown(column, row) ? 1 : 0;
            }
        }
        return unknown;
    }

    /** Cells of the block. */
    public long cells() {
        return unknown + known();
    }

    private long known() {
        long cells = 0;
        for (int number : histogram) {
            cells += number;
        }
        return cells;
    }

    /** Share of the block, 0..1, that at least so many photos see. An empty block has a share of 0. */
    public double shareAtLeast(int photos) {
        long seen = 0;
        for (int i = photos; i < histogram.length; i++) {
            seen += histogram[i];
        }
        long cells = cells();
        return cells == 0 ? 0 : (double) seen / cells;
    }

    /** Share of the block that is known to be seen too few times. */
    public double shareShort() {
        return 1 - shareAtLeast(asked) - shareUnknown();
    }

    /** Share of the block whose ground is not known, 0..1. */
    public double shareUnknown() {
        long cells = cells();
        return cells == 0 ? 0 : (double) unknown / cells;
    }

    /** Photos that see a cell, on average over the ground that is known. */
    public double meanPhotos() {
        double sum = 0;
        for (int i = 0; i < histogram.length; i++) {
            sum += (double) i * histogram[i];
        }
        return known() == 0 ? 0 : sum / known();
    }

    /** The fewest photos that see any cell of the block. */
    public int leastPhotos() {
        for (int i = 0; i < histogram.length; i++) {
            if (histogram[i] > 0) {
                return i;
            }
        }
        return 0;
    }

    /** Finds connected cells that are seen too few times. */
    private static final class Spots {
        private final CountGrid count;
        private final int asked;
        private final boolean[] done;
        /** Known cells of the block: weak ground that is nearly all of them is no edge, though it touches it. */
        private final int inBlock;

        Spots(CountGrid count, int asked) {
            this.count = count;
            this.asked = asked;
            this.done = new boolean[count.columns() * count.rows()];
            this.inBlock = Arrays.stream(count.histogram()).sum();
        }

        List<WeakSpot> largest(int most) {
            List<WeakSpot> spots = new ArrayList<>();
            for (int row = 0; row < count.rows(); row++) {
                for (int column = 0; column < count.columns(); column++) {
                    if (weak(column, row) && !done[index(column, row)]) {
                        spots.add(spotFrom(column, row));
                    }
                }
            }
            return spots.stream()
                    .sorted(Comparator.comparingDouble(WeakSpot::areaM2).reversed())
                    .limit(most)
                    .toList();
        }

        private WeakSpot spotFrom(int startColumn, int startRow) {
            Deque<Integer> open = new ArrayDeque<>();
            enter(startColumn, startRow, open);
            int cells = 0;
            int least = Integer.MAX_VALUE;
            int leastIndex = 0;
            boolean edge = false;
            while (!open.isEmpty()) {
                int index = open.pop();
                int column = index % count.columns();
                int row = index / count.columns();
                cells++;
                if (count.at(column, row) < least) {
                    least = count.at(column, row);
                    leastIndex = index;
                }
                edge |= outside(column - 1, row)
                        || outside(column + 1, row)
                        || outside(column, row - 1)
                        || outside(column, row + 1);
                enter(column - 1, row, open);
                enter(column + 1, row, open);
                enter(column, row - 1, open);
                enter(column, row + 1, open);
            }
            return new WeakSpot(
                    cells * count.cellM() * count.cellM(),
                    count.x(leastIndex % count.columns()),
                    count.y(leastIndex / count.columns()),
                    least,
                    edge && cells < inBlock * Judgement.NEARLY_ALL);
        }

        private void enter(int column, int row, Deque<Integer> open) {
            if (!outside(column, row) && weak(column, row) && !done[index(column, row)]) {
                done[index(column, row)] = true;
                open.push(index(column, row));
            }
        }

        private boolean weak(int column, int row) {
            return count.inside(column, row) && count.at(column, row) < asked;
        }

        private boolean outside(int column, int row) {
            return column < 0
                    || row < 0
                    || column >= count.columns()
                    || row >= count.rows()
                    || !count.inside(column, row);
        }

        private int index(int column, int row) {
            return row * count.columns() + column;
        }
    }
}

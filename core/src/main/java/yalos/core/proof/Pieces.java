package yalos.core.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;

/** Cells of a kind that lie together: joined where no more than a cell lies between. */
public final class Pieces {
    /** The kind of cells that belong to no piece. */
    public static final int NONE = -1;

    /** Cells this near to each other are one piece. */
    private static final int NEAR_CELLS = 2;

    private final int columns;
    private final int rows;
    private final IntUnaryOperator kind;
    private final boolean[] done;

    private Pieces(int columns, int rows, IntUnaryOperator kind) {
        this.columns = columns;
        this.rows = rows;
        this.kind = kind;
        this.done = new boolean[columns * rows];
    }

    /**
     * @param columns of the grid, whose cells are numbered row by row
     * @param rows of it
     * @param kind of a cell by its number; {@link #NONE} for none
     * @return the numbers of the cells of each piece
     */
    public static List<int[]> of(int columns, int rows, IntUnaryOperator kind) {
        Pieces pieces = new Pieces(columns, rows, kind);
        return IntStream.range(0, columns * rows)
                .filter(at -> !pieces.done[at] && kind.applyAsInt(at) != NONE)
                .mapToObj(pieces::from)
                .toList();
    }

    private int[] from(int start) {
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        done[start] = true;
        List<Integer> found = new ArrayList<>();
        while (!open.isEmpty()) {
            int at = open.pop();
            found.add(at);
            enter(at, kind.applyAsInt(start), open);
        }
        return found.stream().mapToInt(Integer::intValue).toArray();
    }

    private void enter(int at, int wanted, Deque<Integer> open) {
        int column = at % columns;
        int row = at / columns;
        for (int r = Math.max(0, row - NEAR_CELLS); r <= Math.min(rows - 1, row + NEAR_CELLS); r++) {
            for (int c = Math.max(0, column - NEAR_CELLS); c <= Math.min(columns - 1, column + NEAR_CELLS); c++) {
                int other = r * columns + c;
                if (!done[other] && kind.applyAsInt(other) == wanted) {
                    done[other] = true;
                    open.push(other);
                }
            }
        }
    }
}

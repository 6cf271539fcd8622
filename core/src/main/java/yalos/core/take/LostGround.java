package yalos.core.take;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.WeakGround;

/** Ground that a plan gives enough and a take does not: cells that were lost, joined where they lie together. */
final class LostGround {
    private static final int NEAR_CELLS = 2;
    private static final double LEAST_M2 = 4;
    private static final double LEAST_SHARE = 0.0002;
    private static final int MOST = 12;

    private final Judgement planned;
    private final Judgement taken;
    private final GroundProof proof;

    private LostGround(Judgement planned, Judgement taken) {
        this.planned = planned;
        this.taken = taken;
        this.proof = taken.proof();
    }

    /** The largest pieces, the largest first; specks are left out. */
    static List<WeakGround> of(Judgement planned, Judgement taken) {
        return new LostGround(planned, taken).pieces();
    }

    private boolean lost(int at) {
        if (!taken.at(at).known() || taken.at(at) == Adequacy.ENOUGH) {
            return false;
        }
        int least = taken.asked().photos();
        boolean fewer = proof.counts()[at] < least && planned.proof().counts()[at] >= least;
        return fewer || planned.at(at) == Adequacy.ENOUGH;
    }

    private List<WeakGround> pieces() {
        boolean[] done = new boolean[proof.columns() * proof.rows()];
        List<WeakGround> found = new ArrayList<>();
        double cell = proof.grid().cellX() * proof.grid().cellY();
        double least = Math.max(LEAST_M2, LEAST_SHARE * proof.asked() * cell);
        for (int at = 0; at < done.length; at++) {
            if (!done[at] && lost(at)) {
                WeakGround piece = piece(at, done, cell);
                if (piece.areaM2() >= least) {
                    found.add(piece);
                }
            }
        }
        found.sort(Comparator.comparingDouble(WeakGround::areaM2).reversed());
        return List.copyOf(found.subList(0, Math.min(MOST, found.size())));
    }

    private WeakGround piece(int start, boolean[] done, double cell) {
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        done[start] = true;
        List<Integer> cells = new ArrayList<>();
        int worst = start;
        while (!open.isEmpty()) {
            int at = open.pop();
            cells.add(at);
            worst = proof.counts()[at] < proof.counts()[worst] ? at : worst;
            enter(at, done, open);
        }
        return new WeakGround(
                WeakGround.Cause.GAPS,
                cells.size() * cell,
                proof.grid().x(worst % proof.columns()),
                proof.grid().y(worst / proof.columns()),
                proof.counts()[worst],
                cells.stream().mapToInt(Integer::intValue).toArray());
    }

    private void enter(int at, boolean[] done, Deque<Integer> open) {
        int column = at % proof.columns();
        int row = at / proof.columns();
        for (int r = Math.max(0, row - NEAR_CELLS); r <= Math.min(proof.rows() - 1, row + NEAR_CELLS); r++) {
            for (int c = Math.max(0, column - NEAR_CELLS);
                    c <= Math.min(proof.columns() - 1, column + NEAR_CELLS);
                    c++) {
                int other = r * proof.columns() + c;
                if (!done[other] && lost(other)) {
                    done[other] = true;
                    open.push(other);
                }
            }
        }
    }
}

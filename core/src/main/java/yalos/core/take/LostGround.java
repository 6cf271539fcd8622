package yalos.core.take;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import yalos.core.proof.Adequacy;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Pieces;
import yalos.core.proof.WeakGround;

/** Ground that a plan gives enough and a take does not: cells that were lost, joined where they lie together. */
final class LostGround {
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
        double cell = proof.grid().cellX() * proof.grid().cellY();
        double least = Math.max(LEAST_M2, LEAST_SHARE * proof.asked() * cell);
        return Pieces.of(proof.columns(), proof.rows(), at -> lost(at) ? 0 : Pieces.NONE).stream()
                .filter(cells -> cells.length * cell >= least)
                .sorted(Comparator.comparingInt((int[] cells) -> cells.length).reversed())
                .limit(MOST)
                .map(cells -> piece(cells, cell))
                .toList();
    }

    private WeakGround piece(int[] cells, double cell) {
        int worst = Arrays.stream(cells)
                .reduce((worse, at) -> proof.counts()[at] < proof.counts()[worse] ? at : worse)
                .orElseThrow();
        return new WeakGround(
                WeakGround.Cause.GAPS,
                cells.length * cell,
                proof.grid().x(worst % proof.columns()),
                proof.grid().y(worst / proof.columns()),
                proof.counts()[worst],
                cells);
    }
}

package yalos.core.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.OptionalDouble;

/** Is every cell of a proof given what is asked for? Where not, which connected pieces of ground lack what, and why. */
public final class Judgement {
    private static final int MOST_SPOTS = 12;
    private static final double GSD_TOLERANCE = 1.05;
    /** Ground nearer to the photos than this share of the usual depth counts as high, farther as low. */
    private static final double NEARER = 0.93;

    private final GroundProof proof;
    private final Asked asked;
    private final byte[] cells;
    private final double usualGsdM;
    private final List<WeakGround> spots;

    /**
     * What is asked of every cell.
     *
     * @param photos that see it, at least
     * @param gsdM of the best of them, at most
     * @param positionSigmaM expected of its position along each axis of the plane, at most
     * @param heightSigmaM expected of its height, at most
     */
    public record Asked(int photos, OptionalDouble gsdM, OptionalDouble positionSigmaM, OptionalDouble heightSigmaM) {}

    /**
     * @param usualGsdM planned, to tell high ground from low
     */
    public Judgement(GroundProof proof, Asked asked, double usualGsdM) {
        this.proof = proof;
        this.asked = asked;
        this.usualGsdM = usualGsdM;
        this.cells = new byte[proof.columns() * proof.rows()];
        for (int row = 0; row < proof.rows(); row++) {
            for (int column = 0; column < proof.columns(); column++) {
                int at = proof.index(column, row);
                Adequacy none = proof.unknown(column, row) ? Adequacy.UNKNOWN : Adequacy.OUTSIDE;
                cells[at] = (byte) (proof.inside(column, row) ? judge(at) : none).ordinal();
            }
        }
        this.spots = largestSpots();
    }

    private Adequacy judge(int at) {
        if (proof.counts()[at] < asked.photos()) {
            return proof.countsWithoutOcclusion()[at] >= asked.photos() ? Adequacy.HIDDEN : Adequacy.TOO_FEW;
        }
        if (asked.gsdM().isPresent() && proof.gsdBestM()[at] > asked.gsdM().getAsDouble() * GSD_TOLERANCE) {
            return Adequacy.TOO_COARSE;
        }
        double position = proof.sigmaHorizontalM()[at] / Math.sqrt(2);
        if (asked.positionSigmaM().isPresent()
                && !(position <= asked.positionSigmaM().getAsDouble())) {
            return Adequacy.OFF;
        }
        float sigma = proof.sigmaVerticalM()[at];
        if (asked.heightSigmaM().isPresent() && !(sigma <= asked.heightSigmaM().getAsDouble())) {
            return Adequacy.INACCURATE;
        }
        return Adequacy.ENOUGH;
    }

    /** What is judged. */
    public GroundProof proof() {
        return proof;
    }

    /** What is asked of every cell. */
    public Asked asked() {
        return asked;
    }

    /** The judgement on a cell, by its index in the proof's layers. */
    public Adequacy at(int index) {
        return Adequacy.values()[cells[index]];
    }

    /** Share of the block that is given enough, 0..1; unknown ground is part of the block and never given enough. */
    public double share() {
        return share(Adequacy.ENOUGH);
    }

    /** Share of the block that is judged so, 0..1. */
    public double share(Adequacy judged) {
        long inside = 0;
        long so = 0;
        for (byte cell : cells) {
            inside += cell == Adequacy.OUTSIDE.ordinal() ? 0 : 1;
            so += cell == judged.ordinal() ? 1 : 0;
        }
        return inside == 0 ? 0 : (double) so / inside;
    }

    private boolean weak(int at) {
        return cells[at] != Adequacy.ENOUGH.ordinal() && !nothingKnown(at);
    }

    private boolean nothingKnown(int at) {
        return !at(at).known();
    }

    /** The largest pieces of weak ground, the largest first. */
    public List<WeakGround> spots() {
        return spots;
    }

    private List<WeakGround> largestSpots() {
        boolean[] done = new boolean[cells.length];
        List<WeakGround> found = new ArrayList<>();
        for (int at = 0; at < cells.length; at++) {
            if (weak(at) && !done[at]) {
                found.add(spot(at, done));
            }
        }
        return found.stream()
                .sorted(Comparator.comparingDouble(WeakGround::areaM2).reversed())
                .limit(MOST_SPOTS)
                .toList();
    }

    /** Cells that lack the same, joined edge to edge. */
    private WeakGround spot(int start, boolean[] done) {
        int columns = proof.columns();
        Deque<Integer> open = new ArrayDeque<>(List.of(start));
        done[start] = true;
        List<Integer> found = new ArrayList<>();
        boolean edge = false;
        int worst = start;
        while (!open.isEmpty()) {
            int at = open.pop();
            found.add(at);
            worst = proof.counts()[at] < proof.counts()[worst] ? at : worst;
            int column = at % columns;
            for (int next :
                    new int[] {column > 0 ? at - 1 : -1, column + 1 < columns ? at + 1 : -1, at - columns, at + columns
                    }) {
                boolean outside = next < 0 || next >= cells.length || nothingKnown(next);
                edge |= outside;
                if (!outside && !done[next] && cells[next] == cells[start]) {
                    done[next] = true;
                    open.push(next);
                }
            }
        }
        double area = found.size() * proof.grid().cellX() * proof.grid().cellY();
        return new WeakGround(
                cause(Adequacy.values()[cells[start]], edge, worst),
                area,
                proof.grid().x(worst % columns),
                proof.grid().y(worst / columns),
                proof.counts()[worst],
                found.stream().mapToInt(Integer::intValue).toArray());
    }

    private WeakGround.Cause cause(Adequacy lack, boolean edge, int worst) {
        return switch (lack) {
            case HIDDEN -> WeakGround.Cause.HIDDEN_SIDE;
            case TOO_COARSE -> WeakGround.Cause.LOW_GROUND;
            case INACCURATE, OFF -> edge ? WeakGround.Cause.EDGE : WeakGround.Cause.WEAK_RAYS;
            default -> {
                boolean high = proof.gsdBestM()[worst] < usualGsdM * NEARER;
                yield edge ? WeakGround.Cause.EDGE : high ? WeakGround.Cause.HIGH_GROUND : WeakGround.Cause.GAPS;
            }
        };
    }
}

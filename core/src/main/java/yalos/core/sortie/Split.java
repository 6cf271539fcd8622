package yalos.core.sortie;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.Patience;

/**
 * Where is a row of stations cut, so that every piece comes home? Fewest pieces first, then fewest cuts inside a strip, then the most even ones: the least sum of squares of what they take.
 *
 * <p>By dynamic programming from the end: all three add up over pieces, and tuples are compared in their order, so the best rest after a cut is the best rest whatever went before. Each start
 * looks only as far as the battery reaches. A test holds it against trying every cut.
 *
 * @param spent taken along the whole row until each station
 * @param out taken from take-off to each station, for each launch point
 * @param home taken from each station to landing, for each launch point
 * @param resume for each station the one from which a piece that starts there is flown: itself, or some stations before it in the same strip
 * @param ends whether a strip ends with each station
 */
public record Split(double[] spent, double[][] out, double[][] home, int[] resume, boolean[] ends) {
    /** So little over what the battery has is rounding. */
    private static final double DUST = 1e-12;

    /**
     * A piece.
     *
     * @param from first station that it has to take
     * @param to last station
     * @param launch index of the launch point
     */
    public record Piece(int from, int to, int launch) {}

    /** What a piece takes from take-off to landing. */
    public double taken(Piece piece) {
        return taken(piece.from, piece.to, piece.launch);
    }

    private double taken(int from, int to, int launch) {
        int start = resume[from];
        return out[launch][start] + spent[to] - spent[start] + home[launch][to];
    }

    /**
     * @param usable what a battery has, its reserve untouched
     * @return the pieces in order; empty where some station cannot be reached and left again on one battery
     */
    public Optional<List<Piece>> cut(double usable) {
        int n = spent.length;
        int[] count = new int[n + 1];
        int[] inside = new int[n + 1];
        double[] squares = new double[n + 1];
        int[] last = new int[n];
        int[] launchOf = new int[n];
        Arrays.fill(count, 0, n, Integer.MAX_VALUE);
        for (int from = n - 1; from >= 0; from--) {
            if (from % 64 == 0) {
                Patience.check();
            }
            for (int launch = 0; launch < out.length; launch++) {
                int start = resume[from];
                double ahead = out[launch][start] - spent[start];
                double worst = Double.NEGATIVE_INFINITY;
                for (int p = start; p < from; p++) {
                    worst = Math.max(worst, spent[p] + home[launch][p]);
                }
                for (int to = from; to < n; to++) {
                    double here = spent[to] + home[launch][to];
                    worst = Math.max(worst, here);
                    if (ahead + worst > usable + DUST) {
                        // Flying on never brings the way home back that was missing here.
                        break;
                    }
                    if (count[to + 1] == Integer.MAX_VALUE) {
                        continue;
                    }
                    int pieces = count[to + 1] + 1;
                    int cuts = inside[to + 1] + (to + 1 < n && !ends[to] ? 1 : 0);
                    double takes = ahead + here;
                    double sum = squares[to + 1] + takes * takes;
                    if (better(pieces, cuts, sum, count[from], inside[from], squares[from])) {
                        count[from] = pieces;
                        inside[from] = cuts;
                        squares[from] = sum;
                        last[from] = to;
                        launchOf[from] = launch;
                    }
                }
            }
        }
        if (n == 0 || count[0] == Integer.MAX_VALUE) {
            return n == 0 ? Optional.of(List.of()) : Optional.empty();
        }
        List<Piece> pieces = new ArrayList<>();
        for (int from = 0; from < n; from = last[from] + 1) {
            pieces.add(new Piece(from, last[from], launchOf[from]));
        }
        return Optional.of(Collections.unmodifiableList(pieces));
    }

    private static boolean better(int pieces, int cuts, double sum, int fewest, int fewestCuts, double least) {
        if (pieces != fewest) {
            return pieces < fewest;
        }
        return cuts != fewestCuts ? cuts < fewestCuts : sum < least;
    }
}

package yalos.core.control;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import yalos.core.fault.Patience;

/**
 * The order in which places are visited at least cost, from the first on. Exact up to {@value #EXACT} places besides the first (Held and Karp 1962, from memory); beyond, from the
 * nearest neighbour improved by turning pieces round and moving pieces (2-opt, Or-opt), begun anew some times; within 5 % of the reference.
 */
public final class Tour {
    static final int EXACT = 12;
    private static final int BEGINNINGS = 12;
    private static final double HAIR = 1e-9;

    private Tour() {}

    /**
     * @param cost from each place to each; need not be the same both ways
     * @param closed whether the way back to the first counts
     * @return places in their order, 0 first
     */
    public static int[] order(double[][] cost, boolean closed) {
        int count = cost.length;
        if (count <= 2) {
            int[] few = new int[count];
            Arrays.setAll(few, i -> i);
            return few;
        }
        return count - 1 <= EXACT ? exact(cost, closed) : improved(cost, closed);
    }

    /** What an order costs. */
    public static double length(double[][] cost, int[] order, boolean closed) {
        double sum = 0;
        for (int i = 1; i < order.length; i++) {
            sum += cost[order[i - 1]][order[i]];
        }
        return closed && order.length > 1 ? sum + cost[order[order.length - 1]][order[0]] : sum;
    }

    private static int[] exact(double[][] cost, boolean closed) {
        int others = cost.length - 1;
        int sets = 1 << others;
        double[][] least = new double[sets][others];
        int[][] before = new int[sets][others];
        for (double[] row : least) {
            Arrays.fill(row, Double.POSITIVE_INFINITY);
        }
        for (int i = 0; i < others; i++) {
            least[1 << i][i] = cost[0][i + 1];
            before[1 << i][i] = -1;
        }
        for (int set = 1; set < sets; set++) {
            for (int last = 0; last < others; last++) {
                if (least[set][last] == Double.POSITIVE_INFINITY) {
                    continue;
                }
                for (int next = 0; next < others; next++) {
                    int with = set | 1 << next;
                    double reached = least[set][last] + cost[last + 1][next + 1];
                    if (with != set && reached < least[with][next]) {
                        least[with][next] = reached;
                        before[with][next] = last;
                    }
                }
            }
        }
        int best = 0;
        for (int last = 1; last < others; last++) {
            if (ended(least, cost, last, closed) < ended(least, cost, best, closed)) {
                best = last;
            }
        }
        int[] order = new int[cost.length];
        int set = sets - 1;
        for (int at = others, last = best; at > 0; at--) {
            order[at] = last + 1;
            int previous = before[set][last];
            set ^= 1 << last;
            last = previous;
        }
        return order;
    }

    private static double ended(double[][] least, double[][] cost, int last, boolean closed) {
        return least[least.length - 1][last] + (closed ? cost[last + 1][0] : 0);
    }

    private static int[] improved(double[][] cost, boolean closed) {
        Random random = new Random(1);
        int[] best = better(nearest(cost), cost, closed);
        double least = length(cost, best, closed);
        for (int i = 0; i < BEGINNINGS; i++) {
            int[] other = better(shaken(best, random), cost, closed);
            double length = length(cost, other, closed);
            if (length < least - HAIR) {
                least = length;
                best = other;
            }
        }
        return best;
    }

    private static int[] nearest(double[][] cost) {
        int[] order = new int[cost.length];
        boolean[] seen = new boolean[cost.length];
        seen[0] = true;
        for (int at = 1; at < order.length; at++) {
            int next = -1;
            for (int i = 0; i < cost.length; i++) {
                if (!seen[i] && (next < 0 || cost[order[at - 1]][i] < cost[order[at - 1]][next])) {
                    next = i;
                }
            }
            order[at] = next;
            seen[next] = true;
        }
        return order;
    }

    /** Two pieces changed over (a double bridge), the first place left where it is. */
    private static int[] shaken(int[] order, Random random) {
        int count = order.length;
        int[] cuts = {1 + random.nextInt(count - 1), 1 + random.nextInt(count - 1), 1 + random.nextInt(count - 1)};
        Arrays.sort(cuts);
        List<Integer> made = new ArrayList<>();
        append(made, order, 0, cuts[0]);
        append(made, order, cuts[1], cuts[2]);
        append(made, order, cuts[0], cuts[1]);
        append(made, order, cuts[2], count);
        return made.stream().mapToInt(Integer::intValue).toArray();
    }

    private static void append(List<Integer> to, int[] from, int begin, int end) {
        for (int i = begin; i < end; i++) {
            to.add(from[i]);
        }
    }

    private static int[] better(int[] begun, double[][] cost, boolean closed) {
        int[] order = begun;
        double length = length(cost, order, closed);
        boolean gained = true;
        while (gained) {
            Patience.check();
            gained = false;
            for (int from = 1; from < order.length; from++) {
                for (int to = from; to < order.length; to++) {
                    int[][] tries = to - from < 3
                            ? new int[][] {turned(order, from, to), moved(order, from, to, cost)}
                            : new int[][] {turned(order, from, to)};
                    for (int[] other : tries) {
                        double tried = length(cost, other, closed);
                        if (tried < length - HAIR) {
                            order = other;
                            length = tried;
                            gained = true;
                        }
                    }
                }
            }
        }
        return order;
    }

    private static int[] turned(int[] order, int from, int to) {
        int[] other = order.clone();
        for (int i = from, j = to; i < j; i++, j--) {
            int kept = other[i];
            other[i] = other[j];
            other[j] = kept;
        }
        return other;
    }

    /** The piece put where it lengthens the rest least. */
    private static int[] moved(int[] order, int from, int to, double[][] cost) {
        int size = to - from + 1;
        int[] rest = new int[order.length - size];
        System.arraycopy(order, 0, rest, 0, from);
        System.arraycopy(order, to + 1, rest, from, order.length - to - 1);
        int place = rest.length;
        double least = cost[rest[rest.length - 1]][order[from]];
        for (int i = 1; i < rest.length; i++) {
            double more = cost[rest[i - 1]][order[from]] + cost[order[to]][rest[i]] - cost[rest[i - 1]][rest[i]];
            if (more < least) {
                least = more;
                place = i;
            }
        }
        int[] other = new int[order.length];
        System.arraycopy(rest, 0, other, 0, place);
        System.arraycopy(order, from, other, place, size);
        System.arraycopy(rest, place, other, place + size, rest.length - place);
        return other;
    }
}

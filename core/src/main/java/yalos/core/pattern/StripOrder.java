package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/**
 * In which order and direction does a wing fly parallel strips so that its turns take least? Neighbours often lie closer than it can turn; then it
 * pays to leave some out and come back for them.
 *
 * <p>Exact for {@value #EXACT} strips or fewer, by dynamic programming over the sets flown (Held and Karp 1962, from memory). Beyond that groups are
 * flown interleaved: the first of a group, the first of its other half, the second of each, and so on; all sizes of groups are tried, and the back and
 * forth in sequence.
 */
final class StripOrder {
    static final int EXACT = 9;
    /** No group larger than so many turning circles side by side is tried. */
    private static final int MOST_GROUP = 64;

    private StripOrder() {}

    /** A strip, and whether it is flown against the direction. */
    record Step(int strip, boolean reversed) {
        private int state() {
            return 2 * strip + (reversed ? 1 : 0);
        }

        private static Step of(int state) {
            return new Step(state / 2, state % 2 == 1);
        }
    }

    /** What it takes to get from one strip to another, to the first and home from the last; seconds or metres. */
    interface Cost {
        double between(Step from, Step to);

        double start(Step first);

        double end(Step last);
    }

    /** The strips in the best order found. */
    static List<Step> of(int strips, Cost cost) {
        return strips <= EXACT ? exact(strips, cost) : interleaved(strips, cost);
    }

    private static List<Step> exact(int strips, Cost cost) {
        if (strips == 0) {
            return List.of();
        }
        int states = 2 * strips;
        double[][] between = new double[states][states];
        for (int a = 0; a < states; a++) {
            for (int b = 0; b < states; b++) {
                between[a][b] = a / 2 == b / 2 ? Double.POSITIVE_INFINITY : cost.between(Step.of(a), Step.of(b));
            }
        }
        double[][] least = new double[1 << strips][states];
        byte[][] before = new byte[1 << strips][states];
        for (double[] row : least) {
            Arrays.fill(row, Double.POSITIVE_INFINITY);
        }
        for (int state = 0; state < states; state++) {
            least[1 << state / 2][state] = cost.start(Step.of(state));
        }
        for (int flown = 1; flown < 1 << strips; flown++) {
            for (int last = 0; last < states; last++) {
                if ((flown >> last / 2 & 1) == 1 && least[flown][last] < Double.POSITIVE_INFINITY) {
                    extend(flown, last, least, before, between);
                }
            }
        }
        return read(least, before, cost, strips);
    }

    private static void extend(int flown, int last, double[][] least, byte[][] before, double[][] between) {
        for (int next = 0; next < between.length; next++) {
            if ((flown >> next / 2 & 1) == 0) {
                int then = flown | 1 << next / 2;
                double takes = least[flown][last] + between[last][next];
                if (takes < least[then][next] - 1e-9) {
                    least[then][next] = takes;
                    before[then][next] = (byte) last;
                }
            }
        }
    }

    private static List<Step> read(double[][] least, byte[][] before, Cost cost, int strips) {
        int flown = (1 << strips) - 1;
        int last = 0;
        double best = Double.POSITIVE_INFINITY;
        for (int state = 0; state < 2 * strips; state++) {
            double takes = least[flown][state] + cost.end(Step.of(state));
            if (takes < best - 1e-9) {
                best = takes;
                last = state;
            }
        }
        List<Step> order = new ArrayList<>();
        while (flown != 0) {
            order.add(0, Step.of(last));
            int earlier = before[flown][last];
            flown &= ~(1 << last / 2);
            last = earlier;
        }
        return order;
    }

    private static List<Step> interleaved(int strips, Cost cost) {
        List<Step> best = List.of();
        double least = Double.POSITIVE_INFINITY;
        for (int size = 1; size <= Math.min(strips, MOST_GROUP); size++) {
            int[] sequence = sequence(strips, size);
            for (int corner = 0; corner < 4; corner++) {
                boolean fromLast = corner / 2 == 1;
                boolean reversed = corner % 2 == 1;
                IntFunction<Step> at =
                        i -> new Step(fromLast ? strips - 1 - sequence[i] : sequence[i], reversed ^ i % 2 == 1);
                double takes = takes(strips, at, cost);
                if (takes < least - 1e-9) {
                    least = takes;
                    best = IntStream.range(0, strips).mapToObj(at).toList();
                }
            }
        }
        return best;
    }

    private static double takes(int strips, IntFunction<Step> at, Cost cost) {
        Step last = at.apply(0);
        double takes = cost.start(last);
        for (int i = 1; i < strips; i++) {
            Step next = at.apply(i);
            takes += cost.between(last, next);
            last = next;
        }
        return takes + cost.end(last);
    }

    /** Groups of about a size, each interleaved with its own other half; a size of 1 is the plain sequence. */
    private static int[] sequence(int strips, int size) {
        int[] sequence = new int[strips];
        int groups = Math.max(1, (int) Math.round((double) strips / size));
        int at = 0;
        for (int group = 0; group < groups; group++) {
            int from = (int) ((long) strips * group / groups);
            int count = (int) ((long) strips * (group + 1) / groups) - from;
            int half = (count + 1) / 2;
            for (int i = 0; i < half; i++) {
                sequence[at++] = from + i;
                if (half + i < count) {
                    sequence[at++] = from + half + i;
                }
            }
        }
        return sequence;
    }
}

package yalos.core.pattern;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;

/**
 * In which order and direction does a wing fly parallel strips so that its turns take least? Neighbours often lie closer than it can turn; then it
 * pays to leave some out and come back for them.
 *
 * <p>Exact for {@value #EXACT} strips or fewer, by dynamic programming over the sets flown (Held and Karp 1962, from memory). Beyond that groups are
 * flown interleaved: the first of a group, the first of its other half, the second of each, and so on; all sizes of groups are weighed, and the back and
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

    /** The best of all orders and directions, for {@value #EXACT} strips or fewer. */
    static List<Step> exact(int strips, Cost cost) {
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

    /**
     * Interleaved in groups of the size whose turns are shortest, were all strips of one length; begun at the corner from which the ways out and home are.
     *
     * @param turn length of a turn to the strip so many away, flown the other way
     */
    static List<Step> interleaved(int strips, Cost cost, IntToDoubleFunction turn) {
        int[] best = new int[0];
        double least = Double.POSITIVE_INFINITY;
        for (int size = 1; size <= Math.min(strips, MOST_GROUP); size++) {
            int[] sequence = sequence(strips, size);
            double takes = 0;
            for (int i = 1; i < strips && takes < least; i++) {
                takes += turn.applyAsDouble(Math.abs(sequence[i] - sequence[i - 1]));
            }
            if (takes < least - 1e-9) {
                least = takes;
                best = sequence;
            }
        }
        return begun(best, cost);
    }

    private static List<Step> begun(int[] sequence, Cost cost) {
        int strips = sequence.length;
        IntFunction<Step> nearest = null;
        double least = Double.POSITIVE_INFINITY;
        for (int corner = 0; corner < 4 && strips > 0; corner++) {
            boolean fromLast = corner / 2 == 1;
            boolean reversed = corner % 2 == 1;
            IntFunction<Step> at =
                    i -> new Step(fromLast ? strips - 1 - sequence[i] : sequence[i], reversed ^ i % 2 == 1);
            double takes = cost.start(at.apply(0)) + cost.end(at.apply(strips - 1));
            if (takes < least - 1e-9) {
                least = takes;
                nearest = at;
            }
        }
        return strips == 0
                ? List.of()
                : IntStream.range(0, strips).mapToObj(nearest).toList();
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

package yalos.core.take;

import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import yalos.core.figures.Median;

/** When stations were due, by the photos that are sure of theirs: a pause or another order of parts moves only what was taken near it in time. */
final class Due {
    private static final int NEIGHBOURS = 8;
    private static final int MOST_VOTERS = 400;

    private final double[] seconds;
    private final double[] delay;

    private Due(double[] seconds, double[] delay) {
        this.seconds = seconds;
        this.delay = delay;
    }

    /**
     * @param sure index of the station of each photo that is sure of it
     * @param taken seconds of each photo, NaN where it has no time
     */
    static Due of(Map<Integer, Integer> sure, double[] taken, List<Station> stations) {
        List<Integer> known = sure.keySet().stream()
                .filter(i -> !Double.isNaN(taken[i]))
                .sorted(Comparator.comparingDouble(i -> taken[i]))
                .toList();
        return new Due(
                known.stream().mapToDouble(i -> taken[i]).toArray(),
                known.stream()
                        .mapToDouble(i -> taken[i] - stations.get(sure.get(i)).plannedS())
                        .toArray());
    }

    boolean known() {
        return seconds.length > 0;
    }

    /** How much later than its neighbours in time a photo would have been taken; NaN where nothing tells. */
    double lateS(double at, double plannedS) {
        return !known() || Double.isNaN(at) ? Double.NaN : at - plannedS - delayAt(at);
    }

    /** The middle delay of the photos next in time. */
    double delayAt(double at) {
        int near = Arrays.binarySearch(seconds, at);
        int from = near < 0 ? -near - 1 : near;
        int low = Math.max(0, Math.min(from - NEIGHBOURS / 2, seconds.length - NEIGHBOURS));
        int high = Math.min(seconds.length, low + NEIGHBOURS);
        return Median.of(Arrays.copyOfRange(delay, low, high));
    }

    /** Where no photo has a place: the delay under which most photos were due. */
    static double voted(double[] taken, List<Station> stations, double intervalS) {
        double cell = intervalS / 4;
        Map<Long, Integer> votes = new HashMap<>();
        int most = Math.min(taken.length, MOST_VOTERS);
        for (int n = 0; n < most; n++) {
            double at = taken[n * taken.length / most];
            for (Station one : stations) {
                votes.merge(Math.round((at - one.plannedS()) / cell), 1, Integer::sum);
            }
        }
        long best = Collections.max(
                        votes.entrySet(),
                        Comparator.comparingInt(entry -> votes.getOrDefault(entry.getKey() - 1, 0)
                                + 2 * entry.getValue()
                                + votes.getOrDefault(entry.getKey() + 1, 0)))
                .getKey();
        return best * cell;
    }
}

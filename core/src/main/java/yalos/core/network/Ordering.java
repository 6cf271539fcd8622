package yalos.core.network;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import yalos.core.camera.Pose;
import yalos.core.network.Network.Sight;

/**
 * The order of photos in which those that share points stand near each other: the narrower, the quicker a network is solved. As flown is good for one grid; with crossing or
 * tilted passes besides, photos of the same place are flown far apart, and sorting them along the block is better.
 */
final class Ordering {
    private static final int TURNS = 8;

    private Ordering() {}

    /** The same network with its photos as flown, or along the direction that keeps them nearest together. */
    static Network narrow(Network network) {
        List<Pose> photos = network.photos();
        int[] flown = IntStream.range(0, photos.size()).toArray();
        int[] best = flown;
        long least = spread(network, flown);
        for (int turn = 0; turn < TURNS; turn++) {
            double along = turn * Math.PI / TURNS;
            int[] at = sorted(photos, along);
            long spread = spread(network, at);
            if (spread < least) {
                least = spread;
                best = at;
            }
        }
        return best == flown ? network : renumbered(network, best);
    }

    /** New place of each photo, counted along a direction. */
    private static int[] sorted(List<Pose> photos, double along) {
        Integer[] order = new Integer[photos.size()];
        Arrays.setAll(order, i -> i);
        Arrays.sort(
                order,
                Comparator.comparingDouble(i ->
                        photos.get(i).eastM() * Math.sin(along) + photos.get(i).northM() * Math.cos(along)));
        int[] at = new int[order.length];
        for (int i = 0; i < order.length; i++) {
            at[order[i]] = i;
        }
        return at;
    }

    /** Sum over all photos of how far back the first lies that shares a point with them. */
    private static long spread(Network network, int[] at) {
        int[] firstOf = new int[network.points().size()];
        Arrays.fill(firstOf, Integer.MAX_VALUE);
        for (Sight sight : network.sights()) {
            firstOf[sight.point()] = Math.min(firstOf[sight.point()], at[sight.photo()]);
        }
        int[] first = new int[at.length];
        Arrays.setAll(first, i -> at[i]);
        for (Sight sight : network.sights()) {
            first[sight.photo()] = Math.min(first[sight.photo()], firstOf[sight.point()]);
        }
        long spread = 0;
        for (int i = 0; i < at.length; i++) {
            spread += at[i] - first[i];
        }
        return spread;
    }

    private static Network renumbered(Network network, int[] at) {
        Pose[] photos = new Pose[at.length];
        for (int i = 0; i < at.length; i++) {
            photos[at[i]] = network.photos().get(i);
        }
        List<Sight> sights = network.sights().stream()
                .map(sight -> new Sight(at[sight.photo()], sight.point()))
                .toList();
        return new Network(
                network.focalPx(),
                network.sigmas(),
                network.selfCalibration(),
                List.of(photos),
                network.points(),
                sights);
    }
}

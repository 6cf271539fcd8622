package yalos.core.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;

/** The constant part of photos less stations: the one under which most photos lie at a station. Another datum may put it far off. */
final class Shift {
    /** A constant shift is looked for as far as this. */
    private static final double NEAR_M = 60;
    /** Datums lie as far apart as this. */
    private static final double DATUM_M = 250;

    private static final double ENOUGH_FIT = 0.6;
    private static final double FIT_GAIN = 0.2;
    private static final int MOST_VOTERS = 400;
    private static final int ROUNDS = 4;

    private final List<PlanePoint> photos;
    private final List<Station> stations;
    private final double baseM;
    private final StationGrid grid;

    private Shift(List<PlanePoint> photos, List<Station> stations, double baseM) {
        this.photos = photos;
        this.stations = stations;
        this.baseM = baseM;
        this.grid = new StationGrid(stations, Math.max(baseM, 1));
    }

    /**
     * East, north and, still zero, up; in metres.
     *
     * @param photos whose places are believed
     * @param baseM between stations of a strip
     */
    static double[] of(List<PlanePoint> photos, List<Station> stations, double baseM) {
        return new Shift(photos, stations, baseM).found();
    }

    private double[] found() {
        double[] near = voted(Math.min(NEAR_M, Math.max(3 * baseM, 12)));
        if (fitting(near) >= ENOUGH_FIT) {
            return near;
        }
        double[] far = voted(DATUM_M);
        return fitting(far) > fitting(near) + FIT_GAIN ? far : near;
    }

    /** Share of the photos that lie at a station under a shift. */
    private double fitting(double[] by) {
        long fit = photos.stream()
                .filter(at -> !grid.within(moved(at, by), baseM * 0.4).isEmpty())
                .count();
        return photos.isEmpty() ? 1 : (double) fit / photos.size();
    }

    private static PlanePoint moved(PlanePoint at, double[] by) {
        return new PlanePoint(at.xM() - by[0], at.yM() - by[1]);
    }

    private double[] voted(double reach) {
        double cell = Math.max(baseM * 0.25, 0.5);
        Map<Long, Integer> votes = new HashMap<>();
        int count = 0;
        int every = Math.max(1, photos.size() / MOST_VOTERS);
        for (int i = 0; i < photos.size(); i += every) {
            count++;
            PlanePoint at = photos.get(i);
            for (int k : grid.within(at, reach)) {
                PlanePoint there = stations.get(k).at();
                votes.merge(
                        key(Math.round((at.xM() - there.xM()) / cell), Math.round((at.yM() - there.yM()) / cell)),
                        1,
                        Integer::sum);
            }
        }
        double[] best = {0, 0};
        double most = -1;
        for (long key : votes.keySet()) {
            int x = (int) (key >> 32);
            int y = (int) key;
            double sum = 0;
            for (int dx = -1; dx <= 1; dx++) {
                for (int dy = -1; dy <= 1; dy++) {
                    sum += votes.getOrDefault(key(x + dx, y + dy), 0);
                }
            }
            // Of two that fit as well the smaller one is likelier.
            double score = sum - count * 0.15 * Math.hypot(x, y) * cell / reach;
            if (score > most) {
                most = score;
                best = new double[] {x * cell, y * cell};
            }
        }
        for (int round = 0; round < ROUNDS && most >= 0; round++) {
            best = refined(best);
        }
        return new double[] {best[0], best[1], 0};
    }

    private static long key(long x, long y) {
        return x << 32 ^ y & 0xffffffffL;
    }

    /** The middle of what photos lie off their nearest stations. */
    private double[] refined(double[] from) {
        List<Double> east = new ArrayList<>();
        List<Double> north = new ArrayList<>();
        for (PlanePoint at : photos) {
            PlanePoint moved = moved(at, from);
            grid.within(moved, baseM * 0.5).stream()
                    .map(k -> stations.get(k).at())
                    .min(Comparator.comparingDouble(moved::distanceM))
                    .ifPresent(there -> {
                        east.add(at.xM() - there.xM());
                        north.add(at.yM() - there.yM());
                    });
        }
        return east.isEmpty() ? from : new double[] {Median.of(east), Median.of(north)};
    }
}

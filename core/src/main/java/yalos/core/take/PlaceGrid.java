package yalos.core.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntPredicate;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;

/** Which photos were taken next to one: places in a net of cells, about two to a cell. */
final class PlaceGrid {
    private static final int RINGS = 8;
    private final List<Optional<PlanePoint>> places;
    private final double cellM;
    private final Map<Long, List<Integer>> cells = new HashMap<>();

    private PlaceGrid(List<Optional<PlanePoint>> places, double cellM) {
        this.places = places;
        this.cellM = cellM;
        for (int i = 0; i < places.size(); i++) {
            int at = i;
            places.get(i)
                    .ifPresent(place -> cells.computeIfAbsent(
                                    key(cell(place.xM()), cell(place.yM())), one -> new ArrayList<>())
                            .add(at));
        }
    }

    static PlaceGrid of(List<Optional<PlanePoint>> places) {
        double[] x = places.stream()
                .flatMap(Optional::stream)
                .mapToDouble(PlanePoint::xM)
                .toArray();
        double[] y = places.stream()
                .flatMap(Optional::stream)
                .mapToDouble(PlanePoint::yM)
                .toArray();
        // Strays far off must not make the cells as wide as a county.
        double wide = spread(x);
        double high = spread(y);
        double cell = Math.sqrt(Math.max(1, wide) * Math.max(1, high) / Math.max(1, x.length));
        return new PlaceGrid(places, Math.max(0.5, cell));
    }

    private static double spread(double[] along) {
        return along.length == 0 ? 0 : Median.quantile(along, 0.9) - Median.quantile(along, 0.1);
    }

    /** Metres to a neighbour, usually. */
    double usualM() {
        return cellM;
    }

    private int cell(double along) {
        return (int) Math.floor(along / cellM);
    }

    private static long key(int x, int y) {
        return (long) x << 32 ^ y & 0xffffffffL;
    }

    /** The nearest of those that may be, itself left out; the nearest first. */
    List<Integer> nearest(int of, int count, IntPredicate may) {
        PlanePoint place = places.get(of).orElseThrow();
        List<Integer> found = new ArrayList<>();
        for (int ring = 0; ring <= RINGS && found.size() < count * 2; ring++) {
            for (int x = -ring; x <= ring; x++) {
                for (int y = -ring; y <= ring; y++) {
                    if (Math.max(Math.abs(x), Math.abs(y)) == ring) {
                        cells.getOrDefault(key(cell(place.xM()) + x, cell(place.yM()) + y), List.of()).stream()
                                .filter(i -> i != of && may.test(i))
                                .forEach(found::add);
                    }
                }
            }
        }
        found.sort(Comparator.comparingDouble(i -> places.get(i).orElseThrow().distanceM(place)));
        return found.subList(0, Math.min(count, found.size()));
    }
}

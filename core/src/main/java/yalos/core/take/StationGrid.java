package yalos.core.take;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import yalos.core.geodesy.PlanePoint;

/** Which stations lie near a place: a net of cells with the stations of each. */
final class StationGrid {
    private final List<Station> stations;
    private final double cellM;
    private final Map<Long, List<Integer>> cells = new HashMap<>();

    StationGrid(List<Station> stations, double cellM) {
        this.stations = stations;
        this.cellM = cellM;
        for (int k = 0; k < stations.size(); k++) {
            PlanePoint at = stations.get(k).at();
            cells.computeIfAbsent(key(cell(at.xM()), cell(at.yM())), one -> new ArrayList<>())
                    .add(k);
        }
    }

    private int cell(double along) {
        return (int) Math.floor(along / cellM);
    }

    private static long key(int x, int y) {
        return (long) x << 32 ^ y & 0xffffffffL;
    }

    /** Indices of the stations no farther than that. */
    List<Integer> within(PlanePoint at, double reachM) {
        List<Integer> near = new ArrayList<>();
        for (int x = cell(at.xM() - reachM); x <= cell(at.xM() + reachM); x++) {
            for (int y = cell(at.yM() - reachM); y <= cell(at.yM() + reachM); y++) {
                for (int k : cells.getOrDefault(key(x, y), List.of())) {
                    if (stations.get(k).at().distanceM(at) <= reachM) {
                        near.add(k);
                    }
                }
            }
        }
        return near;
    }
}

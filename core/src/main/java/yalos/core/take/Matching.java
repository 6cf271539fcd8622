package yalos.core.take;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import yalos.core.block.LocalPlane;
import yalos.core.fault.Patience;
import yalos.core.figures.Median;
import yalos.core.geodesy.PlanePoint;

/**
 * Matches the photos of a take to the stations of a plan.
 *
 * <p>First by place: the constant shift between photos and stations is the one under which most photos lie at a station; then photos and stations go together at the least cost in all ({@link Assignment}), in place and,
 * where the order of the flight tells when each was due, in time. What has a time and no believable place goes to the station that was due then. A pause, a change of batteries or parts flown in another order do not
 * matter, for time counts only against photos taken shortly before and after.
 */
public final class Matching {
    private static final double REACH_OF_BASE = 0.6;
    private static final double REACH_OF_INTERVAL = 0.55;
    private static final double ALONE = 1.6;
    private static final double TIME_WEIGHT = 0.5;

    private static final double TOGETHER_S = 0.25;
    private static final double BRACKET = 1.3;

    private final List<Taken> photos;
    private final List<Station> stations;
    private final Clocks clocks;
    private final double baseM;
    private final double intervalS;
    private final Role[] roles;
    private final String[] why;
    private final int[] station;
    private final double[] off;
    private final boolean[] frozen;
    private final boolean[] otherLens;
    /** Place of each in the block's plane; null where it is not known or not believed. */
    private final PlanePoint[] at;

    private final double[] up;
    /** First photo of the release that each belongs to. */
    private final int[] leader;

    private double[] shift = {0, 0, 0};

    private Matching(List<Taken> photos, List<Station> stations, LocalPlane plane, Optional<ZoneOffset> zone) {
        this.photos = photos;
        this.stations = stations;
        this.clocks = Clocks.of(photos, zone);
        int count = photos.size();
        this.roles = new Role[count];
        this.why = new String[count];
        Arrays.fill(why, "");
        this.station = new int[count];
        this.off = new double[count];
        Arrays.fill(off, Double.NaN);
        this.frozen = new boolean[count];
        this.otherLens = new boolean[count];
        this.at = new PlanePoint[count];
        this.up = new double[count];
        this.leader = IntStream.range(0, count).toArray();
        double[][] steps = steps(stations);
        this.baseM = steps[0].length == 0 ? 10 : Math.max(0.2, Median.of(steps[0]));
        this.intervalS = steps[1].length == 0 ? 2 : Math.max(0.1, Median.of(steps[1]));
        for (int i = 0; i < count; i++) {
            Optional<Fix> fix = photos.get(i).fix();
            at[i] = fix.map(Fix::place).map(plane::toPlane).orElse(null);
            up[i] = fix.map(Fix::upM).orElse(OptionalDouble.empty()).orElse(Double.NaN);
        }
    }

    /**
     * @param zone of the camera's clock where no file names one
     */
    public static TakeMatch of(
            List<Taken> photos, List<Station> stations, LocalPlane plane, Optional<ZoneOffset> zone) {
        return new Matching(photos, stations, plane, zone).matched();
    }

    private static double[][] steps(List<Station> stations) {
        List<Double> ways = new ArrayList<>();
        List<Double> times = new ArrayList<>();
        for (int i = 1; i < stations.size(); i++) {
            Station before = stations.get(i - 1);
            Station here = stations.get(i);
            if (before.line() == here.line()) {
                ways.add(before.at().distanceM(here.at()));
                times.add(here.plannedS() - before.plannedS());
            }
        }
        return new double[][] {
            ways.stream().mapToDouble(Double::doubleValue).toArray(),
            times.stream().mapToDouble(Double::doubleValue).toArray()
        };
    }

    private TakeMatch matched() {
        new Strays(photos, stations, clocks, at, roles, why, otherLens).sort();
        releases();
        frozen();
        if (!stations.isEmpty()) {
            grounded();
            shift = Shift.of(
                    IntStream.range(0, photos.size())
                            .filter(this::placed)
                            .mapToObj(i -> at[i])
                            .toList(),
                    stations,
                    baseM);
            byPlace();
            byTime();
        }
        IntStream.range(0, photos.size()).filter(i -> leader[i] != i).forEach(this::follow);
        rest();
        byNumber();
        List<TakeMatch.Matched> all = IntStream.range(0, photos.size())
                .mapToObj(i -> new TakeMatch.Matched(
                        roles[i], station[i], off[i], clocks.seconds()[i], frozen[i], otherLens[i], why[i]))
                .toList();
        return new TakeMatch(
                all, stations, clocks.from(), clocks.offsetS(), clocks.hoursOff(), clockLessPlan(), shift, filesEach());
    }

    // Files of one release: bands taken together, or a bracket of exposures.

    private void releases() {
        List<Integer> timed = timed();
        for (int k = 1; k < timed.size(); k++) {
            int before = timed.get(k - 1);
            int here = timed.get(k);
            double apart = clocks.seconds()[here] - clocks.seconds()[before];
            boolean beside = at[before] == null
                    || at[here] == null
                    || at[before].distanceM(at[here]) < Math.max(1, baseM * 0.25);
            boolean band = apart <= TOGETHER_S && apart < intervalS * 0.3;
            if (beside && (band || apart <= intervalS * 0.4 && bracketed(before, here))) {
                leader[here] = leader[before];
            }
        }
    }

    private boolean bracketed(int one, int other) {
        double a = photos.get(one).facts().camera().exposureS().orElse(0);
        double b = photos.get(other).facts().camera().exposureS().orElse(0);
        return a > 0 && b > 0 && Math.max(a, b) / Math.min(a, b) >= BRACKET;
    }

    /** Photos that are not yet known to be strays and have a time, in its order. */
    private List<Integer> timed() {
        return IntStream.range(0, photos.size())
                .filter(i -> roles[i] == null && !Double.isNaN(clocks.seconds()[i]))
                .boxed()
                .sorted(Comparator.comparingDouble((Integer i) -> clocks.seconds()[i])
                        .thenComparing(i -> photos.get(i).name()))
                .toList();
    }

    private int filesEach() {
        Map<Integer, Integer> sizes = new TreeMap<>();
        for (int i = 0; i < photos.size(); i++) {
            if (station[i] > 0) {
                sizes.merge(leader[i], 1, Integer::sum);
            }
        }
        Map<Integer, Integer> often = new TreeMap<>();
        sizes.values().forEach(size -> often.merge(size, 1, Integer::sum));
        return often.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(1);
    }

    private void follow(int i) {
        int first = leader[i];
        roles[i] = roles[first];
        station[i] = station[first];
        off[i] = off[first];
    }

    /** A position that stands still to the last digit while time goes on is the last that was known. */
    private void frozen() {
        List<Integer> timed = timed();
        for (int k = 1; k < timed.size(); k++) {
            int before = timed.get(k - 1);
            int here = timed.get(k);
            boolean same = photos.get(here).refined().isEmpty()
                    && photos.get(before).fix().map(Fix::place).isPresent()
                    && photos.get(before)
                            .fix()
                            .map(Fix::place)
                            .equals(photos.get(here).fix().map(Fix::place))
                    && photos.get(before)
                            .facts()
                            .position()
                            .heightM()
                            .equals(photos.get(here).facts().position().heightM());
            if (same && leader[here] == here && clocks.seconds()[here] - clocks.seconds()[before] > intervalS * 0.4) {
                frozen[here] = true;
                at[here] = null;
                up[here] = Double.NaN;
                why[here] = "its position stood still";
            }
        }
    }

    /** Photos from far below the stations were taken on the ground: test shots, panels. */
    private void grounded() {
        double[] heights = stations.stream().mapToDouble(Station::upM).toArray();
        double lowest = Arrays.stream(heights).min().orElse(Double.NaN);
        double[] own = IntStream.range(0, photos.size())
                .filter(i -> roles[i] == null && !Double.isNaN(up[i]))
                .mapToDouble(i -> up[i])
                .toArray();
        if (Double.isNaN(lowest) || own.length == 0) {
            return;
        }
        // Heights in files may count from something else; what most photos have is what was flown.
        double lifted = Median.of(own) - Median.of(heights);
        for (int i = 0; i < photos.size(); i++) {
            if (roles[i] == null && up[i] < lowest + lifted - groundedM()) {
                boolean panel = photos.get(i).picture().map(Picture::panel).orElse(false);
                roles[i] = panel ? Role.PANEL : Role.TEST;
                why[i] = "%.0f m below the lowest station".formatted(lowest + lifted - up[i]);
            }
        }
    }

    /** Half of a low flight. */
    private double groundedM() {
        return Math.max(8, Math.min(25, baseM * 1.2));
    }

    // By place.

    private boolean placed(int i) {
        return roles[i] == null && at[i] != null && leader[i] == i;
    }

    private PlanePoint unshifted(int i) {
        return new PlanePoint(at[i].xM() - shift[0], at[i].yM() - shift[1]);
    }

    private void byPlace() {
        double reach = baseM * REACH_OF_BASE;
        StationGrid grid = new StationGrid(stations, Math.max(baseM, 1));
        Map<Integer, Map<Integer, Double>> edges = new TreeMap<>();
        for (int i = 0; i < photos.size(); i++) {
            if (placed(i)) {
                Map<Integer, Double> near = new HashMap<>();
                for (int k : grid.within(unshifted(i), reach)) {
                    double share = unshifted(i).distanceM(stations.get(k).at()) / reach;
                    near.put(k, share * share);
                }
                edges.put(i, near);
            }
        }
        Due due = Due.of(sure(edges), clocks.seconds(), stations);
        edges.forEach((i, near) -> near.replaceAll((k, cost) -> {
            double late = due.lateS(clocks.seconds()[i], stations.get(k).plannedS()) / intervalS;
            return Double.isNaN(late) ? cost : cost + TIME_WEIGHT * Math.min(1, late * late);
        }));
        assign(edges);
        double[] lifted = IntStream.range(0, photos.size())
                .filter(i -> station[i] > 0 && !Double.isNaN(up[i]))
                .mapToDouble(i -> up[i] - stations.get(station[i] - 1).upM())
                .filter(Double::isFinite)
                .toArray();
        shift[2] = lifted.length == 0 ? 0 : Median.of(lifted);
    }

    /** Pairs that have no rival. */
    private Map<Integer, Integer> sure(Map<Integer, Map<Integer, Double>> edges) {
        Map<Integer, Integer> rivals = new HashMap<>();
        edges.values().forEach(near -> near.keySet().forEach(k -> rivals.merge(k, 1, Integer::sum)));
        Map<Integer, Integer> sure = new HashMap<>();
        edges.forEach((i, near) -> {
            if (near.size() == 1 && rivals.get(near.keySet().iterator().next()) == 1) {
                sure.put(i, near.keySet().iterator().next());
            }
        });
        return sure;
    }

    /** Parts of the pairing that touch nothing else are solved for themselves. */
    private void assign(Map<Integer, Map<Integer, Double>> edges) {
        Map<Integer, List<Integer>> photosOf = new HashMap<>();
        edges.forEach((i, near) -> near.keySet()
                .forEach(k ->
                        photosOf.computeIfAbsent(k, one -> new ArrayList<>()).add(i)));
        Set<Integer> done = new HashSet<>();
        for (int first : edges.keySet()) {
            if (!done.add(first) || edges.get(first).isEmpty()) {
                continue;
            }
            List<Integer> rows = new ArrayList<>(List.of(first));
            List<Integer> columns = new ArrayList<>();
            Set<Integer> seen = new HashSet<>();
            for (int r = 0; r < rows.size(); r++) {
                for (int k : edges.get(rows.get(r)).keySet()) {
                    if (seen.add(k)) {
                        columns.add(k);
                        photosOf.get(k).stream().filter(done::add).forEach(rows::add);
                    }
                }
            }
            Patience.check();
            solve(rows, columns, edges);
        }
    }

    private void solve(List<Integer> rows, List<Integer> columns, Map<Integer, Map<Integer, Double>> edges) {
        double[][] cost = new double[rows.size()][columns.size()];
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < columns.size(); c++) {
                cost[r][c] = edges.get(rows.get(r)).getOrDefault(columns.get(c), Double.POSITIVE_INFINITY);
            }
        }
        int[] columnOf = Assignment.least(cost, ALONE);
        for (int r = 0; r < rows.size(); r++) {
            if (columnOf[r] >= 0) {
                give(rows.get(r), columns.get(columnOf[r]));
            }
        }
    }

    private void give(int photo, int index) {
        roles[photo] = Role.PLANNED;
        station[photo] = stations.get(index).number();
        off[photo] = at[photo] == null
                ? Double.NaN
                : unshifted(photo).distanceM(stations.get(index).at());
    }

    // By time.

    private void byTime() {
        Map<Integer, Integer> sure = new HashMap<>();
        for (int i = 0; i < photos.size(); i++) {
            if (station[i] > 0) {
                sure.put(i, station[i] - 1);
            }
        }
        List<Integer> open = IntStream.range(0, photos.size())
                .filter(i -> roles[i] == null && at[i] == null && leader[i] == i && !Double.isNaN(clocks.seconds()[i]))
                .boxed()
                .toList();
        if (open.isEmpty()) {
            return;
        }
        Due due = Due.of(sure, clocks.seconds(), stations);
        double voted = due.known()
                ? 0
                : Due.voted(open.stream().mapToDouble(i -> clocks.seconds()[i]).toArray(), stations, intervalS);
        Set<Integer> taken = new HashSet<>(sure.values());
        double[] planned = stations.stream().mapToDouble(Station::plannedS).toArray();
        Map<Integer, Map<Integer, Double>> edges = new TreeMap<>();
        for (int i : open) {
            double at = clocks.seconds()[i] - (due.known() ? due.delayAt(clocks.seconds()[i]) : voted);
            Map<Integer, Double> near = new HashMap<>();
            for (int k = first(planned, at - intervalS * REACH_OF_INTERVAL);
                    k < planned.length && planned[k] <= at + intervalS * REACH_OF_INTERVAL;
                    k++) {
                if (!taken.contains(k)) {
                    double share = (at - planned[k]) / (intervalS * REACH_OF_INTERVAL);
                    near.put(k, share * share);
                }
            }
            edges.put(i, near);
        }
        assign(edges);
        open.stream().filter(i -> station[i] > 0 && why[i].isEmpty()).forEach(i -> why[i] = "by its time alone");
    }

    private static int first(double[] sorted, double from) {
        int at = Arrays.binarySearch(sorted, from);
        return at < 0 ? -at - 1 : at;
    }

    // What is left.

    private void rest() {
        for (int i = 0; i < photos.size(); i++) {
            if (roles[i] == null) {
                boolean nothing = Double.isNaN(clocks.seconds()[i]) && at[i] == null;
                roles[i] = nothing || stations.isEmpty() && at[i] == null ? Role.UNKNOWN : Role.EXTRA;
                if (nothing) {
                    why[i] = "neither time nor place in the file";
                }
            }
        }
    }

    /** What has neither time nor place, and whose number lies between photos of the flight, belongs to it. */
    private void byNumber() {
        List<Integer> byName = IntStream.range(0, photos.size())
                .boxed()
                .sorted(Comparator.comparing(i -> photos.get(i).name()))
                .toList();
        Role[] told = roles.clone();
        for (int n = 0; n < byName.size(); n++) {
            int i = byName.get(n);
            boolean bare = told[i] == Role.UNKNOWN || told[i] == Role.NO_PICTURE;
            if (bare && Double.isNaN(clocks.seconds()[i])) {
                Optional<Integer> before = beside(byName, n, -1, told);
                Optional<Integer> after = beside(byName, n, 1, told);
                if (before.isPresent() && after.isPresent()) {
                    roles[i] = Role.PLANNED;
                    why[i] = "by its number it was taken between %s and %s%s"
                            .formatted(
                                    photos.get(before.orElseThrow()).name(),
                                    photos.get(after.orElseThrow()).name(),
                                    why[i].isEmpty() ? "" : "; " + why[i]);
                }
            }
        }
    }

    /** The next file by name that is of the flight; empty where one of another sort comes first. */
    private Optional<Integer> beside(List<Integer> byName, int from, int step, Role[] told) {
        for (int n = from + step; n >= 0 && n < byName.size(); n += step) {
            int other = byName.get(n);
            boolean bare = told[other] == Role.UNKNOWN || told[other] == Role.NO_PICTURE;
            if (!bare) {
                return told[other].ofFlight()
                                && stem(photos.get(other).name())
                                        .equals(stem(
                                                photos.get(byName.get(from)).name()))
                        ? Optional.of(other)
                        : Optional.empty();
            }
        }
        return Optional.empty();
    }

    private static String stem(String name) {
        return name.replaceAll("\\d+\\..*$", "");
    }

    private OptionalDouble clockLessPlan() {
        double[] late = IntStream.range(0, photos.size())
                .filter(i -> station[i] > 0 && !Double.isNaN(clocks.seconds()[i]))
                .mapToDouble(
                        i -> clocks.seconds()[i] - stations.get(station[i] - 1).plannedS())
                .toArray();
        return late.length == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(clocks.from().getEpochSecond()
                        + clocks.from().getNano() / 1e9
                        + Median.of(late)
                        + clocks.offsetS().orElse(0));
    }
}

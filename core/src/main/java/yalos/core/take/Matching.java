package yalos.core.take;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
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
    /** A constant shift is looked for as far as this. */
    private static final double SHIFT_M = 60;
    /** Datums lie as far apart as this. */
    private static final double DATUM_M = 250;

    private static final double ENOUGH_FIT = 0.6;
    private static final double FIT_GAIN = 0.2;
    private static final int MOST_VOTERS = 400;

    private static final int NEIGHBOURS = 8;
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
            shift = shifted();
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

    /** The constant part of photos less stations, under which most photos lie at a station; another datum may put it far off. */
    private double[] shifted() {
        StationGrid grid = new StationGrid(stations, Math.max(baseM, 1));
        double[] near = voted(grid, Math.min(SHIFT_M, Math.max(3 * baseM, 12)));
        return fitting(grid, near) >= ENOUGH_FIT ? near : better(grid, near, voted(grid, DATUM_M));
    }

    private double[] better(StationGrid grid, double[] one, double[] other) {
        return fitting(grid, other) > fitting(grid, one) + FIT_GAIN ? other : one;
    }

    /** Share of the photos that lie at a station under a shift. */
    private double fitting(StationGrid grid, double[] by) {
        int[] all = IntStream.range(0, photos.size()).filter(this::placed).toArray();
        long fit = Arrays.stream(all)
                .filter(i -> !grid.within(new PlanePoint(at[i].xM() - by[0], at[i].yM() - by[1]), baseM * 0.4)
                        .isEmpty())
                .count();
        return all.length == 0 ? 1 : (double) fit / all.length;
    }

    private double[] voted(StationGrid grid, double reach) {
        double cell = Math.max(baseM * 0.25, 0.5);
        Map<Long, Integer> votes = new HashMap<>();
        int count = 0;
        int every = Math.max(1, photos.size() / MOST_VOTERS);
        for (int i = 0; i < photos.size(); i += every) {
            if (placed(i)) {
                count++;
                for (int k : grid.within(at[i], reach)) {
                    PlanePoint there = stations.get(k).at();
                    long x = Math.round((at[i].xM() - there.xM()) / cell);
                    long y = Math.round((at[i].yM() - there.yM()) / cell);
                    votes.merge(x << 32 ^ y & 0xffffffffL, 1, Integer::sum);
                }
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
                    sum += votes.getOrDefault((long) (x + dx) << 32 ^ y + dy & 0xffffffffL, 0);
                }
            }
            // Of two that fit as well the smaller one is likelier.
            double score = sum - count * 0.15 * Math.hypot(x, y) * cell / reach;
            if (score > most) {
                most = score;
                best = new double[] {x * cell, y * cell};
            }
        }
        for (int round = 0; round < 4 && most >= 0; round++) {
            best = refined(grid, best);
        }
        return new double[] {best[0], best[1], 0};
    }

    private double[] refined(StationGrid grid, double[] from) {
        List<Double> east = new ArrayList<>();
        List<Double> north = new ArrayList<>();
        for (int i = 0; i < photos.size(); i++) {
            if (placed(i)) {
                PlanePoint moved = new PlanePoint(at[i].xM() - from[0], at[i].yM() - from[1]);
                int photo = i;
                grid.within(moved, baseM * 0.5).stream()
                        .min(Comparator.comparingDouble(
                                k -> stations.get(k).at().distanceM(moved)))
                        .ifPresent(k -> {
                            east.add(at[photo].xM() - stations.get(k).at().xM());
                            north.add(at[photo].yM() - stations.get(k).at().yM());
                        });
            }
        }
        return east.isEmpty() ? from : new double[] {Median.of(east), Median.of(north)};
    }

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
        Due due = new Due(sure(edges));
        edges.forEach((i, near) -> near.replaceAll((k, cost) -> {
            double late = due.lateS(clocks.seconds()[i], stations.get(k).plannedS()) / intervalS;
            return Double.isNaN(late) ? cost : cost + TIME_WEIGHT * Math.min(1, late * late);
        }));
        assign(edges);
        double[] lifted = IntStream.range(0, photos.size())
                .filter(i -> station[i] > 0 && !Double.isNaN(up[i]))
                .mapToDouble(i -> up[i] - stations.get(index(station[i])).upM())
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

    private int index(int number) {
        return byNumber.computeIfAbsent(
                number,
                wanted -> IntStream.range(0, stations.size())
                        .filter(k -> stations.get(k).number() == wanted)
                        .findFirst()
                        .orElseThrow());
    }

    private final Map<Integer, Integer> byNumber = new HashMap<>();

    // By time.

    /** When stations were due, by the photos that are sure of theirs. */
    private final class Due {
        private final double[] seconds;
        private final double[] delay;

        Due(Map<Integer, Integer> sure) {
            List<Integer> known = sure.keySet().stream()
                    .filter(i -> !Double.isNaN(clocks.seconds()[i]))
                    .sorted(Comparator.comparingDouble(i -> clocks.seconds()[i]))
                    .toList();
            seconds = known.stream().mapToDouble(i -> clocks.seconds()[i]).toArray();
            delay = known.stream()
                    .mapToDouble(
                            i -> clocks.seconds()[i] - stations.get(sure.get(i)).plannedS())
                    .toArray();
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
    }

    private void byTime() {
        Map<Integer, Integer> sure = new HashMap<>();
        for (int i = 0; i < photos.size(); i++) {
            if (station[i] > 0) {
                sure.put(i, index(station[i]));
            }
        }
        List<Integer> open = IntStream.range(0, photos.size())
                .filter(i -> roles[i] == null && at[i] == null && leader[i] == i && !Double.isNaN(clocks.seconds()[i]))
                .boxed()
                .toList();
        if (open.isEmpty()) {
            return;
        }
        Due due = new Due(sure);
        double voted = due.known() ? 0 : votedDelay(open);
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

    /** Where no photo has a place: the delay under which most photos were due. */
    private double votedDelay(List<Integer> open) {
        double cell = intervalS / 4;
        Map<Long, Integer> votes = new HashMap<>();
        int most = Math.min(open.size(), 400);
        for (int n = 0; n < most; n++) {
            int i = open.get(n * open.size() / most);
            for (Station one : stations) {
                votes.merge(Math.round((clocks.seconds()[i] - one.plannedS()) / cell), 1, Integer::sum);
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
                .mapToDouble(i ->
                        clocks.seconds()[i] - stations.get(index(station[i])).plannedS())
                .toArray();
        return late.length == 0
                ? OptionalDouble.empty()
                : OptionalDouble.of(clocks.from().getEpochSecond()
                        + clocks.from().getNano() / 1e9
                        + Median.of(late)
                        + clocks.offsetS().orElse(0));
    }
}

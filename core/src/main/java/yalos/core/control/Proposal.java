package yalos.core.control;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import yalos.core.block.LocalPlane;
import yalos.core.control.ControlPoint.Role;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.geodesy.Bounds;

/**
 * Where targets should lie. Seeds are the trade's rules: near the corners but inside, the middle, the highest and the lowest ground (common practice); then each target is moved as long
 * as the foretold accuracy of the whole block gains. Check points come after, each where it is farthest from all others: between the control, where errors show.
 */
public final class Proposal {
    /** Above so many the spacing does the work, and no target is moved for accuracy. */
    private static final int MOST_MOVED = 12;

    private static final int MOST_SPACED = 150;
    private static final double NEAR_NODE = 0.7;
    /** Targets are not moved inwards for a hair of accuracy: the rim of a block is where errors grow that no model foretells. */
    private static final double HULL_KEPT = 0.97;

    private static final int ROUNDS = 3;
    private static final int NEIGHBOURS = 14;

    private final BlockWorth worth;
    private final List<Integer> fit;
    /** What most often speaks against a place. */
    private final String mostly;

    /** Over a block whose places were looked at for suitability. */
    public Proposal(BlockWorth worth) {
        this.worth = worth;
        Suitability suitability = new Suitability(worth.plan(), worth.layout());
        Map<String, Integer> against = new HashMap<>();
        List<Integer> found = new ArrayList<>();
        for (int i = 0; i < worth.places().size(); i++) {
            List<String> faults = suitability.faults(worth.places().get(i));
            faults.forEach(fault -> against.merge(fault, 1, Integer::sum));
            if (faults.isEmpty() && worth.seen(i)) {
                found.add(i);
            }
        }
        this.fit = found;
        this.mostly = against.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(most -> most.getKey())
                .orElse("in too few photos");
    }

    /** How many places take a target. */
    public int room() {
        return fit.size();
    }

    /**
     * Places for so many control points, fewer where there is no room.
     *
     * @return places of {@link BlockWorth#places()}
     */
    public List<Integer> control(int count) {
        List<Integer> chosen = seeds(Math.min(count, fit.size()));
        return chosen.size() <= MOST_MOVED ? moved(chosen) : chosen;
    }

    /** Places about so far from each other, over the whole block: the nearest suitable one to each node of a square grid. */
    public List<Integer> spaced(double spacingM) {
        Bounds bounds = worth.plan().block().bounds();
        List<Integer> chosen = new ArrayList<>();
        for (double y = bounds.south() + spacingM / 2; y < bounds.north(); y += spacingM) {
            for (double x = bounds.west() + spacingM / 2; x < bounds.east(); x += spacingM) {
                MarkedPlace node = new MarkedPlace(x, y, 0);
                int nearest = nearest(node, fit);
                boolean near = nearest >= 0 && worth.places().get(nearest).distanceTo(node) < spacingM * NEAR_NODE;
                if (near && !chosen.contains(nearest) && chosen.size() < MOST_SPACED) {
                    chosen.add(nearest);
                }
            }
        }
        return chosen;
    }

    /** Whether places lie near enough to each other for such a spacing to be laid out. */
    boolean holds(double spacingM) {
        return Math.sqrt(worth.plan().block().areaM2()
                        / Math.max(1, worth.places().size()))
                < spacingM * 0.9;
    }

    /** Places for check points, apart from others. */
    public List<Integer> checks(int count, List<MarkedPlace> others) {
        List<Integer> chosen = new ArrayList<>();
        while (chosen.size() < count) {
            int best = -1;
            double widest = 0;
            for (int candidate : fit) {
                MarkedPlace here = worth.places().get(candidate);
                double gap = Math.min(
                        chosen.isEmpty() ? Double.MAX_VALUE : gap(candidate, chosen),
                        others.stream().mapToDouble(here::distanceTo).min().orElse(Double.MAX_VALUE));
                if (gap > widest) {
                    widest = gap;
                    best = candidate;
                }
            }
            if (best < 0) {
                return chosen;
            }
            chosen.add(best);
        }
        return chosen;
    }

    /**
     * The layout with so many control and check points: locked and measured ones stay and count, the others give way.
     *
     * @param kept names of points that stay where they are
     * @throws InputFault where nothing in the block takes a target
     */
    public ControlLayout layout(int control, int checks, Set<String> kept) {
        refuseNoRoom();
        return placed(control(control), checks, kept);
    }

    /** The same at a spacing. */
    public ControlLayout layoutSpaced(double spacingM, int checks, Set<String> kept) {
        refuseNoRoom();
        return placed(spaced(spacingM), checks, kept);
    }

    private void refuseNoRoom() {
        if (fit.isEmpty()) {
            throw new InputFault(
                    "points", "none", "No place in the block takes a target. Most often: %s.".formatted(mostly));
        }
    }

    /** Targets at chosen places, and check points apart from them. */
    ControlLayout placed(List<Integer> control, int checks, Set<String> kept) {
        ControlLayout layout = worth.layout()
                .with(worth.layout().points().stream()
                        .filter(point -> kept.contains(ControlLayout.key(point.name())))
                        .toList());
        List<MarkedPlace> taken = new ArrayList<>();
        layout.points().forEach(point -> taken.add(MarkedPlace.of(worth.plan(), point)));
        int wanted = control.size() - layout.of(Role.CONTROL).size();
        List<MarkedPlace> places =
                new ArrayList<>(control.stream().map(worth.places()::get).toList());
        // A kept point stands for the proposed one that is nearest to it.
        for (MarkedPlace one : taken) {
            if (places.size() > Math.max(0, wanted)) {
                places.stream().min(Comparator.comparingDouble(one::distanceTo)).ifPresent(places::remove);
            }
        }
        layout = plus(layout, places, Role.CONTROL);
        taken.addAll(places);
        int missing = Math.max(0, checks - layout.of(Role.CHECK).size());
        return plus(
                layout, checks(missing, taken).stream().map(worth.places()::get).toList(), Role.CHECK);
    }

    private ControlLayout plus(ControlLayout layout, List<MarkedPlace> places, Role role) {
        LocalPlane plane = worth.plan().block().plane();
        ControlLayout more = layout;
        for (MarkedPlace at : places) {
            more = more.plus(ControlPoint.target(more.nextName(), role, plane.toLonLat(at.xM(), at.yM())));
        }
        return more;
    }

    /** Corners first, then the middle, then the highest and lowest ground, then wherever it is farthest from all. */
    private List<Integer> seeds(int count) {
        List<Integer> chosen = new ArrayList<>();
        List<Integer> from = new ArrayList<>(fit);
        List<Integer> wanted = new ArrayList<>();
        if (count == 1) {
            wanted.add(nearest(middle(), from));
        } else if (count > 0) {
            wanted.addAll(corners(Math.min(count, 4)));
            wanted.add(nearest(middle(), from));
            wanted.add(from.stream()
                    .max(Comparator.comparingDouble(i -> worth.places().get(i).upM()))
                    .orElse(-1));
            wanted.add(from.stream()
                    .min(Comparator.comparingDouble(i -> worth.places().get(i).upM()))
                    .orElse(-1));
        }
        for (int one : wanted) {
            if (chosen.size() < count && one >= 0 && !chosen.contains(one)) {
                chosen.add(one);
            }
        }
        while (chosen.size() < count) {
            int next = farthest(chosen, from);
            if (next < 0) {
                break;
            }
            chosen.add(next);
        }
        return chosen;
    }

    /** Moves one target after the other to the neighbour that helps the whole block most, until none does. */
    private List<Integer> moved(List<Integer> seeds) {
        List<Integer> best = new ArrayList<>(seeds);
        double cost = worth.cost(best);
        double hull = hull(best);
        boolean gained = true;
        for (int round = 0; round < ROUNDS && gained; round++) {
            gained = false;
            for (int i = 0; i < best.size(); i++) {
                Patience.check();
                for (int neighbour : neighbours(best.get(i))) {
                    if (best.contains(neighbour)) {
                        continue;
                    }
                    List<Integer> tried = new ArrayList<>(best);
                    tried.set(i, neighbour);
                    double other = worth.cost(tried);
                    if (other < cost * 0.999 && hull(tried) >= hull * HULL_KEPT) {
                        cost = other;
                        best = tried;
                        gained = true;
                    }
                }
            }
        }
        return best;
    }

    private List<Integer> neighbours(int place) {
        MarkedPlace here = worth.places().get(place);
        return fit.stream()
                .filter(other -> other != place)
                .sorted(Comparator.comparingDouble(
                        other -> worth.places().get(other).distanceTo(here)))
                .limit(NEIGHBOURS)
                .toList();
    }

    private MarkedPlace middle() {
        double x = fit.stream()
                .mapToDouble(i -> worth.places().get(i).xM())
                .average()
                .orElse(0);
        double y = fit.stream()
                .mapToDouble(i -> worth.places().get(i).yM())
                .average()
                .orElse(0);
        return new MarkedPlace(x, y, 0);
    }

    private double hull(List<Integer> chosen) {
        double[] flat = new double[2 * chosen.size()];
        for (int i = 0; i < chosen.size(); i++) {
            flat[2 * i] = worth.places().get(chosen.get(i)).xM();
            flat[2 * i + 1] = worth.places().get(chosen.get(i)).yM();
        }
        return Spread.hull(flat);
    }

    /** Suitable places that span most: the two farthest from each other, then each that adds most to the hull. */
    private List<Integer> corners(int count) {
        List<Integer> chosen = new ArrayList<>();
        double widest = -1;
        for (int one : fit) {
            for (int other : fit) {
                double gap = worth.places().get(one).distanceTo(worth.places().get(other));
                if (gap > widest && one != other) {
                    widest = gap;
                    chosen = new ArrayList<>(List.of(one, other));
                }
            }
        }
        while (chosen.size() < Math.min(count, fit.size())) {
            List<Integer> present = chosen;
            int next = fit.stream()
                    .filter(place -> !present.contains(place))
                    .max(Comparator.comparingDouble(place -> {
                        List<Integer> with = new ArrayList<>(present);
                        with.add(place);
                        return hull(with);
                    }))
                    .orElseThrow();
            chosen.add(next);
        }
        return chosen;
    }

    private int nearest(MarkedPlace to, List<Integer> from) {
        return from.stream()
                .min(Comparator.comparingDouble(i -> worth.places().get(i).distanceTo(to)))
                .orElse(-1);
    }

    private int farthest(List<Integer> chosen, List<Integer> from) {
        Set<Integer> taken = new HashSet<>(chosen);
        return from.stream()
                .filter(i -> !taken.contains(i))
                .max(Comparator.comparingDouble(i -> gap(i, chosen)))
                .orElse(-1);
    }

    private double gap(int place, List<Integer> chosen) {
        MarkedPlace here = worth.places().get(place);
        return chosen.stream()
                .mapToDouble(i -> worth.places().get(i).distanceTo(here))
                .min()
                .orElse(Double.MAX_VALUE);
    }
}

package yalos.core.control;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import yalos.core.control.ControlPoint.Role;
import yalos.core.kit.Positioning;
import yalos.core.network.ExpectedAccuracy.Covariance;
import yalos.core.network.JointCovariance;
import yalos.core.network.Network.Axes;
import yalos.core.plan.BlockPlan;

/**
 * What accuracy a block will have, before a photo is taken: by the covariance of its bundle adjustment at places spread over it and at its points. Adjusted once; what any layout of
 * control makes of it follows in milliseconds ({@link JointCovariance#measured}).
 */
public final class BlockWorth {
    private final BlockPlan plan;
    private final ControlLayout layout;
    private final List<MarkedPlace> places;
    /** Where each place and point stands in the joint covariance; below 0 where fewer than two photos see it. */
    private final int[] at;

    private final JointCovariance free;
    private final Foretold planned;

    private BlockWorth(BlockPlan plan, ControlLayout layout, List<MarkedPlace> places, int[] at, JointCovariance free) {
        this.plan = plan;
        this.layout = layout;
        this.places = places;
        this.at = at;
        this.free = free;
        this.planned = foretold();
    }

    /**
     * Adjusts the plan's network once; takes about a second for some hundreds of photos.
     *
     * @param wanted how the positions of the photos are to be known; no better than the aircraft can
     * @param ties share of the tie points of well-textured ground that its surface gives, 0..1
     * @throws yalos.core.fault.InputFault where the plan has no known heights, or too few or too many photos
     */
    public static BlockWorth of(BlockPlan plan, ControlLayout layout, Positioning wanted, double ties) {
        List<MarkedPlace> places = Places.over(plan);
        List<MarkedPlace> all = new ArrayList<>(places);
        layout.points().forEach(point -> all.add(MarkedPlace.of(plan, point)));
        BlockNetwork network = BlockNetwork.of(
                plan, layout.assumptions().over(ties), plan.request().able(wanted), all);
        int[] at = new int[all.size()];
        Arrays.fill(at, -1);
        List<Integer> seen = network.seen();
        for (int i = 0; i < seen.size(); i++) {
            at[seen.get(i)] = i;
        }
        return new BlockWorth(plan, layout, places, at, network.joint());
    }

    public BlockPlan plan() {
        return plan;
    }

    public ControlLayout layout() {
        return layout;
    }

    /** Places spread over the block, of which the accuracy is known and at which targets may be proposed. */
    public List<MarkedPlace> places() {
        return places;
    }

    /** Whether two photos or more see a place. */
    public boolean seen(int place) {
        return at[place] >= 0;
    }

    /** With the control points of the layout; every page and the sheet ask for it. */
    public Foretold planned() {
        return planned;
    }

    private Foretold foretold() {
        Map<Integer, Axes> held = new HashMap<>();
        for (int i = 0; i < layout.points().size(); i++) {
            ControlPoint point = layout.points().get(i);
            int index = at[places.size() + i];
            if (point.role() == Role.CONTROL && index >= 0) {
                held.put(index, measured(point.kind().coarser()));
            }
        }
        return new Foretold(this, free.measured(held));
    }

    /** With no control at all. */
    public Foretold bare() {
        return new Foretold(this, free);
    }

    /** With targets at some of the {@link #places()}. */
    public Foretold with(Collection<Integer> chosen) {
        return new Foretold(this, free.measured(held(chosen)));
    }

    /** What a proposal makes small: the mean over the block of the squares of all three errors there, in square metres. */
    double cost(Collection<Integer> chosen) {
        double[] variances = free.variancesMeasured(held(chosen));
        double sum = 0;
        int count = 0;
        for (int place = 0; place < places.size(); place++) {
            if (seen(place)) {
                int first = 3 * at[place];
                sum += variances[first] + variances[first + 1] + variances[first + 2];
                count++;
            }
        }
        return sum / Math.max(1, count);
    }

    private Map<Integer, Axes> held(Collection<Integer> chosen) {
        Map<Integer, Axes> held = new HashMap<>();
        chosen.stream().filter(this::seen).forEach(place -> held.put(at[place], measured(1)));
        return held;
    }

    private Axes measured(double coarser) {
        Assumptions assumed = layout.assumptions();
        return new Axes(
                assumed.horizontalM() * coarser, assumed.horizontalM() * coarser, assumed.verticalM() * coarser);
    }

    Optional<Covariance> atPlace(JointCovariance known, int place) {
        return at[place] < 0 ? Optional.empty() : Optional.of(known.of(at[place]));
    }

    Optional<Covariance> atPoint(JointCovariance known, int point) {
        int index = at[places.size() + point];
        return index < 0 ? Optional.empty() : Optional.of(known.of(index));
    }

    /** Where a place stands among what is known together; below 0 where it is not. */
    int index(int place) {
        return at[place];
    }
}

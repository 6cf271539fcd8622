package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Bounds;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.HeightGrid;

/** Places spread over a block: evenly, near its corners but inside, at its highest and its lowest ground. */
final class Places {
    /** So near to each other that a layout at every 50 m finds its places, as long as there are not too many. */
    private static final double NEAR_M = 37;

    private static final int FEWEST = 110;
    private static final int MOST = 240;
    private static final int MOST_CORNERS = 40;
    private static final double HAIR_M = 0.05;
    private static final double LEAST_INSET_M = 3;
    private static final double INSET_SHARE = 0.06;

    private Places() {}

    /** Where the ground is known; at least one for a block with any. */
    static List<MarkedPlace> over(BlockPlan plan) {
        PlaneBlock inner = inner(plan.block());
        List<MarkedPlace> places = new ArrayList<>();
        Bounds bounds = inner.bounds();
        double about = Math.max(FEWEST, Math.min(MOST, inner.areaM2() / (NEAR_M * NEAR_M)));
        double step = Math.sqrt(inner.areaM2() / about);
        int row = 0;
        for (double y = bounds.south() + step / 2; y < bounds.north(); y += step, row++) {
            for (double x = bounds.west() + step / 2; x < bounds.east(); x += step) {
                add(places, plan, inner, x, y, step / 4);
            }
        }
        corners(plan, inner, places, step / 4);
        extremes(plan, inner, places, step / 4);
        return places;
    }

    /** The block without its rim, where targets are seen by fewer photos; the whole block where it is too narrow for a rim. */
    static PlaneBlock inner(PlaneBlock block) {
        double inset = Math.max(LEAST_INSET_M, INSET_SHARE * Math.sqrt(block.areaM2()));
        for (double by = inset; by > 0.2; by /= 2) {
            PlaneBlock narrowed = narrowed(block, by);
            if (narrowed != null && narrowed.areaM2() > 0.3 * block.areaM2()) {
                return narrowed;
            }
        }
        return block;
    }

    private static PlaneBlock narrowed(PlaneBlock block, double by) {
        try {
            PlaneBlock narrowed = block.narrowed(by);
            return narrowed.rings().length == 0 ? null : narrowed;
        } catch (InputFault vanished) {
            return null;
        }
    }

    /** Its corners, a hair inside; of a block with very many only those that lie farthest out. */
    private static void corners(BlockPlan plan, PlaneBlock inner, List<MarkedPlace> places, double apart) {
        double[] hull = inner.hull();
        Bounds bounds = inner.bounds();
        for (int k = 0; k + 1 < hull.length; k += 2) {
            double inwards =
                    Math.atan2(bounds.middle().xM() - hull[k], bounds.middle().yM() - hull[k + 1]);
            double x = hull[k] + HAIR_M * Math.sin(inwards);
            double y = hull[k + 1] + HAIR_M * Math.cos(inwards);
            if (places.size() < MOST + MOST_CORNERS) {
                add(places, plan, plan.block(), x, y, apart);
            }
        }
    }

    private static void extremes(BlockPlan plan, PlaneBlock inner, List<MarkedPlace> places, double apart) {
        plan.overGround().ifPresent(known -> {
            HeightGrid grid = known.grid();
            MarkedPlace lowest = null;
            MarkedPlace highest = null;
            int skip = Math.max(1, (int) Math.sqrt(grid.columns() * (double) grid.rows() / 40_000));
            for (int row = 0; row < grid.rows(); row += skip) {
                for (int column = 0; column < grid.columns(); column += skip) {
                    double up = grid.cell(column, row);
                    boolean tells = Double.isFinite(up) && (lowest == null || up < lowest.upM() || up > highest.upM());
                    if (tells && inner.contains(grid.x(column), grid.y(row))) {
                        MarkedPlace here = new MarkedPlace(grid.x(column), grid.y(row), up);
                        lowest = lowest == null || up < lowest.upM() ? here : lowest;
                        highest = highest == null || up > highest.upM() ? here : highest;
                    }
                }
            }
            if (lowest != null) {
                add(places, plan, inner, lowest.xM(), lowest.yM(), apart);
                add(places, plan, inner, highest.xM(), highest.yM(), apart);
            }
        });
    }

    private static void add(
            List<MarkedPlace> places, BlockPlan plan, PlaneBlock within, double x, double y, double apart) {
        MarkedPlace place = MarkedPlace.on(plan, x, y);
        boolean room = places.stream().noneMatch(other -> other.distanceTo(place) < apart);
        if (room && within.contains(x, y) && Double.isFinite(place.upM())) {
            places.add(place);
        }
    }
}

package yalos.core.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.Patience;
import yalos.core.flight.Exposure;
import yalos.core.flight.Line;
import yalos.core.flight.Pace;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.plan.BlockPlan;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Relief;
import yalos.core.terrain.SightLine;

/**
 * Where could the aircraft take off and land? Places in and round a block, weighed by what is known of them: room, slope, how much of the flight can be
 * seen from there, and the ways out and home.
 *
 * <p>KNOWN LIMITS: leave to stand there, access, people and what no model or obstacle list holds are for the pilot to look at. Over level ground all of
 * the flight counts as seen.
 */
public final class LaunchSpots {
    /** Clear of obstacles all round, and of zones (common practice for small aircraft). */
    private static final double ROOM_M = 15;

    private static final double STEEPEST_RAD = Math.toRadians(10);
    private static final double AROUND_M = 120;
    private static final int CANDIDATES = 600;
    private static final int LOOKED_AT = 120;
    private static final int MOST = 3;
    private static final double APART_M = 60;
    private static final double EYE_M = 1.6;

    private final BlockPlan plan;
    private final Optional<HeightGrid> grid;
    private final Optional<SiteMap> site;
    private final List<Exposure> looked = new ArrayList<>();

    private LaunchSpots(BlockPlan plan) {
        this.plan = plan;
        this.grid = plan.heights().map(HeightPlan::grid);
        this.site = plan.heights().or(plan::overLevelSite).map(HeightPlan::site);
        List<Exposure> photos = plan.flight().exposures();
        int every = Math.max(1, photos.size() / LOOKED_AT);
        for (int i = 0; i < photos.size(); i += every) {
            looked.add(photos.get(i));
        }
    }

    /**
     * A place to take off from.
     *
     * @param at in the block's plane
     * @param seen share of the photos that can be seen from an eye there, 0..1
     * @param farthestM level distance to the farthest photo
     * @param slopeRad of the ground; 0 over level ground
     * @param waysS out and home
     */
    public record Spot(PlanePoint at, double seen, double farthestM, double slopeRad, double waysS) {}

    /** The best few, the best first; none where no place qualifies. */
    public static List<Spot> of(BlockPlan plan) {
        return plan.flight().lines().isEmpty() ? List.of() : new LaunchSpots(plan).best();
    }

    private List<Spot> best() {
        List<Spot> spots = candidates();
        spots.sort(Comparator.comparingDouble((Spot spot) -> -Math.round(spot.seen() * 50))
                .thenComparingDouble(Spot::waysS));
        List<Spot> best = new ArrayList<>();
        for (Spot spot : spots) {
            boolean apart = best.stream().allMatch(other -> other.at().distanceM(spot.at()) >= APART_M);
            if (apart && best.size() < MOST) {
                best.add(spot);
            }
        }
        return best;
    }

    private List<Spot> candidates() {
        Bounds bounds = plan.block().bounds();
        double width = bounds.width() + 2 * AROUND_M;
        double height = bounds.height() + 2 * AROUND_M;
        double step = Math.sqrt(width * height / CANDIDATES);
        Optional<Relief> relief = grid.map(Relief::new);
        Optional<SightLine> sight = grid.map(SightLine::forManyRays);
        List<Spot> spots = new ArrayList<>();
        for (double x = bounds.west() - AROUND_M; x <= bounds.east() + AROUND_M; x += step) {
            for (double y = bounds.south() - AROUND_M; y <= bounds.north() + AROUND_M; y += step) {
                Patience.check();
                PlanePoint at = new PlanePoint(x, y);
                double slope = relief.map(there -> slopeRad(there, at)).orElse(0.0);
                if (slope <= STEEPEST_RAD && hasRoom(at)) {
                    double seen = sight.map(there -> seen(there, at)).orElse(1.0);
                    spots.add(new Spot(at, seen, farthestM(at), slope, waysS(at)));
                }
            }
        }
        return spots;
    }

    /** Not a number, which is not flat enough, where the ground is not known. */
    private double slopeRad(Relief relief, PlanePoint at) {
        HeightGrid ground = grid.orElseThrow();
        int column = (int) Math.floor((at.xM() - ground.west()) / ground.cellX());
        int row = (int) Math.floor((ground.north() - at.yM()) / ground.cellY());
        boolean within = column >= 0 && row >= 0 && column < ground.columns() && row < ground.rows();
        return within ? relief.slopeRad(column, row) : Double.NaN;
    }

    private boolean hasRoom(PlanePoint at) {
        return site.map(there -> there.obstaclesNear(at.xM(), at.yM(), ROOM_M).isEmpty()
                        && there.zonesAt(at.xM(), at.yM(), 0).isEmpty())
                .orElse(true);
    }

    private double seen(SightLine sight, PlanePoint at) {
        double eye = grid.orElseThrow().at(at.xM(), at.yM()) + EYE_M;
        long seen = looked.stream()
                .filter(photo -> sight.clear(
                        at.xM(), at.yM(), eye, photo.point().xM(), photo.point().yM(), photo.upM()))
                .count();
        return (double) seen / looked.size();
    }

    private double farthestM(PlanePoint at) {
        return looked.stream()
                .mapToDouble(photo -> photo.point().distanceM(at))
                .max()
                .orElse(0);
    }

    private double waysS(PlanePoint at) {
        List<Line> lines = plan.flight().lines();
        Pace pace = plan.timeline().pace();
        return pace.transitS(at, lines.get(0).from())
                + pace.returnS(lines.get(lines.size() - 1).to(), at);
    }
}

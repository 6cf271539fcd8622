package yalos.core.sortie;

import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import yalos.core.flight.Exposure;
import yalos.core.flight.Place;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.StructurePlan;
import yalos.core.site.Detour;
import yalos.core.site.Prism;
import yalos.core.site.SiteMap;
import yalos.core.site.Structure;
import yalos.core.site.Zone;
import yalos.core.terrain.HeightGrid;

/**
 * The ground round a block and what stands on it, wide enough for launch points, pilots and shadows. Over level ground of no known height it lies at 0.
 */
public final class Surroundings {
    /** Round the block, at least. */
    public static final double AROUND_M = 150;

    private static final double BEYOND_M = 40;
    private static final double LEVEL_CELL_M = 10;
    private static final double STEP_M = 5;
    /** From the middle of an aircraft to its edge, about. */
    private static final double BODY_M = 1;
    /** What stands nearer to the ground than this leaves no sight below it. */
    private static final double STANDING_M = 1;

    private final BlockPlan plan;
    private final HeightGrid ground;
    private final SiteMap site;
    private final Detour detour;
    private final List<Zone> zones;
    private final List<Prism> solids;
    /** Made when somebody asks first. */
    private volatile HeightGrid surface;

    private Surroundings(BlockPlan plan, HeightGrid ground, SiteMap site, Detour detour, List<Zone> zones) {
        this.plan = plan;
        this.ground = ground;
        this.site = site;
        this.detour = detour;
        this.zones = List.copyOf(zones);
        this.solids = plan.structures().map(StructurePlan::built).orElse(List.of()).stream()
                .map(Structure.Built::solid)
                .toList();
    }

    public static Surroundings of(BlockPlan plan, List<PlanePoint> places) {
        Bounds bounds = plan.block().bounds();
        double around = AROUND_M;
        for (PlanePoint place : places) {
            double out = Math.max(
                    Math.max(bounds.west() - place.xM(), place.xM() - bounds.east()),
                    Math.max(bounds.south() - place.yM(), place.yM() - bounds.north()));
            around = Math.max(around, out + BEYOND_M);
        }
        double aroundM = Math.min(5_000, around);
        Optional<GroundRequest> ground = plan.request().ground();
        List<Zone> zones = ground.map(GroundRequest::zones).orElse(List.of());
        SiteMap site = new SiteMap(
                plan.block().plane(), ground.map(GroundRequest::obstacles).orElse(List.of()), zones);
        HeightGrid grid = ground.filter(known -> !known.isLevel())
                .map(known -> known.source().over(plan.block(), aroundM).grid())
                .orElseGet(() -> HeightGrid.level(
                        bounds.west() - aroundM,
                        bounds.north() + aroundM,
                        LEVEL_CELL_M,
                        (int) Math.ceil((bounds.width() + 2 * aroundM) / LEVEL_CELL_M),
                        (int) Math.ceil((bounds.height() + 2 * aroundM) / LEVEL_CELL_M),
                        0));
        Detour detour =
                Detour.of(plan.block().plane(), zones, plan.design().scale().heightM());
        return new Surroundings(plan, grid, site, detour, zones);
    }

    /** Heights of the ground; not numbers where unknown. */
    public HeightGrid ground() {
        return ground;
    }

    /** What stands and hangs there. */
    public SiteMap site() {
        return site;
    }

    /** Whether nothing stands on the ground: no obstacle and no object. */
    public boolean bare() {
        return !site.hasObstacles() && solids.isEmpty();
    }

    /** Whether neither an obstacle nor an object stands within a distance of a place. */
    public boolean hasRoom(PlanePoint at, double aroundM) {
        return site.obstaclesNear(at.xM(), at.yM(), aroundM).isEmpty()
                && solids.stream().noneMatch(solid -> solid.asideM(at) <= aroundM);
    }

    /** Whether a place in the air lies within something that stands there. */
    public boolean within(Place at) {
        double standing = site.obstacleM(at.xM(), at.yM(), BODY_M);
        return standing > 0 && at.upM() < groundM(at.point()) + standing
                || solids.stream()
                        .anyMatch(solid -> at.upM() > solid.bottomM()
                                && at.upM() < solid.topM()
                                && solid.contains(at.xM(), at.yM()));
    }

    /** Round keep-out zones. */
    public Detour detour() {
        return detour;
    }

    /** All zones. */
    public List<Zone> zones() {
        return zones;
    }

    /** Height of the ground at a place; not a number where nobody knows it. */
    public double groundM(PlanePoint at) {
        return ground.at(at.xM(), at.yM());
    }

    /** The same, as measured or read from the model where the grid does not reach: of the plan's own launch point. */
    public double takeOffM(PlanePoint at) {
        double read = groundM(at);
        boolean own = plan.flight().launch().filter(at::equals).isPresent();
        return Double.isNaN(read) && own ? plan.flight().takeOffUpM() : read;
    }

    /**
     * The highest known ground on the straight way between two places, with what stands within reach of it.
     *
     * @param reachM to the side of the way
     */
    public Top topBetween(PlanePoint from, PlanePoint to, double reachM) {
        double length = from.distanceM(to);
        int steps = (int) Math.max(1, Math.ceil(length / STEP_M));
        Top top = new Top(Double.NEGATIVE_INFINITY, from);
        for (int i = 0; i <= steps; i++) {
            double share = (double) i / steps;
            double x = from.xM() + (to.xM() - from.xM()) * share;
            double y = from.yM() + (to.yM() - from.yM()) * share;
            PlanePoint at = new PlanePoint(x, y);
            double here = ground.at(x, y) + (site.hasObstacles() ? site.obstacleM(x, y, reachM) : 0);
            double over = objectsUpM(at, reachM + STEP_M / 2);
            if (over > top.upM() || here > top.upM()) {
                top = new Top(here > over ? here : over, at);
            }
        }
        return top;
    }

    /** Top of the highest object within a distance; below all for none. */
    private double objectsUpM(PlanePoint at, double withinM) {
        double highest = Double.NEGATIVE_INFINITY;
        for (Prism solid : solids) {
            if (solid.topM() > highest && solid.asideM(at) <= withinM) {
                highest = solid.topM();
            }
        }
        return highest;
    }

    /** The highest there is on a way, and where. */
    public record Top(double upM, PlanePoint at) {}

    /** The ground with obstacles and objects standing on it, as what hides and shades; cells of the ground's grid. What spans the air, as a deck does, is not among them. */
    public HeightGrid surface() {
        if (surface == null) {
            surface = bare() ? ground : withWhatStands();
        }
        return surface;
    }

    private HeightGrid withWhatStands() {
        float[] heights = ground.heights().clone();
        double reach = Math.min(ground.cellX(), ground.cellY()) / 2;
        for (int row = 0; row < ground.rows(); row++) {
            for (int column = 0; column < ground.columns(); column++) {
                heights[row * ground.columns() + column] +=
                        (float) site.obstacleM(ground.x(column), ground.y(row), reach);
            }
        }
        for (Prism solid : solids) {
            raise(heights, solid, reach);
        }
        return new HeightGrid(
                ground.west(),
                ground.north(),
                ground.cellX(),
                ground.cellY(),
                ground.columns(),
                ground.rows(),
                heights);
    }

    /** Raises the cells that a solid stands on to its top. */
    private void raise(float[] heights, Prism solid, double reachM) {
        double[] east =
                solid.ring().stream().mapToDouble(PlanePoint::xM).sorted().toArray();
        double[] north =
                solid.ring().stream().mapToDouble(PlanePoint::yM).sorted().toArray();
        int last = east.length - 1;
        int fromColumn = Math.max(0, (int) ((east[0] - ground.west()) / ground.cellX()) - 1);
        int toColumn = Math.min(ground.columns() - 1, (int) ((east[last] - ground.west()) / ground.cellX()) + 1);
        int fromRow = Math.max(0, (int) ((ground.north() - north[last]) / ground.cellY()) - 1);
        int toRow = Math.min(ground.rows() - 1, (int) ((ground.north() - north[0]) / ground.cellY()) + 1);
        for (int row = fromRow; row <= toRow; row++) {
            for (int column = fromColumn; column <= toColumn; column++) {
                int cell = row * ground.columns() + column;
                boolean stands = solid.bottomM() < heights[cell] + STANDING_M;
                if (stands && solid.asideM(new PlanePoint(ground.x(column), ground.y(row))) <= reachM) {
                    heights[cell] = (float) Math.max(heights[cell], solid.topM());
                }
            }
        }
    }

    /** Photos of the plan, thinned to about so many, the first and the last among them. */
    public List<Exposure> photos(int about) {
        List<Exposure> all = plan.flight().exposures();
        int every = Math.max(1, all.size() / about);
        return IntStream.range(0, all.size())
                .filter(i -> i % every == 0 || i == all.size() - 1)
                .mapToObj(all::get)
                .toList();
    }
}

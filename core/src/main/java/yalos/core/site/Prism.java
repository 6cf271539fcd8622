package yalos.core.site;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;

/**
 * A solid with upright walls, laid into the plane of a block: a building, a pier, a deck.
 *
 * @param ring corners of its plan, counter-clockwise seen from above, the first not repeated
 * @param bottomM height of its underside, in the height system of the ground
 * @param topM height of its top
 */
public record Prism(List<PlanePoint> ring, double bottomM, double topM) {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    public Prism {
        within("heightM", topM - bottomM, 0.01, 2_000, "m");
        if (ring.size() < 3) {
            throw new InputFault("footprint", ring.size(), "A footprint needs three corners.");
        }
        ring = counterClockwise(ring);
    }

    private static List<PlanePoint> counterClockwise(List<PlanePoint> ring) {
        List<PlanePoint> turned = new ArrayList<>(ring);
        if (!Orientation.isCCW(coordinates(ring))) {
            Collections.reverse(turned);
        }
        return List.copyOf(turned);
    }

    private static Coordinate[] coordinates(List<PlanePoint> ring) {
        Coordinate[] closed = new Coordinate[ring.size() + 1];
        for (int i = 0; i < closed.length; i++) {
            PlanePoint at = ring.get(i % ring.size());
            closed[i] = new Coordinate(at.xM(), at.yM());
        }
        return closed;
    }

    /** How many walls it has: one from each corner to the next. */
    public int walls() {
        return ring.size();
    }

    /** The corner at which a wall begins, on its left as seen from outside. */
    public PlanePoint corner(int wall) {
        return ring.get(Math.floorMod(wall, ring.size()));
    }

    /** Length of a wall in metres. */
    public double wallM(int wall) {
        return corner(wall).distanceM(corner(wall + 1));
    }

    /** Which way a wall faces, clockwise from grid north. */
    public double facingRad(int wall) {
        return corner(wall).bearingRad(corner(wall + 1)) + Math.PI / 2;
    }

    /** Whether it bends outward where a wall begins, as the corner of a box does. */
    public boolean outward(int wall) {
        double turn =
                corner(wall).bearingRad(corner(wall + 1)) - corner(wall - 1).bearingRad(corner(wall));
        return Math.sin(turn) < -1e-9;
    }

    /** Its plan for the geometry library. */
    public Polygon plan() {
        return GEOMETRY.createPolygon(coordinates(ring));
    }

    /** Middle of its plan. */
    public PlanePoint middle() {
        Coordinate at = plan().getCentroid().getCoordinate();
        return new PlanePoint(at.x, at.y);
    }

    /** Direction of its longest wall, clockwise from grid north. */
    public double longestRad() {
        int longest = longest();
        return corner(longest).bearingRad(corner(longest + 1));
    }

    /** Number of its longest wall. */
    public int longest() {
        int longest = 0;
        for (int wall = 1; wall < walls(); wall++) {
            longest = wallM(wall) > wallM(longest) + 1e-9 ? wall : longest;
        }
        return longest;
    }

    /** Least and greatest reach of its corners from its middle along a direction, then to the right of it. */
    public double[] reachesM(double directionRad) {
        PlanePoint middle = middle();
        double[] reach = {0, 0, 0, 0};
        for (PlanePoint at : ring) {
            double e = at.xM() - middle.xM();
            double n = at.yM() - middle.yM();
            double along = e * Math.sin(directionRad) + n * Math.cos(directionRad);
            double right = e * Math.cos(directionRad) - n * Math.sin(directionRad);
            reach[0] = Math.min(reach[0], along);
            reach[1] = Math.max(reach[1], along);
            reach[2] = Math.min(reach[2], right);
            reach[3] = Math.max(reach[3], right);
        }
        return reach;
    }

    /** How far its corners lie from its middle, at most. */
    public double reachM() {
        PlanePoint middle = middle();
        return ring.stream().mapToDouble(middle::distanceM).max().orElse(0);
    }

    /** Distance of a place in the air from the solid, in metres; 0 within it. */
    public double distanceM(PlanePoint at, double upM) {
        double aside = asideM(at);
        double over = Math.max(0, Math.max(bottomM - upM, upM - topM));
        return Math.hypot(aside, over);
    }

    /** Level distance from its plan; 0 over, in and under it. */
    public double asideM(PlanePoint at) {
        if (contains(at.xM(), at.yM())) {
            return 0;
        }
        double least = Double.POSITIVE_INFINITY;
        for (int wall = 0; wall < ring.size(); wall++) {
            least = Math.min(least, toEdge(at, corner(wall), corner(wall + 1)));
        }
        return least;
    }

    private static double toEdge(PlanePoint at, PlanePoint from, PlanePoint to) {
        double x = to.xM() - from.xM();
        double y = to.yM() - from.yM();
        double square = x * x + y * y;
        double share = square == 0 ? 0 : ((at.xM() - from.xM()) * x + (at.yM() - from.yM()) * y) / square;
        double held = Math.max(0, Math.min(1, share));
        return Math.hypot(at.xM() - from.xM() - held * x, at.yM() - from.yM() - held * y);
    }

    /** Whether a place lies within its plan. */
    public boolean contains(double x, double y) {
        boolean inside = false;
        for (int i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
            PlanePoint a = ring.get(i);
            PlanePoint b = ring.get(j);
            boolean crosses = (a.yM() > y) != (b.yM() > y);
            if (crosses && x < (b.xM() - a.xM()) * (y - a.yM()) / (b.yM() - a.yM()) + a.xM()) {
                inside = !inside;
            }
        }
        return inside;
    }

    /** Its plan widened on all sides, corners kept. */
    public Geometry widened(double byM) {
        return Detour.square(plan(), byM);
    }
}

package yalos.core.site;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import yalos.core.block.LocalPlane;
import yalos.core.block.PlaneBlock;

/** Obstacles and zones laid into the plane of a block, to be asked what stands or hangs at a place. */
public final class SiteMap {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    private final List<Standing> standing = new ArrayList<>();
    private final List<Hanging> hanging = new ArrayList<>();

    private record Standing(Obstacle obstacle, Geometry shape, Envelope reach) {}

    private record Hanging(Zone zone, PlaneBlock area, Envelope reach) {}

    public SiteMap(LocalPlane plane, List<Obstacle> obstacles, List<Zone> zones) {
        for (Obstacle obstacle : obstacles) {
            Geometry shape = shape(plane, obstacle).buffer(Math.max(0.01, obstacle.radiusM()));
            standing.add(new Standing(obstacle, shape, shape.getEnvelopeInternal()));
        }
        for (Zone zone : zones) {
            PlaneBlock area = PlaneBlock.in(zone.outline(), plane);
            double[] bounds = area.bounds();
            hanging.add(new Hanging(zone, area, new Envelope(bounds[0], bounds[1], bounds[2], bounds[3])));
        }
    }

    private static Geometry shape(LocalPlane plane, Obstacle obstacle) {
        Coordinate[] places = obstacle.places().stream()
                .map(plane::toPlane)
                .map(at -> new Coordinate(at.xM(), at.yM()))
                .toArray(Coordinate[]::new);
        if (places.length == 1) {
            return GEOMETRY.createPoint(places[0]);
        }
        return obstacle.isArea() ? GEOMETRY.createLineString(places).convexHull() : GEOMETRY.createLineString(places);
    }

    /** Whether anything stands there. */
    public boolean hasObstacles() {
        return !standing.isEmpty();
    }

    /** Whether any air there is forbidden or doubtful. */
    public boolean hasZones() {
        return !hanging.isEmpty();
    }

    /** Height of the tallest obstacle above the ground within a distance of a place, in metres; 0 where there is none. */
    public double obstacleM(double x, double y, double withinM) {
        double tallest = 0;
        for (Standing one : standing) {
            if (one.obstacle.heightM() > tallest && near(one, x, y, withinM)) {
                tallest = one.obstacle.heightM();
            }
        }
        return tallest;
    }

    /** The obstacles within a distance of a place. */
    public List<Obstacle> obstaclesNear(double x, double y, double withinM) {
        return standing.stream()
                .filter(one -> near(one, x, y, withinM))
                .map(Standing::obstacle)
                .toList();
    }

    private static boolean near(Standing one, double x, double y, double withinM) {
        Envelope reach = one.reach;
        if (x < reach.getMinX() - withinM
                || x > reach.getMaxX() + withinM
                || y < reach.getMinY() - withinM
                || y > reach.getMaxY() + withinM) {
            return false;
        }
        Point at = GEOMETRY.createPoint(new Coordinate(x, y));
        return one.shape.isWithinDistance(at, withinM);
    }

    /** The zones that hold a height above ground at a place. */
    public List<Zone> zonesAt(double x, double y, double aboveGroundM) {
        return hanging.stream()
                .filter(one -> one.zone.holds(aboveGroundM) && one.reach.contains(x, y) && one.area.contains(x, y))
                .map(Hanging::zone)
                .toList();
    }

    /** Tallest obstacle of all, in metres above its ground; 0 without any. */
    public double tallestM() {
        return standing.stream()
                .mapToDouble(one -> one.obstacle.heightM())
                .max()
                .orElse(0);
    }
}

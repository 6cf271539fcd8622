package yalos.core.site;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import yalos.core.block.LocalPlane;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;

/** Obstacles and zones laid into the plane of a block, to be asked what stands or hangs at a place. */
public final class SiteMap {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    private final List<Standing> standing = new ArrayList<>();
    private final List<Hanging> hanging = new ArrayList<>();
    private final List<Hanging> keeping = new ArrayList<>();
    /** By place: a path asks at every step, and a site may hold hundreds of things. */
    private final STRtree standingAt = new STRtree();

    private final STRtree hangingAt = new STRtree();

    private record Standing(Obstacle obstacle, Geometry shape) {}

    private record Hanging(Zone zone, PlaneBlock area) {}

    public SiteMap(LocalPlane plane, List<Obstacle> obstacles, List<Zone> zones) {
        for (Obstacle obstacle : obstacles) {
            Geometry shape = shape(plane, obstacle).buffer(Math.max(0.01, obstacle.radiusM()));
            Standing one = new Standing(obstacle, shape);
            standing.add(one);
            standingAt.insert(shape.getEnvelopeInternal(), one);
        }
        for (Zone zone : zones) {
            PlaneBlock area = PlaneBlock.in(zone.outline(), plane);
            Bounds bounds = area.bounds();
            Hanging one = new Hanging(zone, area);
            if (zone.kind() == Zone.Kind.KEEP_IN) {
                keeping.add(one);
                continue;
            }
            hanging.add(one);
            hangingAt.insert(new Envelope(bounds.west(), bounds.east(), bounds.south(), bounds.north()), one);
        }
        // Built here, so that it may be asked from several threads.
        standingAt.build();
        hangingAt.build();
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
        return !hanging.isEmpty() || !keeping.isEmpty();
    }

    /** Height of the tallest obstacle above the ground within a distance of a place, in metres; 0 where there is none. */
    public double obstacleM(double x, double y, double withinM) {
        double tallest = 0;
        for (Standing one : near(x, y, withinM)) {
            if (one.obstacle.heightM() > tallest && within(one, x, y, withinM)) {
                tallest = one.obstacle.heightM();
            }
        }
        return tallest;
    }

    /** The obstacles within a distance of a place. */
    public List<Obstacle> obstaclesNear(double x, double y, double withinM) {
        return near(x, y, withinM).stream()
                .filter(one -> within(one, x, y, withinM))
                .map(Standing::obstacle)
                .toList();
    }

    @SuppressWarnings("unchecked")
    private List<Standing> near(double x, double y, double withinM) {
        return standing.isEmpty()
                ? List.of()
                : standingAt.query(new Envelope(x - withinM, x + withinM, y - withinM, y + withinM));
    }

    private static boolean within(Standing one, double x, double y, double withinM) {
        return one.shape.isWithinDistance(GEOMETRY.createPoint(new Coordinate(x, y)), withinM);
    }

    /** The zones that hold a height above ground at a place; of those that must not be left the first, where all are left. */
    public List<Zone> zonesAt(double x, double y, double aboveGroundM) {
        List<Zone> zones = new ArrayList<>();
        for (Hanging one : over(x, y)) {
            if (one.zone.concerns(one.area.contains(x, y), aboveGroundM)) {
                zones.add(one.zone);
            }
        }
        boolean left = keeping.stream().allMatch(one -> one.zone.concerns(one.area.contains(x, y), aboveGroundM));
        if (left && !keeping.isEmpty()) {
            zones.add(keeping.get(0).zone);
        }
        return zones;
    }

    @SuppressWarnings("unchecked")
    private List<Hanging> over(double x, double y) {
        return hanging.isEmpty() ? List.of() : hangingAt.query(new Envelope(x, x, y, y));
    }

    /** Tallest obstacle of all, in metres above its ground; 0 without any. */
    public double tallestM() {
        return standing.stream()
                .mapToDouble(one -> one.obstacle.heightM())
                .max()
                .orElse(0);
    }
}

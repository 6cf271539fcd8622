package yalos.core.site;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import yalos.core.block.LocalPlane;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.PlanePoint;

/**
 * Ways round what must not be flown over, and within what must not be left: the shortest from corner to corner (a visibility graph, Lozano-Pérez and Wesley 1979, from memory;
 * Dijkstra's search), kept {@value #KEPT_M} m clear.
 *
 * <p>KNOWN LIMITS: a way that begins or ends inside an area, or has more than {@value #MOST_CORNERS} corners to consider, runs straight; a finding then says
 * what it crosses.
 */
public final class Detour {
    /** Nothing has to be gone round. */
    public static final Detour NONE = new Detour(null);

    private static final double KEPT_M = 10;
    private static final double HAIR_M = 0.01;
    private static final int MOST_CORNERS = 600;
    private static final double WORLD_M = 50_000;
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final BufferParameters SQUARE = new BufferParameters(
            BufferParameters.DEFAULT_QUADRANT_SEGMENTS, BufferParameters.CAP_FLAT, BufferParameters.JOIN_MITRE, 2);

    private final Geometry areas;
    private final PreparedGeometry closed;
    private final List<PlanePoint> corners = new ArrayList<>();

    private Detour(Geometry areas) {
        if (areas == null || areas.isEmpty()) {
            this.areas = null;
            closed = null;
            return;
        }
        this.areas = areas;
        closed = PreparedGeometryFactory.prepare(areas.buffer(-HAIR_M));
        for (Coordinate at : areas.getCoordinates()) {
            corners.add(new PlanePoint(at.x, at.y));
        }
    }

    /**
     * Round the keep-out zones that reach down to a height above ground, and within those that must not be left.
     *
     * @param plane of the block
     */
    public static Detour of(LocalPlane plane, List<Zone> zones, double heightM) {
        List<Geometry> areas = zones.stream()
                .filter(zone -> zone.kind() == Zone.Kind.KEEP_OUT && zone.floorM() <= heightM)
                .map(zone -> widened(PlaneBlock.in(zone.outline(), plane)))
                .toList();
        List<Geometry> within = zones.stream()
                .filter(zone -> zone.kind() == Zone.Kind.KEEP_IN)
                .map(zone -> shape(PlaneBlock.in(zone.outline(), plane)))
                .toList();
        if (!within.isEmpty()) {
            areas = new ArrayList<>(areas);
            areas.add(outside(UnaryUnionOp.union(within)));
        }
        return areas.isEmpty() ? NONE : new Detour(UnaryUnionOp.union(areas));
    }

    /** All the world but some areas, kept clear of their edges. */
    private static Geometry outside(Geometry within) {
        Envelope world = new Envelope(within.getEnvelopeInternal());
        world.expandBy(WORLD_M);
        return GEOMETRY.toGeometry(world).difference(BufferOp.bufferOp(within, -KEPT_M, SQUARE));
    }

    /** Round solids, so far clear of them. */
    public static Detour round(List<Prism> solids, double clearM) {
        List<Geometry> areas =
                solids.stream().map(solid -> square(solid.plan(), clearM)).toList();
        return areas.isEmpty() ? NONE : new Detour(UnaryUnionOp.union(areas));
    }

    /** Both at once. */
    public Detour and(Detour other) {
        if (areas == null || other.areas == null) {
            return areas == null ? other : this;
        }
        return new Detour(UnaryUnionOp.union(List.of(areas, other.areas)));
    }

    static Geometry square(Geometry area, double byM) {
        return BufferOp.bufferOp(area, byM, SQUARE);
    }

    private static Geometry widened(PlaneBlock area) {
        return square(shape(area), KEPT_M);
    }

    /** An area without its holes: nobody flies into a hole of a forbidden one. */
    private static Geometry shape(PlaneBlock area) {
        List<Geometry> rings = new ArrayList<>();
        for (double[] ring : area.rings()) {
            Coordinate[] corners = new Coordinate[ring.length / 2 + 1];
            for (int i = 0; i < ring.length / 2; i++) {
                corners[i] = new Coordinate(ring[2 * i], ring[2 * i + 1]);
            }
            corners[corners.length - 1] = corners[0];
            rings.add(GEOMETRY.createPolygon(corners));
        }
        return UnaryUnionOp.union(rings);
    }

    /** Whether a straight way may be flown. */
    public boolean clear(PlanePoint from, PlanePoint to) {
        return closed == null || !closed.intersects(line(from, to));
    }

    /**
     * The places a way runs by between its ends; none for a straight one.
     */
    public List<PlanePoint> between(PlanePoint from, PlanePoint to) {
        if (clear(from, to) || corners.size() > MOST_CORNERS || !open(from) || !open(to)) {
            return List.of();
        }
        return shortest(from, to);
    }

    private boolean open(PlanePoint at) {
        return !closed.intersects(GEOMETRY.createPoint(new Coordinate(at.xM(), at.yM())));
    }

    private static Geometry line(PlanePoint from, PlanePoint to) {
        return GEOMETRY.createLineString(
                new Coordinate[] {new Coordinate(from.xM(), from.yM()), new Coordinate(to.xM(), to.yM())});
    }

    private List<PlanePoint> shortest(PlanePoint from, PlanePoint to) {
        List<PlanePoint> nodes = new ArrayList<>(corners);
        nodes.add(from);
        nodes.add(to);
        int start = nodes.size() - 2;
        int goal = nodes.size() - 1;
        double[] least = new double[nodes.size()];
        int[] before = new int[nodes.size()];
        boolean[] done = new boolean[nodes.size()];
        Arrays.fill(least, Double.POSITIVE_INFINITY);
        Arrays.fill(before, -1);
        least[start] = 0;
        for (int at = nearest(least, done); at >= 0 && at != goal; at = nearest(least, done)) {
            done[at] = true;
            for (int next = 0; next < nodes.size(); next++) {
                double takes = least[at] + nodes.get(at).distanceM(nodes.get(next));
                if (!done[next] && takes < least[next] && clear(nodes.get(at), nodes.get(next))) {
                    least[next] = takes;
                    before[next] = at;
                }
            }
        }
        List<PlanePoint> way = new ArrayList<>();
        for (int at = before[goal]; at >= 0 && at != start; at = before[at]) {
            way.add(nodes.get(at));
        }
        Collections.reverse(way);
        return way;
    }

    private static int nearest(double[] least, boolean[] done) {
        int nearest = -1;
        for (int i = 0; i < least.length; i++) {
            boolean nearer =
                    !done[i] && least[i] < Double.POSITIVE_INFINITY && (nearest < 0 || least[i] < least[nearest]);
            nearest = nearer ? i : nearest;
        }
        return nearest;
    }
}

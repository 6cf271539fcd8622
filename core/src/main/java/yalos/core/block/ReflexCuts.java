package yalos.core.block;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import org.locationtech.jts.operation.polygonize.Polygonizer;
import yalos.core.geodesy.PlanePoint;

/** Cuts of a block through its reflex corners, those at which the inside turns by more than half a circle. */
public final class ReflexCuts {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    /** Corners that turn inwards by less make no cell of their own. */
    private static final double LEAST_REFLEX_RAD = Math.toRadians(5);

    private static final double TOUCH_M = 1e-6;

    private ReflexCuts() {}

    /**
     * A line along which a block may be cut.
     *
     * @param at a corner at which the inside turns by more than half a circle
     * @param directionRad of one of its edges
     */
    public record Cut(PlanePoint at, double directionRad) {}

    /** Cuts along both edges of the sharpest reflex corners, corners of holes included. */
    public static List<Cut> of(PlaneBlock block, int most) {
        record Corner(PlanePoint at, double inRad, double outRad, double bend) {}
        List<Corner> corners = new ArrayList<>();
        for (double[] ring : block.rings()) {
            // The inside lies to the left of an outer ring that runs counter-clockwise, and of a hole that runs
            // clockwise.
            double side = Math.signum(Ring.signedArea(ring)) * (isHole(block.geometry(), ring) ? -1 : 1);
            int size = ring.length;
            for (int i = 0; i < size; i += 2) {
                int before = (i + size - 2) % size;
                int after = (i + 2) % size;
                double in = Math.atan2(ring[i] - ring[before], ring[i + 1] - ring[before + 1]);
                double out = Math.atan2(ring[after] - ring[i], ring[after + 1] - ring[i + 1]);
                double bend = side * Math.IEEEremainder(out - in, 2 * Math.PI);
                if (bend > LEAST_REFLEX_RAD) {
                    corners.add(new Corner(new PlanePoint(ring[i], ring[i + 1]), in, out, bend));
                }
            }
        }
        return corners.stream()
                .sorted(Comparator.comparingDouble(Corner::bend).reversed())
                .limit(most)
                .flatMap(corner ->
                        Stream.of(new Cut(corner.at(), corner.inRad()), new Cut(corner.at(), corner.outRad())))
                .toList();
    }

    private static boolean isHole(Geometry geometry, double[] ring) {
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            if (geometry.getGeometryN(i) instanceof Polygon polygon) {
                for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
                    Coordinate first = polygon.getInteriorRingN(h).getCoordinateN(0);
                    if (first.x == ring[0] && first.y == ring[1]) {
                        return true;
                    }
                }
            }
        }
        return false;
    }

    /** The parts that a straight line through a place cuts the block into, as far as the line runs inside it from there; the block itself where it cuts nothing off. */
    public static List<PlaneBlock> cut(PlaneBlock block, Cut along) {
        Geometry geometry = block.geometry();
        PlanePoint at = along.at();
        double directionRad = along.directionRad();
        double reach = 2
                * Math.hypot(
                        geometry.getEnvelopeInternal().getWidth(),
                        geometry.getEnvelopeInternal().getHeight());
        PlanePoint from = at.moved(directionRad, -reach);
        PlanePoint to = at.moved(directionRad, reach);
        LineString line = GEOMETRY.createLineString(
                new Coordinate[] {new Coordinate(from.xM(), from.yM()), new Coordinate(to.xM(), to.yM())});
        Geometry within = OverlayNGRobust.overlay(line, geometry, OverlayNG.INTERSECTION);
        List<Geometry> here = new ArrayList<>();
        for (int i = 0; i < within.getNumGeometries(); i++) {
            if (within.getGeometryN(i) instanceof LineString piece
                    && piece.getLength() > TOUCH_M
                    && piece.distance(GEOMETRY.createPoint(new Coordinate(at.xM(), at.yM()))) < TOUCH_M) {
                here.add(longer(piece));
            }
        }
        Polygonizer polygonizer = new Polygonizer();
        Geometry lines = geometry.getBoundary();
        for (Geometry piece : here) {
            lines = OverlayNGRobust.overlay(lines, piece, OverlayNG.UNION);
        }
        polygonizer.add(lines);
        List<PlaneBlock> parts = new ArrayList<>();
        for (Object found : polygonizer.getPolygons()) {
            Polygon part = (Polygon) found;
            if (geometry.contains(part.getInteriorPoint())) {
                parts.add(block.part(part));
            }
        }
        return parts.size() < 2 ? List.of(block) : parts;
    }

    /** A hair longer at both ends, so that it meets what it ends at. */
    private static LineString longer(LineString piece) {
        Coordinate from = piece.getCoordinateN(0);
        Coordinate to = piece.getCoordinateN(piece.getNumPoints() - 1);
        double length = from.distance(to);
        double dx = (to.x - from.x) / length * TOUCH_M;
        double dy = (to.y - from.y) / length * TOUCH_M;
        return GEOMETRY.createLineString(
                new Coordinate[] {new Coordinate(from.x - dx, from.y - dy), new Coordinate(to.x + dx, to.y + dy)});
    }
}

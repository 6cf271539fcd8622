package yalos.core.block;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.geom.util.AffineTransformation;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import org.locationtech.jts.simplify.TopologyPreservingSimplifier;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.geodesy.Range;

/**
 * A block laid into its {@link LocalPlane}: rings as plain arrays of metres, for the fast loops of planning and proof.
 *
 * <p>Rings are closed in thought: the last corner joins the first. What lies inside follows from counting crossings, so
 * the order and direction of the rings do not matter.
 */
public final class PlaneBlock {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final double MITRE_LIMIT = 2.5;

    private final LocalPlane plane;
    private final Geometry geometry;
    private final double[][] rings;

    private PlaneBlock(LocalPlane plane, Geometry geometry) {
        this.plane = plane;
        this.geometry = geometry;
        this.rings = ringsOf(geometry);
    }

    /** A sound outline in the plane of a grid round its middle. */
    public static PlaneBlock of(Outline outline, Grid grid) {
        return in(outline, LocalPlane.at(grid, outline.middle()));
    }

    /** A sound outline in a plane that is there already. */
    public static PlaneBlock in(Outline outline, LocalPlane plane) {
        Polygon[] polygons = outline.parts().stream()
                .map(part -> GEOMETRY.createPolygon(
                        ring(part.outer().stream().map(plane::toPlane).toList()),
                        part.holes().stream()
                                .map(hole ->
                                        ring(hole.stream().map(plane::toPlane).toList()))
                                .toArray(LinearRing[]::new)))
                .toArray(Polygon[]::new);
        return new PlaneBlock(plane, polygons.length == 1 ? polygons[0] : GEOMETRY.createMultiPolygon(polygons));
    }

    /** The library's own shape, for neighbours in this package alone. */
    static PlaneBlock of(Geometry geometry, LocalPlane plane) {
        return new PlaneBlock(plane, geometry);
    }

    /** For neighbours in this package alone: the library's own shape. */
    Geometry geometry() {
        return geometry;
    }

    /** Its parts that lie apart, each as a block. */
    public List<PlaneBlock> parts() {
        List<PlaneBlock> parts = new ArrayList<>();
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            if (geometry.getGeometryN(i) instanceof Polygon polygon && !polygon.isEmpty()) {
                parts.add(new PlaneBlock(plane, polygon));
            }
        }
        return parts;
    }

    /**
     * The block with fewer corners: none of its edges moves farther than a tolerance, no part or hole is lost (Douglas and Peucker 1973, by the geometry
     * library, which keeps the rings from crossing).
     */
    public PlaneBlock simplified(double toleranceM) {
        return new PlaneBlock(plane, TopologyPreservingSimplifier.simplify(geometry, toleranceM));
    }

    /** A part of this block as a block. */
    PlaneBlock part(Geometry of) {
        return new PlaneBlock(plane, of);
    }

    /** The plane it is laid into. */
    public LocalPlane plane() {
        return plane;
    }

    /** The rings as x, y in turn, in metres. */
    public double[][] rings() {
        return rings;
    }

    /** How many corners its rings have. */
    public int corners() {
        return Arrays.stream(rings).mapToInt(ring -> ring.length / 2).sum();
    }

    /** Area in the plane, in square metres. */
    public double areaM2() {
        return geometry.getArea();
    }

    /** The least box round it. */
    public Bounds bounds() {
        var box = geometry.getEnvelopeInternal();
        return new Bounds(box.getMinX(), box.getMaxX(), box.getMinY(), box.getMaxY());
    }

    /** The corners of the convex hull, as x, y in turn; the last joins the first. */
    public double[] hull() {
        Coordinate[] corners = geometry.convexHull().getCoordinates();
        double[] hull = new double[2 * (corners.length - 1)];
        for (int i = 0; i < corners.length - 1; i++) {
            hull[2 * i] = corners[i].x;
            hull[2 * i + 1] = corners[i].y;
        }
        return hull;
    }

    /** The block widened by a margin on all sides, holes narrowed; corners stay corners. */
    public PlaneBlock widened(double marginM) {
        if (marginM <= 0) {
            return this;
        }
        BufferParameters square = new BufferParameters(
                BufferParameters.DEFAULT_QUADRANT_SEGMENTS,
                BufferParameters.CAP_FLAT,
                BufferParameters.JOIN_MITRE,
                MITRE_LIMIT);
        return new PlaneBlock(plane, BufferOp.bufferOp(geometry, marginM, square));
    }

    /** From where to where the block reaches in a direction clockwise from grid north, in metres along it. */
    public Range extent(double directionRad) {
        double sin = Math.sin(directionRad);
        double cos = Math.cos(directionRad);
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (double[] ring : rings) {
            for (int i = 0; i < ring.length; i += 2) {
                double along = ring[i] * sin + ring[i + 1] * cos;
                least = Math.min(least, along);
                most = Math.max(most, along);
            }
        }
        return new Range(least, most);
    }

    /**
     * The same for what of the block lies between two lines along the direction, piece by piece; none where no part lies between.
     *
     * @param leftM of the lines, counted to the right of the direction
     * @param leastGapM pieces less far apart count as one
     */
    public List<Range> reaches(double directionRad, double leftM, double rightM, double leastGapM) {
        List<Range> pieces = new PlaneBlock(plane, strip(directionRad + Math.PI / 2, leftM, rightM))
                .parts().stream()
                        .map(part -> part.extent(directionRad))
                        .sorted(Comparator.comparingDouble(Range::least))
                        .toList();
        List<Range> reaches = new ArrayList<>();
        for (Range piece : pieces) {
            int last = reaches.size() - 1;
            if (last >= 0 && piece.least() - reaches.get(last).most() < leastGapM) {
                Range before = reaches.get(last);
                reaches.set(last, new Range(before.least(), Math.max(before.most(), piece.most())));
            } else {
                reaches.add(piece);
            }
        }
        return reaches;
    }

    /** The part of the block between two lines square to a direction, by their distances along it. */
    PlaneBlock between(double directionRad, double fromM, double toM) {
        return new PlaneBlock(plane, strip(directionRad, fromM, toM));
    }

    private Geometry strip(double directionRad, double fromM, double toM) {
        Range side = extent(directionRad + Math.PI / 2);
        double sin = Math.sin(directionRad);
        double cos = Math.cos(directionRad);
        Coordinate[] band = new Coordinate[5];
        double[][] corners = {
            {fromM, side.least() - 1}, {toM, side.least() - 1}, {toM, side.most() + 1}, {fromM, side.most() + 1}
        };
        for (int i = 0; i < 5; i++) {
            double along = corners[i % 4][0];
            double right = corners[i % 4][1];
            band[i] = new Coordinate(along * sin + right * cos, along * cos - right * sin);
        }
        return OverlayNGRobust.overlay(geometry, GEOMETRY.createPolygon(band), OverlayNG.INTERSECTION);
    }

    /** The block back on the ellipsoid; lines and points that an overlay may leave are no part of it. */
    public Outline outline() {
        List<Outline.Part> parts = new ArrayList<>();
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            if (geometry.getGeometryN(i) instanceof Polygon polygon && !polygon.isEmpty()) {
                List<List<LonLat>> holes = new ArrayList<>();
                for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
                    holes.add(places(polygon.getInteriorRingN(h)));
                }
                parts.add(new Outline.Part(places(polygon.getExteriorRing()), holes));
            }
        }
        return new Outline(parts);
    }

    private List<LonLat> places(LinearRing ring) {
        List<LonLat> places = new ArrayList<>();
        double[] flat = flat(ring);
        for (int i = 0; i < flat.length; i += 2) {
            places.add(plane.toLonLat(flat[i], flat[i + 1]));
        }
        return places;
    }

    /** The block somewhere else. */
    public PlaneBlock moved(double eastM, double northM) {
        return new PlaneBlock(
                plane, AffineTransformation.translationInstance(eastM, northM).transform(geometry));
    }

    /** The block turned about the middle of its extent, clockwise seen from above. */
    public PlaneBlock turned(double byRad) {
        Coordinate middle = geometry.getEnvelopeInternal().centre();
        return new PlaneBlock(
                plane,
                AffineTransformation.rotationInstance(-byRad, middle.x, middle.y)
                        .transform(geometry));
    }

    /** The block narrowed on all sides; empty where nothing is left. */
    public PlaneBlock narrowed(double byM) {
        return new PlaneBlock(plane, geometry.buffer(-byM));
    }

    /** This block and another in the same plane together. */
    public PlaneBlock with(PlaneBlock other) {
        return new PlaneBlock(plane, OverlayNGRobust.overlay(geometry, other.geometry, OverlayNG.UNION));
    }

    /** Distance of a point from the block; 0 inside. */
    public double distanceM(PlanePoint at) {
        return geometry.distance(GEOMETRY.createPoint(new Coordinate(at.xM(), at.yM())));
    }

    /** Whether a point lies inside; on the boundary either answer may come. */
    public boolean contains(PlanePoint at) {
        return contains(at.xM(), at.yM());
    }

    /** Whether a point lies inside; on the boundary either answer may come. */
    public boolean contains(double x, double y) {
        boolean inside = false;
        for (double[] ring : rings) {
            inside ^= Ring.contains(ring, x, y);
        }
        return inside;
    }

    /**
     * Which cells of a grid have their centre inside, row by row from the north.
     *
     * @param west of the first column
     * @param north of the first row
     */
    public boolean[] inside(double west, double north, double cellX, double cellY, int columns, int rows) {
        boolean[] inside = new boolean[columns * rows];
        double[] crossings = new double[corners()];
        for (int row = 0; row < rows; row++) {
            int found = crossings(north - (row + 0.5) * cellY, crossings);
            Arrays.sort(crossings, 0, found);
            for (int i = 0; i + 1 < found; i += 2) {
                int first = (int) Math.max(0, Math.ceil((crossings[i] - west) / cellX - 0.5));
                int end = (int) Math.min(columns, Math.ceil((crossings[i + 1] - west) / cellX - 0.5));
                if (first < end) {
                    Arrays.fill(inside, row * columns + first, row * columns + end, true);
                }
            }
        }
        return inside;
    }

    /** Where the rings cross a level line; answers how many. */
    private int crossings(double y, double[] found) {
        int count = 0;
        for (double[] ring : rings) {
            for (int i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
                if ((ring[i + 1] > y) != (ring[j + 1] > y)) {
                    found[count++] = (ring[j] - ring[i]) * (y - ring[i + 1]) / (ring[j + 1] - ring[i + 1]) + ring[i];
                }
            }
        }
        return count;
    }

    private static LinearRing ring(List<PlanePoint> corners) {
        List<Coordinate> coordinates = new ArrayList<>(corners.size() + 1);
        corners.forEach(corner -> coordinates.add(new Coordinate(corner.xM(), corner.yM())));
        coordinates.add(new Coordinate(coordinates.get(0)));
        return GEOMETRY.createLinearRing(coordinates.toArray(Coordinate[]::new));
    }

    private static double[][] ringsOf(Geometry geometry) {
        List<double[]> rings = new ArrayList<>();
        for (int i = 0; i < geometry.getNumGeometries(); i++) {
            if (geometry.getGeometryN(i) instanceof Polygon polygon && !polygon.isEmpty()) {
                rings.add(flat(polygon.getExteriorRing()));
                for (int h = 0; h < polygon.getNumInteriorRing(); h++) {
                    rings.add(flat(polygon.getInteriorRingN(h)));
                }
            }
        }
        return rings.toArray(double[][]::new);
    }

    private static double[] flat(LinearRing ring) {
        Coordinate[] corners = ring.getCoordinates();
        double[] flat = new double[2 * (corners.length - 1)];
        for (int i = 0; i < corners.length - 1; i++) {
            flat[2 * i] = corners[i].x;
            flat[2 * i + 1] = corners[i].y;
        }
        return flat;
    }
}

package yalos.core.block;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.MultiPolygon;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import org.locationtech.jts.operation.buffer.OffsetCurve;
import org.locationtech.jts.operation.overlayng.OverlayNG;
import org.locationtech.jts.operation.overlayng.OverlayNGRobust;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * A strip of land along an axis: a road, a stream, an old tramway.
 *
 * @param axis two places or more, in the order it is followed
 * @param left of it that is wanted, seen along it
 * @param right of it that is wanted
 */
public record Corridor(List<LonLat> axis, Measure left, Measure right) {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final double MOST_WIDE_M = 5000;
    private static final double USUAL_M = 15;
    private static final int MOST_CORNERS = 20_000;
    /** Corners of the edge stay corners where they lie nearer to the axis than twice the width, and are cut square there. */
    private static final double MITRE_LIMIT = 2;

    public Corridor {
        axis = without(axis);
        if (axis.size() < 2) {
            throw new InputFault(
                    "axis",
                    axis.size() + (axis.size() == 1 ? " point" : " points"),
                    "An axis needs two different points at least.");
        }
        if (axis.size() > MOST_CORNERS) {
            throw new InputFault(
                    "axis",
                    axis.size() + " points",
                    "An axis may have %d points. Simplify it first.".formatted(MOST_CORNERS));
        }
        InputFault.within("left", left.si(), 0, MOST_WIDE_M, "m");
        InputFault.within("right", right.si(), 0, MOST_WIDE_M, "m");
        if (left.si() + right.si() < 0.1) {
            throw new InputFault(
                    "left",
                    left.asTyped(),
                    "The corridor has no width. Give what is wanted left and right of its axis.");
        }
    }

    /** Points that repeat the one before say nothing. */
    private static List<LonLat> without(List<LonLat> repeated) {
        List<LonLat> kept = new ArrayList<>();
        for (LonLat point : repeated) {
            if (kept.isEmpty() || !kept.get(kept.size() - 1).equals(point)) {
                kept.add(point);
            }
        }
        return List.copyOf(kept);
    }

    /** A corridor of which nobody has said yet how wide it is: 15 m to either side. */
    public static Corridor usual(List<LonLat> axis) {
        return new Corridor(axis, Measure.of(USUAL_M, Unit.METRE), Measure.of(USUAL_M, Unit.METRE));
    }

    /** The same along another axis. */
    public Corridor along(List<LonLat> other) {
        return new Corridor(other, left, right);
    }

    /** The axis in a plane. */
    public List<PlanePoint> in(LocalPlane plane) {
        return axis.stream().map(plane::toPlane).toList();
    }

    /** The ground that is wanted: all that lies beside the axis within its widths, corners outside bends filled, ends square. */
    public Outline outline() {
        LonLat middle = axis.get(axis.size() / 2);
        LocalPlane plane = LocalPlane.at(Grid.utmAt(middle), middle);
        Geometry area = area(in(plane), left.si(), right.si());
        if (area.isEmpty()) {
            throw new InputFault("axis", axis.size() + " points", "The axis has no length.");
        }
        return PlaneBlock.of(area, plane).outline();
    }

    /**
     * The area beside an axis in its plane, mitred at outer bends up to twice the width, square at the ends.
     *
     * @param leftM of the axis
     * @param rightM of the axis
     */
    public static Geometry area(List<PlanePoint> axis, double leftM, double rightM) {
        LineString line = line(axis);
        Geometry whole = side(line, leftM).orElse(null);
        Geometry other = side(line, -rightM).orElse(null);
        if (whole == null || other == null) {
            return whole != null ? whole : other != null ? other : GEOMETRY.createPolygon();
        }
        return OverlayNGRobust.overlay(whole, other, OverlayNG.UNION);
    }

    private static Optional<Geometry> side(LineString line, double byM) {
        if (byM == 0) {
            return Optional.empty();
        }
        BufferParameters one = new BufferParameters(
                BufferParameters.DEFAULT_QUADRANT_SEGMENTS,
                BufferParameters.CAP_FLAT,
                BufferParameters.JOIN_MITRE,
                MITRE_LIMIT);
        one.setSingleSided(true);
        Geometry side = BufferOp.bufferOp(line, byM, one);
        return side instanceof Polygon || side instanceof MultiPolygon ? Optional.of(side) : Optional.empty();
    }

    /**
     * A line beside an axis that never comes nearer to it than the offset, so that it crosses itself nowhere.
     *
     * @param byM to the left; to the right where negative
     * @return its points in the order of the axis; in pieces where the axis doubles back
     */
    public static List<List<PlanePoint>> beside(List<PlanePoint> axis, double byM) {
        if (byM == 0) {
            return List.of(axis);
        }
        Geometry curve = OffsetCurve.getCurve(
                line(axis), byM, BufferParameters.DEFAULT_QUADRANT_SEGMENTS, BufferParameters.JOIN_MITRE, MITRE_LIMIT);
        List<List<PlanePoint>> pieces = new ArrayList<>();
        for (int i = 0; i < curve.getNumGeometries(); i++) {
            List<PlanePoint> piece = new ArrayList<>();
            for (Coordinate at : curve.getGeometryN(i).getCoordinates()) {
                piece.add(new PlanePoint(at.x, at.y));
            }
            if (piece.size() > 1) {
                pieces.add(piece);
            }
        }
        return pieces;
    }

    private static LineString line(List<PlanePoint> axis) {
        return GEOMETRY.createLineString(axis.stream()
                .map(point -> new Coordinate(point.xM(), point.yM()))
                .toArray(Coordinate[]::new));
    }
}

package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.simplify.DouglasPeuckerSimplifier;
import yalos.core.geodesy.PlanePoint;

/** Lines with bends, in the plane: what a corridor's strips are laid on. */
final class Polyline {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    /** Arcs are flown as straight pieces that turn by no more. */
    private static final double ARC_STEP_RAD = Math.toRadians(10);

    private Polyline() {}

    /**
     * A place on a line.
     *
     * @param trackRad direction of the piece it stands on, clockwise from grid north, 0 to 2π
     * @param piece its number
     */
    record Station(PlanePoint at, double trackRad, int piece) {}

    static double lengthM(List<PlanePoint> line) {
        double length = 0;
        for (int i = 1; i < line.size(); i++) {
            length += line.get(i - 1).distanceM(line.get(i));
        }
        return length;
    }

    /** With as few points as keep it within a distance, after Douglas and Peucker. */
    static List<PlanePoint> simplified(List<PlanePoint> line, double withinM) {
        Coordinate[] points = line.stream()
                .map(point -> new Coordinate(point.xM(), point.yM()))
                .toArray(Coordinate[]::new);
        List<PlanePoint> kept = new ArrayList<>();
        for (Coordinate at : DouglasPeuckerSimplifier.simplify(GEOMETRY.createLineString(points), withinM)
                .getCoordinates()) {
            kept.add(new PlanePoint(at.x, at.y));
        }
        return kept.size() < 2 ? line : kept;
    }

    /** Drawn out straight at both ends. */
    static List<PlanePoint> extended(List<PlanePoint> line, double beforeM, double afterM) {
        List<PlanePoint> longer = new ArrayList<>(line);
        int last = line.size() - 1;
        longer.set(0, line.get(0).moved(line.get(1).bearingRad(line.get(0)), beforeM));
        longer.set(last, line.get(last).moved(line.get(last - 1).bearingRad(line.get(last)), afterM));
        return longer;
    }

    /** By how much it turns from one piece into the next, positive to the right, -π to π. */
    static double bendRad(PlanePoint before, PlanePoint at, PlanePoint after) {
        return Math.IEEEremainder(at.bearingRad(after) - before.bearingRad(at), 2 * Math.PI);
    }

    /** By how much one line turns into the next. */
    static double bendRad(List<PlanePoint> line, List<PlanePoint> next) {
        return bendRad(line.get(line.size() - 2), next.get(0), next.get(1));
    }

    /** Parted where it bends by more. */
    static List<List<PlanePoint>> parted(List<PlanePoint> line, double byRad) {
        List<List<PlanePoint>> parts = new ArrayList<>();
        List<PlanePoint> part = new ArrayList<>(List.of(line.get(0)));
        for (int i = 1; i < line.size(); i++) {
            part.add(line.get(i));
            boolean bends = i + 1 < line.size()
                    && Math.abs(bendRad(line.get(i - 1), line.get(i), line.get(i + 1))) > byRad + 1e-9;
            if (bends) {
                parts.add(part);
                part = new ArrayList<>(List.of(line.get(i)));
            }
        }
        parts.add(part);
        return parts;
    }

    /**
     * With bends rounded by a radius, where that cuts the corner by no more than is allowed and the pieces beside it are long enough; other bends
     * stay.
     */
    static List<PlanePoint> rounded(List<PlanePoint> line, double radiusM, double cutM) {
        List<PlanePoint> rounded = new ArrayList<>(List.of(line.get(0)));
        for (int i = 1; i + 1 < line.size(); i++) {
            PlanePoint before = line.get(i - 1);
            PlanePoint at = line.get(i);
            PlanePoint after = line.get(i + 1);
            double bend = bendRad(before, at, after);
            double half = Math.abs(bend) / 2;
            double tangentM = radiusM * Math.tan(half);
            double roomM = Math.min(before.distanceM(at), at.distanceM(after)) / 2;
            boolean fits = tangentM <= roomM && radiusM * (1 / Math.cos(half) - 1) <= cutM;
            if (!fits) {
                rounded.add(at);
                continue;
            }
            double track = before.bearingRad(at);
            double side = Math.signum(bend) * Math.PI / 2;
            PlanePoint centre = at.moved(track, -tangentM).moved(track + side, radiusM);
            int steps = (int) Math.max(1, Math.ceil(Math.abs(bend) / ARC_STEP_RAD));
            for (int step = 0; step <= steps; step++) {
                rounded.add(centre.moved(track - side + bend * step / steps, radiusM));
            }
        }
        rounded.add(line.get(line.size() - 1));
        return rounded;
    }

    /** Places evenly along a line, one at either end; one in the middle where there is only one. */
    static List<Station> stations(List<PlanePoint> line, int count) {
        double length = lengthM(line);
        List<Station> stations = new ArrayList<>();
        int piece = 1;
        double ahead = 0;
        for (int i = 0; i < count; i++) {
            double along = count == 1 ? length / 2 : length * i / (count - 1);
            double pieceM = line.get(piece - 1).distanceM(line.get(piece));
            while (piece + 1 < line.size() && ahead + pieceM < along - 1e-9) {
                ahead += pieceM;
                piece++;
                pieceM = line.get(piece - 1).distanceM(line.get(piece));
            }
            PlanePoint from = line.get(piece - 1);
            double track = from.bearingRad(line.get(piece));
            PlanePoint at = from.moved(track, Math.min(along - ahead, pieceM));
            stations.add(new Station(at, (track + 2 * Math.PI) % (2 * Math.PI), piece));
        }
        return stations;
    }
}

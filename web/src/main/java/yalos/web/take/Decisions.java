package yalos.web.take;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.take.Station;
import yalos.core.take.Take;
import yalos.web.store.TakeMapper.DecisionRow;

/** What was decided of ground that is not given enough, with its area; and what remains to be flown again. */
final class Decisions {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    private Decisions() {}

    /** What can be decided. */
    enum Kind {
        AGAIN("Fly again", "fly again"),
        ACCEPT("Accept", "accept as it is"),
        TRIM("Trim", "trim: leave it out of the map");

        private final String label;
        private final String words;

        Kind(String label, String words) {
            this.label = label;
            this.words = words;
        }

        /** What its button says. */
        public String label() {
            return label;
        }

        public String words() {
            return words;
        }

        static Kind of(String name) {
            return Arrays.stream(values())
                    .filter(kind -> kind.name().equals(name))
                    .findFirst()
                    .orElseThrow(() -> new InputFault("kind", name, "Choose: fly again, accept, or trim."));
        }
    }

    /** A ring as text: longitude and latitude of each corner. */
    static String text(List<LonLat> ring) {
        return ring.stream()
                .map(at -> String.format(Locale.ROOT, "%.8f %.8f", at.lonDeg(), at.latDeg()))
                .collect(Collectors.joining(", "));
    }

    static List<LonLat> ring(String text) {
        List<LonLat> ring = new ArrayList<>();
        for (String corner : text.split(",")) {
            String[] parts = corner.strip().split("\\s+");
            ring.add(LonLat.of(Double.parseDouble(parts[0]), Double.parseDouble(parts[1])));
        }
        return ring;
    }

    /** The area of a gap: the hull of its cells. */
    static List<LonLat> area(Take.Gap gap, yalos.core.terrain.HeightGrid grid, LocalPlane plane) {
        Geometry hull = gap.ground().shape(grid).convexHull();
        Coordinate[] corners = hull.getCoordinates();
        List<LonLat> ring = new ArrayList<>();
        for (int i = 0; i < corners.length - 1; i++) {
            ring.add(plane.toLonLat(corners[i].x, corners[i].y));
        }
        return ring;
    }

    /**
     * Stations that are still to be flown: those that lack a photo, less those whose ground was accepted or trimmed, and those decided to be flown.
     *
     * @param wanted stations that lack one and matter
     */
    static Collection<Integer> open(Take take, Collection<Integer> wanted, List<DecisionRow> decisions) {
        LocalPlane plane = take.plan().block().plane();
        TreeSet<Integer> open = new TreeSet<>(wanted);
        for (DecisionRow one : decisions) {
            if (one.takenBack().isEmpty() && !one.kind().equals(Kind.AGAIN.name())) {
                Optional<Geometry> area = polygon(ring(one.area()), plane, reachM(take));
                open.removeIf(number -> area.filter(known -> known.contains(GEOMETRY.createPoint(place(take, number))))
                        .isPresent());
            }
        }
        return open;
    }

    private static Coordinate place(Take take, int number) {
        Station station = take.match().stations().get(number - 1);
        return new Coordinate(station.at().xM(), station.at().yM());
    }

    /** A station stands for the ground as far as half way to the next strip. */
    private static double reachM(Take take) {
        return take.plan().design().spacingM() / 2;
    }

    static Optional<Geometry> polygon(List<LonLat> ring, LocalPlane plane, double reachM) {
        if (ring.size() < 3) {
            return Optional.empty();
        }
        List<Coordinate> corners = new ArrayList<>();
        for (LonLat at : ring) {
            PlanePoint place = plane.toPlane(at);
            corners.add(new Coordinate(place.xM(), place.yM()));
        }
        corners.add(corners.get(0));
        Polygon drawn = GEOMETRY.createPolygon(corners.toArray(new Coordinate[0]));
        return Optional.of(drawn.buffer(reachM));
    }
}

package yalos.web.take;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
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
import yalos.core.terrain.HeightGrid;
import yalos.web.store.TakeMapper.DecisionRow;
import yalos.web.take.TakeDesk.Found;

/** What was decided of ground that is not given enough, with its area; and what remains to be flown again. */
final class Decisions {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    private static final String DRAWN = "an area";

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
    static List<LonLat> area(Take.Gap gap, HeightGrid grid, LocalPlane plane) {
        Geometry hull = gap.ground().shape(grid).convexHull();
        Coordinate[] corners = hull.getCoordinates();
        List<LonLat> ring = new ArrayList<>();
        for (int i = 0; i < corners.length - 1; i++) {
            ring.add(plane.toLonLat(corners[i].x, corners[i].y));
        }
        return ring;
    }

    /** A decision as it stands. */
    public record Shown(long id, String kind, String about, String reason, String who, boolean stands) {}

    /**
     * Stations that are still to be flown: those of gaps on which nothing else was decided, and, while the take is not proved, all that lack a photo. What was decided of a gap counts for that gap; an area that was
     * drawn, or that of a gap which is no longer one, counts for the stations in it.
     */
    static Collection<Integer> open(Found found, List<DecisionRow> decisions) {
        TreeSet<Integer> open = new TreeSet<>();
        if (found.taken().isEmpty()) {
            open.addAll(found.take().lacking().keySet());
        }
        Set<String> gaps = new HashSet<>();
        for (int i = 0; i < found.gaps().size(); i++) {
            Take.Gap gap = found.gaps().get(i);
            gaps.add(about(i, gap));
            if (of(i, gap, decisions).filter(Decisions::left).isEmpty()) {
                open.addAll(gap.stations());
            }
        }
        decisions.stream()
                .filter(one -> left(one) && !gaps.contains(one.about()))
                .forEach(one -> leave(open, found.take(), one));
        return open;
    }

    /** Ground that is not flown again. */
    private static boolean left(DecisionRow one) {
        return one.takenBack().isEmpty() && !one.kind().equals(Kind.AGAIN.name());
    }

    private static void leave(Set<Integer> open, Take take, DecisionRow one) {
        double reachM = one.about().startsWith(DRAWN) ? reachM(take) : 0;
        polygon(ring(one.area()), take.plan().block().plane(), reachM)
                .ifPresent(area -> open.removeIf(number -> area.covers(GEOMETRY.createPoint(place(take, number)))));
    }

    /** What was decided last of a gap, as far as it stands. */
    static Optional<DecisionRow> of(int index, Take.Gap gap, List<DecisionRow> decisions) {
        String about = about(index, gap);
        return decisions.stream()
                .filter(one -> one.takenBack().isEmpty() && one.about().equals(about))
                .reduce((one, other) -> other);
    }

    /** What a decision is about. */
    static String about(int index, Take.Gap gap) {
        return "gap %d, %.0f m², %s".formatted(index + 1, gap.ground().areaM2(), gap.cause());
    }

    /** What a decision on a drawn or typed area is about. */
    static String about(int corners) {
        return DRAWN + " of %d corners".formatted(corners);
    }

    static List<Shown> shown(List<DecisionRow> rows) {
        return rows.stream()
                .map(one -> new Shown(
                        one.id(),
                        Decisions.Kind.of(one.kind()).words(),
                        one.about(),
                        one.takenBack().isEmpty()
                                ? one.reason()
                                : one.reason() + " (taken back: " + one.takenBack() + ")",
                        one.person() + " "
                                + one.decidedAt().toString().replace('T', ' ').substring(0, 16),
                        one.takenBack().isEmpty()))
                .toList();
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

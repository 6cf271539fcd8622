package yalos.core.site;

import static yalos.core.fault.InputFault.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.DoubleBinaryOperator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.buffer.BufferOp;
import org.locationtech.jts.operation.buffer.BufferParameters;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/**
 * An object that is photographed for its faces: a building, a tower on its plinth, a wall, a bridge.
 *
 * @param name what the operator calls it; one name for one object
 * @param parts it is made of, each a solid with upright walls
 * @param off faces that need no photos, by their {@linkplain Built#key key}
 * @param notes in the operator's words
 */
public record Structure(String name, List<Part> parts, Set<String> off, String notes) {
    private static final int MOST_PARTS = 20;
    private static final int MOST_PIERS = 40;
    private static final int MOST_CORNERS = 400;
    private static final int LONGEST_NAME = 60;
    private static final int LONGEST_NOTES = 2000;
    private static final double LEAST_LENGTH_M = 0.1;
    private static final GeometryFactory GEOMETRY = new GeometryFactory();
    private static final BufferParameters FLAT = new BufferParameters(
            BufferParameters.DEFAULT_QUADRANT_SEGMENTS, BufferParameters.CAP_FLAT, BufferParameters.JOIN_MITRE, 2);

    public Structure {
        name = Names.typed("name", name, LONGEST_NAME);
        notes = notes == null ? "" : notes.strip();
        if (notes.length() > LONGEST_NOTES) {
            throw new InputFault("notes", notes, "Notes hold %d letters at most.".formatted(LONGEST_NOTES));
        }
        if (parts.isEmpty() || parts.size() > MOST_PARTS) {
            throw new InputFault("parts", parts.size(), "An object is made of 1 to %d parts.".formatted(MOST_PARTS));
        }
        parts = List.copyOf(parts);
        off = Set.copyOf(off);
    }

    /** What a part is. */
    public enum Kind {
        /** Stands on its footprint. */
        BODY("body"),
        /** Stands along a line. */
        WALL("wall"),
        /** Hangs over its footprint, or along an axis; its underside is seen from below. */
        DECK("deck");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    /** From what heights of a part count. */
    public enum Counted {
        /** From the ground below its middle. */
        GROUND("above ground"),
        /** From the height system of the ground model. */
        GEOID("above the geoid");

        private final String words;

        Counted(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }

    /**
     * A solid with upright walls.
     *
     * @param places corners of its footprint, or of the line it stands along
     * @param widthM across that line; 0 for a footprint
     * @param bottomM of its foot, or of a deck's underside
     * @param topM of its top
     * @param piers that carry a deck
     */
    public record Part(
            Kind kind, List<LonLat> places, double widthM, double bottomM, double topM, Counted counted, Piers piers) {
        public Part {
            places = distinct(places);
            boolean line = kind == Kind.WALL || kind == Kind.DECK && widthM > 0;
            int fewest = line ? 2 : 3;
            if (places.size() < fewest) {
                throw new InputFault(
                        "footprint",
                        places.size() + (places.size() == 1 ? " corner" : " corners"),
                        line
                                ? "A %s along a line needs two places apart; its length is nothing."
                                        .formatted(kind.words)
                                : "A footprint needs three different corners.");
            }
            if (places.size() > MOST_CORNERS) {
                throw new InputFault(
                        "footprint",
                        places.size(),
                        "A footprint has %d corners at most; simplify it.".formatted(MOST_CORNERS));
            }
            if (line) {
                within("widthM", widthM, 0.05, 500, "m");
                if (lengthM(places) < LEAST_LENGTH_M) {
                    throw new InputFault(
                            "footprint",
                            "%.2f m".formatted(lengthM(places)),
                            "The line is %.2f m long; draw it at least %.1f m long."
                                    .formatted(lengthM(places), LEAST_LENGTH_M));
                }
            } else {
                widthM = 0;
                refuseCrossing(places);
            }
            within("bottomM", bottomM, -1000, 9000, "m");
            within("topM", topM, -1000, 9000, "m");
            if (!(topM - bottomM >= 0.05)) {
                throw new InputFault(
                        "topM",
                        topM,
                        "The top lies at %.2f m and the foot at %.2f m; the top must lie above it."
                                .formatted(topM, bottomM));
            }
            if (kind == Kind.DECK && counted == Counted.GROUND && bottomM <= 0) {
                throw new InputFault(
                        "bottomM", bottomM, "The underside of a deck hangs above the ground; give it more than 0.");
            }
            piers = kind == Kind.DECK && widthM > 0 ? piers : Piers.NONE;
        }

        private static List<LonLat> distinct(List<LonLat> places) {
            List<LonLat> kept = new ArrayList<>();
            for (LonLat at : places) {
                if (kept.isEmpty() || !kept.get(kept.size() - 1).equals(at)) {
                    kept.add(at);
                }
            }
            if (kept.size() > 1 && kept.get(0).equals(kept.get(kept.size() - 1))) {
                kept.remove(kept.size() - 1);
            }
            return List.copyOf(kept);
        }

        private static double lengthM(List<LonLat> places) {
            double length = 0;
            for (int i = 1; i < places.size(); i++) {
                LonLat a = places.get(i - 1);
                LonLat b = places.get(i);
                double north = Math.toRadians(b.latDeg() - a.latDeg()) * 6_371_000;
                double east = Math.toRadians(b.lonDeg() - a.lonDeg())
                        * 6_371_000
                        * Math.cos(Math.toRadians((a.latDeg() + b.latDeg()) / 2));
                length += Math.hypot(east, north);
            }
            return length;
        }

        private static void refuseCrossing(List<LonLat> places) {
            Coordinate[] ring = new Coordinate[places.size() + 1];
            for (int i = 0; i < ring.length; i++) {
                LonLat at = places.get(i % places.size());
                ring[i] = new Coordinate(at.lonDeg(), at.latDeg());
            }
            if (!GEOMETRY.createPolygon(ring).isValid()) {
                throw new InputFault(
                        "footprint",
                        places.size() + " corners",
                        "The footprint crosses itself. Draw its corners in turn, one wall after the other.");
            }
        }

        /** Whether it stands or hangs along a line. */
        public boolean alongLine() {
            return widthM > 0;
        }
    }

    /**
     * Piers under a deck, evenly spread along its axis.
     *
     * @param count of them; 0 for none
     * @param alongM size along the axis
     * @param acrossM size across it
     */
    public record Piers(int count, double alongM, double acrossM) {
        public static final Piers NONE = new Piers(0, 1, 1);

        public Piers {
            if (count < 0 || count > MOST_PIERS) {
                throw new InputFault("piers", count, "A deck stands on 0 to %d piers.".formatted(MOST_PIERS));
            }
            within("pierAlongM", alongM, 0.05, 100, "m");
            within("pierAcrossM", acrossM, 0.05, 500, "m");
        }
    }

    /**
     * A part laid into the plane of a block.
     *
     * @param object whose it is
     * @param part its number, from 1; piers have that of their deck
     * @param pier its number, from 1; 0 for the part itself
     * @param kind of the part; a pier is a body
     * @param axis of a deck or wall along a line; empty for others
     * @param widthM across that axis; 0 for others
     */
    public record Built(
            Structure object, int part, int pier, Kind kind, Prism solid, List<PlanePoint> axis, double widthM) {
        /** Name of one of its walls among the object's faces, such as {@code 1.3}, by the wall's number from 1. */
        public String key(int wall) {
            return stem() + "." + wall;
        }

        /** Name of its top, {@code 1.roof}. */
        public String roofKey() {
            return stem() + ".roof";
        }

        /** Name of its underside, {@code 1.under}. */
        public String undersideKey() {
            return stem() + ".under";
        }

        private String stem() {
            return pier == 0 ? "" + part : part + "p" + pier;
        }

        /** Whether a face needs photos. */
        public boolean wants(String key) {
            return !object.off().contains(key);
        }
    }

    /**
     * The object in the plane of a block.
     *
     * @param ground height of the ground at a place; not a number where nobody knows it
     * @throws InputFault (field {@code ground}) where the ground below it is not known, or its top lies below the ground
     */
    public List<Built> built(LocalPlane plane, DoubleBinaryOperator ground) {
        List<Built> built = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            Part part = parts.get(i);
            List<PlanePoint> places = part.places().stream().map(plane::toPlane).toList();
            List<PlanePoint> ring = part.alongLine() ? widened(places, part.widthM()) : places;
            Prism plan = new Prism(ring, 0, 1);
            double below = known(ground, plan.middle());
            double zero = part.counted() == Counted.GEOID ? 0 : below;
            double bottom = part.bottomM() + zero;
            double top = part.topM() + zero;
            double lowest = lowest(ground, plan, below);
            if (part.kind() != Kind.DECK && part.bottomM() == 0 && part.counted() == Counted.GROUND) {
                bottom = Math.min(bottom, lowest);
            }
            if (top <= lowest) {
                throw new InputFault(
                        "ground",
                        name,
                        "The top of “%s” lies at %.1f m, below the ground under it at %.1f m. Look at its heights and from what they count."
                                .formatted(name, top, lowest));
            }
            List<PlanePoint> axis = part.alongLine() ? places : List.of();
            built.add(new Built(this, i + 1, 0, part.kind(), new Prism(ring, bottom, top), axis, part.widthM()));
            built.addAll(piers(part, i + 1, places, bottom, ground));
        }
        return built;
    }

    private double known(DoubleBinaryOperator ground, PlanePoint at) {
        double up = ground.applyAsDouble(at.xM(), at.yM());
        if (Double.isNaN(up)) {
            throw new InputFault(
                    "ground",
                    name,
                    "The ground under “%s” is not known, so nothing can be planned round it. Add a model on Ground that reaches it, or fill the hole."
                            .formatted(name));
        }
        return up;
    }

    private static double lowest(DoubleBinaryOperator ground, Prism plan, double otherwise) {
        double lowest = otherwise;
        for (PlanePoint corner : plan.ring()) {
            double up = ground.applyAsDouble(corner.xM(), corner.yM());
            lowest = Double.isNaN(up) ? lowest : Math.min(lowest, up);
        }
        return lowest;
    }

    private List<Built> piers(
            Part part, int number, List<PlanePoint> axis, double underside, DoubleBinaryOperator ground) {
        List<Built> piers = new ArrayList<>();
        double whole = 0;
        for (int i = 1; i < axis.size(); i++) {
            whole += axis.get(i - 1).distanceM(axis.get(i));
        }
        for (int i = 1; i <= part.piers().count(); i++) {
            double ahead = whole * i / (part.piers().count() + 1);
            for (int leg = 1; leg < axis.size(); leg++) {
                double length = axis.get(leg - 1).distanceM(axis.get(leg));
                if (ahead > length && leg < axis.size() - 1) {
                    ahead -= length;
                    continue;
                }
                double track = axis.get(leg - 1).bearingRad(axis.get(leg));
                PlanePoint middle = axis.get(leg - 1).moved(track, ahead);
                List<PlanePoint> ring =
                        box(middle, track, part.piers().alongM(), part.piers().acrossM());
                double foot = lowest(ground, new Prism(ring, 0, 1), known(ground, middle));
                if (underside - foot > 0.05) {
                    piers.add(new Built(this, number, i, Kind.BODY, new Prism(ring, foot, underside), List.of(), 0));
                }
                break;
            }
        }
        return piers;
    }

    private static List<PlanePoint> box(PlanePoint middle, double alongRad, double alongM, double acrossM) {
        double across = alongRad + Math.PI / 2;
        return List.of(
                middle.moved(alongRad, alongM / 2).moved(across, acrossM / 2),
                middle.moved(alongRad, alongM / 2).moved(across, -acrossM / 2),
                middle.moved(alongRad, -alongM / 2).moved(across, -acrossM / 2),
                middle.moved(alongRad, -alongM / 2).moved(across, acrossM / 2));
    }

    private List<PlanePoint> widened(List<PlanePoint> line, double widthM) {
        Coordinate[] places =
                line.stream().map(at -> new Coordinate(at.xM(), at.yM())).toArray(Coordinate[]::new);
        Geometry area = BufferOp.bufferOp(GEOMETRY.createLineString(places), widthM / 2, FLAT);
        if (!(area instanceof Polygon polygon) || polygon.getNumInteriorRing() > 0) {
            throw new InputFault(
                    "footprint", name, "The line of “%s” runs into itself. Draw it in two parts.".formatted(name));
        }
        Coordinate[] ring = polygon.getExteriorRing().getCoordinates();
        List<PlanePoint> corners = new ArrayList<>();
        for (int i = 0; i < ring.length - 1; i++) {
            corners.add(new PlanePoint(ring[i].x, ring[i].y));
        }
        return corners;
    }
}

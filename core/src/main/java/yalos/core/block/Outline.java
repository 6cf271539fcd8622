package yalos.core.block;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;

/**
 * The boundary of a block on the ellipsoid: one or more parts, each with holes. May be empty while the operator has not
 * drawn one yet. Not necessarily sound: {@link OutlineCheck} says.
 *
 * @param parts the parts, in the order given
 */
public record Outline(List<Part> parts) {
    public static final Outline EMPTY = new Outline(List.of());

    /**
     * One closed area.
     *
     * @param outer corners of the outer ring, the first not repeated
     * @param holes corners of each hole, the first not repeated
     */
    public record Part(List<LonLat> outer, List<List<LonLat>> holes) {
        public Part {
            outer = List.copyOf(outer);
            holes = holes.stream().map(List::copyOf).toList();
        }

        /** The rings, the outer one first. */
        public List<List<LonLat>> rings() {
            return Stream.concat(Stream.of(outer), holes.stream()).toList();
        }
    }

    public Outline {
        parts = List.copyOf(parts);
    }

    /** A block of one ring without holes. */
    public static Outline ofRing(List<LonLat> outer) {
        return new Outline(List.of(new Part(outer, List.of())));
    }

    /** Whether nothing is drawn yet. */
    public boolean isEmpty() {
        return parts.isEmpty();
    }

    /** All rings of all parts, each part's outer ring before its holes. */
    public List<List<LonLat>> rings() {
        return parts.stream().flatMap(part -> part.rings().stream()).toList();
    }

    /** All corners of all rings. */
    public List<LonLat> corners() {
        return rings().stream().flatMap(List::stream).toList();
    }

    /** Area on the ellipsoid, holes taken out, in square metres. */
    public double areaM2() {
        return parts.stream()
                .mapToDouble(part -> Geodesics.sizeOf(part.outer()).areaM2()
                        - part.holes().stream()
                                .mapToDouble(hole -> Geodesics.sizeOf(hole).areaM2())
                                .sum())
                .sum();
    }

    /** Length of all rings on the ellipsoid, holes included, in metres. */
    public double perimeterM() {
        return rings().stream()
                .mapToDouble(ring -> Geodesics.sizeOf(ring).perimeterM())
                .sum();
    }

    /**
     * The middle of the box round all corners, also across the date line.
     *
     * @throws IllegalStateException for an empty outline
     */
    public LonLat middle() {
        List<LonLat> corners = corners();
        if (corners.isEmpty()) {
            throw new IllegalStateException("an empty outline has no middle");
        }
        double reference = corners.get(0).lonDeg();
        double west = Double.MAX_VALUE;
        double east = -Double.MAX_VALUE;
        double south = 90;
        double north = -90;
        for (LonLat corner : corners) {
            double lon = corner.lonNear(reference);
            west = Math.min(west, lon);
            east = Math.max(east, lon);
            south = Math.min(south, corner.latDeg());
            north = Math.max(north, corner.latDeg());
        }
        return LonLat.of((west + east) / 2, (south + north) / 2);
    }

    /** The outline with every ring changed. */
    public Outline mapRings(UnaryOperator<List<LonLat>> change) {
        return new Outline(parts.stream()
                .map(part -> new Part(
                        change.apply(part.outer()),
                        part.holes().stream().map(change).toList()))
                .toList());
    }

    /** The outline with one ring, counted over {@link #rings()}, changed. */
    public Outline withRing(int index, UnaryOperator<List<LonLat>> change) {
        List<Part> changed = new ArrayList<>();
        int at = 0;
        for (Part part : parts) {
            List<List<LonLat>> rings = new ArrayList<>();
            for (List<LonLat> ring : part.rings()) {
                rings.add(at++ == index ? change.apply(ring) : ring);
            }
            changed.add(new Part(rings.get(0), rings.subList(1, rings.size())));
        }
        return new Outline(changed);
    }

    /** Whether every corner could have longitude and latitude exchanged. */
    public boolean swappable() {
        return corners().stream().allMatch(LonLat::swappable);
    }

    /** The outline with longitude and latitude exchanged at every corner. */
    public Outline swapped() {
        return mapRings(ring -> ring.stream().map(LonLat::swapped).toList());
    }
}

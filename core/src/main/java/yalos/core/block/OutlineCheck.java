package yalos.core.block;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import org.locationtech.jts.operation.valid.IsValidOp;
import org.locationtech.jts.operation.valid.TopologyValidationError;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** Is this outline one that can be flown? Refuses those that cannot, naming the place and the mend. */
public final class OutlineCheck {
    /** Larger than any block a small aircraft flies, small enough to be computed at once. */
    public static final double LARGEST_M2 = 500e6;

    private static final double SMALLEST_M2 = 1;
    private static final int MOST_CORNERS = 20_000;
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    private OutlineCheck() {}

    /**
     * The outline without repeated corners, checked.
     *
     * @throws InputFault (field {@code outline}) for fewer than three corners, rings that cross themselves or each other,
     *     holes outside their ring, an area of nothing or of more than 500 km²
     */
    public static Outline sound(Outline outline) {
        if (outline.isEmpty()) {
            throw fault("none", "There is no outline. Draw one on the sheet or import a file.");
        }
        Outline clean = outline.mapRings(OutlineCheck::withoutRepeats);
        if (clean.corners().size() > MOST_CORNERS) {
            throw fault(
                    clean.corners().size() + " corners",
                    "The outline has %d corners; %d are the most. Simplify it first."
                            .formatted(clean.corners().size(), MOST_CORNERS));
        }
        for (List<LonLat> ring : clean.rings()) {
            long distinct = ring.stream().distinct().count();
            if (distinct < 3) {
                throw fault(
                        distinct + " corners",
                        "A ring has %d different corners; it needs at least 3.".formatted(distinct));
            }
        }
        refuseSize(clean);
        refuseCrossings(clean);
        return clean;
    }

    private static void refuseSize(Outline outline) {
        double area = outline.areaM2();
        if (area > LARGEST_M2) {
            throw fault(
                    "%.1f km²".formatted(area / 1e6),
                    "The outline encloses %.1f km²; a block may have up to 500 km². Split it, or check for swapped or mistyped coordinates."
                            .formatted(area / 1e6));
        }
    }

    private static void refuseCrossings(Outline outline) {
        double reference = outline.corners().get(0).lonDeg();
        Geometry geometry = GEOMETRY.createMultiPolygon(
                outline.parts().stream().map(part -> polygon(part, reference)).toArray(Polygon[]::new));
        TopologyValidationError error = new IsValidOp(geometry).getValidationError();
        if (error == null) {
            double area = outline.areaM2();
            if (area < SMALLEST_M2) {
                throw fault(
                        "%.2f m²".formatted(area),
                        "The outline encloses %.2f m²; a block needs at least 1 m².".formatted(area));
            }
            return;
        }
        Coordinate at = error.getCoordinate();
        String place = at == null
                ? ""
                : " at longitude %.6f, latitude %.6f"
                        .formatted(LonLat.of(at.x, at.y).lonDeg(), at.y);
        throw fault(place.strip(), sentence(error, place));
    }

    private static String sentence(TopologyValidationError error, String place) {
        return switch (error.getErrorType()) {
            case TopologyValidationError.HOLE_OUTSIDE_SHELL ->
                "A hole lies outside its outline%s. Move it inside or take it out.".formatted(place);
            case TopologyValidationError.NESTED_HOLES, TopologyValidationError.NESTED_SHELLS ->
                "Two rings of the outline lie one inside the other%s. Make the inner one a hole, or take it out."
                        .formatted(place);
            case TopologyValidationError.SELF_INTERSECTION,
                    TopologyValidationError.RING_SELF_INTERSECTION,
                    TopologyValidationError.DISCONNECTED_INTERIOR,
                    TopologyValidationError.DUPLICATE_RINGS ->
                "The outline crosses or touches itself%s. Move a corner so that the edges no longer cross."
                        .formatted(place);
            default -> "The outline encloses nothing%s. It needs three corners that are not in line.".formatted(place);
        };
    }

    private static Polygon polygon(Outline.Part part, double referenceLonDeg) {
        LinearRing shell = ring(part.outer(), referenceLonDeg);
        LinearRing[] holes =
                part.holes().stream().map(hole -> ring(hole, referenceLonDeg)).toArray(LinearRing[]::new);
        return GEOMETRY.createPolygon(shell, holes);
    }

    private static LinearRing ring(List<LonLat> corners, double referenceLonDeg) {
        Coordinate[] coordinates = new Coordinate[corners.size() + 1];
        for (int i = 0; i < corners.size(); i++) {
            LonLat corner = corners.get(i);
            coordinates[i] = new Coordinate(corner.lonNear(referenceLonDeg), corner.latDeg());
        }
        coordinates[corners.size()] = new Coordinate(coordinates[0]);
        return GEOMETRY.createLinearRing(coordinates);
    }

    private static List<LonLat> withoutRepeats(List<LonLat> ring) {
        List<LonLat> kept = new ArrayList<>();
        for (LonLat corner : ring) {
            if (kept.isEmpty() || !kept.get(kept.size() - 1).equals(corner)) {
                kept.add(corner);
            }
        }
        while (kept.size() > 1 && kept.get(0).equals(kept.get(kept.size() - 1))) {
            kept.remove(kept.size() - 1);
        }
        return kept;
    }

    private static InputFault fault(String value, String sentence) {
        return new InputFault("outline", value, sentence);
    }
}

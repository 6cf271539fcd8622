package yalos.core.block;

import java.util.ArrayList;
import java.util.List;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.geodesy.Range;

/**
 * Blocks parted and joined.
 *
 * <p>Parts overlap by a width the caller gives, half of it on either side of each cut, so that neighbouring flights tie together.
 */
public final class Splitting {
    private static final int MOST_PARTS = 50;
    /** Parts narrower or smaller than this share of an even one are slivers nobody would fly. */
    private static final double SLIVER = 0.05;

    private Splitting() {}

    /**
     * Parts of even area, cut along the strips so that each is flown in the same direction.
     *
     * @param parts 2 to {@value #MOST_PARTS}
     * @param directionRad of the strips, clockwise from grid north; cuts lie along it
     * @param overlapM width that neighbouring parts share
     * @param leastM width below which nobody would fly a part: a strip
     * @throws InputFault for a number of parts that cannot be, or an outline that gives slivers
     */
    public static List<Outline> even(
            Outline outline, Grid grid, int parts, double directionRad, double overlapM, double leastM) {
        if (parts < 2 || parts > MOST_PARTS) {
            throw new InputFault("parts", parts, "A block is split into 2 to %d parts.".formatted(MOST_PARTS));
        }
        PlaneBlock block = PlaneBlock.of(outline, grid);
        double across = directionRad + Math.PI / 2;
        Range ends = block.extent(across);
        List<Double> cuts = new ArrayList<>(List.of(ends.least()));
        for (int i = 1; i < parts; i++) {
            cuts.add(cutAt(block, across, ends, block.areaM2() * i / parts));
        }
        cuts.add(ends.most());
        List<Outline> split = new ArrayList<>();
        for (int i = 0; i < parts; i++) {
            refuseSliver(block.between(across, cuts.get(i), cuts.get(i + 1)), i, parts, leastM, cuts);
            double from = cuts.get(i) - (i == 0 ? 1 : overlapM / 2);
            double to = cuts.get(i + 1) + (i == parts - 1 ? 1 : overlapM / 2);
            split.add(block.between(across, from, to).outline());
        }
        return split;
    }

    /** A part narrower than a strip, or in pieces of which one is hardly worth a flight, is told before anything is cut. */
    private static void refuseSliver(PlaneBlock part, int number, int parts, double leastM, List<Double> cuts) {
        double wide = cuts.get(number + 1) - cuts.get(number);
        if (wide < leastM) {
            throw new InputFault(
                    "parts",
                    parts,
                    "Part %d of %d would be %.0f m wide, less than a strip of %.0f m. Choose fewer parts."
                            .formatted(number + 1, parts, wide, leastM));
        }
        for (PlaneBlock piece : part.parts()) {
            if (piece.areaM2() < SLIVER * part.areaM2()) {
                throw new InputFault(
                        "parts",
                        parts,
                        "Part %d of %d would be in pieces, one of only %.0f m². Choose another number of parts, or draw the line to split by."
                                .formatted(number + 1, parts, piece.areaM2()));
            }
        }
    }

    /** How far along the given area lies, to a millimetre. */
    private static double cutAt(PlaneBlock block, double acrossRad, Range ends, double areaM2) {
        double low = ends.least();
        double high = ends.most();
        while (high - low > 1e-3) {
            double middle = (low + high) / 2;
            if (block.between(acrossRad, ends.least() - 1, middle).areaM2() < areaM2) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    /**
     * The parts to the left and to the right of a line drawn through two places, drawn out to both sides.
     *
     * @param overlapM width that they share
     * @throws InputFault where the line misses the block or cuts off a sliver
     */
    public static List<Outline> byLine(Outline outline, Grid grid, LonLat from, LonLat to, double overlapM) {
        PlaneBlock block = PlaneBlock.of(outline, grid);
        PlanePoint first = block.plane().toPlane(from);
        PlanePoint second = block.plane().toPlane(to);
        if (first.distanceM(second) < 0.1) {
            throw new InputFault("line", "a point", "Draw the line from one side of the block to the other.");
        }
        double right = first.bearingRad(second) + Math.PI / 2;
        Range ends = block.extent(right);
        double at = first.xM() * Math.sin(right) + first.yM() * Math.cos(right);
        if (at <= ends.least() || at >= ends.most()) {
            throw new InputFault("line", "outside", "The line does not cross the block. Draw it from side to side.");
        }
        for (double[] side : new double[][] {{ends.least() - 1, at}, {at, ends.most() + 1}}) {
            double area = block.between(right, side[0], side[1]).areaM2();
            if (area < SLIVER * block.areaM2() / 2) {
                throw new InputFault(
                        "line",
                        "%.0f m²".formatted(area),
                        "The line cuts off only %.0f m² of %.0f m². Draw it nearer to the middle."
                                .formatted(area, block.areaM2()));
            }
        }
        return List.of(
                block.between(right, ends.least() - 1, at + overlapM / 2).outline(),
                block.between(right, at - overlapM / 2, ends.most() + 1).outline());
    }

    /** Two blocks as one: what both cover once, in one part where they touch, otherwise in several. */
    public static Outline joined(Outline one, Outline other, Grid grid) {
        LocalPlane plane = LocalPlane.at(grid, one.middle());
        return PlaneBlock.in(one, plane).with(PlaneBlock.in(other, plane)).outline();
    }
}

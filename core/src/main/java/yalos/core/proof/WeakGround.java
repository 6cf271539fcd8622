package yalos.core.proof;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.operation.union.UnaryUnionOp;
import yalos.core.terrain.HeightGrid;

/**
 * Connected ground that is not given what the brief asks for.
 *
 * @param cause why
 * @param areaM2 its size
 * @param x a place in it, in the block's plane: the worst cell
 * @param y a place in it
 * @param leastPhotos fewest photos that see any of its cells
 * @param cells indexes of its cells in the proof's layers
 */
public record WeakGround(Cause cause, double areaM2, double x, double y, int leastPhotos, int[] cells) {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    /** Its cells joined to polygons, in the block's plane. */
    public Geometry shape(HeightGrid grid) {
        int[] sorted = cells.clone();
        Arrays.sort(sorted);
        List<Geometry> runs = new ArrayList<>();
        for (int from = 0, to; from < sorted.length; from = to) {
            int row = sorted[from] / grid.columns();
            to = from + 1;
            while (to < sorted.length && sorted[to] == sorted[to - 1] + 1 && sorted[to] / grid.columns() == row) {
                to++;
            }
            double west = grid.west() + sorted[from] % grid.columns() * grid.cellX();
            double north = grid.north() - row * grid.cellY();
            runs.add(GEOMETRY.toGeometry(
                    new Envelope(west, west + (to - from) * grid.cellX(), north - grid.cellY(), north)));
        }
        return UnaryUnionOp.union(runs);
    }

    /** Why a piece of ground is weak. */
    public enum Cause {
        EDGE("at the edge: no strips beyond it"),
        HIGH_GROUND("high ground: the aircraft is nearer, footprints are smaller"),
        GAPS("strips or stations too far apart"),
        HIDDEN_SIDE("a steep side, hidden behind ground that stands before it"),
        LOW_GROUND("low ground: the aircraft is farther, pixels are larger"),
        RAISED_PATH("steep ground: the aircraft climbs and sinks too slowly at this speed to stay near it"),
        KEPT_ABOVE("steep ground: the path keeps its height above the highest of it, evened out"),
        FALLS_AWAY("steep ground: photos taken over higher ground see it from farther off"),
        UNSURE_PHOTOS("the positions of the photos are not known that well"),
        LARGE_PIXELS("pixels too large: heights come out no better than 1.5 GSD, positions no better than one"),
        WEAK_RAYS("rays too few or too alike to fix the height");

        private final String words;

        Cause(String words) {
            this.words = words;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }
    }
}

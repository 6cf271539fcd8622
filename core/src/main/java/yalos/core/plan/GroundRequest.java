package yalos.core.plan;

import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.height.HeightChoice;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Holes;
import yalos.core.terrain.Holes.Hole;

/**
 * The real ground of a block and how to fly over it.
 *
 * @param source of heights
 * @param choice of the flying height
 * @param obstacles that stand there
 * @param zones over it
 * @param takeOffLevelM height of the take-off point above the geoid as measured on site, to check the model by
 */
public record GroundRequest(
        Source source, HeightChoice choice, List<Obstacle> obstacles, List<Zone> zones, OptionalDouble takeOffLevelM) {
    private static final double LEVEL_CELL_M = 100_000;

    /** Level ground of no known height, for a site of which only obstacles and zones are known. */
    public static final Source LEVEL = new Source() {
        @Override
        public Surveyed over(PlaneBlock block, double bufferM) {
            Bounds bounds = block.bounds();
            double west = bounds.middle().xM() - LEVEL_CELL_M;
            double north = bounds.middle().yM() + LEVEL_CELL_M;
            return new Surveyed(HeightGrid.level(west, north, LEVEL_CELL_M, 2, 2, 0), List.of(), List.of());
        }

        @Override
        public double heightM(LonLat at) {
            return 0;
        }

        @Override
        public Source spanning(double widestM) {
            return this;
        }
    };

    public GroundRequest {
        obstacles = List.copyOf(obstacles);
        zones = List.copyOf(zones);
    }

    /** The same ground flown over otherwise. */
    public GroundRequest with(HeightChoice other) {
        return new GroundRequest(source, other, obstacles, zones, takeOffLevelM);
    }

    /** The same ground with holes up to so wide spanned; see {@link Source#spanning}. */
    public GroundRequest spanning(double widestM) {
        return new GroundRequest(source.spanning(widestM), choice, obstacles, zones, takeOffLevelM);
    }

    /** Whether no heights are known: the plan stands on level ground, and heights count from the take-off. */
    public boolean isLevel() {
        return source == LEVEL;
    }

    /**
     * Ground as a source knows it.
     *
     * @param grid heights above the geoid in the block's plane; not numbers where unknown
     * @param open holes left unknown
     * @param spanned holes that the operator let be spanned; their heights are reckoned, not measured
     */
    public record Surveyed(HeightGrid grid, List<Hole> open, List<Hole> spanned) {
        public Surveyed {
            open = List.copyOf(open);
            spanned = List.copyOf(spanned);
        }
    }

    /** Where heights come from; asked often, so it remembers what it answered. */
    public interface Source {
        /** The ground of a block and so far beyond its edge. */
        Surveyed over(PlaneBlock block, double bufferM);

        /** Height of one place above the geoid, read from the model itself and not from a grid made of it; not a number where unknown. */
        double heightM(LonLat at);

        /** The same source with holes up to so wide spanned from their rims, as the operator consents; see {@link Holes}. */
        Source spanning(double widestM);
    }
}

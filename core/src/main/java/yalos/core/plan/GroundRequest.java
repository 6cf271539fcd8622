package yalos.core.plan;

import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.height.HeightChoice;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.terrain.HeightGrid;

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
    public static final Source LEVEL = (block, buffer) -> {
        double[] bounds = block.bounds();
        double west = (bounds[0] + bounds[1]) / 2 - LEVEL_CELL_M;
        double north = (bounds[2] + bounds[3]) / 2 + LEVEL_CELL_M;
        return HeightGrid.level(west, north, LEVEL_CELL_M, 2, 2, 0);
    };

    public GroundRequest {
        obstacles = List.copyOf(obstacles);
        zones = List.copyOf(zones);
    }

    /** Whether no heights are known: the plan stands on level ground, and heights count from the take-off. */
    public boolean isLevel() {
        return source == LEVEL;
    }

    /** Where heights come from; asked often, so it remembers what it answered. */
    public interface Source {
        /** Heights above the geoid over a block and so far beyond its edge, in the block's plane; not numbers where unknown. */
        HeightGrid over(PlaneBlock block, double bufferM);
    }
}

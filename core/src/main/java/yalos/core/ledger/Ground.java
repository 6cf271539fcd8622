package yalos.core.ledger;

import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.path.HeightChoice;
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
public record Ground(
        Source source, HeightChoice choice, List<Obstacle> obstacles, List<Zone> zones, OptionalDouble takeOffLevelM) {
    public Ground {
        obstacles = List.copyOf(obstacles);
        zones = List.copyOf(zones);
    }

    /** Where heights come from; asked often, so it remembers what it answered. */
    public interface Source {
        /** Heights above the geoid over a block and so far beyond its edge, in the block's plane; not numbers where unknown. */
        HeightGrid over(PlaneBlock block, double bufferM);
    }
}

package yalos.core.height;

import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.terrain.HeightGrid;

/** The ground within the block: least, mean and greatest height above the geoid. */
public record Relief(double leastM, double meanM, double mostM) {
    /** From the lowest to the highest, in metres. */
    public double rangeM() {
        return mostM - leastM;
    }

    /** Of the ground within a block as far as it is known; empty where none of it is. */
    public static Optional<Relief> of(HeightGrid grid, PlaneBlock block) {
        double least = Double.MAX_VALUE;
        double most = -Double.MAX_VALUE;
        double sum = 0;
        long count = 0;
        boolean[] inside =
                block.inside(grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows());
        for (int i = 0; i < inside.length; i++) {
            if (inside[i]) {
                float height = grid.heights()[i];
                if (Float.isNaN(height)) {
                    continue;
                }
                least = Math.min(least, height);
                most = Math.max(most, height);
                sum += height;
                count++;
            }
        }
        return count == 0 ? Optional.empty() : Optional.of(new Relief(least, sum / count, most));
    }
}

package yalos.core.surface;

import java.util.Arrays;
import java.util.List;
import yalos.core.site.Solid;

/**
 * Boxes as what stands in the way. A line that only touches a box is not blocked by it, so a cell on a face is not hidden by the box it
 * belongs to; from behind it is, as from anywhere else.
 */
public final class SolidOccluder implements Occluder {
    /** Less of a line than this inside a box is touching, in shares of the line. */
    private static final double TOUCH = 1e-9;

    private final Block[] blocks;

    public SolidOccluder(List<Solid> solids) {
        blocks = solids.stream().map(Block::new).toArray(Block[]::new);
    }

    @Override
    public Sight towards(Box from, double eyeX, double eyeY, double eyeZ) {
        Block[] between = Arrays.stream(blocks)
                .filter(block -> block.reaches(from, eyeX, eyeY, eyeZ))
                .toArray(Block[]::new);
        return between.length == 0
                ? Sight.FREE
                : (x, y, z) -> {
                    for (Block block : between) {
                        if (block.blocks(x, y, z, eyeX, eyeY, eyeZ)) {
                            return false;
                        }
                    }
                    return true;
                };
    }

    /** A solid with its axes worked out. */
    private static final class Block {
        private final double x;
        private final double y;
        private final double bottom;
        private final double top;
        private final double sin;
        private final double cos;
        private final double halfLength;
        private final double halfWidth;
        private final double reach;

        Block(Solid solid) {
            x = solid.middle().xM();
            y = solid.middle().yM();
            bottom = solid.bottomM();
            top = solid.topM();
            sin = Math.sin(solid.axisRad());
            cos = Math.cos(solid.axisRad());
            halfLength = solid.lengthM() / 2;
            halfWidth = solid.widthM() / 2;
            reach = Math.hypot(halfLength, halfWidth);
        }

        /** Whether any line from the box to the eye may come near; by boxes along the axes. */
        boolean reaches(Box from, double eyeX, double eyeY, double eyeZ) {
            return Math.min(from.minX(), eyeX) <= x + reach
                    && Math.max(from.maxX(), eyeX) >= x - reach
                    && Math.min(from.minY(), eyeY) <= y + reach
                    && Math.max(from.maxY(), eyeY) >= y - reach
                    && Math.min(from.minZ(), eyeZ) <= top
                    && Math.max(from.maxZ(), eyeZ) >= bottom;
        }

        /** By slabs: the line is inside the box where it is between all three pairs of faces. */
        boolean blocks(double fromX, double fromY, double fromZ, double toX, double toY, double toZ) {
            double along = (fromX - x) * sin + (fromY - y) * cos;
            double aside = (fromX - x) * cos - (fromY - y) * sin;
            double runAlong = (toX - fromX) * sin + (toY - fromY) * cos;
            double runAside = (toX - fromX) * cos - (toY - fromY) * sin;
            double enter = 0;
            double leave = 1;
            double[] starts = {along + halfLength, aside + halfWidth, fromZ - bottom};
            double[] runs = {runAlong, runAside, toZ - fromZ};
            double[] wides = {2 * halfLength, 2 * halfWidth, top - bottom};
            for (int i = 0; i < 3; i++) {
                if (runs[i] == 0) {
                    if (starts[i] <= 0 || starts[i] >= wides[i]) {
                        return false;
                    }
                    continue;
                }
                double first = -starts[i] / runs[i];
                double second = (wides[i] - starts[i]) / runs[i];
                enter = Math.max(enter, Math.min(first, second));
                leave = Math.min(leave, Math.max(first, second));
            }
            return leave - enter > TOUCH;
        }
    }
}

package yalos.core.surface;

import java.util.Arrays;
import java.util.List;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;

/**
 * Solids with upright walls as what stands in the way, bent plans too: a wing of a building hides another. A line that only touches a solid is not
 * blocked by it, so a cell on a wall is not hidden by its own solid unless that bends round before it.
 */
public final class PrismOccluder implements Occluder {
    /** Less of a line than this within a solid is touching, in shares of the line. */
    private static final double TOUCH = 1e-9;

    private final Block[] blocks;

    public PrismOccluder(List<Prism> solids) {
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

    private static final class Block {
        private final Prism prism;
        private final double[] xs;
        private final double[] ys;
        private final double minX;
        private final double maxX;
        private final double minY;
        private final double maxY;

        Block(Prism prism) {
            this.prism = prism;
            xs = prism.ring().stream().mapToDouble(PlanePoint::xM).toArray();
            ys = prism.ring().stream().mapToDouble(PlanePoint::yM).toArray();
            minX = Arrays.stream(xs).min().orElseThrow();
            maxX = Arrays.stream(xs).max().orElseThrow();
            minY = Arrays.stream(ys).min().orElseThrow();
            maxY = Arrays.stream(ys).max().orElseThrow();
        }

        /** Whether any line from the box to the eye may come near, by boxes along the axes. */
        boolean reaches(Box from, double eyeX, double eyeY, double eyeZ) {
            return Math.min(from.minX(), eyeX) <= maxX
                    && Math.max(from.maxX(), eyeX) >= minX
                    && Math.min(from.minY(), eyeY) <= maxY
                    && Math.max(from.maxY(), eyeY) >= minY
                    && Math.min(from.minZ(), eyeZ) <= prism.topM()
                    && Math.max(from.maxZ(), eyeZ) >= prism.bottomM();
        }

        /** The line is cut to the heights of the solid, then at every wall; it is blocked where a piece of it lies within the plan. */
        boolean blocks(double fromX, double fromY, double fromZ, double toX, double toY, double toZ) {
            double enter = 0;
            double leave = 1;
            double rise = toZ - fromZ;
            if (rise == 0) {
                if (fromZ <= prism.bottomM() || fromZ >= prism.topM()) {
                    return false;
                }
            } else {
                double first = (prism.bottomM() - fromZ) / rise;
                double second = (prism.topM() - fromZ) / rise;
                enter = Math.max(enter, Math.min(first, second));
                leave = Math.min(leave, Math.max(first, second));
            }
            if (leave - enter <= TOUCH) {
                return false;
            }
            double runX = toX - fromX;
            double runY = toY - fromY;
            double[] cuts = new double[xs.length + 2];
            int count = 0;
            cuts[count++] = enter;
            for (int i = 0; i < xs.length; i++) {
                int next = i + 1 == xs.length ? 0 : i + 1;
                double wallX = xs[next] - xs[i];
                double wallY = ys[next] - ys[i];
                double cross = runX * wallY - runY * wallX;
                if (cross == 0) {
                    continue;
                }
                double aheadX = xs[i] - fromX;
                double aheadY = ys[i] - fromY;
                double along = (aheadX * wallY - aheadY * wallX) / cross;
                double across = (aheadX * runY - aheadY * runX) / cross;
                if (along > enter && along < leave && across >= -1e-12 && across <= 1 + 1e-12) {
                    cuts[count++] = along;
                }
            }
            cuts[count++] = leave;
            Arrays.sort(cuts, 0, count);
            for (int i = 1; i < count; i++) {
                double middle = (cuts[i] + cuts[i - 1]) / 2;
                if (cuts[i] - cuts[i - 1] > TOUCH && within(fromX + middle * runX, fromY + middle * runY)) {
                    return true;
                }
            }
            return false;
        }

        /** Strictly within the plan: a line that runs along a wall touches it. */
        private boolean within(double x, double y) {
            boolean inside = false;
            for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
                double wallX = xs[j] - xs[i];
                double wallY = ys[j] - ys[i];
                double aside = wallX * (y - ys[i]) - wallY * (x - xs[i]);
                double ahead = wallX * (x - xs[i]) + wallY * (y - ys[i]);
                double square = wallX * wallX + wallY * wallY;
                if (aside * aside <= 1e-18 * square && ahead >= 0 && ahead <= square) {
                    return false;
                }
                if ((ys[i] > y) != (ys[j] > y) && x < wallX * (y - ys[i]) / wallY + xs[i]) {
                    inside = !inside;
                }
            }
            return inside;
        }
    }
}

package yalos.core.surface;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;

/**
 * Solids with upright walls as what stands in the way, bent plans too: a wing of a building hides another. A line that only touches a solid is not
 * blocked by it, so a cell on a wall is not hidden by its own solid unless that bends round before it.
 */
public final class PrismOccluder implements Occluder {
    /** Less of a line than this within a solid is touching, in shares of the line. */
    private static final double TOUCH = 1e-9;

    /** Before a wall, or on it but for rounding. */
    private static final double ON_M = -1e-9;

    private final Block[] blocks;

    public PrismOccluder(List<Prism> solids) {
        blocks = solids.stream().map(Block::new).toArray(Block[]::new);
    }

    @Override
    public Sight towards(Box from, double eyeX, double eyeY, double eyeZ) {
        return towards(from, from.hull(), eyeX, eyeY, eyeZ);
    }

    @Override
    public Sight towards(Box from, double[] hull, double eyeX, double eyeY, double eyeZ) {
        Seen[] between = Arrays.stream(blocks)
                .filter(block -> block.reaches(from, eyeX, eyeY, eyeZ) && !block.behind(hull, eyeX, eyeY))
                .map(block -> new Seen(block, from, eyeX, eyeY, eyeZ))
                .toArray(Seen[]::new);
        return between.length == 0
                ? Sight.FREE
                : (x, y, z) -> {
                    for (Seen block : between) {
                        if (block.blocks(x, y, z)) {
                            return false;
                        }
                    }
                    return true;
                };
    }

    /**
     * A solid as one eye sees it. Where all of it lies behind a wall, places before that wall are never hidden from an eye before it; walls near the
     * places asked for are looked at first, for these lie on one of them mostly.
     */
    private static final class Seen {
        private final Block block;
        private final double eyeX;
        private final double eyeY;
        private final double eyeZ;
        private final int[] before;

        Seen(Block block, Box places, double eyeX, double eyeY, double eyeZ) {
            this.block = block;
            this.eyeX = eyeX;
            this.eyeY = eyeY;
            this.eyeZ = eyeZ;
            double x = (places.minX() + places.maxX()) / 2;
            double y = (places.minY() + places.maxY()) / 2;
            this.before = IntStream.range(0, block.xs.length)
                    .filter(wall -> block.bounds[wall] && block.beforeM(wall, eyeX, eyeY) >= 0)
                    .boxed()
                    .sorted(Comparator.comparingDouble(wall -> Math.abs(block.beforeM(wall, x, y))))
                    .mapToInt(Integer::intValue)
                    .toArray();
        }

        boolean blocks(double x, double y, double z) {
            for (int wall : before) {
                if (block.beforeM(wall, x, y) >= ON_M) {
                    return false;
                }
            }
            return block.blocks(x, y, z, eyeX, eyeY, eyeZ);
        }
    }

    private static final class Block {
        private final Prism prism;
        private final double[] xs;
        private final double[] ys;
        private final double minX;
        private final double maxX;
        private final double minY;
        private final double maxY;
        /** Outward direction of each wall. */
        private final double[] outX;

        private final double[] outY;
        /** Whether all of the solid lies behind a wall; so it is with all walls of a plan without bends inward. */
        private final boolean[] bounds;

        Block(Prism prism) {
            this.prism = prism;
            xs = prism.ring().stream().mapToDouble(PlanePoint::xM).toArray();
            ys = prism.ring().stream().mapToDouble(PlanePoint::yM).toArray();
            minX = Arrays.stream(xs).min().orElseThrow();
            maxX = Arrays.stream(xs).max().orElseThrow();
            minY = Arrays.stream(ys).min().orElseThrow();
            maxY = Arrays.stream(ys).max().orElseThrow();
            outX = new double[xs.length];
            outY = new double[xs.length];
            bounds = new boolean[xs.length];
            for (int wall = 0; wall < xs.length; wall++) {
                double facing = prism.facingRad(wall);
                outX[wall] = Math.sin(facing);
                outY[wall] = Math.cos(facing);
                int one = wall;
                bounds[wall] = IntStream.range(0, xs.length).allMatch(i -> beforeM(one, xs[i], ys[i]) <= 1e-9);
            }
        }

        /** How far a place lies before a wall; behind it where negative. */
        double beforeM(int wall, double x, double y) {
            return (x - xs[wall]) * outX[wall] + (y - ys[wall]) * outY[wall];
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

        /** Whether all of it lies behind one of its walls, and all places and the eye before that wall: it hides none of them then. */
        boolean behind(double[] hull, double eyeX, double eyeY) {
            for (int wall = 0; wall < xs.length; wall++) {
                if (bounds[wall] && beforeM(wall, eyeX, eyeY) >= 0 && allBefore(wall, hull)) {
                    return true;
                }
            }
            return false;
        }

        private boolean allBefore(int wall, double[] hull) {
            for (int i = 0; i < hull.length; i += 2) {
                if (beforeM(wall, hull[i], hull[i + 1]) < ON_M) {
                    return false;
                }
            }
            return true;
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

package yalos.core.proof;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import yalos.core.flight.Exposure;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/**
 * What every cell of the ground is given by a set of photos: how many see it, with and without what stands in the way, how
 * finely, from how different directions, and how accurately it can be measured.
 *
 * <p>Every cell's centre at its own height is projected into every photo near it by the pinhole model, and the ray back to the
 * camera is followed over the bilinear surface ({@link SightLine}) unless no ground between is steep enough to block it
 * ({@link Steepness}). The ground is worked through in tiles, each with the few photos that can see it, on all processors. Work
 * grows with what is seen, memory with the cells.
 */
public final class GroundProof implements CountGrid {
    /** What can be asked for. Photos with occlusion are always counted. */
    public enum Layer {
        /** Photos that would see the cell if nothing stood in the way. */
        COUNT_WITHOUT_OCCLUSION,
        /** Best and mean GSD: depth × pitch / focal length, in metres. */
        GSD,
        /** Largest angle between two rays that see the cell, in radians. */
        ANGLE,
        /** Lines from which the cell is seen, each counted once whatever the order of the photos. */
        STRIPS,
        /** Expected accuracy by {@link Intersection}, shared errors added. */
        ACCURACY
    }

    /** Told how the work goes; may call it off. */
    public interface Watcher {
        /**
         * @param share of the work that is done, 0..1
         * @return whether to go on
         */
        boolean goOn(double share);
    }

    private static final int TILE = Steepness.TILE;

    private final HeightGrid grid;
    private final boolean[] asked;
    private final short[] counts;
    private final short[] countsWithout;
    private final float[] gsdBest;
    private final float[] gsdMean;
    private final float[] angles;
    private final short[] strips;
    private final float[] sigmaHorizontal;
    private final float[] sigmaVertical;

    private GroundProof(HeightGrid grid, boolean[] asked, Set<Layer> layers) {
        int cells = grid.columns() * grid.rows();
        this.grid = grid;
        this.asked = asked;
        counts = new short[cells];
        countsWithout = new short[layers.contains(Layer.COUNT_WITHOUT_OCCLUSION) ? cells : 0];
        gsdBest = new float[layers.contains(Layer.GSD) ? cells : 0];
        gsdMean = new float[layers.contains(Layer.GSD) ? cells : 0];
        angles = new float[layers.contains(Layer.ANGLE) ? cells : 0];
        strips = new short[layers.contains(Layer.STRIPS) ? cells : 0];
        sigmaHorizontal = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
        sigmaVertical = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
    }

    /**
     * @param grid the ground, in the frame of the poses
     * @param asked cells that are asked for, row by row from the north; empty for all
     * @param photos in any order, each through its own lens
     * @param watcher told after each tile
     * @throws CancellationException when the watcher called it off
     */
    public static GroundProof of(
            HeightGrid grid, boolean[] asked, List<Exposure> photos, Noise noise, Set<Layer> layers, Watcher watcher) {
        Set<Layer> wanted = layers.isEmpty() ? EnumSet.noneOf(Layer.class) : EnumSet.copyOf(layers);
        GroundProof proof = new GroundProof(grid, asked, wanted);
        new Work(proof, photos, noise, watcher).run();
        return proof;
    }

    /** Everything at once, unwatched. */
    public static GroundProof of(HeightGrid grid, List<Exposure> photos, Noise noise) {
        return of(grid, new boolean[0], photos, noise, EnumSet.allOf(Layer.class), share -> true);
    }

    /** One run over all tiles. */
    private static final class Work {
        private final GroundProof proof;
        private final HeightGrid grid;
        private final CameraFrame[] frames;
        /** Lines are numbered anew, from 0, so that a small array can mark them. */
        private final int[] lineOf;

        private final int lines;
        private final double[][] boxes;
        private final Noise noise;
        private final Steepness steepness;
        private final SightLine sight;
        private final Watcher watcher;
        private final AtomicInteger done = new AtomicInteger();

        Work(GroundProof proof, List<Exposure> photos, Noise noise, Watcher watcher) {
            this.proof = proof;
            this.grid = proof.grid;
            this.noise = noise;
            this.watcher = watcher;
            this.steepness = new Steepness(grid);
            this.sight = SightLine.forManyRays(grid);
            double[] range = grid.range();
            frames = new CameraFrame[photos.size()];
            lineOf = new int[photos.size()];
            Map<Integer, Integer> numbers = new HashMap<>();
            boxes = new double[photos.size()][];
            for (int i = 0; i < photos.size(); i++) {
                frames[i] = new CameraFrame(photos.get(i).pose(), photos.get(i).lens());
                lineOf[i] = numbers.computeIfAbsent(photos.get(i).line(), line -> numbers.size());
                boxes[i] = frames[i].box(range[0], range[1]);
            }
            lines = numbers.size();
        }

        void run() {
            int tiles = steepness.across() * steepness.down();
            IntStream.range(0, tiles).parallel().forEach(tile -> {
                tile(tile % steepness.across(), tile / steepness.across());
                if (!watcher.goOn((double) done.incrementAndGet() / tiles)) {
                    throw new CancellationException("called off");
                }
            });
        }

        private void tile(int tileColumn, int tileRow) {
            int fromColumn = tileColumn * TILE;
            int toColumn = Math.min(grid.columns(), fromColumn + TILE);
            int fromRow = tileRow * TILE;
            int toRow = Math.min(grid.rows(), fromRow + TILE);
            int[] near = near(fromColumn, toColumn, fromRow, toRow, tileColumn, tileRow);
            boolean[] free = new boolean[near.length];
            double[] overTop = new double[near.length];
            for (int i = 0; i < near.length; i++) {
                overTop[i] = look(frames[near[i]], tileColumn, tileRow);
                free[i] = overTop[i] == Double.NEGATIVE_INFINITY;
            }
            Cell cell = new Cell(this, near, free, overTop);
            for (int row = fromRow; row < toRow; row++) {
                for (int column = fromColumn; column < toColumn; column++) {
                    cell.look(column, row);
                }
            }
        }

        /** Photos whose box meets the tile, over all heights first, then over those of the tile. */
        private int[] near(int fromColumn, int toColumn, int fromRow, int toRow, int tileColumn, int tileRow) {
            double low = steepness.lowest(tileColumn, tileRow);
            double high = steepness.highest(tileColumn, tileColumn, tileRow, tileRow);
            if (low > high) {
                return new int[0];
            }
            double west = grid.x(fromColumn);
            double east = grid.x(toColumn - 1);
            double north = grid.y(fromRow);
            double south = grid.y(toRow - 1);
            int[] near = new int[frames.length];
            int count = 0;
            for (int i = 0; i < frames.length; i++) {
                if (meets(boxes[i], west, east, south, north)
                        && meets(frames[i].box(low, high), west, east, south, north)) {
                    near[count++] = i;
                }
            }
            return Arrays.copyOf(near, count);
        }

        private static boolean meets(double[] box, double west, double east, double south, double north) {
            return box[0] <= east && box[1] >= west && box[2] <= north && box[3] >= south;
        }

        /**
         * Height over which nothing stands between tile and camera; minus infinity when no ray from the tile can be blocked at
         * all.
         */
        private double look(CameraFrame frame, int tileColumn, int tileRow) {
            int cameraColumn = tileOf((frame.east - grid.west()) / grid.cellX(), steepness.across());
            int cameraRow = tileOf((grid.north() - frame.north) / grid.cellY(), steepness.down());
            int c0 = Math.max(0, Math.min(tileColumn, cameraColumn) - 1);
            int c1 = Math.min(steepness.across() - 1, Math.max(tileColumn, cameraColumn) + 1);
            int r0 = Math.max(0, Math.min(tileRow, cameraRow) - 1);
            int r1 = Math.min(steepness.down() - 1, Math.max(tileRow, cameraRow) + 1);
            double top = steepness.highest(tileColumn, tileColumn, tileRow, tileRow);
            double farX = Math.max(
                    Math.abs(frame.east - grid.x(tileColumn * TILE)),
                    Math.abs(frame.east - grid.x(Math.min(grid.columns() - 1, tileColumn * TILE + TILE - 1))));
            double farY = Math.max(
                    Math.abs(frame.north - grid.y(tileRow * TILE)),
                    Math.abs(frame.north - grid.y(Math.min(grid.rows() - 1, tileRow * TILE + TILE - 1))));
            double rise = (frame.up - top) / Math.max(1e-9, Math.hypot(farX, farY));
            if (rise > steepness.steepest(c0, c1, r0, r1)) {
                return Double.NEGATIVE_INFINITY;
            }
            return steepness.highest(c0, c1, r0, r1);
        }

        private static int tileOf(double cell, int tiles) {
            return (int) Math.max(0, Math.min(tiles - 1.0, Math.floor(cell / TILE)));
        }
    }

    /** Looks at one cell after the other of a tile. */
    private static final class Cell {
        private final Work work;
        private final GroundProof proof;
        private final HeightGrid grid;
        private final int[] near;
        private final boolean[] free;
        private final double[] overTop;
        private final SightLine sight;
        private final double[] rays;
        private final double[] normal = new double[6];
        /** Cell in which a line was last seen to show it. */
        private final int[] stamps;

        private int stamp;

        Cell(Work work, int[] near, boolean[] free, double[] overTop) {
            this.work = work;
            this.proof = work.proof;
            this.grid = work.grid;
            this.near = near;
            this.free = free;
            this.overTop = overTop;
            this.sight = work.sight;
            this.rays = new double[proof.angles.length > 0 ? 3 * near.length : 0];
            this.stamps = new int[work.lines];
        }

        void look(int column, int row) {
            int at = row * grid.columns() + column;
            float ground = grid.heights()[at];
            boolean wanted = proof.asked.length == 0 || proof.asked[at];
            int seen = 0;
            int without = 0;
            double best = Double.POSITIVE_INFINITY;
            double sum = 0;
            int strips = 0;
            stamp++;
            boolean accuracy = proof.sigmaVertical.length > 0;
            if (accuracy) {
                Arrays.fill(normal, 0);
            }
            if (wanted && !Float.isNaN(ground)) {
                double x = grid.x(column);
                double y = grid.y(row);
                for (int i = 0; i < near.length; i++) {
                    CameraFrame frame = work.frames[near[i]];
                    double de = x - frame.east;
                    double dn = y - frame.north;
                    double du = ground - frame.up;
                    double depth = frame.axisE * de + frame.axisN * dn + frame.axisU * du;
                    if (depth <= 0) {
                        continue;
                    }
                    double right = frame.rightE * de + frame.rightN * dn + frame.rightU * du;
                    double u = frame.fx * right / depth + frame.cx;
                    if (u < 0 || u >= frame.width) {
                        continue;
                    }
                    double down = frame.downE * de + frame.downN * dn + frame.downU * du;
                    double v = frame.fy * down / depth + frame.cy;
                    if (v < 0 || v >= frame.height) {
                        continue;
                    }
                    without++;
                    if (!free[i] && !clear(x, y, ground, frame, overTop[i])) {
                        continue;
                    }
                    if (rays.length > 0) {
                        double length = Math.sqrt(de * de + dn * dn + du * du);
                        rays[3 * seen] = de / length;
                        rays[3 * seen + 1] = dn / length;
                        rays[3 * seen + 2] = du / length;
                    }
                    seen++;
                    double gsd = depth * frame.gsdPerDepth;
                    best = Math.min(best, gsd);
                    sum += gsd;
                    int line = work.lineOf[near[i]];
                    if (stamps[line] != stamp) {
                        stamps[line] = stamp;
                        strips++;
                    }
                    if (accuracy) {
                        Intersection.add(normal, frame, right, down, depth, work.noise);
                    }
                }
            }
            keep(at, seen, without, best, sum, strips);
        }

        /** The ray is followed only until it is over everything that could block it. */
        private boolean clear(double x, double y, double ground, CameraFrame frame, double top) {
            double whole = frame.up - ground;
            double share = whole > 0 ? Math.min(1, (top - ground) / whole + 1e-9) : 1;
            if (share <= 0) {
                return true;
            }
            return sight.clear(
                    x, y, ground, x + share * (frame.east - x), y + share * (frame.north - y), ground + share * whole);
        }

        private void keep(int at, int seen, int without, double best, double sum, int strips) {
            proof.counts[at] = (short) Math.min(Short.MAX_VALUE, seen);
            if (proof.countsWithout.length > 0) {
                proof.countsWithout[at] = (short) Math.min(Short.MAX_VALUE, without);
            }
            if (proof.gsdBest.length > 0) {
                proof.gsdBest[at] = seen == 0 ? Float.NaN : (float) best;
                proof.gsdMean[at] = seen == 0 ? Float.NaN : (float) (sum / seen);
            }
            if (proof.strips.length > 0) {
                proof.strips[at] = (short) strips;
            }
            if (proof.angles.length > 0) {
                proof.angles[at] = seen < 2 ? Float.NaN : (float) largestAngle(seen);
            }
            if (proof.sigmaVertical.length > 0) {
                accuracy(at, seen);
            }
        }

        private void accuracy(int at, int seen) {
            var covariance = seen < 2 ? Optional.<Intersection.Covariance>empty() : Intersection.inverted(normal);
            Noise noise = work.noise;
            proof.sigmaHorizontal[at] = covariance
                    .map(c -> (float) Math.hypot(c.sigmaHorizontalM(), noise.sharedHorizontalM() * Math.sqrt(2)))
                    .orElse(Float.NaN);
            proof.sigmaVertical[at] = covariance
                    .map(c -> (float) Math.hypot(c.sigmaUpM(), noise.sharedVerticalM()))
                    .orElse(Float.NaN);
        }

        /** By the least cosine over all pairs. */
        private double largestAngle(int seen) {
            double least = 1;
            for (int i = 0; i < seen; i++) {
                double x = rays[3 * i];
                double y = rays[3 * i + 1];
                double z = rays[3 * i + 2];
                for (int j = i + 1; j < seen; j++) {
                    double cosine = x * rays[3 * j] + y * rays[3 * j + 1] + z * rays[3 * j + 2];
                    if (cosine < least) {
                        least = cosine;
                    }
                }
            }
            return Math.acos(Math.max(-1, least));
        }
    }

    public HeightGrid grid() {
        return grid;
    }

    /** Photos that see each cell, row by row from the north. */
    public short[] counts() {
        return counts;
    }

    public short[] countsWithoutOcclusion() {
        return countsWithout;
    }

    public float[] gsdBestM() {
        return gsdBest;
    }

    public float[] gsdMeanM() {
        return gsdMean;
    }

    public float[] anglesRad() {
        return angles;
    }

    public short[] stripCounts() {
        return strips;
    }

    public float[] sigmaHorizontalM() {
        return sigmaHorizontal;
    }

    public float[] sigmaVerticalM() {
        return sigmaVertical;
    }

    /** Index of a cell in the layers, rows counting from the south as {@link CountGrid} has them. */
    public int index(int column, int row) {
        return (grid.rows() - 1 - row) * grid.columns() + column;
    }

    @Override
    public int columns() {
        return grid.columns();
    }

    @Override
    public int rows() {
        return grid.rows();
    }

    @Override
    public double cellM() {
        return grid.cellX();
    }

    @Override
    public double westM() {
        return grid.west();
    }

    @Override
    public double southM() {
        return grid.south();
    }

    @Override
    public int at(int column, int row) {
        return counts[index(column, row)];
    }

    @Override
    public boolean inside(int column, int row) {
        int at = index(column, row);
        return (asked.length == 0 || asked[at]) && !Float.isNaN(grid.heights()[at]);
    }

    @Override
    public double x(int column) {
        return grid.x(column);
    }

    @Override
    public double y(int row) {
        return grid.y(grid.rows() - 1 - row);
    }
}

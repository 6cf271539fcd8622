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
import yalos.core.surface.Box;
import yalos.core.surface.Occluder;
import yalos.core.surface.Surface;

/**
 * What every cell of a surface is given by a set of photos.
 *
 * <p>Every cell is projected into every photo near it by the pinhole model, without distortion, and is seen where nothing stands between.
 * A one-sided surface is seen from its front. The surface is worked through in tiles, each with the few photos that can see it, on all
 * processors. Work grows with what is seen, memory with the cells: 2 bytes a cell for each count, 4 for each other layer.
 *
 * <pre>{@code
 * SurfaceProof wall = SurfaceProof.of(Face.of(house, Face.Side.FRONT, 0.5), new boolean[0],
 *         new SolidOccluder(houses), photos, Noise.ofImage(0.5), Set.of(Layer.GSD), share -> true);
 * }</pre>
 */
public final class SurfaceProof {
    /** What can be asked for. Photos with what stands in the way are always counted. */
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
        ACCURACY,
        /** Smallest angle between the cell's normal and a ray that sees it, in radians; asked of walls rather than of ground. */
        INCIDENCE;

        /** All that is shown of ground. */
        public static Set<Layer> ofGround() {
            return EnumSet.complementOf(EnumSet.of(INCIDENCE));
        }
    }

    /** Told how the work goes; may call it off. */
    public interface Watcher {
        /**
         * @param share of the work that is done, 0..1
         * @return whether to go on
         */
        boolean goOn(double share);
    }

    /** Cells in a tile's side, at most and at least: all that some photos see of a tile is asked of those photos alone. */
    private static final int LARGEST_TILE = 32;

    private static final int SMALLEST_TILE = 4;

    private final short[] counts;
    private final short[] countsWithout;
    private final float[] gsdBest;
    private final float[] gsdMean;
    private final float[] angles;
    private final short[] lines;
    private final float[] sigmaHorizontal;
    private final float[] sigmaVertical;
    private final float[] incidence;

    private SurfaceProof(int cells, Set<Layer> layers) {
        counts = new short[cells];
        countsWithout = new short[layers.contains(Layer.COUNT_WITHOUT_OCCLUSION) ? cells : 0];
        gsdBest = new float[layers.contains(Layer.GSD) ? cells : 0];
        gsdMean = new float[layers.contains(Layer.GSD) ? cells : 0];
        angles = new float[layers.contains(Layer.ANGLE) ? cells : 0];
        lines = new short[layers.contains(Layer.STRIPS) ? cells : 0];
        sigmaHorizontal = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
        sigmaVertical = new float[layers.contains(Layer.ACCURACY) ? cells : 0];
        incidence = new float[layers.contains(Layer.INCIDENCE) ? cells : 0];
    }

    /**
     * @param surface in the frame of the poses
     * @param asked cells that are asked for, row by row; empty for all
     * @param occluder what stands in the way
     * @param photos in any order, each through its own lens
     * @param watcher told after each tile
     * @throws CancellationException when the watcher called it off
     */
    public static SurfaceProof of(
            Surface surface,
            boolean[] asked,
            Occluder occluder,
            List<Exposure> photos,
            Noise noise,
            Set<Layer> layers,
            Watcher watcher) {
        SurfaceProof proof = new SurfaceProof(surface.columns() * surface.rows(), layers);
        new Work(proof, surface, asked, occluder, photos, noise, watcher).run();
        return proof;
    }

    /** One run over all tiles. */
    private static final class Work {
        private final SurfaceProof proof;
        private final Surface surface;
        private final boolean[] asked;
        private final Occluder occluder;
        private final CameraFrame[] frames;
        /** Lines are numbered anew, from 0, so that a small array can mark them. */
        private final int[] lineOf;

        private final int lines;
        private final int tile;
        private final double[][] boxes;
        private final Noise noise;
        private final Watcher watcher;
        private final AtomicInteger done = new AtomicInteger();

        Work(
                SurfaceProof proof,
                Surface surface,
                boolean[] asked,
                Occluder occluder,
                List<Exposure> photos,
                Noise noise,
                Watcher watcher) {
            this.proof = proof;
            this.surface = surface;
            this.asked = asked;
            this.occluder = occluder;
            this.noise = noise;
            this.watcher = watcher;
            Box all = surface.box(0, surface.columns(), 0, surface.rows());
            frames = new CameraFrame[photos.size()];
            lineOf = new int[photos.size()];
            boxes = new double[photos.size()][];
            Map<Integer, Integer> numbers = new HashMap<>();
            for (int i = 0; i < photos.size(); i++) {
                frames[i] = new CameraFrame(photos.get(i).pose(), photos.get(i).lens());
                lineOf[i] = numbers.computeIfAbsent(photos.get(i).line(), line -> numbers.size());
                boxes[i] = frames[i].box(all.minZ(), all.maxZ());
            }
            lines = numbers.size();
            tile = tileFor(all);
        }

        /** About a third of what a photo shows: larger ones ask too many photos, smaller ones choose them too often. */
        private int tileFor(Box all) {
            double cell = Math.max(
                    (all.maxX() - all.minX()) / Math.max(1, surface.columns() - 1),
                    (all.maxY() - all.minY()) / Math.max(1, surface.rows() - 1));
            double shown = Arrays.stream(boxes)
                    .mapToDouble(box -> Math.min(box[1] - box[0], box[3] - box[2]))
                    .filter(Double::isFinite)
                    .average()
                    .orElse(Double.POSITIVE_INFINITY);
            double wanted = shown / 3 / cell;
            return wanted < LARGEST_TILE ? (int) Math.max(SMALLEST_TILE, wanted) : LARGEST_TILE;
        }

        void run() {
            int across = (surface.columns() + tile - 1) / tile;
            int tiles = across * ((surface.rows() + tile - 1) / tile);
            IntStream.range(0, tiles).parallel().forEach(number -> {
                tile(number % across, number / across);
                if (!watcher.goOn((double) done.incrementAndGet() / tiles)) {
                    throw new CancellationException("called off");
                }
            });
        }

        private void tile(int tileColumn, int tileRow) {
            int fromColumn = tileColumn * tile;
            int toColumn = Math.min(surface.columns(), fromColumn + tile);
            int fromRow = tileRow * tile;
            int toRow = Math.min(surface.rows(), fromRow + tile);
            Box box = surface.box(fromColumn, toColumn, fromRow, toRow);
            int[] near = near(box);
            Occluder.Sight[] sights = new Occluder.Sight[near.length];
            for (int i = 0; i < near.length; i++) {
                CameraFrame frame = frames[near[i]];
                sights[i] = occluder.towards(box, frame.east, frame.north, frame.up);
            }
            Cell cell = new Cell(this, near, sights);
            for (int row = fromRow; row < toRow; row++) {
                for (int column = fromColumn; column < toColumn; column++) {
                    cell.look(column, row);
                }
            }
        }

        /** Photos that can see some of the tile: by the ground their frames hold first, then by the frames themselves. */
        private int[] near(Box tile) {
            if (tile.isEmpty()) {
                return new int[0];
            }
            int[] near = new int[frames.length];
            int count = 0;
            for (int i = 0; i < frames.length; i++) {
                if (meets(boxes[i], tile) && frames[i].mayHold(tile)) {
                    near[count++] = i;
                }
            }
            return Arrays.copyOf(near, count);
        }

        private static boolean meets(double[] box, Box tile) {
            return box[0] <= tile.maxX() && box[1] >= tile.minX() && box[2] <= tile.maxY() && box[3] >= tile.minY();
        }
    }

    /** Looks at one cell after the other of a tile. */
    private static final class Cell {
        private final Work work;
        private final SurfaceProof proof;
        private final int[] near;
        private final Occluder.Sight[] sights;
        private final boolean oneSided;
        private final boolean normals;
        private final double[] rays;
        private final double[] place = new double[3];
        private final double[] front = new double[3];
        private final double[] normal = new double[6];
        /** Cell in which a line was last seen to show it. */
        private final int[] stamps;

        private int stamp;

        Cell(Work work, int[] near, Occluder.Sight[] sights) {
            this.work = work;
            this.proof = work.proof;
            this.near = near;
            this.sights = sights;
            this.oneSided = work.surface.oneSided();
            this.normals = oneSided || proof.incidence.length > 0;
            this.rays = new double[proof.angles.length > 0 ? 3 * near.length : 0];
            this.stamps = new int[work.lines];
        }

        void look(int column, int row) {
            int at = row * work.surface.columns() + column;
            work.surface.place(column, row, place);
            double x = place[0];
            double y = place[1];
            double z = place[2];
            int seen = 0;
            int without = 0;
            double best = Double.POSITIVE_INFINITY;
            double sum = 0;
            double steepest = -1;
            int lines = 0;
            stamp++;
            boolean accuracy = proof.sigmaVertical.length > 0;
            if (accuracy) {
                Arrays.fill(normal, 0);
            }
            if (normals) {
                work.surface.normal(column, row, front);
            }
            if ((work.asked.length == 0 || work.asked[at]) && !Double.isNaN(z)) {
                for (int i = 0; i < near.length; i++) {
                    CameraFrame frame = work.frames[near[i]];
                    double de = x - frame.east;
                    double dn = y - frame.north;
                    double du = z - frame.up;
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
                    double facing = normals ? -(front[0] * de + front[1] * dn + front[2] * du) : 1;
                    if (oneSided && facing <= 0) {
                        continue;
                    }
                    without++;
                    if (sights[i] != Occluder.Sight.FREE && !sights[i].clear(x, y, z)) {
                        continue;
                    }
                    if (rays.length > 0) {
                        double length = Math.sqrt(de * de + dn * dn + du * du);
                        rays[3 * seen] = de / length;
                        rays[3 * seen + 1] = dn / length;
                        rays[3 * seen + 2] = du / length;
                    }
                    if (normals) {
                        steepest = Math.max(steepest, facing / Math.sqrt(de * de + dn * dn + du * du));
                    }
                    seen++;
                    double gsd = depth * frame.gsdPerDepth;
                    best = Math.min(best, gsd);
                    sum += gsd;
                    int line = work.lineOf[near[i]];
                    if (stamps[line] != stamp) {
                        stamps[line] = stamp;
                        lines++;
                    }
                    if (accuracy) {
                        Intersection.add(normal, frame, right, down, depth, work.noise);
                    }
                }
            }
            keep(at, seen, without, best, sum, lines);
            if (proof.incidence.length > 0) {
                proof.incidence[at] = seen == 0 ? Float.NaN : (float) Math.acos(Math.min(1, steepest));
            }
        }

        private void keep(int at, int seen, int without, double best, double sum, int lines) {
            proof.counts[at] = (short) Math.min(Short.MAX_VALUE, seen);
            if (proof.countsWithout.length > 0) {
                proof.countsWithout[at] = (short) Math.min(Short.MAX_VALUE, without);
            }
            if (proof.gsdBest.length > 0) {
                proof.gsdBest[at] = seen == 0 ? Float.NaN : (float) best;
                proof.gsdMean[at] = seen == 0 ? Float.NaN : (float) (sum / seen);
            }
            if (proof.lines.length > 0) {
                proof.lines[at] = (short) lines;
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

    /** Photos that see each cell, row by row as the surface has them; so are all layers. */
    public short[] counts() {
        return counts;
    }

    /** Photos that would see each cell if nothing stood in the way. */
    public short[] countsWithoutOcclusion() {
        return countsWithout;
    }

    /** GSD of the photo that sees a cell finest, in metres; not a number where none does. */
    public float[] gsdBestM() {
        return gsdBest;
    }

    /** Mean GSD of the photos that see a cell, in metres; not a number where none does. */
    public float[] gsdMeanM() {
        return gsdMean;
    }

    /** Largest angle between two rays that see a cell, in radians; not a number below two. */
    public float[] anglesRad() {
        return angles;
    }

    /** Lines from which each cell is seen. */
    public short[] lineCounts() {
        return lines;
    }

    /** Expected accuracy of a position in the plane, √(σe² + σn²), in metres; not a number where the rays fix none. */
    public float[] sigmaHorizontalM() {
        return sigmaHorizontal;
    }

    /** Expected accuracy of a height, one standard deviation in metres; not a number where the rays fix none. */
    public float[] sigmaVerticalM() {
        return sigmaVertical;
    }

    /** Smallest angle between a cell's normal and a ray that sees it, in radians; not a number where none does. */
    public float[] incidenceRad() {
        return incidence;
    }
}

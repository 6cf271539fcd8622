package yalos.core.proof;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import yalos.core.flight.Exposure;
import yalos.core.surface.Box;
import yalos.core.surface.Occluder;
import yalos.core.surface.Surface;

/** One run of a {@link SurfaceProof} over all its tiles. */
final class ProofRun {
    /** Cells in a tile's side, at most and at least: all that some photos see of a tile is asked of those photos alone. */
    private static final int LARGEST_TILE = 32;

    private static final int SMALLEST_TILE = 4;

    final SurfaceProof proof;
    final Surface surface;
    final boolean[] asked;
    private final Occluder occluder;
    final CameraFrame[] frames;
    /** Whether a photo belongs to the main pass. */
    final boolean[] main;
    /** Lines are numbered anew, from 0, so that a small array can mark them. */
    final int[] lineOf;

    final int lines;
    private final int tile;
    private final double[][] boxes;
    /** Photos that look from behind a plane surface seen from its front alone. */
    private final boolean[] behind;

    final Noise noise;
    /** Photos that are asked for of a cell. */
    final int enough;

    private final SurfaceProof.Watcher watcher;
    private final AtomicInteger done = new AtomicInteger();

    ProofRun(
            SurfaceProof proof,
            Surface surface,
            boolean[] asked,
            Occluder occluder,
            List<Exposure> photos,
            Noise noise,
            int enough,
            SurfaceProof.Watcher watcher) {
        this.proof = proof;
        this.surface = surface;
        this.asked = asked;
        this.occluder = occluder;
        this.noise = noise;
        this.enough = enough;
        this.watcher = watcher;
        Box all = surface.box(0, surface.columns(), 0, surface.rows());
        frames = new CameraFrame[photos.size()];
        main = new boolean[photos.size()];
        lineOf = new int[photos.size()];
        boxes = new double[photos.size()][];
        behind = new boolean[photos.size()];
        Map<Integer, Integer> numbers = new HashMap<>();
        for (int i = 0; i < photos.size(); i++) {
            frames[i] = new CameraFrame(photos.get(i).pose(), photos.get(i).lens());
            main[i] = photos.get(i).pass() == 1;
            lineOf[i] = numbers.computeIfAbsent(photos.get(i).line(), line -> numbers.size());
            boxes[i] = frames[i].box(all.minZ(), all.maxZ());
            behind[i] = behind(frames[i], all.minZ());
        }
        lines = numbers.size();
        tile = tileFor(all);
    }

    private boolean behind(CameraFrame eye, double lowestM) {
        if (!surface.oneSided() || !surface.plane()) {
            return false;
        }
        double[] normal = new double[3];
        double[] place = new double[3];
        surface.normal(0, 0, normal);
        surface.place(0, 0, place);
        // Of a plate that is level any height of it will do; its first corner may lie beyond its plan.
        double up = Double.isNaN(place[2]) ? lowestM : place[2];
        double before =
                (eye.east - place[0]) * normal[0] + (eye.north - place[1]) * normal[1] + (eye.up - up) * normal[2];
        return before < -1e-6;
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
        double[] hull = surface.hull(fromColumn, toColumn, fromRow, toRow);
        Occluder.Sight[] sights = new Occluder.Sight[near.length];
        for (int i = 0; i < near.length; i++) {
            CameraFrame frame = frames[near[i]];
            sights[i] = occluder.towards(box, hull, frame.east, frame.north, frame.up);
        }
        CellLook cell = new CellLook(this, near, sights);
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
            if (!behind[i] && meets(boxes[i], tile) && frames[i].mayHold(tile)) {
                near[count++] = i;
            }
        }
        return Arrays.copyOf(near, count);
    }

    private static boolean meets(double[] box, Box tile) {
        return box[0] <= tile.maxX() && box[1] >= tile.minX() && box[2] <= tile.maxY() && box[3] >= tile.minY();
    }
}

package yalos.core.proof;

import java.util.List;
import java.util.concurrent.CancellationException;
import yalos.core.flight.Exposure;
import yalos.core.surface.GroundSurface;
import yalos.core.surface.TerrainOccluder;
import yalos.core.terrain.HeightGrid;

/**
 * What every cell of the ground is given by a set of photos: how many see it, with and without what stands in the way, how
 * finely, from how different directions, and how accurately it can be measured. A {@link SurfaceProof} of the ground, which also
 * stands in its own way.
 */
public final class GroundProof implements CountGrid {
    private final HeightGrid grid;
    private final boolean[] asked;
    private final SurfaceProof proof;

    private GroundProof(HeightGrid grid, boolean[] asked, SurfaceProof proof) {
        this.grid = grid;
        this.asked = asked;
        this.proof = proof;
    }

    /**
     * @param grid the ground, in the frame of the poses
     * @param asked cells that are asked for, row by row from the north; empty for all
     * @param photos in any order, each through its own lens
     * @param watcher told after each tile
     * @throws CancellationException when the watcher called it off
     */
    public static GroundProof of(
            HeightGrid grid,
            boolean[] asked,
            List<Exposure> photos,
            Noise noise,
            SurfaceProof.Scope scope,
            SurfaceProof.Watcher watcher) {
        return new GroundProof(
                grid,
                asked,
                SurfaceProof.of(
                        new GroundSurface(grid), asked, new TerrainOccluder(grid), photos, noise, scope, watcher));
    }

    /** Everything that is shown of ground at once, unwatched. */
    public static GroundProof of(HeightGrid grid, List<Exposure> photos, Noise noise) {
        return of(
                grid,
                new boolean[0],
                photos,
                noise,
                new SurfaceProof.Scope(SurfaceProof.Layer.ofGround()),
                share -> true);
    }

    /** The ground that was proved. */
    public HeightGrid grid() {
        return grid;
    }

    /** Photos that see each cell, row by row from the north. */
    public short[] counts() {
        return proof.counts();
    }

    /** Photos that would see each cell if nothing stood in the way. */
    public short[] countsWithoutOcclusion() {
        return proof.countsWithoutOcclusion();
    }

    /** GSD of the photo that sees a cell finest, in metres; not a number where none does. */
    public float[] gsdBestM() {
        return proof.gsdBestM();
    }

    /** Mean GSD of the photos that see a cell, in metres, without those from much farther off where enough see it from near; not a number where none does. */
    public float[] gsdMeanM() {
        return proof.gsdMeanM();
    }

    /** Largest angle between two rays that see a cell, in radians; not a number below two. */
    public float[] anglesRad() {
        return proof.anglesRad();
    }

    /** Lines from which each cell is seen. */
    public short[] stripCounts() {
        return proof.lineCounts();
    }

    /** Expected accuracy of a position in the plane, √(σe² + σn²), in metres; not a number where the rays fix none. */
    public float[] sigmaHorizontalM() {
        return proof.sigmaHorizontalM();
    }

    /** Expected accuracy of a height, one standard deviation in metres; not a number where the rays fix none. */
    public float[] sigmaVerticalM() {
        return proof.sigmaVerticalM();
    }

    /** How many cells are asked for. */
    public int asked() {
        int cells = 0;
        for (boolean one : asked) {
            cells += one ? 1 : 0;
        }
        return asked.length == 0 ? grid.heights().length : cells;
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
        return proof.counts()[index(column, row)];
    }

    @Override
    public boolean inside(int column, int row) {
        int at = index(column, row);
        return (asked.length == 0 || asked[at]) && !Float.isNaN(grid.heights()[at]);
    }

    @Override
    public boolean unknown(int column, int row) {
        int at = index(column, row);
        return (asked.length == 0 || asked[at]) && Float.isNaN(grid.heights()[at]);
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

package yalos.core.surface;

import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/**
 * The bilinear surface of a height grid as what stands in the way. A line is followed only where ground between its ends is steep
 * enough to block it, and only until it is over all of it; both bounds are strict, so nothing is lost.
 */
public final class TerrainOccluder implements Occluder {
    private final HeightGrid grid;
    private final Steepness steepness;
    private final SightLine sight;

    public TerrainOccluder(HeightGrid grid) {
        this.grid = grid;
        this.steepness = new Steepness(grid);
        this.sight = SightLine.forManyRays(grid);
    }

    @Override
    public Sight towards(Box from, double eyeX, double eyeY, double eyeZ) {
        int eyeColumn = column(eyeX);
        int eyeRow = row(eyeY);
        int c0 = Math.max(0, Math.min(column(from.minX()), eyeColumn) - 1);
        int c1 = Math.min(steepness.across() - 1, Math.max(column(from.maxX()), eyeColumn) + 1);
        int r0 = Math.max(0, Math.min(row(from.maxY()), eyeRow) - 1);
        int r1 = Math.min(steepness.down() - 1, Math.max(row(from.minY()), eyeRow) + 1);
        double farX = Math.max(Math.abs(eyeX - from.minX()), Math.abs(eyeX - from.maxX()));
        double farY = Math.max(Math.abs(eyeY - from.minY()), Math.abs(eyeY - from.maxY()));
        double rise = (eyeZ - from.maxZ()) / Math.max(1e-9, Math.hypot(farX, farY));
        if (rise > steepness.steepest(c0, c1, r0, r1)) {
            return Sight.FREE;
        }
        double top = steepness.highest(c0, c1, r0, r1);
        return (x, y, z) -> clear(x, y, z, eyeX, eyeY, eyeZ, top);
    }

    private boolean clear(double x, double y, double z, double eyeX, double eyeY, double eyeZ, double top) {
        double whole = eyeZ - z;
        double share = whole > 0 ? Math.min(1, (top - z) / whole + 1e-9) : 1;
        if (share <= 0) {
            return true;
        }
        return sight.clear(x, y, z, x + share * (eyeX - x), y + share * (eyeY - y), z + share * whole);
    }

    private int column(double x) {
        return tileOf((x - grid.west()) / grid.cellX(), steepness.across());
    }

    private int row(double y) {
        return tileOf((grid.north() - y) / grid.cellY(), steepness.down());
    }

    private static int tileOf(double cell, int tiles) {
        return (int) Math.max(0, Math.min(tiles - 1.0, Math.floor(cell / Steepness.TILE)));
    }
}

package yalos.web.sheet;

import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Bounds;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.HeightGrid;

/** The rectangle of a block's plane that a picture under the plan fills: the block and a third of its size round it. */
record PictureFrame(double west, double north, double cell, int columns, int rows) {
    private static final int MOST_PIXELS = 2_000_000;

    static PictureFrame of(BlockPlan plan) {
        Bounds bounds = plan.block().bounds();
        double margin = Math.max(bounds.width(), bounds.height()) / 3;
        double width = bounds.width() + 2 * margin;
        double height = bounds.height() + 2 * margin;
        double cell = Math.sqrt(width * height / MOST_PIXELS);
        return new PictureFrame(
                bounds.west() - margin, bounds.north() + margin, cell, (int) (width / cell), (int) (height / cell));
    }

    double[] extent(LocalPlane plane) {
        return new HeightGrid(west, north, cell, cell, columns, rows, new float[columns * rows]).extent(plane);
    }
}

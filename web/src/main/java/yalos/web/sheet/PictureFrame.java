package yalos.web.sheet;

import yalos.core.block.LocalPlane;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.HeightGrid;

/** The rectangle of a block's plane that a picture under the plan fills: the block and a third of its size round it. */
record PictureFrame(double west, double north, double cell, int columns, int rows) {
    private static final int MOST_PIXELS = 2_000_000;

    static PictureFrame of(BlockPlan plan) {
        double[] bounds = plan.block().bounds();
        double margin = Math.max(bounds[1] - bounds[0], bounds[3] - bounds[2]) / 3;
        double width = bounds[1] - bounds[0] + 2 * margin;
        double height = bounds[3] - bounds[2] + 2 * margin;
        double cell = Math.sqrt(width * height / MOST_PIXELS);
        return new PictureFrame(
                bounds[0] - margin, bounds[3] + margin, cell, (int) (width / cell), (int) (height / cell));
    }

    double[] extent(LocalPlane plane) {
        return new HeightGrid(west, north, cell, cell, columns, rows, new float[columns * rows]).extent(plane);
    }
}

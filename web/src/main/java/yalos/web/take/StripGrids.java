package yalos.web.take;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import yalos.core.accuracy.GridDifference;
import yalos.core.fault.InputFault;
import yalos.core.figures.Median;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.EastNorth;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.VerticalDatum;
import yalos.web.take.TakeFiles.StoredCell;
import yalos.web.take.TakeFiles.StoredLaser;
import yalos.web.take.TakeFiles.StoredPair;

/** Laser strips as grids of heights: every two are compared over the block's ground. */
final class StripGrids {
    private StripGrids() {}

    /**
     * @throws InputFault for fewer than two, or what is no grid of heights
     */
    static StoredLaser compared(BlockPlan plan, List<String> names, List<Path> files) {
        if (files.size() < 2) {
            throw new InputFault(
                    "file", files.size(), "One grid has nothing to be compared with. Choose two strips or more.");
        }
        List<HeightGrid> grids = files.stream().map(file -> cells(plan, file)).toList();
        List<StoredPair> pairs = new ArrayList<>();
        for (int i = 0; i < grids.size(); i++) {
            for (int j = i + 1; j < grids.size(); j++) {
                try {
                    pairs.add(pair(names.get(i), names.get(j), GridDifference.of(grids.get(j), grids.get(i)), plan));
                } catch (InputFault apart) {
                    // They do not overlap.
                    continue;
                }
            }
        }
        return new StoredLaser(0, 0, List.of(), pairs, List.of(), "");
    }

    private static HeightGrid cells(BlockPlan plan, Path file) {
        Bounds bounds = plan.block().bounds();
        double cell = Math.max(1, Math.sqrt(bounds.width() * bounds.height() / TakeFiles.MOST_CELLS));
        HeightGrid grid = HeightGrid.level(
                bounds.west(),
                bounds.north(),
                cell,
                (int) Math.ceil(bounds.width() / cell) + 1,
                (int) Math.ceil(bounds.height() / cell) + 1,
                Double.NaN);
        try (GeoTiff raster = GeoTiff.open(file)) {
            ElevationModel.of(raster, OptionalInt.empty(), VerticalDatum.GEOID_METRES)
                    .fill(grid, plan.block().plane());
        }
        return grid;
    }

    private static StoredPair pair(String a, String b, GridDifference found, BlockPlan plan) {
        HeightGrid grid = found.grid();
        List<StoredCell> cells = new ArrayList<>();
        List<Double> far = new ArrayList<>();
        for (int row = 0; row < grid.rows(); row++) {
            for (int column = 0; column < grid.columns(); column++) {
                float d = found.differenceM()[row * grid.columns() + column];
                if (!Float.isNaN(d)) {
                    EastNorth at = plan.block().plane().toGrid(grid.x(column), grid.y(row));
                    cells.add(new StoredCell((int) Math.floor(at.east()), (int) Math.floor(at.north()), d));
                    far.add(Math.abs(d - found.medianM()));
                }
            }
        }
        double[] sorted = far.stream().mapToDouble(Double::doubleValue).toArray();
        return new StoredPair(
                a, b, found.cells(), found.medianM(), found.spreadM(), Median.quantile(sorted, 0.95), cells);
    }
}

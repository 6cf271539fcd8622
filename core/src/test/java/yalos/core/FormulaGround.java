package yalos.core;

import java.util.List;
import java.util.Map;
import java.util.function.DoubleBinaryOperator;
import java.util.stream.Collectors;
import yalos.core.block.LocalPlane;
import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.plan.GroundRequest;
import yalos.core.plan.GroundRequest.Surveyed;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.Holes;
import yalos.core.terrain.Holes.Hole;

/** Ground given by a formula in the block's plane, as a model of square cells; not a number where it is unknown. */
public final class FormulaGround implements GroundRequest.Source {
    private final DoubleBinaryOperator heightAt;
    private final double cellM;
    private final double spanM;
    private LocalPlane plane;

    private FormulaGround(DoubleBinaryOperator heightAt, double cellM, double spanM) {
        this.heightAt = heightAt;
        this.cellM = cellM;
        this.spanM = spanM;
    }

    public static FormulaGround of(double cellM, DoubleBinaryOperator heightAt) {
        return new FormulaGround(heightAt, cellM, 0);
    }

    @Override
    public Surveyed over(PlaneBlock block, double buffer) {
        plane = block.plane();
        Bounds bounds = block.bounds();
        int columns = (int) Math.ceil((bounds.width() + 2 * buffer) / cellM);
        int rows = (int) Math.ceil((bounds.height() + 2 * buffer) / cellM);
        HeightGrid grid = HeightGrid.level(bounds.west() - buffer, bounds.north() + buffer, cellM, columns, rows, 0);
        for (int row = 0; row < rows; row++) {
            for (int column = 0; column < columns; column++) {
                grid.heights()[row * columns + column] = (float) heightAt.applyAsDouble(grid.x(column), grid.y(row));
            }
        }
        Map<Boolean, List<Hole>> holes =
                Holes.of(grid).stream().collect(Collectors.partitioningBy(hole -> hole.widthM() <= spanM));
        return new Surveyed(Holes.spanned(grid, holes.get(true)), holes.get(false), holes.get(true));
    }

    @Override
    public double heightM(LonLat at) {
        PlanePoint point = plane.toPlane(at);
        return heightAt.applyAsDouble(point.xM(), point.yM());
    }

    @Override
    public FormulaGround spanning(double widestM) {
        return new FormulaGround(heightAt, cellM, widestM);
    }
}

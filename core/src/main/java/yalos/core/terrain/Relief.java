package yalos.core.terrain;

/**
 * Slope, aspect and hillshade of a cell, by Horn 1981 (from memory) on the 3 × 3 heights round it: what reference raster software
 * computes. Cells at the rim and beside nodata have none.
 */
public final class Relief {
    private final HeightGrid grid;

    public Relief(HeightGrid grid) {
        this.grid = grid;
    }

    private double east(int column, int row) {
        return (h(column + 1, row - 1)
                        + 2 * h(column + 1, row)
                        + h(column + 1, row + 1)
                        - h(column - 1, row - 1)
                        - 2 * h(column - 1, row)
                        - h(column - 1, row + 1))
                / (8 * grid.cellX());
    }

    private double north(int column, int row) {
        return (h(column - 1, row - 1)
                        + 2 * h(column, row - 1)
                        + h(column + 1, row - 1)
                        - h(column - 1, row + 1)
                        - 2 * h(column, row + 1)
                        - h(column + 1, row + 1))
                / (8 * grid.cellY());
    }

    private double h(int column, int row) {
        return column < 0 || row < 0 || column >= grid.columns() || row >= grid.rows()
                ? Double.NaN
                : grid.cell(column, row);
    }

    /** Angle of steepest descent below level, in radians. */
    public double slopeRad(int column, int row) {
        return Math.atan(Math.hypot(east(column, row), north(column, row)));
    }

    /** Direction of steepest descent, clockwise from grid north, in radians, 0 to 2π; not a number on level ground. */
    public double aspectRad(int column, int row) {
        double east = east(column, row);
        double north = north(column, row);
        if (east == 0 && north == 0) {
            return Double.NaN;
        }
        double aspect = Math.atan2(-east, -north);
        return aspect < 0 ? aspect + 2 * Math.PI : aspect;
    }

    /**
     * Light on a cell, from 1 for shadow to 255 for facing the light; not a number where the slope is not known.
     *
     * @param azimuthRad where the light comes from, clockwise from grid north
     * @param altitudeRad its height above the horizon
     * @param exaggeration by which heights are stretched
     */
    public double hillshade(int column, int row, double azimuthRad, double altitudeRad, double exaggeration) {
        double east = east(column, row) * exaggeration;
        double north = north(column, row) * exaggeration;
        double cosine = (Math.sin(altitudeRad)
                        - Math.cos(altitudeRad) * (east * Math.sin(azimuthRad) + north * Math.cos(azimuthRad)))
                / Math.sqrt(1 + east * east + north * north);
        return cosine <= 0 ? 1 : 1 + 254 * cosine;
    }
}

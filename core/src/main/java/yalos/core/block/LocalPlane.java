package yalos.core.block;

import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;

/**
 * The job's grid moved to the block and scaled so that lengths are true metres on the ellipsoid. Directions are those of
 * the grid. The point scale is taken at the middle of the block; over 20 km of UTM it varies by no more than 0.015 %.
 * Grids that are not conformal are served by the mean scale: areas stay true, lengths differ by direction.
 */
public final class LocalPlane {
    private final Grid grid;
    private final EastNorth origin;
    private final double metresPerUnit;
    private final double convergenceRad;

    private LocalPlane(Grid grid, LonLat middle) {
        this.grid = grid;
        this.origin = grid.toGrid(middle);
        this.metresPerUnit = grid.unitM() / grid.meanScale(middle);
        this.convergenceRad = grid.convergenceRad(middle);
    }

    /** The plane of a grid whose lengths are true at a place. */
    public static LocalPlane at(Grid grid, LonLat middle) {
        return new LocalPlane(grid, middle);
    }

    /** The projected grid it belongs to. */
    public Grid grid() {
        return grid;
    }

    /** Metres on the ellipsoid in one unit of the grid, here. */
    public double metresPerUnit() {
        return metresPerUnit;
    }

    /** Grid north against true north at the middle of the block; see {@link Grid#convergenceRad}. */
    public double convergenceRad() {
        return convergenceRad;
    }

    /** The place of a position. */
    public PlanePoint toPlane(LonLat at) {
        EastNorth position = grid.toGrid(at);
        return new PlanePoint(
                (position.east() - origin.east()) * metresPerUnit, (position.north() - origin.north()) * metresPerUnit);
    }

    /** Easting and northing of a place, in units of the grid. */
    public EastNorth toGrid(PlanePoint at) {
        return toGrid(at.xM(), at.yM());
    }

    /** Position of a place on the ellipsoid. */
    public LonLat toLonLat(PlanePoint at) {
        return toLonLat(at.xM(), at.yM());
    }

    /** Easting and northing of a place, in units of the grid. */
    public EastNorth toGrid(double x, double y) {
        return new EastNorth(origin.east() + x / metresPerUnit, origin.north() + y / metresPerUnit);
    }

    /** Position of a place on the ellipsoid. */
    public LonLat toLonLat(double x, double y) {
        return grid.toLonLat(toGrid(x, y));
    }
}

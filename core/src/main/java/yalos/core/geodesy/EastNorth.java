package yalos.core.geodesy;

/**
 * A position in a projected grid, easting first whatever the register of grids says, in the unit of the grid.
 *
 * @param east easting in grid units
 * @param north northing in grid units
 */
public record EastNorth(double east, double north) {}

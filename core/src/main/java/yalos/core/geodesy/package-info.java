/**
 * Positions on the earth and in the job's projected grid. WGS84 throughout; grids by their EPSG code.
 *
 * <p>May import {@code fault}.
 */
package yalos.core.geodesy;

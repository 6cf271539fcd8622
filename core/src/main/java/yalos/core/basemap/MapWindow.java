package yalos.core.basemap;

import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/**
 * A square of the job's grid as a picture, and where its pixels lie in a map's own plane.
 *
 * <p>Positions are reckoned at every {@value #STEP}th pixel and drawn out evenly between them: over one such cell a grid bends against another by far
 * less than a pixel.
 *
 * @param grid of the job
 * @param west of the picture, in grid units
 * @param north of it
 * @param pixel grid units of one of its pixels
 * @param size its pixels each way, a multiple of {@value #STEP}
 */
public record MapWindow(Grid grid, double west, double north, double pixel, int size) {
    private static final int STEP = 16;

    /** Finer than this times the picture's own pixels a level need not be. */
    private static final double FINE_ENOUGH = 1.3;

    /** Where the centre of each pixel of a picture lies in a map, in the map's own plane; not numbers where that cannot be said. */
    public static final class Laid {
        private final int size;
        private final double[] east;
        private final double[] north;
        private final int nodes;

        private Laid(MapWindow window, MapSystem system) {
            size = window.size();
            nodes = size / STEP + 1;
            east = new double[nodes * nodes];
            north = new double[nodes * nodes];
            for (int row = 0; row < nodes; row++) {
                for (int column = 0; column < nodes; column++) {
                    EastNorth at = window.in(system, column * STEP, row * STEP);
                    east[row * nodes + column] = at.east();
                    north[row * nodes + column] = at.north();
                }
            }
        }

        /** Easting of the centre of a pixel. */
        public double east(int column, int row) {
            return between(east, column, row);
        }

        /** Northing of the centre of a pixel. */
        public double north(int column, int row) {
            return between(north, column, row);
        }

        private double between(double[] values, int column, int row) {
            double x = (column + 0.5) / STEP;
            double y = (row + 0.5) / STEP;
            int left = (int) x;
            int above = (int) y;
            double right = x - left;
            double down = y - above;
            int at = above * nodes + left;
            return (values[at] * (1 - right) + values[at + 1] * right) * (1 - down)
                    + (values[at + nodes] * (1 - right) + values[at + nodes + 1] * right) * down;
        }
    }

    /** Its pixels in a map's plane. */
    public Laid laid(MapSystem system) {
        return new Laid(this, system);
    }

    private EastNorth in(MapSystem system, double column, double row) {
        LonLat at = position(column, row);
        return at == null ? new EastNorth(Double.NaN, Double.NaN) : system.of(at);
    }

    private LonLat position(double column, double row) {
        try {
            return grid.toLonLat(new EastNorth(west + column * pixel, north - row * pixel));
        } catch (InputFault outside) {
            return null;
        }
    }

    /** The coarsest level of a map that shows all that the picture can; the finest where none does. */
    public TileMatrix level(TilePyramid map) {
        LonLat middle = position(size / 2.0, size / 2.0);
        double unitM = map.system().unitM(middle == null ? 0 : middle.latDeg());
        double wanted = pixel * grid.unitM() * FINE_ENOUGH;
        TileMatrix chosen = null;
        for (TileMatrix level : map.levels()) {
            chosen = level;
            if (level.pixelX() * unitM <= wanted) {
                break;
            }
        }
        return chosen;
    }
}

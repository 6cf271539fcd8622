package yalos.core.terrain;

import java.util.Arrays;
import java.util.stream.IntStream;
import yalos.core.fault.Patience;

/**
 * Which ground lies in the shadow of other ground, for a sun that is a point, over a plane.
 *
 * <p>Exact on the bilinear surface: {@link SightLine} from each cell towards the sun, up to the height of the highest ground. Beyond the grid nothing casts a shadow.
 */
public final class CastShadow {
    private CastShadow() {}

    /**
     * @param ground heights; not numbers where unknown, which casts none and has none
     * @param azimuthRad of the sun, clockwise from the grid's north
     * @param elevationRad of the sun above the horizon
     * @return for each cell whether it is shaded; all of them when the sun is down
     */
    public static boolean[] of(HeightGrid ground, double azimuthRad, double elevationRad) {
        int columns = ground.columns();
        int rows = ground.rows();
        boolean[] shaded = new boolean[columns * rows];
        if (elevationRad <= 0) {
            Arrays.fill(shaded, true);
            return shaded;
        }
        double most = ground.range().most();
        if (Double.isNaN(most)) {
            return shaded;
        }
        SightLine rays = SightLine.forManyRays(ground);
        double rise = Math.tan(elevationRad);
        double east = Math.sin(azimuthRad);
        double north = Math.cos(azimuthRad);
        IntStream.range(0, rows).parallel().forEach(row -> {
            Patience.check();
            for (int column = 0; column < columns; column++) {
                double z = ground.heights()[row * columns + column];
                double far = (most - z) / rise;
                if (Double.isNaN(z) || far <= 0) {
                    continue;
                }
                double x = ground.x(column);
                double y = ground.y(row);
                // Above the highest ground nothing stands in the way any more.
                shaded[row * columns + column] = !rays.clear(x, y, z, x + far * east, y + far * north, z + far * rise);
            }
        });
        return shaded;
    }

    /** Share of the cells asked for that are shaded, 0..1; 0 where none is asked for. */
    public static double share(boolean[] shaded, boolean[] asked) {
        int all = 0;
        int dark = 0;
        for (int i = 0; i < shaded.length; i++) {
            all += asked[i] ? 1 : 0;
            dark += asked[i] && shaded[i] ? 1 : 0;
        }
        return all == 0 ? 0 : (double) dark / all;
    }
}

package yalos.core.terrain;

import java.util.Arrays;
import java.util.stream.IntStream;
import yalos.core.fault.Patience;

/**
 * Which ground lies in the shadow of other ground, for a sun that is a point, over a plane. Beyond the grid nothing casts a shadow.
 *
 * <p>Exact on the bilinear surface: {@link SightLine} from each cell towards the sun, up to the height of the highest ground.
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
        boolean[] shaded = new boolean[ground.columns() * ground.rows()];
        if (elevationRad <= 0) {
            Arrays.fill(shaded, true);
            return shaded;
        }
        double most = ground.range().most();
        if (Double.isNaN(most)) {
            return shaded;
        }
        Patience.check();
        SightLine rays = SightLine.forManyRays(ground);
        double rise = Math.tan(elevationRad);
        double east = Math.sin(azimuthRad);
        double north = Math.cos(azimuthRad);
        IntStream.range(0, ground.rows()).parallel().forEach(row -> {
            for (int column = 0; column < ground.columns(); column++) {
                int cell = row * ground.columns() + column;
                double z = ground.heights()[cell];
                // Above the highest ground nothing stands in the way any more.
                double far = (most - z) / rise;
                double x = ground.x(column);
                double y = ground.y(row);
                shaded[cell] = far > 0 && !rays.clear(x, y, z, x + far * east, y + far * north, most);
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

package yalos.core.height;

import java.util.function.DoubleUnaryOperator;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * Ground and what stands on it along a way, at two steps or more; not numbers where the ground is not known.
 *
 * @param lengthM of the way
 * @param groundM straight below
 * @param highM the highest ground of the corridor
 * @param topM the same with what stands on it
 */
record Beneath(double lengthM, double[] groundM, double[] highM, double[] topM) {
    private static final double LONGEST_STEP_M = 2.5;
    private static final int MOST_STEPS = 4000;
    private static final int MOST_SIDES = 8;

    /**
     * @param reachM how near to a step of a length an obstacle counts as beneath it
     */
    static Beneath of(Way way, HeightGrid grid, SiteMap site, DoubleUnaryOperator reachM) {
        double length = way.lengthM();
        double step = Math.max(Math.max(1, Math.min(grid.cellX(), LONGEST_STEP_M)), length / MOST_STEPS);
        int steps = (int) Math.max(2, Math.ceil(length / step) + 1);
        double[] ground = new double[steps];
        double[] high = new double[steps];
        double[] top = new double[steps];
        double reach = reachM.applyAsDouble(length / (steps - 1));
        for (int i = 0; i < steps; i++) {
            double along = length * i / (steps - 1);
            PlanePoint here = way.pointAt(along);
            ground[i] = grid.at(here.xM(), here.yM());
            high[i] = highest(grid, here, way.trackRadAt(along), ground[i]);
            top[i] = high[i] + site.obstacleM(here.xM(), here.yM(), reach);
        }
        return new Beneath(length, ground, high, top);
    }

    /** The highest known ground to both sides of a place of the path. */
    private static double highest(HeightGrid grid, PlanePoint here, double trackRad, double groundM) {
        double corridor = HeightChoice.CORRIDOR_M;
        int sides = (int) Math.max(1, Math.min(MOST_SIDES, Math.ceil(corridor / grid.cellX())));
        double highest = groundM;
        for (int side = -sides; side <= sides; side++) {
            PlanePoint aside = here.moved(trackRad - Math.PI / 2, corridor * side / sides);
            double beside = grid.at(aside.xM(), aside.yM());
            highest = Double.isNaN(beside) ? highest : Math.max(highest, beside);
        }
        return highest;
    }

    /** Distance between two steps. */
    double stepM() {
        return lengthM / (groundM.length - 1);
    }
}

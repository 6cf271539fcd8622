package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.PlanePoint;

/** What is laid out and staked. */
public final class Targets {
    /** A target is so many pixels across, so that its middle is found to a part of one (common practice). */
    private static final double PIXELS = 10;

    private static final double LEAST_M = 0.2;
    private static final double STEP_M = 0.05;
    private static final int MOST_STAKES = 20_000;

    private Targets() {}

    /** Side of a target for the coarsest GSD it is seen at, in metres, rounded up to 5 cm. */
    public static double sideM(double gsdM) {
        return Math.ceil(Math.max(LEAST_M, PIXELS * gsdM) / STEP_M - 1e-9) * STEP_M;
    }

    /**
     * Spot levels at even steps over the rectangle between two opposite corners along the grid, in walking order: up one row and down the next, from the first corner.
     *
     * @throws InputFault for a step out of 0.5 to 500 m, or more stakes than anybody sets
     */
    public static List<PlanePoint> spotLevels(PlanePoint from, PlanePoint to, double stepM) {
        InputFault.within("step", stepM, 0.5, 500, "m");
        int columns = (int) Math.floor(Math.abs(to.xM() - from.xM()) / stepM + 1e-9) + 1;
        int rows = (int) Math.floor(Math.abs(to.yM() - from.yM()) / stepM + 1e-9) + 1;
        if ((long) columns * rows > MOST_STAKES) {
            throw new InputFault(
                    "step",
                    stepM,
                    "That makes %,d stakes; take a wider step or less ground.".formatted((long) columns * rows));
        }
        double east = Math.signum(to.xM() - from.xM()) * stepM;
        double north = Math.signum(to.yM() - from.yM()) * stepM;
        List<PlanePoint> stakes = new ArrayList<>();
        for (int column = 0; column < columns; column++) {
            for (int i = 0; i < rows; i++) {
                int row = column % 2 == 0 ? i : rows - 1 - i;
                stakes.add(new PlanePoint(from.xM() + column * east, from.yM() + row * north));
            }
        }
        return stakes;
    }
}

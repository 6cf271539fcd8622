package yalos.core.height;

/** What smooths a path: a mean along it, and a limit to how steep it gets. */
final class Slopes {
    private Slopes() {}

    /** Moving mean over a window of so many steps. */
    static double[] evened(double[] values, double window) {
        int half = (int) Math.round(window / 2);
        double[] sums = new double[values.length + 1];
        for (int i = 0; i < values.length; i++) {
            sums[i + 1] = sums[i] + values[i];
        }
        double[] evened = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            int reach = Math.min(half, Math.min(i, values.length - 1 - i));
            evened[i] = (sums[i + reach + 1] - sums[i - reach]) / (2 * reach + 1);
        }
        return evened;
    }

    /**
     * Raises a path until it nowhere climbs or sinks more steeply than the aircraft can at its speed.
     *
     * @param climbM the most it can rise from the step before to each step
     * @param sinkM the most it can sink
     */
    static void limit(double[] path, double[] climbM, double[] sinkM) {
        for (int i = 1; i < path.length; i++) {
            path[i] = Math.max(path[i], path[i - 1] - sinkM[i]);
        }
        for (int i = path.length - 2; i >= 0; i--) {
            path[i] = Math.max(path[i], path[i + 1] - climbM[i + 1]);
        }
    }
}

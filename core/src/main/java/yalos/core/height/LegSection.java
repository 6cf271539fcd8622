package yalos.core.height;

/**
 * The long section of one leg of the path: ground, what stands on it, and the path, at even steps.
 *
 * @param strip number of the strip, or 0 for a leg between strips
 * @param fromX start of the leg in the block's plane
 * @param fromY start of the leg
 * @param toX end of the leg
 * @param toY end of the leg
 * @param lengthM of the leg
 * @param groundM above the geoid, at each step
 * @param topM highest ground beside the path with the tallest obstacle there on it, at each step
 * @param pathM above the geoid, at each step
 */
public record LegSection(
        int strip,
        double fromX,
        double fromY,
        double toX,
        double toY,
        double lengthM,
        double[] groundM,
        double[] topM,
        double[] pathM) {

    public boolean isStrip() {
        return strip > 0;
    }

    /** Distance between two steps. */
    public double stepM() {
        return groundM.length < 2 ? 0 : lengthM / (groundM.length - 1);
    }

    /** Distance from the start at a step. */
    public double alongM(int step) {
        return groundM.length < 2 ? 0 : lengthM * step / (groundM.length - 1);
    }

    /** The path's height at a distance from the start, above the geoid. */
    public double pathAtM(double alongM) {
        if (pathM.length == 1 || lengthM == 0) {
            return pathM[0];
        }
        double step = Math.max(0, Math.min(pathM.length - 1.0, alongM / lengthM * (pathM.length - 1)));
        int low = (int) Math.min(pathM.length - 2.0, Math.floor(step));
        return pathM[low] + (pathM[low + 1] - pathM[low]) * (step - low);
    }

    /** Step at which the path is nearest to what lies below it. */
    public int nearestStep() {
        int nearest = 0;
        for (int i = 1; i < pathM.length; i++) {
            if (pathM[i] - topM[i] < pathM[nearest] - topM[nearest]) {
                nearest = i;
            }
        }
        return nearest;
    }

    /** Least distance between the path and what lies below it, in metres. */
    public double clearanceM() {
        int nearest = nearestStep();
        return pathM[nearest] - topM[nearest];
    }

    public double x(int step) {
        return fromX + (toX - fromX) * share(step);
    }

    public double y(int step) {
        return fromY + (toY - fromY) * share(step);
    }

    private double share(int step) {
        return groundM.length < 2 ? 0 : (double) step / (groundM.length - 1);
    }
}

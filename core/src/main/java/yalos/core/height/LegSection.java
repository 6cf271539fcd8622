package yalos.core.height;

import java.util.Arrays;
import java.util.stream.DoubleStream;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;

/**
 * The long section of one way of the path: ground, what stands on it, and the path, at even steps.
 *
 * @param line number of the line, or 0 for a way between lines
 * @param way with its heights at each step
 * @param groundM above the geoid, at each step
 * @param topM highest ground beside the path with the tallest obstacle there on it, at each step
 */
public record LegSection(int line, Way way, double[] groundM, double[] topM) {

    /** Whether photos are taken on it. */
    public boolean isLine() {
        return line > 0;
    }

    /** The path above the geoid, at each step. */
    public double[] pathM() {
        return way.upM();
    }

    /** Level length in metres. */
    public double lengthM() {
        return way.lengthM();
    }

    /** Distance between two steps. */
    public double stepM() {
        return lengthM() / (groundM.length - 1);
    }

    /** Distance from the start at a step. */
    public double alongM(int step) {
        return lengthM() * step / (groundM.length - 1);
    }

    /** Step at which the path is nearest to what lies below it, as far as that is known. */
    public int nearestStep() {
        double[] path = pathM();
        int nearest = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < path.length; i++) {
            if (path[i] - topM[i] < least) {
                nearest = i;
                least = path[i] - topM[i];
            }
        }
        return nearest;
    }

    /** Least distance between the path and what lies below it, in metres; infinite where nothing of that is known. */
    public double clearanceM() {
        int nearest = nearestStep();
        double clearance = pathM()[nearest] - topM[nearest];
        return Double.isNaN(clearance) ? Double.POSITIVE_INFINITY : clearance;
    }

    /** Heights without those that nobody knows. */
    static DoubleStream known(double[] heights) {
        return Arrays.stream(heights).filter(height -> !Double.isNaN(height));
    }

    /** Where a step is, in the block's plane. */
    public PlanePoint pointAt(int step) {
        return way.pointAt(alongM(step));
    }
}

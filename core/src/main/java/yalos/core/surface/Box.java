package yalos.core.surface;

/** A box along the axes of the block's plane that holds some places; heights as those of the places. */
public record Box(double minX, double maxX, double minY, double maxY, double minZ, double maxZ) {
    /** Holds nothing. */
    public static final Box EMPTY = new Box(
            Double.POSITIVE_INFINITY,
            Double.NEGATIVE_INFINITY,
            Double.POSITIVE_INFINITY,
            Double.NEGATIVE_INFINITY,
            Double.POSITIVE_INFINITY,
            Double.NEGATIVE_INFINITY);

    /** Its corners seen from above: x and y of each in turn. */
    public double[] hull() {
        return new double[] {minX, minY, maxX, minY, maxX, maxY, minX, maxY};
    }

    /** Whether it holds nothing. */
    public boolean isEmpty() {
        return minX > maxX;
    }
}

package yalos.core.terrain;

import java.util.Optional;

/**
 * How steep the ground is towards each way, over all of a grid: the mean of its squared slopes, an ellipse with a steepest and a levellest way.
 * Squared, so that the two sides of a ridge add up instead of cancelling.
 *
 * @param east mean of the squared rise to the east, as a share of the way
 * @param north the same to the north
 * @param both mean of their product
 */
public record Slopes(double east, double north, double both) {
    /** The levellest way must be less steep than this share of the steepest, or the ground is alike all round. */
    private static final double ALIKE = 0.7;

    /**
     * Of the ground that is known.
     *
     * @param overM how far apart the heights are that are compared: what is rougher is no slope
     */
    public static Slopes of(HeightGrid grid, double overM) {
        int across = cells(overM, grid.cellX(), grid.columns());
        int down = cells(overM, grid.cellY(), grid.rows());
        double east = 0;
        double north = 0;
        double both = 0;
        long count = 0;
        for (int row = down; row < grid.rows(); row++) {
            for (int column = across; column < grid.columns(); column++) {
                double here = grid.cell(column, row);
                double dx = (here - grid.cell(column - across, row)) / (across * grid.cellX());
                double dy = (grid.cell(column, row - down) - here) / (down * grid.cellY());
                if (Double.isFinite(dx) && Double.isFinite(dy)) {
                    east += dx * dx;
                    north += dy * dy;
                    both += dx * dy;
                    count++;
                }
            }
        }
        return count == 0 ? new Slopes(0, 0, 0) : new Slopes(east / count, north / count, both / count);
    }

    private static int cells(double overM, double cell, int there) {
        return (int) Math.max(1, Math.min(there - 1L, Math.round(overM / cell)));
    }

    /**
     * The way that climbs least.
     *
     * @param least slope below which ground counts as level, as a share of the way
     * @return clockwise from grid north, 0 to half a turn; none over level ground, and none where no way climbs clearly less than the others
     */
    public Optional<Double> levelWay(double least) {
        double middle = (east + north) / 2;
        double spread = Math.hypot((east - north) / 2, both);
        double steepest = Math.sqrt(middle + spread);
        double levellest = Math.sqrt(Math.max(0, middle - spread));
        if (steepest <= least || levellest >= ALIKE * steepest) {
            return Optional.empty();
        }
        // Twice the angle of the steepest way, clockwise from north.
        double uphill = Math.atan2(both, (north - east) / 2) / 2;
        double along = uphill + Math.PI / 2;
        return Optional.of((along % Math.PI + Math.PI) % Math.PI);
    }
}

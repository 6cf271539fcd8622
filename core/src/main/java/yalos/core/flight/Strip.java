package yalos.core.flight;

/**
 * A straight flight line from its first exposure station to its last, in the block's plane.
 *
 * @param number from 1, in the order flown
 * @param fromX first station
 * @param fromY first station
 * @param toX last station
 * @param toY last station
 * @param yawRad direction flown, clockwise from grid north
 * @param firstStation index of its first station in the plan
 * @param stations how many it has
 */
public record Strip(
        int number, double fromX, double fromY, double toX, double toY, double yawRad, int firstStation, int stations) {

    public double lengthM() {
        return Math.hypot(toX - fromX, toY - fromY);
    }
}

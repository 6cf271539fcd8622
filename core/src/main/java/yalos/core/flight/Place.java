package yalos.core.flight;

import yalos.core.geodesy.PlanePoint;

/**
 * A place in the air or on the ground.
 *
 * @param xM in the block's plane, grid east
 * @param yM in the block's plane, grid north
 * @param upM above the geoid; over level ground of no known height, above take-off
 */
public record Place(double xM, double yM, double upM) {

    /** The place so high over a point of the plane. */
    public static Place over(PlanePoint point, double upM) {
        return new Place(point.xM(), point.yM(), upM);
    }

    /** The point of the plane below it. */
    public PlanePoint point() {
        return new PlanePoint(xM, yM);
    }
}

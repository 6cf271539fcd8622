package yalos.core.flight;

import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.geodesy.PlanePoint;

/**
 * One photo: where it is taken, which way the image looks, through which lens.
 *
 * @param id from 1, in the order flown
 * @param pass number of its pass, from 1
 * @param line number of its line in the flight, from 1
 * @param pose of the <em>image</em>, the camera's mount applied: position in the block's plane, height as {@link Place#upM()},
 *     yaw of the image's top clockwise from grid north. It may look anywhere, up included
 * @param lens through which it is seen
 * @param trackRad direction flown, clockwise from grid north
 */
public record Exposure(int id, int pass, int line, Pose pose, Lens lens, double trackRad) {

    /** A photo of which nothing but its view is known, on a line of that number. */
    public static Exposure of(int id, int line, Pose pose, Lens lens) {
        return new Exposure(id, 1, line, pose, lens, pose.yawRad());
    }

    /** Where it is taken, in the block's plane. */
    public PlanePoint point() {
        return new PlanePoint(pose.eastM(), pose.northM());
    }

    /** Height above the geoid; over level ground of no known height, above take-off. */
    public double upM() {
        return pose.upM();
    }

    /** The same photo, counted to another line. */
    public Exposure onLine(int other) {
        return new Exposure(id, pass, other, pose, lens, trackRad);
    }

    /** The same photo from another height. */
    public Exposure atHeight(double upM) {
        Pose other = new Pose(pose.eastM(), pose.northM(), upM, pose.yawRad(), pose.pitchRad(), pose.rollRad());
        return new Exposure(id, pass, line, other, lens, trackRad);
    }
}

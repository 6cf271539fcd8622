package yalos.core.flight;

import yalos.core.camera.Pose;

/**
 * An exposure station: where a photo is taken and which way the camera looks.
 *
 * @param index from 1, in the order flown
 * @param strip number of its strip
 * @param xM in the block's plane, grid east
 * @param yM in the block's plane, grid north
 * @param heightM above take-off, which on level ground is the height above ground
 * @param yawRad top of the image, clockwise from grid north
 * @param pitchRad straight down is -π/2
 */
public record Station(int index, int strip, double xM, double yM, double heightM, double yawRad, double pitchRad) {

    public Pose pose() {
        return new Pose(xM, yM, heightM, yawRad, pitchRad, 0);
    }
}

package yalos.core.pattern;

import java.util.OptionalDouble;
import yalos.core.camera.Camera;
import yalos.core.flight.FlightBuilder;

/**
 * Which way the camera of a pass looks.
 *
 * @param pitchRad straight down is -π/2
 * @param aimRad which way a tilted camera looks, from where the aircraft's nose points: 0 ahead, π back
 * @param headingRad to which the nose is held, clockwise from grid north; along the line flown where empty
 */
public record Gaze(double pitchRad, double aimRad, OptionalDouble headingRad) {
    private static final double STRAIGHT_DOWN = -Math.PI / 2;

    /** Straight down, the nose along the line. */
    public static final Gaze NADIR = new Gaze(STRAIGHT_DOWN, 0, OptionalDouble.empty());

    /** Tilted, the nose along the line: lines flown back look back. */
    public static Gaze tilted(double pitchRad, double aimRad) {
        return new Gaze(pitchRad, aimRad, OptionalDouble.empty());
    }

    /** Tilted and always looking the same way, however the lines are flown. */
    public static Gaze held(double pitchRad, double headingRad) {
        return new Gaze(pitchRad, 0, OptionalDouble.of(headingRad));
    }

    /** The same with the nose held. */
    public Gaze holding(double toHeadingRad) {
        return new Gaze(pitchRad, aimRad, OptionalDouble.of(toHeadingRad));
    }

    /** Whether it looks straight down. */
    public boolean nadir() {
        return pitchRad == STRAIGHT_DOWN;
    }

    /**
     * The angles of an image. A camera whose long side lies along the strip is turned about its own axis: straight down that is its yaw, tilted
     * it is its roll.
     *
     * @param trackRad direction flown
     * @param crabRad by which a wing's nose points to the right of it
     */
    FlightBuilder.Look look(Camera camera, double trackRad, double crabRad) {
        double nose = headingRad.orElse(trackRad + crabRad);
        return nadir()
                ? new FlightBuilder.Look(camera.imageYawRad(nose), pitchRad, 0)
                : new FlightBuilder.Look(nose + aimRad, pitchRad, camera.imageYawRad(0));
    }
}

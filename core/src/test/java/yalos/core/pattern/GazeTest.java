package yalos.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import yalos.core.Samples;
import yalos.core.camera.Camera;
import yalos.core.camera.Lens;
import yalos.core.camera.Mount;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.FlightBuilder;
import yalos.core.flight.Pace;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.wind.Wind;

/** Which way images look: plane geometry by hand, projected by the view that is held against the reference elsewhere. */
class GazeTest {
    private static final double H = 75;
    private static final double TRACK = Math.toRadians(60);
    private static final PlanePoint START = new PlanePoint(0, 0);

    private static Camera mounted(Mount mount) {
        Camera camera = Samples.twentyMegapixel();
        return new Camera(
                camera.name(),
                camera.sensor(),
                camera.focalLengthM(),
                camera.shutter(),
                camera.minIntervalS(),
                mount,
                camera.storage());
    }

    private static FlightBuilder.Photographed photographed(Camera camera, Gaze gaze, Pace pace) {
        Task task = new Task(30, 15, H, 16, camera);
        return task.photographed(1, START, START.moved(TRACK, 150), TRACK, 11, gaze, pace);
    }

    private static Pace still(Aircraft aircraft) {
        return new Pace(aircraft, Optional.empty());
    }

    /** Tilted by 30° the picture's middle lies H · tan 30° ahead, its edges at 30° less and more half the angle its side along the strip spans. */
    @ParameterizedTest
    @EnumSource(Mount.class)
    void aTiltedCameraLooksAheadWhicheverSideLiesAlong(Mount mount) {
        Camera camera = mounted(mount);
        double tilt = Math.toRadians(30);
        FlightBuilder.Look look = photographed(
                        camera, Gaze.tilted(tilt - Math.PI / 2, 0), still(Aircraft.smallMultirotor()))
                .look();
        View view = new View(Lens.of(camera), new Pose(0, 0, H, look.yawRad(), look.pitchRad(), look.rollRad()));
        View.GroundHit middle = view.ground(
                        camera.sensor().pixelsWide() / 2.0, camera.sensor().pixelsHigh() / 2.0, 0)
                .orElseThrow();
        assertThat(along(middle.eastM(), middle.northM())).isCloseTo(H * Math.tan(tilt), Offset.offset(1e-6));
        assertThat(across(middle.eastM(), middle.northM())).isCloseTo(0, Offset.offset(1e-6));
        double half = Math.atan(camera.sideAlongM() / 2 / camera.focalLengthM());
        double[] corners = view.footprint(0);
        double near = Double.POSITIVE_INFINITY;
        double far = Double.NEGATIVE_INFINITY;
        double sideways = 0;
        for (int i = 0; i < corners.length; i += 2) {
            near = Math.min(near, along(corners[i], corners[i + 1]));
            far = Math.max(far, along(corners[i], corners[i + 1]));
            sideways += across(corners[i], corners[i + 1]);
        }
        assertThat(near).isCloseTo(H * Math.tan(tilt - half), Offset.offset(1e-6));
        assertThat(far).isCloseTo(H * Math.tan(tilt + half), Offset.offset(1e-6));
        assertThat(sideways).as("as far to the left as to the right").isCloseTo(0, Offset.offset(1e-6));
    }

    private static double along(double east, double north) {
        return east * Math.sin(TRACK) + north * Math.cos(TRACK);
    }

    private static double across(double east, double north) {
        return east * Math.cos(TRACK) - north * Math.sin(TRACK);
    }

    /** Hand figure: 8 m/s from the right at an airspeed of 16 m/s is asin(8 / 16) = 30°. A multirotor holds its nose along the track. */
    @Test
    void aWingsPhotosAreTurnedIntoTheWind() {
        Optional<Wind> fromTheRight = Optional.of(new Wind(TRACK + Math.PI / 2, 8));
        Camera camera = mounted(Mount.WIDTH_ACROSS);
        double wing = photographed(camera, Gaze.NADIR, new Pace(Aircraft.smallWing(), fromTheRight))
                .look()
                .yawRad();
        assertThat(Math.toDegrees(wing)).isCloseTo(60 + 30, Offset.offset(1e-9));
        double rotor = photographed(camera, Gaze.NADIR, new Pace(Aircraft.smallMultirotor(), fromTheRight))
                .look()
                .yawRad();
        assertThat(Math.toDegrees(rotor)).isCloseTo(60, Offset.offset(1e-9));
    }

    /** Held to 200° the top of a nadir image points there, a quarter further where the long side lies along the strip. */
    @Test
    void aHeldNoseTurnsTheImagesAndNotTheTrack() {
        Gaze held = Gaze.NADIR.holding(Math.toRadians(200));
        Pace pace = still(Aircraft.smallMultirotor());
        FlightBuilder.Photographed across = photographed(mounted(Mount.WIDTH_ACROSS), held, pace);
        assertThat(Math.toDegrees(across.look().yawRad())).isCloseTo(200, Offset.offset(1e-9));
        assertThat(across.trackRad()).isEqualTo(TRACK);
        assertThat(Math.toDegrees(photographed(mounted(Mount.HEIGHT_ACROSS), held, pace)
                        .look()
                        .yawRad()))
                .isCloseTo(290, Offset.offset(1e-9));
    }
}

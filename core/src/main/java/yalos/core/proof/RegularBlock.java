package yalos.core.proof;

import java.util.ArrayList;
import java.util.List;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.camera.Lens;
import yalos.core.camera.Mount;
import yalos.core.camera.Pose;

/**
 * What the middle of a large block over level ground is worth: photos straight down, evenly spaced, no edge near.
 *
 * @param scale height and camera
 * @param baseM between photos of a strip
 * @param spacingM between strips
 */
public record RegularBlock(GroundScale scale, double baseM, double spacingM) {
    /** The pattern repeats from station to station and is its own mirror; so many points each way of a quarter are looked at. */
    private static final int POINTS = 8;

    /**
     * Expected standard deviations in metres, each of the worst point between stations; infinite where rays fix none.
     *
     * @param positionM along each axis of the plane
     */
    public record Expected(double positionM, double heightM) {}

    /** By the same rays, image error and camera positions as {@link SurfaceProof} counts. */
    public Expected expected(Noise noise) {
        Lens lens = Lens.of(scale.camera());
        double position = 0;
        double height = 0;
        for (int i = 0; i < POINTS; i++) {
            for (int j = 0; j < POINTS; j++) {
                double x = spacingM / 2 * (i + 0.5) / POINTS;
                double y = baseM / 2 * (j + 0.5) / POINTS;
                var fixed = Intersection.of(x, y, 0, seeing(x, y), lens, noise);
                position = Math.max(
                        position,
                        fixed.map(c -> Math.hypot(c.sigmaHorizontalM() / Math.sqrt(2), noise.sharedHorizontalM()))
                                .orElse(Double.POSITIVE_INFINITY));
                height = Math.max(
                        height,
                        fixed.map(c -> Math.hypot(c.sigmaUpM(), noise.sharedVerticalM()))
                                .orElse(Double.POSITIVE_INFINITY));
            }
        }
        return new Expected(position, height);
    }

    private List<Pose> seeing(double x, double y) {
        Camera camera = scale.camera();
        double yaw = camera.mount() == Mount.WIDTH_ACROSS ? 0 : Math.PI / 2;
        double across = scale.footprintAcrossM() / 2;
        double along = scale.footprintAlongM() / 2;
        List<Pose> poses = new ArrayList<>();
        for (long i = (long) Math.ceil((x - across) / spacingM); i * spacingM <= x + across; i++) {
            for (long j = (long) Math.ceil((y - along) / baseM); j * baseM <= y + along; j++) {
                poses.add(Pose.vertical(i * spacingM, j * baseM, scale.heightM(), yaw));
            }
        }
        return poses;
    }
}

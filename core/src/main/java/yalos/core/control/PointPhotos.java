package yalos.core.control;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.flight.Exposure;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.SightLine;

/** The photos of a plan that will show a point, and where in them. */
public final class PointPhotos {
    private static final double ABOVE_M = 0.05;

    private PointPhotos() {}

    /**
     * A photo that shows a point.
     *
     * @param photo that shows it
     * @param u pixels from the left edge
     * @param v pixels from the top edge
     * @param fromMiddle distance from the middle over half of the diagonal, 0..1
     * @param gsdM ground in a pixel, across the line of sight
     * @param angleRad of the line of sight from the vertical
     */
    public record Seen(Exposure photo, double u, double v, double fromMiddle, double gsdM, double angleRad) {}

    /** Best first: near the middle, where lenses draw best; those from which the ground hides it are left out. */
    public static List<Seen> of(BlockPlan plan, MarkedPlace at) {
        if (plan.heightsUnknown() || !Double.isFinite(at.upM())) {
            return List.of();
        }
        Optional<SightLine> sight = plan.overGround().map(known -> SightLine.plane(known.grid()));
        List<Seen> all = new ArrayList<>();
        for (Exposure photo : plan.flight().exposures()) {
            Pose pose = photo.pose();
            new View(photo.lens(), pose)
                    .of(at.xM(), at.yM(), at.upM())
                    .filter(View.Sighting::inFrame)
                    .filter(seen -> sight.map(clear -> clear.clear(
                                    at.xM(), at.yM(), at.upM() + ABOVE_M, pose.eastM(), pose.northM(), pose.upM()))
                            .orElse(true))
                    .ifPresent(seen -> all.add(seen(photo, seen, at)));
        }
        all.sort(Comparator.comparingDouble(Seen::fromMiddle));
        return all;
    }

    private static Seen seen(Exposure photo, View.Sighting sighting, MarkedPlace at) {
        Lens lens = photo.lens();
        double across = sighting.u() - lens.width() / 2.0;
        double along = sighting.v() - lens.height() / 2.0;
        double level = Math.hypot(
                at.xM() - photo.pose().eastM(), at.yM() - photo.pose().northM());
        return new Seen(
                photo,
                sighting.u(),
                sighting.v(),
                Math.hypot(across, along) / Math.hypot(lens.width() / 2.0, lens.height() / 2.0),
                sighting.depthM() / lens.fx(),
                Math.atan2(level, photo.upM() - at.upM()));
    }
}

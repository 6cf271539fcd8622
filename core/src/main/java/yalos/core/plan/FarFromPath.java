package yalos.core.plan;

import java.util.ArrayList;
import java.util.List;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.proof.Judgement;
import yalos.core.proof.WeakGround.Cause;

/** Why a place is seen from farther off than planned by a path that follows the ground: by the photos taken near it. */
final class FarFromPath implements Judgement.Far {
    private final HeightPlan heights;
    private final double plannedGsdM;
    /** Made when first asked: most plans are not too coarse anywhere. */
    private STRtree photos;

    /**
     * @param heights of a path that follows the ground
     * @param plannedGsdM at the planned height
     */
    FarFromPath(HeightPlan heights, double plannedGsdM) {
        this.heights = heights;
        this.plannedGsdM = plannedGsdM;
    }

    /**
     * The first of these that makes up half of what is too far: the path is held up by what the aircraft can climb, it stands higher over the ground
     * beneath it for other reasons, or neither: then the place lies lower than the ground beneath the photos that see it.
     *
     * @param gsdM with which the place is seen, in metres
     */
    @Override
    public Cause why(PlanePoint place, double gsdM) {
        double tooFarM = heights.heightM() * (gsdM / plannedGsdM - 1);
        List<Exposure> near = near(place);
        double heldM = near.stream().mapToDouble(heights::heldUpM).average().orElse(0);
        double aboveM = near.stream()
                .mapToDouble(heights::aboveGroundM)
                .filter(Double::isFinite)
                .map(above -> above - heights.heightM())
                .average()
                .orElse(0);
        if (heldM > tooFarM / 2) {
            return Cause.RAISED_PATH;
        }
        return aboveM > tooFarM / 2 ? Cause.KEPT_ABOVE : Cause.FALLS_AWAY;
    }

    /** Within half the planned height, which every camera in use sees. */
    private List<Exposure> near(PlanePoint place) {
        double reachM = heights.heightM() / 2;
        Envelope reach = new Envelope(new Coordinate(place.xM(), place.yM()));
        reach.expandBy(reachM);
        List<Exposure> near = new ArrayList<>();
        photos().query(reach, photo -> near.add((Exposure) photo));
        near.removeIf(photo -> photo.point().distanceM(place) > reachM);
        return near;
    }

    private synchronized STRtree photos() {
        if (photos == null) {
            photos = new STRtree();
            for (Exposure photo : heights.flight().exposures()) {
                photos.insert(
                        new Envelope(
                                new Coordinate(photo.point().xM(), photo.point().yM())),
                        photo);
            }
            photos.build();
        }
        return photos;
    }
}

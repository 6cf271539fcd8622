package yalos.core.plan;

import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Flight;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * A plan's heights over its real ground, or what of the ground is missing for them.
 *
 * @param grid heights over the block and round it
 * @param site obstacles and zones in the block's plane
 * @param heights of the path; empty when the model leaves part of the block unknown
 * @param unknownInside share of the block that the model does not know, 0..1
 * @param unknownAround share of the buffer round the block that the model does not know, 0..1
 * @param unknownPlace a place of the block that is not known, in its plane
 */
public record KnownGround(
        HeightGrid grid,
        SiteMap site,
        Optional<HeightPlan> heights,
        double unknownInside,
        double unknownAround,
        Optional<PlanePoint> unknownPlace) {
    private static final double LEAST_BUFFER_M = 50;
    private static final double BUFFER_STEP_M = 50;

    /** How far beyond the block the ground must be known for a footprint: half of it, and no less than 50 m. */
    static double bufferM(Design design) {
        double wanted = Math.max(LEAST_BUFFER_M, design.scale().footprintAcrossM() / 2 + design.marginM());
        return Math.ceil(wanted / BUFFER_STEP_M) * BUFFER_STEP_M;
    }

    /** Range between lowest and highest ground in the block, in metres; 0 where it is not known. */
    static double reliefM(GroundRequest ground, PlaneBlock block) {
        return HeightPlan.Relief.of(ground.source().over(block, LEAST_BUFFER_M), block)
                .map(HeightPlan.Relief::rangeM)
                .orElse(0.0);
    }

    static KnownGround of(GroundRequest ground, PlanRequest request, Design design, PlaneBlock block, Flight level) {
        HeightGrid grid = ground.source().over(block, bufferM(design));
        SiteMap site = new SiteMap(block.plane(), ground.obstacles(), ground.zones());
        boolean[] inside =
                block.inside(grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows());
        long in = 0;
        long unknownIn = 0;
        long unknownOut = 0;
        PlanePoint place = null;
        for (int i = 0; i < inside.length; i++) {
            boolean unknown = Float.isNaN(grid.heights()[i]);
            in += inside[i] ? 1 : 0;
            unknownIn += inside[i] && unknown ? 1 : 0;
            unknownOut += !inside[i] && unknown ? 1 : 0;
            if (inside[i] && unknown && place == null) {
                place = new PlanePoint(grid.x(i % grid.columns()), grid.y(i / grid.columns()));
            }
        }
        Optional<HeightPlan> heights = unknownIn > 0
                ? Optional.empty()
                : HeightPlan.Relief.of(grid, block)
                        .map(relief -> new HeightPlan(
                                grid,
                                site,
                                ground.choice(),
                                relief,
                                level,
                                design.scale().heightM(),
                                request.aircraft()))
                        .filter(HeightPlan::known);
        return new KnownGround(
                grid,
                site,
                heights,
                in == 0 ? 1 : (double) unknownIn / in,
                (double) unknownOut / Math.max(1, inside.length - in),
                Optional.ofNullable(place));
    }
}

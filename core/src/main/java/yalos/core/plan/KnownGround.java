package yalos.core.plan;

import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.flight.Flight;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.DesignPlane;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.height.Relief;
import yalos.core.plan.GroundRequest.Surveyed;
import yalos.core.site.Detour;
import yalos.core.site.SiteMap;
import yalos.core.terrain.HeightGrid;

/**
 * A plan's heights over its real ground, as far as that is known. Nothing is guessed: photos over unknown ground are left out.
 *
 * @param surveyed heights over the block and round it
 * @param site obstacles and zones in the block's plane
 * @param heights of the path; empty when no photo has known ground below it, or heights count from a take-off that nobody knows
 * @param takeOff from what the take-off level is known
 * @param leftOut photos that are not planned because nobody knows the ground below them
 * @param unknownInside share of the block that the model does not know, 0..1
 * @param unknownAround share of the buffer round the block that the model does not know, 0..1
 * @param unknownPlace a place of the block that is not known, in its plane
 */
public record KnownGround(
        Surveyed surveyed,
        SiteMap site,
        Optional<HeightPlan> heights,
        TakeOff takeOff,
        int leftOut,
        double unknownInside,
        double unknownAround,
        Optional<PlanePoint> unknownPlace) {
    private static final double LEAST_BUFFER_M = 50;
    private static final double BUFFER_STEP_M = 50;

    /** From what the height of the take-off point is known. */
    public enum TakeOff {
        /** Read from the model at the launch point. */
        MODEL,
        /** Measured on site; the model does not reach it. */
        MEASURED,
        /** No launch point is set: the ground below the first photo stands for it. */
        FIRST_PHOTO,
        /** The model does not reach the launch point, and nobody measured it. */
        UNKNOWN
    }

    /** The ground's grid. */
    public HeightGrid grid() {
        return surveyed.grid();
    }

    /** How far beyond the block the ground must be known for a footprint: half of it, and no less than 50 m. */
    static double bufferM(Design design) {
        double wanted = Math.max(LEAST_BUFFER_M, design.scale().footprintAcrossM() / 2 + design.marginM());
        return Math.ceil(wanted / BUFFER_STEP_M) * BUFFER_STEP_M;
    }

    /** Range between lowest and highest known ground in the block, in metres; 0 where none is known. */
    private static double reliefM(GroundRequest ground, PlaneBlock block) {
        return Relief.of(ground.source().over(block, LEAST_BUFFER_M).grid(), block)
                .map(Relief::rangeM)
                .orElse(0.0);
    }

    /** By how much the ground comes nearer to a level flight whose GSD holds on the lowest ground; lines are spaced for it. */
    static double loweringM(PlanRequest request, PlaneBlock block) {
        return request.ground()
                .filter(ground -> ground.choice().plane() == DesignPlane.BOTH)
                .filter(ground -> ground.choice().reference() == HeightReference.GEOID)
                .map(ground -> reliefM(ground, block))
                .orElse(0.0);
    }

    static KnownGround of(GroundRequest ground, PlanRequest request, Design design, PlaneBlock block, Flight level) {
        Surveyed surveyed = ground.source().over(block, bufferM(design));
        HeightGrid grid = surveyed.grid();
        SiteMap site = new SiteMap(block.plane(), ground.obstacles(), ground.zones());
        Flight over = HeightPlan.overKnown(
                grid, level, request.aircraft(), Detour.of(block.plane(), ground.zones(), level.highestLineM()));
        TakeOff takeOff = takeOff(ground, request);
        double takeOffM = takeOffM(takeOff, ground, request, grid, over);
        boolean counted = ground.choice().reference() != HeightReference.TAKE_OFF || !Double.isNaN(takeOffM);
        Optional<HeightPlan> heights = over.lines().isEmpty() || !counted
                ? Optional.empty()
                : Relief.of(grid, block)
                        .map(relief -> new HeightPlan(
                                grid,
                                site,
                                ground.choice(),
                                relief,
                                takeOffM,
                                over,
                                design.scale().heightM(),
                                request.aircraft()));
        Unknown unknown = Unknown.of(grid, block);
        return new KnownGround(
                surveyed,
                site,
                heights,
                takeOff,
                level.exposures().size() - over.exposures().size(),
                unknown.inside,
                unknown.around,
                unknown.place);
    }

    private static TakeOff takeOff(GroundRequest ground, PlanRequest request) {
        if (request.launch().isEmpty()) {
            return TakeOff.FIRST_PHOTO;
        }
        boolean read = !Double.isNaN(ground.source().heightM(request.launch().get()));
        return read ? TakeOff.MODEL : ground.takeOffLevelM().isPresent() ? TakeOff.MEASURED : TakeOff.UNKNOWN;
    }

    private static double takeOffM(
            TakeOff takeOff, GroundRequest ground, PlanRequest request, HeightGrid grid, Flight over) {
        return switch (takeOff) {
            case MODEL -> ground.source().heightM(request.launch().orElseThrow());
            case MEASURED -> ground.takeOffLevelM().orElseThrow();
            case FIRST_PHOTO ->
                over.exposures().stream()
                        .findFirst()
                        .map(photo -> grid.at(photo.pose().eastM(), photo.pose().northM()))
                        .orElse(Double.NaN);
            case UNKNOWN -> Double.NaN;
        };
    }

    /** How much of a grid is not known: shares inside and around a block, and a place inside. */
    private record Unknown(double inside, double around, Optional<PlanePoint> place) {
        static Unknown of(HeightGrid grid, PlaneBlock block) {
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
            return new Unknown(
                    in == 0 ? 1 : (double) unknownIn / in,
                    (double) unknownOut / Math.max(1, inside.length - in),
                    Optional.ofNullable(place));
        }
    }
}

package yalos.core.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Range;
import yalos.core.pattern.BestDirection;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Gaze;
import yalos.core.pattern.Pass;
import yalos.core.pattern.Pattern;
import yalos.core.pattern.QuickestGrid;
import yalos.core.pattern.StripGrid;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.HeightGrid;

/** The schools of direction compared on one block: each flown in thought, over its ground, in the wind to plan for. */
public final class Directions {
    private static final int STEPS = 360;
    /** Ground that rises by less on average has no contour to follow: 2 %. */
    private static final double LEVEL_SLOPE = 0.02;

    private final BlockPlan plan;

    private Directions(BlockPlan plan) {
        this.plan = plan;
    }

    /**
     * One direction on this block.
     *
     * @param by why it lies so
     * @param directionRad of the strips, clockwise from grid north, 0 to π
     * @param strips of all passes
     * @param turns between them
     * @param pathM length of the whole path
     * @param flightTimeS infinite where the wind forbids it
     * @param setShare of one battery set that it takes
     * @param crabRad greatest angle between nose and track; not a number where the wind forbids a strip
     * @param blurPx on the faster strips
     * @param slowMps ground speed on the slower strips
     * @param fastMps ground speed on the faster ones
     * @param intoS between photos on the slower strips
     * @param withS between photos on the faster ones
     */
    public record Row(
            DirectionBy by,
            double directionRad,
            int strips,
            int turns,
            double pathM,
            double flightTimeS,
            double setShare,
            double crabRad,
            double blurPx,
            double slowMps,
            double fastMps,
            double intoS,
            double withS) {
        /** Whether the wind lets it be flown at all. */
        public boolean feasible() {
            return Double.isFinite(flightTimeS);
        }
    }

    /** All schools that have a direction here; none for a corridor, which follows its axis. */
    public static List<Row> of(BlockPlan plan) {
        if (plan.request().patterns().corridor().isPresent()) {
            return List.of();
        }
        Directions directions = new Directions(plan);
        List<Row> rows = new ArrayList<>();
        for (DirectionBy by : DirectionBy.values()) {
            directions.direction(by).ifPresent(direction -> {
                try {
                    rows.add(directions.row(by, direction));
                } catch (InputFault tooMany) {
                    // A direction in which there would be too many photos is no choice.
                }
            });
        }
        return rows;
    }

    /** The direction a school asks for on this block as it stands now; empty where it has none. */
    public static OptionalDouble asked(BlockPlan plan, DirectionBy by) {
        return new Directions(plan).direction(by);
    }

    /** What a direction costs on this block. */
    public static Row row(BlockPlan plan, DirectionBy by, double directionRad) {
        return new Directions(plan).row(by, directionRad);
    }

    private OptionalDouble direction(DirectionBy by) {
        return switch (by) {
            case TIME ->
                OptionalDouble.of(BestDirection.of(
                                plan.covered(),
                                plan.mainPass().task(),
                                plan.timeline().pace(),
                                plan.flight().launch())
                        .directionRad());
            case LONGEST -> OptionalDouble.of(narrowest(plan.covered()));
            case SHORTEST -> OptionalDouble.of(widest(plan.covered()));
            case CONTOUR ->
                plan.overGround()
                        .map(ground -> contour(ground.grid(), plan.block()))
                        .orElse(OptionalDouble.empty());
            case INTO_WIND -> fromWind(0);
            case ACROSS_WIND -> fromWind(Math.PI / 2);
            case FIXED ->
                plan.request().pins().si(Quantity.DIRECTION).stream()
                        .map(StripGrid::halfTurn)
                        .findFirst();
        };
    }

    private OptionalDouble fromWind(double offRad) {
        return plan.wind()
                .map(wind -> OptionalDouble.of(StripGrid.halfTurn(wind.fromRad() + offRad)))
                .orElse(OptionalDouble.empty());
    }

    private Row row(DirectionBy by, double directionRad) {
        Gaze gaze = plan.mainPass().pattern().gaze();
        // In the least time a block may be flown in cells, each in its own direction.
        Pattern pattern = by == DirectionBy.TIME
                ? new QuickestGrid(gaze)
                : StripGrid.towards(directionRad).looking(gaze);
        BlockPlan flown = plan.flown(new Pass(pattern, plan.mainPass().task()));
        LineSpeeds lines = LineSpeeds.ofMainPass(flown);
        double usable = plan.usableMinutes() * 60;
        return new Row(
                by,
                StripGrid.halfTurn(flown.mainPass().pattern().directionRad().orElse(directionRad)),
                flown.flight().strips(),
                Math.max(0, flown.flight().strips() - 1),
                flown.flight().pathLengthM(),
                flown.flightTimeS(),
                flown.timeline().totalS() / usable,
                lines.crabRad(),
                lines.fastMps()
                        * plan.design().shutterTimeS()
                        / plan.design().scale().gsdAlongM(),
                lines.slowMps(),
                lines.fastMps(),
                plan.design().baseM() / lines.slowMps(),
                plan.design().baseM() / lines.fastMps());
    }

    /** Along the edge of the hull across which the block is narrowest: there are fewest strips, and they are longest. */
    static double narrowest(PlaneBlock block) {
        double[] hull = block.hull();
        double best = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < hull.length; i += 2) {
            int before = (i + hull.length - 2) % hull.length;
            double direction = StripGrid.halfTurn(Math.atan2(hull[i] - hull[before], hull[i + 1] - hull[before + 1]));
            double across = across(block, direction);
            if (across < least - 1e-9) {
                least = across;
                best = direction;
            }
        }
        return best;
    }

    /** The direction across which the block is widest, to half a degree. */
    static double widest(PlaneBlock block) {
        double best = 0;
        double most = 0;
        for (int i = 0; i < STEPS; i++) {
            double direction = i * Math.PI / STEPS;
            double across = across(block, direction);
            if (across > most + 1e-9) {
                most = across;
                best = direction;
            }
        }
        return best;
    }

    private static double across(PlaneBlock block, double directionRad) {
        Range ends = block.extent(directionRad + Math.PI / 2);
        return ends.length();
    }

    /** Square to the direction in which the ground of a block rises most, over all of it together; empty where it hardly rises. */
    static OptionalDouble contour(HeightGrid grid, PlaneBlock block) {
        boolean[] inside =
                block.inside(grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows());
        double ee = 0;
        double en = 0;
        double nn = 0;
        long count = 0;
        for (int row = 1; row + 1 < grid.rows(); row++) {
            for (int column = 1; column + 1 < grid.columns(); column++) {
                if (!inside[row * grid.columns() + column]) {
                    continue;
                }
                double east = (grid.cell(column + 1, row) - grid.cell(column - 1, row)) / (2 * grid.cellX());
                double north = (grid.cell(column, row - 1) - grid.cell(column, row + 1)) / (2 * grid.cellY());
                if (!Double.isNaN(east + north)) {
                    ee += east * east;
                    en += east * north;
                    nn += north * north;
                    count++;
                }
            }
        }
        if (count == 0 || Math.sqrt((ee + nn) / count) < LEVEL_SLOPE) {
            return OptionalDouble.empty();
        }
        double risingFromEast = 0.5 * Math.atan2(2 * en, ee - nn);
        return OptionalDouble.of(StripGrid.halfTurn(Math.PI / 2 - risingFromEast + Math.PI / 2));
    }
}

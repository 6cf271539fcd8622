package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;
import static yalos.core.pins.Quantity.*;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.height.HeightReference;
import yalos.core.height.LegSection;
import yalos.core.pins.Overlaps;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.Design;
import yalos.core.plan.GroundRequest;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Judgement;
import yalos.core.site.Obstacle;
import yalos.core.terrain.HeightGrid;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitKind;

/** What would a practitioner say about the ground under this plan, and what stands and hangs over it? */
final class GroundFindings {
    private static final double LEVEL_OFF_M = 5;
    private static final double OVERLAP_LOST = 0.02;
    private static final double SCALE_LOST = 1.1;
    private static final double RAISED_M = 3;
    /** So far below the middle of the ground much of the way to the strips is over lower ground. */
    private static final double LOW_LAUNCH_M = 10;

    private static final double LEAST_WATER_M2 = 100;

    private final BlockPlan plan;
    private final GroundRequest ground;
    private final HeightPlan heights;
    private final Judgement judgement;
    private final Collected found;
    private final Candidates candidates;

    static final List<Rule> RULES = Stream.<Consumer<GroundFindings>>of(
                    GroundFindings::takeOffLevel,
                    GroundFindings::ceiling,
                    GroundFindings::relief,
                    GroundFindings::raised,
                    GroundFindings::water)
            .map(rule -> (Rule) (one, found) ->
                    one.plan().heights().ifPresent(heights -> rule.accept(new GroundFindings(one, heights, found))))
            .toList();

    private GroundFindings(Case one, HeightPlan heights, Collected found) {
        this.plan = one.plan();
        this.ground = plan.request().ground().orElseThrow();
        this.heights = heights;
        this.judgement = one.judgement();
        this.found = found;
        this.candidates = new Candidates(plan, judgement, found);
    }

    private void takeOffLevel() {
        ground.takeOffLevelM().ifPresent(measured -> {
            double off = measured - heights.takeOffM();
            if (Math.abs(off) > LEVEL_OFF_M) {
                found.add(
                        STOP,
                        "take-off-level",
                        "The take-off point was measured at %s, the model has %s there: %s apart. The height system of the model is likely another one (ellipsoid, feet, or a local datum)."
                                .formatted(
                                        found.height(measured),
                                        found.height(heights.takeOffM()),
                                        found.height(Math.abs(off))));
            }
        });
    }

    /** The ceiling counts from the ground below, along the whole path. */
    private void ceiling() {
        HeightPlan.Greatest greatest = heights.greatestAboveGround().orElse(null);
        double ceiling = plan.ceilingM();
        if (greatest == null || plan.overCeilingM() == 0) {
            return;
        }
        Optional<Obstacle> tooTall = tooTall(greatest, ceiling);
        found.addAt(
                STOP,
                "ceiling",
                "%s above the ground on %s, %s over your ceiling of %s. %s is planned; %s. Check your local rules."
                        .formatted(
                                found.height(greatest.m()),
                                SiteFindings.name(greatest.leg()).toLowerCase(Locale.ROOT),
                                Collected.percent(greatest.m() / ceiling - 1),
                                found.height(ceiling),
                                found.height(heights.heightM()),
                                tooTall.map(this::raisedOver).orElseGet(() -> whyAbove(greatest.leg()))),
                greatest.leg().pointAt(greatest.step()),
                tooTall.isPresent() ? List.of() : belowTheCeiling(greatest.m() - ceiling));
    }

    private List<Remedy> belowTheCeiling(double overM) {
        double lower = heights.heightM() - overM;
        List<Remedy> remedies = new ArrayList<>(candidates.follow());
        if (lower > candidates.lowestM()) {
            Stream.of(lower, lower * 0.9)
                    .map(height -> found.down(UnitKind.HEIGHT, height, 1))
                    .filter(height -> height >= candidates.lowestM())
                    .map(height -> found.remedy("Fly at " + found.height(height), HEIGHT, height))
                    .forEach(remedies::add);
        }
        remedies.addAll(candidates.slower());
        remedies.addAll(candidates.alongContours());
        return remedies;
    }

    /** What stands there and cannot be cleared below the ceiling, however low and slowly the rest is flown. */
    private Optional<Obstacle> tooTall(HeightPlan.Greatest greatest, double ceilingM) {
        PlanePoint at = greatest.leg().pointAt(greatest.step());
        double reach = heights.choice().reachM(greatest.leg().stepM());
        return heights.site().obstaclesNear(at.xM(), at.yM(), reach).stream()
                .filter(obstacle -> obstacle.heightM() + heights.choice().keptM() > ceilingM)
                .max(Comparator.comparingDouble(Obstacle::heightM));
    }

    private String raisedOver(Obstacle obstacle) {
        return "it is raised over %s, %s high, to clear it by %s, and cannot be lower there"
                .formatted(
                        obstacle.name(),
                        found.height(obstacle.heightM()),
                        found.height(heights.choice().keptM()));
    }

    /** Whether much of the climb to the strips is won over lower ground. */
    private boolean launchedLow() {
        return heights.takeOffM() < heights.relief().meanM() - LOW_LAUNCH_M;
    }

    private String whyAbove(LegSection leg) {
        if (!leg.isLine()) {
            return "ways keep to the straight line between their ends, the way home to the height of the last strip"
                    + (launchedLow() ? "; from a launch point higher up they lie lower" : "");
        }
        return ground.choice().reference() == HeightReference.FOLLOW
                ? "the path is raised over obstacles and where it cannot sink as quickly as the ground"
                : "it counts from another level than the ground below";
    }

    /** Side overlap over the highest ground, by the pinhole formula. */
    private static double leastSide(BlockPlan plan, HeightPlan heights) {
        Design design = plan.design();
        double footprint = design.scale().footprintAcrossM()
                * heights.aboveGroundM()[0]
                / design.scale().heightM();
        return 1 - design.spacingM() / footprint;
    }

    /** Whether overlap falls below what is planned over the highest ground. */
    static boolean losesOverlap(BlockPlan plan) {
        return plan.heights()
                .filter(heights -> heights.aboveGroundM()[0] > 0)
                .filter(heights -> leastSide(plan, heights) < plan.design().sideOverlap() - OVERLAP_LOST)
                .isPresent();
    }

    /** Overlap over the highest ground and GSD over the lowest, by the pinhole formulas. */
    private void relief() {
        double[] above = heights.aboveGroundM();
        if (above[0] <= 0) {
            // Some photo lies below the ground: the clearance stops it, and there is no scale to speak of.
            return;
        }
        Design design = plan.design();
        double side = leastSide(plan, heights);
        double alongLeast =
                design.scale().footprintAlongM() * above[0] / design.scale().heightM();
        double forward = 1 - design.baseM() / alongLeast;
        boolean scanner = plan.request().kit().payload().scannerLeads();
        if (!scanner && losesOverlap(plan)) {
            List<Remedy> remedies =
                    candidates.followOrRaise(heights, plan.design().scale().heightM() - above[0]);
            double tightened =
                    1 - (1 - design.sideOverlap()) * above[0] / design.scale().heightM();
            if (tightened < 0.95) {
                Measure wanted = Measure.of(Math.ceil(tightened * 100), Unit.PERCENT);
                remedies.add(new Remedy("Side " + wanted.asTyped(), SIDE_OVERLAP, wanted));
            }
            found.add(
                    side < Overlaps.LOST_SIDE ? STOP : MIND,
                    "overlap-over-relief",
                    "Over the highest ground the aircraft is only %s up: side overlap falls to %s, forward to %s; %s and %s are planned."
                            .formatted(
                                    found.height(above[0]),
                                    Collected.percent(Math.max(0, side)),
                                    Collected.percent(Math.max(0, forward)),
                                    Collected.percent(design.sideOverlap()),
                                    Collected.percent(design.forwardOverlap())),
                    remedies.toArray(Remedy[]::new));
        }
        double coarsest = design.scale().gsdM() * above[2] / design.scale().heightM();
        if (coarsest > design.scale().gsdM() * SCALE_LOST && !toldAsCoarse()) {
            found.add(
                    NOTE,
                    "gsd-over-relief",
                    "GSD runs from %s over the highest ground to %s over the lowest."
                            .formatted(
                                    found.text(
                                            GSD,
                                            design.scale().gsdM()
                                                    * above[0]
                                                    / design.scale().heightM()),
                                    found.text(GSD, coarsest)));
        }
    }

    /** One cause, one finding: ground judged too coarse says itself where that comes from. */
    private boolean toldAsCoarse() {
        return judgement.share(Adequacy.TOO_COARSE) >= CoverageFindings.WORTH_SAYING;
    }

    /** Where the aircraft cannot climb or sink as the ground does it flies higher than planned. */
    private void raised() {
        if (ground.choice().reference() != HeightReference.FOLLOW) {
            return;
        }
        double most = heights.aboveGroundM()[2] - heights.heightM();
        if (most > RAISED_M && !toldAsCoarse()) {
            found.add(
                    NOTE,
                    "raised",
                    "Over steep ground the path keeps up to %s more above it than planned: it follows the highest ground beneath it, and climbs at %s at most."
                            .formatted(
                                    found.height(most),
                                    found.text(
                                            UnitKind.SPEED,
                                            plan.request().aircraft().climbMps())));
        }
    }

    /** Ground that is level to the centimetre over a wide piece is hardly ever dry. */
    private void water() {
        HeightGrid grid = heights.grid();
        boolean[] inside =
                plan.block().inside(grid.west(), grid.north(), grid.cellX(), grid.cellY(), grid.columns(), grid.rows());
        int still = 0;
        PlanePoint place = null;
        for (int row = 1; row + 1 < grid.rows(); row++) {
            for (int column = 1; column + 1 < grid.columns(); column++) {
                if (inside[row * grid.columns() + column] && levelRound(grid, column, row)) {
                    still++;
                    place = place == null ? new PlanePoint(grid.x(column), grid.y(row)) : place;
                }
            }
        }
        double area = still * grid.cellX() * grid.cellY();
        boolean flatModel = area > 0.5 * plan.block().areaM2();
        if (area > LEAST_WATER_M2 && !flatModel) {
            found.addAt(
                    MIND,
                    "water",
                    "%s lie level to the centimetre, as still water does. Photos of it do not match: expect a hole there, or cut it out of the block."
                            .formatted(found.units().areaText(area)),
                    place,
                    List.of());
        }
    }

    private static boolean levelRound(HeightGrid grid, int column, int row) {
        float here = grid.cell(column, row);
        for (int down = -1; down <= 1; down++) {
            for (int across = -1; across <= 1; across++) {
                if (!(Math.abs(grid.cell(column + across, row + down) - here) < 0.01f)) {
                    return false;
                }
            }
        }
        return true;
    }
}

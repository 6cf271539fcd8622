package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;
import static yalos.core.pins.Quantity.*;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.flight.Exposure;
import yalos.core.flight.Link;
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
import yalos.core.site.Zone;
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
    private static final double CEILING_DUST_M = 0.05;
    /** An obstacle this near to the launch point is touched sooner or later. */
    private static final double TOUCHING_M = 5;

    private static final double LEAST_WATER_M2 = 100;

    private final BlockPlan plan;
    private final GroundRequest ground;
    private final HeightPlan heights;
    private final Judgement judgement;
    private final Collected found;
    private final Candidates candidates;

    static final List<Rule> RULES = Stream.of(
                    overModel(List.of(
                            GroundFindings::takeOffLevel,
                            GroundFindings::ceiling,
                            GroundFindings::relief,
                            GroundFindings::raised,
                            GroundFindings::water)),
                    overSite(List.of(
                            GroundFindings::clearance,
                            GroundFindings::ways,
                            GroundFindings::zones,
                            GroundFindings::launch,
                            GroundFindings::returning)))
            .flatMap(List::stream)
            .toList();

    private GroundFindings(
            BlockPlan plan, GroundRequest ground, HeightPlan heights, Judgement judgement, Collected found) {
        this.judgement = judgement;
        this.plan = plan;
        this.ground = ground;
        this.heights = heights;
        this.found = found;
        this.candidates = new Candidates(plan, judgement, found);
    }

    /** Rules that need heights over a model. */
    private static List<Rule> overModel(List<Consumer<GroundFindings>> rules) {
        return rules.stream()
                .map(rule -> (Rule)
                        (one, found) -> one.plan().heights().ifPresent(heights -> rule.accept(of(one, heights, found))))
                .toList();
    }

    /** Rules about what stands and hangs on the site, with a model or without. */
    private static List<Rule> overSite(List<Consumer<GroundFindings>> rules) {
        return rules.stream()
                .map(rule -> (Rule) (one, found) -> one.plan()
                        .heights()
                        .or(one.plan()::overLevelSite)
                        .ifPresent(heights -> rule.accept(of(one, heights, found))))
                .toList();
    }

    private static GroundFindings of(Case one, HeightPlan heights, Collected found) {
        return new GroundFindings(
                one.plan(), one.plan().request().ground().orElseThrow(), heights, one.judgement(), found);
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

    private void clearance() {
        LegSection leg = heights.nearestSection();
        double wanted = ground.choice().clearanceM();
        if (leg.clearanceM() >= wanted - 0.01) {
            return;
        }
        int step = leg.nearestStep();
        PlanePoint place = leg.pointAt(step);
        String what = heights.site().obstaclesNear(place.xM(), place.yM(), heights.reachM(leg.stepM())).stream()
                .max(Comparator.comparingDouble(Obstacle::heightM))
                .map(Obstacle::name)
                .orElse("the ground");
        String how = leg.clearanceM() > 0
                ? "comes within %s of %s".formatted(found.height(leg.clearanceM()), what)
                : "runs %s below the top of %s".formatted(found.height(-leg.clearanceM()), what);
        found.addAt(
                STOP,
                "clearance",
                "%s %s; %s above it are to be kept.".formatted(name(leg), how, found.height(wanted)),
                place,
                followOrRaise(wanted - leg.clearanceM()));
    }

    private static String name(LegSection leg) {
        if (leg.isLine()) {
            return "Strip " + leg.line();
        }
        Link.Kind kind = leg.way() instanceof Link link ? link.kind() : Link.Kind.TURN;
        return switch (kind) {
            case OUT -> "The way out";
            case HOME -> "The way home";
            default -> "The way between strips";
        };
    }

    /** Files hold strips and stations; what the ways between them must rise to is for the operator to set. */
    private void ways() {
        heights.raisedWays().ifPresent(ways -> {
            if (ways.mostM() > RAISED_M) {
                found.addAt(
                        MIND,
                        "ways-raised",
                        "Between strips the straight line does not clear everything: a way must rise by %s there. The files hold strips and stations only, so set the height for the ways between to %s above take-off or more."
                                .formatted(
                                        found.height(ways.mostM()),
                                        found.height(Math.ceil(ways.highestM() - heights.takeOffM()))),
                        ways.place(),
                        List.of());
            }
        });
    }

    private List<Remedy> followOrRaise(double missingM) {
        List<Remedy> remedies = new ArrayList<>();
        if (!ground.isLevel() && ground.choice().reference() != HeightReference.FOLLOW) {
            remedies.add(new Remedy("Follow the ground", new Remedy.Heights(HeightReference.FOLLOW)));
        }
        double raised = Math.ceil(heights.heightM() + missingM);
        if (raised <= plan.ceilingM()) {
            remedies.add(found.remedy("Fly at " + found.height(raised), HEIGHT, raised));
        }
        return remedies;
    }

    /** The ceiling counts from the ground below, along the whole path. */
    private void ceiling() {
        HeightPlan.Greatest greatest = heights.greatestAboveGround().orElse(null);
        double ceiling = plan.ceilingM();
        if (greatest == null || greatest.m() <= ceiling + CEILING_DUST_M) {
            return;
        }
        double most = Math.floor(heights.heightM() - (greatest.m() - ceiling));
        List<Remedy> remedies = new ArrayList<>(candidates.follow());
        if (most > 0) {
            remedies.add(found.remedy("Fly at " + found.height(most), HEIGHT, most));
            remedies.add(found.remedy("Fly at " + found.height(most * 0.9), HEIGHT, most * 0.9));
        }
        remedies.addAll(candidates.slower());
        remedies.addAll(candidates.alongContours());
        found.addAt(
                STOP,
                "ceiling",
                "%s above the ground on %s, %s over your ceiling of %s. %s is planned%s; check your local rules."
                        .formatted(
                                found.height(greatest.m()),
                                greatest.leg().isLine()
                                        ? "strip " + greatest.leg().line()
                                        : "a way between strips",
                                Collected.percent(greatest.m() / ceiling - 1),
                                found.height(ceiling),
                                found.height(heights.heightM()),
                                ground.choice().reference() == HeightReference.FOLLOW
                                        ? ", and the path is raised over obstacles and where it cannot sink as quickly as the ground"
                                        : " above another level than the ground below"),
                greatest.leg().pointAt(greatest.step()),
                remedies);
    }

    /** What stands or hangs where it takes off: the climb is straight up, and people stand there. */
    private void launch() {
        heights.flight().launch().ifPresent(at -> {
            double wanted = ground.choice().clearanceM();
            heights.site().obstaclesNear(at.xM(), at.yM(), wanted).stream()
                    .max(Comparator.comparingDouble(Obstacle::heightM))
                    .ifPresent(near -> found.addAt(
                            heights.site()
                                            .obstaclesNear(at.xM(), at.yM(), TOUCHING_M)
                                            .isEmpty()
                                    ? MIND
                                    : STOP,
                            "launch-obstacle",
                            "%s, %s high, stands within %s of the launch point. Climb and landing run beside it; move the launch point away."
                                    .formatted(near.name(), found.height(near.heightM()), found.height(wanted)),
                            at,
                            List.of()));
            heights.site()
                    .zonesAt(at.xM(), at.yM(), 0)
                    .forEach(zone -> found.addAt(
                            zone.kind() == Zone.Kind.KEEP_OUT ? STOP : MIND,
                            "launch-zone-" + zone.name(),
                            "The launch point lies in “%s” (%s). Move it, or get leave; the rules of the place decide."
                                    .formatted(zone.name(), zone.kind().words()),
                            at,
                            List.of()));
        });
    }

    /** Overlap over the highest ground and GSD over the lowest, by the pinhole formulas. */
    private void relief() {
        double[] above = heights.aboveGroundM();
        if (above[0] <= 0) {
            // Some photo lies below the ground: the clearance stops it, and there is no scale to speak of.
            return;
        }
        Design design = plan.design();
        double footprintLeast =
                design.scale().footprintAcrossM() * above[0] / design.scale().heightM();
        double side = 1 - design.spacingM() / footprintLeast;
        double alongLeast =
                design.scale().footprintAlongM() * above[0] / design.scale().heightM();
        double forward = 1 - design.baseM() / alongLeast;
        boolean scanner = plan.request().kit().payload().scannerLeads();
        if (!scanner && side < design.sideOverlap() - OVERLAP_LOST) {
            List<Remedy> remedies = followOrRaise(plan.design().scale().heightM() - above[0]);
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

    /** Where the path first meets a zone, and how many photos are taken in it. */
    private static final class Crossing {
        private final LegSection leg;
        private final PlanePoint place;
        private int photos;

        Crossing(LegSection leg, PlanePoint place) {
            this.leg = leg;
            this.place = place;
        }
    }

    /** The whole path counts, ways between strips too; over unknown ground the planned height stands for the true one. */
    private void zones() {
        if (!heights.site().hasZones()) {
            return;
        }
        Map<Zone, Crossing> crossed = new LinkedHashMap<>();
        for (LegSection leg : heights.sections()) {
            for (int step = 0; step < leg.pathM().length; step++) {
                double above = leg.pathM()[step] - leg.groundM()[step];
                PlanePoint place = leg.pointAt(step);
                heights.site()
                        .zonesAt(place.xM(), place.yM(), Double.isNaN(above) ? heights.heightM() : above)
                        .forEach(zone -> crossed.computeIfAbsent(zone, first -> new Crossing(leg, place)));
            }
        }
        for (Exposure exposure : heights.flight().exposures()) {
            PlanePoint place = exposure.point();
            heights.site()
                    .zonesAt(place.xM(), place.yM(), heights.aboveGroundM(exposure))
                    .forEach(zone -> crossed.computeIfAbsent(
                                    zone, first -> new Crossing(heights.section(exposure.line()), place))
                            .photos++);
        }
        crossed.forEach(this::zone);
    }

    private void zone(Zone zone, Crossing crossing) {
        boolean keepOut = zone.kind() == Zone.Kind.KEEP_OUT;
        String photos = crossing.photos == 1 ? "1 photo is" : crossing.photos + " photos are";
        found.addAt(
                keepOut ? STOP : MIND,
                "zone-" + zone.name(),
                "%s enters “%s” (%s, from %s%s above ground); %s taken in it. %s"
                        .formatted(
                                name(crossing.leg),
                                zone.name(),
                                zone.kind().words(),
                                found.height(zone.floorM()),
                                Double.isInfinite(zone.ceilingM()) ? "" : " to " + found.height(zone.ceilingM()),
                                photos,
                                keepOut
                                        ? "Cut a hole into the block there and move the launch point, or get leave; the rules of the place decide."
                                        : "Ask whoever looks after it; the rules of the place decide."),
                crossing.place,
                List.of());
    }

    private void returning() {
        if (ground.isLevel() && !heights.site().hasObstacles()) {
            return;
        }
        double height = heights.returnAboveTakeOffM();
        found.add(
                NOTE,
                "return-height",
                "Return height: %s above take-off or more. It clears the highest ground and obstacles; the highest point of the path is %s above take-off."
                        .formatted(
                                found.height(Math.ceil(height)),
                                found.height(heights.highestM() - heights.takeOffM())));
    }
}

package yalos.core.finding;

import static yalos.core.finding.Finding.Level.*;

import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.flight.Exposure;
import yalos.core.flight.Link;
import yalos.core.geodesy.PlanePoint;
import yalos.core.height.HeightPlan;
import yalos.core.height.LegSection;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.GroundRequest;
import yalos.core.site.Obstacle;
import yalos.core.site.Zone;
import yalos.core.units.UnitKind;

/** What would a practitioner say about what stands and hangs on the site, with a model under it or without? */
final class SiteFindings {
    private static final double RAISED_M = 3;
    /** An obstacle this near to the launch point is touched sooner or later. */
    private static final double TOUCHING_M = 5;

    /** About the path over the ground. */
    static final List<Rule> RULES = all(List.of(SiteFindings::clearance, SiteFindings::ways, SiteFindings::zones));

    /** About taking off and coming home. */
    static final List<Rule> LAUNCH_RULES = Stream.concat(
                    all(List.of(SiteFindings::launch)).stream(), Stream.<Rule>of(SiteFindings::returning))
            .toList();

    private final GroundRequest ground;
    private final HeightPlan heights;
    private final Collected found;
    private final Candidates candidates;

    private static List<Rule> all(List<Consumer<SiteFindings>> rules) {
        return rules.stream()
                .map(rule -> (Rule) (one, found) -> one.plan()
                        .heights()
                        .or(one.plan()::overLevelSite)
                        .ifPresent(heights -> rule.accept(new SiteFindings(one, heights, found))))
                .toList();
    }

    private SiteFindings(Case one, HeightPlan heights, Collected found) {
        this.ground = one.plan().request().ground().orElseThrow();
        this.heights = heights;
        this.found = found;
        this.candidates = new Candidates(one.plan(), one.judgement(), found);
    }

    private void clearance() {
        LegSection leg = heights.nearestSection();
        double wanted = ground.choice().keptM();
        if (leg.clearanceM() >= wanted - 0.01) {
            return;
        }
        int step = leg.nearestStep();
        PlanePoint place = leg.pointAt(step);
        String what =
                heights
                        .site()
                        .obstaclesNear(place.xM(), place.yM(), heights.choice().reachM(leg.stepM()))
                        .stream()
                        .max(Comparator.comparingDouble(Obstacle::heightM))
                        .map(Obstacle::name)
                        .orElse("the ground");
        String how = leg.clearanceM() > 0
                ? "comes within %s of %s".formatted(found.height(leg.clearanceM()), what)
                : "runs %s below the top of %s".formatted(found.height(-leg.clearanceM()), what);
        found.addAt(
                STOP,
                "clearance",
                "%s %s; %s above it are to be kept%s.".formatted(name(leg), how, found.height(wanted), allowed(wanted)),
                place,
                candidates.followOrRaise(heights, wanted - leg.clearanceM()));
    }

    private String allowed(double keptM) {
        double allowed = keptM - ground.choice().clearanceM();
        return allowed > 0 ? ", %s of it because the model may be wrong".formatted(found.height(allowed)) : "";
    }

    /** What a leg of the path is called at the head of a sentence. */
    static String name(LegSection leg) {
        if (leg.isLine()) {
            return "Strip " + leg.line();
        }
        Link.Kind kind = leg.way() instanceof Link link ? link.kind() : Link.Kind.TURN;
        return switch (kind) {
            case OUT -> "The way out";
            case HOME -> "The way home";
            case ALIGN -> "The straight run of the alignment";
            default -> "The way between strips";
        };
    }

    /** Files hold strips and stations; what the ways between them must rise to is for the operator to set. */
    private void ways() {
        heights.raisedWays().ifPresent(ways -> {
            if (ways.mostM() > RAISED_M && !Double.isNaN(heights.takeOffM())) {
                found.addAt(
                        MIND,
                        "ways-raised",
                        "Between strips the straight line does not clear everything: a way must rise by %s there. The files hold strips and stations only, so set the height for the ways between to %s above take-off or more."
                                .formatted(
                                        found.height(ways.mostM()),
                                        found.height(
                                                found.up(UnitKind.HEIGHT, ways.highestM() - heights.takeOffM(), 1))),
                        ways.place(),
                        List.of());
            }
        });
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
                            zone.kind() == Zone.Kind.CAUTION ? MIND : STOP,
                            "launch-zone-" + zone.name(),
                            "The launch point lies %s “%s” (%s). Move it, or get leave; the rules of the place decide."
                                    .formatted(
                                            zone.kind() == Zone.Kind.KEEP_IN ? "outside" : "in",
                                            zone.name(),
                                            zone.kind().words()),
                            at,
                            List.of()));
        });
    }

    /** The whole path counts, ways between strips too; over unknown ground the planned height stands for the true one. */
    private void zones() {
        if (!heights.site().hasZones()) {
            return;
        }
        ZonesMet met = new ZonesMet(heights.site(), heights.heightM());
        for (LegSection leg : heights.sections()) {
            for (int step = 0; step < leg.pathM().length; step++) {
                met.place(name(leg), leg.pointAt(step), leg.pathM()[step] - leg.groundM()[step]);
            }
        }
        for (Exposure photo : heights.flight().exposures()) {
            met.photo(name(heights.section(photo.line())), photo.point(), heights.aboveGroundM(photo));
        }
        met.tell(
                found,
                "zone-",
                "Cut a hole into the block there and move the launch point, or get leave",
                "Draw the block back, or the zone as it is");
    }

    private static void returning(Case one, Collected found) {
        BlockPlan plan = one.plan();
        boolean objects = plan.structures().filter(of -> !of.built().isEmpty()).isPresent();
        boolean obstacles = plan.request()
                .ground()
                .filter(ground -> !ground.obstacles().isEmpty())
                .isPresent();
        if (plan.heights().isPresent() || objects || obstacles) {
            // An unknown take-off level is stopped for by its own finding.
            plan.returnAboveTakeOffM()
                    .ifPresent(height -> found.add(
                            NOTE,
                            "return-height",
                            "Return height: %s above take-off or more. It clears the highest ground%s; the highest point of the path is %s above take-off."
                                    .formatted(
                                            found.height(height),
                                            objects ? ", obstacles and objects" : " and obstacles",
                                            found.height(plan.flight().highestM()
                                                    - plan.flight().takeOffUpM()))));
        }
    }
}

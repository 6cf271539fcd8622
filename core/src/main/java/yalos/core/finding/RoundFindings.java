package yalos.core.finding;

import static yalos.core.finding.Finding.Level.MIND;
import static yalos.core.finding.Finding.Level.NOTE;
import static yalos.core.finding.Finding.Level.STOP;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.kit.Aircraft;
import yalos.core.pattern.CircleShots;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.UnderDeck;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.units.UnitKind;

/** What would a practitioner say about each pass round objects? */
final class RoundFindings {

    private final Case one;
    private final BlockPlan plan;
    private final StructurePlan objects;
    private final Collected found;

    static final List<Rule> RULES = Stream.<Consumer<RoundFindings>>of(
                    RoundFindings::passesThatCannotBeFlown,
                    RoundFindings::photosLeftOut,
                    RoundFindings::waysBeyondLimits,
                    RoundFindings::wings,
                    RoundFindings::bank,
                    RoundFindings::interval,
                    RoundFindings::underDecks,
                    RoundFindings::followingCircles,
                    RoundFindings::largeCircles,
                    RoundFindings::nearWalls)
            .map(rule -> (Rule) (one, found) ->
                    one.plan().structures().ifPresent(objects -> rule.accept(new RoundFindings(one, objects, found))))
            .toList();

    private RoundFindings(Case one, StructurePlan objects, Collected found) {
        this.one = one;
        this.plan = one.plan();
        this.objects = objects;
        this.found = found;
    }

    private static String named(StructurePass pass) {
        String words = pass.words();
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    private void passesThatCannotBeFlown() {
        for (StructureFlight.OfPass pass : objects.passes()) {
            pass.fault()
                    .ifPresent(fault -> found.add(
                            STOP, "round-fault", named(pass.wanted()) + ", cannot be flown: " + fault.getMessage()));
        }
        if (objects.flown().filter(flown -> !flown.reached()).isPresent()) {
            found.add(
                    STOP,
                    "round-way",
                    "No way of %s clear was found between two runs; the path drawn there goes straight. Stand off farther, or keep less clear."
                            .formatted(found.height(objects.wanted().clear().si())));
        }
    }

    private void photosLeftOut() {
        for (StructureFlight.OfPass pass : objects.passes()) {
            int lost =
                    pass.leftOut().values().stream().mapToInt(Integer::intValue).sum();
            if (lost == 0) {
                continue;
            }
            Map.Entry<StructureFlight.LeftOut, Integer> most = pass.leftOut().entrySet().stream()
                    .max(Map.Entry.comparingByValue())
                    .orElseThrow();
            String of = pass.photos() == 0
                    ? "None of %,d photos".formatted(lost)
                    : "%,d of %,d photos".formatted(lost, lost + pass.photos());
            boolean seenAll = one.faces()
                    .filter(proof -> proof.share() >= StructureFindings.NEARLY)
                    .isPresent();
            found.add(
                    pass.photos() == 0 ? STOP : seenAll ? NOTE : MIND,
                    "round-left-out",
                    "%s of the %s %s flown: %s %s. What is then seen of the faces stands in the elevation view."
                            .formatted(
                                    of,
                                    pass.wanted().words(),
                                    pass.photos() == 0 ? "is" : "are not",
                                    lost == most.getValue() ? "they" : "most of them",
                                    most.getKey().words()));
        }
    }

    /** A floor or a ceiling holds for the ways between runs too; over an object they may have to rise. */
    private void waysBeyondLimits() {
        for (StructureFlight.OfPass pass : objects.passes()) {
            double foot = objects.scene().footM(pass.wanted().object()).orElse(0);
            double floor = pass.wanted().habit().floor().map(m -> foot + m.si()).orElse(Double.NEGATIVE_INFINITY);
            double ceiling =
                    pass.wanted().habit().ceiling().map(m -> foot + m.si()).orElse(Double.POSITIVE_INFINITY);
            List<Leg> since = new ArrayList<>();
            boolean within = false;
            for (Leg leg : plan.flight().legs()) {
                if (leg instanceof Line line) {
                    boolean mine = line.pass() == pass.number();
                    Optional<Leg> beyond = within && mine
                            ? since.stream()
                                    .filter(way -> way.end().upM() > ceiling + StructureFindings.HAIR_M
                                            || way.end().upM() < floor - StructureFindings.HAIR_M)
                                    .findFirst()
                            : Optional.empty();
                    if (beyond.isPresent()) {
                        found.addAt(
                                STOP,
                                "round-limits",
                                "A way between two runs of the %s leads %s above the foot, beyond its floor or ceiling. Leave out the faces between, or fly them as passes of their own."
                                        .formatted(
                                                pass.wanted().words(),
                                                found.height(beyond.get().end().upM() - foot)),
                                beyond.get().end().point(),
                                List.of());
                        break;
                    }
                    within = mine;
                    since.clear();
                } else {
                    since.add(leg);
                }
            }
        }
    }

    private void wings() {
        Aircraft aircraft = plan.request().aircraft();
        if (!aircraft.kind().wing()) {
            return;
        }
        objects.passes().stream()
                .map(StructureFlight.OfPass::wanted)
                .filter(pass -> !(pass instanceof Rings || pass instanceof Circles))
                .findFirst()
                .ifPresent(pass -> found.add(
                        STOP,
                        "round-wing",
                        "%s needs an aircraft that can stand in the air; a %s flies %s at least. Take a multirotor in Kit."
                                .formatted(
                                        named(pass),
                                        aircraft.kind().words(),
                                        found.text(UnitKind.SPEED, aircraft.slowestMps()))));
    }

    private void bank() {
        Aircraft aircraft = plan.request().aircraft();
        for (StructureFlight.OfPass pass : objects.passes()) {
            if (pass.fault().isPresent()) {
                continue;
            }
            CircleShots shots = pass.wanted() instanceof Rings rings
                    ? rings.shots(objects.scene())
                    : pass.wanted() instanceof Circles circles ? circles.shots(objects.scene()) : null;
            if (shots != null && shots.bankRad() > aircraft.bankRad() + 1e-6) {
                found.add(
                        aircraft.kind().wing() ? STOP : MIND,
                        "round-bank",
                        String.format(
                                Locale.ROOT,
                                "A bank of %.0f° is needed on the %s at %s; this aircraft banks %.0f°. Fly slower, or on a larger radius.",
                                Math.toDegrees(shots.bankRad()),
                                pass.wanted().words(),
                                found.text(UnitKind.SPEED, pass.speedMps()),
                                Math.toDegrees(aircraft.bankRad())));
            }
        }
    }

    private void interval() {
        double least = plan.request().kit().payload().slowestIntervalS();
        for (StructureFlight.OfPass pass : objects.passes()) {
            if (pass.closestShotsS() < least - 1e-3) {
                found.add(
                        STOP,
                        "round-interval",
                        "A photo every %s is asked of the camera on the %s; it takes one every %s at best. Fly slower there, or take fewer photos."
                                .formatted(
                                        found.text(UnitKind.INTERVAL, pass.closestShotsS()),
                                        pass.wanted().words(),
                                        found.text(UnitKind.INTERVAL, least)));
            }
            double blur = pass.speedMps() * plan.design().shutterTimeS() / pass.gsdM();
            double most = objects.scene().pace().blurPx();
            if (blur > most * 1.001) {
                found.add(
                        MIND,
                        "round-blur",
                        "Motion blur is %s on the %s at %s; %s are allowed. Fly slower there, or open the shutter for less long."
                                .formatted(
                                        found.text(UnitKind.PIXELS, blur),
                                        pass.wanted().words(),
                                        found.text(UnitKind.SPEED, pass.speedMps()),
                                        found.text(UnitKind.PIXELS, most)));
            }
        }
    }

    /** Nothing of this is folded away: it can cost the aircraft. */
    private void underDecks() {
        objects.passes().stream()
                .filter(pass -> pass.wanted() instanceof UnderDeck && pass.photos() > 0)
                .findFirst()
                .ifPresent(pass -> found.add(
                        MIND,
                        "under-deck",
                        "Under the deck %,d photos are taken most likely without satellites, at %s: positions and return home cannot be relied upon there. Fly by hand or by sight with an observer, keep the link in line of sight, set “lost link” to hover and not to rise, and mind water, traffic and people below; the owner's and your local rules decide."
                                .formatted(pass.photos(), found.text(UnitKind.SPEED, pass.speedMps()))));
    }

    private void followingCircles() {
        objects.passes().stream()
                .filter(pass -> pass.wanted() instanceof Circles circles && circles.follows())
                .findFirst()
                .ifPresent(pass -> found.add(
                        NOTE,
                        "circles-following",
                        "%,d tilted photos follow the ground on circles. Some aircraft cannot tilt the camera and follow at once; check yours."
                                .formatted(pass.photos())));
    }

    private void largeCircles() {
        double width =
                Math.min(plan.block().bounds().width(), plan.block().bounds().height());
        objects.passes().stream()
                .filter(pass -> pass.wanted() instanceof Circles circles
                        && 2 * circles.radius().si() > 1.5 * width)
                .findFirst()
                .ifPresent(pass -> found.add(
                        NOTE,
                        "circles-large",
                        "Circles %s wide are larger than the block, which is %s across: most of what they show lies beyond it."
                                .formatted(
                                        found.text(
                                                UnitKind.DISTANCE,
                                                2
                                                        * ((Circles) pass.wanted())
                                                                .radius()
                                                                .si()),
                                        found.text(UnitKind.DISTANCE, width))));
    }

    private void nearWalls() {
        double nearest = objects.passes().stream()
                .filter(pass -> pass.wanted().object().isPresent() && pass.photos() > 0)
                .mapToDouble(StructureFlight.OfPass::standOffM)
                .min()
                .orElse(Double.POSITIVE_INFINITY);
        if (nearest < 30) {
            found.add(
                    NOTE,
                    "near-walls",
                    "It flies %s off: walls hide satellites and turn the wind at corners. Keep people away from below, keep the aircraft in sight, and stop when it drifts."
                            .formatted(found.text(UnitKind.DISTANCE, nearest)));
        }
    }
}

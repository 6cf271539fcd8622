package yalos.core.finding;

import static yalos.core.finding.Finding.Level.MIND;
import static yalos.core.finding.Finding.Level.NOTE;
import static yalos.core.finding.Finding.Level.STOP;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Leg;
import yalos.core.flight.Line;
import yalos.core.geodesy.PlanePoint;
import yalos.core.kit.Aircraft;
import yalos.core.pattern.CircleShots;
import yalos.core.pattern.Circles;
import yalos.core.pattern.PathClearance;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.UnderDeck;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.site.SiteMap;
import yalos.core.site.Zone;
import yalos.core.units.UnitKind;

/** What would a practitioner say about objects and what is flown round them? */
final class StructureFindings {
    /** Ways beside objects are reckoned at corners; a path is not refused for less. */
    private static final double HAIR_M = 0.25;

    private static final double NEARLY = 0.98;

    private final Case one;
    private final BlockPlan plan;
    private final StructurePlan objects;
    private final Collected found;

    static final List<Rule> RULES = Stream.<Consumer<StructureFindings>>of(
                    StructureFindings::objectsThatCannotStand,
                    StructureFindings::launch,
                    StructureFindings::passesThatCannotBeFlown,
                    StructureFindings::photosLeftOut,
                    StructureFindings::nearness,
                    StructureFindings::zones,
                    StructureFindings::ceiling,
                    StructureFindings::waysBeyondLimits,
                    StructureFindings::wings,
                    StructureFindings::bank,
                    StructureFindings::interval,
                    StructureFindings::underDecks,
                    StructureFindings::followingCircles,
                    StructureFindings::largeCircles,
                    StructureFindings::nearWalls,
                    StructureFindings::alone,
                    StructureFindings::faces)
            .map(rule -> (Rule) (one, found) -> one.plan()
                    .structures()
                    .ifPresent(objects -> rule.accept(new StructureFindings(one, objects, found))))
            .toList();

    private StructureFindings(Case one, StructurePlan objects, Collected found) {
        this.one = one;
        this.plan = one.plan();
        this.objects = objects;
        this.found = found;
    }

    private static String named(StructurePass pass) {
        String words = pass.words();
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    private void objectsThatCannotStand() {
        for (InputFault fault : objects.faults()) {
            found.add(STOP, "object-" + fault.field(), fault.getMessage());
        }
    }

    /** Climb and landing are straight up and down. */
    private void launch() {
        double clear = objects.wanted().clear().si();
        plan.flight()
                .launch()
                .ifPresent(at -> objects.built().stream()
                        .min(Comparator.comparingDouble(one -> one.solid().asideM(at)))
                        .filter(one -> one.solid().asideM(at) < clear)
                        .ifPresent(near -> found.addAt(
                                STOP,
                                "launch-object",
                                "“%s” stands %s beside the launch point; %s are to be kept clear. Climb and landing run beside it; move the launch point away."
                                        .formatted(
                                                near.object().name(),
                                                found.height(near.solid().asideM(at)),
                                                found.height(clear)),
                                at,
                                List.of())));
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
            boolean seenAll =
                    one.faces().filter(proof -> proof.share() >= NEARLY).isPresent();
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

    private void nearness() {
        double clear = objects.wanted().clear().si();
        PathClearance path =
                PathClearance.of(plan.flight(), objects.built(), objects.scene().ground());
        path.nearest()
                .filter(near -> near.m() < clear - HAIR_M)
                .ifPresent(near -> found.addAt(
                        STOP,
                        "object-near",
                        "The path comes within %s of “%s”, %s above its foot; %s are to be kept. Fly higher over it, or raise the way there."
                                .formatted(
                                        found.height(near.m()),
                                        near.solid().object().name(),
                                        found.height(near.at().upM()
                                                - near.solid().solid().bottomM()),
                                        found.height(clear)),
                        near.at().point(),
                        List.of()));
        if (objects.alone()) {
            path.lowest()
                    .filter(low -> low.m() < clear - HAIR_M)
                    .ifPresent(low -> found.addAt(
                            STOP,
                            "round-low",
                            "The path comes within %s of the ground; %s are to be kept. Raise the lowest run or ring."
                                    .formatted(found.height(low.m()), found.height(clear)),
                            low.at().point(),
                            List.of()));
        }
    }

    private void zones() {
        plan.request().ground().ifPresent(ground -> {
            SiteMap site = new SiteMap(plan.block().plane(), ground.obstacles(), ground.zones());
            if (!site.hasZones()) {
                return;
            }
            for (Exposure photo : objects.flown().map(StructureFlight::photos).orElse(List.of())) {
                PlanePoint at = photo.point();
                double over = photo.upM() - objects.scene().ground().applyAsDouble(at.xM(), at.yM());
                Optional<Zone> zone = site.zonesAt(at.xM(), at.yM(), over).stream()
                        .filter(one -> one.kind() != Zone.Kind.CAUTION)
                        .findFirst();
                if (zone.isPresent()) {
                    found.addAt(
                            STOP,
                            "round-zone",
                            "Photo %d round an object lies in “%s” (%s), %s above ground. Leave the face out, or stand off less."
                                    .formatted(
                                            photo.id(),
                                            zone.get().name(),
                                            zone.get().kind().words(),
                                            found.height(over)),
                            at,
                            List.of());
                    return;
                }
            }
        });
    }

    private void ceiling() {
        double most = 0;
        PlanePoint where = null;
        for (Exposure photo : objects.flown().map(StructureFlight::photos).orElse(List.of())) {
            double over = photo.upM()
                    - objects.scene()
                            .ground()
                            .applyAsDouble(photo.point().xM(), photo.point().yM());
            if (over > most) {
                most = over;
                where = photo.point();
            }
        }
        if (most > plan.ceilingM() + HAIR_M) {
            found.addAt(
                    STOP,
                    "round-ceiling",
                    "Round objects it is flown at %s above ground, over your ceiling of %s. Check your local rules; near structures some allow more."
                            .formatted(found.height(most), found.height(plan.ceilingM())),
                    where,
                    List.of());
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
                                    .filter(way -> way.end().upM() > ceiling + HAIR_M
                                            || way.end().upM() < floor - HAIR_M)
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

    private void alone() {
        if (objects.alone()) {
            found.add(
                    NOTE,
                    "objects-alone",
                    "Nothing is flown over the ground: all %,d photos are of objects. Scale, overlap and strips in the ledger are those of strips that are not flown; cost is that of what is."
                            .formatted(plan.photos()));
        }
    }

    private void faces() {
        if (objects.passes().isEmpty() || one.faces().isEmpty()) {
            return;
        }
        StructureProof proof = one.faces().get();
        if (proof.areaM2() == 0 || proof.share() >= NEARLY) {
            return;
        }
        FaceAdequacy most = null;
        for (FaceAdequacy so : FaceAdequacy.values()) {
            boolean weak = so != FaceAdequacy.ENOUGH && so.asked();
            if (weak && (most == null || proof.share(so) > proof.share(most))) {
                most = so;
            }
        }
        found.add(
                MIND,
                "faces-weak",
                "%s of %s of faces is given enough; most of the rest, %s, is %s. The elevation view shows where."
                        .formatted(
                                Shares.percent(proof.share()),
                                found.units().surfaceText(proof.areaM2()),
                                Shares.percent(proof.share(most)),
                                most.words()));
    }
}

package yalos.core.finding;

import static yalos.core.finding.Finding.Level.MIND;
import static yalos.core.finding.Finding.Level.NOTE;
import static yalos.core.finding.Finding.Level.STOP;

import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.flight.Leg;
import yalos.core.flight.Place;
import yalos.core.flight.Way;
import yalos.core.geodesy.PlanePoint;
import yalos.core.pattern.PathClearance;
import yalos.core.pattern.StructureFlight;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.site.SiteMap;

/** What would a practitioner say about objects, the path beside them and their faces? */
final class StructureFindings {
    /** Ways beside objects are reckoned at corners; a path is not refused for less. */
    static final double HAIR_M = 0.25;

    /** The path is held against zones so often. */
    private static final double STEP_M = 2;

    private static final String ROUND = "The path round objects";

    /** A share of the faces that is as good as all. */
    static final double NEARLY = 0.98;

    private final Case one;
    private final BlockPlan plan;
    private final StructurePlan objects;
    private final Collected found;

    static final List<Rule> RULES = Stream.<Consumer<StructureFindings>>of(
                    StructureFindings::objectsThatCannotStand,
                    StructureFindings::launch,
                    StructureFindings::nearness,
                    StructureFindings::zones,
                    StructureFindings::ceiling,
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

    /** Ways to objects, between runs and home count as well as photos. */
    private void zones() {
        SiteMap site = plan.request()
                .ground()
                .map(ground -> new SiteMap(plan.block().plane(), ground.obstacles(), ground.zones()))
                .filter(SiteMap::hasZones)
                .orElse(null);
        StructureFlight flown = objects.flown().orElse(null);
        if (site == null || flown == null) {
            return;
        }
        ZonesMet met = new ZonesMet(site, plan.design().scale().heightM());
        for (Leg leg : flown.legs()) {
            if (leg instanceof Way way) {
                int steps = (int) Math.ceil(way.lengthM() / STEP_M);
                for (int step = 0; step <= steps; step++) {
                    Place at = way.placeAt(Math.min(way.lengthM(), step * STEP_M));
                    met.place(ROUND, at.point(), aboveGroundM(at.point(), at.upM()));
                }
            }
        }
        for (Exposure photo : flown.photos()) {
            met.photo(ROUND, photo.point(), aboveGroundM(photo.point(), photo.upM()));
        }
        String out = "Leave faces out, stand off less, or move the launch point";
        met.tell(found, "round-zone-", out, out);
    }

    private double aboveGroundM(PlanePoint at, double upM) {
        return upM - objects.scene().ground().applyAsDouble(at.xM(), at.yM());
    }

    private void ceiling() {
        double most = 0;
        PlanePoint where = null;
        for (Exposure photo : objects.flown().map(StructureFlight::photos).orElse(List.of())) {
            double over = aboveGroundM(photo.point(), photo.upM());
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

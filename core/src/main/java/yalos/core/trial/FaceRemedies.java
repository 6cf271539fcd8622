package yalos.core.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import yalos.core.fault.Patience;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructureFlight;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.FaceAdequacy;
import yalos.core.proof.StructureProof;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * What would let more of the faces be given enough: each change is planned and proved whole before it is offered, and only what clearly helps is.
 */
public final class FaceRemedies {
    private static final int CELLS = 3000;
    /** Less gained is not worth a press. */
    private static final double LEAST_GAIN = 0.005;

    private static final int MOST = 4;
    private static final double DENSER = 0.08;
    private static final double NEARER = 0.8;
    private static final double MOST_OVERLAP = 0.9;

    private FaceRemedies() {}

    /**
     * A change that helps.
     *
     * @param key names it, stable for the same plan
     * @param words what is done, as on a button
     * @param structures with it
     * @param share of the faces then given enough
     * @param before share now
     * @param seconds more to fly, batteries changed included; less where negative
     * @param photos more
     */
    public record Remedy(
            String key, String words, Structures structures, double share, double before, double seconds, int photos) {}

    private record Candidate(String key, String words, Structures structures) {}

    /** The best few, the one that gives most first. */
    public static List<Remedy> of(BlockPlan plan, PlanProof.Accuracy brief) {
        Structures now = plan.request().patterns().structures();
        Optional<StructureProof> proof = StructurePlan.faces(plan, brief, CELLS, share -> true);
        if (proof.isEmpty() || proof.get().areaM2() == 0) {
            return List.of();
        }
        double before = proof.get().share();
        List<Remedy> helping = new ArrayList<>();
        for (Candidate one : candidates(plan, now, proof.get())) {
            Patience.check();
            BlockPlan tried = plan.round(one.structures());
            double share = StructurePlan.faces(tried, brief, CELLS, part -> true)
                    .map(StructureProof::share)
                    .orElse(0.0);
            if (share > before + LEAST_GAIN && flown(tried)) {
                helping.add(new Remedy(
                        one.key(),
                        one.words(),
                        one.structures(),
                        share,
                        before,
                        tried.flightTimeS() - plan.flightTimeS(),
                        tried.photos() - plan.photos()));
            }
        }
        helping.sort(Comparator.comparingDouble(Remedy::share).reversed());
        return List.copyOf(helping.subList(0, Math.min(MOST, helping.size())));
    }

    /** Every pass is flown, and every way was found. */
    private static boolean flown(BlockPlan plan) {
        return plan.structures()
                .flatMap(StructurePlan::flown)
                .filter(StructureFlight::reached)
                .filter(flown ->
                        flown.passes().stream().allMatch(pass -> pass.fault().isEmpty()))
                .isPresent();
    }

    private static List<Candidate> candidates(BlockPlan plan, Structures now, StructureProof proof) {
        List<Candidate> candidates = new ArrayList<>();
        boolean few = proof.share(FaceAdequacy.TOO_FEW) > 0;
        boolean coarse = proof.share(FaceAdequacy.TOO_COARSE) > 0;
        boolean aside = proof.share(FaceAdequacy.HIDDEN) > 0 || proof.share(FaceAdequacy.TOO_OBLIQUE) > 0 || few;
        for (int i = 0; i < now.passes().size(); i++) {
            StructurePass pass = now.passes().get(i);
            String of = " of pass " + (i + 1);
            if (few || proof.share(FaceAdequacy.INACCURATE) > 0) {
                candidates.add(changed(now, i, "denser", "Overlap more in pass " + (i + 1), FaceRemedies::denser));
            }
            double off = standOffM(plan, i);
            if (coarse && off * NEARER >= now.clear().si()) {
                Measure to = Measure.of(Math.floor(off * NEARER * 10) / 10, Unit.METRE);
                String words = "Fly pass %d from %s".formatted(i + 1, to.asTyped());
                candidates.add(changed(now, i, "nearer", words, was -> RoundTable.sized(was, to)));
            }
            if (pass instanceof Facade facade) {
                if (!facade.overRoof()) {
                    candidates.add(changed(
                            now,
                            i,
                            "roof",
                            "Fly straight down over the roof" + of,
                            was -> ((Facade) was).overRoof(true)));
                }
                if (facade.roofTilt().si() == 0) {
                    candidates.add(changed(
                            now,
                            i,
                            "edge",
                            "Look over the roof edge" + of,
                            was -> ((Facade) was).tilted(((Facade) was).footTilt(), Measure.of(45, Unit.DEGREE))));
                }
                if (facade.footTilt().si() == 0) {
                    candidates.add(changed(
                            now,
                            i,
                            "foot",
                            "Look down at the foot" + of,
                            was -> ((Facade) was).tilted(Measure.of(20, Unit.DEGREE), ((Facade) was).roofTilt())));
                }
            }
        }
        if (aside) {
            for (Structure object : now.objects()) {
                candidates.addAll(added(now, object));
            }
        }
        return candidates;
    }

    private static List<Candidate> added(Structures now, Structure object) {
        List<Candidate> added = new ArrayList<>();
        double off = 2 * now.clear().si();
        StandOff standing = StandOff.of(Measure.of(Math.max(5, off), Unit.METRE));
        boolean facade = flown(now, object, Facade.class);
        boolean rings = flown(now, object, Rings.class);
        boolean deck = object.parts().stream().anyMatch(part -> part.kind() == Structure.Kind.DECK);
        if (!facade) {
            Facade more = Facade.usual(object.name(), standing);
            added.add(new Candidate(
                    "facade-" + object.name(), "Add a facade of “%s”".formatted(object.name()), now.adding(more)));
        }
        if (!rings) {
            Rings more = Rings.usual(object.name(), standing);
            added.add(new Candidate(
                    "rings-" + object.name(), "Add rings round “%s”".formatted(object.name()), now.adding(more)));
        }
        if (deck && !flown(now, object, UnderDeck.class)) {
            UnderDeck more = new UnderDeck(
                    object.name(),
                    StandOff.of(Measure.of(now.clear().si() + 1, Unit.METRE)),
                    Measure.of(90, Unit.DEGREE),
                    StructurePass.Habit.USUAL);
            added.add(new Candidate(
                    "under-" + object.name(), "Fly under the deck of “%s”".formatted(object.name()), now.adding(more)));
        }
        return added;
    }

    private static boolean flown(Structures now, Structure object, Class<? extends StructurePass> pattern) {
        return now.passes().stream()
                .anyMatch(pass -> pattern.isInstance(pass)
                        && pass.object().filter(object.name()::equals).isPresent());
    }

    private static Candidate changed(
            Structures now, int index, String key, String words, UnaryOperator<StructurePass> change) {
        List<StructurePass> passes = new ArrayList<>(now.passes());
        passes.set(index, change.apply(passes.get(index)));
        return new Candidate(key + "-" + (index + 1), words, now.with(passes));
    }

    private static StructurePass denser(StructurePass pass) {
        StructurePass.Habit was = pass.habit();
        return pass.with(new StructurePass.Habit(
                more(was.forward()), more(was.side()), was.speed(), was.floor(), was.ceiling()));
    }

    private static Measure more(Measure overlap) {
        double share = Math.max(overlap.si(), Math.min(MOST_OVERLAP, overlap.si() + DENSER));
        return Measure.of(Math.round(share * 100), Unit.PERCENT);
    }

    /** How far off a pass is flown, or the radius of circles; not a number where it is not flown. */
    private static double standOffM(BlockPlan plan, int index) {
        StructureFlight.OfPass pass = plan.structures().orElseThrow().passes().get(index);
        return pass.wanted() instanceof Circles circles ? circles.radius().si() : pass.standOffM();
    }
}

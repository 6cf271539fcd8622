package yalos.core.finding;

import static yalos.core.proof.Adequacy.*;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PinSolver;
import yalos.core.proof.Adequacy;
import yalos.core.units.UnitChoice;

/**
 * Which remedies of a finding do what they promise? Each is planned to the end and judged like the plan itself. Shown is only what cures
 * the finding or, where that tells of ground that is given too little, gives clearly more of it enough; and brings no new stop.
 */
public final class Mends {
    /** Share of the block that must be won for a remedy that does not cure to be worth showing. */
    private static final double WORTH_WINNING = 0.01;

    /** Minutes of flight that are worth a little less ground. */
    private static final double WORTH_SAVING_MIN = 1;

    private static final double WORTH_HALF = 0.5;

    /** All that ground may lack. */
    private static final Set<Adequacy> WEAK = EnumSet.complementOf(EnumSet.of(ENOUGH, UNKNOWN, OUTSIDE));

    /**
     * What judges ground place by place, and what is looked at before: a remedy helps where less of the ground fails by then. All else is gone or it is
     * not.
     */
    private static final Map<String, Set<Adequacy>> FAILING = Map.of(
            "seen-too-few-times", EnumSet.of(TOO_FEW, HIDDEN),
            "too-coarse", EnumSet.of(TOO_FEW, HIDDEN, TOO_COARSE),
            "position-accuracy", EnumSet.of(TOO_FEW, HIDDEN, TOO_COARSE, OFF),
            "height-accuracy", EnumSet.of(TOO_FEW, HIDDEN, TOO_COARSE, OFF, INACCURATE),
            "overlap-lost", WEAK);

    /** What tells of the ground as a whole, from its lowest to its highest or to where the model ends: more of it given enough helps. */
    private static final Set<String> OF_RELIEF = Set.of("gsd-over-relief", "overlap-over-relief", "model-ends");

    private final Case one;
    private final UnitChoice units;

    private Mends(Case one, UnitChoice units) {
        this.one = one;
        this.units = units;
    }

    /**
     * A remedy that was tried.
     *
     * @param cures whether the finding is gone; otherwise it only helps
     * @param share of the block that is then given enough, 0..1
     * @param won share of the block that no longer fails by what the finding tells of
     * @param beforeS seconds to fly without it; infinite where that cannot be flown
     * @param afterS seconds to fly with it
     * @param sets more battery sets
     */
    public record Mend(
            Remedy remedy, boolean cures, double share, double won, double beforeS, double afterS, int sets) {
        /** Minutes more to fly; less where negative, minus infinity where it could not be flown before. */
        public double minutes() {
            return Double.isFinite(afterS) ? (afterS - beforeS) / 60 : Double.POSITIVE_INFINITY;
        }
    }

    /**
     * The mends of a finding: those that cure, the quickest first, those that ask for less last; where none does those that help, the best of each kind of change and what
     * helps half as much in less than half of its time; empty when nothing
     * would do.
     *
     * @param said all that is found about the case
     * @param units the operator reads
     */
    public static List<Mend> of(Case one, List<Finding> said, Finding finding, UnitChoice units) {
        Set<String> before = stopKeys(said);
        if (!PinSolver.unmet(one.plan()).isEmpty()) {
            // What is too slow to fly keeps silent about its time.
            before.add(PlanFindings.IN_CONFLICT);
        }
        return new Mends(one, units).tried(finding, before);
    }

    private List<Mend> tried(Finding finding, Set<String> before) {
        List<Mend> mends = new ArrayList<>();
        for (Remedy remedy : finding.remedies()) {
            tried(finding, remedy, before).ifPresent(mends::add);
        }
        return best(mends);
    }

    /** Of each kind of change the quickest that cures; where none cures, of each kind what is worth its time. Asking for less is no cure of what is asked, and stands behind both. */
    static List<Mend> best(List<Mend> mends) {
        Map<Boolean, List<Mend>> asksLess = mends.stream()
                .collect(Collectors.partitioningBy(mend -> mend.remedy().change() instanceof Remedy.Less));
        return Stream.concat(
                        doing(asksLess.get(false)).stream(),
                        asksLess.get(true).stream().filter(Mend::cures).limit(1))
                .toList();
    }

    private static List<Mend> doing(List<Mend> mends) {
        boolean cured = mends.stream().anyMatch(Mend::cures);
        Comparator<Mend> better = cured
                ? Comparator.comparingDouble(Mend::minutes)
                : Comparator.comparingDouble(Mend::won).reversed();
        Map<Object, List<Mend>> byKind = mends.stream()
                .filter(mend -> mend.cures() == cured)
                .filter(mend -> cured || mends.stream().noneMatch(other -> outdoes(other, mend)))
                .sorted(better)
                .collect(Collectors.groupingBy(
                        mend -> kind(mend.remedy().change()), LinkedHashMap::new, Collectors.toList()));
        return byKind.values().stream()
                .flatMap(alike -> cured ? Stream.of(alike.get(0)) : worthTheirTime(alike))
                .toList();
    }

    /** Whether one that helps gives clearly more than another at no more time, or as much in clearly less. */
    private static boolean outdoes(Mend one, Mend other) {
        double more = one.won() - other.won();
        double later = one.minutes() - other.minutes();
        return later <= 0 && more > WORTH_WINNING || later < -WORTH_SAVING_MIN && more > -WORTH_WINNING;
    }

    /** What helps most, and before it what wins half as much in less than half of the time: below a cliff the last tenth may cost hours. */
    private static Stream<Mend> worthTheirTime(List<Mend> alike) {
        Mend most = alike.get(0);
        Optional<Mend> cheaper = alike.stream()
                .skip(1)
                .filter(mend -> mend.won() >= most.won() * WORTH_HALF && mend.minutes() < most.minutes() * WORTH_HALF)
                .min(Comparator.comparingDouble(Mend::minutes));
        return Stream.concat(cheaper.stream(), Stream.of(most));
    }

    private static Object kind(Remedy.Change change) {
        if (change instanceof Remedy.Known known) {
            return known.mode();
        }
        if (change instanceof Remedy.Several several) {
            return several.pins().stream().map(Remedy.Pin::quantity).toList();
        }
        return change instanceof Remedy.Pin pin
                ? pin.quantity()
                : change instanceof Remedy.Finer finer ? finer.pin().quantity() : change;
    }

    private Optional<Mend> tried(Finding finding, Remedy remedy, Set<String> stopsBefore) {
        Optional<BlockPlan> planned = Trial.of(one.plan(), remedy.change());
        if (planned.isEmpty()) {
            return Optional.empty();
        }
        Brief brief =
                remedy.change() instanceof Remedy.Known known ? one.brief().with(known.mode()) : one.brief();
        Case after = Case.of(planned.get(), brief);
        List<Finding> said = Findings.of(after, units);
        boolean newStop = stopKeys(said).stream().anyMatch(stop -> !stopsBefore.contains(stop) && worse(after, stop));
        boolean cures = said.stream().noneMatch(other -> other.key().equals(finding.key()));
        double share = after.judgement().share();
        double won = failing(one, finding.key()) - failing(after, finding.key());
        boolean helps = won > WORTH_WINNING && share > one.judgement().share() - WORTH_WINNING;
        if (newStop || !cures && !helps) {
            return Optional.empty();
        }
        return Optional.of(new Mend(
                remedy,
                cures,
                share,
                won,
                one.plan().flightTimeS(),
                after.plan().flightTimeS(),
                after.plan().batterySets() - one.plan().batterySets()));
    }

    /** A stop that tells of ground is new where more of it fails; that something else failed there first does not count. */
    private boolean worse(Case after, String stop) {
        return !FAILING.containsKey(stop) || failing(after, stop) > failing(one, stop) + WORTH_WINNING;
    }

    /** Share of the block that fails by what a finding tells of, or before; 0 for one that does not tell of ground. */
    private static double failing(Case of, String key) {
        Set<Adequacy> by = FAILING.getOrDefault(key, OF_RELIEF.contains(key) ? WEAK : Set.of());
        return by.stream().mapToDouble(of.judgement()::share).sum();
    }

    private static Set<String> stopKeys(List<Finding> said) {
        return Findings.stops(said).stream().map(Finding::key).collect(Collectors.toCollection(HashSet::new));
    }
}

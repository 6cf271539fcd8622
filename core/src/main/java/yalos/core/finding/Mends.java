package yalos.core.finding;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;

/**
 * Which remedies of a finding do what they promise? Each is planned to the end and judged like the plan itself. Shown is only what cures
 * the finding, or at least gives clearly more of the block enough, and brings no new stop.
 */
public final class Mends {
    /** Share of the block that must be won for a remedy that does not cure to be worth showing. */
    private static final double WORTH_WINNING = 0.01;

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
     * @param minutes more to fly; less where negative
     * @param sets more battery sets
     */
    public record Mend(Remedy remedy, boolean cures, double share, double minutes, int sets) {}

    /**
     * The mends of a finding: those that cure, the quickest first; where none does those that help, the best first; empty when nothing
     * would do.
     *
     * @param said all that is found about the case
     * @param units the operator reads
     */
    public static List<Mend> of(Case one, List<Finding> said, Finding finding, UnitChoice units) {
        return new Mends(one, units).tried(finding, stopKeys(said));
    }

    private List<Mend> tried(Finding finding, Set<String> before) {
        List<Mend> mends = new ArrayList<>();
        for (Remedy remedy : finding.remedies()) {
            tried(finding, remedy, before).ifPresent(mends::add);
        }
        return best(mends);
    }

    /** Of each kind of change the quickest that cures; where none cures, of each kind the one that helps most. */
    private static List<Mend> best(List<Mend> mends) {
        boolean cured = mends.stream().anyMatch(Mend::cures);
        Comparator<Mend> better = cured
                ? Comparator.comparingDouble(Mend::minutes)
                : Comparator.comparingDouble(Mend::share).reversed();
        Map<Object, Mend> byKind = new LinkedHashMap<>();
        mends.stream()
                .filter(mend -> mend.cures() == cured)
                .sorted(better)
                .forEach(mend -> byKind.putIfAbsent(kind(mend.remedy().change()), mend));
        return List.copyOf(byKind.values());
    }

    private static Object kind(Remedy.Change change) {
        return change instanceof Remedy.Pin pin ? pin.quantity() : change;
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
        boolean newStop = !stopsBefore.containsAll(stopKeys(said));
        boolean cures = said.stream().noneMatch(other -> other.key().equals(finding.key()));
        double share = after.judgement().share();
        boolean helps = share > one.judgement().share() + WORTH_WINNING;
        if (newStop || !cures && !helps) {
            return Optional.empty();
        }
        return Optional.of(new Mend(
                remedy,
                cures,
                share,
                (after.plan().flightTimeS() - one.plan().flightTimeS()) / 60,
                after.plan().batterySets() - one.plan().batterySets()));
    }

    private static Set<String> stopKeys(List<Finding> said) {
        return Findings.stops(said).stream().map(Finding::key).collect(Collectors.toSet());
    }
}

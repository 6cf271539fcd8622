package yalos.core.finding;

import java.util.List;
import java.util.stream.Stream;
import yalos.core.brief.Brief;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;

/**
 * What would a practitioner say about this plan? Every rule looks at the case by itself; the worst is told first.
 *
 * <pre>{@code
 * List<Finding> said = Findings.of(Case.of(plan, brief), units);
 * }</pre>
 */
public final class Findings {
    private static final List<Rule> RULES = Stream.of(
                    PlanFindings.RULES,
                    PatternFindings.RULES,
                    CoverageFindings.RULES,
                    KitFindings.RULES,
                    ModelFindings.RULES,
                    GroundFindings.RULES,
                    SiteFindings.RULES,
                    SiteFindings.LAUNCH_RULES,
                    PlanFindings.PLACE_RULES,
                    StructureFindings.RULES,
                    RoundFindings.RULES,
                    BriefFindings.RULES)
            .flatMap(List::stream)
            .toList();

    /** Where nothing is flown over the ground, nobody is told how well that is mapped. */
    private static final List<Rule> OBJECTS_ALONE = Stream.of(
                    KitFindings.RULES,
                    SiteFindings.LAUNCH_RULES,
                    PlanFindings.PLACE_RULES,
                    StructureFindings.RULES,
                    RoundFindings.RULES)
            .flatMap(List::stream)
            .toList();

    private Findings() {}

    /**
     * @param units the operator reads
     */
    public static List<Finding> of(Case one, UnitChoice units) {
        Collected found = new Collected(units);
        (one.plan().objectsAlone() ? OBJECTS_ALONE : RULES).forEach(rule -> rule.judge(one, found));
        return found.sorted();
    }

    /** Those that forbid flying the plan as it is. */
    public static List<Finding> stops(List<Finding> said) {
        return said.stream()
                .filter(finding -> finding.level() == Finding.Level.STOP)
                .toList();
    }

    /** The same without a brief. */
    public static List<Finding> of(BlockPlan plan, UnitChoice units) {
        return of(Case.of(plan, Brief.EMPTY), units);
    }
}

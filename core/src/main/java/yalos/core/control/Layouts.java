package yalos.core.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import yalos.core.control.ControlPoint.Role;
import yalos.core.control.Foretold.Sigma;
import yalos.core.control.Foretold.Verdict;
import yalos.core.fault.Patience;
import yalos.core.kit.Positioning;
import yalos.core.plan.PlanProof.Accuracy;

/** The layouts that the trade argues about, each with what it makes of this block and what it costs the crew. */
public final class Layouts {
    /** 1 to see the shared error, 3 at least, 5 recommended, 8 on large sites, or every so many metres (common practice). */
    private static final int[] COUNTS = {0, 1, 3, 5, 8};

    private static final double[] SPACINGS_M = {100, 50};
    /** Check points are asked for in every mode; so many where the operator has none yet. */
    public static final int USUAL_CHECKS = 3;

    private Layouts() {}

    /**
     * A layout and what follows.
     *
     * @param name in words
     * @param control points that are held to
     * @param checks points that are only compared; laid out and measured as well
     * @param own whether it is the operator's
     */
    public record Row(
            String name,
            int control,
            int checks,
            boolean own,
            Sigma typical,
            Sigma worst,
            Sigma shared,
            double domingM,
            Verdict verdict,
            CrewTime crew) {}

    /**
     * All of them, the operator's own last where there are any points.
     *
     * @param asked of the block by brief and pins
     * @param mode how the photos' positions are known, as far as the aircraft has it
     */
    public static List<Row> of(BlockWorth worth, Accuracy asked, Positioning mode) {
        Proposal proposal = new Proposal(worth);
        int checks = worth.layout().of(Role.CHECK).size();
        int wanted = checks == 0 ? USUAL_CHECKS : checks;
        List<Row> rows = new ArrayList<>();
        for (int count : COUNTS) {
            List<Integer> places = proposal.control(count);
            if (places.size() == count) {
                rows.add(row(name(count), worth, proposal, places, wanted, asked, mode));
            }
        }
        for (double spacing : SPACINGS_M) {
            List<Integer> places = proposal.spaced(spacing);
            if (places.size() > COUNTS[COUNTS.length - 1] && proposal.holds(spacing)) {
                rows.add(row("every %.0f m".formatted(spacing), worth, proposal, places, wanted, asked, mode));
            }
        }
        if (!worth.layout().points().isEmpty()) {
            rows.add(row("yours", true, worth.layout(), worth, worth.planned(), asked, mode));
        }
        return rows;
    }

    private static String name(int count) {
        return count == 0 ? "no control" : count == 1 ? "one point" : count + " points";
    }

    private static Row row(
            String name,
            BlockWorth worth,
            Proposal proposal,
            List<Integer> places,
            int checks,
            Accuracy asked,
            Positioning mode) {
        ControlLayout layout = proposal.placed(places, checks, Set.of());
        return row(name, false, layout, worth, worth.with(places), asked, mode);
    }

    private static Row row(
            String name,
            boolean own,
            ControlLayout layout,
            BlockWorth worth,
            Foretold foretold,
            Accuracy asked,
            Positioning mode) {
        Patience.check();
        Walk walk = Walk.of(worth.plan(), layout);
        return new Row(
                name,
                layout.of(Role.CONTROL).size(),
                layout.of(Role.CHECK).size(),
                own,
                foretold.typical(),
                foretold.worst(),
                foretold.shared(),
                foretold.domingM(),
                foretold.against(asked),
                CrewTime.of(
                        walk.seconds(),
                        layout.points().size(),
                        layout.assumptions().epochs(),
                        mode));
    }
}

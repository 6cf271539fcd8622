package yalos.web.block;

import java.util.Arrays;
import java.util.List;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.finding.Finding;
import yalos.core.proof.Adequacy;
import yalos.core.proof.Shares;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * One tab of the order of work.
 *
 * @param standing in a word or two
 * @param mood {@code done}, {@code mind}, {@code stop} or empty, beside the word and never alone
 */
public record StageView(String key, String label, boolean here, String standing, String mood) {

    private static final double MIND_SHARE = 0.998;
    private static final double STOP_SHARE = 0.5;

    static List<StageView> all(
            OpenBlock block,
            Planned planned,
            List<Finding> findings,
            Stage here,
            UnitChoice units,
            List<StageBook> books) {
        return Arrays.stream(Stage.values())
                .map(stage -> {
                    String[] standing = books.stream()
                            .filter(book -> book.stage() == stage)
                            .flatMap(book -> book.standing(block, planned).stream())
                            .map(told -> new String[] {told.words(), told.mood()})
                            .findFirst()
                            .orElseGet(() -> standing(stage, block, planned, findings, units));
                    return new StageView(stage.key(), stage.label(), stage == here, standing[0], standing[1]);
                })
                .toList();
    }

    private static String[] standing(
            Stage stage, OpenBlock block, Planned planned, List<Finding> findings, UnitChoice units) {
        return switch (stage) {
            case BRIEF ->
                block.facts()
                        .brief()
                        .purpose()
                        .map(purpose -> new String[] {purpose.words().split("[ ,]")[0], "done"})
                        .orElse(new String[] {"not asked yet", ""});
            case GROUND ->
                block.facts().outline().isEmpty()
                        ? new String[] {"no outline", "mind"}
                        : new String[] {
                            units.text(UnitKind.AREA, block.facts().outline().areaM2()), "done"
                        };
            case KIT -> new String[] {block.facts().camera().megapixels() + " MP", "done"};
            case STRIPS -> strips(planned, findings);
            case PROOF -> proof(planned);
            case CONTROL -> control(block.facts().control());
            default -> new String[] {"–", ""};
        };
    }

    private static String[] strips(Planned planned, List<Finding> findings) {
        if (planned.whole().isEmpty()) {
            return new String[] {planned.fault().isPresent() ? "no plan" : "–", "mind"};
        }
        long stops =
                findings.stream().filter(f -> f.level() == Finding.Level.STOP).count();
        long minds =
                findings.stream().filter(f -> f.level() == Finding.Level.MIND).count();
        if (stops > 0) {
            return new String[] {stops + " to stop for", "stop"};
        }
        return minds > 0 ? new String[] {minds + " to mind", "mind"} : new String[] {"in order", "done"};
    }

    /** Without check points nothing can be vouched for, however good the control is. */
    private static String[] control(ControlLayout layout) {
        int control = layout.of(ControlPoint.Role.CONTROL).size();
        int checks = layout.of(ControlPoint.Role.CHECK).size();
        if (control + checks == 0) {
            return new String[] {"no points", "mind"};
        }
        return checks == 0
                ? new String[] {"no check points", "mind"}
                : new String[] {control + " + " + checks + " points", "done"};
    }

    /** The worst of what is judged, in a share that never rounds up to a whole. */
    private static String[] proof(Planned planned) {
        return planned.whole()
                .map(whole -> {
                    if (whole.plan().objectsAlone()) {
                        return new String[] {"not flown", ""};
                    }
                    double unknown = whole.judgement().share(Adequacy.UNKNOWN);
                    double share = whole.judgement().share();
                    String mood = whole.plan().heightsUnknown() || share < STOP_SHARE || unknown > 0
                            ? "stop"
                            : share < MIND_SHARE ? "mind" : "done";
                    String text =
                            unknown > 0 ? Shares.percent(unknown) + " unknown" : Shares.percent(share) + " enough";
                    return new String[] {text, mood};
                })
                .orElse(new String[] {"–", ""});
    }
}

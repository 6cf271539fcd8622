package yalos.core.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.kit.Positioning;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.RuleOfThumb;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** What in a brief the plan cannot keep, with the figures. */
public final class Contradictions {
    /** What reads the same in the digits shown is no contradiction. */
    private static final double ROUNDING = 1.005;

    private Contradictions() {}

    /**
     * One promise that does not hold.
     *
     * @param key names the rule, stable
     * @param sentence with the figures
     * @param mend a GSD with which it would hold; empty when no GSD helps
     */
    public record Contradiction(String key, String sentence, List<Advice.Pin> mend) {}

    /** Where brief and plan speak against each other; empty where they agree. */
    public static List<Contradiction> of(Brief brief, BlockPlan plan, UnitChoice units) {
        List<Contradiction> found = new ArrayList<>();
        double gsd = plan.design().scale().gsdM();
        brief.smallestM().ifPresent(m -> {
            double pixels = m / gsd;
            if (pixels < Advice.PIXELS_PER_FEATURE - 1e-9) {
                found.add(new Contradiction(
                        "feature-too-small",
                        "The smallest thing to be seen, %s, covers %.1f pixels at a GSD of %s; it takes %.0f."
                                .formatted(
                                        length(m, units),
                                        pixels,
                                        units.text(UnitKind.GSD, gsd),
                                        Advice.PIXELS_PER_FEATURE),
                        mend(m / Advice.PIXELS_PER_FEATURE)));
            }
        });
        brief.horizontalM()
                .ifPresent(wanted -> accuracy(
                        "horizontal",
                        "positions",
                        wanted,
                        gsd,
                        RuleOfThumb.POSITION_GSDS,
                        brief.positioning(),
                        brief.positioning().horizontalM(),
                        units,
                        found));
        brief.verticalM()
                .ifPresent(wanted -> accuracy(
                        "vertical",
                        "heights",
                        wanted,
                        gsd,
                        RuleOfThumb.HEIGHT_GSDS,
                        brief.positioning(),
                        brief.positioning().verticalM(),
                        units,
                        found));
        return found;
    }

    /** At best both add up as independent errors do. */
    private static void accuracy(
            String key,
            String what,
            double wanted,
            double gsd,
            double gsds,
            Positioning mode,
            double byPositioning,
            UnitChoice units,
            List<Contradiction> found) {
        double byGsd = gsds * gsd;
        double expected = Math.hypot(byGsd, byPositioning);
        if (expected <= wanted * ROUNDING) {
            return;
        }
        OptionalDouble fine = RuleOfThumb.gsdM(gsds, wanted, byPositioning);
        String cause = fine.isPresent()
                ? "the GSD of %s is too coarse".formatted(units.text(UnitKind.GSD, gsd))
                : "%s give %s alone".formatted(mode.words(), length(byPositioning, units));
        found.add(new Contradiction(
                "accuracy-" + key,
                "Accuracy of %s: %s wanted, about %s to be expected (common practice): %s."
                        .formatted(what, length(wanted, units), length(expected, units), cause),
                fine.isPresent() ? mend(fine.getAsDouble()) : List.of()));
    }

    private static List<Advice.Pin> mend(double gsdM) {
        double cm = Math.floor(gsdM * 1e4 + 1e-6) / 100;
        return cm < 0.05 ? List.of() : List.of(new Advice.Pin(Quantity.GSD, Measure.of(cm, Unit.CENTIMETRE)));
    }

    private static String length(double m, UnitChoice units) {
        return m < 0.5 ? units.text(UnitKind.GSD, m) : units.text(UnitKind.DISTANCE, m);
    }
}

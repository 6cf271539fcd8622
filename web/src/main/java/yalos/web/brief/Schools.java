package yalos.web.brief;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.pattern.Pass;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.plan.PlanProof;
import yalos.core.proof.Coverage;
import yalos.core.proof.Shares;
import yalos.core.trial.WhatIf;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/** Where practitioners disagree: each school as a plan of this block, with what it costs and gives. */
final class Schools {
    private Schools() {}

    /** One school's answer on this block. */
    public record School(String name, String gives) {}

    /** A question on which schools differ. */
    public record Question(String asked, List<School> schools) {}

    static List<Question> of(BlockPlan plan, UnitChoice units) {
        return List.of(margin(plan, units), direction(plan, units), overlap(plan, units), trigger(plan, units));
    }

    private static Question margin(BlockPlan plan, UnitChoice units) {
        List<School> schools = new ArrayList<>();
        for (int strips = 0; strips <= 2; strips++) {
            BlockPlan other =
                    plan.tried(plan.solution().pins().with(Quantity.MARGIN_STRIPS, Measure.of(strips, Unit.COUNT)));
            Coverage coverage = PlanProof.coverage(other);
            String name =
                    strips == 0 ? "exactly the outline" : strips == 1 ? "one strip beyond it" : "two strips beyond it";
            schools.add(new School(
                    name,
                    "%s, %,d photos, %s seen on %d or more"
                            .formatted(
                                    units.text(UnitKind.DURATION, other.flightTimeS()),
                                    other.photos(),
                                    Shares.percent(coverage.shareAtLeast(coverage.asked())),
                                    coverage.asked())));
        }
        return new Question("How far beyond the edge?", schools);
    }

    private static Question direction(BlockPlan plan, UnitChoice units) {
        List<School> schools = new ArrayList<>();
        Pins pins = plan.solution().pins();
        if (pins.has(Quantity.DIRECTION)) {
            schools.add(school("as pinned", plan, units));
            BlockPlan least = plan.tried(pins.without(Quantity.DIRECTION));
            schools.add(school("least flight time", least, units));
        } else {
            schools.add(school("least flight time", plan, units));
        }
        Pass main = plan.mainPass();
        BlockPlan square = plan.flown(new Pass(main.pattern().across(), main.task()));
        schools.add(school("square to the plan", square, units));
        for (WhatIf.InWind wind : WhatIf.of(plan).inWind()) {
            if (wind.feasible()) {
                schools.add(new School(
                        "in the wind: " + wind.name(),
                        "%s°, %s"
                                .formatted(
                                        UnitKind.ANGLE.figure(wind.directionRad(), Unit.DEGREE),
                                        units.text(UnitKind.DURATION, wind.flightTimeS()))));
            }
        }
        return new Question("Which direction?", schools);
    }

    private static School school(String name, BlockPlan plan, UnitChoice units) {
        return new School(
                name,
                "%s°, %s, %d strips"
                        .formatted(
                                UnitKind.ANGLE.figure(
                                        plan.mainPass().pattern().directionRad().orElse(0), Unit.DEGREE),
                                units.text(UnitKind.DURATION, plan.flightTimeS()),
                                plan.flight().strips()));
    }

    private static Question overlap(BlockPlan plan, UnitChoice units) {
        return new Question(
                "How much overlap?",
                WhatIf.of(plan).overlaps().stream()
                        .map(row -> new School(
                                String.format(
                                        Locale.ROOT,
                                        "%.0f/%.0f, %s",
                                        row.forward() * 100,
                                        row.side() * 100,
                                        row.school()),
                                "%s, %,d photos"
                                        .formatted(
                                                units.text(
                                                        UnitKind.DURATION,
                                                        row.plan().flightTimeS()),
                                                row.plan().photos())))
                        .toList());
    }

    private static Question trigger(BlockPlan plan, UnitChoice units) {
        return new Question(
                "How is the shutter released?",
                WhatIf.of(plan).triggers().stream()
                        .map(row -> new School(
                                row.name(),
                                "%s, %,d photos, %s of blur"
                                        .formatted(
                                                units.text(UnitKind.DURATION, row.flightTimeS()),
                                                row.photos(),
                                                units.text(UnitKind.PIXELS, row.blurPx()))))
                        .toList());
    }
}

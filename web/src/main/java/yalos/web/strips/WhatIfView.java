package yalos.web.strips;

import java.util.List;
import java.util.Locale;
import yalos.core.plan.BlockPlan;
import yalos.core.trial.Directions;
import yalos.core.trial.WhatIf;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * The page's "what if": a little higher or lower, other overlaps, other triggers, on this block.
 *
 * @param height present height in metres, for the slider
 * @param ceiling greatest the slider reaches, in metres
 */
public record WhatIfView(
        long height,
        long ceiling,
        List<HeightRow> heights,
        List<OverlapRow> overlaps,
        String againstUsual,
        List<TriggerRow> triggers,
        List<DirectionRow> directions) {

    public record HeightRow(
            String change, boolean present, String height, String gsd, String photos, String time, String sets) {}

    public record OverlapRow(
            String overlap, String forward, String side, String school, String photos, String factor, String time) {}

    public record TriggerRow(String name, String time, String photos, String interval, String blur) {}

    /**
     * A direction compared.
     *
     * @param key of the school, to take it
     * @param present whether the plan lies so now
     * @param every photos into the wind and with it
     * @param more what else it comes to, in a line
     */
    public record DirectionRow(
            String key,
            String name,
            boolean present,
            boolean feasible,
            String direction,
            String strips,
            String time,
            String sets,
            String crab,
            String every,
            String more) {}

    static WhatIfView of(BlockPlan plan, UnitChoice units) {
        WhatIf whatIf = WhatIf.of(plan);
        return new WhatIfView(
                Math.round(plan.design().scale().heightM()),
                Math.round(Math.max(plan.ceilingM(), plan.design().scale().heightM())),
                whatIf.heights().stream().map(row -> height(row, units)).toList(),
                whatIf.overlaps().stream().map(row -> overlap(row, plan, units)).toList(),
                whatIf.photosAgainstUsual()
                        .map(factor -> text("%.2f times the photos of 80/70", factor))
                        .orElse(""),
                whatIf.triggers().stream()
                        .map(row -> new TriggerRow(
                                row.name(),
                                units.text(UnitKind.DURATION, row.flightTimeS()),
                                text("%,d", row.photos()),
                                units.text(UnitKind.INTERVAL, row.intervalS()),
                                units.text(UnitKind.PIXELS, row.blurPx())))
                        .toList(),
                Directions.of(plan).stream()
                        .map(row -> direction(row, plan, units))
                        .toList());
    }

    private static DirectionRow direction(Directions.Row row, BlockPlan plan, UnitChoice units) {
        double now = plan.mainPass().pattern().directionRad().orElse(Double.NaN);
        boolean present = Math.abs(Math.IEEEremainder(now - row.directionRad(), Math.PI)) < Math.toRadians(0.05);
        String bearing = UnitKind.ANGLE.figure(row.directionRad(), Unit.DEGREE) + "°";
        if (!row.feasible()) {
            return new DirectionRow(
                    row.by().name(), row.by().words(), present, false, bearing, "", "cannot be held", "", "", "", "");
        }
        boolean even = Math.abs(row.intoS() - row.withS()) < 0.005;
        String every = units.figure(UnitKind.INTERVAL, row.intoS())
                + (even ? "" : "/" + units.figure(UnitKind.INTERVAL, row.withS()));
        String speeds = even
                ? units.text(UnitKind.SPEED, row.fastMps())
                : units.figure(UnitKind.SPEED, row.slowMps()) + "–" + units.text(UnitKind.SPEED, row.fastMps());
        return new DirectionRow(
                row.by().name(),
                row.by().words(),
                present,
                true,
                bearing,
                String.valueOf(row.strips()),
                units.figure(UnitKind.DURATION, row.flightTimeS()),
                text("%.0f %%", row.setShare() * 100),
                text("%.0f°", Math.toDegrees(row.crabRad())),
                every,
                "%d turns, %s, %s, blur %s"
                        .formatted(
                                row.turns(),
                                units.text(UnitKind.LENGTH, row.pathM()),
                                speeds,
                                units.text(UnitKind.PIXELS, row.blurPx())));
    }

    private static HeightRow height(WhatIf.Height row, UnitChoice units) {
        BlockPlan plan = row.plan();
        return new HeightRow(
                row.factor() == 1 ? "now" : text("%+.0f %%", (row.factor() - 1) * 100),
                row.factor() == 1,
                units.text(UnitKind.HEIGHT, plan.design().scale().heightM()),
                units.text(UnitKind.GSD, plan.design().scale().gsdM()),
                text("%,d", plan.photos()),
                units.figure(UnitKind.DURATION, plan.flightTimeS()),
                String.valueOf(plan.batterySets()));
    }

    private static OverlapRow overlap(WhatIf.Overlap row, BlockPlan present, UnitChoice units) {
        return new OverlapRow(
                text("%.0f/%.0f", row.forward() * 100, row.side() * 100),
                text("%.0f %%", row.forward() * 100),
                text("%.0f %%", row.side() * 100),
                row.school(),
                text("%,d", row.plan().photos()),
                text("%.2f", (double) row.plan().photos() / present.photos()),
                units.figure(UnitKind.DURATION, row.plan().flightTimeS()));
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}

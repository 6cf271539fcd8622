package yalos.core.logbook;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import yalos.core.logbook.FlightRecord.Figures;
import yalos.core.proof.Shares;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * A figure planned beside the same flown.
 *
 * @param change in words; empty where one of them is missing
 * @param mind whether it is worth a look: fewer photos, less ground, a tenth more time or battery
 */
public record Difference(String label, String planned, String flown, String change, boolean mind) {
    /** A tenth more than planned is worth a look (common practice). */
    private static final double TOLERANCE = 0.1;
    /** Ground given enough is told by tenths of a per cent. */
    private static final double SHARE_TOLERANCE = 0.0005;

    private static final String NONE = "–";

    /** What was planned and what came of it; only what one of the two knows. */
    public static List<Difference> of(Figures planned, Figures flown, UnitChoice units) {
        List<Difference> all = new ArrayList<>();
        if (planned.photos().isPresent() || flown.photos().isPresent()) {
            boolean both = planned.photos().isPresent() && flown.photos().isPresent();
            int off = both ? flown.photos().getAsInt() - planned.photos().getAsInt() : 0;
            all.add(new Difference(
                    "photos",
                    planned.photos().isPresent()
                            ? "%,d".formatted(planned.photos().getAsInt())
                            : NONE,
                    flown.photos().isPresent() ? "%,d".formatted(flown.photos().getAsInt()) : NONE,
                    !both ? "" : off == 0 ? "as planned" : signed("%+,.0f", off),
                    off < 0));
        }
        add(
                all,
                "minutes in the air",
                planned.minutes(),
                flown.minutes(),
                min -> units.text(UnitKind.DURATION, min * 60),
                true);
        if (planned.areaM2().isPresent() || flown.areaM2().isPresent()) {
            add(all, "area given enough", planned.areaM2(), flown.areaM2(), m2 -> units.text(UnitKind.AREA, m2), false);
        }
        share(all, "block given enough", planned.enough(), flown.enough(), false);
        share(all, "battery taken", planned.battery(), flown.battery(), true);
        add(all, "GSD", planned.gsdM(), flown.gsdM(), gsd -> units.text(UnitKind.GSD, gsd), true);
        return all;
    }

    private interface Shown {
        String of(double si);
    }

    private static void add(
            List<Difference> all,
            String label,
            OptionalDouble planned,
            OptionalDouble flown,
            Shown shown,
            boolean lessIsBetter) {
        if (planned.isEmpty() && flown.isEmpty()) {
            return;
        }
        String change = "";
        boolean mind = false;
        if (planned.isPresent() && flown.isPresent() && planned.getAsDouble() > 0) {
            double off = flown.getAsDouble() / planned.getAsDouble() - 1;
            change = Math.abs(off) < 0.005 ? "as planned" : signed("%+.0f %%", off * 100);
            mind = lessIsBetter ? off > TOLERANCE : off < -0.005;
        }
        all.add(new Difference(
                label,
                planned.isPresent() ? shown.of(planned.getAsDouble()) : NONE,
                flown.isPresent() ? shown.of(flown.getAsDouble()) : NONE,
                change,
                mind));
    }

    private static void share(
            List<Difference> all, String label, OptionalDouble planned, OptionalDouble flown, boolean lessIsBetter) {
        if (planned.isEmpty() && flown.isEmpty()) {
            return;
        }
        String change = "";
        boolean mind = false;
        if (planned.isPresent() && flown.isPresent()) {
            double off = flown.getAsDouble() - planned.getAsDouble();
            change = Math.abs(off) < SHARE_TOLERANCE ? "as planned" : signed("%+.1f points", off * 100);
            mind = lessIsBetter ? off > TOLERANCE : off < -SHARE_TOLERANCE;
        }
        all.add(new Difference(label, percent(planned), percent(flown), change, mind));
    }

    private static String percent(OptionalDouble share) {
        return share.isPresent() ? Shares.percent(share.getAsDouble()) : NONE;
    }

    private static String signed(String form, double value) {
        return String.format(Locale.ROOT, form, value).replace('-', '−');
    }
}

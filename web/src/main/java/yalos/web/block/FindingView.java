package yalos.web.block;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.finding.Finding;
import yalos.core.finding.Mends;
import yalos.core.finding.Remedy;
import yalos.core.geodesy.EastNorth;
import yalos.core.proof.Shares;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;

/**
 * A finding as the page shows it.
 *
 * @param number of its mark on the sheet; 0 when it has no place
 * @param headline the figure and what is the matter
 * @param detail what lies behind it; empty for nothing
 * @param east of its place in the job's grid; empty when it has none
 * @param north of its place
 * @param mendable whether there are remedies to try
 */
public record FindingView(
        int number,
        String level,
        String key,
        String headline,
        String detail,
        String east,
        String north,
        boolean mendable) {

    /** A remedy as a button: where it is sent to below the block's address, what is done there, and with what. */
    public record RemedyView(String label, String path, String act, String value) {
        public static RemedyView of(Remedy remedy) {
            if (remedy.change() instanceof Remedy.Heights heights) {
                return new RemedyView(
                        remedy.label(),
                        "heights/reference",
                        "",
                        heights.reference().name());
            }
            if (remedy.change() instanceof Remedy.Span span) {
                return new RemedyView(
                        remedy.label(), "heights/span", "", String.format(Locale.ROOT, "%.1f m", span.widestM()));
            }
            if (remedy.change() instanceof Remedy.Known known) {
                return new RemedyView(
                        remedy.label(), "brief/positioning", "", known.mode().name());
            }
            if (remedy.change() instanceof Remedy.Unpin unpin) {
                return new RemedyView(
                        remedy.label(), "ledger/" + unpin.quantity().key(), "unpin", "");
            }
            return remedy.change() instanceof Remedy.Finer finer
                    ? pinned(remedy, finer.pin(), "finer")
                    : pinned(remedy, (Remedy.Pin) remedy.change(), "type");
        }

        private static RemedyView pinned(Remedy remedy, Remedy.Pin pin, String act) {
            return new RemedyView(
                    remedy.label(),
                    "ledger/" + pin.quantity().key(),
                    act,
                    pin.value().asTyped());
        }
    }

    /**
     * A remedy that was tried.
     *
     * @param gives what it gives and costs, in a few words
     */
    public record MendView(RemedyView remedy, boolean cures, String gives) {
        static MendView of(Mends.Mend mend) {
            String sets = mend.sets() == 0
                    ? ""
                    : String.format(
                            Locale.ROOT, ", %+d battery %s", mend.sets(), Math.abs(mend.sets()) == 1 ? "set" : "sets");
            String gives = "%s enough, %s%s"
                    .formatted(Shares.percent(mend.share()), Times.more(mend.beforeS(), mend.afterS()), sets);
            return new MendView(RemedyView.of(mend.remedy()), mend.cures(), gives);
        }

        /** Those of a finding of a plan, tried. */
        static List<MendView> all(Planned planned, Finding finding, UnitChoice units) {
            return planned.whole().orElseThrow().mends(finding, units).stream()
                    .map(MendView::of)
                    .toList();
        }
    }

    static List<FindingView> all(List<Finding> findings, Planned planned) {
        List<FindingView> views = new ArrayList<>();
        int number = 0;
        for (Finding finding : findings) {
            Optional<EastNorth> place = finding.place()
                    .map(at ->
                            planned.whole().orElseThrow().plan().block().plane().toGrid(at));
            views.add(new FindingView(
                    place.isPresent() ? ++number : 0,
                    finding.level().word(),
                    finding.key(),
                    finding.headline(),
                    finding.detail(),
                    place.map(at -> String.format(Locale.ROOT, "%.2f", at.east()))
                            .orElse(""),
                    place.map(at -> String.format(Locale.ROOT, "%.2f", at.north()))
                            .orElse(""),
                    !finding.remedies().isEmpty()));
        }
        return views;
    }
}

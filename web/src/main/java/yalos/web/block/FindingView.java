package yalos.web.block;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
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

    /**
     * A remedy as a button.
     *
     * @param path where it is sent to, below the block's address
     * @param fields what is sent, by name
     */
    public record RemedyView(String label, String path, SortedMap<String, String> fields) {
        public static RemedyView of(Remedy remedy) {
            Remedy.Change change = remedy.change();
            if (change instanceof Remedy.Heights heights) {
                return of(
                        remedy,
                        "heights/reference",
                        Map.of("value", heights.reference().name()));
            }
            if (change instanceof Remedy.Span span) {
                return of(
                        remedy, "heights/span", Map.of("value", String.format(Locale.ROOT, "%.1f m", span.widestM())));
            }
            if (change instanceof Remedy.Known known) {
                Map<String, String> fields =
                        new TreeMap<>(Map.of("value", known.mode().name()));
                known.finer()
                        .ifPresent(finer ->
                                fields.put("height", finer.pin().value().asTyped()));
                return of(remedy, "brief/positioning", fields);
            }
            if (change instanceof Remedy.Unpin unpin) {
                return of(remedy, "ledger/" + unpin.quantity().key(), Map.of("act", "unpin"));
            }
            if (change instanceof Remedy.Several several) {
                Map<String, String> fields = new HashMap<>();
                several.pins()
                        .forEach(pin ->
                                fields.put(pin.quantity().key(), pin.value().asTyped()));
                return of(remedy, "pins", fields);
            }
            if (change instanceof Remedy.Finer finer) {
                return pinned(remedy, finer.pin(), "finer");
            }
            return change instanceof Remedy.Less less
                    ? pinned(remedy, less.pin(), "type")
                    : pinned(remedy, (Remedy.Pin) change, "type");
        }

        private static RemedyView of(Remedy remedy, String path, Map<String, String> fields) {
            return new RemedyView(remedy.label(), path, new TreeMap<>(fields));
        }

        private static RemedyView pinned(Remedy remedy, Remedy.Pin pin, String act) {
            return of(
                    remedy,
                    "ledger/" + pin.quantity().key(),
                    Map.of("act", act, "value", pin.value().asTyped()));
        }
    }

    /**
     * A remedy that was tried.
     *
     * @param gives what it gives and costs, in a few words; where it does not cure, on how much of the block it helps
     */
    public record MendView(RemedyView remedy, String gives) {
        static MendView of(Mends.Mend mend) {
            String sets = mend.sets() == 0
                    ? ""
                    : String.format(
                            Locale.ROOT, ", %+d battery %s", mend.sets(), Math.abs(mend.sets()) == 1 ? "set" : "sets");
            String gives = "%s%s enough, %s%s"
                    .formatted(
                            mend.cures() ? "" : "helps on " + Shares.percent(mend.won()) + ": ",
                            Shares.percent(mend.share()),
                            Times.more(mend.beforeS(), mend.afterS()),
                            sets);
            return new MendView(RemedyView.of(mend.remedy()), gives);
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

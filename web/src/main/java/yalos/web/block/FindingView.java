package yalos.web.block;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.finding.Finding;
import yalos.core.finding.Remedy;
import yalos.core.geodesy.EastNorth;

/**
 * A finding as the page shows it.
 *
 * @param number of its mark on the sheet; 0 when it has no place
 * @param east of its place in the job's grid; empty when it has none
 * @param north of its place
 */
public record FindingView(
        int number, String level, String key, String sentence, String east, String north, List<RemedyView> remedies) {

    /** A remedy as a button: where it is sent to below the block's address, and with what. */
    public record RemedyView(String label, String path, String value) {
        public static RemedyView of(Remedy remedy) {
            if (remedy.change() instanceof Remedy.Heights heights) {
                return new RemedyView(
                        remedy.label(), "heights/reference", heights.reference().name());
            }
            if (remedy.change() instanceof Remedy.Span span) {
                return new RemedyView(
                        remedy.label(), "heights/span", String.format(Locale.ROOT, "%.1f m", span.widestM()));
            }
            Remedy.Pin pin = (Remedy.Pin) remedy.change();
            return new RemedyView(
                    remedy.label(),
                    "ledger/" + pin.quantity().key(),
                    pin.value().asTyped());
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
                    finding.sentence(),
                    place.map(at -> String.format(Locale.ROOT, "%.2f", at.east()))
                            .orElse(""),
                    place.map(at -> String.format(Locale.ROOT, "%.2f", at.north()))
                            .orElse(""),
                    finding.remedies().stream().map(RemedyView::of).toList()));
        }
        return views;
    }
}

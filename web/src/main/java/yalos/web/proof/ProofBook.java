package yalos.web.proof;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.geodesy.EastNorth;
import yalos.core.ledger.BlockPlan;
import yalos.core.ledger.Quantity;
import yalos.core.proof.Coverage;
import yalos.core.proof.WeakSpot;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.sheet.CoverageScale;

/** The field book's page of the Proof stage. */
@Component
class ProofBook implements StageBook {
    /** One class of the legend, with the share of the block it has; {@code width} in 0..100 for its bar. */
    public record LegendRow(String label, String colour, boolean tooFew, String share, String area, double width) {}

    /** Ground seen too few times. */
    public record SpotRow(int number, String area, String least, String cause, String east, String north) {}

    /** The share of the block seen on at least so many photos. */
    public record ShareRow(int photos, String share, boolean asked) {}

    @Override
    public Stage stage() {
        return Stage.PROOF;
    }

    @Override
    public void fill(Opened opened, Model model) {
        opened.planned().whole().ifPresent(whole -> {
            Coverage coverage = whole.coverage();
            UnitChoice units = opened.units();
            model.addAttribute("legend", legend(coverage, units));
            model.addAttribute("shares", shares(coverage));
            model.addAttribute("spots", spots(whole.plan(), coverage, units));
            model.addAttribute("asked", coverage.asked());
            model.addAttribute("askedPinned", opened.block().facts().pins().has(Quantity.LEAST_PHOTOS));
            model.addAttribute("least", coverage.leastPhotos());
            model.addAttribute("mean", String.format(Locale.ROOT, "%.1f", coverage.meanPhotos()));
            model.addAttribute(
                    "cell", units.text(UnitKind.DISTANCE, coverage.count().cellM()));
            model.addAttribute("extent", extent(whole.plan(), coverage));
        });
    }

    /** West, south, east, north of the picture in grid units. */
    private static String extent(BlockPlan plan, Coverage coverage) {
        var count = coverage.count();
        var southWest = plan.block().plane().toGrid(count.westM(), count.southM());
        var northEast = plan.block()
                .plane()
                .toGrid(count.westM() + count.columns() * count.cellM(), count.southM() + count.rows() * count.cellM());
        return String.format(
                Locale.ROOT,
                "%.3f,%.3f,%.3f,%.3f",
                southWest.east(),
                southWest.north(),
                northEast.east(),
                northEast.north());
    }

    private static List<LegendRow> legend(Coverage coverage, UnitChoice units) {
        double cells = coverage.cells();
        double cellArea = coverage.count().cellM() * coverage.count().cellM();
        int[] histogram = coverage.histogram();
        List<CoverageScale> classes = CoverageScale.classes(coverage.asked(), histogram.length - 1);
        double[] sums = classes.stream()
                .mapToDouble(c -> Arrays.stream(histogram, Math.min(c.from(), histogram.length), (int)
                                Math.min(c.to() + 1L, histogram.length))
                        .sum())
                .toArray();
        double most = Arrays.stream(sums).max().orElse(1);
        List<LegendRow> rows = new ArrayList<>();
        for (int i = 0; i < classes.size(); i++) {
            rows.add(new LegendRow(
                    classes.get(i).label(),
                    classes.get(i).colour(),
                    classes.get(i).tooFew(),
                    percent(sums[i] / cells),
                    units.areaText(sums[i] * cellArea),
                    100 * sums[i] / most));
        }
        return rows;
    }

    private static List<ShareRow> shares(Coverage coverage) {
        return java.util.stream.IntStream.of(1, 2, 3, 5, 9, coverage.asked())
                .distinct()
                .sorted()
                .mapToObj(photos ->
                        new ShareRow(photos, percent(coverage.shareAtLeast(photos)), photos == coverage.asked()))
                .toList();
    }

    private static List<SpotRow> spots(BlockPlan plan, Coverage coverage, UnitChoice units) {
        List<SpotRow> rows = new ArrayList<>();
        for (WeakSpot spot : coverage.weakSpots()) {
            EastNorth at = plan.block().plane().toGrid(spot.x(), spot.y());
            rows.add(new SpotRow(
                    rows.size() + 1,
                    units.areaText(spot.areaM2()),
                    spot.leastPhotos() + (spot.leastPhotos() == 1 ? " photo" : " photos"),
                    spot.atEdge()
                            ? "at the edge: no strips beyond it; a margin helps"
                            : "inside: strips or stations too far apart",
                    String.format(Locale.ROOT, "%.2f", at.east()),
                    String.format(Locale.ROOT, "%.2f", at.north())));
        }
        return rows;
    }

    /** Never rounds up to a whole that is not one. */
    private static String percent(double share) {
        double percent = share * 100;
        double shown = percent > 99.9 && percent < 100 ? Math.min(percent, 99.99) : percent;
        return String.format(
                Locale.ROOT,
                percent > 99 && percent < 100 || percent > 0 && percent < 1 ? "%.2f %%" : "%.1f %%",
                shown);
    }
}

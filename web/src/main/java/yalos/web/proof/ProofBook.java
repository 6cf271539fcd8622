package yalos.web.proof;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.pins.Quantity;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Coverage;
import yalos.core.proof.GroundProof;
import yalos.core.proof.Judgement;
import yalos.core.proof.Shares;
import yalos.core.proof.WeakGround;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;

/** The field book's page of the Proof stage: a first count at once, every layer and the judgement when the background is done. */
@Component
class ProofBook implements StageBook {
    private final ProofDesk proofs;

    ProofBook(ProofDesk proofs) {
        this.proofs = proofs;
    }

    /** One class of the legend; {@code width} in 0..100 for its bar. */
    public record LegendRow(String label, String colour, boolean hatched, String share, double width) {}

    /** A piece of weak ground. */
    public record SpotRow(
            int number, String area, String lack, String least, String cause, String east, String north) {}

    /** The share of the block seen on at least so many photos. */
    public record ShareRow(int photos, String share, boolean asked) {}

    /** A layer to choose. */
    public record LayerChoice(String key, String words, boolean chosen) {}

    @Override
    public Stage stage() {
        return Stage.PROOF;
    }

    @Override
    public void fill(Opened opened, Model model) {
        model.addAttribute(
                "objectsAlone",
                opened.planned()
                        .whole()
                        .filter(whole -> whole.plan().objectsAlone())
                        .isPresent());
        opened.planned().whole().ifPresent(whole -> {
            Coverage coverage = whole.coverage();
            BlockPlan plan = whole.plan();
            UnitChoice units = opened.units();
            ProofDesk.Proving work =
                    proofs.of(opened.block().id(), opened.block().facts(), plan);
            model.addAttribute("shares", shares(coverage));
            model.addAttribute("asked", coverage.asked());
            model.addAttribute("askedPinned", opened.block().facts().pins().has(Quantity.LEAST_PHOTOS));
            model.addAttribute("least", coverage.leastPhotos());
            model.addAttribute("mean", String.format(Locale.ROOT, "%.1f", coverage.meanPhotos()));
            model.addAttribute("progress", (int) Math.round(work.progress() * 100));
            model.addAttribute("running", work.running());
            model.addAttribute("off", work.calledOff() || work.failed());
            model.addAttribute("over", plan.heights().isPresent() ? "over the real ground" : "over level ground");
            work.judgement().ifPresent(judgement -> judged(opened, plan, judgement, units, model));
        });
    }

    private void judged(Opened opened, BlockPlan plan, Judgement judgement, UnitChoice units, Model model) {
        ProofLayer layer = chosen();
        List<ProofLayer.Band> bands = layer.bands(judgement, units);
        double most = bands.stream().mapToDouble(ProofLayer.Band::share).max().orElse(1);
        model.addAttribute("layer", layer);
        model.addAttribute(
                "layers",
                Arrays.stream(ProofLayer.values())
                        .map(one -> new LayerChoice(one.key(), one.words(), one == layer))
                        .toList());
        model.addAttribute(
                "legend",
                bands.stream()
                        .map(band -> new LegendRow(
                                band.label(),
                                band.colour(),
                                band.hatched(),
                                Shares.percent(band.share()),
                                100 * band.share() / Math.max(1e-9, most)))
                        .toList());
        model.addAttribute("adequate", Shares.percent(judgement.share()));
        String verdict = judgement.verdict();
        model.addAttribute("verdict", verdict.substring(0, 1).toUpperCase(Locale.ROOT) + verdict.substring(1) + ".");
        Optional<Double> before =
                proofs.before(opened.block().id(), opened.block().facts());
        model.addAttribute("before", before.map(Shares::percent).orElse(""));
        obliques(proofs.of(opened.block().id(), opened.block().facts(), plan), model);
        model.addAttribute("wanted", wanted(judgement, units));
        model.addAttribute("spots", spots(plan, judgement, units));
        Judgement.Specks specks = judgement.specks();
        model.addAttribute(
                "specks",
                specks.count() == 0
                        ? ""
                        : "%d %s besides, %s in all."
                                .formatted(
                                        specks.count(),
                                        specks.count() == 1 ? "speck" : "specks",
                                        units.areaText(specks.areaM2())));
        GroundProof proof = judgement.proof();
        model.addAttribute("cell", units.text(UnitKind.DISTANCE, proof.cellM()));
        model.addAttribute("extent", extent(plan.block().plane(), proof));
    }

    /** What oblique strips would add; it comes a little after the judgement, and the page asks for it as long as it is weighed. */
    static void obliques(ProofDesk.Proving work, Model model) {
        model.addAttribute("weighing", work.weighing());
        work.judgement()
                .ifPresent(judgement -> work.gain()
                        .ifPresent(gain -> model.addAttribute(
                                "obliques",
                                "Ground is hidden on steep sides. Oblique strips across the planned ones, camera at −60°, would give %s of the block enough instead of %s, for about %.0f min more. Plan them as a block of their own."
                                        .formatted(
                                                Shares.percent(gain.share()),
                                                Shares.percent(judgement.share()),
                                                gain.minutes()))));
    }

    /** The layer the address asks for. */
    private static ProofLayer chosen() {
        String key = RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request
                ? request.getRequest().getParameter("layer")
                : null;
        return ProofLayer.ofKey(key == null ? "" : key).orElse(ProofLayer.ADEQUATE);
    }

    private static String wanted(Judgement judgement, UnitChoice units) {
        List<String> wanted = new ArrayList<>(List.of(judgement.asked().photos() + " photos"));
        judgement
                .asked()
                .gsdM()
                .ifPresent(
                        m -> wanted.add(
                                "GSD of " + units.text(UnitKind.GSD, m)
                                        + " on the mean of the photos that see a place, far ones left out where enough are near, 10 % over allowed"));
        judgement.asked().positionSigmaM().ifPresent(m -> wanted.add("positions to " + units.text(UnitKind.GSD, m)));
        judgement.asked().heightSigmaM().ifPresent(m -> wanted.add("heights to " + units.text(UnitKind.GSD, m)));
        return String.join("; ", wanted);
    }

    /** West, south, east, north of the picture in grid units. */
    private static String extent(LocalPlane plane, GroundProof proof) {
        return Arrays.stream(proof.grid().extent(plane))
                .mapToObj(edge -> String.format(Locale.ROOT, "%.3f", edge))
                .collect(Collectors.joining(","));
    }

    private static List<ShareRow> shares(Coverage coverage) {
        return IntStream.of(1, 2, 3, 5, 9, coverage.asked())
                .distinct()
                .sorted()
                .mapToObj(photos ->
                        new ShareRow(photos, Shares.percent(coverage.shareAtLeast(photos)), photos == coverage.asked()))
                .toList();
    }

    private static List<SpotRow> spots(BlockPlan plan, Judgement judgement, UnitChoice units) {
        List<SpotRow> rows = new ArrayList<>();
        for (WeakGround spot : judgement.spots()) {
            EastNorth at = plan.block().plane().toGrid(spot.x(), spot.y());
            rows.add(new SpotRow(
                    rows.size() + 1,
                    units.areaText(spot.areaM2()),
                    judgement.at(spot.cells()[0]).words(),
                    spot.leastPhotos() + (spot.leastPhotos() == 1 ? " photo" : " photos"),
                    spot.cause().words(),
                    String.format(Locale.ROOT, "%.2f", at.east()),
                    String.format(Locale.ROOT, "%.2f", at.north())));
        }
        return rows;
    }
}

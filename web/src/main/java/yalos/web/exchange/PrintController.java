package yalos.web.exchange;

import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.plan.StructurePlan;
import yalos.core.proof.Coverage;
import yalos.core.proof.Shares;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.sheet.PlanSvg;
import yalos.web.shell.Preferences;
import yalos.web.strips.LedgerView;

/** The plan on paper: sheet, ledger, findings, strips, cautions. */
@Controller
class PrintController {
    private final Blocks blocks;
    private final PlanDesk desk;
    private final BlockPage page;
    private final Preferences preferences;

    PrintController(Blocks blocks, PlanDesk desk, BlockPage page, Preferences preferences) {
        this.blocks = blocks;
        this.desk = desk;
        this.page = page;
        this.preferences = preferences;
    }

    /** One strip in the table. */
    record StripRow(int number, String length, int photos, String bearing) {}

    @GetMapping("/blocks/{id}/print")
    String print(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Planned planned = desk.plan(block.facts());
        Planned.Whole whole = planned.whole()
                .orElseThrow(() -> planned.fault().orElse(new InputFault("plan", "none", "There is no plan yet.")));
        UnitChoice units = preferences.units();
        List<Finding> findings = page.findings(block, planned, units);
        model.addAttribute("block", block);
        model.addAttribute("camera", block.facts().camera().name());
        model.addAttribute("ledger", LedgerView.plain(block.facts(), planned, units));
        model.addAttribute("findings", findings);
        model.addAttribute(
                "stops",
                Findings.stops(findings).stream().map(Finding::headline).toList());
        model.addAttribute(
                "svg",
                PlanSvg.of(
                        whole.plan(),
                        units.unit(UnitKind.DISTANCE).size(),
                        units.unit(UnitKind.DISTANCE).symbol()));
        model.addAttribute("grid", whole.plan().block().plane().grid().shortName());
        model.addAttribute("area", units.text(UnitKind.AREA, whole.plan().areaM2()));
        model.addAttribute("ground", whole.plan().objectsAlone() ? faces(whole, units) : ground(whole, units));
        model.addAttribute("faces", whole.plan().objectsAlone() ? List.of() : faces(whole, units));
        model.addAttribute(
                "strips",
                whole.plan().flight().lines().stream()
                        .filter(line -> whole.plan()
                                .structures()
                                .flatMap(objects -> objects.pass(line.pass()))
                                .isEmpty())
                        .map(line -> new StripRow(
                                line.number(),
                                units.text(UnitKind.DISTANCE, line.lengthM()),
                                line.exposures(),
                                UnitKind.ANGLE.figure(line.trackRad(), units.unit(UnitKind.ANGLE)) + "°"))
                        .toList());
        model.addAttribute("rounds", rounds(whole, units));
        model.addAttribute(
                "launch",
                block.facts()
                        .launch()
                        .map(at -> String.format(Locale.ROOT, "%.6f, %.6f", at.latDeg(), at.lonDeg()))
                        .orElse("not set"));
        return "print";
    }

    /** A pass round an object. */
    record RoundRow(String words, String gsd, String off, String photos, String speed) {}

    private static List<RoundRow> rounds(Planned.Whole whole, UnitChoice units) {
        return whole.plan().structures().map(StructurePlan::passes).orElse(List.of()).stream()
                .filter(pass -> pass.fault().isEmpty())
                .map(pass -> new RoundRow(
                        pass.wanted().words(),
                        units.text(UnitKind.GSD, pass.gsdM()),
                        units.text(UnitKind.DISTANCE, pass.standOffM()),
                        "%,d".formatted(pass.photos()),
                        units.text(UnitKind.SPEED, pass.speedMps())))
                .toList();
    }

    private static List<String> faces(Planned.Whole whole, UnitChoice units) {
        return whole.faces()
                .filter(proof -> proof.areaM2() > 0)
                .map(proof -> List.of("%s of %s of faces is given what is asked."
                        .formatted(Shares.percent(proof.share()), units.surfaceText(proof.areaM2()))))
                .orElse(List.of());
    }

    /** What the ground does to the plan, in sentences. */
    private static List<String> ground(Planned.Whole whole, UnitChoice units) {
        Coverage coverage = whole.coverage();
        String unknown = coverage.shareUnknown() == 0
                ? ""
                : "; the ground of %s is unknown".formatted(Shares.percent(coverage.shareUnknown()));
        String seen = String.format(
                Locale.ROOT,
                "%s of the block is seen on %d photos or more%s; least %d, on average %.1f.",
                Shares.percent(coverage.shareAtLeast(coverage.asked())),
                coverage.asked(),
                unknown,
                coverage.leastPhotos(),
                coverage.meanPhotos());
        String enough = "%s of the block is given what is asked: %s."
                .formatted(
                        Shares.percent(whole.judgement().share()),
                        whole.judgement().verdict());
        if (whole.plan().heightsUnknown()) {
            return List.of("No height is known: the elevation model does not reach this plan.", enough, seen);
        }
        return whole.plan()
                .heights()
                .map(heights -> List.of(
                        "Heights are kept %s; take-off at %s above the geoid, ground in the block %s to %s."
                                .formatted(
                                        heights.choice().reference().words(),
                                        units.text(UnitKind.HEIGHT, heights.takeOffM()),
                                        units.figure(
                                                UnitKind.HEIGHT,
                                                heights.relief().leastM()),
                                        units.text(
                                                UnitKind.HEIGHT,
                                                heights.relief().mostM())),
                        "Photos are taken %s to %s above the ground below them, least clearance %s; return height at least %s above take-off."
                                .formatted(
                                        units.figure(UnitKind.HEIGHT, heights.aboveGroundM()[0]),
                                        units.text(UnitKind.HEIGHT, heights.aboveGroundM()[2]),
                                        units.text(
                                                UnitKind.HEIGHT,
                                                heights.nearestSection().clearanceM()),
                                        units.text(
                                                UnitKind.HEIGHT,
                                                whole.plan()
                                                        .returnAboveTakeOffM()
                                                        .orElse(Double.NaN))),
                        enough,
                        seen))
                .orElseGet(() -> List.of("Planned over level ground; heights count from the take-off.", enough, seen));
    }
}

package yalos.web.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.brief.Brief;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.finding.KitFit;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Scanner;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.store.BlockFacts;
import yalos.web.store.CameraMapper;
import yalos.web.store.CameraRow;

/** The field book's page of the Kit stage: what the block flies with, and the catalogue to choose from. */
@Component
class KitBook implements StageBook {
    private final CameraMapper rows;
    private final Catalogue catalogue;

    KitBook(CameraMapper rows, Catalogue catalogue) {
        this.rows = rows;
        this.catalogue = catalogue;
    }

    /** A head at the plan's height. */
    public record HeadRow(String name, String camera, String gsd, String footprint, String files, String interval) {}

    /** The scanner at the plan's height. */
    public record ScannerView(String name, String fieldOfView, String swath, String density, String edge) {}

    /** A camera of the catalogue with one of its lenses. */
    public record LensChoice(String value, boolean chosen, String name, String about) {}

    /** A kit of the catalogue. */
    public record KitChoice(long id, String name, boolean chosen, String about) {}

    @Override
    public Stage stage() {
        return Stage.KIT;
    }

    @Override
    public void fill(Opened opened, Model model) {
        BlockFacts facts = opened.block().facts();
        UnitChoice units = opened.units();
        long id = facts.cameraId().orElse(0);
        List<CameraRow> cameras = rows.all();
        Camera camera = facts.camera();
        boolean outdated = cameras.stream()
                .filter(row -> row.id() == id)
                .noneMatch(row -> row.lensesMm().stream().anyMatch(lens -> same(row.withLens(lens), camera)));
        model.addAttribute("kitName", facts.kit().name());
        model.addAttribute("service", facts.kit().service());
        model.addAttribute("camera", CameraView.of(id, camera, units));
        model.addAttribute("outdated", id > 0 && outdated);
        model.addAttribute("aircraft", AircraftForm.fields(facts.aircraft()));
        model.addAttribute(
                "usable",
                String.format(
                        Locale.ROOT,
                        "%.1f",
                        facts.request().aircraft().battery().usableMinutes()));
        opened.planned().whole().ifPresent(whole -> {
            BlockPlan plan = whole.plan();
            KitFit fit = KitFit.of(facts.brief(), plan, units);
            model.addAttribute("lacks", fit.lacks());
            if (!fit.fits()) {
                model.addAttribute("fitting", fitting(facts.brief(), plan, units));
            }
            model.addAttribute("heights", KitFit.heights(plan, units));
            model.addAttribute("heads", heads(plan, units));
            model.addAttribute("files", files(plan));
            model.addAttribute("card", CameraCard.of(plan, units));
            facts.kit()
                    .payload()
                    .scanner()
                    .ifPresent(scanner -> model.addAttribute("scanner", scanner(scanner, plan, units)));
        });
        model.addAttribute(
                "kits",
                catalogue.kits().stream()
                        .map(entry -> new KitChoice(
                                entry.id(),
                                entry.name(),
                                entry.gear().payload().equals(facts.kit().payload())
                                        && entry.gear().aircraft().equals(facts.aircraft()),
                                entry.gear().aircraft().name() + "; "
                                        + entry.gear().camera().name()))
                        .toList());
        model.addAttribute("lenses", lenses(cameras, camera, units));
    }

    /** A kit of the catalogue that can, and what it takes. */
    public record FittingKit(long id, String name, String takes) {}

    private List<FittingKit> fitting(Brief brief, BlockPlan plan, UnitChoice units) {
        var entries = catalogue.kits();
        List<Kit> kits = entries.stream().map(Catalogue.Entry::gear).toList();
        return KitFit.among(kits, brief, plan, units).stream()
                .limit(3)
                .map(fit -> {
                    BlockPlan other = fit.plan().orElseThrow();
                    return new FittingKit(
                            entries.get(kits.indexOf(fit.kit())).id(),
                            fit.kit().name(),
                            "%s, %d battery %s"
                                    .formatted(
                                            units.text(UnitKind.DURATION, other.flightTimeS()),
                                            other.batterySets(),
                                            other.batterySets() == 1 ? "set" : "sets"));
                })
                .toList();
    }

    /** The same figures, whatever dust the catalogue's units left. */
    private static boolean same(Camera one, Camera other) {
        return CameraRow.of(0, one).equals(CameraRow.of(0, other));
    }

    private static List<HeadRow> heads(BlockPlan plan, UnitChoice units) {
        Payload payload = plan.request().kit().payload();
        double height = plan.design().scale().heightM();
        List<HeadRow> heads = new ArrayList<>();
        for (Head head : payload.heads()) {
            GroundScale scale = new GroundScale(head.camera(), height);
            heads.add(new HeadRow(
                    head.name(),
                    head.camera().name(),
                    units.text(UnitKind.GSD, scale.gsdM()),
                    units.figure(UnitKind.DISTANCE, scale.footprintAcrossM()) + " × "
                            + units.text(UnitKind.DISTANCE, scale.footprintAlongM()),
                    String.valueOf(head.filesPerCapture()),
                    units.text(UnitKind.INTERVAL, head.camera().minIntervalS())));
        }
        return heads;
    }

    private static String files(BlockPlan plan) {
        int each = plan.request().kit().payload().filesPerCapture();
        return each == 1
                ? "%,d photos, one file each".formatted(plan.photos())
                : "%,d releases of %d files: %,d files".formatted(plan.photos(), each, plan.files());
    }

    private static ScannerView scanner(Scanner scanner, BlockPlan plan, UnitChoice units) {
        double height = plan.design().scale().heightM();
        return new ScannerView(
                scanner.name(),
                Typed.plain(Math.toDegrees(scanner.fieldOfViewRad())) + "°",
                units.text(UnitKind.DISTANCE, scanner.swathM(height)),
                units.text(UnitKind.DENSITY, plan.design().pointsPerM2(scanner)),
                units.text(UnitKind.DISTANCE, scanner.edgeRangeM(height)));
    }

    private static List<LensChoice> lenses(List<CameraRow> cameras, Camera present, UnitChoice units) {
        List<LensChoice> choices = new ArrayList<>();
        for (CameraRow row : cameras) {
            for (double lens : row.lensesMm()) {
                Camera camera = row.withLens(lens);
                CameraView view = CameraView.of(row.id(), camera, units);
                choices.add(new LensChoice(
                        row.id() + "/" + Typed.plain(lens),
                        same(camera, present),
                        camera.name(),
                        "%s, %s; 2 cm from %s".formatted(view.pitch(), view.focal(), view.heightForTwoCm())));
            }
        }
        return choices;
    }
}

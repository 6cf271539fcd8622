package yalos.web.pack;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.ui.ExtendedModelMap;
import org.springframework.ui.Model;
import yalos.core.brief.PackList;
import yalos.core.control.ControlPoint;
import yalos.core.control.MarkedPlace;
import yalos.core.control.PointPhotos;
import yalos.core.day.PackPart;
import yalos.core.day.Papers;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.ledger.CameraCard;
import yalos.core.plan.BlockPlan;
import yalos.core.proof.Judgement;
import yalos.core.proof.Shares;
import yalos.core.sortie.Sortie;
import yalos.core.sortie.Sorties;
import yalos.core.units.Times;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.StageBook;
import yalos.web.brief.BriefWords;
import yalos.web.control.PointCards;
import yalos.web.pack.PackWriter.Packed;
import yalos.web.proof.ProofLayer;
import yalos.web.proof.ProofPicture;
import yalos.web.sorties.Charged;
import yalos.web.sorties.DayLaid;
import yalos.web.sorties.Percent;
import yalos.web.sorties.SortiesBook;
import yalos.web.store.BlockFacts;
import yalos.web.store.ControlMapper;
import yalos.web.strips.LedgerView;

/** All that a field pack says, part by part, in the operator's units. */
@Component
class PackContent {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM uuuu, HH:mm");
    private static final int PHOTOS_OF_A_POINT = 12;
    private static final int MOST_POINTS = 200;
    private static final int MOST_STRIPS = 300;

    private final PlanDesk plans;
    private final SortiesBook sortiesBook;
    private final CheckDesk checks;
    private final ControlMapper control;

    PackContent(PlanDesk plans, SortiesBook sortiesBook, CheckDesk checks, ControlMapper control) {
        this.plans = plans;
        this.sortiesBook = sortiesBook;
        this.checks = checks;
        this.control = control;
    }

    /** A strip in the order flown. */
    public record StripRow(int number, String length, int photos, String towards) {}

    public record SortieRow(
            int number, String stations, int photos, String time, String battery, String left, String margin) {}

    /** A point with the photos that will show it. */
    public record PointRow(String name, String role, int photos, String which) {}

    /** A pinned value with its reason. */
    public record Pinned(String label, String figure, String because) {}

    /** What is set on the aircraft and read back. */
    public record ReadBack(String name, String figure, String was) {}

    /** By the names that the template calls it. */
    Map<String, Object> of(Packed packed) {
        Model model = new ExtendedModelMap();
        BlockFacts facts = packed.facts();
        BlockPlan plan = packed.plan();
        UnitChoice units = packed.units();
        sortiesBook.fill(new StageBook.Opened(packed.block(), plans.plan(facts), units, ""), model);
        packed.found()
                .sorties()
                .filter(cut -> packed.found().light().isPresent())
                .ifPresent(cut -> DayLaid.show(facts, plan, packed.found(), units, model));
        PointCards.fill(packed.block(), plan, control.base(packed.block().id()), units, model);
        title(packed, model);
        pictures(packed, model);
        ledger(packed, model);
        model.addAttribute("camera", CameraCard.of(plan, units));
        model.addAttribute("kit", PackList.of(facts.brief(), plan));
        model.addAttribute("sortieRows", rows(packed));
        model.addAttribute("strips", strips(plan, units));
        model.addAttribute("points", points(plan, facts));
        CheckDesk.Standing standing = checks.of(packed.block());
        model.addAttribute("lines", standing.lines());
        model.addAttribute("edition", standing.edition());
        model.addAttribute(
                "payload",
                standing.lines().stream()
                        .filter(line -> line.section().matches("(Camera|Panel.*|Scanner.*|Base)"))
                        .toList());
        Papers papers = facts.field().day().papers();
        model.addAttribute("card", papers.card());
        model.addAttribute("contacts", papers.contacts());
        model.addAttribute("laws", papers.laws());
        model.addAttribute("acts", facts.field().sorties());
        model.addAttribute("readBack", readBack(packed, standing));
        return model.asMap();
    }

    private void title(Packed packed, Model model) {
        OpenBlock block = packed.block();
        BlockPlan plan = packed.plan();
        UnitChoice units = packed.units();
        List<Finding> findings = packed.whole().findings(units);
        Set<PackPart> wanted = EnumSet.allOf(PackPart.class);
        wanted.removeAll(block.facts().field().day().papers().leftOut());
        model.addAttribute("block", block);
        model.addAttribute("parts", wanted.stream().map(PackPart::key).toList());
        model.addAttribute("contents", wanted.stream().map(PackPart::title).toList());
        model.addAttribute("made", LocalDateTime.now().format(WHEN));
        model.addAttribute(
                "issued",
                checks.then(block, units)
                        .map(then -> "last issued: revision %d, %s"
                                .formatted(then.number(), then.at().format(WHEN)))
                        .orElse("not issued as a revision"));
        model.addAttribute("brief", BriefWords.of(block.facts().brief(), units));
        model.addAttribute(
                "summary",
                "%s · GSD %s · %,d photos · %s in the air · %s"
                        .formatted(
                                units.text(UnitKind.AREA, plan.areaM2()),
                                units.text(UnitKind.GSD, plan.design().scale().gsdM()),
                                plan.photos(),
                                Times.minutes(plan.flightTimeS()),
                                packed.found()
                                        .sorties()
                                        .map(cut -> cut.all().size() == 1
                                                ? "1 sortie"
                                                : cut.all().size() + " sorties")
                                        .orElse("not cut into sorties")));
        model.addAttribute(
                "gear",
                "%s, %s"
                        .formatted(
                                block.facts().aircraft().name(),
                                block.facts().camera().name()));
        model.addAttribute(
                "stops",
                Findings.stops(findings).stream().map(Finding::headline).toList());
        model.addAttribute(
                "minds",
                findings.stream()
                        .filter(finding -> finding.level() == Finding.Level.MIND)
                        .map(Finding::headline)
                        .toList());
    }

    private void pictures(Packed packed, Model model) {
        BlockPlan plan = packed.plan();
        UnitChoice units = packed.units();
        Optional<Sorties> cut = packed.found().sorties();
        model.addAttribute("map", PackMap.svg(plan, cut, packed.facts().control(), units, PackMap.relief(plan)));
        Judgement judgement = packed.judgement();
        PackMap.Under proof = new PackMap.Under(
                ProofPicture.png(judgement, ProofLayer.ADEQUATE, units),
                judgement.proof().grid());
        model.addAttribute("proof", PackMap.svg(plan, cut, packed.facts().control(), units, Optional.of(proof)));
        model.addAttribute("bands", ProofLayer.ADEQUATE.bands(judgement, units));
        model.addAttribute(
                "proofWords",
                "%s of the block is given what is asked: %s."
                        .formatted(Shares.percent(judgement.share()), judgement.verdict()));
        PackSection.hardest(plan, units).ifPresent(section -> {
            model.addAttribute("section", section.svg());
            model.addAttribute("sectionWords", section.words());
        });
        if (model.getAttribute("chart") instanceof String chart) {
            model.addAttribute("chart", PackSection.styled(chart));
        }
    }

    private void ledger(Packed packed, Model model) {
        LedgerView view = LedgerView.plain(packed.facts(), plans.plan(packed.facts()), packed.units());
        model.addAttribute("ledger", view);
        List<Pinned> pinned = view.sections().stream()
                .map(LedgerView.SectionView::rows)
                .flatMap(Collection::stream)
                .filter(LedgerView.Row::pinned)
                .map(row -> new Pinned(
                        row.label(),
                        row.figure() + " " + row.unit(),
                        row.because().isBlank() ? "(no reason written)" : row.because()))
                .toList();
        model.addAttribute("pinned", pinned);
    }

    private List<ReadBack> readBack(Packed packed, CheckDesk.Standing standing) {
        Optional<CheckDesk.Issued> then = checks.then(packed.block(), packed.units());
        List<ReadBack> rows = new ArrayList<>();
        for (String name : standing.figures().names()) {
            PlanFigures.Figure now = standing.figures().of(name).orElseThrow();
            String was = then.flatMap(issued -> issued.figures().of(name))
                    .filter(figure -> !figure.metric().equals(now.metric()))
                    .map(PlanFigures.Figure::text)
                    .orElse("");
            rows.add(new ReadBack(name, now.text(), was));
        }
        return rows;
    }

    private static List<SortieRow> rows(Packed packed) {
        List<SortieRow> rows = new ArrayList<>();
        packed.found().sorties().ifPresent(cut -> {
            List<Charged> charged = Charged.of(cut, packed.found().packs());
            for (Sortie sortie : cut.all()) {
                Charged one = charged.get(sortie.number() - 1);
                rows.add(new SortieRow(
                        sortie.number(),
                        "%d–%d".formatted(sortie.start() + 1, sortie.to() + 1),
                        sortie.photos(),
                        Times.minutes(sortie.seconds()),
                        (one.name().isEmpty() ? "" : one.name() + " ") + Percent.of(one.charge()),
                        Percent.margin(one.left()),
                        Percent.margin(one.marginAtWorst())));
            }
        });
        return rows;
    }

    private static List<StripRow> strips(BlockPlan plan, UnitChoice units) {
        return plan.flight().lines().stream()
                .limit(MOST_STRIPS)
                .map(line -> new StripRow(
                        line.number(),
                        units.text(UnitKind.DISTANCE, line.lengthM()),
                        line.exposures(),
                        UnitKind.ANGLE.figure(line.trackRad(), units.unit(UnitKind.ANGLE)) + "°"))
                .toList();
    }

    private static List<PointRow> points(BlockPlan plan, BlockFacts facts) {
        List<PointRow> rows = new ArrayList<>();
        for (ControlPoint point :
                facts.control().points().stream().limit(MOST_POINTS).toList()) {
            List<PointPhotos.Seen> seen = PointPhotos.of(plan, MarkedPlace.of(plan, point));
            List<String> best = seen.stream()
                    .limit(PHOTOS_OF_A_POINT)
                    .map(one -> String.valueOf(one.photo().id()))
                    .toList();
            rows.add(new PointRow(point.name(), point.role().words(), seen.size(), String.join(", ", best)));
        }
        return rows;
    }
}

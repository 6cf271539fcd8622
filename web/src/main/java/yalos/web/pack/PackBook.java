package yalos.web.pack;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import yalos.core.day.PackPart;
import yalos.core.day.Papers;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.plan.BlockPlan;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.block.Stage;
import yalos.web.block.StageBook;
import yalos.web.sorties.SortieDesk;
import yalos.web.store.BlockFacts;

/** The field book's page of the Field pack stage: complete, or what is missing; its parts; what is taken away and what comes back. */
@Component
class PackBook implements StageBook {
    private final SortieDesk sorties;
    private final CheckDesk checks;
    private final PackWriter writer;

    PackBook(SortieDesk sorties, CheckDesk checks, PackWriter writer) {
        this.sorties = sorties;
        this.checks = checks;
        this.writer = writer;
    }

    /** A part that can be chosen. */
    public record PartRow(String key, String title, String words, boolean in, String lacks) {}

    @Override
    public Stage stage() {
        return Stage.FIELD_PACK;
    }

    @Override
    public Optional<Standing> standing(OpenBlock block, Planned planned) {
        if (planned.whole().isEmpty()) {
            return Optional.of(new Standing("no plan", ""));
        }
        long lacks = lacks(block.facts(), planned.whole().get().plan()).stream()
                .filter(part -> !part.lacks().isEmpty() && part.in())
                .count();
        return Optional.of(lacks == 0 ? new Standing("complete", "done") : new Standing(lacks + " missing", "mind"));
    }

    @Override
    public void fill(Opened opened, Model model) {
        OpenBlock block = opened.block();
        BlockFacts facts = block.facts();
        Papers papers = facts.field().day().papers();
        model.addAttribute("papers", papers);
        model.addAttribute("sheets", Papers.Sheet.values());
        model.addAttribute("contactText", PapersController.lines(papers.contacts()));
        model.addAttribute("lawText", String.join("\n", papers.laws()));
        model.addAttribute("parts", List.of());
        opened.planned().whole().map(Planned.Whole::plan).ifPresent(plan -> {
            List<PartRow> rows = lacks(facts, plan);
            List<String> missing = rows.stream()
                    .filter(row -> row.in() && !row.lacks().isEmpty())
                    .map(row -> row.title() + ": " + row.lacks())
                    .toList();
            model.addAttribute("parts", rows);
            model.addAttribute("missing", missing);
            model.addAttribute("packed", rows.stream().filter(PartRow::in).count() + " of " + rows.size() + " parts");
            model.addAttribute(
                    "packStops",
                    Findings.stops(opened.planned().whole().get().findings(opened.units())).stream()
                            .map(Finding::headline)
                            .toList());
            model.addAttribute("signed", checks.of(block).words());
            model.addAttribute("issuedWords", issued(block, opened));
            model.addAttribute("mapSvg", writer.map(block, plan, opened.units()));
        });
    }

    private String issued(OpenBlock block, Opened opened) {
        return checks.then(block, opened.units())
                .map(then -> {
                    PlanFigures now = checks.figures(block.id(), block.facts(), opened.units());
                    List<String> changed = new ArrayList<>();
                    for (String name : now.names()) {
                        PlanFigures.Figure is = now.of(name).orElseThrow();
                        then.figures()
                                .of(name)
                                .filter(was -> !was.metric().equals(is.metric()))
                                .ifPresent(was -> changed.add("%s %s, was %s".formatted(name, is.text(), was.text())));
                    }
                    return changed.isEmpty()
                            ? "As issued in revision %d.".formatted(then.number())
                            : "Changed since revision %d: %s. Each is marked, and has a line to confirm."
                                    .formatted(then.number(), String.join("; ", changed));
                })
                .orElse("Not issued yet; issue a revision in the history, and changes after it are marked.");
    }

    private List<PartRow> lacks(BlockFacts facts, BlockPlan plan) {
        Papers papers = facts.field().day().papers();
        boolean cut = sorties.known(facts).flatMap(SortieDesk.Found::sorties).isPresent();
        boolean asked = sorties.known(facts).isPresent();
        return Arrays.stream(PackPart.values())
                .map(part -> new PartRow(
                        part.key(),
                        part.title(),
                        part.words(),
                        !papers.leftOut().contains(part),
                        lack(part, facts, plan, cut || !asked)))
                .toList();
    }

    /** What a part lacks; empty where it is whole. */
    private static String lack(PackPart part, BlockFacts facts, BlockPlan plan, boolean cut) {
        Papers papers = facts.field().day().papers();
        return switch (part) {
            case SECTION -> plan.heights().isEmpty() ? "no elevation model, so no section" : "";
            case CONTROL, POINT_PHOTOS -> facts.control().points().isEmpty() ? "no points planned" : "";
            case SORTIES, DAY -> cut ? "" : "no sorties: see that stage";
            case CONTACTS -> papers.contacts().isEmpty() ? "nobody written down" : "";
            case LIMITS -> papers.laws().isEmpty() ? "no notes on what is asked here" : "";
            default -> "";
        };
    }
}

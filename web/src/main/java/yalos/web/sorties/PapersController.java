package yalos.web.sorties;

import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.day.Papers;
import yalos.core.fault.InputFault;
import yalos.core.sortie.SortieSettings;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Person;
import yalos.web.store.BlockFacts;
import yalos.web.store.FieldMapper.SignatureRow;

/** Papers of a block: the checklist that is signed line by line, and the emergency card. Both are the operator's own words. */
@Controller
class PapersController {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM uuuu, HH:mm");

    private final Blocks blocks;
    private final Fleet fleet;

    PapersController(Blocks blocks, Fleet fleet) {
        this.blocks = blocks;
        this.fleet = fleet;
    }

    /** A line as it stands: signed by whom and when, or open. */
    public record Line(int at, String text, boolean signed, String by) {}

    /** The lines of a checklist with their last signatures. */
    static List<Line> open(List<SignatureRow> signatures, Papers papers) {
        Map<String, SignatureRow> last = new LinkedHashMap<>();
        signatures.forEach(row -> last.put(row.line(), row));
        List<Line> lines = new ArrayList<>();
        for (String text : papers.checks()) {
            SignatureRow row = last.get(text);
            boolean signed = row != null && row.signed();
            String by = row == null
                    ? ""
                    : (signed ? "signed by " : "taken back by ")
                            + row.person() + ", " + row.signedAt().format(WHEN)
                            + (row.note().isEmpty() ? "" : ": " + row.note());
            lines.add(new Line(lines.size(), text, signed, by));
        }
        return lines;
    }

    @GetMapping("/blocks/{id}/sorties/checks")
    String checks(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        Papers papers = block.facts().field().day().papers();
        List<Line> lines = open(fleet.signatures(id), papers);
        model.addAttribute("block", block);
        model.addAttribute("lines", lines);
        model.addAttribute(
                "done",
                "%d of %d signed".formatted(lines.stream().filter(Line::signed).count(), lines.size()));
        model.addAttribute("example", papers.equals(Papers.EXAMPLE));
        model.addAttribute("person", Person.present());
        model.addAttribute("text", String.join("\n", papers.checks()));
        model.addAttribute("cardText", card(papers));
        return "sorties/checks";
    }

    private static String card(Papers papers) {
        return papers.card().stream()
                .map(line -> line.what() + ": " + line.effect())
                .collect(Collectors.joining("\n"));
    }

    @PostMapping("/blocks/{id}/sorties/checks/sign")
    String sign(
            @PathVariable long id,
            @RequestParam int at,
            @RequestParam boolean signed,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String note) {
        OpenBlock block = blocks.open(id);
        List<String> checks = block.facts().field().day().papers().checks();
        fleet.sign(id, Listed.at(checks, at, "at"), signed, person, note);
        return "redirect:/blocks/" + id + "/sorties/checks#line-" + at;
    }

    /** The operator's own lines; what was signed before stays signed where its line stays. */
    @PostMapping("/blocks/{id}/sorties/checks/lines")
    String lines(
            @PathVariable long id, @RequestParam long version, @RequestParam String checks, @RequestParam String card) {
        Papers papers = new Papers(
                checks.lines()
                        .map(String::strip)
                        .filter(line -> !line.isEmpty())
                        .toList(),
                Papers.card(card));
        if (papers.checks().isEmpty()) {
            throw new InputFault("checks", checks, "A checklist without lines checks nothing; leave at least one.");
        }
        blocks.change(
                id,
                version,
                "checklist and card edited",
                facts -> facts.with(facts.field().day().with(papers)));
        return "redirect:/blocks/" + id + "/sorties/checks";
    }

    /** The emergency card, to print. */
    @GetMapping("/blocks/{id}/sorties/card")
    String card(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        BlockFacts facts = block.facts();
        SortieSettings settings = facts.field().sorties();
        model.addAttribute("block", block);
        model.addAttribute("card", facts.field().day().papers().card());
        model.addAttribute("lost", settings.lostLink().words());
        model.addAttribute("fence", settings.fence().words());
        model.addAttribute("aircraft", facts.aircraft().name());
        model.addAttribute("example", facts.field().day().papers().card().equals(Papers.EXAMPLE.card()));
        return "sorties/card";
    }
}

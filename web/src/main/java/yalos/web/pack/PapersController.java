package yalos.web.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.day.CheckList;
import yalos.core.day.Papers;
import yalos.core.fault.InputFault;
import yalos.core.sortie.SortieSettings;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Person;
import yalos.web.sorties.Listed;
import yalos.web.store.BlockFacts;

/** The checklist that is signed line by line, notes from the field, and the emergency card. All are the operator's own words. */
@Controller
class PapersController {
    private final Blocks blocks;
    private final CheckDesk desk;
    private final FieldRecord record;

    PapersController(Blocks blocks, CheckDesk desk, FieldRecord record) {
        this.blocks = blocks;
        this.desk = desk;
        this.record = record;
    }

    @GetMapping("/blocks/{id}/field-pack/checks")
    String checks(@PathVariable long id, @RequestParam(defaultValue = "") String who, Model model) {
        OpenBlock block = blocks.open(id);
        Papers papers = block.facts().field().day().papers();
        CheckDesk.Standing standing = desk.of(block);
        model.addAttribute("block", block);
        model.addAttribute("who", who);
        model.addAttribute("lines", shown(standing.lines(), who));
        model.addAttribute("reopened", standing.reopened());
        model.addAttribute("done", standing.words());
        model.addAttribute("edition", standing.edition());
        model.addAttribute("example", papers.checks().isEmpty());
        model.addAttribute("person", Person.present());
        model.addAttribute("text", String.join("\n", CheckDesk.written(block.facts())));
        model.addAttribute("names", CheckList.figureNames());
        model.addAttribute("cardText", lines(papers.card()));
        model.addAttribute("notes", record.notes(id));
        return "field-pack/checks";
    }

    /** The lines of one of two, and those that both do; each heading once. */
    private static List<CheckDesk.Line> shown(List<CheckDesk.Line> lines, String who) {
        if (who.isEmpty()) {
            return lines;
        }
        List<CheckDesk.Line> own = new ArrayList<>();
        String section = "";
        for (CheckDesk.Line line : lines) {
            if (line.who().isEmpty() || line.who().equals(who)) {
                own.add(line.under(section));
                section = line.section();
            }
        }
        return own;
    }

    static String lines(List<Papers.Emergency> lines) {
        return lines.stream().map(line -> line.what() + ": " + line.effect()).collect(Collectors.joining("\n"));
    }

    /**
     * Signs a line, or takes it back. A figure that is read off the aircraft and is not the plan's is refused unless a note says why it stands.
     */
    @PostMapping("/blocks/{id}/field-pack/checks/sign")
    String sign(
            @PathVariable long id,
            @RequestParam int at,
            @RequestParam String line,
            @RequestParam boolean signed,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String reads,
            @RequestParam(defaultValue = "") String note) {
        OpenBlock block = blocks.open(id);
        CheckDesk.Standing standing = desk.of(block);
        CheckDesk.Line signedLine = Listed.at(standing.lines(), at, "at");
        if (!signedLine.key().equals(line)) {
            throw new InputFault(
                    "line",
                    line,
                    "The list, or a figure of the plan, has changed since this page was opened: “%s” stands there now. Reload it; nothing was signed."
                            .formatted(signedLine.text()));
        }
        if (signed && !signedLine.figure().isEmpty()) {
            if (reads.isBlank()) {
                throw new InputFault(
                        "reads", "", "Read it off the aircraft and type what it shows; that is how a slip is found.");
            }
            standing.figures().slip(signedLine.figure(), reads).ifPresent(slip -> {
                if (note.isBlank()) {
                    throw new InputFault(
                            "reads",
                            reads,
                            slip + " Set it and read it again; or write in the note why it is to stand.");
                }
            });
        }
        record.sign(
                id,
                new FieldRecord.Signature(
                        signedLine.key(), signed, person, note, reads, standing.edition(), FieldRecord.now()));
        return "redirect:/blocks/" + id + "/field-pack/checks#line-" + at;
    }

    /** The operator's own lines; what was signed before stays signed where its line stays. An empty list is the job's own again. */
    @PostMapping("/blocks/{id}/field-pack/checks/lines")
    String lines(
            @PathVariable long id, @RequestParam long version, @RequestParam String checks, @RequestParam String card) {
        BlockFacts facts = blocks.open(id).facts();
        List<String> typed = checks.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        boolean standard = typed.equals(CheckDesk.written(facts))
                && facts.field().day().papers().checks().isEmpty();
        List<String> lines = standard ? List.of() : typed;
        Papers papers = facts.field().day().papers().withChecks(lines).withCard(Papers.card(card));
        blocks.change(
                id,
                version,
                "checklist and card edited, edition " + papers.edition(),
                now -> now.with(now.field().day().with(papers)));
        return "redirect:/blocks/" + id + "/field-pack/checks";
    }

    @PostMapping("/blocks/{id}/field-pack/notes")
    String note(@PathVariable long id, @RequestParam String text, @RequestParam(defaultValue = "") String person) {
        blocks.open(id);
        record.write(id, text, person, FieldRecord.now());
        return "redirect:/blocks/" + id + "/field-pack/checks#notes";
    }

    /** The emergency card, to print. */
    @GetMapping("/blocks/{id}/field-pack/card")
    String card(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        BlockFacts facts = block.facts();
        SortieSettings settings = facts.field().sorties();
        model.addAttribute("block", block);
        model.addAttribute("card", facts.field().day().papers().card());
        model.addAttribute("contacts", facts.field().day().papers().contacts());
        model.addAttribute("lost", settings.lostLink().words());
        model.addAttribute("fence", settings.fence().words());
        model.addAttribute("aircraft", facts.aircraft().name());
        model.addAttribute("example", facts.field().day().papers().card().equals(Papers.EXAMPLE.card()));
        return "field-pack/card";
    }
}

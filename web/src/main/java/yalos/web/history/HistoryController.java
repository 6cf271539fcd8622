package yalos.web.history;

import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Preferences;
import yalos.web.store.HistoryMapper;

/** A block's history: go back to any step, issue a revision and compare it, keep and take templates. */
@Controller
class HistoryController {
    private static final int MOST_STEPS = 300;

    private final Blocks blocks;
    private final HistoryMapper rows;
    private final Revisions revisions;
    private final Templates templates;
    private final Preferences preferences;

    HistoryController(
            Blocks blocks, HistoryMapper rows, Revisions revisions, Templates templates, Preferences preferences) {
        this.blocks = blocks;
        this.rows = rows;
        this.revisions = revisions;
        this.templates = templates;
        this.preferences = preferences;
    }

    @GetMapping("/blocks/{id}/history")
    String history(@PathVariable long id, Model model) {
        Blocks.Named block = blocks.named(id);
        model.addAttribute("block", block);
        model.addAttribute("head", block.head());
        model.addAttribute("steps", rows.steps(id, MOST_STEPS));
        model.addAttribute("revisions", rows.revisions(id));
        model.addAttribute("templates", templates.all());
        return "history/history";
    }

    @PostMapping("/blocks/{id}/history/{seq}")
    String goTo(@PathVariable long id, @PathVariable int seq, @RequestParam long version) {
        blocks.goTo(id, version, seq);
        return "redirect:/blocks/" + id + "/history";
    }

    @PostMapping("/blocks/{id}/revisions")
    String issue(@PathVariable long id, @RequestParam(defaultValue = "") String note) {
        revisions.issue(blocks.open(id), note);
        return "redirect:/blocks/" + id + "/history";
    }

    @GetMapping("/blocks/{id}/revisions/{number}")
    String compare(@PathVariable long id, @PathVariable int number, Model model) {
        OpenBlock block = blocks.open(id);
        model.addAttribute("block", block);
        model.addAttribute("comparison", revisions.compare(block, number, preferences.units()));
        return "history/revision";
    }

    /** The plan as it was issued, byte for byte. */
    @GetMapping("/blocks/{id}/revisions/{number}/plan.geojson")
    ResponseEntity<byte[]> plan(@PathVariable long id, @PathVariable int number) {
        OpenBlock block = blocks.open(id);
        String name = "block-%d-revision-%d.geojson".formatted(block.id(), number);
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/geo+json"))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment().filename(name).build().toString())
                .body(revisions.revision(id, number).plan().getBytes(StandardCharsets.UTF_8));
    }

    @PostMapping("/blocks/{id}/template")
    String keep(@PathVariable long id, @RequestParam String name) {
        templates.keep(name, blocks.open(id).facts());
        return "redirect:/blocks/" + id + "/history";
    }

    @PostMapping("/blocks/{id}/template/{template}")
    String take(@PathVariable long id, @PathVariable long template, @RequestParam long version) {
        blocks.change(
                id,
                version,
                "settings of “" + templates.nameOf(template) + "”",
                facts -> templates.applied(template, facts));
        return "redirect:/blocks/" + id + "/strips";
    }

    @PostMapping("/blocks/{id}/template/{template}/delete")
    String delete(@PathVariable long id, @PathVariable long template) {
        templates.delete(template);
        return "redirect:/blocks/" + id + "/history";
    }
}

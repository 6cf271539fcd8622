package yalos.web.block;

import java.time.Duration;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.web.work.WorkQueue;

/** Opens a block's stages, and undoes and redoes. */
@Controller
class BlockController {
    private static final long BYTES_OF_TRIALS = 40_000_000;
    private static final Duration TRIALS_END = Duration.ofSeconds(60);

    private final Blocks blocks;
    private final BlockPage page;
    private final WorkQueue queue;

    BlockController(Blocks blocks, BlockPage page, WorkQueue queue) {
        this.blocks = blocks;
        this.page = page;
        this.queue = queue;
    }

    @GetMapping("/blocks/{id}")
    String open(@PathVariable long id) {
        return "redirect:/blocks/" + id + "/" + Stage.STRIPS.key();
    }

    @GetMapping(
            "/blocks/{id}/{stage:brief|ground|kit|strips|objects|proof|control|sorties|field-pack|fly|take|accuracy|log}")
    String stage(
            @PathVariable long id,
            @PathVariable Stage stage,
            @RequestParam(defaultValue = "") String why,
            Model model) {
        return page.show(blocks.open(id), stage, why, model);
    }

    /** Remedies of a finding, each tried before it is shown; asked for a moment after the page, for trying takes a while. */
    @GetMapping("/blocks/{id}/mends")
    String mends(@PathVariable long id, @RequestParam String key, Visit visit) {
        OpenBlock block = blocks.open(id);
        return queue.answer(
                visit.request(), "Trying remedies", BYTES_OF_TRIALS, TRIALS_END, work -> page.mends(block, key, visit));
    }

    @PostMapping("/blocks/{id}/undo")
    String undo(@PathVariable long id, Visit visit) {
        return page.changed(blocks.undo(id, visit.version()), visit);
    }

    @PostMapping("/blocks/{id}/redo")
    String redo(@PathVariable long id, Visit visit) {
        return page.changed(blocks.redo(id, visit.version()), visit);
    }
}

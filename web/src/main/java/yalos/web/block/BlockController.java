package yalos.web.block;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Opens a block's stages, and undoes and redoes. */
@Controller
class BlockController {
    private final Blocks blocks;
    private final BlockPage page;

    BlockController(Blocks blocks, BlockPage page) {
        this.blocks = blocks;
        this.page = page;
    }

    @GetMapping("/blocks/{id}")
    String open(@PathVariable long id) {
        return "redirect:/blocks/" + id + "/" + Stage.STRIPS.key();
    }

    @GetMapping("/blocks/{id}/{stage:brief|ground|kit|strips|proof}")
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
        return page.mends(blocks.open(id), key, visit);
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

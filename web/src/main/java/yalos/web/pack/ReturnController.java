package yalos.web.pack;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import org.springframework.stereotype.Controller;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import tools.jackson.databind.JsonNode;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.control.MeasuredPoints;
import yalos.web.shell.Preferences;
import yalos.web.store.FieldMapper.NoteRow;

/** What was written in the field comes back: looked at first, kept with a press. */
@Controller
class ReturnController {
    private final Blocks blocks;
    private final CheckDesk desk;
    private final FieldRecord record;
    private final MeasuredPoints measured;
    private final Preferences preferences;
    private final TransactionTemplate transaction;

    ReturnController(
            Blocks blocks,
            CheckDesk desk,
            FieldRecord record,
            MeasuredPoints measured,
            Preferences preferences,
            TransactionTemplate transaction) {
        this.blocks = blocks;
        this.desk = desk;
        this.record = record;
        this.measured = measured;
        this.preferences = preferences;
        this.transaction = transaction;
    }

    @PostMapping("/blocks/{id}/field-pack/returned")
    String look(@PathVariable long id, @RequestParam MultipartFile file, Model model) throws IOException {
        OpenBlock block = blocks.open(id);
        JsonNode json = FieldReturn.json(file.getBytes());
        FieldReturn back = read(json, block);
        model.addAttribute("block", block);
        model.addAttribute("rows", back.rows());
        model.addAttribute(
                "kept",
                back.signatures().size()
                        + back.observations().size()
                        + back.notes().size());
        model.addAttribute(
                "refused",
                back.rows().stream().filter(row -> row.mood().equals("stop")).count());
        model.addAttribute("json", json.toString());
        return "field-pack/returned";
    }

    @PostMapping("/blocks/{id}/field-pack/returned/keep")
    String keep(@PathVariable long id, @RequestParam String written) {
        OpenBlock block = blocks.open(id);
        FieldReturn back = read(FieldReturn.json(written.getBytes(StandardCharsets.UTF_8)), block);
        transaction.executeWithoutResult(all -> {
            back.signatures().forEach(one -> record.sign(id, one));
            for (NoteRow note : back.notes()) {
                record.write(id, note.text(), note.person(), note.writtenAt());
            }
            if (!back.observations().isEmpty()) {
                measured.append(id, back.observations(), "field pack");
            }
        });
        return "redirect:/blocks/" + id + "/field-pack/checks";
    }

    private FieldReturn read(JsonNode json, OpenBlock block) {
        return FieldReturn.of(
                json,
                block,
                desk.of(block),
                record.signatures(block.id()),
                record.notes(block.id()),
                preferences.units(),
                Clock.systemDefaultZone());
    }
}

package yalos.web.pack;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import yalos.core.day.PackPart;
import yalos.core.day.Papers;
import yalos.core.fault.Names;
import yalos.web.block.BlockPage;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.Visit;
import yalos.web.shell.Download;
import yalos.web.work.WorkQueue;

/** The field pack handed out, as PDF, as one file and as a zip of open files; and which parts it has. */
@Controller
class PackController {
    private static final long BYTES = 80_000_000;
    private static final Duration END = Duration.ofMinutes(2);

    private final Blocks blocks;
    private final BlockPage page;
    private final PackWriter writer;
    private final PackFiles files;
    private final WorkQueue queue;

    PackController(Blocks blocks, BlockPage page, PackWriter writer, PackFiles files, WorkQueue queue) {
        this.blocks = blocks;
        this.page = page;
        this.writer = writer;
        this.files = files;
        this.queue = queue;
    }

    @GetMapping("/blocks/{id}/field-pack/pack.pdf")
    @ResponseBody
    ResponseEntity<byte[]> pdf(@PathVariable long id, HttpServletRequest request) {
        PackWriter.Packed packed = writer.packed(blocks.open(id));
        byte[] pdf =
                queue.answer(request, "The field pack", BYTES, END, work -> writer.pdf(packed, writer.said(packed)));
        return file(pdf, "application/pdf", packed.block(), "field-pack.pdf");
    }

    @GetMapping("/blocks/{id}/field-pack/pack.html")
    @ResponseBody
    ResponseEntity<byte[]> html(@PathVariable long id, HttpServletRequest request) {
        PackWriter.Packed packed = writer.packed(blocks.open(id));
        String html =
                queue.answer(request, "The field pack", BYTES, END, work -> writer.html(packed, writer.said(packed)));
        return file(
                html.getBytes(StandardCharsets.UTF_8), "text/html;charset=UTF-8", packed.block(), "field-pack.html");
    }

    @GetMapping("/blocks/{id}/field-pack/pack.zip")
    @ResponseBody
    ResponseEntity<byte[]> zip(@PathVariable long id, HttpServletRequest request) {
        PackWriter.Packed packed = writer.packed(blocks.open(id));
        byte[] zip = queue.answer(request, "The open files", BYTES, END, work -> files.zip(packed, work));
        return file(zip, "application/zip", packed.block(), "field-pack.zip");
    }

    private static ResponseEntity<byte[]> file(byte[] content, String type, OpenBlock block, String ending) {
        return Download.of(content, type, Names.ofFile(block.jobName() + "-" + block.name(), "block") + "-" + ending);
    }

    /** Which parts it has, and on what it is printed. */
    @PostMapping("/blocks/{id}/field-pack/parts")
    String parts(
            @PathVariable long id,
            @RequestParam(defaultValue = "") List<String> in,
            @RequestParam(defaultValue = "A4") Papers.Sheet sheet,
            Visit visit) {
        Set<PackPart> without = EnumSet.allOf(PackPart.class);
        in.forEach(key -> PackPart.ofKey(key).ifPresent(without::remove));
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        "field pack: parts chosen",
                        facts -> facts.with(facts.field()
                                .day()
                                .with(facts.field().day().papers().with(without, sheet)))),
                visit);
    }

    /** Whom to ring, and what is asked here. */
    @PostMapping("/blocks/{id}/field-pack/words")
    String words(@PathVariable long id, @RequestParam String contacts, @RequestParam String laws, Visit visit) {
        List<Papers.Emergency> people = Papers.card(contacts);
        List<String> asked = laws.lines().filter(line -> !line.isBlank()).toList();
        return page.changed(
                blocks.change(
                        id,
                        visit.version(),
                        "field pack: contacts and law",
                        facts -> facts.with(facts.field()
                                .day()
                                .with(facts.field().day().papers().with(people, asked)))),
                visit);
    }
}

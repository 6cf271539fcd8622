package yalos.web.accuracy;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Locale;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import yalos.core.accuracy.Residual;
import yalos.core.exchange.ResidualTable;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.web.accuracy.AccuracyDesk.Found;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Person;
import yalos.web.shell.Preferences;
import yalos.web.store.AccuracyMapper.NoteRow;
import yalos.web.work.WorkQueue;

/** Brings residuals in, leaves points out with a reason, holds surfaces against each other, and hands the report over. */
@Controller
class ResidualsController {
    private static final long BYTES = 120_000_000;
    private static final Duration END = Duration.ofMinutes(5);

    private final Blocks blocks;
    private final AccuracyDesk desk;
    private final Differences differences;
    private final AccuracyReport report;
    private final Preferences preferences;
    private final WorkQueue queue;
    private final Path scratch;

    ResidualsController(
            Blocks blocks,
            AccuracyDesk desk,
            Differences differences,
            AccuracyReport report,
            Preferences preferences,
            WorkQueue queue,
            @Value("${yalos.data}") Path data) {
        this.blocks = blocks;
        this.desk = desk;
        this.differences = differences;
        this.report = report;
        this.preferences = preferences;
        this.queue = queue;
        this.scratch = data.resolve("scratch").toAbsolutePath();
    }

    private static String back(long id) {
        return "redirect:/blocks/" + id + "/accuracy";
    }

    private static Unit unit(String name) {
        return Arrays.stream(Unit.values())
                .filter(unit -> unit.name().equals(name) && unit.family() == Unit.Family.LENGTH)
                .findFirst()
                .orElse(Unit.METRE);
    }

    @PostMapping("/blocks/{id}/accuracy/file")
    String file(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "METRE") String unit,
            @RequestParam(defaultValue = "false") boolean turned)
            throws IOException {
        OpenBlock block = blocks.open(id);
        if (file.isEmpty()) {
            throw new InputFault(
                    "file", "nothing", "Choose a table with the points' residuals, or with where the map has them.");
        }
        ResidualTable table = ResidualTable.read(file.getBytes(), block.facts().grid(), unit(unit), turned);
        desk.keep(block, table, Names.given(file.getOriginalFilename(), "table"));
        return back(id);
    }

    /** Points typed, one on a line, as a table without a file would have them. */
    @PostMapping("/blocks/{id}/accuracy/typed")
    String typed(
            @PathVariable long id,
            @RequestParam String lines,
            @RequestParam(defaultValue = "METRE") String unit,
            @RequestParam(defaultValue = "false") boolean turned) {
        OpenBlock block = blocks.open(id);
        String heading =
                lines.strip().toLowerCase(Locale.ROOT).startsWith("point") ? "" : "point,dE,dN,dH,role,surface\n";
        ResidualTable table = ResidualTable.read(
                (heading + lines.strip()).getBytes(StandardCharsets.UTF_8),
                block.facts().grid(),
                unit(unit),
                turned);
        desk.keep(block, table, "typed");
        return back(id);
    }

    @PostMapping("/blocks/{id}/accuracy/points/{point}/leave-out")
    String leaveOut(
            @PathVariable long id,
            @PathVariable long point,
            @RequestParam boolean out,
            @RequestParam(defaultValue = "") String reason) {
        desk.leaveOut(blocks.open(id).id(), point, out, reason);
        return back(id);
    }

    @PostMapping("/blocks/{id}/accuracy/note")
    String note(
            @PathVariable long id,
            @RequestParam(defaultValue = "0") String surveyLevel,
            @RequestParam(defaultValue = "0") String surveyUp,
            @RequestParam(defaultValue = "") String datum,
            @RequestParam(defaultValue = "") String geoid,
            @RequestParam(defaultValue = "") String calibration,
            @RequestParam(defaultValue = "") String filtering,
            @RequestParam(defaultValue = "") String remark) {
        desk.note(
                blocks.open(id).id(),
                new NoteRow(
                        millimetres("surveyLevel", surveyLevel),
                        millimetres("surveyUp", surveyUp),
                        cut(datum, 300),
                        cut(geoid, 300),
                        cut(calibration, 300),
                        cut(filtering, 300),
                        cut(remark, 1000),
                        Person.present()));
        return back(id);
    }

    private static double millimetres(String field, String typed) {
        try {
            return InputFault.within(
                            field, Double.parseDouble(typed.strip().isEmpty() ? "0" : typed.strip()), 0, 10_000, "mm")
                    / 1000;
        } catch (NumberFormatException none) {
            throw new InputFault(
                    field, typed, "“%s” is no figure; give the survey's error in millimetres.".formatted(typed));
        }
    }

    private static String cut(String text, int most) {
        String plain = Names.clean(text);
        return plain.length() > most ? plain.substring(0, most) : plain;
    }

    /** Something done with two files laid aside, or one. */
    private interface WithFiles {
        void use(Path first, Path second) throws IOException;
    }

    private void laid(HttpServletRequest request, String what, MultipartFile first, MultipartFile second, WithFiles use)
            throws IOException {
        Path one = Files.createTempFile(scratch, "surface", ".tif");
        Path other = Files.createTempFile(scratch, "surface", ".tif");
        try {
            first.transferTo(one);
            if (second != null) {
                second.transferTo(other);
            }
            queue.answer(request, what, BYTES, END, work -> {
                use.use(one, other);
                return true;
            });
        } finally {
            Files.deleteIfExists(one);
            Files.deleteIfExists(other);
        }
    }

    @PostMapping("/blocks/{id}/accuracy/surface")
    String surface(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam(defaultValue = "GEOID") VerticalDatum.Zero zero,
            @RequestParam(defaultValue = "METRE") String unit,
            HttpServletRequest request)
            throws IOException {
        OpenBlock block = blocks.open(id);
        if (file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose the surface of this flight, a GeoTIFF of heights.");
        }
        VerticalDatum datum = new VerticalDatum(zero, unit(unit), 0);
        laid(
                request,
                "The surface at the points",
                file,
                null,
                (first, none) -> desk.append(
                        id,
                        differences.atPoints(block, Names.given(file.getOriginalFilename(), "surface"), first, datum)));
        return back(id);
    }

    @PostMapping("/blocks/{id}/accuracy/earlier")
    String earlier(
            @PathVariable long id,
            @RequestParam MultipartFile file,
            @RequestParam MultipartFile before,
            HttpServletRequest request)
            throws IOException {
        OpenBlock block = blocks.open(id);
        if (file.isEmpty() || before.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose both surfaces, this flight's and the earlier one's.");
        }
        laid(
                request,
                "Comparing two surfaces",
                file,
                before,
                (first, second) -> differences.compare(
                        block,
                        Names.given(file.getOriginalFilename(), "this flight"),
                        first,
                        Names.given(before.getOriginalFilename(), "earlier flight"),
                        second));
        return back(id);
    }

    @PostMapping("/blocks/{id}/accuracy/differences/{difference}/remove")
    String remove(@PathVariable long id, @PathVariable long difference) {
        differences.remove(blocks.open(id).id(), difference);
        return back(id);
    }

    /** Residuals by axis, for the drawer. */
    @GetMapping("/blocks/{id}/accuracy/charts")
    String charts(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        Found found = desk.figures(block);
        model.addAttribute("block", block);
        model.addAttribute(
                "charts",
                AccuracyCharts.of(
                        found.kept().stream()
                                .filter(one -> one.row().leftOut().isEmpty()
                                        && one.residual().kind() == Residual.Kind.CHECK)
                                .map(AccuracyDesk.Kept::residual)
                                .toList(),
                        units));
        return "accuracy/charts";
    }

    @GetMapping("/blocks/{id}/accuracy/report.html")
    ResponseEntity<String> html(@PathVariable long id) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/html;charset=UTF-8"))
                .body(report.html(blocks.open(id)));
    }

    @GetMapping("/blocks/{id}/accuracy/report.pdf")
    ResponseEntity<byte[]> pdf(@PathVariable long id, HttpServletRequest request) {
        OpenBlock block = blocks.open(id);
        byte[] pdf = queue.answer(request, "The report", BYTES, END, work -> report.pdf(block));
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(
                        "Content-Disposition",
                        "attachment; filename=\"accuracy-%d-%s.pdf\""
                                .formatted(id, LocalDateTime.now().toLocalDate()))
                .body(pdf);
    }

    /** Point by point, for whoever checks again. */
    @GetMapping("/blocks/{id}/accuracy/points.csv")
    ResponseEntity<String> points(@PathVariable long id) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("text/csv;charset=UTF-8"))
                .header("Content-Disposition", "attachment; filename=\"accuracy-%d.csv\"".formatted(id))
                .body(report.csv(blocks.open(id)));
    }
}

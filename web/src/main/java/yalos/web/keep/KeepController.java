package yalos.web.keep;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.ModelAndView;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.web.jobs.Jobs;
import yalos.web.shell.Download;
import yalos.web.shell.NotThere;
import yalos.web.store.DataFolder;
import yalos.web.store.JobMapper;
import yalos.web.work.WorkQueue;

/** Jobs out and in as one file, copies of all data, the bin. */
@Controller
class KeepController {
    private static final long BYTES = 80_000_000;
    private static final Duration END = Duration.ofMinutes(20);

    private final JobArchive archives;
    private final JobReturn returns;
    private final CopyDesk copies;
    private final Jobs jobs;
    private final JobMapper rows;
    private final WorkQueue queue;
    private final Path scratch;

    KeepController(
            JobArchive archives,
            JobReturn returns,
            CopyDesk copies,
            Jobs jobs,
            JobMapper rows,
            WorkQueue queue,
            @Value("${yalos.data}") Path data) {
        this.archives = archives;
        this.returns = returns;
        this.copies = copies;
        this.jobs = jobs;
        this.rows = rows;
        this.queue = queue;
        this.scratch = DataFolder.scratch(data);
    }

    /** A job as one file. */
    @GetMapping("/jobs/{id}/archive.zip")
    void archive(@PathVariable long id, HttpServletRequest request, HttpServletResponse response) throws IOException {
        String name = rows.job(id)
                .orElseThrow(() -> new NotThere("There is no such job; it may be deleted."))
                .name();
        handOut(
                response,
                Names.ofFile(name, "job") + "-" + LocalDate.now() + ".zip",
                aside -> queue.answer(request, "The job as one file", BYTES, END, work -> {
                    try (OutputStream out = Files.newOutputStream(aside)) {
                        archives.write(id, out, work::check);
                    }
                    return true;
                }));
    }

    /** What writes a file. */
    private interface Writing {
        void into(Path aside) throws IOException;
    }

    /** Writes a zip aside and hands it out: a fault is told and no half of it goes out, and a slow client holds up nobody. */
    private void handOut(HttpServletResponse response, String name, Writing writing) throws IOException {
        Path aside = Files.createTempFile(scratch, "out", ".zip");
        try {
            writing.into(aside);
            Download.head(response, "application/zip", name);
            response.setContentLengthLong(Files.size(aside));
            Files.copy(aside, response.getOutputStream());
        } finally {
            Files.deleteIfExists(aside);
        }
    }

    /** Brings a job back from its file. */
    @PostMapping("/jobs/archive")
    ModelAndView bring(@RequestParam MultipartFile file, HttpServletRequest request) throws IOException {
        if (file.isEmpty()) {
            return page(HttpStatus.BAD_REQUEST, "Choose the file of a job, as “Job as one file” wrote it.", null);
        }
        Path aside = Files.createTempFile(scratch, "job", ".zip");
        try {
            file.transferTo(aside);
            JobReturn.Brought brought =
                    queue.answer(request, "Bringing a job in", BYTES, END, work -> returns.bring(aside, work::check));
            return page(HttpStatus.OK, "", brought);
        } catch (InputFault fault) {
            return page(HttpStatus.BAD_REQUEST, "Nothing was brought in. " + fault.getMessage(), null);
        } finally {
            Files.deleteIfExists(aside);
        }
    }

    @GetMapping("/keep")
    ModelAndView page() {
        return page(HttpStatus.OK, "", null);
    }

    /** A copy that was made, as listed. */
    public record MadeView(String name, String at, String size) {}

    private ModelAndView page(HttpStatus status, String fault, JobReturn.Brought brought) {
        ModelAndView page = new ModelAndView("keep/keep", status);
        page.addObject("fault", fault);
        page.addObject("brought", brought);
        page.addObject("plan", copies.plan().orElse(null));
        page.addObject("copyFault", copies.fault());
        List<CopyDesk.Made> made = copies.made();
        page.addObject(
                "made",
                made.stream()
                        .limit(20)
                        .map(one -> new MadeView(
                                one.file().getFileName().toString(),
                                one.at().toString().replace('T', ' '),
                                "%,.1f MB".formatted(one.bytes() / 1e6)))
                        .toList());
        page.addObject("binned", rows.binned());
        page.addObject("binDays", CopyDesk.BIN_DAYS);
        return page;
    }

    /** A copy of all data. */
    @GetMapping("/keep/yalos.zip")
    void copy(HttpServletResponse response) throws IOException {
        handOut(response, "yalos-" + LocalDate.now() + ".zip", copies::writeNow);
    }

    @PostMapping("/keep/plan")
    ModelAndView plan(
            @RequestParam(defaultValue = "") String folder,
            @RequestParam(defaultValue = "24") int hours,
            @RequestParam(defaultValue = "30") int days) {
        try {
            copies.plan(folder, hours, days);
            return new ModelAndView("redirect:/keep");
        } catch (InputFault fault) {
            return page(HttpStatus.BAD_REQUEST, fault.getMessage(), null);
        }
    }

    @PostMapping("/keep/bin/{job}/put-back")
    String putBack(@PathVariable long job) {
        jobs.unbin(job);
        return "redirect:/jobs/" + job;
    }

    @PostMapping("/keep/bin/{job}/purge")
    String purge(@PathVariable long job) {
        copies.purge(job);
        return "redirect:/keep";
    }
}

package yalos.web.report;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDate;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import yalos.web.shell.Download;
import yalos.web.work.WorkQueue;

/** The report of a job, as PDF and as one file of HTML. */
@Controller
class ReportController {
    private static final long BYTES = 120_000_000;
    private static final Duration END = Duration.ofMinutes(5);

    private final JobReport report;
    private final WorkQueue queue;

    ReportController(JobReport report, WorkQueue queue) {
        this.report = report;
        this.queue = queue;
    }

    @GetMapping("/jobs/{id}/report.pdf")
    ResponseEntity<byte[]> pdf(@PathVariable long id, HttpServletRequest request) {
        report.settle(id);
        byte[] pdf = queue.answer(request, "The report", BYTES, END, work -> report.pdf(id));
        return Download.of(pdf, "application/pdf", "report-%s.pdf".formatted(LocalDate.now()));
    }

    @GetMapping("/jobs/{id}/report.html")
    ResponseEntity<byte[]> html(@PathVariable long id, HttpServletRequest request) {
        report.settle(id);
        String html = queue.answer(request, "The report", BYTES, END, work -> report.html(id));
        return Download.of(
                html.getBytes(StandardCharsets.UTF_8),
                "text/html;charset=UTF-8",
                "report-%s.html".formatted(LocalDate.now()));
    }
}

package yalos.web.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.exchange.PlanSheetData;
import yalos.core.fault.InputFault;
import yalos.core.finding.Finding;
import yalos.core.finding.Findings;
import yalos.core.plan.BlockPlan;
import yalos.core.units.UnitChoice;
import yalos.web.exchange.PlanGeoJson;
import yalos.web.work.Busy;
import yalos.web.work.TookTooLong;
import yalos.web.work.WorkQueue;

/** Plans a block for a script. Keeps nothing. */
@RestController
class PlanController {
    static final String GEO_JSON = "application/geo+json";
    private static final int MOST_BYTES = 20_000_000;
    private static final long BYTES_OF_A_PLAN = 20_000_000;
    private static final Duration DEADLINE = Duration.ofSeconds(60);

    private final WorkQueue queue;

    PlanController(WorkQueue queue) {
        this.queue = queue;
    }

    @PostMapping(
            path = "/api/plan",
            consumes = {GEO_JSON, MediaType.APPLICATION_JSON_VALUE})
    ResponseEntity<byte[]> plan(HttpServletRequest request) throws IOException {
        byte[] content = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (content.length > MOST_BYTES) {
            throw new InputFault("body", "over 20 MB", "The body may have up to 20 MB.");
        }
        return queue.answer(
                request, "The plan", BYTES_OF_A_PLAN + 20L * content.length, DEADLINE, work -> planned(content));
    }

    private static ResponseEntity<byte[]> planned(byte[] content) {
        PlanRequestReader reader = PlanRequestReader.of(content);
        BlockPlan plan = reader.request().plan();
        List<String> stops = Findings.stops(Findings.of(plan, UnitChoice.METRIC)).stream()
                .map(Finding::headline)
                .toList();
        ObjectNode answer = PlanGeoJson.collection(new PlanSheetData("plan", plan, stops, List.of()));
        // With its camera the answer can be proved as it stands.
        answer.putObject("plan").set("camera", reader.camera());
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(GEO_JSON))
                .body(answer.toString().getBytes(StandardCharsets.UTF_8));
    }

    /** Faults of the plan service as problems (RFC 9457) that name the field. */
    @RestControllerAdvice(basePackageClasses = PlanController.class)
    @Order(Ordered.HIGHEST_PRECEDENCE)
    static class Problems {
        /** The machine has all it can do, one client asks for too much at once, or the work did not end in time. */
        @ExceptionHandler({Busy.class, TookTooLong.class})
        ResponseEntity<ProblemDetail> busy(RuntimeException fault) {
            HttpStatus status = HttpStatus.valueOf(Busy.status(fault));
            return ResponseEntity.status(status)
                    .header(HttpHeaders.RETRY_AFTER, "10")
                    .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(ProblemDetail.forStatusAndDetail(status, fault.getMessage()));
        }

        /** Nobody waits for the answer any more. */
        @ExceptionHandler(CancellationException.class)
        ResponseEntity<Void> calledOff() {
            return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE).build();
        }

        @ExceptionHandler(InputFault.class)
        ResponseEntity<ProblemDetail> input(InputFault fault) {
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(HttpStatus.BAD_REQUEST, fault.getMessage());
            problem.setTitle("That cannot be planned");
            problem.setType(URI.create("about:blank"));
            problem.setProperty("field", fault.field());
            problem.setProperty("value", fault.value());
            return ResponseEntity.badRequest()
                    .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(problem);
        }
    }
}

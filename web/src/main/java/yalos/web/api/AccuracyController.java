package yalos.web.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;
import yalos.core.fault.InputFault;
import yalos.core.network.ExpectedAccuracy;
import yalos.core.network.ExpectedAccuracy.Covariance;
import yalos.core.network.Network;
import yalos.web.work.WorkQueue;

/** Answers how well a block will know its points, for a script. Keeps nothing. */
@RestController
class AccuracyController {
    private static final int MOST_BYTES = 20_000_000;
    private static final long BYTES_OF_PAIRS = 50_000_000;
    private static final Duration DEADLINE = Duration.ofSeconds(120);

    private final WorkQueue queue;

    AccuracyController(WorkQueue queue) {
        this.queue = queue;
    }

    /** The answer: a row for each point. */
    record Answer(List<Row> points) {}

    /**
     * @param sigmaM east, north, up
     * @param covariance ee, en, eu, nn, nu, uu in square metres
     */
    record Row(String id, double[] sigmaM, double[] covariance) {
        static Row of(String id, Covariance found) {
            return new Row(id, new double[] {found.sigmaEastM(), found.sigmaNorthM(), found.sigmaUpM()}, new double[] {
                found.ee(), found.en(), found.eu(), found.nn(), found.nu(), found.uu()
            });
        }
    }

    @PostMapping(path = "/api/accuracy", consumes = MediaType.APPLICATION_JSON_VALUE)
    ResponseEntity<Answer> accuracy(HttpServletRequest request) throws IOException {
        byte[] content = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (content.length > MOST_BYTES) {
            throw new InputFault("body", "over 20 MB", "The body may have up to 20 MB.");
        }
        NetworkReader reader = NetworkReader.of(content);
        // Two pieces of work: only what is read tells how much memory the rest takes.
        Network network = queue.answer(
                request,
                "Reading the network",
                40L * content.length + BYTES_OF_PAIRS,
                DEADLINE,
                work -> reader.network());
        return queue.answer(request, "The accuracy", ExpectedAccuracy.bytes(network), DEADLINE, work -> {
            List<Covariance> found = ExpectedAccuracy.of(network);
            List<Row> rows = new ArrayList<>();
            for (int i = 0; i < found.size(); i++) {
                rows.add(Row.of(reader.pointIds().get(i), found.get(i)));
            }
            return ResponseEntity.ok(new Answer(rows));
        });
    }
}

package yalos.web.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.Socket;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The running application with all its workers held: pages go on, what is too much is refused, what nobody waits for ends. */
class BoundedWorkTest {
    private static final String PLAN = """
            {"type":"FeatureCollection","features":[{"type":"Feature","properties":{"role":"block"},"geometry":
            {"type":"Polygon","coordinates":[[[-4.35,54.512],[-4.347,54.512],[-4.347,54.514],[-4.35,54.514],[-4.35,54.512]]]}}],
            "plan":{"camera":{"pixelsAcross":5472,"pixelsAlong":3648,"sensorAcrossMm":13.2,"sensorAlongMm":8.8,"focalLengthMm":8.8},
            "gsdCm":2}}""";

    private final CountDownLatch gate = new CountDownLatch(1);
    private final List<Work<?>> held = new ArrayList<>();
    private ConfigurableApplicationContext application;
    private WorkQueue queue;
    private Visitor visitor;

    @BeforeEach
    void start() {
        application = RunningYalos.application(RunningYalos.newFolder(), 0);
        queue = application.getBean(WorkQueue.class);
        visitor = new Visitor("http://127.0.0.1:" + port());
    }

    @AfterEach
    void stop() {
        gate.countDown();
        application.close();
    }

    private int port() {
        return RunningYalos.portOf(application);
    }

    private void holdAllWorkers() throws InterruptedException {
        int workers = Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
        CountDownLatch begun = new CountDownLatch(workers);
        for (int i = 0; i < workers; i++) {
            held.add(queue.submit(new Order("test " + i, "Held", 1, Duration.ofHours(1)), work -> {
                begun.countDown();
                gate.await();
                return 1;
            }));
        }
        begun.await();
        holdTheWorkerForAnswers();
    }

    private void holdTheWorkerForAnswers() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        Thread waits =
                new Thread(() -> queue.answer(new Order("test", "Held", 1, Duration.ofHours(1)), () -> true, work -> {
                    begun.countDown();
                    gate.await();
                    return 1;
                }));
        waits.setDaemon(true);
        waits.start();
        begun.await();
    }

    @Test
    void pagesAreAnsweredWhileTheQueueIsFullAndTooMuchIsRefusedInASentence() throws InterruptedException {
        long block = visitor.newBlock("Full", "47.5115, 9.8680");
        visitor.change(
                block,
                "ground",
                "/outline/draw",
                "positions",
                "565300,5262300,565600,5262300,565600,5262600,565300,5262600",
                "epsg",
                "32632");
        holdAllWorkers();
        IntStream.range(0, 24).forEach(i -> queue.submit(new Order("127.0.0.1", "x", 1), work -> 1));
        HttpResponse<String> refused = visitor.script("/api/plan", PLAN);
        assertThat(refused.statusCode()).isEqualTo(429);
        assertThat(refused.body()).contains("24 things you asked for still wait");
        assertThat(refused.headers().firstValue("Retry-After")).contains("10");
        IntStream.range(0, 72).forEach(i -> queue.submit(new Order("other " + i, "x", 1), work -> 1));
        assertThat(visitor.script("/api/plan", PLAN).statusCode()).isIn(429, 503);
        assertThat(visitor.get("/blocks/" + block + "/strips").statusCode()).isEqualTo(200);
        assertThat(visitor.get("/jobs").statusCode()).isEqualTo(200);
        // A solve and the comparisons have workers of their own.
        assertThat(visitor.change(block, "strips", "/ledger/flight-time", "value", "9"))
                .contains("Flight time 9 min");
        assertThat(visitor.get("/blocks/" + block + "/strips?why=what-if").body())
                .contains("over this ground, in the wind to plan for");
        gate.countDown();
        held.forEach(work -> work.await(() -> true));
    }

    @Test
    void whenAScriptGoesAwayItsPlanIsCalledOff() throws IOException, InterruptedException {
        holdAllWorkers();
        try (Socket socket = new Socket("127.0.0.1", port())) {
            byte[] body = PLAN.getBytes(StandardCharsets.UTF_8);
            socket.getOutputStream()
                    .write(("POST /api/plan HTTP/1.1\r\nHost: 127.0.0.1:" + port()
                                    + "\r\nContent-Type: application/geo+json\r\nContent-Length: " + body.length
                                    + "\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            socket.getOutputStream().write(body);
            while (queue.waiting() == 0) {
                Thread.onSpinWait();
            }
        }
        while (queue.waiting() > 0) {
            Thread.onSpinWait();
        }
        assertThat(queue.waiting()).isZero();
    }

    /** Each looks at a plan of its own, one after the other asks again: none throws another out. */
    @Test
    void twentyViewersOfTwentyProofsAllSeeTheirEnd() {
        List<Long> blocks = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            long block = visitor.newBlock("Viewed " + i, "47.5115, 9.8680");
            String corners = "565250 5262250\n5654%02d 5262250\n565400 5262400".formatted(i);
            visitor.change(block, "ground", "/import", "text", corners);
            blocks.add(block);
        }
        List<Long> waiting = new ArrayList<>(blocks);
        while (!waiting.isEmpty()) {
            waiting.removeIf(block ->
                    visitor.get("/blocks/" + block + "/proof/state").body().contains("data-done=\"true\""));
        }
        for (long block : blocks) {
            assertThat(visitor.get("/blocks/" + block + "/proof/gsd.png").statusCode())
                    .as("kept while it is looked at")
                    .isEqualTo(200);
        }
    }
}

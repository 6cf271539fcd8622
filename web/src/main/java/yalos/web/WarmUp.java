package yalos.web;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;
import yalos.web.door.Doorway;
import yalos.web.store.JobMapper;

/**
 * Opens the block that was changed last some times to itself while the operator still looks at the first page, so that the first press is not the slowest of
 * the day: what is compiled then is compiled for him. Only where nobody signs in; it reads and changes nothing.
 */
@Component
@ConditionalOnProperty(name = "yalos.warm-up", matchIfMissing = true)
class WarmUp {
    private static final Logger LOG = LoggerFactory.getLogger(WarmUp.class);
    private static final int ROUNDS = 25;
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final JobMapper rows;
    private final Doorway door;
    private final Environment settings;

    WarmUp(JobMapper rows, Doorway door, Environment settings) {
        this.rows = rows;
        this.door = door;
        this.settings = settings;
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        String port = settings.getProperty("local.server.port");
        if (door.guarded() || port == null || settings.getProperty("server.ssl.enabled", Boolean.class, false)) {
            return;
        }
        Optional<Long> block = rows.changedLast();
        if (block.isPresent()) {
            Thread thread = new Thread(() -> open("http://127.0.0.1:" + port + "/blocks/" + block.get()), "warm-up");
            thread.setDaemon(true);
            thread.setPriority(Thread.MIN_PRIORITY);
            thread.start();
        }
    }

    private static void open(String block) {
        HttpClient client = HttpClient.newHttpClient();
        try {
            for (int i = 0; i < ROUNDS; i++) {
                for (String page : new String[] {"/strips", "/sheet.json"}) {
                    HttpRequest request = HttpRequest.newBuilder(URI.create(block + page))
                            .timeout(PATIENCE)
                            .build();
                    if (client.send(request, HttpResponse.BodyHandlers.discarding())
                                    .statusCode()
                            != 200) {
                        return;
                    }
                }
            }
        } catch (IOException stopped) {
            LOG.debug("not warmed up: {}", stopped.getMessage());
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}

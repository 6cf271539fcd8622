package yalos.web;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;
import yalos.core.pins.Quantity;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.Planned;
import yalos.web.door.Doorway;
import yalos.web.store.BlockFacts;
import yalos.web.store.JobMapper;

/**
 * Opens the block that was changed last some times to itself while the operator still looks at the first page, and rehearses changes of it, so that the
 * first press is not the slowest of the day: what is compiled then is compiled for him. Only where nobody signs in; what it changes is taken back before
 * anybody sees it.
 */
@Component
@ConditionalOnProperty(name = "yalos.warm-up", matchIfMissing = true)
class WarmUp {
    private static final Logger LOG = LoggerFactory.getLogger(WarmUp.class);
    /** What the sheet of a block over ground asks for besides; kept for the next who asks. */
    private static final List<String> DRAWN = List.of("/contours.json", "/relief.png");

    private static final int ROUNDS = 20;
    /** GSDs that are tried, each a little coarser than the one before. */
    private static final double STEP = 1.001;

    private static final Pattern TOKEN = Pattern.compile("name=\"_csrf\" value=\"([^\"]+)\"");
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final JobMapper rows;
    private final Doorway door;
    private final Environment settings;
    private final Blocks blocks;

    WarmUp(JobMapper rows, Doorway door, Environment settings, Blocks blocks) {
        this.blocks = blocks;
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
            Thread thread = new Thread(() -> warm(block.get(), "http://127.0.0.1:" + port + "/blocks/"), "warm-up");
            thread.setDaemon(true);
            thread.setPriority(Thread.MIN_PRIORITY);
            thread.start();
        }
    }

    private void warm(long block, String address) {
        HttpClient client =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
        try {
            for (int round = 1; round <= ROUNDS; round++) {
                HttpResponse<String> page =
                        client.send(asked(address + block + "/strips").build(), HttpResponse.BodyHandlers.ofString());
                if (page.statusCode() != 200) {
                    return;
                }
                client.send(
                        samePress(address + block + "/ledger/gsd", page.body(), blocks.open(block)),
                        HttpResponse.BodyHandlers.discarding());
                rehearse(block, Math.pow(STEP, round));
                for (String drawn : round == 1 ? DRAWN : List.<String>of()) {
                    client.send(asked(address + block + drawn).build(), HttpResponse.BodyHandlers.discarding());
                }
            }
        } catch (IOException | RuntimeException stopped) {
            LOG.debug("not warmed up: {}", stopped.getMessage());
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    private static HttpRequest.Builder asked(String address) {
        return HttpRequest.newBuilder(URI.create(address)).timeout(PATIENCE);
    }

    /** A press that leaves everything as it is, and is answered as any other. */
    private static HttpRequest samePress(String address, String page, OpenBlock block) {
        Matcher token = TOKEN.matcher(page);
        String same = block.facts().notes().getOrDefault(Quantity.GSD, "");
        Map<String, String> fields = Map.of(
                "_csrf",
                token.find() ? token.group(1) : "",
                "version",
                String.valueOf(block.version()),
                "stage",
                "strips",
                "act",
                "note",
                "value",
                same);
        String body = fields.entrySet().stream()
                .map(field -> field.getKey() + "=" + URLEncoder.encode(field.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        return asked(address)
                .header("Content-Type", "application/x-www-form-urlencoded")
                .header("HX-Request", "true")
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
    }

    private void rehearse(long block, double coarser) {
        Optional<Planned.Whole> plan = blocks.plan(block).whole();
        if (plan.isEmpty()) {
            return;
        }
        double gsdM = plan.get().plan().design().scale().gsdM() * coarser;
        UnaryOperator<BlockFacts> change =
                facts -> facts.with(facts.pins().pinned(Quantity.GSD, Measure.ofSi(gsdM, Unit.CENTIMETRE)));
        blocks.rehearse(block, change).whole().ifPresent(whole -> whole.findings(UnitChoice.METRIC));
    }
}

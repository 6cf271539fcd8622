package yalos.web.browser;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.WaitUntilState;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** How long until it is painted, in the browser, on demo block A; for {@code ./yalos bench} alone. */
@EnabledIfSystemProperty(named = "yalos.paint", matches = "true")
class PaintTest {
    private static final int WARM_UP = 300;
    private static final int MEASURED = 100;

    /**
     * A press on "more" beside the GSD, until the sheet of the new plan and the ledger stand painted. Waited for by being told: whoever asks at each
     * picture makes the browser draw pictures that nobody wants, on the processor that the program runs on.
     */
    private static final String NUDGE = """
            sign => new Promise(done => {
              const before = document.getElementById('book').dataset.version;
              const sheet = document.getElementById('sheet');
              const start = performance.now();
              const told = new MutationObserver(() => {
                const book = document.getElementById('book').dataset.version;
                if (book === before || sheet.dataset.drawn !== book) return;
                told.disconnect();
                requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)));
              });
              told.observe(sheet, { attributes: true, attributeFilter: ['data-drawn'] });
              document.querySelector(`#row-gsd .step[value="${sign}"]`).click();
            })""";

    @Test
    void measure() throws IOException {
        ConfigurableApplicationContext application = RunningYalos.demoAsStarted();
        try (Browsing browsing = new Browsing()) {
            String url = "http://127.0.0.1:" + RunningYalos.portOf(application);
            Page page = browsing.page(1280, 800);
            page.navigate(url + "/blocks/2/strips", new Page.NavigateOptions().setWaitUntil(WaitUntilState.LOAD));
            Browsing.awaitSheet(page);
            double[] nudges = new double[WARM_UP + MEASURED];
            for (int i = 0; i < nudges.length; i++) {
                nudges[i] = ((Number) page.evaluate(NUDGE, i % 2 == 0 ? "1" : "-1")).doubleValue();
            }
            double[] pages = new double[20];
            for (int i = 0; i < pages.length; i++) {
                long start = System.nanoTime();
                page.navigate(url + "/blocks/2/strips", new Page.NavigateOptions().setWaitUntil(WaitUntilState.LOAD));
                Browsing.awaitSheet(page);
                pages[i] = (System.nanoTime() - start) / 1e6;
            }
            Files.writeString(
                    Path.of("../bench/target/paint"),
                    "%f %f %f %f".formatted(nudges[0], p95(nudges, WARM_UP), p95(pages, 5), middle(nudges, WARM_UP)));
        } finally {
            application.close();
        }
    }

    private static final String FRAMES = """
            seconds => new Promise(done => {
              const end = performance.now() + 1000 * seconds;
              let frames = 0;
              const next = () => performance.now() < end ? (frames++, requestAnimationFrame(next)) : done(frames / seconds);
              requestAnimationFrame(next);
            })""";

    /** Frames a second of the look from anywhere while it turns, drawn by the processor: block A with more than 5,000 photos. */
    @Test
    void lookFromAnywhere() throws IOException {
        ConfigurableApplicationContext application = RunningYalos.demo();
        try (Browsing browsing = Browsing.inSpace()) {
            String url = "http://127.0.0.1:" + RunningYalos.portOf(application);
            new Visitor(url).change(2, "strips", "/ledger/gsd", "value", "0.68 cm");
            Page page = browsing.page(1280, 800);
            page.navigate(url + "/blocks/2/objects?view=3d");
            page.waitForFunction("() => document.getElementById('space').dataset.drawn");
            int stations = ((Number) page.evaluate("space.plan.stations.length / 6")).intValue();
            if (stations < 5000) {
                throw new IllegalStateException(stations + " photos");
            }
            page.evaluate("space.measure(2)");
            double frames = ((Number) page.evaluate("space.measure(5)")).doubleValue();
            double most = ((Number) page.evaluate(FRAMES, 2)).doubleValue();
            Files.writeString(Path.of("../bench/target/space"), "%d %f %f".formatted(stations, frames, most));
        } finally {
            application.close();
        }
    }

    private static double middle(double[] times, int from) {
        double[] measured = Arrays.copyOfRange(times, from, times.length);
        Arrays.sort(measured);
        return measured[measured.length / 2];
    }

    private static double p95(double[] times, int from) {
        double[] measured = Arrays.copyOfRange(times, from, times.length);
        Arrays.sort(measured);
        return measured[(int) (measured.length * 0.95)];
    }
}

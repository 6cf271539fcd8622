package yalos.web.browser;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.WaitUntilState;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.stream.Collectors;
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
    /** Pages before those that are measured. */
    private static final int UNSETTLED = 10;

    /**
     * Tells when what stands on the page now is on the screen, by the browser's own time of presentation: a word that is added with it is timed. What is
     * counted in turns of drawing instead leaves out that the page still has to be made into a picture.
     */
    private static final String SEEN = """
            window.seen = (start, done) => {
              const word = Object.assign(document.createElement('p'), { textContent: 'seen' });
              word.setAttribute('elementtiming', 'seen');
              Object.assign(word.style, { position: 'fixed', left: '0', top: '0' });
              new PerformanceObserver((told, observer) => {
                observer.disconnect();
                word.remove();
                done(told.getEntries()[0].renderTime - start);
              }).observe({ type: 'element' });
              document.body.append(word);
            }""";

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
                seen(start, done);
              });
              told.observe(sheet, { attributes: true, attributeFilter: ['data-drawn'] });
              document.querySelector(`#row-gsd .step[value="${sign}"]`).click();
            })""";

    /** From a press on a stage that is let go, or from its key, until its book and sheet stand painted. */
    private static final String TURN = """
            stage => {
              window.turned = new Promise(done => {
                let start = 0;
                const told = new MutationObserver(() => {
                  const book = document.getElementById('book');
                  const sheet = document.getElementById('sheet');
                  if (book.dataset.stage !== stage || sheet.dataset.drawn !== book.dataset.version) return;
                  told.disconnect();
                  seen(start, done);
                });
                const all = { subtree: true, childList: true, attributes: true, attributeFilter: ['data-drawn'] };
                told.observe(document.body, all);
                window.addEventListener('click', () => (start = performance.now()), { once: true, capture: true });
              });
            }""";

    private static final String[] STAGES = {"kit", "proof", "ground", "strips"};
    private static final String[] KEYS = {"k", "p", "g", "s"};
    /** So long a finger stays down; about what a press on a link takes, from memory. */
    private static final int PRESS_MS = 80;

    private static double turn(Page page, int number, boolean byKey) {
        page.evaluate(TURN, STAGES[number % STAGES.length]);
        if (byKey) {
            page.keyboard().press(KEYS[number % KEYS.length]);
        } else {
            page.locator("#stages a[data-stage=%s]".formatted(STAGES[number % STAGES.length]))
                    .click(new Locator.ClickOptions().setDelay(PRESS_MS));
        }
        return ((Number) page.evaluate("() => window.turned")).doubleValue();
    }

    /** Until the page is told to be whole by the program's own marks; without asking at each picture. */
    private static final String PAINTED = """
            () => new Promise(done => {
              const sheet = document.getElementById('sheet');
              const there = () => sheet.dataset.painted === document.getElementById('book').dataset.version;
              const end = () => seen(0, done);
              if (there()) return end();
              const told = new MutationObserver(() => { if (there()) { told.disconnect(); end(); } });
              told.observe(sheet, { attributes: true });
            })""";

    /** Until the plan that comes with the page is on the screen: words that stand beside it, and are read after it. */
    private static final String PLAN = """
            () => new Promise(done => {
              const told = list => done(list.getEntries()[0].renderTime);
              new PerformanceObserver(told).observe({ type: 'element', buffered: true });
            })""";

    /** A page on which nothing is drawn. */
    private static final String STANDS = "() => new Promise(done => seen(0, done))";

    private static double press(Page page, int number) {
        return ((Number) page.evaluate(NUDGE, number % 2 == 0 ? "1" : "-1")).doubleValue();
    }

    private static Page strips(Browsing browsing, ConfigurableApplicationContext application) {
        Page page = browsing.page(1280, 800);
        page.addInitScript(SEEN);
        page.navigate(
                "http://127.0.0.1:" + RunningYalos.portOf(application) + "/blocks/2/strips",
                new Page.NavigateOptions().setWaitUntil(WaitUntilState.LOAD));
        Browsing.awaitSheet(page);
        return page;
    }

    /** The very first press, while the program still warms itself up. */
    private static double atOnce() {
        ConfigurableApplicationContext application = RunningYalos.demoAsStarted();
        try (Browsing browsing = new Browsing()) {
            return press(strips(browsing, application), 0);
        } finally {
            application.close();
        }
    }

    @Test
    void measure() throws IOException, InterruptedException {
        double atOnce = atOnce();
        ConfigurableApplicationContext application = RunningYalos.demoAsStarted();
        try (Browsing browsing = new Browsing()) {
            RunningYalos.warmedUp();
            Page page = strips(browsing, application);
            double[] nudges = new double[WARM_UP + MEASURED];
            for (int i = 0; i < nudges.length; i++) {
                nudges[i] = press(page, i);
            }
            double[] turns = new double[160];
            double[] byKey = new double[160];
            for (int i = 0; i < turns.length; i++) {
                turns[i] = turn(page, i, false);
            }
            for (int i = 0; i < turns.length; i++) {
                byKey[i] = turn(page, i, true);
            }
            double[] pages = pages(page, page.url(), PLAN, PAINTED);
            double[] worked = pages(page, page.url(), PAINTED, STANDS);
            double[] bare = pages(page, page.url().replaceAll("/blocks/.*", "/units"), STANDS, STANDS);
            // In this order; the bench reads them.
            double[] figures = {
                nudges[0],
                p95(nudges, WARM_UP),
                p95(pages, UNSETTLED),
                middle(nudges, WARM_UP),
                atOnce,
                p95(turns, 80),
                middle(turns, 80),
                p95(byKey, 80),
                middle(byKey, 80),
                p95(bare, UNSETTLED),
                middle(pages, UNSETTLED),
                p95(worked, UNSETTLED),
                middle(worked, UNSETTLED),
                middle(bare, UNSETTLED),
            };
            Files.writeString(
                    Path.of("../bench/target/paint"),
                    Arrays.stream(figures).mapToObj(String::valueOf).collect(Collectors.joining(" ")));
        } finally {
            application.close();
        }
    }

    /** Pages that come from nothing, each until it is on the screen; the next one when this one rests. */
    private static double[] pages(Page page, String url, String until, String rests) {
        double[] ms = new double[UNSETTLED + MEASURED];
        for (int i = 0; i < ms.length; i++) {
            page.navigate(url, new Page.NavigateOptions().setWaitUntil(WaitUntilState.LOAD));
            ms[i] = ((Number) page.evaluate(until)).doubleValue();
            page.evaluate(rests);
        }
        return ms;
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

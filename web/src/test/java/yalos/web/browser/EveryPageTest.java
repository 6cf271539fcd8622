package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.Cookie;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.core.geodesy.LonLat;
import yalos.web.RunningYalos;
import yalos.web.maps.DrawnMap;

/** Every page with the demo data: no violation of WCAG 2.2 AA, nothing scrolls sideways, upright too; and its picture. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class EveryPageTest {
    /** The figures round the sheet's frame take 20 px below it. */
    private static final String FRAME_ENDS = """
            () => {
              const neat = document.querySelector('.sheet .neat');
              const below = [...document.querySelectorAll('.sheet > .drawer, .sheet > .player')].filter(part => part.checkVisibility());
              const end = neat && neat.getBoundingClientRect().bottom + 20;
              return !neat || below.every(part => part.getBoundingClientRect().top >= end);
            }""";

    private ConfigurableApplicationContext application;
    private Browsing browsing;

    @BeforeAll
    void start() throws IOException {
        application = RunningYalos.demoWithTake();
        Path maps = Path.of(application.getEnvironment().getProperty("yalos.data"), "maps");
        Files.createDirectories(maps);
        Files.write(maps.resolve("moor and lane.pmtiles"), DrawnMap.round(LonLat.of(-4.349, 54.513)));
        browsing = new Browsing();
        rehearsed();
    }

    @AfterAll
    void stop() {
        browsing.close();
        application.close();
    }

    /** The pages that are gone through, one for each look: styles and scripts are read once. */
    private final Map<String, Page> pages = new HashMap<>();

    private boolean taken;

    private String url() {
        return "http://127.0.0.1:" + RunningYalos.portOf(application);
    }

    private Page page(String look) {
        Page page = browsing.page(1280, 800);
        page.context().addCookies(List.of(new Cookie("look", look).setUrl(url())));
        return page;
    }

    private Page open(String path, String look, int width, int height) {
        return open(page(look), path, width, height);
    }

    private Page next(String path, String look, int width, int height) {
        return open(pages.computeIfAbsent(look, this::page), path, width, height);
    }

    private Page open(Page page, String path, int width, int height) {
        if (path.startsWith("/blocks/2/take") && !taken) {
            taken();
            taken = true;
        }
        page.setViewportSize(width, height);
        Browsing.show(page, url() + path);
        if (page.locator("#sheet").count() > 0) {
            Browsing.awaitSheet(page);
        }
        return page;
    }

    @ParameterizedTest
    @CsvSource({
        "/jobs, paper",
        "/jobs/1, paper",
        "/blocks/2/ground, paper",
        "/blocks/2/kit, paper",
        "/blocks/2/strips?why=speed, paper",
        "/blocks/2/strips, sun",
        "/blocks/2/strips, dusk",
        "/blocks/3/proof, paper",
        "/blocks/3/ground, sun",
        "/blocks/4/ground, paper",
        "/blocks/5/strips, dusk",
        "/cameras, paper",
        "/cameras/1, dusk",
        "/cameras/new, sun",
        "/units, paper",
        "/catalogue, paper",
        "/tokens, paper",
        "/maps?block=2, paper",
        "/catalogue/kit/6, dusk",
        "/blocks/2/compare, paper",
        "/blocks/2/history, sun",
        "/blocks/2/object, paper",
        "/blocks/2/brief, paper",
        "/blocks/2/print, paper",
        "/blocks/2/control, paper",
        "/blocks/2/control/measured, paper",
        "/blocks/2/sorties, paper",
        "/blocks/3/sorties, dusk",
        "/blocks/2/sorties/batteries, paper",
        "/blocks/2/field-pack, paper",
        "/blocks/3/field-pack, dusk",
        "/blocks/2/field-pack/earlier, paper",
        "/blocks/2/fly, paper",
        "/blocks/3/fly, dusk",
        "/blocks/2/fly/3/debrief, paper",
        "/blocks/2/take, paper",
        "/blocks/2/take/photos, dusk",
        "/blocks/2/take/proof, paper",
        "/blocks/3/take, dusk",
        "/blocks/2/accuracy, dusk",
        "/blocks/3/accuracy, paper",
        "/blocks/2/field-pack/checks, dusk",
        "/blocks/2/field-pack/card, paper",
        "/blocks/2/control/photos?point=3, dusk",
        "/blocks/2/control/labels, paper",
        "/converter?places=54.51%2C-4.35&search=utm, sun",
        "/, dusk",
        "/log, paper",
        "/log/flights/2, dusk",
        "/blocks/3/log, paper",
        "/blocks/3/log/repeat?of=flight:2, paper",
        "/blocks/3/season, dusk",
        "/keep, paper",
        "/blocks/3/objects, sun",
        "/blocks/7/objects, paper",
        "/blocks/8/objects?view=faces, dusk",
        "/blocks/7/objects?view=3d, paper",
        "/nothing-here, paper",
    })
    void hasNoBarrierAndDoesNotScrollSideways(String path, String look) {
        Page page = next(path, look, 1280, 800);
        assertThat(page.title()).as(path).isNotBlank().doesNotContain("<", "·  ·", "null");
        for (int[] size : new int[][] {{1280, 800}, {800, 1280}}) {
            page.setViewportSize(size[0], size[1]);
            if (size[0] < size[1]) {
                // Upright the page is scrolled; what the window's lower edge cuts is no small target, so all of it is
                // laid open.
                int whole = ((Number) page.evaluate("() => document.documentElement.scrollHeight")).intValue();
                page.setViewportSize(size[0], Math.max(size[1], whole));
            }
            // In its older way it needs no second page to put together what it found; there are no frames here.
            AxeBuilder axe = new AxeBuilder(page).setLegacyMode(true);
            if (size[0] < size[1]) {
                axe.withRules(OF_THE_LAYOUT);
            } else {
                axe.withTags(List.of("wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"));
            }
            assertThat(axe.analyze().getViolations())
                    .as("%s in %s at %d", path, look, size[0])
                    .extracting(rule -> rule.getId() + ": "
                            + rule.getNodes().stream()
                                    .map(node -> node.getHtml() + " " + node.getFailureSummary())
                                    .toList())
                    .isEmpty();
            Object overflow =
                    page.evaluate("() => document.documentElement.scrollWidth - document.documentElement.clientWidth");
            assertThat(((Number) overflow).intValue())
                    .as("%s scrolls sideways", path)
                    .isLessThanOrEqualTo(0);
            assertThat((Boolean) page.evaluate(FRAME_ENDS))
                    .as("%s in %s at %d: the sheet's frame lies over what is below it", path, look, size[0])
                    .isTrue();
        }
    }

    @Test
    void aBarrierWouldBeFound() {
        Page page = browsing.page(1280, 800);
        page.setContent("<html lang='en'><title>One</title><main><h1>One</h1><img src='x.png'></main></html>");
        assertThat(new AxeBuilder(page).setLegacyMode(true).analyze().getViolations())
                .extracting(rule -> rule.getId())
                .contains("image-alt");
        page.context().close();
    }

    /** The demo's rehearsal is flown once the program stands. */
    private void rehearsed() {
        await("/blocks/2/fly", "page => page.querySelector(\"#fly[data-ended=true][data-run='3']\")");
    }

    /** The demo's take is painted and read some time after the program stands. */
    private void taken() {
        await(
                "/blocks/2/take",
                "page => page.querySelector('#take-headline')"
                        + " && !page.querySelector('#take-proving, #take-progress[data-running=true]')");
    }

    /** A promise is no answer yet for what waits for a function, so this one waits by itself; ten minutes, since photos are painted and proved meanwhile. */
    private static final String UNTIL = """
            async path => {
                const wanted = %s;
                const end = Date.now() + 600000;
                while (Date.now() < end) {
                    const text = await (await fetch(path)).text();
                    if (wanted(new DOMParser().parseFromString(text, 'text/html'))) return;
                    await new Promise(done => setTimeout(done, 250));
                }
                throw new Error(`${path} never came to what was waited for`);
            }""";

    /** Asks for a page until it is as wanted, and leaves the program time for what is waited for. */
    private void await(String path, String wanted) {
        Page page = browsing.page(1280, 800);
        Browsing.show(page, url() + "/units");
        page.evaluate(UNTIL.formatted(wanted), path);
        page.context().close();
    }

    /** What may differ between a page lying and the same page upright. */
    private static final List<String> OF_THE_LAYOUT = List.of("target-size", "scrollable-region-focusable");

    private static final String SMALL = """
            () => [...document.querySelectorAll('button, a[href], input:not([type=hidden]), select, summary, textarea, [role=button]')]
                .filter(e => e.checkVisibility() && !e.closest('.visually-hidden') && !e.matches('.default, .skip'))
                .map(e => [e, e.matches('[type=checkbox], [type=radio]')
                    && (e.closest('label') || document.querySelector(`label[for="${e.id}"]`)) || e])
                .map(([e, target]) => [e, target.getBoundingClientRect()])
                .filter(([e, box]) => box.width > 1 && (box.width < 43.5 || box.height < 43.5))
                .map(([e, box]) => `${e.tagName} ${e.className} ${box.width} x ${box.height} ${e.textContent.trim().slice(0, 30)}`)""";

    private static final String COVERED = """
            () => [...document.querySelectorAll('.row .name > span')].filter(name => {
                const box = name.getBoundingClientRect();
                const seen = document.elementFromPoint(box.right - 2, box.top + box.height / 2);
                const inView = box.bottom < innerHeight && box.top > 0 && name.checkVisibility();
                return inView && seen && seen.closest('.step, .figure') && !name.contains(seen);
            }).map(name => name.textContent)""";

    /** In sun and gloves: every target has 44 px each way, no label of a row is covered. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "/jobs",
                "/jobs/1",
                "/blocks/2/brief",
                "/blocks/2/sorties",
                "/blocks/2/sorties/batteries",
                "/blocks/2/field-pack",
                "/blocks/2/field-pack/checks",
                "/blocks/2/fly",
                "/blocks/2/take",
                "/blocks/2/take/photos",
                "/blocks/2/accuracy",
                "/blocks/2/ground",
                "/blocks/2/kit",
                "/blocks/2/strips?why=speed",
                "/blocks/2/proof",
                "/blocks/2/history",
                "/catalogue",
                "/units",
                "/maps?block=2",
                "/blocks/2/compare",
                "/blocks/2/control",
                "/blocks/2/control/measured",
                "/converter",
                "/",
                "/log",
                "/log/flights/2",
                "/blocks/3/log",
                "/blocks/3/log/repeat?of=flight:2",
                "/keep",
                "/blocks/3/objects",
                "/blocks/7/objects",
                "/blocks/8/objects?view=3d",
            })
    void theSunLookIsForGloves(String path) {
        for (int[] size : new int[][] {{1280, 800}, {800, 1280}}) {
            Page page = next(path, "sun", size[0], size[1]);
            assertThat((List<?>) page.evaluate(SMALL))
                    .as("%s at %d", path, size[0])
                    .isEmpty();
            assertThat((List<?>) page.evaluate(COVERED))
                    .as("%s at %d", path, size[0])
                    .isEmpty();
        }
    }

    @Test
    void keysOpenHelpAndGoFromStageToStage() {
        Page page = open("/blocks/2/strips", "paper", 1280, 800);
        page.keyboard().press("?");
        assertThat(page.locator("#help").isVisible()).isTrue();
        page.keyboard().press("Escape");
        page.keyboard().press(".");
        assertThat(page.locator("#drawer").textContent()).contains("Strip 1");
        page.keyboard().press("p");
        page.waitForURL("**/proof");
        page.keyboard().press("g");
        page.waitForURL("**/ground");
        page.context().close();
    }

    @Test
    void aFileDroppedOnTheSheetBecomesTheOutline() {
        Page page = open("/blocks/3/strips", "paper", 1280, 800);
        String text =
                "{\"type\":\"Polygon\",\"coordinates\":[[[-4.340,54.510],[-4.336,54.510],[-4.336,54.512],[-4.340,54.512],[-4.340,54.510]]]}";
        page.evaluate(
                "text => { const d = new DataTransfer(); d.items.add(new File([text], 'field.geojson'));"
                        + " document.querySelector('.neat').dispatchEvent(new DragEvent('drop', { dataTransfer: d, bubbles: true, cancelable: true })); }",
                text);
        page.waitForFunction("() => document.getElementById('saved').textContent.includes('field.geojson')");
        Browsing.awaitSheet(page);
        page.locator("#undo").click();
        page.waitForFunction("() => !document.getElementById('saved').textContent.includes('field.geojson')");
        page.context().close();
    }

    /** Retakes the pictures of the README; asked for by {@code ./yalos shots}. */
    @ParameterizedTest
    @EnabledIfSystemProperty(named = "yalos.shots", matches = "true")
    @CsvSource({
        "home,          /,                          paper, 1280, 800",
        "brief,         /blocks/2/brief,            paper, 1280, 800",
        "ground,        /blocks/3/ground,           paper, 1280, 800",
        "field-pack,    /blocks/2/field-pack,       paper, 1280, 800",
        "strips,        /blocks/2/strips,           paper, 1280, 800",
        "proof,         /blocks/2/proof,            paper, 1280, 800",
        "proof-upright, /blocks/2/proof,            sun,    800, 1280",
        "control,       /blocks/2/control,          paper, 1280, 800",
        "sorties,       /blocks/2/sorties,          paper, 1280, 800",
        "shadows,       /blocks/2/sorties,          paper, 1280, 800",
        "take,          /blocks/2/take,             paper, 1280, 800",
        "photos,        /blocks/2/take/photos,      paper, 1280, 800",
        "accuracy,      /blocks/2/accuracy,         paper, 1280, 800",
        "log,           /blocks/3/log,              paper, 1280, 800",
        "corridor,      /blocks/4/strips,           paper, 1280, 800",
        "job,           /jobs/1,                    paper, 1280, 800",
        "fly,           /blocks/3/fly,              paper, 1280, 800",
        "objects,       /blocks/7/objects,          paper, 1280, 800",
        "space,         /blocks/8/objects?view=3d,  paper, 1280, 800",
    })
    void retakePictures(String name, String path, String look, int width, int height) {
        if (name.equals("space")) {
            space(path, width, height);
            return;
        }
        Page page = open(path, look, width, height);
        if (name.equals("objects")) {
            page.waitForSelector(".unrolled");
        }
        if (path.contains("/proof")) {
            page.waitForSelector("#proof");
        }
        if (name.equals("control")) {
            page.waitForSelector("#layouts[data-running=false] table");
            page.waitForSelector("#worth[data-running=false] .verdict");
        }
        if (path.endsWith("/sorties")) {
            page.waitForSelector("#cut[data-running=false] .sortie-table");
            page.waitForSelector("#day-svg [data-sortie]");
        }
        if (name.equals("shadows")) {
            page.fill("#day-start", "10:45");
            page.click(".drawer-line button");
            page.waitForSelector("#day-chart .finding-line");
            page.waitForSelector("#cut[data-running=false] .sortie-table");
            page.evaluate(
                    "document.querySelector('.book-page').scrollTop = document.querySelector('#light').offsetTop - 120");
            page.click("[data-shade='480']");
            page.waitForFunction("() => window.yalosSheet.pictures.layers.shade.getSource() !== null");
            Browsing.awaitPainted(page);
        }
        if (name.equals("take")) {
            page.waitForSelector("#sheet[data-taken=proved]");
            page.waitForSelector(".contact-tiles img");
        }
        if (name.equals("accuracy")) {
            page.waitForSelector("#residual-charts svg");
        }
        if (name.equals("log")) {
            page.waitForSelector("#season table");
        }
        if (name.equals("home")) {
            page.waitForFunction("() => !document.querySelector('.next-jobs td[hx-get] a.faint')");
        }
        if (name.equals("fly")) {
            page.locator("button:has-text('Begin')").last().click();
            page.waitForSelector("#fly[data-heard=true]");
            page.click("[data-fly=START]");
            page.click("[data-fly-speed='20']");
            page.waitForFunction("() => Number(document.getElementById('fly').dataset.tick) > 2200");
            page.click("[data-fly-speed='0']");
            page.waitForSelector(".long-section svg .earth");
        }
        if (page.locator("#map").count() > 0) {
            page.waitForFunction("() => window.yalosSheet.sources.contours.getFeatures().length > 0");
            Browsing.awaitSheet(page);
        }
        page.waitForFunction(TRIED);
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots/" + name + ".png")));
        page.context().close();
    }

    /** What is in sight is tried by itself; a picture shows what comes of it. */
    private static final String TRIED = """
            () => [...document.querySelectorAll('.remedies[hx-get]')].every(remedies => {
                const box = remedies.getBoundingClientRect();
                const seen = document.elementFromPoint(box.left + 2, box.top + 2);
                return !seen || !remedies.contains(seen);
            })""";

    /** The look from anywhere needs graphics. */
    private void space(String path, int width, int height) {
        try (Browsing graphics = Browsing.inSpace()) {
            Page page = graphics.page(width, height);
            Browsing.show(page, url() + path);
            page.waitForFunction(
                    "() => document.getElementById('space').dataset.drawn && window.space.faces.children.every(face => face.material.map.image)");
            page.evaluate(
                    "() => new Promise(done => { window.space.draw(); requestAnimationFrame(() => requestAnimationFrame(done)); })");
            page.screenshot(new Page.ScreenshotOptions().setPath(Path.of("../docs/screenshots/space.png")));
        }
    }
}

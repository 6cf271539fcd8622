package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;

/** From stage to stage without a new document: what stays, what is exchanged, and what goes the browser's own way. */
class StagesTest extends OnTheDemo {
    private static final String HERE =
            "stage => !document.documentElement.hasAttribute('data-turning') && document.getElementById('book').dataset.stage === stage";
    private static final String SAME_DOCUMENT = "() => window.marked === true";
    private static final String VIEW =
            "() => { const view = window.yalosSheet.view; return [...view.getCenter(), view.getResolution()].join(); }";

    @Override
    Page open(String path) {
        Page page = super.open(path);
        page.evaluate("() => { window.marked = true; }");
        return page;
    }

    private static void turn(Page page, String stage) {
        page.click("#stages a[data-stage='" + stage + "']");
        page.waitForFunction(HERE, stage);
    }

    @Test
    void thePlaceOnTheMapStays() {
        Page page = open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        String whole = (String) page.evaluate(VIEW);
        page.evaluate("() => { window.yalosSheet.view.setResolution(window.yalosSheet.view.getResolution() / 3); }");
        String near = (String) page.evaluate(VIEW);
        turn(page, "sorties");
        Browsing.awaitSheet(page);
        assertThat(page.url()).endsWith("/blocks/2/sorties");
        assertThat(page.title()).startsWith("Sorties");
        assertThat(page.textContent("#stages .here b")).isEqualTo("Sorties");
        assertThat(page.evaluate("() => document.activeElement.dataset.stage")).isEqualTo("sorties");
        assertThat(page.evaluate(VIEW)).as("still near").isEqualTo(near);
        page.click("#sheet [data-tool=fit]");
        turn(page, "kit");
        Browsing.awaitSheet(page);
        assertThat(page.evaluate(VIEW)).as("whole again").isEqualTo(whole);
        assertThat(page.evaluate(SAME_DOCUMENT)).isEqualTo(true);
        page.goBack();
        page.waitForFunction(HERE, "sorties");
        page.goBack();
        page.waitForFunction(HERE, "strips");
        page.goForward();
        page.waitForFunction(HERE, "sorties");
        assertThat(page.url()).endsWith("/sorties");
        assertThat(page.evaluate(SAME_DOCUMENT)).isEqualTo(true);
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    /** A sheet that was left hears nothing more: a tool acts once. */
    @Test
    void whatWasLeftIsQuiet() {
        Page page = open("/blocks/2/strips");
        for (String stage : new String[] {"control", "sorties", "take", "accuracy", "strips"}) {
            turn(page, stage);
            Browsing.awaitSheet(page);
        }
        page.click("#sheet [data-tool=heights]");
        assertThat(page.getAttribute("#sheet [data-tool=heights]", "aria-pressed"))
                .isEqualTo("true");
        page.keyboard().press("?");
        assertThat(page.isVisible("#help")).isTrue();
        page.keyboard().press("Escape");
        page.keyboard().press("p");
        page.waitForFunction(HERE, "proof");
        assertThat(page.locator("canvas").count()).as("one map").isPositive();
        assertThat(page.locator("#map .ol-viewport").count()).isEqualTo(1);
        assertThat(page.evaluate(SAME_DOCUMENT)).isEqualTo(true);
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    /** The map itself goes along: what does not differ is not drawn again, and what a stage drew of its own is gone. */
    @Test
    void theMapGoesAlong() {
        Page page = open("/blocks/2/sorties");
        Browsing.awaitSheet(page);
        page.waitForFunction("() => window.yalosSheet.sources.flights.getFeatures().length > 0");
        page.evaluate("() => { const { map, sources } = window.yalosSheet;"
                + " window.kept = { map, strips: sources.strips.getFeatures()[0], canvas: document.querySelector('#map canvas'),"
                + " contours: sources.contours.getFeatures().length, own: map.getInteractions().getLength() }; }");
        turn(page, "field-pack");
        turn(page, "kit");
        Browsing.awaitSheet(page);
        assertThat(page.evaluate("() => { const { map, sources, layers } = window.yalosSheet; const { kept } = window;"
                        + " return [map === kept.map, sources.strips.getFeatures()[0] === kept.strips,"
                        + " document.querySelector('#map canvas') === kept.canvas, sources.contours.getFeatures().length === kept.contours,"
                        + " layers.flights.getSource().getFeatures().length, layers.strips.getOpacity()].join(); }"))
                .isEqualTo("true,true,true,true,0,1");
        for (int i = 0; i < 3; i++) {
            turn(page, "strips");
            turn(page, "sorties");
        }
        Browsing.awaitSheet(page);
        assertThat(page.evaluate("() => window.yalosSheet.map.getInteractions().getLength() - window.kept.own"))
                .as("each stage takes its own away")
                .isEqualTo(0);
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    /** The page is asked for when the finger goes down, once, and not taken when a change came between. */
    @Test
    void aPressAsksEarly() {
        Page page = open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        List<String> asked = new CopyOnWriteArrayList<>();
        page.onRequest(request -> asked.add(request.url().replaceAll(".*/", "")));
        page.hover("#stages a[data-stage=kit]");
        page.waitForResponse(
                url -> url.url().endsWith("/kit"), () -> page.mouse().down());
        page.mouse().up();
        page.waitForFunction(HERE, "kit");
        assertThat(asked.stream().filter("kit"::equals)).hasSize(1);
        turn(page, "strips");
        Browsing.awaitSheet(page);
        String version = page.getAttribute("#book", "data-version");
        page.hover("#stages a[data-stage=kit]");
        page.waitForResponse(
                url -> url.url().endsWith("/kit"), () -> page.mouse().down());
        page.evaluate("() => document.querySelector('#row-gsd .step[value=\"1\"]').click()");
        page.mouse().up();
        page.waitForFunction(HERE, "kit");
        assertThat(page.getAttribute("#book", "data-version")).isNotEqualTo(version);
        page.click("#undo");
        page.waitForFunction("version => document.getElementById('book').dataset.version !== version", version);
        page.context().close();
    }

    /** A change that is under way is made first, and the next stage knows it. */
    @Test
    void aChangeComesAlong() {
        Page page = open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        String version = page.getAttribute("#book", "data-version");
        page.evaluate("() => { document.querySelector('#row-gsd .step[value=\"1\"]').click();"
                + " document.querySelector('#stages a[data-stage=brief]').click(); }");
        page.waitForFunction(HERE, "brief");
        assertThat(page.getAttribute("#book", "data-version")).isNotEqualTo(version);
        Browsing.awaitSheet(page);
        page.click("#undo");
        page.waitForFunction(
                "version => document.getElementById('book').dataset.version !== version && !document.documentElement.hasAttribute('data-changing')",
                page.getAttribute("#book", "data-version"));
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    /** Of two presses the last one counts. */
    @Test
    void aQuickHandEndsWhereItPressedLast() {
        Page page = open("/blocks/2/strips");
        page.evaluate("() => { for (const stage of ['proof', 'kit', 'ground'])"
                + " document.querySelector(`#stages a[data-stage=${stage}]`).click(); }");
        page.waitForFunction(HERE, "ground");
        assertThat(page.url()).endsWith("/ground");
        Browsing.awaitSheet(page);
        page.context().close();
    }

    /** What was pressed right after another page of the book was asked for is made too, and nothing of either is lost. */
    @Test
    void aPressBesideAReasonIsMade() {
        Page page = open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        int version = Integer.parseInt(page.getAttribute("#book", "data-version"));
        page.evaluate("() => { document.querySelector('#row-gsd .why').click();"
                + " document.querySelector('#row-gsd .step[value=\"1\"]').click();"
                + " document.querySelector('#row-gsd .why').click(); }");
        page.waitForFunction(
                "version => document.getElementById('book').dataset.version === version"
                        + " && !document.documentElement.hasAttribute('data-changing') && document.querySelector('.reason')",
                String.valueOf(version + 1));
        assertThat(page.url()).endsWith("?why=gsd");
        Browsing.awaitSheet(page);
        page.goBack();
        page.goBack();
        page.waitForFunction(
                "() => !document.documentElement.hasAttribute('data-changing') && !document.querySelector('.reason')");
        assertThat(page.url()).endsWith("/strips");
        page.click("#undo");
        page.waitForFunction(
                "version => document.getElementById('book').dataset.version === version", String.valueOf(version + 2));
        page.context().close();
    }

    /** A place within the page is no other page: the way past the head leads past the head. */
    @Test
    void theWayPastTheHeadStaysOnThePage() {
        Page page = open("/blocks/2/strips");
        turn(page, "kit");
        page.evaluate("() => { window.book = document.getElementById('book'); }");
        page.focus(".skip");
        page.keyboard().press("Enter");
        page.waitForFunction("() => location.hash === '#main'");
        page.evaluate("() => new Promise(done => setTimeout(done))");
        page.waitForFunction("() => !document.documentElement.hasAttribute('data-changing')");
        assertThat(page.evaluate("() => document.activeElement.id")).isEqualTo("main");
        assertThat(page.evaluate("() => document.getElementById('book') === window.book"))
                .isEqualTo(true);
        page.context().close();
    }

    /** What does not come as a stage's page is left to the browser. */
    @Test
    void otherwiseTheBrowserGoesThere() {
        Page page = open("/blocks/2/strips");
        page.evaluate("() => { window.fetch = () => Promise.reject(new TypeError('no way')); }");
        page.click("#stages a[data-stage=brief]");
        page.waitForFunction(
                "() => document.readyState === 'complete' && document.getElementById('book')?.dataset.stage === 'brief'");
        assertThat(page.evaluate(SAME_DOCUMENT)).isEqualTo(false);
        page.context().close();
    }
}

package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.LoadState;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Out there: the pack from a file with the network off, a rehearsal looked at twice, and pages when the connection drops. */
@ExtendWith(RunningYalos.class)
class InTheFieldTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3469\n54.5146 -4.3469\n54.5146 -4.3489";
    private Browsing browsing;

    private final Visitor visitor = new Visitor(RunningYalos.url());

    @BeforeEach
    void open() {
        browsing = new Browsing();
    }

    @AfterEach
    void close() {
        browsing.close();
    }

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5133, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    @Test
    void thePackIsWrittenInWithoutANetworkAndComesBack(@TempDir Path folder) throws IOException {
        long block = block("Carried <b>out</b>");
        Page page = browsing.page(820, 1180);
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/field-pack");
        Download pack = page.waitForDownload(
                () -> page.locator("a:has-text('One file for the tablet')").click());
        Path file = folder.resolve("pack.html");
        pack.saveAs(file);

        Page field = browsing.page(820, 1180);
        field.context().setOffline(true);
        field.clock().install();
        field.navigate(file.toUri().toString());
        assertThat(field.locator("h1").textContent()).contains("Carried <b>out</b>");
        Locator first = field.locator(".check").first();
        first.locator("button").first().click();
        assertThat(first.textContent()).contains("Write your name at the top first");
        field.locator("#pilot").fill("A. Pilot");
        first.locator("button").first().click();
        assertThat(first.locator("button").first().getAttribute("aria-pressed")).isEqualTo("true");
        assertThat(first.textContent()).contains("A. Pilot");

        Locator speed = field.locator(".check:has-text('Speed while mapping')");
        speed.locator("button").first().click();
        assertThat(speed.textContent()).contains("Read it off the aircraft");
        speed.locator("input").first().fill("99 m/s");
        speed.locator("button").first().click();
        assertThat(speed.textContent()).contains("not what the plan says");
        String planned = speed.locator(".words").textContent().replaceAll("[^0-9.]*([0-9.]+) m/s.*", "$1");
        speed.locator("input").first().fill(planned);
        speed.locator("button").first().click();
        assertThat(speed.locator("button").first().getAttribute("aria-pressed")).isEqualTo("true");

        Locator timed = field.locator(".check:has-text('(30 s)')");
        timed.locator("button:has-text('start 30 s')").click();
        field.clock().runFor(31_000);
        assertThat(timed.locator("button").first().getAttribute("aria-pressed")).isEqualTo("true");
        field.locator(".notes-typed textarea").fill("ewes in the south corner");
        field.locator(".notes-typed button").click();

        // Reloaded, it still knows: kept in the browser.
        field.reload();
        assertThat(field.locator(".check").first().textContent()).contains("A. Pilot");
        Download copied =
                field.waitForDownload(() -> field.locator("#save-copy").click());
        Path copy = folder.resolve("copy.html");
        copied.saveAs(copy);
        Download saved = field.waitForDownload(() -> field.locator("#save").click());
        Path back = folder.resolve("back.json");
        saved.saveAs(back);
        JsonNode written = JsonMapper.builder().build().readTree(Files.readString(back, StandardCharsets.UTF_8));
        assertThat(written.get("checks").size()).isEqualTo(3);
        assertThat(written.get("checks").get(0).get("at").asString()).matches("\\d{4}-.*[+-]\\d\\d:\\d\\d");
        // The copy opens elsewhere with all that was written.
        Page elsewhere = browsing.page(820, 1180);
        elsewhere.navigate(copy.toUri().toString());
        assertThat(elsewhere.locator("#state").textContent()).contains("3 ticked");
        elsewhere.context().close();
        field.context().close();

        page.setInputFiles("#returned-file", back);
        page.locator("button:has-text('Look at it')").click();
        assertThat(page.locator("h1").textContent()).contains("4 to keep");
        page.locator("button:has-text('Keep these')").click();
        page.waitForLoadState(LoadState.LOAD);
        assertThat(page.content()).contains("3 of ").contains("ewes in the south corner");
        page.context().close();
        assertThat(browsing.complaints()).isEmpty();
    }

    @Test
    void aRehearsalIsSteeredOnOnePageAndSeenOnAnother() {
        long block = block("Flown by page");
        Page page = browsing.page(1280, 800);
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/fly");
        page.locator("#fly-begin input[name=faults][value=cloud]").check();
        page.locator("button:has-text('Begin')").last().click();
        page.waitForSelector("#fly[data-heard=true]");
        page.locator("#fly-person").fill("A. Pilot");
        page.locator("[data-fly=START]").click();
        page.waitForSelector("#fly[data-phase=FLYING]");

        Page second = browsing.page(800, 1280);
        Browsing.show(second, RunningYalos.url() + "/blocks/" + block + "/fly");
        second.waitForSelector("#fly[data-phase=FLYING]");
        second.waitForFunction("() => Number(document.getElementById('fly').dataset.tick) > 20");
        second.locator("#fly-note").fill("somebody on the path");
        // Its panel written anew, as after a change of the block, it is steered all the same.
        second.evaluate(
                "() => { window.panel = document.getElementById('fly'); return window.htmx.ajax('GET', location.href,"
                        + " { target: '#book', select: '#book', swap: 'outerHTML' }); }");
        assertThat(second.evaluate("() => document.getElementById('fly') !== window.panel"))
                .isEqualTo(true);
        second.locator("[data-fly=PAUSE]").click();
        page.waitForSelector("#fly[data-phase=HOLDING]");
        page.waitForSelector("#fly-events:has-text('somebody on the path')");
        // A page that is loaded again joins in where it is.
        page.reload();
        page.waitForSelector("#fly[data-phase=HOLDING]");
        assertThat((Boolean) page.evaluate("() => window.yalosSheet.sources.trail.getFeatures().length > 0"))
                .isTrue();
        page.locator("[data-fly=RESUME]").click();
        page.locator("[data-fly-speed='60']").click();
        page.waitForSelector("#fly[data-phase=LANDED]");
        page.waitForSelector("#fly-charts > svg");
        assertThat(page.locator("[data-fly=PAUSE]").isDisabled()).isTrue();
        page.locator("button:has-text('End it')").click();
        assertThat(page.locator("h1").textContent()).contains("Sortie 1");
        assertThat(page.content()).contains("a cloud covers the field").contains("pause");
        page.context().close();
        second.context().close();
        assertThat(browsing.complaints()).isEmpty();
    }

    @Test
    void whenTheConnectionDropsPagesStayAndChangesWait() {
        long block = block("Kept");
        long other = block("Kept beside");
        Page page = browsing.page(1280, 800);
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/field-pack");
        page.waitForSelector("html[data-held=true]");
        page.click("#keep-all");
        page.waitForSelector("#keep-all-told:has-text('kept at')");
        page.context().setOffline(true);
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/sorties");
        assertThat(page.locator("h2.page-title").textContent()).contains("Sorties");
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/field-pack");
        page.reload();
        assertThat(page.locator("h2.page-title").textContent()).contains("Field pack");
        page.waitForSelector("#kept:has-text('No connection')");
        Browsing.show(page, RunningYalos.url() + "/blocks/" + other + "/brief");
        assertThat(page.content()).contains("was not opened while there was a connection");
        Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/field-pack");

        // Two changes made one after the other, both for the state that was read.
        page.locator("#pack-words-fold summary").click();
        page.locator("#pack-contacts").fill("Farm: ring twice");
        page.locator("#pack-words-fold button").click();
        page.waitForSelector("#kept:has-text('1 change waits')");
        page.locator("#pack-laws").fill("no flights over the road");
        page.locator("#pack-words-fold button").click();
        page.waitForSelector("#kept:has-text('2 changes wait')");
        page.context().setOffline(false);
        page.evaluate("() => navigator.serviceWorker.controller.postMessage({ act: 'send' })");
        page.waitForSelector("#kept:has-text('All that waited was sent')");
        page.locator("#kept a").click();
        page.waitForSelector("#pack-words-fold");
        assertThat(page.locator("#pack-laws").inputValue()).isEqualTo("no flights over the road");

        // Somebody else changes the block meanwhile: the clash is shown, nothing is forced, nothing is lost.
        page.waitForFunction("() => caches.match(location.href).then(kept => kept"
                + " && kept.text().then(text => text.includes('no flights over the road')))");
        page.context().setOffline(true);
        page.locator("#pack-words-fold summary").click();
        page.locator("#pack-laws").fill("mine");
        page.locator("#pack-words-fold button").click();
        page.waitForSelector("#kept:has-text('1 change waits')");
        visitor.change(block, "strips", "/ledger/speed", "value", "4 m/s");
        page.context().setOffline(false);
        page.evaluate("() => navigator.serviceWorker.controller.postMessage({ act: 'send' })");
        page.waitForSelector("#kept:has-text('Not made, it clashes')");
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body()).contains("no flights over the road");
        page.locator("#kept button:has-text('present state')").click();
        page.waitForSelector("#kept:has-text('All that waited was sent')");
        assertThat(visitor.get("/blocks/" + block + "/field-pack").body())
                .contains("mine")
                .doesNotContain("no flights over the road");
        page.context().close();
        // The browser and htmx complain of every address that could not be reached, and of nothing else.
        assertThat(browsing.complaints())
                .allMatch(words -> words.contains("Failed to load resource") || words.startsWith("htmx:"));
    }
}

package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import org.junit.jupiter.api.Test;

/** What is drawn, suggested and looked at on the sheet, by hand in the real page. */
class GroundToolsTest extends OnTheDemo {
    private static final String PREVIEW = "() => window.yalosSheet.sources.preview.getFeatures().length";

    @Override
    Page open(String path) {
        Page page = super.open(path);
        Browsing.awaitSheet(page);
        return page;
    }

    private static String launch(Page page) {
        return page.inputValue("#launch");
    }

    @Test
    void aSuggestedSpotIsTakenAndTheInsetShowsWhereOnEarth() {
        Page page = open("/blocks/2/ground");
        assertThat(page.isVisible(".inset")).isTrue();
        String before = launch(page);
        page.click("text=Suggest spots");
        page.waitForSelector("#launch-spots li");
        assertThat(page.textContent("#launch-spots")).contains("of the flight in sight");
        page.click("#launch-spots li:first-child button:has-text('Take it')");
        page.waitForFunction("before => document.getElementById('launch').value !== before", before);
        assertThat(launch(page)).isNotEqualTo(before);
        page.context().close();
    }

    /** Seen while the figure is typed, gone when the field is left; nothing is changed by looking. */
    @Test
    void wideningIsDrawnBeforeItIsDone() {
        Page page = open("/blocks/3/ground");
        String version = page.getAttribute("#book", "data-version");
        page.evaluate("document.getElementById('outline').open = true");
        page.fill("[data-widen] [name=by]", "40 m");
        page.waitForFunction(PREVIEW);
        page.focus("#go-to");
        page.waitForFunction("() => window.yalosSheet.sources.preview.getFeatures().length === 0");
        assertThat(page.getAttribute("#book", "data-version")).isEqualTo(version);
        page.context().close();
    }

    /** A strip under the pointer is told of, and the map stays where it is; with a tool in hand nothing is told. */
    @Test
    void thePointerMovesNothing() {
        Page page = open("/blocks/3/ground");
        BoundingBox map = page.locator("#map").boundingBox();
        String size = "() => document.getElementById('map').clientHeight";
        Object before = page.evaluate(size);
        // Along a line across all strips, some of them are under the pointer.
        String told = "() => document.getElementById('drawer').textContent.includes('flown towards')";
        for (double share = 0.3; share < 0.6 && !(boolean) page.evaluate(told); share += 0.004) {
            page.mouse().move(map.x + map.width * share, map.y + map.height * 0.5);
            page.evaluate("() => new Promise(done => requestAnimationFrame(done))");
        }
        assertThat((boolean) page.evaluate(told)).isTrue();
        assertThat(page.evaluate(size)).isEqualTo(before);
        assertThat(page.isVisible(".long-section")).isFalse();
        assertThat(page.locator(".strip-acts").count())
                .as("only for a strip that is chosen")
                .isZero();
        page.mouse().move(0, 0);
        page.context().close();
    }

    @Test
    void aZoneIsDrawnOnTheSheet() {
        Page page = open("/blocks/3/ground");
        page.evaluate("document.getElementById('zones').open = true");
        page.fill("#zone-name", "the heronry");
        page.selectOption("#zone-kind", "KEEP_IN");
        page.click("[data-tool=zone]");
        BoundingBox map = page.locator("#map").boundingBox();
        for (double[] at : new double[][] {{0.25, 0.25}, {0.6, 0.25}, {0.4, 0.6}, {0.25, 0.25}}) {
            page.mouse().click(map.x + map.width * at[0], map.y + map.height * at[1]);
            // Not a wait for anything: two presses within 300 ms are one double press.
            page.waitForTimeout(320);
        }
        page.waitForSelector("#zones >> text=the heronry");
        assertThat(page.textContent("#zones")).contains("keep in");
        page.context().close();
    }

    @Test
    void anAlignmentIsAddedAndSaysWhatRoomItTakes() {
        Page page = open("/blocks/3/strips");
        page.evaluate("document.getElementById('passes').open = true");
        page.click("button[value=alignment]");
        page.waitForSelector(".pass-alignment");
        assertThat(page.textContent(".pass-alignment")).contains("clear at each end");
        page.evaluate("document.getElementById('passes').open = true");
        page.fill(".pass-alignment [name=eights]", "3");
        page.press(".pass-alignment [name=eights]", "Enter");
        page.waitForSelector(".pass-alignment >> text=3 eights");
        page.context().close();
    }
}

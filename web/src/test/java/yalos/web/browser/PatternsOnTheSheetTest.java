package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** Patterns as an operator works on them: passes, an axis drawn, strips changed by hand, a plan played, an outline moved. */
class PatternsOnTheSheetTest extends OnTheDemo {
    @Override
    @AfterAll
    void stop() {
        assertThat(browsing.complaints()).isEmpty();
        super.stop();
    }

    @Override
    Page open(String path) {
        Page page = super.open(path);
        Browsing.awaitSheet(page);
        return page;
    }

    private static int strips(Page page, String look) {
        return ((Number) page.evaluate(
                        "look => window.yalosSheet.sources.strips.getFeatures().filter(f => f.get('look') === look).length",
                        look))
                .intValue();
    }

    private static void press(Page page, double x, double y) {
        BoundingBox map = page.locator("#map").boundingBox();
        page.mouse().click(map.x + map.width * x, map.y + map.height * y);
        // Not a wait for anything: two presses within 300 ms are one double press.
        page.waitForTimeout(320);
    }

    /** The answer brings what the sheet draws, so nothing is asked for twice; the page stays where it was scrolled to. */
    @Test
    void aPressLeavesThePageWhereItWasAndBringsTheSheetAlong() {
        Page page = open("/blocks/2/strips");
        page.setViewportSize(1280, 560);
        List<String> asked = new ArrayList<>();
        page.onRequest(request -> asked.add(request.url()));
        Object strips = page.evaluate("window.yalosSheet.plan.strips.length");
        page.evaluate("document.querySelector('#book .book-page').scrollTop = 60");
        String version = page.locator("#book").getAttribute("data-version");
        page.evaluate("document.querySelector('#row-gsd .step[value=\"1\"]').click()");
        page.waitForFunction(
                "before => document.getElementById('book').dataset.version !== before"
                        + " && document.getElementById('sheet').dataset.drawn === document.getElementById('book').dataset.version",
                version);
        assertThat(page.evaluate("document.querySelector('#book .book-page').scrollTop"))
                .isEqualTo(60);
        assertThat(page.evaluate("window.yalosSheet.plan.strips.length")).isNotEqualTo(strips);
        assertThat(asked).anyMatch(url -> url.endsWith("/ledger/gsd")).noneMatch(url -> url.contains("sheet.json"));
        assertThat(page.locator("#sheet-now:not([data-seen])").count()).isZero();
        page.context().close();
    }

    @Test
    void aCrossingIsAddedAndStandsOnTheSheet() {
        Page page = open("/blocks/3/strips");
        assertThat(strips(page, "added")).isZero();
        page.click("#passes summary");
        page.click("text=crossing grid");
        page.waitForFunction("() => document.querySelector('#passes summary').textContent.includes('crossing at 90')");
        Browsing.awaitSheet(page);
        assertThat(strips(page, "added")).isPositive();
        assertThat(page.locator("#passes").getAttribute("open"))
                .as("stays open")
                .isNotNull();
        page.locator(".pass-crossing input[name=angle]").fill("60");
        page.locator(".pass-crossing input[name=angle]").press("Enter");
        page.waitForFunction("() => document.querySelector('#passes summary').textContent.includes('crossing at 60')");
        page.locator(".pass-away button").first().click();
        page.waitForFunction("() => document.querySelector('#passes summary').textContent.includes('single grid')");
        page.context().close();
    }

    @Test
    void anAxisIsDrawnAndItsPointsDragged() {
        Page page = open("/blocks/4/ground");
        page.click("[data-tool=axis]");
        press(page, 0.25, 0.6);
        press(page, 0.5, 0.5);
        press(page, 0.75, 0.6);
        press(page, 0.75, 0.6);
        page.waitForFunction("() => window.yalosSheet.plan.axis && window.yalosSheet.plan.axis.length === 6");
        Browsing.awaitSheet(page);
        BoundingBox map = page.locator("#map").boundingBox();
        Object pixel = page.evaluate(
                "() => window.yalosSheet.map.getPixelFromCoordinate(window.yalosSheet.plan.axis.slice(2, 4))");
        double x = map.x + ((Number) ((List<?>) pixel).get(0)).doubleValue();
        double y = map.y + ((Number) ((List<?>) pixel).get(1)).doubleValue();
        String before = page.locator("#book").getAttribute("data-version");
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x, y - 20, new Mouse.MoveOptions().setSteps(4));
        page.mouse().move(x, y - 60, new Mouse.MoveOptions().setSteps(6));
        page.mouse().up();
        page.waitForFunction("before => document.getElementById('book').dataset.version !== before", before);
        Browsing.awaitSheet(page);
        assertThat(((Number) page.evaluate("() => window.yalosSheet.plan.axis.length")).intValue())
                .isEqualTo(6);
        page.context().close();
    }

    @Test
    void aStripIsDroppedInTheDrawerAndTakenBack() {
        Page page = open("/blocks/2/strips");
        int whole = strips(page, "main");
        page.keyboard().press(".");
        page.keyboard().press(".");
        page.click(".strip-acts button:has-text('Drop')");
        page.waitForFunction("whole => window.yalosSheet.plan.strips.length / 4 === whole - 1", whole);
        page.click("#passes summary");
        page.locator(".pass-away button").first().click();
        page.waitForFunction("whole => window.yalosSheet.plan.strips.length / 4 === whole", whole);
        page.context().close();
    }

    @Test
    void aPlanIsPlayedAndScrubbed() {
        Page page = open("/blocks/2/strips");
        page.click("[data-tool=play]");
        page.waitForSelector("#player:not([hidden])");
        assertThat(page.locator("#player output").textContent()).contains("0 of ");
        page.evaluate(
                "() => { const time = document.querySelector('#player input'); time.value = 600; time.dispatchEvent(new Event('input')); }");
        page.waitForFunction("() => document.querySelector('#player output').textContent.startsWith('10:0')");
        page.waitForFunction(
                "() => { const mark = document.querySelector('.long-section svg path.cursor'); return mark && mark.getAttribute('d'); }");
        assertThat(page.locator("#drawer").textContent()).contains("Strip ");
        page.click("[data-player=go]");
        page.waitForFunction("() => Number(document.querySelector('#player input').value) > 601");
        page.click("[data-player=close]");
        assertThat(page.locator("#player").isVisible()).isFalse();
        page.context().close();
    }

    @Test
    void anOutlineIsMovedOnTheSheetAndTheSheetGoesToAPlace() {
        Page page = open("/blocks/5/ground");
        page.evaluate("() => { document.getElementById('outline').open = true; }");
        Object from = page.evaluate("() => window.yalosSheet.plan.rings[0][0]");
        page.click("[data-tool=move]");
        BoundingBox map = page.locator("#map").boundingBox();
        double x = map.x + map.width * 0.5;
        double y = map.y + map.height * 0.5;
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x + 20, y, new Mouse.MoveOptions().setSteps(4));
        page.mouse().move(x + 40, y, new Mouse.MoveOptions().setSteps(4));
        page.mouse().up();
        page.waitForFunction("from => window.yalosSheet.plan.rings[0][0] > from + 5", from);
        Browsing.awaitSheet(page);
        page.fill("#go-to", "30U VF 12900 41500");
        page.click(".go-to button:has-text('Go')");
        page.waitForFunction(
                "() => Math.hypot(window.yalosSheet.view.getCenter()[0] - 412900, window.yalosSheet.view.getCenter()[1] - 6041500) < 1");
        page.context().close();
    }
}

package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Sorties on the sheet and the day in the drawer, by hand: a launch point dragged, a sortie held back, shadows at an hour. */
class SortiesOnTheSheetTest extends OnTheDemo {
    private static final String CUT = "() => { const sheet = document.getElementById('sheet');"
            + " return sheet.dataset.cut && sheet.dataset.cut === document.getElementById('book').dataset.version; }";
    private static final String LAUNCH =
            "() => window.yalosSheet.sources.launch.getFeatures()[0].getGeometry().getCoordinates().join()";

    @Override
    Page open(String path) {
        Page page = super.open(path);
        Browsing.awaitSheet(page);
        page.waitForFunction(CUT);
        page.waitForSelector("#day-svg [data-sortie]");
        return page;
    }

    @Test
    void aLaunchPointIsDraggedAndTheSortiesFollow() {
        Page page = open("/blocks/2/sorties");
        assertThat(page.locator(".sortie-table tbody").count()).isEqualTo(3);
        Browsing.awaitPainted(page);
        List<?> at = (List<?>) page.evaluate(
                "() => { const s = window.yalosSheet; const p = s.map.getPixelFromCoordinate(s.sources.launch.getFeatures()[0]"
                        + ".getGeometry().getCoordinates()); const b = document.getElementById('map').getBoundingClientRect();"
                        + " return [b.x + p[0], b.y + p[1]]; }");
        double x = ((Number) at.get(0)).doubleValue();
        double y = ((Number) at.get(1)).doubleValue();
        Object before = page.evaluate(LAUNCH);
        String margin = page.textContent("#cut .wide-line");
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x + 150, y - 60, new Mouse.MoveOptions().setSteps(6));
        page.mouse().up();
        page.waitForFunction("before => document.querySelector('#cut .wide-line').textContent !== before", margin);
        page.waitForFunction(CUT);
        assertThat(page.evaluate(LAUNCH)).isNotEqualTo(before);
        page.click("#undo");
        page.waitForFunction("before => (" + LAUNCH + ")() === before", before);
        page.click("[data-tool=unseen]");
        page.waitForFunction("() => window.yalosSheet.sources.unseen.getFeatures().length === 0");
        page.click("[data-tool=unseen]");
        page.waitForFunction("() => window.yalosSheet.sources.unseen.getFeatures().length > 0");
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    @Test
    void aSortieIsDraggedAlongTheDayAndMovedByKeys() {
        Page page = open("/blocks/2/sorties");
        BoundingBox bar = page.locator("#day-svg [data-sortie='2']").boundingBox();
        double before = Double.parseDouble(page.getAttribute("#day-svg [data-sortie='2']", "data-minute"));
        page.mouse().move(bar.x + bar.width / 2, bar.y + bar.height / 2);
        page.mouse().down();
        page.mouse().move(bar.x + bar.width / 2 + 60, bar.y + 10, new Mouse.MoveOptions().setSteps(4));
        page.mouse().up();
        page.waitForFunction(
                "before => Number(document.querySelector('#day-svg [data-sortie=\"2\"]').dataset.minute) > before + 15",
                before);
        double dragged = Double.parseDouble(page.getAttribute("#day-svg [data-sortie='2']", "data-minute"));
        page.focus("#day-svg [data-start]");
        page.keyboard().press("ArrowLeft");
        page.waitForFunction(
                "was => Number(document.querySelector('#day-svg [data-sortie=\"2\"]').dataset.minute) < was", dragged);
        page.click(".sortie-table tbody:nth-of-type(1) .more a");
        page.waitForSelector("#day-chart svg[aria-label^='Sortie 1']");
        page.click("#day-chart a");
        page.waitForSelector("#day-svg");
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    @Test
    void shadowsAreLaidUnderTheSheetAndTakenAway() {
        Page page = open("/blocks/2/sorties");
        page.waitForSelector("[data-shade='480']");
        page.click("[data-shade='480']");
        page.waitForFunction("() => window.yalosSheet.pictures.layers.shade.getSource() !== null");
        assertThat(page.getAttribute("[data-shade='480']", "aria-pressed")).isEqualTo("true");
        // Written anew, as it is while the day is still being worked out, its button looks pressed all the same.
        page.evaluate("() => window.htmx.ajax('GET', location.href,"
                + " { target: '#light-found', select: '#light-found', swap: 'outerHTML' })");
        page.waitForSelector("[data-shade='480'][aria-pressed=true]");
        page.click("[data-shade='480']");
        page.waitForFunction("() => window.yalosSheet.pictures.layers.shade.getSource() === null");
        page.click("[data-tool=take-off]");
        assertThat(page.textContent(".hint")).contains("Press where the aircraft may take off");
        BoundingBox map = page.locator("#map").boundingBox();
        page.mouse().click(map.x + map.width * 0.55, map.y + map.height * 0.3);
        page.waitForFunction("() => window.yalosSheet.sources.launch.getFeatures().length === 2");
        page.click("form[action$='/launches/remove'] button");
        page.waitForFunction("() => window.yalosSheet.sources.launch.getFeatures().length === 1");
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }
}

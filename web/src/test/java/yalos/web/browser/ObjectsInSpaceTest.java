package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A footprint drawn on the sheet, its faces pressed, and the look from anywhere: turned, walked, pressed, taken along, and without graphics. */
class ObjectsInSpaceTest extends OnTheDemo {
    private static final String DRAWN =
            "() => document.getElementById('space').dataset.drawn === document.getElementById('book').dataset.version";
    private static final String EYE = "() => window.space.camera.position.toArray().join()";

    @Override
    Browsing browser() {
        return Browsing.inSpace();
    }

    /** Graphics are let go of by a page of nothing first: a page that is closed while they are drawn was seen never to end. */
    private static void leave(Page page) {
        page.navigate("about:blank");
        page.context().close();
    }

    @Test
    void aFootprintIsDrawnAndFlownRound() {
        Page page = open("/blocks/3/objects");
        Browsing.awaitSheet(page);
        assertThat(page.textContent("#book")).contains("No objects yet.");
        page.fill("#object-form [name=name]", "store");
        page.fill("#object-form [name=top]", "6");
        page.click("[data-tool=object]");
        BoundingBox map = page.locator("#map").boundingBox();
        double[][] corners = {{0.50, 0.40}, {0.53, 0.40}, {0.53, 0.46}, {0.50, 0.46}, {0.50, 0.40}};
        for (double[] corner : corners) {
            page.mouse().click(map.x + map.width * corner[0], map.y + map.height * corner[1]);
            // Not a wait for anything: two presses within 300 ms are one double press.
            page.waitForTimeout(320);
        }
        page.waitForSelector(".objects li");
        assertThat(page.textContent(".objects")).contains("store");
        page.click(".pass-add [value=facade]");
        page.waitForSelector(".rounds .round-facade");
        page.waitForSelector(".unrolled .unrolled-face");
        page.waitForFunction("() => document.querySelector('.elevation-bar b').textContent.includes('given enough')");
        page.locator(".unrolled rect[data-face='1']").click();
        page.waitForSelector(".face-probe dl");
        assertThat(page.textContent(".face-probe"))
                .contains("store, wall facing")
                .contains("seen by photos");
        page.selectOption(".elevation-bar [name=layer]", "incidence");
        page.waitForFunction("() => document.querySelector('.elevation-legend').textContent.includes('15°')");
        assertThat(browsing.complaints()).isEmpty();
        leave(page);
    }

    @Test
    void theLookTurnsWalksAndAnswers() throws IOException {
        Page page = open("/blocks/7/objects?view=3d");
        page.waitForFunction(DRAWN);
        String before = (String) page.evaluate(EYE);
        BoundingBox view = page.locator(".space-view canvas").boundingBox();
        double x = view.x + view.width / 2;
        double y = view.y + view.height / 2;
        page.mouse().move(x + 150, y);
        page.mouse().down();
        page.mouse().move(x + 40, y + 30, new Mouse.MoveOptions().setSteps(6));
        page.mouse().up();
        page.waitForFunction("before => window.space.camera.position.toArray().join() !== before", before);
        page.click("[data-space=whole]");
        page.focus(".space-view canvas");
        String walked = (String) page.evaluate(EYE);
        page.keyboard().press("w");
        assertThat((String) page.evaluate(EYE)).isNotEqualTo(walked);
        page.keyboard().press("q");
        page.keyboard().press("+");
        page.keyboard().press("0");
        // The tower stands in the middle of the view; a press on it tells what that place of its face is given.
        page.waitForFunction("() => window.space.faces.children.every(face => face.material.map.image)");
        page.mouse().click(x, y);
        page.waitForSelector(".space-probe dl");
        assertThat(page.textContent(".space-probe")).contains("beacon tower").contains("best GSD");
        assertThat((int) page.evaluate("() => window.space.rays.children.length"))
                .isEqualTo(1);
        page.selectOption("[name=faces]", "count");
        page.waitForFunction(
                "() => window.space.faces.children.some(face => face.material.map.image?.src.includes('count.png'))");
        Download picture = page.waitForDownload(() -> page.click("[data-space=picture]"));
        assertThat(Files.size(picture.path())).isGreaterThan(10_000);
        for (String look : List.of("dusk", "paper")) {
            page.selectOption("#look", look);
            // A page of its own comes; only when it is whole does it hear the next choice.
            page.waitForFunction(
                    "look => document.readyState === 'complete' && document.documentElement.dataset.look === look",
                    look);
            page.waitForFunction(DRAWN);
        }
        assertThat(browsing.complaints()).isEmpty();
        leave(page);
    }

    @Test
    void hoveringAPhotoShowsItsFrame() {
        Page page = open("/blocks/8/objects?view=3d");
        page.waitForFunction(DRAWN);
        Object at = page.evaluate("() => { const s = window.space; const p = s.stations.geometry.attributes.position;"
                + " const v = s.camera.position.clone().fromBufferAttribute(p, 0).project(s.camera);"
                + " const b = s.canvas.getBoundingClientRect();"
                + " return [b.x + (v.x + 1) / 2 * b.width, b.y + (1 - v.y) / 2 * b.height]; }");
        List<?> pixel = (List<?>) at;
        page.mouse().move(((Number) pixel.get(0)).doubleValue(), ((Number) pixel.get(1)).doubleValue());
        page.waitForFunction("() => document.querySelector('.space-says').textContent.startsWith('Photo ')");
        assertThat((int) page.evaluate("() => window.space.hovered.children.length"))
                .isEqualTo(1);
        leave(page);
    }

    @Test
    void withoutGraphicsTheFacesAreUnrolledInstead() {
        Page page = browsing.page(1280, 800);
        page.addInitScript("const get = HTMLCanvasElement.prototype.getContext;"
                + " HTMLCanvasElement.prototype.getContext = function (kind, ...more) {"
                + " return kind.startsWith('webgl') ? null : get.call(this, kind, ...more); };");
        show(page, "/blocks/7/objects?view=3d");
        page.waitForSelector(".space-instead .unrolled-face");
        assertThat(page.textContent(".space-says")).contains("draws nothing in space");
        leave(page);
    }
}

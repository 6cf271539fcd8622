package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Points set and dragged on the sheet, what they are worth, and a file of measurements cured by presses. */
class ControlOnTheSheetTest extends OnTheDemo {
    private static final String FORETOLD = "() => { const sheet = document.getElementById('sheet');"
            + " return sheet.dataset.foretold && sheet.dataset.foretold === document.getElementById('book').dataset.version; }";

    private static double[] pixelOf(Page page, String point) {
        List<?> at = (List<?>) page.evaluate(
                "name => { const s = window.yalosSheet; const f = s.sources.points.getFeatures().find(f => f.get('name') === name);"
                        + " const p = s.map.getPixelFromCoordinate(f.getGeometry().getCoordinates());"
                        + " const b = document.getElementById('map').getBoundingClientRect(); return [b.x + p[0], b.y + p[1]]; }",
                point);
        return new double[] {((Number) at.get(0)).doubleValue(), ((Number) at.get(1)).doubleValue()};
    }

    @Test
    void aPointIsSetDraggedAndUndoneAndTheBlockIsForetoldAnew() {
        Page page = open("/blocks/3/control");
        Browsing.awaitSheet(page);
        BoundingBox map = page.locator("#map").boundingBox();
        page.click("[data-tool=control]");
        assertThat(page.textContent(".hint")).contains("Press where the control point goes");
        page.mouse().click(map.x + map.width * 0.5, map.y + map.height * 0.45);
        page.waitForSelector(".points li[data-point='1']");
        page.waitForFunction(FORETOLD);
        page.waitForFunction("() => window.yalosSheet.sources.points.getFeatures().length === 1");
        page.waitForSelector("#layouts[data-running=false] tr.asked");
        Browsing.awaitPainted(page);
        String before = page.inputValue(".points li[data-point='1'] [name=place]");
        double[] at = pixelOf(page, "1");
        page.mouse().move(at[0], at[1]);
        page.mouse().down();
        page.mouse().move(at[0] + 30, at[1] + 12, new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
        page.mouse().up();
        page.waitForFunction("before => document.querySelector('.points li [name=place]').value !== before", before);
        page.waitForFunction(FORETOLD);
        assertThat(page.textContent(".points li[data-point='1'] .point-sigma")).contains("cm");
        page.click("#undo");
        page.waitForFunction("before => document.querySelector('.points li [name=place]').value === before", before);
        page.click("[data-tool=accuracy]");
        assertThat(page.isVisible(".accuracy-legend")).isFalse();
        page.click("[data-tool=accuracy]");
        page.waitForSelector(".accuracy-legend:not([hidden])");
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    @Test
    void aCrookedFileIsCuredByPressesAndKept() {
        Page page = open("/blocks/2/control/measured");
        assertThat(page.textContent("h1")).contains("8 of 10 points measured");
        // Easting and northing changed over, heights above the ellipsoid, decimal commas, leftovers of merged cells.
        String text = "point;northing;easting;height;hrms;vrms;status;sat\n;;;;;;;\n"
                + "10;412640,010;6041330,006;384,10;0,009;0,016;fixed;19\n"
                + "3;412895,004;6041324,997;371,90;0,011;0,018;fixed;17\n";
        page.setInputFiles(
                "#observation-file", new FilePayload("rover.csv", "text/csv", text.getBytes(StandardCharsets.UTF_8)));
        page.click("text=Look at it");
        page.waitForSelector(".doubts a:has-text('Swap')");
        page.click(".doubts a:has-text('Swap')");
        page.waitForSelector(".doubts a:has-text('above the ellipsoid')");
        page.click(".doubts a:has-text('above the ellipsoid')");
        page.waitForSelector(".said");
        page.click("button:has-text('Keep 2 points')");
        page.waitForURL("**/measured");
        assertThat(page.textContent("h1")).contains("10 of 10 points measured, 1 observation not used");
        page.context().close();
    }
}

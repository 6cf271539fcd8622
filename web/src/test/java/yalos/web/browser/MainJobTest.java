package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;

/** The main job in a real browser, from an empty start to the plan taken away, a restart, and finding it again. */
class MainJobTest {
    private final Path data = RunningYalos.newFolder();
    private ConfigurableApplicationContext application;
    private Browsing browsing;
    private Page page;

    @BeforeEach
    void start() {
        application = RunningYalos.application(data, 0);
        browsing = new Browsing();
        page = browsing.page(1280, 800);
    }

    @AfterEach
    void stop() {
        browsing.close();
        application.close();
    }

    private String url() {
        return "http://127.0.0.1:" + RunningYalos.portOf(application);
    }

    private String figure(String key) {
        Locator field = page.locator("#f-" + key);
        return field.evaluate("e => e.value || e.textContent").toString();
    }

    private void press(BoundingBox map, double x, double y) {
        page.mouse().click(map.x + map.width * x, map.y + map.height * y);
        // Not a wait for anything: two presses within 300 ms are one double press.
        page.waitForTimeout(320);
    }

    private void drawSquare() {
        page.locator("[data-tool=draw]").click();
        BoundingBox map = page.locator("#map").boundingBox();
        press(map, 0.3, 0.25);
        press(map, 0.7, 0.25);
        press(map, 0.7, 0.7);
        press(map, 0.3, 0.7);
        press(map, 0.3, 0.25);
        page.waitForFunction("() => document.querySelectorAll('.corners tbody tr').length === 4");
        Browsing.awaitSheet(page);
    }

    @Test
    void drawPinReadProveExportRestartFindAgain() throws IOException {
        Browsing.show(page, url() + "/");
        assertThat(page.locator("main").textContent()).contains("No job yet");
        page.fill("#job-name", "West moor");
        page.fill("#job-place", "54.5134, -4.3489");
        page.click("text=Start the job");
        page.waitForURL("**/brief");
        page.click("#stages a[data-stage=ground]");
        page.waitForURL("**/ground");
        page.waitForFunction("() => window.yalosSheet && document.getElementById('sheet').dataset.drawn");
        drawSquare();

        page.click("#stages a[data-stage=strips]");
        Browsing.awaitSheet(page);
        page.fill("#f-gsd", "2.5 cm");
        page.locator("#f-gsd").press("Enter");
        page.waitForFunction("() => document.getElementById('f-gsd').value === '2.50'");
        Browsing.awaitSheet(page);
        // H = GSD · f / p = 0.025 · 12.29 mm / 3.2765 µm
        assertThat(figure("height")).isEqualTo("93.8");
        assertThat(Integer.parseInt(figure("photos"))).isBetween(50, 3000);
        int photos = Integer.parseInt(figure("photos"));

        page.locator("#f-side-overlap").press("ArrowUp");
        page.waitForFunction("() => document.getElementById('f-side-overlap').value === '71'");
        page.locator("#f-side-overlap").press("Shift+ArrowDown");
        page.waitForFunction("() => document.getElementById('f-side-overlap').value === '61'");
        assertThat(Integer.parseInt(figure("photos"))).isLessThan(photos);
        page.keyboard().press("Control+z");
        page.waitForFunction("() => document.getElementById('f-side-overlap').value === '71'");
        page.locator("#row-speed .why").click();
        page.waitForSelector("#row-speed .reason .binds");
        assertThat(page.locator("#row-speed .binds").textContent()).contains("motion blur");
        assertThat(page.url()).contains("why=speed");

        page.click("#stages a[data-stage=proof]");
        Browsing.awaitSheet(page);
        page.waitForSelector("#proof");
        assertThat(page.locator(".legend tbody tr").count()).isGreaterThan(0);
        assertThat(page.locator(".shares").textContent()).contains("at least 5 photos");

        page.click("summary:has-text('Take away')");
        Download download = page.waitForDownload(() -> page.click("details.menu-down a:has-text('GeoJSON')"));
        assertThat(Files.readString(download.path()))
                .contains("\"kind\":\"station\"")
                .contains("\"summary\"");
        String address = page.url();
        String before = page.locator("#stages").textContent();

        application.close();
        application = RunningYalos.application(data, 0);
        Browsing.show(page, url() + address.replaceAll("^http://[^/]+", ""));
        Browsing.awaitSheet(page);
        page.waitForSelector("#proof");
        page.waitForFunction("before => document.getElementById('stages').textContent === before", before);
        Browsing.show(page, url() + "/jobs");
        assertThat(page.locator("main").textContent()).contains("West moor");
        assertThat(browsing.complaints()).isEmpty();
    }

    @Test
    void cornersAreDraggedInsertedRemovedAndTyped() {
        Browsing.show(page, url() + "/jobs");
        page.fill("#job-name", "Corners");
        page.fill("#job-place", "-33.8569, 151.2150");
        page.click("text=Start the job");
        page.waitForURL("**/brief");
        page.click("#stages a[data-stage=ground]");
        page.waitForURL("**/ground");
        page.waitForFunction("() => window.yalosSheet && document.getElementById('sheet').dataset.drawn");
        drawSquare();
        page.locator("[data-tool=fit]").click();
        Browsing.awaitPainted(page);

        double[] corner = pixelOf(2);
        page.mouse().move(corner[0], corner[1]);
        page.mouse().down();
        page.mouse().move(corner[0] - 40, corner[1] - 30, new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
        page.mouse().up();
        page.waitForFunction("() => document.getElementById('saved').textContent.includes('corner 3 moved')");
        Browsing.awaitSheet(page);

        double[] first = pixelOf(0);
        double[] second = pixelOf(1);
        page.mouse().move((first[0] + second[0]) / 2, (first[1] + second[1]) / 2);
        page.mouse().down();
        page.mouse()
                .move(
                        (first[0] + second[0]) / 2,
                        (first[1] + second[1]) / 2 - 25,
                        new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
        page.mouse().up();
        page.waitForFunction("() => document.querySelectorAll('.corners tbody tr').length === 5");
        Browsing.awaitSheet(page);

        double[] inserted = pixelOf(1);
        page.keyboard().down("Alt");
        page.mouse().click(inserted[0], inserted[1]);
        page.keyboard().up("Alt");
        page.waitForFunction("() => document.querySelectorAll('.corners tbody tr').length === 4");
        Browsing.awaitSheet(page);

        Locator typed = page.locator("#c-0-0");
        String[] position = typed.inputValue().split(" ");
        String wanted = "%.2f %s".formatted(Double.parseDouble(position[0]) - 12.34, position[1]);
        typed.fill(wanted);
        typed.press("Enter");
        page.waitForFunction("() => document.getElementById('saved').textContent.includes('corner 1 typed')");
        assertThat(page.locator("#c-0-0").inputValue()).isEqualTo(wanted);
        Browsing.awaitSheet(page);

        // a corner dragged over the opposite edge would make the outline cross itself: refused, and put back
        boolean held = false;
        while (!held) {
            double[] third = pixelOf(2);
            double[] origin = pixelOf(0);
            page.mouse().move(third[0], third[1]);
            page.mouse().down();
            page.mouse()
                    .move(
                            origin[0] - 60,
                            (origin[1] + third[1]) / 2,
                            new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
            held = (boolean) page.evaluate("() => window.yalosSheet.editing.dragging");
            page.mouse().up();
            Browsing.awaitPainted(page);
        }
        page.waitForSelector("#notice .notice");
        assertThat(page.locator("#notice").textContent()).contains("crosses");
        page.waitForFunction("() => { const s = window.yalosSheet;"
                + " const drawn = s.sources.outline.getFeatures()[0].getGeometry().getCoordinates()[0][2];"
                + " return drawn[0] === s.plan.rings[0][4] && drawn[1] === s.plan.rings[0][5]; }");
    }

    /** Where a corner of the first ring is on the screen. */
    private double[] pixelOf(int corner) {
        Object at = page.evaluate(
                "corner => { const s = window.yalosSheet; const r = s.plan.rings[0]; const f = s.sources.outline.getFeatures()[0].getGeometry().getCoordinates()[0][corner];"
                        + " const p = s.map.getPixelFromCoordinate(f); const b = document.getElementById('map').getBoundingClientRect(); return [b.x + p[0], b.y + p[1]]; }",
                corner);
        List<?> pair = (List<?>) at;
        return new double[] {((Number) pair.get(0)).doubleValue(), ((Number) pair.get(1)).doubleValue()};
    }
}

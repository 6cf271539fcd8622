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
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.core.Reference;
import yalos.web.RunningYalos;

/** From the brief to a proved plan over real ground, by mouse and keys in a real browser. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class BriefToProofTest {
    private ConfigurableApplicationContext application;
    private Browsing browsing;
    private Page page;

    @BeforeAll
    void start() {
        application = RunningYalos.demo();
        browsing = new Browsing();
        page = browsing.page(1280, 800);
    }

    @AfterAll
    void stop() {
        browsing.close();
        application.close();
    }

    private void open(String path) {
        Browsing.show(page, "http://127.0.0.1:" + RunningYalos.portOf(application) + path);
        if (page.locator("#sheet").count() > 0) {
            Browsing.awaitSheet(page);
        }
    }

    private void awaitSaved(String words) {
        page.waitForFunction("words => document.getElementById('saved').textContent.includes(words)", words);
        Browsing.awaitSheet(page);
    }

    @Test
    void theBriefLeadsToAPlanAndAConflictIsMendedWithOnePress() {
        open("/blocks/3/brief");
        page.selectOption("#b-purpose", "ORTHOPHOTO");
        awaitSaved("brief");
        Browsing.awaitSheet(page);
        page.selectOption("#b-priority", "DETAIL");
        page.waitForFunction("() => !document.getElementById('advice-gsd').textContent.includes('first:')");
        page.fill("#b-smallest", "6 cm");
        page.press("#b-smallest", "Tab");
        page.waitForFunction(
                "() => document.getElementById('advice-gsd').textContent.includes('6.00 cm must be seen')");
        Browsing.awaitSheet(page);
        page.locator("#advice-gsd .remedy").first().click();
        awaitSaved("advice on gsd taken");
        assertThat(page.locator(".chain").textContent()).contains("2.00 cm");
        page.keyboard().press("s");
        page.waitForURL("**/strips");
        Browsing.awaitSheet(page);
        assertThat(page.inputValue("#f-gsd")).isEqualTo("2.00");

        // photos pinned below what the pinned GSD and overlaps need
        page.fill("#f-photos", "400");
        page.press("#f-photos", "Enter");
        awaitSaved("Photos 400");
        page.fill("#f-gsd", "1 cm");
        page.press("#f-gsd", "Enter");
        awaitSaved("GSD 1 cm");
        Locator conflict =
                page.locator(".finding.stop", new Page.LocatorOptions().setHasText("These pins cannot all hold"));
        conflict.waitFor();
        conflict.locator(".remedy", new Locator.LocatorOptions().setHasText("GSD"))
                .click();
        page.waitForFunction("() => !document.querySelector('.findings').textContent.includes('cannot all hold')");
        Browsing.awaitSheet(page);
        assertThat(Integer.parseInt(page.inputValue("#f-photos"))).isLessThanOrEqualTo(400);
    }

    @Test
    void aRefusedFigureIsToldBesideItsFieldAndStaysToBePutRight() {
        open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        String saved = page.locator("#saved").textContent();
        page.fill("#f-gsd", "900 m");
        page.press("#f-gsd", "Enter");
        page.waitForSelector("#row-gsd .field-fault");
        assertThat(page.locator("#row-gsd .field-fault").textContent()).contains("GSD must be between");
        assertThat(page.inputValue("#f-gsd")).isEqualTo("900 m");
        assertThat(page.locator("#saved").textContent()).isEqualTo(saved);
        page.fill("#f-gsd", "2.1 cm");
        assertThat(page.locator(".field-fault").count()).isZero();
        // the browser itself notes that an answer was a refusal
        assertThat(browsing.complaints()).allMatch(complaint -> complaint.contains("400"));
        browsing.complaints().clear();
    }

    @Test
    void theStripsAreTurnedByTheHandleOnTheSheet() {
        open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        String before = page.inputValue("#f-direction");
        Object at = page.evaluate(
                "() => { const s = window.yalosSheet; const p = s.map.getPixelFromCoordinate("
                        + "s.turning.handle.getGeometry().getCoordinates());"
                        + " const b = document.getElementById('map').getBoundingClientRect(); return [b.x + p[0], b.y + p[1]]; }");
        double x = ((Number) ((List<?>) at).get(0)).doubleValue();
        double y = ((Number) ((List<?>) at).get(1)).doubleValue();
        page.mouse().move(x, y);
        page.mouse().down();
        page.mouse().move(x - 40, y - 40, new com.microsoft.playwright.Mouse.MoveOptions().setSteps(5));
        assertThat(page.locator(".hint").textContent()).contains("Strips towards");
        page.mouse().up();
        awaitSaved("Direction");
        Browsing.awaitSheet(page);
        assertThat(page.inputValue("#f-direction")).isNotEqualTo(before);
        assertThat(page.locator("#row-direction").getAttribute("class")).contains("pinned");
    }

    @Test
    void kitsAreComparedOnTheBlock() {
        open("/blocks/2/kit");
        page.click("text=Compare kits on this block");
        page.waitForURL("**/compare");
        assertThat(page.locator("h1").textContent()).contains("Kits compared");
        page.check("input[name=equal][value=height]");
        page.click("text=Compare >> nth=-1");
        page.waitForURL("**equal=height**");
        assertThat(page.locator("table.compare").textContent())
                .contains("Height above ground")
                .contains("Battery sets");
        assertThat(page.locator(".plain-list").textContent()).contains("by focal length");
    }

    @Test
    void aReasonIsKeptBesideItsPinAndASliderMovesThePlan() {
        open("/blocks/2/strips?why=side-overlap");
        page.fill("#because-side-overlap", "heather, little texture");
        page.press("#because-side-overlap", "Enter");
        awaitSaved("heather");
        assertThat(page.locator("#row-side-overlap").textContent()).contains("you: heather, little texture");
        open("/blocks/2/strips?why=what-if");
        String before = page.inputValue("#f-height");
        page.locator("#slide-height").focus();
        for (int i = 0; i < 4; i++) {
            page.keyboard().press("ArrowRight");
        }
        page.waitForFunction("before => document.getElementById('f-height').value !== before", before);
        Browsing.awaitSheet(page);
        String slid = page.inputValue("#f-height");
        page.locator("#undo").click();
        page.waitForFunction("slid => document.getElementById('f-height').value !== slid", slid);
    }

    @Test
    void theGroundIsCutAlongAStripAndColoursFollowTheHeight() {
        open("/blocks/2/strips");
        page.waitForFunction("() => window.yalosSheet.sources.contours.getFeatures().length > 10");
        page.keyboard().press(".");
        page.waitForSelector(".long-section svg .earth");
        assertThat(page.locator(".long-section p").textContent())
                .contains("Section along strip 1")
                .contains("least clearance");
        BoundingBox section = page.locator(".long-section svg").boundingBox();
        page.mouse().move(section.x + section.width / 2, section.y + section.height / 2);
        assertThat(page.locator(".long-section text.cursor").textContent()).contains("above it");
        assertThat(page.evaluate("() => window.yalosSheet.sources.spot.getFeatures().length"))
                .isEqualTo(1);
        page.click("[data-tool=heights]");
        page.waitForSelector(".height-legend:not([hidden])");
        assertThat(page.locator(".height-legend").textContent())
                .contains("Height above the geoid")
                .contains("m");
        page.click("[data-tool=section]");
        page.waitForFunction("() => document.querySelector('.long-section p').textContent.includes('whole path')");
        assertThat(browsing.complaints()).isEmpty();
    }

    @Test
    void everyLayerOfTheProofIsShownAndAPlaceIsProbed() {
        open("/blocks/2/proof");
        page.waitForSelector("#proof");
        page.selectOption("#layer", "gsd");
        page.waitForURL("**layer=gsd**");
        page.waitForFunction("() => document.getElementById('proof').dataset.picture.includes('/gsd.png')");
        assertThat(page.locator(".legend").textContent()).contains("cm");
        Browsing.awaitPainted(page);
        BoundingBox map = page.locator("#map").boundingBox();
        page.mouse().click(map.x + map.width * 0.45, map.y + map.height * 0.4);
        page.waitForSelector(".probe");
        assertThat(page.locator(".probe").textContent()).contains("best GSD").contains("real side overlap");
        assertThat(((Number) page.evaluate("() => window.yalosSheet.sources.spot.getFeatures().length")).intValue())
                .isEqualTo(2);
        assertThat(browsing.complaints()).isEmpty();
    }

    @Test
    void aModelIsBroughtInAndAnObstacleIsPlacedOnTheSheet() throws IOException {
        open("/jobs");
        page.fill("#job-name", "Valley");
        page.fill("#job-place", "47.5115, 9.8680");
        page.click("text=Start the job");
        page.waitForURL("**/brief");
        page.click("#stages a[data-stage=ground]");
        page.waitForURL("**/ground");
        page.waitForFunction("() => window.yalosSheet && document.getElementById('sheet').dataset.drawn");
        page.fill("#paste", "565250 5262250\n565500 5262250\n565500 5262550\n565250 5262550");
        page.click("text=Make this the outline");
        awaitSaved("outline from");
        Path model = Files.createTempFile("valley", ".tif");
        Files.write(model, Reference.bytes("coverage_dem_utm.tif"));
        page.setInputFiles("#model-file", model);
        page.click("text=Bring it in");
        awaitSaved("elevation model");
        page.waitForFunction("() => window.yalosSheet.sources.contours.getFeatures().length > 5");
        assertThat(page.locator("[data-title=ground]").textContent()).contains("2.0 m model");
        page.locator("#obstacles > summary").click();
        page.locator("[data-tool=obstacle]").click();
        BoundingBox map = page.locator("#map").boundingBox();
        page.mouse().click(map.x + map.width / 2, map.y + map.height / 2);
        awaitSaved("obstacle mast");
        assertThat(page.locator(".things").last().textContent()).isNotBlank();
        page.locator("details.menu-down summary").click();
        Download picture = page.waitForDownload(() -> page.click("text=This sheet as PNG"));
        assertThat(Files.size(picture.path())).isGreaterThan(10_000);
    }
}

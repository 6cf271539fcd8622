package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.rehearsal.Fault;
import yalos.web.RunningYalos;
import yalos.web.Visitor;
import yalos.web.block.Blocks;
import yalos.web.fly.Crew;

/** Take and Accuracy in the browser: photos picked and sent, pressed on the sheet, gone through by keys; an area drawn and decided on; residuals drawn. */
@ExtendWith(RunningYalos.class)
class TakeOnTheSheetTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3469\n54.5146 -4.3469\n54.5146 -4.3489";

    @TempDir
    private Path folder;

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5133, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private static Page open(Browsing browsing, String path) {
        Page page = browsing.page(1280, 800);
        Browsing.show(page, RunningYalos.url() + path);
        return page;
    }

    @Test
    void photosArePickedSentPressedAndDecidedOn() throws IOException {
        long block = block("Take by hand");
        Crew crew = RunningYalos.bean(Crew.class);
        var opened = RunningYalos.bean(Blocks.class).open(block);
        crew.rehearse(opened, 1, 5, Map.of(), EnumSet.noneOf(Fault.class), "A. Pilot");
        Crew.Brought brought = crew.brought(opened, 0);
        for (int i = 0; i < Math.min(12, brought.count()); i++) {
            brought.write(i, folder);
        }
        Path[] photos;
        try (Stream<Path> files = Files.list(folder)) {
            photos = files.sorted().toArray(Path[]::new);
        }
        Browsing browsing = new Browsing();
        try {
            Page page = open(browsing, "/blocks/" + block + "/take");
            Browsing.awaitSheet(page);
            Page elsewhere = open(browsing, "/blocks/" + block + "/take");
            assertThat(elsewhere.locator("#take-headline").count()).isZero();
            // The page opens anew once all of them were looked at.
            page.setInputFiles("#take-pick", photos);
            page.waitForSelector("#take-headline");
            page.waitForFunction("() => window.yalosSheet && window.yalosSheet.sources.shots"
                    + " && window.yalosSheet.sources.shots.getFeatures().length === 12");
            page.waitForSelector("#sheet[data-taken=proved]");
            // A page that was open before, on another device for instance, learns of them by itself.
            elsewhere.waitForSelector("#take-headline");
            elsewhere.waitForSelector("#sheet[data-taken=proved]");
            elsewhere.context().close();
            assertThat(((Number) page.evaluate("() => window.yalosSheet.sources.missed.getFeatures().length"))
                            .intValue())
                    .isEqualTo(brought.count() - 12);
            page.waitForSelector(".contact-tiles img");
            Browsing.awaitPainted(page);
            List<?> at = (List<?>) page.evaluate(
                    "() => { const s = window.yalosSheet; const p = s.map.getPixelFromCoordinate(s.sources.shots.getFeatures()[5]"
                            + ".getGeometry().getCoordinates()); const b = document.getElementById('map').getBoundingClientRect();"
                            + " return [b.x + p[0], b.y + p[1]]; }");
            page.mouse().click(((Number) at.get(0)).doubleValue(), ((Number) at.get(1)).doubleValue());
            page.waitForURL("**/take/photos#p*");
            page.waitForFunction("() => document.activeElement.matches('.contact-grid > li')");
            page.keyboard().press("ArrowRight");
            String chosen = (String) page.evaluate("() => document.activeElement.id");
            page.keyboard().press("a");
            page.waitForSelector("#" + chosen + ".aside");
            Browsing.show(page, RunningYalos.url() + "/blocks/" + block + "/take");
            Browsing.awaitSheet(page);
            page.click("[data-tool=area]");
            assertThat(page.textContent(".hint")).contains("corner after corner");
            page.keyboard().press("Escape");
            page.evaluate("() => { document.getElementById('take-decide').open = true; }");
            page.fill("#take-places", FIELD);
            page.fill("#take-reason", "the client needs no more");
            // A proof that is done meanwhile brings a new book, and takes nothing out of the hand.
            page.waitForResponse(
                    answer -> answer.url().endsWith("/take"),
                    () -> page.evaluate("() => { document.getElementById('take-headline').dataset.done = 'true';"
                            + " document.body.dispatchEvent(new Event('htmx:afterSettle')); }"));
            page.waitForFunction("() => !document.documentElement.hasAttribute('data-changing')"
                    + " && !document.getElementById('take-headline').hasAttribute('data-done')");
            assertThat(page.inputValue("#take-places")).isEqualTo(FIELD);
            page.click("#take-decide button[value=ACCEPT]");
            page.waitForSelector("#take-headline:has-text('Complete enough.')");
            // The book was written anew; the form still takes what is picked.
            page.setInputFiles("#take-pick", Files.writeString(folder.resolve("notes.txt"), "no photo"));
            page.waitForFunction(
                    "() => document.querySelector('.take-sending').textContent.includes('no JPEG or TIFF file')");
            assertThat(browsing.complaints()).isEmpty();
        } finally {
            browsing.close();
        }
    }

    @Test
    void residualsAreDrawnAtTheirPoints() {
        long block = block("Residuals by hand");
        visitor.change(block, "control", "/control/points", "role", "CHECK", "place", "54.5138 -4.3480");
        visitor.change(block, "control", "/control/points", "role", "CHECK", "place", "54.5142 -4.3475");
        Browsing browsing = new Browsing();
        try {
            Page page = open(browsing, "/blocks/" + block + "/accuracy");
            Browsing.awaitSheet(page);
            page.fill("#accuracy-lines", "1, 0.03, -0.02, 0.05, check\n2, -0.01, 0.02, -0.03, check");
            page.click("text=Take them");
            page.waitForSelector("#accuracy-headline:has-text('Too few')");
            page.waitForSelector("#sheet[data-residuals='2']");
            assertThat(((Number) page.evaluate("() => window.yalosSheet.sources.residuals.getFeatures().length"))
                            .intValue())
                    .isEqualTo(6);
            page.waitForSelector("#residual-charts svg");
            assertThat(page.isVisible(".residual-legend")).isTrue();
            assertThat(browsing.complaints()).isEmpty();
        } finally {
            browsing.close();
        }
    }
}

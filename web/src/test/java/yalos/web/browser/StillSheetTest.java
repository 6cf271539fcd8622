package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The plan that comes drawn with its page: where the map draws it, until the map does, and for good where no script runs. */
class StillSheetTest extends OnTheDemo {
    /** Left, top, right and bottom of the outline on the map, in pixels of the page. */
    private static final String OUTLINE_ON_THE_MAP = """
            () => {
              const { map, sources } = window.yalosSheet;
              const [west, south, east, north] = sources.outline.getExtent();
              const { left, top } = map.getTargetElement().getBoundingClientRect();
              const [x, y] = map.getPixelFromCoordinate([west, north]);
              const [right, bottom] = map.getPixelFromCoordinate([east, south]);
              return [left + x, top + y, left + right, top + bottom];
            }""";

    /** The same of the drawing, without the width of its lines. */
    private static final String OUTLINE_DRAWN = """
            edge => {
              const { x, y, width, height } = edge.getBBox();
              const { a, d, e, f } = edge.getScreenCTM();
              return [e + a * x, f + d * y, e + a * (x + width), f + d * (y + height)];
            }""";

    @ParameterizedTest
    @CsvSource({"2, 1280, 800", "4, 1280, 800", "5, 800, 1280", "7, 1280, 800"})
    void itLiesWhereTheMapDrawsIt(int block, int width, int height) {
        String path = "/blocks/" + block + "/strips";
        Page still = browsing.withoutScript(width, height);
        still.navigate(address(path));
        List<?> drawn = (List<?>) still.locator(".still .edge").evaluate(OUTLINE_DRAWN);
        assertThat(still.locator(".still .strip").first().isVisible()).isTrue();
        assertThat(still.textContent("[data-title=area]")).matches("[0-9.]+ (ha|m²|km²)");
        assertThat(still.textContent("[data-title=back]")).contains("above take-off or more");
        assertThat(still.isVisible(".scale-bar")).as("no empty bar").isFalse();

        Page page = browsing.page(width, height);
        show(page, path);
        Browsing.awaitSheet(page);
        List<?> mapped = (List<?>) page.evaluate(OUTLINE_ON_THE_MAP);
        for (int i = 0; i < 4; i++) {
            assertThat(((Number) drawn.get(i)).doubleValue())
                    .as("edge %d", i)
                    .isCloseTo(((Number) mapped.get(i)).doubleValue(), Offset.offset(1.0));
        }
        assertThat(page.locator(".still").count()).as("the map has taken over").isZero();
        still.context().close();
        page.context().close();
    }

    /** Another stage's page brings its own drawing, which the map that is there does without. */
    @Test
    void itDoesNotComeBackWithAnotherStage() {
        Page page = open("/blocks/2/strips");
        Browsing.awaitSheet(page);
        page.click("#stages a[data-stage=kit]");
        page.waitForFunction("() => document.getElementById('book').dataset.stage === 'kit'");
        Browsing.awaitSheet(page);
        assertThat(page.locator(".still").count()).isZero();
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    /**
     * On a line so slow that scripts come one by one: whoever presses before they are there goes the way without script, and what sends never stands alone
     * without what understands the answer.
     */
    @Test
    void whoeverPressesBeforeTheScriptsAreThereIsHeard() {
        Page page = browsing.page(1280, 800);
        List<Route> held = new CopyOnWriteArrayList<>();
        page.route("**/js/yalos.js", held::add);
        page.navigate(address("/blocks/6/strips"));
        String before = page.inputValue("#row-gsd input.figure");
        page.waitForCondition(() -> !held.isEmpty());
        assertThat(page.evaluate("() => 'htmx' in window")).isEqualTo(false);
        page.unroute("**/js/yalos.js");
        page.click("#row-gsd .step[value='1']");
        Browsing.awaitSheet(page);
        assertThat(page.inputValue("#row-gsd input.figure")).isNotEqualTo(before);
        page.click("#undo");
        Browsing.awaitSheet(page);
        assertThat(page.inputValue("#row-gsd input.figure")).isEqualTo(before);
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }
}

package yalos.web.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import org.junit.jupiter.api.Test;

/** Two tabs that a browser opened at once, before it had a cookie: each page was given a token, and one cookie is left. */
class TwoTabsTest extends OnTheDemo {
    private static final String FINER = "#row-gsd .step[value='1']";

    /** The first tab of two; the cookie is that of the second. */
    private Page first(String path) {
        Page first = open(path);
        first.context().clearCookies();
        Page second = first.context().newPage();
        show(second, path);
        second.close();
        return first;
    }

    private static void press(Page page) {
        String before = page.inputValue("#f-gsd");
        Response answer = page.waitForResponse("**/ledger/gsd", () -> page.click(FINER));
        assertThat(answer.status()).isEqualTo(200);
        page.waitForFunction("before => document.getElementById('f-gsd').value !== before", before);
    }

    @Test
    void aPressActs() {
        Page page = first("/blocks/3/strips");
        Browsing.awaitSheet(page);
        press(page);
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    @Test
    void aFormWithoutTheScriptsWayActs() {
        Page page = first("/jobs");
        page.fill("#job-name", "From the first tab");
        page.click("text=Start the job");
        page.waitForURL("**/brief");
        assertThat(page.content()).contains("From the first tab");
        assertThat(browsing.complaints()).isEmpty();
        page.context().close();
    }

    @Test
    void theLookActs() {
        Page page = first("/jobs");
        page.selectOption("#look", "dusk");
        page.waitForFunction("() => document.documentElement.dataset.look === 'dusk'");
        page.context().close();
    }

    /** Cookies were cleared under an open page: the refusal brings a new one, and the next press acts. */
    @Test
    void withoutACookieTheSecondPressActs() {
        Page page = open("/blocks/3/strips");
        Browsing.awaitSheet(page);
        page.context().clearCookies();
        Response refused = page.waitForResponse("**/ledger/gsd", () -> page.click(FINER));
        assertThat(refused.status()).isEqualTo(403);
        page.waitForSelector("#notice :text('Press once more')");
        press(page);
        assertThat(browsing.complaints()).allMatch(said -> said.contains("403"));
        browsing.complaints().clear();
        page.context().close();
    }

    /** The browser was closed meanwhile: the cookie is still there when it opens its pages again. */
    @Test
    void theCookieOutlivesTheBrowser() {
        Page page = open("/jobs");
        assertThat(page.context().cookies())
                .filteredOn(cookie -> cookie.name.equals("XSRF-TOKEN"))
                .singleElement()
                .satisfies(cookie -> assertThat(cookie.expires).isPositive());
        page.context().close();
    }
}

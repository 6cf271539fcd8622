package yalos.web.browser;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.options.WaitUntilState;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Headless Chromium from Debian's packages. Complaints of the page's console are kept. */
final class Browsing implements AutoCloseable {
    private final Playwright playwright =
            Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    private final Browser browser;
    private final List<String> complaints = new ArrayList<>();

    /** On a machine without graphics. */
    Browsing() {
        this(List.of("--disable-gpu"));
    }

    private Browsing(List<String> graphics) {
        List<String> args = new ArrayList<>(List.of(
                "--no-sandbox",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync"));
        args.addAll(graphics);
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(args));
    }

    /** With graphics in space, reckoned by the processor. */
    static Browsing inSpace() {
        return new Browsing(List.of("--use-gl=angle", "--use-angle=swiftshader", "--enable-unsafe-swiftshader"));
    }

    Page page(int width, int height) {
        return page(width, height, true);
    }

    /** A page on which no script runs. */
    Page withoutScript(int width, int height) {
        return page(width, height, false);
    }

    private Page page(int width, int height, boolean scripts) {
        BrowserContext context = browser.newContext(
                new Browser.NewContextOptions().setViewportSize(width, height).setJavaScriptEnabled(scripts));
        // A busy machine is slow, not wrong.
        context.setDefaultTimeout(180_000);
        context.setDefaultNavigationTimeout(180_000);
        Page page = context.newPage();
        page.onConsoleMessage(message -> {
            if (message.type().equals("error")) {
                complaints.add(message.text());
            }
        });
        page.onPageError(complaints::add);
        return page;
    }

    List<String> complaints() {
        return complaints;
    }

    /** Goes to an address, and waits until what makes its page work is there: that comes after the first picture of a page with a plan. */
    static void show(Page page, String url) {
        page.navigate(url, new Page.NavigateOptions().setWaitUntil(WaitUntilState.LOAD));
        page.waitForFunction("() => !document.querySelector('script[data-first]') || 'yalosSheet' in window");
    }

    /** Waits until no change is under way and the sheet has painted the state that the book shows. */
    static void awaitSheet(Page page) {
        page.waitForFunction(
                "() => !document.documentElement.hasAttribute('data-changing')"
                        + " && document.getElementById('sheet').dataset.drawn === document.getElementById('book').dataset.version");
        awaitPainted(page);
    }

    /** Waits until everything that is on the map stands painted, moves of the view and pictures included. */
    static void awaitPainted(Page page) {
        page.evaluate("() => new Promise(done => { const map = window.yalosSheet.map;"
                + " const again = setInterval(() => map.render(), 500);"
                + " map.once('rendercomplete', () => { clearInterval(again); done(true); }); map.render(); })");
    }

    @Override
    public void close() {
        browser.close();
        playwright.close();
    }
}

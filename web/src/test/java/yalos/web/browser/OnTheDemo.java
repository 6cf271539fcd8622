package yalos.web.browser;

import com.microsoft.playwright.Page;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;

/** Tests in a browser on the demo's blocks, begun once for all of a class. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class OnTheDemo {
    ConfigurableApplicationContext application;
    Browsing browsing;

    @BeforeAll
    void start() {
        application = RunningYalos.demo();
        browsing = browser();
    }

    /** The browser that these tests need. */
    Browsing browser() {
        return new Browsing();
    }

    @AfterAll
    void stop() {
        browsing.close();
        application.close();
    }

    /** A page of its own, loaded with all that belongs to it. */
    Page open(String path) {
        Page page = browsing.page(1280, 800);
        show(page, path);
        return page;
    }

    void show(Page page, String path) {
        Browsing.show(page, address(path));
    }

    String address(String path) {
        return "http://127.0.0.1:" + RunningYalos.portOf(application) + path;
    }
}

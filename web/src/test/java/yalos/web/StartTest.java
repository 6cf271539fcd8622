package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.store.JobMapper;

/** What happens once the program stands: it warms itself up, and pages name what they load so that it comes at once. */
class StartTest {
    private static final Pattern LOADED = Pattern.compile("<(?:script|link)[^>]*(?:src|href)=\"([^\"]+)\"");

    @Test
    void itWarmsUpOnTheBlockChangedLastAndChangesNothing() throws InterruptedException {
        Path data = RunningYalos.newFolder();
        long block;
        String version;
        try (ConfigurableApplicationContext first = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(first));
            visitor.newBlock("Earlier", "54.512, -4.353");
            block = visitor.newBlock("Later", "54.512, -4.353");
            visitor.change(block, "ground", "/import", "text", "54.5134 -4.3489\n54.5134 -4.3449\n54.5154 -4.3449");
            version = visitor.version(block);
            assertThat(first.getBean(JobMapper.class).changedLast()).contains(block);
        }
        try (ConfigurableApplicationContext again = RunningYalos.asStarted(data)) {
            RunningYalos.warmedUp();
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(again));
            assertThat(visitor.version(block)).isEqualTo(version);
            assertThat(visitor.get("/blocks/" + block + "/history").body())
                    .as("what was rehearsed is taken back")
                    .doesNotContain("rehearsed");
            JobMapper rows = again.getBean(JobMapper.class);
            visitor.post("/jobs/" + rows.jobNamed("Later").orElseThrow() + "/delete", "confirm", "Later");
            assertThat(rows.changedLast())
                    .as("none in the bin")
                    .isPresent()
                    .get()
                    .isNotEqualTo(block);
        }
    }

    @Test
    void aPageNamesItsScriptsAndTheVersionsOfItsLibraries() {
        try (ConfigurableApplicationContext application = RunningYalos.application(RunningYalos.newFolder(), 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
            Matcher found = LOADED.matcher(visitor.get("/jobs").body());
            List<String> loaded = found.results().map(one -> one.group(1)).toList();
            assertThat(loaded)
                    .anyMatch(address -> address.matches("/webjars/htmx\\.org/[0-9.]+/dist/htmx\\.min\\.js"))
                    .noneMatch(address -> address.contains("/js/space"));
            assertThat(loaded.stream().map(address -> address.replaceAll("^/parts/[0-9a-f]+", "")))
                    .contains("/js/yalos.js", "/css/yalos.css");
            assertThat(loaded).allSatisfy(address -> {
                HttpResponse<String> answer = visitor.get(address.replaceAll("[?#].*", ""));
                assertThat(answer.statusCode()).as(address).isEqualTo(200);
                if (!address.equals("/icon.svg")) {
                    assertThat(answer.headers().firstValue("Cache-Control"))
                            .as("%s is kept, its address changes with it", address)
                            .hasValueSatisfying(kept -> assertThat(kept).contains("max-age=31536000", "immutable"));
                }
            });
        }
    }
}

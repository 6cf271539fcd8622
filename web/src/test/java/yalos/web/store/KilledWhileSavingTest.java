package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** A process killed while it saves loses nothing that it had confirmed. */
class KilledWhileSavingTest {
    @Test
    void theJobOpensWithTheLastConfirmedChange() throws IOException, InterruptedException {
        Path data = RunningYalos.newFolder();
        int port = freePort();
        Process process = start(data, port);
        int confirmed = 0;
        long block;
        try {
            await(port);
            Visitor visitor = new Visitor("http://127.0.0.1:" + port);
            block = visitor.newBlock("Killed", "54.512, -4.353");
            Thread killer = new Thread(() -> {
                try {
                    Thread.sleep(1500);
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                process.destroyForcibly();
            });
            killer.start();
            try {
                for (int percent = 30; percent < 98; percent = percent == 97 ? 30 : percent + 1) {
                    int status = visitor.htmx(
                                    "/blocks/" + block + "/ledger/side-overlap",
                                    "version",
                                    visitor.version(block),
                                    "stage",
                                    "strips",
                                    "value",
                                    String.valueOf(percent))
                            .statusCode();
                    if (status == 200) {
                        confirmed = percent;
                    }
                }
            } catch (RuntimeException expectedWhenKilled) {
                killer.join();
            }
        } finally {
            process.destroyForcibly();
            process.waitFor(20, TimeUnit.SECONDS);
        }
        assertThat(confirmed).as("changes were confirmed before the kill").isGreaterThanOrEqualTo(30);
        try (ConfigurableApplicationContext again = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(again));
            String page = visitor.get("/blocks/" + block + "/strips").body();
            int next = confirmed == 97 ? 30 : confirmed + 1;
            assertThat(page)
                    .as("the last confirmed change, or the one that was on its way")
                    .containsPattern("id=\"f-side-overlap\" name=\"value\" value=\"(" + confirmed + "|" + next + ")\"");
        }
    }

    private static Process start(Path data, int port) throws IOException {
        String classPath = System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
        return new ProcessBuilder(
                        System.getProperty("java.home") + File.separator + "bin" + File.separator + "java",
                        "-cp",
                        classPath,
                        "yalos.web.YalosApplication",
                        "--server.port=" + port,
                        "--yalos.data=" + data)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    private static int freePort() throws IOException {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    private static void await(int port) throws InterruptedException {
        for (int i = 0; i < 240; i++) {
            try {
                HttpURLConnection connection = (HttpURLConnection)
                        URI.create("http://127.0.0.1:" + port + "/jobs").toURL().openConnection();
                if (connection.getResponseCode() == 200) {
                    return;
                }
            } catch (IOException notYet) {
                Thread.sleep(250);
            }
        }
        throw new AssertionError("the process did not start");
    }
}

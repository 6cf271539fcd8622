package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;
import yalos.web.YalosProcess;

/** A process killed while it saves loses nothing that it had confirmed. */
class KilledWhileSavingTest {
    private static final int LEAST = 30;
    private static final int MOST = 97;
    private static final int CHANGES_BEFORE_THE_KILL = 12;

    @Test
    void theJobOpensWithTheLastConfirmedChange() throws IOException, InterruptedException {
        Path data = RunningYalos.newFolder();
        AtomicInteger confirmed = new AtomicInteger();
        CountDownLatch enough = new CountDownLatch(CHANGES_BEFORE_THE_KILL);
        long block;
        try (YalosProcess process = YalosProcess.start(data)) {
            Visitor visitor = process.visitor();
            block = visitor.newBlock("Killed", "54.512, -4.353");
            Thread operator = new Thread(() -> changeUntilKilled(visitor, block, confirmed, enough));
            operator.start();
            enough.await();
            process.kill();
            operator.join();
        }
        int last = confirmed.get();
        try (ConfigurableApplicationContext again = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(again));
            String page = visitor.get("/blocks/" + block + "/strips").body();
            int next = next(last);
            assertThat(page)
                    .as("the last confirmed change, or the one that was on its way")
                    .containsPattern(
                            "id=\"f-side-overlap\"\\s+name=\"value\"\\s+value=\"(" + last + "|" + next + ")\"");
        }
    }

    /** One change after the other, each waiting for its answer; the kill comes while one of them is on its way. */
    private static void changeUntilKilled(Visitor visitor, long block, AtomicInteger confirmed, CountDownLatch enough) {
        try {
            for (int percent = LEAST; ; percent = next(percent)) {
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
                    confirmed.set(percent);
                    enough.countDown();
                }
            }
        } catch (RuntimeException killed) {
            while (enough.getCount() > 0) {
                enough.countDown();
            }
        }
    }

    private static int next(int percent) {
        return percent == MOST ? LEAST : percent + 1;
    }
}

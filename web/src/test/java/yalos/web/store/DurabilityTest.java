package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** What was confirmed stays; what is older than that is noticed; a folder belongs to one program at a time. */
class DurabilityTest {
    private static void work(Path data, String job) {
        try (ConfigurableApplicationContext application = RunningYalos.application(data, 0)) {
            new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application)).newBlock(job, "47.5115, 9.8680");
        }
    }

    private static String jobs(Path data, String... more) {
        try (ConfigurableApplicationContext application = RunningYalos.application(data, 0, more)) {
            return new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application))
                    .get("/jobs")
                    .body();
        }
    }

    @Test
    void anOlderDatabaseIsNoticedAndOnlyOpenedKnowingly() throws IOException {
        Path data = RunningYalos.newFolder();
        Path database = data.resolve("yalos.mv.db");
        Path older = data.resolve("older");
        work(data, "First season");
        Files.copy(database, older);
        work(data, "Second season");
        assertThat(jobs(data)).contains("First season", "Second season");
        Files.copy(older, database, StandardCopyOption.REPLACE_EXISTING);
        assertThatThrownBy(() -> jobs(data))
                .hasStackTraceContaining("The database was cut off")
                .hasStackTraceContaining("--accept-older");
        assertThat(jobs(data, "--yalos.accept-older=true"))
                .contains("First season")
                .doesNotContain("Second season");
        assertThat(jobs(data)).as("taken from then on").contains("First season");
    }

    @Test
    void aFolderBelongsToOneProgramAndWhatAKilledRunLeftIsSwept() throws IOException {
        Path data = RunningYalos.newFolder();
        Files.createDirectories(data.resolve("models"));
        Path half = Files.createFile(data.resolve("models").resolve("upload7.part"));
        Path orphan = Files.createFile(data.resolve("models").resolve("77.tif"));
        Path scratch = Files.createDirectories(data.resolve("scratch/work/deep"));
        try (ConfigurableApplicationContext first = RunningYalos.application(data, 0)) {
            assertThat(first.isRunning()).isTrue();
            assertThat(half).doesNotExist();
            assertThat(orphan).doesNotExist();
            assertThat(scratch).doesNotExist();
            assertThatThrownBy(() -> RunningYalos.application(data, 0))
                    .hasStackTraceContaining("Another Yalos works with");
        }
        work(data, "After the first has stopped");
    }

    private static long round(Path data) {
        try {
            return ByteBuffer.wrap(Files.readAllBytes(data.resolve("rounds"))).getLong();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A round that fails is told to those who waited for it, and to nobody who comes after. */
    @Test
    void aRoundThatFailsIsToldAndTheNextHolds() throws IOException {
        Path data = RunningYalos.newFolder();
        try (ConfigurableApplicationContext application = RunningYalos.application(data, 0)) {
            Durability durability = application.getBean(Durability.class);
            long before = round(data);
            Files.move(data.resolve("rounds"), data.resolve("rounds.aside"));
            Files.createDirectory(data.resolve("rounds"));
            assertThatThrownBy(durability::sync).isInstanceOf(NotKept.class);
            Files.delete(data.resolve("rounds"));
            durability.sync();
            assertThat(round(data)).isGreaterThan(before);
        }
    }

    /** Many who wait at once share rounds, and each comes back after a round that began after it asked. */
    @Test
    void allWhoWaitAreServed() throws InterruptedException {
        Path data = RunningYalos.newFolder();
        try (ConfigurableApplicationContext application = RunningYalos.application(data, 0)) {
            Durability durability = application.getBean(Durability.class);
            long before = round(data);
            CountDownLatch all = new CountDownLatch(40);
            List<Thread> threads = new ArrayList<>();
            for (int i = 0; i < 40; i++) {
                Thread thread = new Thread(() -> {
                    durability.sync();
                    all.countDown();
                });
                threads.add(thread);
                thread.start();
            }
            all.await();
            for (Thread thread : threads) {
                thread.join();
            }
            assertThat(round(data) - before).isBetween(1L, 40L);
        }
    }
}

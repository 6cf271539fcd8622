package yalos.web.keep;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.datasource.AbstractDataSource;
import yalos.core.fault.InputFault;
import yalos.web.RunningYalos;
import yalos.web.Visitor;
import yalos.web.YalosProcess;
import yalos.web.store.NewerData;
import yalos.web.store.Sha256;
import yalos.web.store.StartRefused;

/** Copies of all data: while the program runs, by its clock, put back after a kill; what is damaged, newer or in the way is told and nothing is lost. */
class CopiesTest {
    private static String side(Visitor visitor, long block) {
        return visitor.get("/blocks/" + block + "/strips").body();
    }

    @Test
    void whatWasCopiedWhileItRanIsBackAfterAKill(@TempDir Path folder) throws Exception {
        Path data = RunningYalos.newFolder();
        Path copy = folder.resolve("copy.zip");
        long block;
        try (YalosProcess process = YalosProcess.start(data)) {
            Visitor visitor = process.visitor();
            block = visitor.newBlock("Copied", "54.512, -4.353");
            visitor.change(block, "strips", "/ledger/side-overlap", "value", "71");
            assertThat(CopyCommands.run("backup", copy.toString(), data.toString()))
                    .contains("is in " + copy);
            visitor.change(block, "strips", "/ledger/side-overlap", "value", "77");
            assertThatThrownBy(() -> CopyCommands.run("restore", copy.toString(), data.toString()))
                    .isInstanceOf(StartRefused.class)
                    .hasMessageContaining("Stop it first; nothing was changed");
            process.kill();
        }
        assertThat(CopyCommands.run("restore", copy.toString(), data.toString()))
                .contains("What was there before lies in");
        try (ConfigurableApplicationContext again = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(again));
            assertThat(side(visitor, block)).contains("value=\"71\"").doesNotContain("value=\"77\"");
            visitor.change(block, "strips", "/ledger/side-overlap", "value", "73");
            assertThat(side(visitor, block)).contains("value=\"73\"");
        }
        // And what was there before can be opened just as well.
        Path before;
        try (Stream<Path> all = Files.list(data.toAbsolutePath().getParent())) {
            before = all.filter(one -> one.getFileName().toString().startsWith(data.getFileName() + ".before-"))
                    .findFirst()
                    .orElseThrow();
        }
        try (ConfigurableApplicationContext earlier = RunningYalos.application(before, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(earlier));
            assertThat(side(visitor, block)).contains("value=\"77\"");
        }
    }

    @Test
    void aCopyIsMadeWhileItDoesNotRunAndADamagedOneIsRefused(@TempDir Path folder) throws IOException {
        Path data = RunningYalos.newFolder();
        try (ConfigurableApplicationContext application = RunningYalos.application(data, 0)) {
            new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application)).newBlock("Kept", "54.512, -4.353");
        }
        Path copy = folder.resolve("copy.zip");
        assertThat(CopyCommands.run("backup", copy.toString(), data.toString())).contains("All data of");
        byte[] whole = Files.readAllBytes(copy);
        Path half = Files.write(folder.resolve("half.zip"), java.util.Arrays.copyOf(whole, whole.length / 2));
        Path text = Files.writeString(folder.resolve("text.zip"), "no zip");
        byte[] wrong = whole.clone();
        wrong[whole.length / 3] ^= 0x55;
        Path bent = Files.write(folder.resolve("bent.zip"), wrong);
        Path cut = Files.write(folder.resolve("cut.zip"), ArchiveFiles.cutShort(whole, "yalos.mv.db"));
        String before = Sha256.hex(Files.readAllBytes(data.resolve("yalos.mv.db")));
        for (Path bad : List.of(half, text, bent, cut, folder.resolve("none.zip"))) {
            assertThatThrownBy(() -> CopyCommands.run("restore", bad.toString(), data.toString()))
                    .as(bad.toString())
                    .isInstanceOf(StartRefused.class);
        }
        assertThat(Sha256.hex(Files.readAllBytes(data.resolve("yalos.mv.db")))).isEqualTo(before);
        try (Stream<Path> beside = Files.list(data.toAbsolutePath().getParent())) {
            assertThat(beside.map(Path::getFileName).map(Path::toString))
                    .noneMatch(name -> name.startsWith(data.getFileName() + ".restoring"));
        }
        Path fresh = folder.resolve("elsewhere/data");
        assertThat(CopyCommands.run("restore", copy.toString(), fresh.toString()))
                .doesNotContain("before lies");
        try (ConfigurableApplicationContext again = RunningYalos.application(fresh, 0)) {
            assertThat(new Visitor("http://127.0.0.1:" + RunningYalos.portOf(again))
                            .get("/jobs")
                            .body())
                    .contains("Kept");
        }
        assertThatThrownBy(() -> CopyCommands.run(
                        "backup", copy.toString(), folder.resolve("nothing").toString()))
                .hasMessageContaining("There is no data in");
        assertThatThrownBy(() -> CopyCommands.run("backup")).hasMessageContaining("Say which file");
    }

    @Test
    void copiesAreMadeByThemselvesAndOldOnesGo(@TempDir Path folder) throws IOException {
        try (ConfigurableApplicationContext application = RunningYalos.application(RunningYalos.newFolder(), 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
            visitor.newBlock("Kept by itself", "54.512, -4.353");
            Path data = Path.of(application.getEnvironment().getProperty("yalos.data"));
            assertThat(visitor.post(
                                    "/keep/plan",
                                    "folder",
                                    data.resolve("copies").toString())
                            .body())
                    .contains("lies in the data itself");
            assertThat(visitor.post("/keep/plan", "folder", "copies").body()).contains("the whole path");
            assertThat(visitor.post("/keep/plan", "folder", folder.toString(), "hours", "0")
                            .body())
                    .contains("must be between");
            visitor.post("/keep/plan", "folder", folder.toString(), "hours", "6", "days", "3");
            CopyDesk desk = application.getBean(CopyDesk.class);
            DateTimeFormatter stamp = DateTimeFormatter.ofPattern("yyyy-MM-dd-HHmmss");
            Path old =
                    folder.resolve("yalos-" + stamp.format(LocalDateTime.now().minusDays(4)) + ".zip");
            Path recent =
                    folder.resolve("yalos-" + stamp.format(LocalDateTime.now().minusHours(7)) + ".zip");
            Path own = folder.resolve("holiday.zip");
            for (Path one : List.of(old, recent, own)) {
                Files.writeString(one, "x");
            }
            desk.tick();
            assertThat(old).doesNotExist();
            assertThat(recent).exists();
            assertThat(own).exists();
            assertThat(desk.made()).hasSize(2);
            Path made = desk.made().get(0).file();
            assertThat(made).isNotEqualTo(recent);
            // Not again before its time.
            desk.tick();
            assertThat(desk.made()).hasSize(2);
            Path fresh = folder.resolve("back");
            CopyCommands.run("restore", made.toString(), fresh.toString());
            assertThat(fresh.resolve("yalos.mv.db")).exists();
            // A folder that cannot be written any more is told, and tried again.
            Files.delete(made);
            Files.delete(recent);
            Path gone = folder.resolve("gone");
            visitor.post("/keep/plan", "folder", gone.toString(), "hours", "1", "days", "1");
            Files.delete(gone);
            Files.writeString(gone, "a file stands in the way");
            desk.tick();
            assertThat(visitor.get("/keep").body()).contains("was not made");
            assertThat(visitor.get("/").body()).contains("was not made");
            Files.delete(gone);
            desk.tick();
            assertThat(visitor.get("/keep").body()).doesNotContain("was not made");
            byte[] page = visitor.bytes("/keep/yalos.zip");
            assertThat(page).startsWith('P', 'K');
        }
    }

    /** A database that lets nobody in until it is told to, so that a copy is under way. */
    @Test
    void whileACopyIsMadeNoOtherIsAndNothingIsDeletedForGood(@TempDir Path folder) throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch told = new CountDownLatch(1);
        DataSource slow = new AbstractDataSource() {
            @Override
            public Connection getConnection() throws SQLException {
                begun.countDown();
                try {
                    told.await();
                } catch (InterruptedException stopped) {
                    Thread.currentThread().interrupt();
                }
                throw new SQLException("no database here");
            }

            @Override
            public Connection getConnection(String user, String password) throws SQLException {
                return getConnection();
            }
        };
        CopyDesk desk = new CopyDesk(slow, null, null, null, null, folder);
        Path target = folder.resolve("copy.zip");
        CompletableFuture<Void> first = CompletableFuture.runAsync(() -> {
            try {
                desk.write(target);
            } catch (IOException notMade) {
                throw new UncheckedIOException(notMade);
            }
        });
        begun.await();
        assertThatThrownBy(() -> desk.writeNow(target))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("being made already");
        assertThatThrownBy(() -> desk.purge(1))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("when that is done");
        told.countDown();
        assertThatThrownBy(first::join).hasMessageContaining("no database here");
        // A copy that was not made holds up none after it.
        assertThatThrownBy(() -> desk.writeNow(target)).isInstanceOf(IOException.class);
        assertThat(target).doesNotExist();
    }

    @Test
    void dataOfANewerProgramIsRefusedUntouched() throws IOException, SQLException {
        Path data = RunningYalos.newFolder();
        RunningYalos.application(data, 0).close();
        String address = "jdbc:h2:file:" + data.toAbsolutePath().resolve("yalos");
        try (Connection connection = DriverManager.getConnection(address, "yalos", "");
                Statement sql = connection.createStatement()) {
            sql.execute(
                    "insert into \"flyway_schema_history\" (\"installed_rank\", \"version\", \"description\", \"type\", \"script\", \"installed_by\", \"execution_time\", \"success\") values (99, '"
                            + (NewerData.newest() + 1)
                            + "', 'later', 'SQL', 'later.sql', 'x', 1, true)");
        }
        String before = Sha256.hex(Files.readAllBytes(data.resolve("yalos.mv.db")));
        assertThatThrownBy(() -> RunningYalos.application(data, 0))
                .hasMessageContaining("written by a newer Yalos")
                .hasMessageContaining("Nothing was touched");
        assertThatThrownBy(() ->
                        CopyCommands.run("backup", data.resolve("../c.zip").toString(), data.toString()))
                .hasMessageContaining("written by a newer Yalos");
        assertThat(Sha256.hex(Files.readAllBytes(data.resolve("yalos.mv.db")))).isEqualTo(before);
    }

    /** The disk ends in the middle of a copy: the earlier one of its name stays, and nothing half lies beside. */
    @Test
    void aCopyThatTheDiskDoesNotTakeLeavesTheEarlierOne(@TempDir Path folder) throws IOException {
        Path data = Files.createDirectories(folder.resolve("data"));
        Files.writeString(data.resolve("yalos.mv.db"), "x".repeat(1000));
        Path target = Files.writeString(folder.resolve("copy.zip"), "the earlier one");
        DataCopy.Database full = new DataCopy.Database() {
            @Override
            public void backup(Path zip) throws SQLException {
                try {
                    Files.writeString(zip, "half of a zip");
                } catch (IOException e) {
                    throw new SQLException(e);
                }
                throw new SQLException("No space left on device");
            }

            @Override
            public int schema() {
                return 12;
            }
        };
        assertThatThrownBy(() -> DataCopy.write(data, full, target)).hasMessageContaining("No space left");
        assertThat(target).hasContent("the earlier one");
        try (Stream<Path> all = Files.walk(folder)) {
            assertThat(all.filter(Files::isRegularFile).map(Path::getFileName).map(Path::toString))
                    .containsExactlyInAnyOrder("yalos.mv.db", "copy.zip");
        }
    }
}

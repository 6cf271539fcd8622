package yalos.web.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import yalos.core.Reference;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** One bad record harms nobody else; lists read only what is kept; what a job leaves is taken away. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class StoredRecordsTest {
    private static final String CORNERS = "54.501, -4.301\n54.501, -4.297\n54.504, -4.297\n54.504, -4.301";

    private Path data;
    private ConfigurableApplicationContext application;
    private JdbcClient database;
    private Visitor visitor;

    @BeforeAll
    void start() {
        data = RunningYalos.newFolder();
        application = RunningYalos.application(data, 0);
        database = JdbcClient.create(application.getBean(DataSource.class));
    }

    @AfterAll
    void stop() {
        application.close();
    }

    @BeforeEach
    void enter() {
        visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
    }

    private void outline(long block) {
        visitor.change(block, "ground", "/import", "text", CORNERS);
    }

    private void spoil(long block, String facts) {
        database.sql("update block_step set facts = ?, hash = 'spoilt' || block_id where block_id = ? and seq ="
                        + " (select head from block where id = ?)")
                .param(facts)
                .param(block)
                .param(block)
                .update();
    }

    @Test
    void anUnreadableStepFailsAloneAndTheWayBackIsOffered() {
        long sound = visitor.newBlock("Sound", "54.5, -4.3");
        long spoilt = visitor.newBlock("Spoilt", "54.5, -4.3");
        outline(spoilt);
        spoil(spoilt, "{\"shape\":99}");

        HttpResponse<String> page = visitor.get("/blocks/" + spoilt + "/strips");
        assertThat(page.statusCode()).isEqualTo(409);
        assertThat(page.body()).contains("newer Yalos (form 99").contains("/blocks/" + spoilt + "/history");
        assertThat(visitor.get("/jobs").statusCode()).isEqualTo(200);
        assertThat(visitor.get("/jobs").body()).contains("Spoilt").contains("Sound");
        assertThat(visitor.get("/blocks/" + sound + "/strips").statusCode()).isEqualTo(200);

        HttpResponse<String> history = visitor.get("/blocks/" + spoilt + "/history");
        assertThat(history.statusCode()).isEqualTo(200);
        int version = database.sql("select version from block where id = ?")
                .param(spoilt)
                .query(Integer.class)
                .single();
        visitor.post("/blocks/" + spoilt + "/history/1", "version", String.valueOf(version));
        assertThat(visitor.get("/blocks/" + spoilt + "/strips").statusCode())
                .as("the step before is whole")
                .isEqualTo(200);
    }

    @Test
    void aListReadsWhatIsKeptAndNeverTheFacts() {
        long block = visitor.newBlock("Kept", "54.5, -4.3");
        outline(block);
        String before = row(block);
        assertThat(before).contains(" ha").contains("photos").contains("min");
        database.sql("update block_step set facts = 'gone' where block_id = ?")
                .param(block)
                .update();
        assertThat(row(block)).isEqualTo(before);
    }

    /** What is missing is made up for in the background; the list says so meanwhile. */
    @Test
    void aMissingSummaryIsMadeUpFor() {
        long block = visitor.newBlock("Made up for", "54.5, -4.3");
        outline(block);
        String kept = row(block);
        database.sql("delete from block_summary").update();
        String shown = row(block);
        while (!shown.equals(kept)) {
            assertThat(shown).contains("…");
            shown = row(block);
        }
    }

    private String row(long block) {
        String page = visitor.get("/jobs").body();
        int at = page.indexOf("/blocks/" + block + "/strips");
        return page.substring(at, page.indexOf("</tr>", at));
    }

    /** The migration's hash is the program's. */
    @Test
    void theDatabaseHashesAsTheProgramDoes() {
        visitor.newBlock("Hashed — “é”", "54.5, -4.3");
        assertThat(database.sql("select count(*) from block_step where facts <> 'gone' and hash not like 'spoilt%'"
                                + " and hash <> lower(rawtohex(hash('SHA256', facts)))")
                        .query(Integer.class)
                        .single())
                .isZero();
    }

    @Test
    void aDeletedJobLeavesNoFiles() throws Exception {
        long block = visitor.newBlock("With a model", "54.5, -4.3");
        visitor.bring(block, "ground", "/models", "coverage_dem_utm.tif", Reference.bytes("coverage_dem_utm.tif"));
        long model = database.sql("select max(id) from model").query(Long.class).single();
        Path file = data.resolve("models").resolve(model + ".tif");
        assertThat(file).exists();
        long job = database.sql("select job_id from block where id = ?")
                .param(block)
                .query(Long.class)
                .single();
        visitor.post("/jobs/" + job + "/delete", "confirm", "With a model");
        assertThat(file).as("in the bin it can still be put back").exists();
        visitor.post("/keep/bin/" + job + "/purge");
        assertThat(file).doesNotExist();
        assertThat(Files.exists(data.resolve("models"))).isTrue();
    }
}

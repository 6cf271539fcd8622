package yalos.web.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** A disk without room: said on every page, nothing changed, nothing lost; and a database that closed itself stands up again. */
class FullDiskTest {
    /** More than any disk has stands for a full one. */
    private static final String FULL = "--yalos.least-megabytes=1000000000000";

    private static HttpResponse<String> change(Visitor visitor, long block, String gsd) {
        return visitor.htmx(
                "/blocks/" + block + "/ledger/gsd", "version", visitor.version(block), "stage", "strips", "value", gsd);
    }

    @Test
    void aFullDiskIsSaidOnEveryPageAndChangesWait() {
        Path data = RunningYalos.newFolder();
        long block;
        try (ConfigurableApplicationContext before = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(before));
            block = visitor.newBlock("Full", "54.512, -4.353");
            assertThat(change(visitor, block, "2.5").statusCode()).isEqualTo(200);
            assertThat(visitor.get("/jobs").body()).doesNotContain("is full");
        }
        try (ConfigurableApplicationContext full = RunningYalos.application(data, 0, FULL)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(full));
            for (String page : new String[] {"/jobs", "/catalogue", "/blocks/" + block + "/strips", "/units"}) {
                assertThat(visitor.get(page).body()).as(page).contains("is full", "nothing changed");
            }
            HttpResponse<String> refused = change(visitor, block, "3.5");
            assertThat(refused.statusCode()).isEqualTo(507);
            assertThat(refused.body()).contains("is full").doesNotContain("Exception");
            assertThat(visitor.get("/blocks/" + block + "/strips").body()).contains("value=\"2.50\"");
        }
        try (ConfigurableApplicationContext room = RunningYalos.application(data, 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(room));
            assertThat(change(visitor, block, "3.5").statusCode()).isEqualTo(200);
        }
    }

    @Test
    void aDatabaseThatClosedItselfIsOpenedAnew() {
        try (ConfigurableApplicationContext application = RunningYalos.application(RunningYalos.newFolder(), 0)) {
            Visitor visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
            long block = visitor.newBlock("Closed", "54.512, -4.353");
            assertThat(change(visitor, block, "2.5").statusCode()).isEqualTo(200);
            var database = application.getBean(javax.sql.DataSource.class);
            try (var connection = database.getConnection();
                    var sql = connection.createStatement()) {
                sql.execute("shutdown immediately");
            } catch (SQLException closedUnderIt) {
                assertThat(closedUnderIt.getMessage()).contains("closed");
            }
            int status = visitor.get("/blocks/" + block + "/strips").statusCode();
            assertThat(status).isIn(200, 503);
            assertThat(visitor.get("/blocks/" + block + "/strips").body()).contains("value=\"2.50\"");
            assertThat(change(visitor, block, "2.7").statusCode()).isEqualTo(200);
        }
    }
}

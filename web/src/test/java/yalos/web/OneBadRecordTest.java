package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.core.Reference;

/** One thing is broken: it says so and offers the cure, and all else works. */
class OneBadRecordTest {
    private static final String CORNERS = "565250 5262250\n565500 5262250\n565500 5262550\n565250 5262550";

    private final Path data = RunningYalos.newFolder();
    private ConfigurableApplicationContext application;
    private Visitor visitor;

    @BeforeEach
    void start() {
        application = RunningYalos.application(data, 0);
        visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
    }

    @AfterEach
    void stop() {
        application.close();
    }

    private void sql(String statement) {
        try (Connection connection = application.getBean(DataSource.class).getConnection();
                Statement sql = connection.createStatement()) {
            sql.execute(statement);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private long block(String job) {
        long block = visitor.newBlock(job, "47.5115, 9.8680");
        visitor.change(block, "ground", "/import", "text", CORNERS);
        return block;
    }

    @Test
    void damagedGearIsLeftOutAndOffersToBeDeleted() {
        long block = block("Gear");
        sql(
                "insert into gear (kind, name, content) values ('KIT', 'torn kit', '{\"name\":'), ('AIRCRAFT', 'torn aircraft', 'x')");
        sql("update camera set other_lenses_mm = '1e300' where id = 2");
        sql("update camera set shutter = 'CURTAIN' where id = 3");
        for (String page :
                List.of("/blocks/" + block + "/kit", "/blocks/" + block + "/compare", "/cameras", "/catalogue")) {
            assertThat(visitor.get(page).statusCode()).as(page).isEqualTo(200);
        }
        assertThat(visitor.get("/catalogue").body()).contains("torn kit (kit)", "torn aircraft (aircraft)");
        assertThat(visitor.get("/cameras").body()).contains("figures that cannot be", "CURTAIN");
        assertThat(visitor.post("/cameras/3/delete").body()).doesNotContain("CURTAIN");
    }

    @Test
    void aLostModelIsSaidOnItsBlockAndCanBeLeftOut() throws IOException {
        long block = block("Model");
        long other = block("Other");
        visitor.bring(block, "ground", "/models", "rigg.tif", Reference.bytes("coverage_dem_utm.tif"));
        application.close();
        try (var files = Files.list(data.resolve("models"))) {
            for (Path file : files.toList()) {
                Files.write(file, new byte[] {1, 2, 3});
            }
        }
        start();
        for (String stage : List.of("brief", "ground", "kit", "strips", "proof")) {
            HttpResponse<String> page = visitor.get("/blocks/" + block + "/" + stage);
            assertThat(page.statusCode()).as(stage).isEqualTo(200);
            assertThat(page.body()).as(stage).contains("is gone or damaged");
        }
        assertThat(visitor.get("/jobs").statusCode()).isEqualTo(200);
        assertThat(visitor.get("/blocks/" + other + "/strips").body()).doesNotContain("is gone or damaged");
        assertThat(visitor.change(block, "ground", "/models/1/leave")).doesNotContain("is gone or damaged");
    }

    /** The same name, and the same version, at the same moment: one gets through, the others are told. */
    @Test
    void racesEndInASentence() throws Exception {
        long block = block("Race");
        String version = visitor.version(block);
        ExecutorService all = Executors.newFixedThreadPool(8);
        try {
            List<Callable<HttpResponse<String>>> jobs = new ArrayList<>();
            List<Callable<HttpResponse<String>>> changes = new ArrayList<>();
            for (int i = 1; i <= 4; i++) {
                Visitor one = visitorOfLongStanding();
                String figure = "3." + i;
                jobs.add(() -> one.post("/jobs", "name", "Twice", "place", "47.5, 9.8"));
                changes.add(() -> one.htmx(
                        "/blocks/" + block + "/ledger/gsd", "version", version, "stage", "strips", "value", figure));
            }
            List<Future<HttpResponse<String>>> answers =
                    all.invokeAll(Stream.concat(jobs.stream(), changes.stream()).toList());
            oneGotThrough(answers.subList(0, 4), "called “Twice”|was quicker");
            oneGotThrough(answers.subList(4, 8), "in another tab|was quicker");
        } finally {
            all.shutdown();
        }
        assertThat(visitor.get("/jobs").body()).containsOnlyOnce(">Twice<");
    }

    /** One whose browser has its token already. */
    private Visitor visitorOfLongStanding() {
        Visitor one = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
        one.get("/jobs");
        return one;
    }

    private static void oneGotThrough(List<Future<HttpResponse<String>>> answers, String told) throws Exception {
        int through = 0;
        for (Future<HttpResponse<String>> answer : answers) {
            HttpResponse<String> got = answer.get();
            if (got.statusCode() == 200) {
                through++;
            } else {
                assertThat(got.statusCode()).as(got.body()).isIn(400, 409);
                assertThat(got.body()).containsPattern(told);
            }
        }
        assertThat(through).isEqualTo(1);
    }

    /** Units were changed in another tab: what was typed beside "m" stays metres. */
    @Test
    void theUnitTravelsWithTheForm() {
        long block = block("Units");
        visitor.post("/units", "preset", "feet");
        String page = visitor.htmx(
                        "/blocks/" + block + "/ledger/height",
                        "version",
                        visitor.version(block),
                        "stage",
                        "strips",
                        "units",
                        "",
                        "act",
                        "type",
                        "value",
                        "100")
                .body();
        assertThat(page).contains("100.0");
        assertThat(visitor.get("/blocks/" + block + "/history").body()).contains("100 m");
        assertThat(visitor.htmx(
                                "/blocks/" + block + "/ledger/height",
                                "version",
                                visitor.version(block),
                                "stage",
                                "strips",
                                "units",
                                "HEIGHT=CUBIT",
                                "value",
                                "100")
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void namesHoldNoLettersNobodySees() {
        long block = visitor.newBlock("Wind\u0000\u0007y \n Rigg\u202e", "47.5115, 9.8680");
        visitor.change(block, "ground", "/import", "text", CORNERS);
        assertThat(visitor.get("/jobs").body()).contains("Windy Rigg");
        for (String file : List.of("plan.kml", "plan.gpx", "plan.geojson")) {
            assertThat(visitor.get("/blocks/" + block + "/" + file).statusCode())
                    .as(file)
                    .isIn(200, 404);
        }
        assertThat(visitor.post("/jobs", "name", "x".repeat(201), "place", "").body())
                .contains("1 to 80 characters");
    }
}

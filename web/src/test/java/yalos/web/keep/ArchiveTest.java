package yalos.web.keep;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.UnaryOperator;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** A job leaves as one file and comes back whole: on another machine the same to the byte; damaged, hostile and newer files are refused and nothing of them stays. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ArchiveTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private ConfigurableApplicationContext here;
    private ConfigurableApplicationContext there;
    private Visitor from;
    private Visitor to;
    private byte[] archive;

    @BeforeAll
    void start() {
        here = RunningYalos.demo();
        there = RunningYalos.application(RunningYalos.newFolder(), 0);
        from = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(here));
        to = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(there));
        // The first rehearsal is written while it is flown; the archive wants it still.
        while (from.get("/blocks/2/fly").body().contains("rehearsal on")
                || from.get("/blocks/2/fly").body().contains("not rehearsed")) {
            LockSupport.parkNanos(50_000_000);
        }
        from.post("/blocks/2/revisions", "note", "as sent to the client");
        from.change(3, "strips", "/ledger/side-overlap", "value", "72");
        archive = from.bytes("/jobs/1/archive.zip");
    }

    @AfterAll
    void stop() {
        here.close();
        there.close();
    }

    private String brought(byte[] zip) {
        return to.upload("/jobs/archive", "job.zip", zip)
                .body()
                .replaceAll("<[^>]*>", " ")
                .replaceAll("\\s+", " ");
    }

    private int jobs() {
        return there.getBean(JdbcTemplate.class).queryForObject("select count(*) from job", Integer.class);
    }

    @Test
    void onAnotherMachineItIsTheSameToTheByte() throws IOException {
        assertThat(brought(archive)).contains("Thornwane Rigg is here, 7 blocks.");
        long job = there.getBean(JdbcTemplate.class)
                .queryForObject("select max(id) from job where name = 'Thornwane Rigg'", Long.class);
        Map<String, byte[]> left = ArchiveFiles.entries(archive);
        Map<String, byte[]> again = ArchiveFiles.entries(to.bytes("/jobs/" + job + "/archive.zip"));
        assertThat(again.keySet()).isEqualTo(left.keySet());
        assertThat(left.keySet()).anyMatch(name -> name.startsWith("models/") && name.endsWith(".tif"));
        for (String name : left.keySet()) {
            if (name.startsWith("tables/") || name.startsWith("models/") || name.endsWith("points.csv")) {
                assertThat(again.get(name)).as(name).isEqualTo(left.get(name));
            }
        }
        // What can be asked of it is the same: its plan, undone and done again, its issued revision.
        long fort = there.getBean(JdbcTemplate.class)
                .queryForObject("select min(id) from block where job_id = ?", Long.class, job);
        assertThat(to.bytes("/blocks/" + fort + "/revisions/1/plan.geojson"))
                .isEqualTo(from.bytes("/blocks/2/revisions/1/plan.geojson"));
        assertThat(to.get("/blocks/" + (fort + 1) + "/strips").body()).contains("value=\"72\"");
        to.post("/blocks/" + (fort + 1) + "/undo", "version", to.version(fort + 1), "stage", "strips");
        assertThat(to.get("/blocks/" + (fort + 1) + "/strips").body()).doesNotContain("value=\"72\"");
        assertThat(to.get("/jobs").body()).contains("29.13 ha");
        // Once more: both are kept, and the same flights count once.
        assertThat(brought(archive))
                .contains("Thornwane Rigg (2) is here")
                .contains("both are kept")
                .contains("count no hours");
    }

    /** Frozen when the first layout was released: whatever comes later opens it. Whoever changes the layout adds a sample and leaves this one. */
    @Test
    void anArchiveOfTheFirstLayoutComesIn() throws IOException {
        byte[] sample;
        try (InputStream in = ArchiveTest.class.getResourceAsStream("/archive/layout-1.zip")) {
            sample = in.readAllBytes();
        }
        assertThat(brought(sample)).contains("First layout is here, 1 block.");
        JdbcTemplate database = there.getBean(JdbcTemplate.class);
        long block = database.queryForObject(
                "select b.id from block b join job j on j.id = b.job_id where j.name = 'First layout'", Long.class);
        assertThat(to.get("/blocks/" + block + "/ground").body()).contains("mast");
        assertThat(to.get("/blocks/" + block + "/strips").body()).contains("in order");
        assertThat(to.get("/blocks/" + block + "/history").body()).contains("as sent");
        assertThat(to.get("/blocks/" + block + "/log").body())
                .contains("2026-05-14 10:42")
                .contains("T1 90→40 %");
    }

    /** A block is copied after the blocks were written and before their steps are. */
    @Test
    void whatIsChangedMeanwhileIsNotHalfInIt() throws IOException {
        long block = from.newBlock("Changed meanwhile", "54.5, -4.3");
        long job = here.getBean(JdbcTemplate.class)
                .queryForObject("select job_id from block where id = ?", Long.class, block);
        int[] calls = {0};
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        here.getBean(JobArchive.class).write(job, out, () -> {
            calls[0]++;
            if (calls[0] == 4) {
                from.post("/blocks/" + block + "/copy");
            }
        });
        assertThat(here.getBean(JdbcTemplate.class)
                        .queryForObject("select count(*) from block where job_id = ?", Integer.class, job))
                .isEqualTo(2);
        assertThat(brought(out.toByteArray())).contains("Changed meanwhile is here, 1 block.");
    }

    /** Every table of the database belongs to a job and leaves with it, or is named as belonging elsewhere. */
    @Test
    void noTableIsForgotten() {
        List<String> known = new ArrayList<>(Tables.ELSEWHERE);
        Tables.ALL.forEach(table -> known.add(table.name()));
        List<String> real = there.getBean(JdbcTemplate.class)
                .queryForList(
                        "select lower(table_name) from information_schema.tables where table_schema = 'PUBLIC'",
                        String.class);
        assertThat(known).containsExactlyInAnyOrderElementsOf(real);
    }

    /** The archive with one part changed, its manifest mended so that only the part itself is wrong. */
    private byte[] edited(String name, UnaryOperator<String> change) throws IOException {
        Map<String, byte[]> entries = ArchiveFiles.entries(archive);
        String before = new String(entries.get(name), StandardCharsets.UTF_8);
        String after = change.apply(before);
        assertThat(after).as("the change hits something").isNotEqualTo(before);
        entries.put(name, after.getBytes(StandardCharsets.UTF_8));
        return ArchiveFiles.mended(entries, name);
    }

    @Test
    void whatIsDamagedHostileOrNewerIsRefusedAndNothingStays() throws IOException {
        int before = jobs();
        Map<String, byte[]> whole = ArchiveFiles.entries(archive);

        assertThat(brought("no zip at all".getBytes(StandardCharsets.UTF_8))).contains("no zip");
        assertThat(brought(Arrays.copyOf(archive, archive.length / 2))).contains("no zip, or it was cut off");
        for (String part : List.of("manifest.json", "tables/block_step.json")) {
            assertThat(brought(ArchiveFiles.cutShort(archive, part)))
                    .as(part)
                    .contains("Nothing was brought in")
                    .contains("no zip, or it was cut off");
        }
        assertThat(brought(new byte[0])).contains("Choose the file of a job");
        assertThat(brought(ArchiveFiles.zip(Map.of("a.txt", new byte[3]))))
                .contains("“a.txt” is no part of an archive");
        assertThat(brought(ArchiveFiles.zip(Map.of("README.txt", new byte[3])))).contains("no manifest.json");

        Map<String, byte[]> climbing = new LinkedHashMap<>(whole);
        climbing.put("models/../../evil.tif", new byte[3]);
        assertThat(brought(ArchiveFiles.zip(climbing))).contains("“models/../../evil.tif” is no part of an archive");
        climbing = new LinkedHashMap<>(whole);
        climbing.put("open/../evil", new byte[3]);
        assertThat(brought(ArchiveFiles.zip(climbing))).contains("is no part of an archive");
        Map<String, byte[]> added = new LinkedHashMap<>(whole);
        added.put("models/9.tif", new byte[3]);
        assertThat(brought(ArchiveFiles.zip(added))).contains("not in its manifest");

        Map<String, byte[]> missing = new LinkedHashMap<>(whole);
        missing.remove("tables/revision.json");
        assertThat(brought(ArchiveFiles.zip(missing))).contains("“tables/revision.json” is missing");
        Map<String, byte[]> numbers = new LinkedHashMap<>(whole);
        numbers.put(
                "tables/residual.json",
                new String(whole.get("tables/residual.json"), StandardCharsets.UTF_8)
                        .replaceFirst("0\\.0", "0.1")
                        .getBytes(StandardCharsets.UTF_8));
        assertThat(brought(ArchiveFiles.zip(numbers))).contains("“tables/residual.json” is not what was written");

        assertThat(brought(edited("manifest.json", text -> text.replace("\"version\" : 1", "\"version\" : 9"))))
                .contains("written by a newer Yalos");
        assertThat(brought(edited("manifest.json", text -> text.replaceFirst("\"schema\" : \\d+", "\"schema\" : 999"))))
                .contains("written by a newer Yalos");
        assertThat(brought(edited("manifest.json", text -> text.replace("yalos-job", "other"))))
                .contains("holds no job of Yalos");

        assertThat(brought(edited("tables/block.json", text -> text.replaceFirst("\\[1,1,", "[1,7,"))))
                .contains("job_id points at no row of job");
        assertThat(brought(edited("tables/block.json", text -> text.replaceFirst("\"name\"", "\"nome\""))))
                .contains("a column “nome”");
        assertThat(brought(edited("tables/block.json", text -> text.replaceFirst(",true\\]|,false\\]", "]"))))
                .contains("values for 7 columns");
        assertThat(brought(edited("tables/residual.json", text -> text.replaceFirst("\\[1,1,\"", "[1,1.5,\""))))
                .contains("block_id points at no row");
        assertThat(brought(
                        edited("tables/block_step.json", text -> text.replaceFirst("\"shape\":\\d+", "\"shape\":99"))))
                .contains("written by a newer Yalos (form 99");
        assertThat(brought(edited(
                        "tables/block_step.json",
                        text -> text.replaceFirst("\"models\":\\[\\{\"id\":1", "\"models\":[{\"id\":8"))))
                .contains("model 8, which is not in the archive");
        assertThat(brought(edited(
                        "tables/flight.json",
                        text -> text.replaceFirst("\\\\\"minutes\\\\\":[\\d.]+", "\\\\\"minutes\\\\\":-4"))))
                .contains("“tables/flight.json”, row");
        assertThat(brought(edited("tables/series.json", text -> text.substring(0, text.length() / 2))))
                .contains("no sound JSON");

        assertThat(brought(bomb())).contains("would unpack to");
        assertThat(jobs()).isEqualTo(before);
        Integer steps = there.getBean(JdbcTemplate.class)
                .queryForObject(
                        "select count(*) from block_step s where not exists (select 1 from block b where b.id = s.block_id)",
                        Integer.class);
        assertThat(steps).isZero();
    }

    /** A small file that says truly that it unpacks to 400 MB. */
    private static byte[] bomb() throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        long size = 400L << 20;
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            zip.putNextEntry(new ZipEntry("tables/job.json"));
            byte[] zeros = new byte[1 << 20];
            for (int i = 0; i < 400; i++) {
                zip.write(zeros);
            }
            zip.closeEntry();
            zip.putNextEntry(new ZipEntry("manifest.json"));
            zip.write(JSON.writeValueAsBytes(new Manifest(
                    Manifest.FORMAT,
                    1,
                    1,
                    "",
                    "",
                    "bomb",
                    List.of(new Manifest.Part("tables/job.json", size, "0".repeat(64))))));
            zip.closeEntry();
        }
        return bytes.toByteArray();
    }

    @Test
    void aDeletedJobWaitsInTheBinAndThenReallyGoes() {
        long block = to.newBlock("To be deleted", "54.5, -4.3");
        JdbcTemplate database = there.getBean(JdbcTemplate.class);
        long job = database.queryForObject("select job_id from block where id = ?", Long.class, block);
        assertThat(to.get("/jobs/" + job).body()).contains("Into the bin go").contains("1 block");
        assertThat(to.post("/jobs/" + job + "/delete", "confirm", "wrong").body())
                .contains("was not deleted");
        to.post("/jobs/" + job + "/delete", "confirm", "To be deleted");
        assertThat(to.get("/jobs").body()).doesNotContain("To be deleted");
        assertThat(to.get("/blocks/" + block + "/strips").body()).contains("lies in the bin");
        assertThat(to.get("/jobs/" + job).statusCode()).isEqualTo(404);
        assertThat(to.get("/keep").body()).contains("To be deleted").contains("Put back");
        // Its name is free meanwhile, and both are kept.
        to.newBlock("To be deleted", "54.5, -4.3");
        to.post("/keep/bin/" + job + "/put-back");
        assertThat(to.get("/jobs").body()).contains("To be deleted (2)");
        assertThat(to.get("/blocks/" + block + "/strips").statusCode()).isEqualTo(200);
        to.post("/jobs/" + job + "/delete", "confirm", "To be deleted (2)");
        CopyDesk desk = there.getBean(CopyDesk.class);
        database.update("update job set binned_at = dateadd('DAY', -29, current_timestamp) where id = ?", job);
        desk.tick();
        assertThat(database.queryForObject("select count(*) from job where id = ?", Integer.class, job))
                .isEqualTo(1);
        database.update("update job set binned_at = dateadd('DAY', -31, current_timestamp) where id = ?", job);
        desk.tick();
        assertThat(database.queryForObject("select count(*) from job where id = ?", Integer.class, job))
                .isZero();
        assertThat(database.queryForObject("select count(*) from block where id = ?", Integer.class, block))
                .isZero();
        assertThat(to.post("/keep/bin/" + job + "/purge").statusCode()).isEqualTo(404);
    }
}

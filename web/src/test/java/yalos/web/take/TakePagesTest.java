package yalos.web.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.Reference;
import yalos.core.logbook.FlightRecord;
import yalos.core.proof.Shares;
import yalos.core.rehearsal.Fault;
import yalos.core.take.Take;
import yalos.web.RunningYalos;
import yalos.web.Visitor;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.fly.Crew;
import yalos.web.fly.FlownRuns;
import yalos.web.store.TakeMapper;

/** The Take stage over HTTP: what a simulated aircraft brought home, read where it lies, matched, proved, decided on; and what comes with it. */
@ExtendWith(RunningYalos.class)
class TakePagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3469\n54.5146 -4.3469\n54.5146 -4.3489";
    private static final String LAUNCH = "54.5133, -4.3489";
    private static final JsonMapper JSON = JsonMapper.builder().build();

    @TempDir
    private Path folder;

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, LAUNCH);
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private OpenBlock open(long block) {
        return RunningYalos.bean(Blocks.class).open(block);
    }

    /** What the first sortie over the field brought home, flown once for all: every block here has the same plan. */
    private static Path brought;

    private int flown(long block) throws IOException {
        if (brought == null) {
            Crew crew = RunningYalos.bean(Crew.class);
            crew.rehearse(open(block), 1, 5, Map.of(), EnumSet.noneOf(Fault.class), "A. Pilot");
            Crew.Brought photos = crew.brought(open(block), 0);
            Path into = RunningYalos.newFolder();
            for (int i = 0; i < photos.count(); i++) {
                photos.write(i, into);
            }
            brought = into;
        }
        int count = 0;
        try (Stream<Path> files = Files.list(brought)) {
            for (Path file : files.toList()) {
                Files.copy(file, folder.resolve(file.getFileName()));
                count++;
            }
        }
        return count;
    }

    private void read(long block) {
        visitor.post("/blocks/" + block + "/take/folder", "folder", folder.toString());
        RunningYalos.bean(TakeReading.class).of(block).orElseThrow().settle();
    }

    /** The page once the take is proved. */
    private String page(long block) {
        String page = visitor.get("/blocks/" + block + "/take").body();
        while (page.contains("id=\"take-proving\"")) {
            LockSupport.parkNanos(50_000_000);
            page = visitor.get("/blocks/" + block + "/take").body();
        }
        return plain(page);
    }

    @Test
    void aTakeIsReadMatchedProvedAndFoundComplete() throws IOException {
        long block = block("Take complete");
        assertThat(visitor.get("/blocks/" + block + "/take").body()).contains("Bring in the photos of a flight");
        int photos = flown(block);
        read(block);
        assertThat(page(block))
                .contains("Complete. every station has a good photo")
                .contains("%d of %d stations have a good photo".formatted(photos, photos))
                .contains("%d readable".formatted(photos))
                .contains("given enough, as planned");
        assertThat(visitor.get("/blocks/" + block + "/take/proving").body())
                .as("the page asks no more and brings its book anew")
                .contains("data-done=\"true\"")
                .doesNotContain("hx-get");
        JsonNode drawn =
                JSON.readTree(visitor.get("/blocks/" + block + "/take.json").body());
        assertThat(drawn.get("photos").size()).isEqualTo(4 * photos);
        assertThat(drawn.get("missing").size()).isZero();
        assertThat(drawn.get("gaps").size()).isZero();
        assertThat(visitor.get("/blocks/" + block + "/take/again.kml").statusCode())
                .isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/take/proof?layer=photos").body())
                .contains("as planned")
                .contains("as flown");
        assertThat(visitor.bytes("/blocks/" + block + "/take/proof/flown-adequate.png"))
                .startsWith(0x89, 'P', 'N', 'G');
        assertThat(visitor.get("/blocks/" + block + "/strips").body()).contains("complete");
        // Reading the same folder again takes nothing twice, and one that grew takes what is new.
        read(block);
        assertThat(visitor.get("/blocks/" + block + "/take/progress").body()).contains("of them known before");
        Files.copy(folder.resolve("SIM1_0001.JPG"), folder.resolve("SIM1_0999.JPG"));
        read(block);
        assertThat(page(block)).contains("1 copy of another");
    }

    /** The log's draft from the photos alone against what the simulated aircraft itself kept of the flight; and the report's word on both. */
    @Test
    void theFlightInTheLogAndTheReportIsTheOneThatWasFlown() throws IOException {
        long block = block("Take for the log");
        RunningYalos.bean(Crew.class).rehearse(open(block), 1, 5, Map.of(), EnumSet.noneOf(Fault.class), "A. Pilot");
        Crew.Brought photos = RunningYalos.bean(Crew.class).brought(open(block), 0);
        for (int i = 0; i < photos.count(); i++) {
            photos.write(i, folder);
        }
        for (int i = 10; i < 16; i++) {
            Files.delete(folder.resolve("SIM1_%04d.JPG".formatted(i)));
        }
        read(block);
        page(block);
        FlightRecord told = RunningYalos.bean(FlownRuns.class)
                .last(open(block))
                .orElseThrow()
                .flight();
        List<FlightRecord> flights = RunningYalos.bean(FlownTake.class).flights(open(block));
        assertThat(flights).hasSize(1);
        FlightRecord drafted = flights.get(0);
        assertThat(drafted.sortie()).isEqualTo(1);
        assertThat(drafted.aircraft()).isEqualTo(told.aircraft());
        assertThat(drafted.place()).isEqualTo(told.place());
        // A landing is planned, so it lies within half a minute of the one that was flown.
        assertThat(drafted.start()).isCloseTo(told.start(), within(30, ChronoUnit.SECONDS));
        assertThat(drafted.minutes()).isCloseTo(told.minutes(), within(0.5));
        assertThat(drafted.flown().photos()).hasValue(photos.count() - 6);
        assertThat(drafted.planned().photos()).hasValue(photos.count());
        double planned = drafted.planned().enough().orElseThrow();
        double flown = drafted.flown().enough().orElseThrow();
        assertThat(flown).isLessThan(planned);
        String form = visitor.get("/blocks/" + block + "/log/new?source=take:1").body();
        assertThat(form).contains("From the photos").contains("block given enough");
        long job = RunningYalos.bean(JdbcTemplate.class)
                .queryForObject("select job_id from block where id = ?", Long.class, block);
        String report = plain(new String(visitor.bytes("/jobs/" + job + "/report.html"), StandardCharsets.UTF_8));
        assertThat(report)
                .contains("As flown %s of the block is given what was asked; planned were %s."
                        .formatted(Shares.percent(flown), Shares.percent(planned)))
                .contains("no photo at station")
                .contains("No flight that counts stands in the log.");
    }

    private static String plain(String html) {
        return html.replaceAll("<[^>]*>", " ").replaceAll("\\s+", " ");
    }

    @Test
    void whatIsMissingIsFlownAgainAcceptedOrTrimmed() throws IOException {
        long block = block("Take with a gap");
        int photos = flown(block);
        for (int i = 10; i < 16; i++) {
            Files.delete(folder.resolve("SIM1_%04d.JPG".formatted(i)));
        }
        // And, far from there, the last of the flight.
        for (int i = photos - 4; i <= photos; i++) {
            Files.delete(folder.resolve("SIM1_%04d.JPG".formatted(i)));
        }
        Files.write(folder.resolve("SIM1_0018.JPG"), new byte[0]);
        byte[] whole = Files.readAllBytes(folder.resolve("SIM1_0020.JPG"));
        Files.write(folder.resolve("SIM1_0020.JPG"), Arrays.copyOf(whole, whole.length / 2));
        Files.write(folder.resolve("SIM1_0021.JPG"), "<html>".getBytes(StandardCharsets.UTF_8));
        read(block);
        String page = page(block);
        assertThat(page)
                .contains("Not complete.")
                .contains("14 of %d stations lack a good photo".formatted(photos))
                .contains("1 picture not complete")
                .contains("cannot be read to the end")
                .contains("Fly again:")
                .contains("no photo at station");
        String kml = visitor.get("/blocks/" + block + "/take/again.kml").body();
        assertThat(kml).contains("<kml").contains("what is missing of the take");
        String refused = visitor.post("/blocks/" + block + "/take/decide", "kind", "ACCEPT", "gap", "1", "reason", " ")
                .body();
        assertThat(refused).contains("Give a reason");
        int gaps = JSON.readTree(visitor.get("/blocks/" + block + "/take.json").body())
                .get("gaps")
                .size();
        assertThat(gaps).isGreaterThan(1);
        assertThatAGapAcceptedLeavesTheOthersOpen(block);
        visitor.post(
                "/blocks/" + block + "/take/decide",
                "kind",
                "TRIM",
                "places",
                FIELD,
                "reason",
                "the client needs the south alone");
        assertThat(page(block)).contains("Complete enough.").contains("the client needs the south alone");
        Matcher decision = Pattern.compile("/take/decisions/(\\d+)/take-back")
                .matcher(visitor.get("/blocks/" + block + "/take").body());
        assertThat(decision.find()).isTrue();
        visitor.post("/blocks/" + block + "/take/decisions/" + decision.group(1) + "/take-back", "reason", "not so");
        assertThat(page(block)).contains("Not complete.").contains("taken back: not so");
    }

    private static void assertThatAGapAcceptedLeavesTheOthersOpen(long id) {
        OpenBlock block = RunningYalos.bean(Blocks.class).open(id);
        TakeDesk.Found found = RunningYalos.bean(TakeDesk.class).of(block).orElseThrow();
        for (int i = 0; i < found.gaps().size(); i++) {
            Take.Gap accepted = found.gaps().get(i);
            TakeMapper.DecisionRow row = new TakeMapper.DecisionRow(
                    1,
                    "ACCEPT",
                    Decisions.text(Decisions.area(
                            accepted,
                            found.taken().orElseThrow().proof().grid(),
                            found.take().plan().block().plane())),
                    Decisions.about(i, accepted),
                    "sand, nothing to map",
                    "PL",
                    LocalDateTime.of(2026, 6, 18, 12, 0),
                    "");
            assertThat(Decisions.open(found, List.of(row)))
                    .containsExactlyInAnyOrderElementsOf(found.gaps().stream()
                            .filter(gap -> gap != accepted)
                            .flatMap(gap -> gap.stations().stream())
                            .collect(Collectors.toSet()));
        }
    }

    @Test
    void theWorstPhotosComeFirstAndOneIsSetAside() throws IOException {
        long block = block("Take looked at");
        flown(block);
        byte[] whole = Files.readAllBytes(folder.resolve("SIM1_0007.JPG"));
        Files.write(folder.resolve("SIM1_0007.JPG"), Arrays.copyOf(whole, whole.length / 2));
        read(block);
        String sheet = visitor.get("/blocks/" + block + "/take/photos").body();
        Matcher tiles = Pattern.compile("id=\"p(\\d+)\"").matcher(sheet);
        assertThat(tiles.find()).isTrue();
        String worst = tiles.group(1);
        assertThat(sheet.substring(tiles.start(), tiles.start() + 1200)).contains("SIM1_0007.JPG");
        assertThat(tiles.find()).isTrue();
        String second = tiles.group(1);
        assertThat(visitor.get("/blocks/" + block + "/take/contact").body()).contains("SIM1_0007.JPG");
        assertThat(visitor.bytes("/blocks/" + block + "/take/photos/" + second + ".jpg"))
                .startsWith(0xff, 0xd8);
        assertThat(visitor.post(
                                "/blocks/" + block + "/take/photos/" + second + "/aside",
                                "aside",
                                "true",
                                "reason",
                                "a test")
                        .body())
                .contains("1 set aside")
                .contains("Take back");
        assertThat(page(block)).contains("set aside: a test");
        assertThat(visitor.post("/blocks/" + block + "/take/photos/99999999/aside", "aside", "true")
                        .body())
                .contains("no such photo");
        assertThat(worst).isNotEqualTo(second);
    }

    @Test
    void photosAreSentByTheBrowserAndNotKept() {
        long block = block("Take sent");
        for (String name : List.of("IMG_0010.JPG", "IMG_0013.JPG", "IMG_0683.JPG", "IMG_0023.JPG")) {
            visitor.upload(
                    "/blocks/" + block + "/take/photos",
                    name,
                    Reference.bytes("take/" + name),
                    "folder",
                    "DCIM/100",
                    "modified",
                    "1781770510000",
                    "script",
                    "true");
        }
        assertThat(visitor.get("/blocks/" + block + "/take/known").body())
                .contains("DCIM/100\\nIMG_0010.JPG\\n")
                .contains("\\n1781770510000");
        String page = page(block);
        assertThat(page)
                .contains("2 files without a picture")
                .contains("2 from elsewhere")
                .doesNotContain("<script>alert");
        assertThat(visitor.get("/blocks/" + block + "/take/photos?show=no_picture")
                        .body())
                .contains("65,500 × 65,500");
        visitor.post("/blocks/" + block + "/take/clear");
        assertThat(page(block)).contains("all 4 photos taken off the list");
    }

    @Test
    void positionsLogsBasesAndStripsComeWithThem() throws IOException {
        long block = block("Take with more");
        flown(block);
        read(block);
        JsonNode before =
                JSON.readTree(visitor.get("/blocks/" + block + "/take.json").body());
        String table =
                "name;lat_deg;lon_deg;height_ellipsoid_m;accuracy_h_m\nSIM1_0001.ARW;54.51345;-4.34880;120,5;0,012\nSIM9.JPG;54.5;-4.3;1;1\n";
        visitor.upload("/blocks/" + block + "/take/positions", "ppk.csv", table.getBytes(StandardCharsets.UTF_8));
        assertThat(page(block)).contains("1 of 2 rows are photos of the take").contains("1 rows name no photo");
        assertThat(JSON.readTree(visitor.get("/blocks/" + block + "/take.json").body())
                        .get("photos")
                        .get(0))
                .isNotEqualTo(before.get("photos").get(0));
        assertThat(visitor.upload(
                                "/blocks/" + block + "/take/positions",
                                "x.csv",
                                "name,lat,lon,h\nSIM1_0001.JPG,54.5,-4.3,9\n".getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("what its heights count from");
        visitor.post("/blocks/" + block + "/take/own-positions", "source", "TABLE");
        assertThat(JSON.readTree(visitor.get("/blocks/" + block + "/take.json").body())
                        .get("photos")
                        .get(0))
                .isEqualTo(before.get("photos").get(0));
        visitor.upload("/blocks/" + block + "/take/base", "base0010.26o", Reference.bytes("rinex/base0010.26o"));
        assertThat(page(block))
                .contains("RINEX 2.11, BASE 1, 300 epochs of 30 s")
                .contains("base log does not span the flight");
        assertThat(visitor.upload("/blocks/" + block + "/take/base", "nav304.rnx", Reference.bytes("rinex/nav304.rnx"))
                        .body())
                .contains("satellite orbits");
        visitor.upload("/blocks/" + block + "/take/laser", "strips_both.las", Reference.bytes("las/strips_both.las"));
        assertThat(page(block)).contains("2 strips, 7,200 points").contains("strips agree within 6.2 cm");
        assertThat(visitor.upload(
                                "/blocks/" + block + "/take/laser",
                                "compressed.laz",
                                Reference.bytes("las/compressed.laz"))
                        .body())
                .contains("LAZ");
        String gpx = "<gpx version=\"1.1\" creator=\"x\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><trkseg>"
                + "<trkpt lat=\"54.5134\" lon=\"-4.3489\"><ele>80</ele><time>2026-06-18T08:00:00Z</time></trkpt>"
                + "<trkpt lat=\"54.5135\" lon=\"-4.3489\"><ele>80</ele><time>2026-06-18T08:00:02Z</time></trkpt>"
                + "</trkseg></trk></gpx>";
        visitor.upload("/blocks/" + block + "/take/log", "flight.gpx", gpx.getBytes(StandardCharsets.UTF_8));
        assertThat(page(block)).contains("2 moments, positions of 0 photos");
    }

    @Test
    void aSecondCopyIsHeldAgainstTheManifest(@TempDir Path copy) throws IOException {
        long block = block("Take copied");
        int photos = flown(block);
        read(block);
        String manifest =
                visitor.get("/blocks/" + block + "/take/manifest.sha256").body();
        assertThat(manifest.lines()).hasSize(photos).allMatch(line -> line.matches("[0-9a-f]{64}  SIM1_\\d{4}\\.JPG"));
        for (int i = 1; i <= photos; i++) {
            String name = "SIM1_%04d.JPG".formatted(i);
            if (i != 3) {
                Files.copy(folder.resolve(name), copy.resolve(name));
            }
        }
        byte[] changed = Files.readAllBytes(copy.resolve("SIM1_0005.JPG"));
        changed[changed.length / 2] ^= 1;
        Files.write(copy.resolve("SIM1_0005.JPG"), changed);
        visitor.post("/blocks/" + block + "/take/copy", "folder", copy.toString());
        RunningYalos.bean(TakeCopy.class).settle(block);
        assertThat(page(block)).contains("1 missing, 1 not the same").contains("SIM1_0003.JPG missing");
        visitor.upload(
                "/blocks/" + block + "/take/copy-list", "copy.sha256", manifest.getBytes(StandardCharsets.UTF_8));
        assertThat(page(block)).contains("%d files are the same".formatted(photos));
    }

    @Test
    void aFolderThatIsNotThereOrHasNoPhotosIsTold() {
        long block = block("Take of nothing");
        assertThat(visitor.post("/blocks/" + block + "/take/folder", "folder", "/no/such/card")
                        .body())
                .contains("There is no folder");
        assertThat(visitor.post("/blocks/" + block + "/take/folder", "folder", "card")
                        .body())
                .contains("whole path");
        visitor.post("/blocks/" + block + "/take/folder", "folder", folder.toString());
        String told = visitor.get("/blocks/" + block + "/take/progress").body();
        while (told.contains("data-running=\"true\"")) {
            LockSupport.parkNanos(20_000_000);
            told = visitor.get("/blocks/" + block + "/take/progress").body();
        }
        assertThat(told).contains("No JPEG or TIFF file lies in");
    }
}

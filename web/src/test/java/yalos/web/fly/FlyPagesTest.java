package yalos.web.fly;

import static org.assertj.core.api.Assertions.assertThat;

import com.drew.imaging.jpeg.JpegMetadataReader;
import com.drew.imaging.jpeg.JpegProcessingException;
import com.drew.lang.GeoLocation;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Fly stage over HTTP: begun, streamed, steered by two, survived, talked about, and its files read by others. */
@ExtendWith(RunningYalos.class)
class FlyPagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3469\n54.5146 -4.3469\n54.5146 -4.3489";
    private static final String LAUNCH = "54.5133, -4.3489";
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, LAUNCH);
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private String path(long block) {
        Matcher run = Pattern.compile("data-run=\"(\\d+)\"")
                .matcher(visitor.get("/blocks/" + block + "/fly").body());
        assertThat(run.find()).isTrue();
        return "/blocks/" + block + "/fly/" + run.group(1);
    }

    private String begun(long block, String... more) {
        String[] form = new String[2 + more.length];
        form[0] = "sortie";
        form[1] = "1";
        System.arraycopy(more, 0, form, 2, more.length);
        visitor.post("/blocks/" + block + "/fly/begin", form);
        return path(block);
    }

    private JsonNode now(String run) {
        return JSON.readTree(visitor.get(run + "/now.json").body());
    }

    private HttpResponse<String> press(String run, String kind, String... more) {
        String[] form = new String[2 + more.length];
        form[0] = "kind";
        form[1] = kind;
        System.arraycopy(more, 0, form, 2, more.length);
        return visitor.post(run + "/press", form);
    }

    /** Flies at full speed until nothing moves any more. */
    private JsonNode flown(String run) {
        visitor.post(run + "/speed", "speed", "60");
        JsonNode now = now(run);
        while (!now.get("over").asBoolean()) {
            LockSupport.parkNanos(50_000_000);
            now = now(run);
        }
        return now;
    }

    @Test
    void aRehearsalIsBegunSteeredAndTalkedAbout() {
        long block = block("Fly steered");
        assertThat(visitor.get("/blocks/" + block + "/fly").body())
                .contains("Begin a rehearsal")
                .contains("the shutter sticks");
        assertThat(visitor.post("/blocks/" + block + "/fly/begin", "sortie", "9")
                        .body())
                .contains("There are ");
        assertThat(visitor.post("/blocks/" + block + "/fly/begin", "sortie", "1", "seed", "luck")
                        .body())
                .contains("no whole number");
        String run = begun(block, "seed", "7");
        assertThat(now(run).get("phase").asString()).isEqualTo("READY");
        assertThat(press(run, "RETURN").body()).contains("cannot be pressed while it is on the ground, ready");
        assertThat(press(run, "EXPLODE").statusCode()).isEqualTo(400);
        assertThat(press(run, "START", "person", "A. Pilot").statusCode()).isEqualTo(204);
        assertThat(visitor.post(run + "/speed", "speed", "7").body()).contains("1, 5, 20 or 60 times");
        JsonNode over = flown(run);
        assertThat(over.get("headline").asString()).isEqualTo("Landed, all photos taken");
        assertThat(over.get("events").toString()).contains("take off").contains("A. Pilot");
        visitor.post(run + "/end");
        assertThat(visitor.get(run + "/debrief").body())
                .contains("photos taken")
                .contains("Nothing went wrong");
        assertThat(visitor.get("/blocks/" + block + "/fly").body())
                .contains("rehearsed")
                .contains("What came of it");
        // What was ended flies no more.
        assertThat(now(run).get("able").size()).isZero();
        assertThat(press(run, "RESUME_AT", "first", "1").body()).contains("was ended");
        assertThat(visitor.post(run + "/speed", "speed", "5").body()).contains("was ended");
        assertThat(visitor.get(run + "/charts").body()).contains("Battery over time");
        assertThat(visitor.get("/blocks/" + block + "/fly/999999/now.json").statusCode())
                .isEqualTo(404);
    }

    @Test
    void twoTabletsSteerTheSameFlightAndBothSeeIt() {
        long block = block("Fly by two");
        String run = begun(block, "seed", "3");
        press(run, "START", "person", "A");
        visitor.post(run + "/speed", "speed", "60");
        while (now(run).get("photos") == null && now(run).get("tick").asLong() < 200) {
            LockSupport.parkNanos(20_000_000);
        }
        visitor.post(run + "/speed", "speed", "0");
        assertThat(press(run, "PAUSE", "person", "B", "note", "a rider on the path")
                        .statusCode())
                .isEqualTo(204);
        assertThat(press(run, "PAUSE", "person", "A").body()).contains("while it is hanging");
        assertThat(now(run).get("events").toString())
                .contains("a rider on the path")
                .contains("\"B\"");
        assertThat(press(run, "RESUME_AT", "first", "99999").body()).contains("has the stations 1 to");
        assertThat(press(run, "RESUME_AT", "first", "2").statusCode()).isEqualTo(204);
        assertThat(flown(run).get("headline").asString()).contains("all photos taken");
    }

    @Test
    void aRunSurvivesARestartToTheStep() {
        long block = block("Fly again");
        String run = begun(block, "seed", "11", "chance", "true");
        press(run, "START");
        visitor.post(run + "/speed", "speed", "60");
        while (now(run).get("tick").asLong() < 400) {
            LockSupport.parkNanos(20_000_000);
        }
        visitor.post(run + "/speed", "speed", "0");
        if (now(run).get("able").toString().contains("PAUSE")) {
            press(run, "PAUSE", "person", "A");
        }
        String before = visitor.get(run + "/now.json").body();
        String log = visitor.get(run + "/log.csv").body();
        RunningYalos.bean(FlyDesk.class).forget();
        assertThat(visitor.get(run + "/now.json").body()).isEqualTo(before);
        assertThat(visitor.get(run + "/log.csv").body()).isEqualTo(log);
    }

    @Test
    void whoJoinsInHearsAllAndThenMoments() throws IOException, InterruptedException {
        long block = block("Fly heard");
        String run = begun(block);
        press(run, "START");
        visitor.post(run + "/speed", "speed", "20");
        HttpResponse<InputStream> stream = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(RunningYalos.url() + run + "/stream"))
                                .build(),
                        HttpResponse.BodyHandlers.ofInputStream());
        assertThat(stream.headers().firstValue("Content-Type").orElse("")).startsWith("text/event-stream");
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(stream.body(), StandardCharsets.UTF_8))) {
            long tick = -1;
            int heard = 0;
            int samples = 0;
            while (heard < 6) {
                String line = lines.readLine();
                if (line.startsWith("data:")) {
                    JsonNode now = JSON.readTree(line.substring(5));
                    assertThat(now.get("tick").asLong()).isGreaterThanOrEqualTo(tick);
                    tick = now.get("tick").asLong();
                    samples += now.get("trail").size() / 2;
                    assertThat(now.get("samples").asInt()).isEqualTo(samples);
                    heard++;
                }
            }
        }
    }

    @Test
    void whatIsMissingBecomesAPlan() {
        long block = block("Fly missing");
        String run = begun(block, "seed", "5", "faults", "stuck-shutter");
        press(run, "START");
        flown(run);
        String debrief = visitor.get(run + "/debrief").body();
        assertThat(debrief)
                .contains("photos missing")
                .contains("Nothing was done about it")
                .contains("switch the camera off and on")
                .contains("not written")
                .contains("To fly again");
        JsonNode again = JSON.readTree(visitor.get(run + "/again.geojson").body());
        assertThat(again.get("summary").get("stations").asInt()).isPositive();
        assertThat(visitor.get(run + "/again.gpx").body()).contains("<gpx");
        assertThat(visitor.get(run + "/again.exe").statusCode()).isEqualTo(404);
        JsonNode log = JSON.readTree(visitor.get(run + "/log.geojson").body());
        assertThat(log.get("features").toString())
                .contains("no photo is counted any more")
                .contains("not written");
        assertThat(visitor.get(run + "/log.csv").body().lines().skip(1).count()).isGreaterThan(30);
    }

    @Test
    void photosCarryWhatTheExifStandardAsksFor(@TempDir Path folder) throws IOException, InterruptedException {
        long block = block("Fly photos");
        String run = begun(block, "seed", "5");
        press(run, "TEST");
        press(run, "START");
        flown(run);
        byte[] zip = visitor.bytes(run + "/photos.zip");
        Map<String, byte[]> files = new TreeMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), in.readAllBytes());
            }
        }
        int photos = (int)
                files.keySet().stream().filter(name -> name.endsWith(".JPG")).count();
        String log = visitor.get(run + "/log.csv").body();
        String last = log.lines().reduce((a, b) -> b).orElseThrow();
        assertThat(photos).isEqualTo(Integer.parseInt(last.split(",")[15]));
        byte[] second = files.get("SIM1_0002.JPG");
        Metadata exif = read(second);
        ExifSubIFDDirectory camera = exif.getFirstDirectoryOfType(ExifSubIFDDirectory.class);
        assertThat(camera.getString(ExifSubIFDDirectory.TAG_SUBSECOND_TIME_ORIGINAL))
                .matches("\\d{3}");
        assertThat(camera.getString(ExifSubIFDDirectory.TAG_TIME_ZONE_ORIGINAL)).matches("[+-]\\d\\d:\\d\\d");
        assertThat(camera.getRational(0x9405).doubleValue()).isCloseTo(-90, Offset.offset(0.01));
        GpsDirectory gps = exif.getFirstDirectoryOfType(GpsDirectory.class);
        assertThat(gps.getGeoLocation().getLatitude()).isCloseTo(54.5135, Offset.offset(0.001));
        assertThat(gps.getGeoLocation().getLongitude()).isCloseTo(-4.348, Offset.offset(0.002));
        assertThat(gps.getString(GpsDirectory.TAG_IMG_DIRECTION_REF)).isEqualTo("T");
        assertThat(gps.getInteger(GpsDirectory.TAG_DIFFERENTIAL)).isEqualTo(1);
        assertThat(gps.getRational(GpsDirectory.TAG_H_POSITIONING_ERROR).doubleValue())
                .isBetween(0.005, 0.1);
        // Positions and times of the files are those of the log, in their order.
        JsonNode features =
                JSON.readTree(visitor.get(run + "/log.geojson").body()).get("features");
        List<JsonNode> shots = new ArrayList<>();
        features.forEach(one -> {
            if (one.get("properties").get("kind").asString().equals("photo")) {
                shots.add(one);
            }
        });
        Date before = null;
        for (int i = 1; i <= photos; i++) {
            Metadata one = read(files.get("SIM1_%04d.JPG".formatted(i)));
            GeoLocation at = one.getFirstDirectoryOfType(GpsDirectory.class).getGeoLocation();
            JsonNode place = shots.get(i - 1).get("geometry").get("coordinates");
            assertThat(at.getLongitude()).isCloseTo(place.get(0).asDouble(), Offset.offset(2e-8));
            assertThat(at.getLatitude()).isCloseTo(place.get(1).asDouble(), Offset.offset(2e-8));
            Date taken = one.getFirstDirectoryOfType(ExifSubIFDDirectory.class).getDateOriginal();
            assertThat(before == null || before.before(taken)).isTrue();
            before = taken;
        }
        Path file = folder.resolve("photo.jpg");
        Files.write(file, second);
        Optional<String> read = exiftool(file);
        read.ifPresent(told -> assertThat(told)
                .contains("Offset Time Original")
                .contains("Camera Elevation Angle")
                .contains("GPS Horizontal Positioning Error")
                .contains("GPS Img Direction Ref")
                .doesNotContain("Warning"));
    }

    private static Metadata read(byte[] jpeg) throws IOException {
        try {
            return JpegMetadataReader.readMetadata(new ByteArrayInputStream(jpeg));
        } catch (JpegProcessingException broken) {
            throw new IOException(broken);
        }
    }

    /** What an independent reader says, where there is one. */
    private static Optional<String> exiftool(Path file) throws InterruptedException {
        try {
            Process process = new ProcessBuilder("exiftool", "-a", "-G1", file.toString())
                    .redirectErrorStream(true)
                    .start();
            String told = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            process.waitFor();
            return Optional.of(told);
        } catch (IOException notThere) {
            return Optional.empty();
        }
    }
}

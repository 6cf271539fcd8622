package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import yalos.core.Reference;
import yalos.web.keep.ArchiveFiles;

/**
 * Good samples spoilt in a thousand ways, the same ways each time: every reader answers with a sentence or a page, never with a fault of
 * ours, and nothing it took in breaks a page. Longer with {@code -Dyalos.fuzz=2000}.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class FuzzTest {
    private static final int ROUNDS = Integer.getInteger("yalos.fuzz", 24);
    private static final String[] CROOKED = {
        "-1",
        "9223372036854775807",
        "-9223372036854775808",
        "1e999",
        "NaN",
        "null",
        "\u0000",
        "\ud800",
        "<!DOCTYPE x [",
        "99999999999999999999999999",
        "[",
        "{",
        "]",
        "}",
        "\"",
        "\\u0000",
        "\\ud800",
        "1e-400",
        "0",
        "-0.0",
        "true",
        "<",
        "&#0;",
        "&#xD800;",
        "\u202e",
        "'",
        "%s%n%d",
        "../../x",
        "\n\n",
        "1/0",
        "0x10",
        "١٢",
        "½",
    };

    private final ListAppender<ILoggingEvent> log = new ListAppender<>();
    private ConfigurableApplicationContext application;
    private Visitor visitor;
    private long block;

    @BeforeAll
    void start() {
        application = RunningYalos.application(RunningYalos.newFolder(), 0);
        visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
        block = visitor.newBlock("Fuzz", "47.5115, 9.8680");
        visitor.change(block, "ground", "/import", "text", "565250 5262250\n565500 5262250\n565400 5262500");
        log.start();
        root().addAppender(log);
    }

    @AfterAll
    void stop() {
        root().detachAppender(log);
        application.close();
    }

    private static Logger root() {
        return (Logger) LoggerFactory.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
    }

    private static byte[] spoilt(byte[] sample, Random random) {
        byte[] bytes = sample.clone();
        int times = 1 + random.nextInt(3);
        for (int i = 0; i < times && bytes.length > 0; i++) {
            int at = random.nextInt(bytes.length);
            int length = Math.min(bytes.length - at, 1 + random.nextInt(1 << random.nextInt(8)));
            bytes = switch (random.nextInt(6)) {
                case 0 -> joined(bytes, at, new byte[] {(byte) random.nextInt(256)}, at + 1);
                case 1 -> joined(bytes, at, new byte[0], at + length);
                case 2 -> joined(bytes, at, Arrays.copyOfRange(bytes, at, at + length), at);
                case 3 -> joined(bytes, at, crooked(random), at);
                case 4 -> figure(bytes, at, random);
                default -> joined(bytes, at, new byte[0], bytes.length);
            };
        }
        return bytes;
    }

    private static byte[] crooked(Random random) {
        return CROOKED[random.nextInt(CROOKED.length)].getBytes(StandardCharsets.UTF_8);
    }

    /** The next figure becomes a crooked one. */
    private static byte[] figure(byte[] bytes, int from, Random random) {
        int at = from;
        while (at < bytes.length && !Character.isDigit(bytes[at])) {
            at++;
        }
        int to = at;
        while (to < bytes.length && "0123456789.-e".indexOf(bytes[to]) >= 0) {
            to++;
        }
        return joined(bytes, at, crooked(random), to);
    }

    private static byte[] joined(byte[] bytes, int head, byte[] middle, int tail) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        all.write(bytes, 0, head);
        all.writeBytes(middle);
        all.write(bytes, Math.min(bytes.length, tail), Math.max(0, bytes.length - tail));
        return all.toByteArray();
    }

    private void holds(HttpResponse<String> answer, String what, byte[] sent) {
        assertThat(answer.statusCode())
                .as("%s: %s%n%s", what, shown(sent), answer.body())
                .isBetween(200, 499);
    }

    private static String shown(byte[] sent) {
        String text = new String(sent, StandardCharsets.ISO_8859_1).replaceAll("[^\\x20-\\x7e]", ".");
        return text.substring(0, Math.min(600, text.length()));
    }

    private void pagesStand() {
        for (String page : List.of(
                "/jobs",
                "/catalogue",
                "/cameras",
                "/blocks/" + block + "/ground",
                "/blocks/" + block + "/strips",
                "/blocks/" + block + "/kit",
                "/blocks/" + block + "/brief",
                "/blocks/" + block + "/history",
                "/blocks/" + block + "/compare",
                "/blocks/" + block + "/sheet.json",
                "/blocks/" + block + "/plan.kml",
                "/blocks/" + block + "/plan.gpx",
                "/blocks/" + block + "/plan.geojson")) {
            HttpResponse<String> answer = visitor.get(page);
            assertThat(answer.statusCode()).as("%s: %s", page, answer.body()).isIn(200, 404);
        }
        assertThat(log.list.stream()
                        .filter(event -> event.getLevel().isGreaterOrEqual(Level.ERROR))
                        .map(event -> event.getFormattedMessage() + " "
                                + (event.getThrowableProxy() == null
                                        ? ""
                                        : event.getThrowableProxy().getMessage()))
                        .toList())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "import, vector/multipolygon.geojson",
        "import, vector/polygon_hole.geojson",
        "import, vector/multipolygon.kml",
        "import, vector/polygon_hole.kmz",
        "import, vector/track_outer_ring.gpx",
        "import, vector/polygon_hole_utm.gpkg",
        "import, vector/multipolygon_utm_shp.zip",
        "zones, vector/multipolygon.kml",
        "zones, vector/polygon_hole.geojson",
        "models, raster/tiled_deflate_predictor3_float32.tif",
        "models, raster/bigtiff_float32.tif",
        "models, raster/lzw_predictor2_int16.tif",
        "models, raster/packbits_uint16.tif",
        "models, coverage_dem.asc",
        "picture, raster/strips_float32.tif",
    })
    void filesOfABlock(String path, String file) {
        byte[] whole = Reference.bytes(file);
        byte[] sample = whole.length > 200_000 ? Arrays.copyOf(whole, 200_000) : whole;
        Random random = new Random(file.hashCode());
        for (int i = 0; i < ROUNDS; i++) {
            byte[] spoilt = spoilt(sample, random);
            String name =
                    i % 7 == 0 ? new String(crooked(random), StandardCharsets.UTF_8).replaceAll("[\r\n\"]", "") : file;
            HttpResponse<String> answer = visitor.upload(
                    "/blocks/" + block + "/" + path,
                    name,
                    spoilt,
                    "version",
                    visitor.version(block),
                    "stage",
                    "ground",
                    "epsg",
                    i % 2 == 0 ? "32632" : "");
            holds(answer, path + " " + file + " " + i, spoilt);
        }
        pagesStand();
    }

    @Test
    void obstacles() {
        byte[] sample = """
                {"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"mast","heightM":30,"radius":2},
                "geometry":{"type":"Point","coordinates":[9.869,47.5125]}},{"type":"Feature","properties":{"height":12.5},
                "geometry":{"type":"Polygon","coordinates":[[[9.869,47.5125],[9.8692,47.5125],[9.8692,47.5127],[9.869,47.5125]]]}}]}""".getBytes(StandardCharsets.UTF_8);
        Random random = new Random(5);
        for (int i = 0; i < 2 * ROUNDS; i++) {
            byte[] spoilt = spoilt(sample, random);
            holds(
                    visitor.upload(
                            "/blocks/" + block + "/obstacles/file",
                            "o.geojson",
                            spoilt,
                            "version",
                            visitor.version(block),
                            "stage",
                            "ground"),
                    "obstacles " + i,
                    spoilt);
        }
        pagesStand();
    }

    @Test
    void theCatalogue() {
        byte[] sample = visitor.get("/catalogue.json").body().getBytes(StandardCharsets.UTF_8);
        Random random = new Random(7);
        for (int i = 0; i < 4 * ROUNDS; i++) {
            byte[] spoilt = spoilt(sample, random);
            holds(visitor.upload("/catalogue/import", "c.json", spoilt), "catalogue " + i, spoilt);
        }
        pagesStand();
    }

    /** Every table of a job spoilt, with a sum that fits, so that it is read to where it is wrong. */
    @Test
    void jobsAsFiles() throws IOException {
        visitor.post(
                "/blocks/" + block + "/log/flights",
                "start",
                "2026-05-14 10:42",
                "minutes",
                "8",
                "aircraft",
                "small multirotor",
                "crew",
                "A. Pilot",
                "packs",
                "T1 90 40",
                "counted",
                "true");
        long job = Long.parseLong(
                visitor.get("/blocks/" + block + "/log").body().replaceAll("(?s).*/jobs/(\\d+)/archive.*", "$1"));
        Map<String, byte[]> whole = ArchiveFiles.entries(visitor.bytes("/jobs/" + job + "/archive.zip"));
        List<String> tables = whole.keySet().stream()
                .filter(name -> name.startsWith("tables/") && whole.get(name).length > 200)
                .sorted()
                .toList();
        Random random = new Random(17);
        for (int i = 0; i < 4 * ROUNDS; i++) {
            Map<String, byte[]> entries = new LinkedHashMap<>(whole);
            String name = tables.get(random.nextInt(tables.size()));
            byte[] spoilt = spoilt(whole.get(name), random);
            entries.put(name, spoilt);
            holds(visitor.upload("/jobs/archive", "j.zip", ArchiveFiles.mended(entries, name)), name + " " + i, spoilt);
        }
        for (int i = 0; i < ROUNDS; i++) {
            byte[] spoilt = spoilt(ArchiveFiles.zip(whole), random);
            holds(visitor.upload("/jobs/archive", "j.zip", spoilt), "archive " + i, spoilt);
        }
        pagesStand();
    }

    @Test
    void thePlanService() {
        byte[] sample = """
                {"type":"FeatureCollection","features":[{"type":"Feature","properties":{"role":"block"},"geometry":
                {"type":"Polygon","coordinates":[[[-4.35,54.512],[-4.347,54.512],[-4.347,54.514],[-4.35,54.514],[-4.35,54.512]]]}},
                {"type":"Feature","properties":{"role":"launch"},"geometry":{"type":"Point","coordinates":[-4.35,54.5119]}}],
                "plan":{"camera":{"pixelsAcross":5472,"pixelsAlong":3648,"sensorAcrossMm":13.2,"sensorAlongMm":8.8,
                "focalLengthMm":8.8,"minIntervalS":0.7},"gsdCm":2.5,"forwardOverlap":0.8,"sideOverlap":0.7,"directionDeg":12,
                "speedMps":8,"marginM":10}}""".getBytes(StandardCharsets.UTF_8);
        Random random = new Random(11);
        for (int i = 0; i < 4 * ROUNDS; i++) {
            byte[] spoilt = spoilt(sample, random);
            HttpResponse<String> answer = visitor.script("/api/plan", new String(spoilt, StandardCharsets.UTF_8));
            holds(answer, "plan " + i, spoilt);
        }
        pagesStand();
    }

    @Test
    void everyFormWithCrookedValues() {
        String at = "/blocks/" + block;
        List<String[]> forms = new ArrayList<>(List.of(
                new String[] {at + "/ledger/gsd", "value"},
                new String[] {at + "/ledger/flight-time", "value"},
                new String[] {at + "/ledger/heights-to", "value"},
                new String[] {at + "/ledger/nothing", "value"},
                new String[] {at + "/ledger/gsd", "act"},
                new String[] {at + "/ledger/direction", "value"},
                new String[] {at + "/pins", "forward-overlap", "side-overlap", "shutter-time"},
                new String[] {at + "/obstacles", "places", "name", "height"},
                new String[] {at + "/obstacles/remove", "at"},
                new String[] {at + "/zones/remove", "at"},
                new String[] {at + "/heights/clearance", "value"},
                new String[] {at + "/heights/plane", "value"},
                new String[] {at + "/heights/model-sigma", "value"},
                new String[] {at + "/heights/span", "value"},
                new String[] {at + "/corner/move", "at", "lon", "lat"},
                new String[] {at + "/corner/insert", "at", "lon", "lat"},
                new String[] {at + "/corner/remove", "at"},
                new String[] {at + "/corner/type", "at", "position"},
                new String[] {at + "/outline/draw", "corners"},
                new String[] {at + "/launch", "position", "lon", "lat"},
                new String[] {at + "/grid", "epsg"},
                new String[] {at + "/import", "text"},
                new String[] {at + "/import/choose", "token", "choice"},
                new String[] {at + "/brief", "decision", "smallest", "vertical"},
                new String[] {at + "/brief/gsd/overrule", "reason"},
                new String[] {at + "/camera", "camera"},
                new String[] {at + "/kit", "kit"},
                new String[] {at + "/aircraft", "name", "maxSpeed", "climb"},
                new String[] {at + "/revisions", "note"},
                new String[] {at + "/template", "name"},
                new String[] {at + "/models/1/datum", "zero", "unit", "offset"},
                new String[] {"/jobs", "name", "place"},
                new String[] {"/units", "back", "HEIGHT"},
                new String[] {"/look", "look", "back"},
                new String[] {"/cameras/0", "name", "pixelsWide", "focalLength"},
                new String[] {"/catalogue/aircraft/0", "name", "maxSpeed"},
                new String[] {"/catalogue/kit/0", "name"},
                new String[] {"/tokens", "name"},
                new String[] {
                    at + "/log/flights", "start", "minutes", "aircraft", "crew", "packs", "happenings", "wind", "from"
                },
                new String[] {at + "/log/series", "first", "every", "ahead"},
                new String[] {at + "/log/repeat", "of", "name", "day"},
                new String[] {"/log/service", "thing", "what", "hours", "days", "done"},
                new String[] {at + "/history/1", "version"}));
        Random random = new Random(13);
        for (String[] form : forms) {
            for (int i = 0; i < Math.max(3, ROUNDS / 10); i++) {
                List<String> fields = new ArrayList<>(List.of("stage", "ground"));
                if (!form[0].contains("/history/")) {
                    fields.addAll(List.of("version", visitor.version(block)));
                }
                for (int f = 1; f < form.length; f++) {
                    fields.addAll(List.of(form[f], new String(crooked(random), StandardCharsets.UTF_8)));
                }
                HttpResponse<String> answer = visitor.htmx(form[0], fields.toArray(String[]::new));
                holds(answer, form[0], String.join(" ", fields).getBytes(StandardCharsets.UTF_8));
            }
        }
        for (String path : List.of(
                "/units?back=%0d%0aX",
                "/units?back=%5c%5cevil",
                "/units?back=//evil",
                at + "/section.json?strip=-2",
                at + "/proof/none.png",
                at + "/proof/probe?x=NaN&y=1e999",
                at + "/models/-2/use",
                "/catalogue/kit/9223372036854775807",
                "/blocks/99999999999999999999/strips",
                at + "/mends?key=%00&version=1",
                "/jobs/-1",
                at + "/plan.exe",
                at + "/revisions/-2",
                "/log?from=%00&place=x&page=-3",
                "/log.csv?km=NaN&place=1,%201",
                "/log.geojson?place=91,%20500",
                "/log/flights/-1",
                at + "/log/repeat?of=flight:99999999999999999999",
                at + "/log/new?source=take:x",
                at + "/season?strip=maybe",
                "/home/lacks/-1",
                "/jobs/-1/archive.zip",
                "/jobs/-1/report.pdf",
                "/%ff%fe")) {
            HttpResponse<String> answer = visitor.get(path);
            holds(answer, path, new byte[0]);
        }
        pagesStand();
    }
}

package yalos.web.ground;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.Georeference;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Terrain, obstacles, zones and the proof over HTTP. The block lies on the reference ground near 47.51° N, 9.87° E. */
@ExtendWith(RunningYalos.class)
class GroundAndProofTest {
    private static final String CORNERS = "565250 5262250\n565500 5262250\n565500 5262550\n565250 5262550";
    private static final Pattern GROUND_KEY = Pattern.compile("\"ground\":\\{[^}]*\"key\":\"([^\"]+)\"");
    private static int made;

    @TempDir
    Path folder;

    private Visitor visitor;
    private long block;

    @BeforeEach
    void openABlock() {
        visitor = new Visitor(RunningYalos.url());
        block = visitor.newBlock("Ground " + ++made, "47.5115, 9.8680");
        assertThat(change("/import", "text", CORNERS)).contains("round it");
    }

    private String change(String path, String... form) {
        return visitor.change(block, "ground", path, form);
    }

    private String bring(byte[] model, String name, String... form) {
        return visitor.bring(block, "ground", "/models", name, model, form);
    }

    private String page(String stage) {
        return visitor.get("/blocks/" + block + "/" + stage).body();
    }

    private byte[] bytes(String path) {
        try {
            HttpResponse<byte[]> answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(RunningYalos.url() + "/blocks/" + block + path))
                                    .build(),
                            HttpResponse.BodyHandlers.ofByteArray());
            assertThat(answer.statusCode()).as(path).isEqualTo(200);
            return answer.body();
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Asks as long as the page itself would ask again, however long this machine takes. */
    private void awaitProof() {
        String state = visitor.get("/blocks/" + block + "/proof/state").body();
        while (state.contains("hx-trigger=\"every")) {
            state = visitor.get("/blocks/" + block + "/proof/state").body();
        }
        assertThat(state).as("the proof ended well").contains("data-done=\"true\"");
    }

    private String groundKey() {
        Matcher found = GROUND_KEY.matcher(
                visitor.get("/blocks/" + block + "/sheet.json").body());
        assertThat(found.find()).isTrue();
        return found.group(1);
    }

    /** A browser keeps what the ground looks like, and never shows it for another ground. */
    @ParameterizedTest
    @ValueSource(strings = {"relief.png", "contours.json"})
    void whatTheGroundLooksLikeIsKeptUnderItsNameAlone(String drawn) {
        bring(Reference.bytes("coverage_dem_utm.tif"), "coverage_dem_utm.tif", "epsg", "");
        String key = groundKey();
        String path = "/blocks/" + block + "/" + drawn;
        assertThat(kept(path + "?of=" + key)).contains("max-age", "private", "immutable");
        assertThat(kept(path)).as("without a name").isEqualTo("no-store");
        visitor.post("/units", "HEIGHT", "FOOT", "back", "/");
        assertThat(groundKey()).as("heights are written in feet").isNotEqualTo(key);
        assertThat(kept(path + "?of=" + key)).as("a name of before").isEqualTo("no-store");
        visitor.post("/units", "HEIGHT", "METRE", "back", "/");
        assertThat(groundKey()).as("the same as before").isEqualTo(key);
    }

    private String kept(String path) {
        return visitor.get(path).headers().firstValue("Cache-Control").orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"coverage_dem_utm.tif, ''", "coverage_dem.asc, 32632", "coverage_dem_wgs84.tif, ''"})
    void aModelInAnyFormLiesUnderThePlanAndIsFollowed(String file, String epsg) {
        String page = bring(Reference.bytes(file), file, "epsg", epsg);
        assertThat(page).contains(file).contains("least clearance").contains("above ground, followed");
        assertThat(page).doesNotContain("class=\"fault\"");
        String sheet = visitor.get("/blocks/" + block + "/sheet.json").body();
        assertThat(sheet).contains("\"stationHeights\":[5").contains("2.0 m model");
        String metres = visitor.get("/blocks/" + block + "/contours.json").body();
        assertThat(metres).contains("\"index\":true");
        visitor.post("/units", "HEIGHT", "FOOT", "back", "/");
        assertThat(visitor.get("/blocks/" + block + "/contours.json").body())
                .as("lines of round feet")
                .isNotEqualTo(metres);
        visitor.post("/units", "HEIGHT", "METRE", "back", "/");
        assertThat(visitor.get("/blocks/" + block + "/contours.json").body()).isEqualTo(metres);
        assertThat(visitor.get("/blocks/" + block + "/section.json?strip=1").body())
                .contains("least clearance");
        assertThat(visitor.get("/blocks/" + block + "/section.json?strip=0").body())
                .contains("whole path");
        assertThat(visitor.get("/blocks/" + block + "/section.json?strip=999").statusCode())
                .isEqualTo(404);
    }

    /** A model of an earlier job at this place is offered, and copied: it stays when that job goes. */
    @Test
    void aModelOfAnEarlierJobIsTakenOver() {
        String page = bring(Reference.bytes("coverage_dem_utm.tif"), "first-season.tif");
        assertThat(page).contains("cells of 2.0 m");
        long first = block;
        block = visitor.newBlock("Ground again " + ++made, "47.5115, 9.8680");
        assertThat(change("/import", "text", CORNERS)).contains("round it");
        Matcher offered = Pattern.compile("/models/(\\d+)/borrow").matcher(page("ground"));
        assertThat(offered.find()).as("offered").isTrue();
        String taken = change("/models/" + offered.group(1) + "/borrow");
        assertThat(taken).contains("first-season.tif", "above ground, followed").doesNotContain("class=\"fault\"");
        long again = block;
        block = first;
        change("/heights/model-sigma", "value", "1.5");
        assertThat(page("ground")).contains("kept are 23.0 m, 3.0 m of it for the model");
        assertThat(visitor.get("/blocks/" + again + "/ground").body()).doesNotContain("kept are 23.0 m");
        block = visitor.newBlock("Ground elsewhere " + ++made, "48.5115, 9.8680");
        change("/import", "text", "48.5115 9.8680\n48.5115 9.8690\n48.5125 9.8690");
        assertThat(page("ground")).doesNotContain("/borrow");
        assertThat(change("/models/999999/borrow")).contains("is there no more");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "raster/broken_truncated.tif | | damaged",
                "raster/broken_no_georeference.tif | | does not say where it lies",
                "raster/broken_huge.tif | | million",
                "raster/broken_sparse_huge.tif | | million",
                "raster/broken_not_a_tiff.tif | | not a TIFF",
                "coverage_dem.asc | | does not name its coordinate system",
                "coverage_dem_wgs84.tif | 32632 | degrees, not metres",
                "coverage_dem_utm.tif | 4326 | no longitude and latitude",
                "coverage_dem_utm.tif | 99 | no EPSG code",
                "vector/polygon_hole.geojson | | not a TIFF",
            })
    void aModelThatCannotBeUsedIsRefusedWithTheReasonAndNothingChanges(String file, String epsg, String message) {
        String before = visitor.version(block);
        String answer = bring(Reference.bytes(file), file, "epsg", epsg == null ? "" : epsg);
        assertThat(answer).contains("class=\"notice\"").contains(message);
        assertThat(visitor.version(block)).isEqualTo(before);
    }

    @Test
    void aModelElsewhereOrWithAHoleStopsThePlanInsteadOfGuessing() throws IOException {
        ByteArrayOutputStream holed = new ByteArrayOutputStream();
        GeoTiffWriter.write(
                holed, 400, 400, Georeference.northUp(565000, 5262800, 2, 2), OptionalInt.of(32632), row -> {
                    float[] line = new float[400];
                    Arrays.fill(line, 500);
                    if (row > 180 && row < 190) {
                        Arrays.fill(line, 180, 190, Float.NaN);
                    }
                    return line;
                });
        assertThat(bring(holed.toByteArray(), "holed.tif")).contains("stand on ground that no model knows");
        String stations = visitor.get("/blocks/" + block + "/export/plan.csv").body();
        assertThat(stations.lines().skip(1)).allSatisfy(line -> assertThat(line).contains("left out of the plan"));
        assertThat(visitor.get("/blocks/" + block + "/export/plan.kml").body()).contains("STOP: ");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.gpx").body()).contains("STOP: ");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.geojson").body())
                .contains("\"stops\":[\"");
        assertThat(visitor.get("/blocks/" + block + "/print").body()).contains("Not to be flown as it is");
        assertThat(change("/heights/span", "value", "25 m")).contains("1 hole").contains("by your consent");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.kml").body()).doesNotContain("no model knows");
        change("/undo");
        change("/undo");
        ByteArrayOutputStream elsewhere = new ByteArrayOutputStream();
        GeoTiffWriter.write(
                elsewhere,
                50,
                50,
                Georeference.northUp(700000, 5262800, 2, 2),
                OptionalInt.of(32632),
                row -> new float[50]);
        String before = visitor.version(block);
        assertThat(bring(elsewhere.toByteArray(), "elsewhere.tif"))
                .contains("covers nothing of the block")
                .contains("km from the block");
        assertThat(visitor.version(block)).as("nothing was kept").isEqualTo(before);
        assertThat(bring(elsewhere.toByteArray(), "elsewhere.tif", "sure", "true"))
                .contains("no height is planned");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.csv")
                        .body()
                        .lines()
                        .skip(1))
                .allSatisfy(line -> assertThat(line).contains(",32632,,,,,"));
    }

    @Test
    void aWrongHeightSystemIsFoundByTheTakeOffLevel() {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif", "zero", "ELLIPSOID");
        String page = change("/heights/take-off-level", "value", "500 m");
        assertThat(page).contains("The take-off point was measured at 500.0 m");
        String model = modelOf(page);
        assertThat(change("/models/" + model + "/datum", "zero", "GEOID", "unit", "METRE", "offset", "0"))
                .doesNotContain("The take-off point was measured");
        assertThat(change("/models/" + model + "/datum", "zero", "GEOID", "unit", "FOOT", "offset", "0"))
                .contains("The take-off point was measured");
    }

    @ParameterizedTest
    @ValueSource(strings = {"FOLLOW", "STEPPED", "GEOID", "TAKE_OFF"})
    void everyHeightReferenceIsExplainedAndExported(String reference) {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        String page = change("/heights/reference", "value", reference);
        assertThat(page).contains(reference.equals("FOLLOW") ? "rises and sinks" : "level");
        String[] header =
                visitor.get("/blocks/" + block + "/export/plan.csv").body().split("\r\n");
        String[] first = header[1].split(",");
        double geoid = Double.parseDouble(first[9]);
        double ellipsoid = Double.parseDouble(first[10]);
        // PROJ's EGM96 near 47.5° N, 9.9° E: 47 to 49 m
        assertThat(ellipsoid - geoid).isBetween(46.0, 50.0);
        assertThat(visitor.get("/blocks/" + block + "/export/plan.kml").body()).contains("absolute");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.gpx").body()).contains("<ele>");
    }

    @Test
    void aLevelFlightOverTheHillSaysWhatItLosesAndAPressFollowsTheGround() {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        change("/ledger/height", "value", "60 m");
        String level = change("/heights/reference", "value", "TAKE_OFF");
        assertThat(level).contains("Over the highest ground the aircraft is only");
        assertThat(visitor.mends(block, "ground", "overlap-over-relief"))
                .contains("heights/reference")
                .contains("Follow the ground")
                .contains("% enough");
        String followed = change("/heights/reference", "value", "FOLLOW");
        assertThat(followed).doesNotContain("key=overlap-over-relief");
    }

    @ParameterizedTest
    @CsvSource({
        "clearance, 0",
        "clearance, deep",
        "smoothing, -5",
        "reference, UPWARDS",
        "plane, SIDEWAYS",
        "take-off-level, 99999"
    })
    void aHeightThatCannotBeIsRefused(String setting, String value) {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        String before = visitor.version(block);
        assertThat(change("/heights/" + setting, "value", value)).contains("class=\"notice\"");
        assertThat(visitor.version(block)).isEqualTo(before);
    }

    @Test
    void obstaclesAndZonesAreTypedImportedAndTakenAway() {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        assertThat(change(
                        "/obstacles",
                        "kind",
                        "MAST",
                        "name",
                        "lattice mast",
                        "height",
                        "45 m",
                        "radius",
                        "3 m",
                        "places",
                        "565375 5262400"))
                .contains("lattice mast");
        assertThat(change(
                        "/obstacles",
                        "kind",
                        "LINE",
                        "name",
                        "wire",
                        "height",
                        "12 m",
                        "radius",
                        "2 m",
                        "places",
                        "565300 5262300"))
                .contains("class=\"notice\"")
                .contains("needs 2 to");
        String file =
                "{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"name\":\"barn\",\"height\":9},\"geometry\":{\"type\":\"Point\",\"coordinates\":[9.8682,47.5118]}}]}";
        String brought =
                visitor.bring(block, "ground", "/obstacles/file", "o.geojson", file.getBytes(StandardCharsets.UTF_8));
        assertThat(brought).contains("barn").contains("lattice mast");
        String noHeight = visitor.bring(
                block,
                "ground",
                "/obstacles/file",
                "o.geojson",
                file.replace("\"height\":9", "\"tall\":9").getBytes(StandardCharsets.UTF_8));
        assertThat(noHeight).contains("has no height");
        String zoned = keepOutOverAll();
        assertThat(zoned).contains("photos are taken in it");
        assertThat(change("/zones/remove", "at", "0")).doesNotContain("photos are taken in it");
        assertThat(change("/obstacles/remove", "at", "7")).contains("gone already");
        assertThat(change("/zones/stand-in")).contains("round the demo site only");
    }

    private String keepOutOverAll() {
        String zone =
                "{\"type\":\"Polygon\",\"coordinates\":[[[9.866,47.510],[9.872,47.510],[9.872,47.514],[9.866,47.514],[9.866,47.510]]]}";
        return visitor.bring(
                block,
                "ground",
                "/zones",
                "zone.geojson",
                zone.getBytes(StandardCharsets.UTF_8),
                "kind",
                "KEEP_OUT",
                "floor",
                "0 m",
                "ceiling",
                "");
    }

    /** No model at all: what stands and hangs there is still said, and the plan stays level. */
    @Test
    void zonesAndObstaclesCountWithoutAModel() {
        assertThat(keepOutOverAll()).contains("photos are taken in it").contains("Level ground");
        String page = change(
                "/obstacles", "kind", "MAST", "name", "tall mast", "height", "200 m", "places", "565375 5262400");
        assertThat(page).contains("below the top of tall mast");
        assertThat(page("proof")).contains("over level ground");
        assertThat(visitor.get("/blocks/" + block + "/export/plan.csv").statusCode())
                .isEqualTo(200);
    }

    /** The height system belongs to the model: whoever uses it next need not know it again. */
    @Test
    void aModelKeepsItsHeightSystemWhenItIsLeftOutAndUsedAgain() {
        String page = bring(
                Reference.bytes("coverage_dem_utm.tif"), "dem.tif", "zero", "ELLIPSOID", "unit", "FOOT", "offset", "2");
        String model = modelOf(page);
        String range = rangeOf(page);
        change("/models/" + model + "/leave");
        String again = change("/models/" + model + "/use");
        assertThat(again)
                .containsPattern("value=\"ELLIPSOID\"[^>]*selected")
                .containsPattern("value=\"FOOT\"[^>]*selected");
        assertThat(rangeOf(again)).isEqualTo(range);
        String restated = change("/models/" + model + "/datum", "zero", "GEOID", "unit", "METRE", "offset", "0");
        assertThat(rangeOf(restated)).isNotEqualTo(range);
        assertThat(change("/models/999999/use")).contains("no such model");
    }

    private static String modelOf(String page) {
        return group("models/(\\d+)/datum", page);
    }

    private static String rangeOf(String page) {
        return group("cells of [^,]*, ([^<]*) above the geoid", page);
    }

    private static String group(String pattern, String page) {
        return Pattern.compile(pattern)
                .matcher(page)
                .results()
                .findFirst()
                .orElseThrow(() -> new AssertionError(pattern + " not found"))
                .group(1);
    }

    @Test
    void theProofGivesLayersAProbeWeakSpotsAndRasters() throws Exception {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        assertThat(page("proof")).contains("over the real ground");
        awaitProof();
        String done = page("proof");
        assertThat(done).contains("of the block is given enough").contains("This layer as GeoTIFF");
        for (String layer : new String[] {
            "adequate",
            "count",
            "count-without",
            "strips",
            "gsd",
            "gsd-mean",
            "angle",
            "forward",
            "side",
            "sigma-h",
            "sigma-z"
        }) {
            BufferedImage picture = ImageIO.read(new ByteArrayInputStream(bytes("/proof/" + layer + ".png")));
            assertThat(picture.getWidth()).isGreaterThan(50);
            assertThat(page("proof?layer=" + layer)).contains("proof/" + layer + ".png");
        }
        Path tiff = folder.resolve("gsd.tif");
        Files.write(tiff, bytes("/proof/gsd.tif"));
        try (GeoTiff read = GeoTiff.open(tiff)) {
            assertThat(read.epsg()).hasValue(32632);
            int column = (int) read.georeference().column(565375, 5262400);
            int row = (int) read.georeference().row(565375, 5262400);
            assertThat(read.window(column, row, 1, 1)[0]).isBetween(0.01f, 0.03f);
        }
        String probe = new String(bytes("/proof/probe.json?east=565375&north=5262400"), StandardCharsets.UTF_8);
        assertThat(probe).contains("best GSD").contains("\"photos\":[5");
        assertThat(new String(bytes("/proof/weak-spots.geojson"), StandardCharsets.UTF_8))
                .contains("FeatureCollection");
        assertThat(visitor.get("/blocks/" + block + "/proof/nothing.png").statusCode())
                .isEqualTo(404);
    }

    @Test
    void aProofCanBeCalledOffAndBegunAgain() throws Exception {
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        page("proof");
        String off = visitor.htmx("/blocks/" + block + "/proof/call-off").body();
        assertThat(off).containsAnyOf("Called off", "data-done=\"true\"");
        visitor.htmx("/blocks/" + block + "/proof/again");
        awaitProof();
    }

    @Test
    void aPictureWithAWorldFileLiesUnderThePlanAndOneWithoutIsRefused() throws IOException {
        BufferedImage picture = new BufferedImage(40, 40, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < 1600; i++) {
            picture.setRGB(i % 40, i / 40, 0x3050a0);
        }
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(picture, "png", png);
        String refused = visitor.upload(
                        "/blocks/" + block + "/picture",
                        "p.png",
                        png.toByteArray(),
                        "version",
                        visitor.version(block),
                        "stage",
                        "ground")
                .body();
        assertThat(refused).contains("needs its world file");
        String heights = visitor.upload(
                        "/blocks/" + block + "/picture",
                        "dem.tif",
                        Reference.bytes("coverage_dem_utm.tif"),
                        "version",
                        visitor.version(block),
                        "stage",
                        "ground")
                .body();
        assertThat(heights).contains("is no picture");
    }

    /** GDAL opens what is handed out, and its contours and ours come from the same heights. */
    @Test
    void referenceSoftwareOpensTheRasters() throws Exception {
        Optional<Path> gdalinfo = Optional.of(Path.of("/usr/bin/gdalinfo")).filter(Files::isExecutable);
        Assumptions.assumeTrue(gdalinfo.isPresent(), "gdalinfo is not installed");
        bring(Reference.bytes("coverage_dem_utm.tif"), "dem.tif");
        page("proof");
        awaitProof();
        Path tiff = folder.resolve("count.tif");
        Files.write(tiff, bytes("/proof/count.tif"));
        Process process = new ProcessBuilder("gdalinfo", "-stats", tiff.toString())
                .redirectErrorStream(true)
                .start();
        String told = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(told).contains("32632").contains("Type=Float32").contains("NoData Value=-9999");
    }
}

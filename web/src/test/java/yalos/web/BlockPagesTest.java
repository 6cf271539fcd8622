package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;

/** The pages of a block over HTTP, without a browser: changes, conflicts, imports, exports, errors. */
@ExtendWith(RunningYalos.class)
class BlockPagesTest {
    private static final String PLACE = "54.5120, -4.3530";
    private static final String FIELD = "54.5120 -4.3530\n54.5120 -4.3470\n54.5150 -4.3470\n54.5150 -4.3530";

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String job) {
        long block = visitor.newBlock(job, PLACE);
        HttpResponse<String> drawn = visitor.htmx(
                "/blocks/" + block + "/import", "version", visitor.version(block), "stage", "strips", "text", FIELD);
        assertThat(drawn.statusCode()).isEqualTo(200);
        return block;
    }

    private HttpResponse<String> type(long block, String key, String value) {
        return visitor.htmx(
                "/blocks/" + block + "/ledger/" + key,
                "version",
                visitor.version(block),
                "stage",
                "strips",
                "act",
                "type",
                "value",
                value);
    }

    private String strips(long block) {
        return visitor.get("/blocks/" + block + "/strips").body();
    }

    @Test
    void aReasonShowsTheDrawingOfItsOwnQuantityOrNone() {
        long block = block("Reasons");
        String page = "/blocks/" + block + "/strips?why=";
        assertThat(visitor.get(page + "speed").body())
                .contains("v = least of the limits")
                .contains("data-drawn=\"PACE\"");
        assertThat(visitor.get(page + "storage").body()).contains("one release").doesNotContain("data-drawn");
        assertThat(visitor.get(page + "side-overlap").body()).contains("one strip spacing apart");
        assertThat(visitor.get(page + "air-base").body()).contains("one air base apart");
    }

    /** Without script too: the page comes back, what was typed stands in its field, the sentence beside it. */
    @Test
    void aRefusedFormComesBackFilledWithoutScript() {
        long block = block("Without script");
        String page = "/blocks/" + block + "/strips?why=speed";
        HttpResponse<String> refused = visitor.postFrom(
                page,
                "/blocks/" + block + "/ledger/gsd",
                "version",
                visitor.version(block),
                "stage",
                "strips",
                "act",
                "type",
                "value",
                "5 lumps & a half");
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body())
                .contains("value=\"5 lumps &amp; a half\"", "aria-invalid=\"true\"", "v = least of the limits")
                .containsPattern("id=\"fault-of-field\">[^<]*“lumps &amp; a half” is not a unit")
                .doesNotContain("Something went wrong");
    }

    /** The accuracy drives the scale; released, the scale comes back as it was. */
    @Test
    void aPinnedAccuracyDrivesTheScale() {
        long block = block("Accuracy");
        type(block, "gsd", "2 cm");
        assertThat(type(block, "heights-to", "8 cm").body())
                .as("satellites alone, as a new brief has it, never give 8 cm")
                .contains("the accuracy is not reached, with ")
                .doesNotContain("the coarsest that the accuracy allows");
        visitor.change(block, "brief", "/brief", "positioning", "CONTROL");
        String driven = visitor.get("/blocks/" + block + "/strips").body();
        assertThat(driven).contains("the coarsest that the accuracy allows").doesNotContain("value=\"2.00\"");
        String released = visitor.change(block, "strips", "/ledger/heights-to", "act", "unpin");
        assertThat(released).contains("value=\"2.00\"").doesNotContain("the coarsest that");
    }

    /** A page elsewhere that sends a form is never fetched. */
    @Test
    void aForeignPageIsNotShown() {
        long block = block("Elsewhere");
        HttpResponse<String> refused = visitor.postFrom(
                "@example.org/blocks/" + block + "/strips",
                "/blocks/" + block + "/ledger/gsd",
                "version",
                visitor.version(block),
                "act",
                "type",
                "value",
                "5 lumps");
        assertThat(refused.body()).contains("That cannot be").doesNotContain("fault-of-field");
    }

    /** Tab, page and paper say the same share. */
    @Test
    void oneShareStandsOnTabPageAndPaper() {
        long block = block("One share");
        type(block, "brief-gsd", "1.5 cm");
        String strips = strips(block);
        Matcher tab = Pattern.compile("([0-9.]+ %) enough</small>").matcher(strips);
        assertThat(tab.find()).isTrue();
        assertThat(visitor.get("/blocks/" + block + "/print").body())
                .contains(tab.group(1) + " of the block is given what is asked: not adequate");
        assertThat(visitor.get("/blocks/" + block + "/brief").body()).contains(tab.group(1) + " given enough");
    }

    /** Released, a cost gives the scale back that it had pushed out; a refused figure changes nothing. */
    @Test
    void aReleasedPinBringsBackWhatItPushedOut() {
        long block = block("Pushed out");
        type(block, "gsd", "2.4 cm");
        String cost = type(block, "photos", "150").body();
        assertThat(cost).contains("reached").contains("value=\"150\"");
        String released = visitor.change(block, "strips", "/ledger/photos", "act", "unpin");
        assertThat(released).contains("value=\"2.40\"").contains("pinned instead: GSD 2.4 cm");
        String version = visitor.version(block);
        assertThat(type(block, "side-overlap", "250 %").statusCode()).isEqualTo(400);
        assertThat(visitor.version(block)).isEqualTo(version);
    }

    @Test
    void whatWasTypedInFeetReadsBackInFeetAndIsKept() {
        long block = block("Feet");
        assertThat(type(block, "height", "300 ft").body()).contains("value=\"300.0\"");
        assertThat(strips(block)).contains("value=\"300.0\"").contains("2.44");
    }

    @Test
    void undoAndRedoReachEveryChangeAcrossReloads() {
        long block = block("Undo");
        type(block, "gsd", "3");
        type(block, "side-overlap", "60");
        String undone = visitor.htmx("/blocks/" + block + "/undo", "version", visitor.version(block), "stage", "strips")
                .body();
        assertThat(undone).containsPattern("id=\"f-side-overlap\"\\s+name=\"value\"\\s+value=\"70\"");
        visitor.htmx("/blocks/" + block + "/undo", "version", visitor.version(block), "stage", "strips");
        assertThat(strips(block)).contains("value=\"2.00\"");
        visitor.htmx("/blocks/" + block + "/redo", "version", visitor.version(block), "stage", "strips");
        visitor.htmx("/blocks/" + block + "/redo", "version", visitor.version(block), "stage", "strips");
        assertThat(strips(block)).contains("value=\"3.00\"").containsPattern("name=\"value\"\\s+value=\"60\"");
    }

    @Test
    void twoTabsDoNotOverwriteEachOther() {
        long block = block("Two tabs");
        String seenByBoth = visitor.version(block);
        type(block, "gsd", "3");
        HttpResponse<String> late = visitor.htmx(
                "/blocks/" + block + "/ledger/gsd",
                "version",
                seenByBoth,
                "stage",
                "strips",
                "act",
                "type",
                "value",
                "5");
        assertThat(late.statusCode()).isEqualTo(409);
        assertThat(late.headers().firstValue("HX-Retarget")).hasValue("#notice");
        assertThat(late.body()).contains("another tab").contains("GSD 5 cm");
        assertThat(strips(block)).contains("value=\"3.00\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "forward-overlap | 0     | between",
                "forward-overlap | 100   | between",
                "side-overlap    | 120 % | between",
                "height          | 0     | between",
                "height          | 5000  | between",
                "height          | NaN   | not a figure",
                "gsd             | 0.05  | 200,000",
                "strip-spacing   | 400   | footprint",
                "gsd             | 3 kg  | not a unit",
            })
    void refusesASettingThatCannotBeAndKeepsTheOldOne(String key, String value, String message) {
        long block = block("Refused " + key + value);
        HttpResponse<String> refused = type(block, key, value);
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains(message);
        assertThat(strips(block)).contains("value=\"2.00\"");
    }

    @Test
    void refusesAPageOfAnotherSiteToAct() {
        long block = block("Forged");
        HttpResponse<String> forged = visitor.script("/blocks/" + block + "/ledger/gsd", "");
        assertThat(forged.statusCode()).isEqualTo(403);
    }

    @Test
    void everyAnswerForbidsScriptFromElsewhere() {
        HttpResponse<String> page = visitor.get("/jobs");
        assertThat(page.headers().firstValue("Content-Security-Policy"))
                .hasValueSatisfying(policy -> assertThat(policy)
                        .contains("script-src 'self'")
                        .contains("frame-ancestors 'none'")
                        .doesNotContain("unsafe"));
        assertThat(page.body()).doesNotContainPattern("<script>|style=\"|onclick=");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/nothing", "/blocks/99999/strips", "/jobs/99999", "/cameras/99999", "/blocks/abc/strips"})
    void errorsHavePagesInTheLookOfTheProgram(String path) {
        HttpResponse<String> page = visitor.get(path);
        assertThat(page.statusCode()).isIn(400, 404);
        assertThat(page.body()).contains("Yalos").contains("To the jobs").doesNotContain("Exception");
    }

    @Test
    void asksWhichOfSeveralOutlines() {
        long block = visitor.newBlock("Several", "47.42, 11.32");
        String two = "{\"type\":\"FeatureCollection\",\"features\":[" + feature("North field", 47.42) + ","
                + feature("South field", 47.40) + "]}";
        HttpResponse<String> asked = visitor.upload(
                "/blocks/" + block + "/import",
                "fields.geojson",
                two.getBytes(StandardCharsets.UTF_8),
                "version",
                visitor.version(block),
                "stage",
                "ground");
        assertThat(asked.body()).contains("North field").contains("South field").contains("Which one?");
        String token = asked.body().replaceAll("(?s).*name=\"token\" value=\"([^\"]+)\".*", "$1");
        visitor.htmx(
                "/blocks/" + block + "/import/choose",
                "version",
                visitor.version(block),
                "stage",
                "ground",
                "token",
                token,
                "swapped",
                "false",
                "index",
                "1");
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("latitude 47.4000000");
    }

    private static String feature(String name, double lat) {
        return ("{\"type\":\"Feature\",\"properties\":{\"name\":\"%s\"},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":[[[11.32,%f],[11.33,%f],[11.33,%f],[11.32,%f]]]}}")
                .formatted(name, lat, lat, lat + 0.005, lat);
    }

    @Test
    void offersToReadASwappedFileTheOtherWayRound() {
        long block = visitor.newBlock("Swapped", "47.42, 11.32");
        HttpResponse<String> asked = visitor.upload(
                "/blocks/" + block + "/import",
                "swapped.geojson",
                Reference.bytes("vector/bad_swapped.geojson"),
                "version",
                visitor.version(block),
                "stage",
                "ground");
        assertThat(asked.body()).contains("km from the rest of this job").contains("swapped");
        String token = asked.body().replaceAll("(?s).*name=\"token\" value=\"([^\"]+)\".*", "$1");
        HttpResponse<String> swapped = visitor.htmx(
                "/blocks/" + block + "/import/swap",
                "version",
                visitor.version(block),
                "stage",
                "ground",
                "token",
                token);
        assertThat(swapped.statusCode()).isEqualTo(200);
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("latitude 47.4");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "bad_bowtie.geojson",
                "bad_truncated.geojson",
                "bad_external_entity.kml",
                "bad_external_entity.gpx",
                "bad_nan.geojson"
            })
    void brokenFilesChangeNothing(String file) {
        long block = block("Broken " + file);
        String before = visitor.version(block);
        HttpResponse<String> refused = visitor.upload(
                "/blocks/" + block + "/import",
                file,
                Reference.bytes("vector/" + file),
                "version",
                before,
                "stage",
                "ground");
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).doesNotContain("MARKER-THAT-MUST-NOT-APPEAR");
        assertThat(visitor.version(block)).isEqualTo(before);
    }

    @Test
    void anUploadOfTwoHundredMegabytesIsRefusedWithAMessage() {
        long block = block("Huge upload");
        HttpResponse<String> refused = visitor.upload(
                "/blocks/" + block + "/import", "huge.kml", new byte[200_000_000], "version", "1", "stage", "ground");
        assertThat(refused.statusCode()).isEqualTo(413);
        assertThat(refused.body()).contains("larger than 20 MB");
    }

    /** The outline may be larger than the settings can cover; then the page says so and a coarser GSD mends it. */
    @Test
    void aLargeOutlineIsKeptAndThePageSaysWhyThereIsNoPlan() {
        long block = visitor.newBlock("Large", "54.5, -4.5");
        String text = "54.40 -4.60\n54.40 -4.40\n54.55 -4.40\n54.55 -4.60";
        visitor.htmx(
                "/blocks/" + block + "/import", "version", visitor.version(block), "stage", "strips", "text", text);
        assertThat(strips(block)).contains("200,000 are the most");
        assertThat(type(block, "gsd", "15").statusCode()).isEqualTo(200);
        assertThat(strips(block)).doesNotContain("200,000 are the most");
    }

    @ParameterizedTest
    @ValueSource(strings = {"geojson", "kml", "gpx", "csv"})
    void exportsOpenInReferenceSoftware(String format) throws IOException, InterruptedException {
        long block = block("Export " + format);
        HttpResponse<String> file = visitor.get("/blocks/" + block + "/export/plan." + format);
        assertThat(file.statusCode()).isEqualTo(200);
        assertThat(file.headers().firstValue("Content-Disposition"))
                .hasValueSatisfying(value -> assertThat(value).contains("plan." + format));
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/usr/bin/ogrinfo")), "ogrinfo of GDAL is not installed");
        Path saved = Files.createTempFile("plan", "." + format);
        Files.writeString(saved, file.body());
        Process ogrinfo = new ProcessBuilder("/usr/bin/ogrinfo", "-ro", "-al", "-so", saved.toString())
                .redirectErrorStream(true)
                .start();
        String report = new String(ogrinfo.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(ogrinfo.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(ogrinfo.exitValue()).as(report).isZero();
        assertThat(report)
                .contains("successful")
                .containsPattern("Feature Count: [1-9]")
                .doesNotContain("ERROR");
    }

    @Test
    void exportedGeoJsonIsReadAgainAsTheSameOutline() {
        long block = block("Round trip");
        String file = visitor.get("/blocks/" + block + "/export/plan.geojson").body();
        long other = visitor.newBlock("Round trip, again", PLACE);
        HttpResponse<String> read = visitor.upload(
                "/blocks/" + other + "/import",
                "plan.geojson",
                file.getBytes(StandardCharsets.UTF_8),
                "version",
                visitor.version(other),
                "stage",
                "ground");
        assertThat(read.statusCode()).isEqualTo(200);
        assertThat(corners(other)).hasSize(4).isEqualTo(corners(block));
    }

    private List<String> corners(long block) {
        return Pattern.compile("title=\"(latitude [^\"]+)\"")
                .matcher(visitor.get("/blocks/" + block + "/ground").body())
                .results()
                .map(result -> result.group(1))
                .toList();
    }

    @Test
    void aCameraWithImpossibleFiguresIsQuestioned() {
        String[] form = {
            "name", "Doubtful camera", "pixelsWide", "5280", "pixelsHigh", "3956", "sensorWidthMm", "17.3",
                    "sensorHeightMm", "13.0",
            "focalLengthMm", "13.0", "shutter", "MECHANICAL", "readoutS", "0", "minIntervalS", "0.7", "mount",
                    "WIDTH_ACROSS",
            "megabytesPerPhoto", "10", "cardGigabytes", "128", "photosPerFlight", "9999"
        };
        assertThat(visitor.post("/cameras/0", form).body()).contains("equals a side of the sensor");
        form[11] = "0";
        HttpResponse<String> zero = visitor.post("/cameras/0", form);
        assertThat(zero.statusCode()).isEqualTo(400);
        assertThat(zero.body()).contains("between 0.5 and 2000 mm").contains("value=\"Doubtful camera\"");
        form[11] = "12.29";
        assertThat(visitor.post("/cameras/0", form).uri().getPath()).isEqualTo("/cameras");
        assertThat(visitor.get("/cameras").body()).contains("Doubtful camera");
        assertThat(visitor.post("/cameras/0", form).body()).contains("already");
    }

    @Test
    void everyRowOpensItsReasonAndKeepsItsAddress() {
        long block = block("Why");
        for (String key : new String[] {"gsd", "height", "air-base", "speed", "direction", "photos", "flight-time"}) {
            assertThat(visitor.get("/blocks/" + block + "/strips?why=" + key).body())
                    .contains("class=\"formula\"")
                    .contains("class=\"source\"");
        }
    }
}

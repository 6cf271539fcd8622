package yalos.web.control;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.exchange.PointFiles;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.Geoid;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Control stage over HTTP: points proposed, changed and locked, layouts compared, points measured, files out. */
@ExtendWith(RunningYalos.class)
class ControlPagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3449\n54.5154 -4.3449\n54.5154 -4.3489";
    private static final Grid GRID = Grid.ofEpsg(32630);
    /** About the middle of the field, in whole metres. */
    private static final EastNorth MIDDLE = new EastNorth(412_806, 6_041_591);

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5134, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private String page(long block) {
        return visitor.get("/blocks/" + block + "/control").body();
    }

    private String measured(long block) {
        return visitor.get("/blocks/" + block + "/control/measured").body();
    }

    private static String at(double east, double north) {
        return String.format(Locale.ROOT, "%.3f, %.3f", MIDDLE.east() + east, MIDDLE.north() + north);
    }

    /** As the page shows it. */
    private static String shown(double east, double north) {
        return String.format(Locale.ROOT, "%.2f, %.2f", MIDDLE.east() + east, MIDDLE.north() + north);
    }

    private static JsonNode json(HttpResponse<String> answer) {
        return JsonMapper.builder().build().readTree(answer.body());
    }

    /** The table once everything in it has come; it is asked for as the page asks. */
    private String layouts(long block) {
        String table = "";
        while (!table.contains("data-running=\"false\"")) {
            LockSupport.parkNanos(50_000_000);
            table = visitor.get("/blocks/" + block + "/control/layouts").body();
        }
        return table;
    }

    @Test
    void pointsAreProposedMovedLockedAndTakenAway() {
        long block = block("Control points");
        assertThat(page(block)).contains("No check points:").contains("None yet.");
        String proposed = visitor.change(block, "control", "/control/propose", "control", "5", "checks", "3");
        assertThat(proposed).contains("5 control, 3 check");
        String moved = visitor.change(block, "control", "/control/points/move", "point", "2", "place", at(5, 7));
        assertThat(moved).contains(shown(5, 7));
        visitor.change(block, "control", "/control/points/lock", "point", "2", "locked", "true");
        String again = visitor.change(block, "control", "/control/propose", "control", "3", "checks", "2");
        assertThat(again).contains("3 control, 2 check").contains(shown(5, 7));
        assertThat(visitor.change(block, "control", "/control/points/remove", "point", "2"))
                .contains("2 control, 2 check");
        String outside = visitor.change(
                block, "control", "/control/points", "place", at(4000, 0), "role", "CHECK", "name", "far");
        assertThat(outside).contains("outside the block");
        HttpResponse<String> twice = visitor.htmx(
                "/blocks/" + block + "/control/points",
                "place",
                at(0, 0),
                "name",
                "FAR",
                "version",
                visitor.version(block),
                "stage",
                "control");
        assertThat(twice.statusCode()).isEqualTo(400);
        assertThat(twice.body()).contains("There is a point FAR already");
        // Points are an operator's decisions: they are undone as all others are.
        assertThat(visitor.change(block, "control", "/undo")).contains("2 control, 2 check");
    }

    @Test
    void layoutsAreComparedOnThisBlock() {
        long block = block("Layouts");
        visitor.change(block, "control", "/control/points", "place", at(20, 10));
        String table = layouts(block);
        assertThat(table)
                .contains("no control")
                .contains("one point")
                .contains("5 points")
                .contains("yours")
                .contains("a tie strip across")
                .contains("nothing asked");
        JsonNode drawn = json(visitor.get("/blocks/" + block + "/control.json"));
        assertThat(drawn.get("points").size()).isEqualTo(1);
        assertThat(drawn.get("places").size()).isGreaterThan(150);
        assertThat(drawn.get("legend").size()).isEqualTo(5);
        assertThat(page(block)).contains("heights good to").contains("Worst place");
    }

    @Test
    void groundWithoutTargetsIsKeptFree() {
        long block = block("Avoided");
        String corners = at(-500, -500) + "\n" + at(0, -500) + "\n" + at(0, 500) + "\n" + at(-500, 500);
        assertThat(visitor.change(
                        block, "control", "/control/avoided", "places", corners, "kind", "WATER", "name", "tarn"))
                .contains("tarn");
        visitor.change(block, "control", "/control/propose", "control", "4", "checks", "2");
        for (JsonNode point :
                json(visitor.get("/blocks/" + block + "/control.json")).get("points")) {
            assertThat(point.get("east").asDouble()).isGreaterThan(MIDDLE.east());
        }
        visitor.change(block, "control", "/control/avoided/remove", "at", "0");
        assertThat(page(block)).contains("Ground without targets: none drawn");
    }

    @Test
    void aBlockThatLiesNowhereIsToldWhatIsMissing() {
        long nowhere = visitor.newBlock("Nowhere control", "");
        HttpResponse<String> refused = visitor.get("/blocks/" + nowhere + "/control/measured");
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("The block has no place yet");
        assertThat(page(nowhere)).contains("Points follow when there is an outline");
    }

    /** More photos than are adjusted together: said in a sentence, and points can be set all the same. */
    @Test
    void hugeAndTinyBlocksAreToldWhatCannotBe() {
        long huge = visitor.newBlock("Huge control", "54.7, -4.2");
        visitor.change(huge, "ground", "/import", "text", "54.70 -4.20\n54.70 -4.15\n54.73 -4.15\n54.73 -4.20");
        assertThat(page(huge)).contains("accuracy is foretold for 2 to 5,000");
        assertThat(layouts(huge)).contains("Split the block");
        assertThat(visitor.change(huge, "control", "/control/points", "place", "54.71, -4.18"))
                .contains("1 control, 0 check");
        long tiny = visitor.newBlock("Tiny control", "54.6, -4.2");
        visitor.change(tiny, "ground", "/import", "text", "54.6 -4.2\n54.6 -4.1998\n54.60015 -4.1998\n54.60015 -4.2");
        HttpResponse<String> refused = visitor.htmx(
                "/blocks/" + tiny + "/control/propose",
                "control",
                "5",
                "checks",
                "3",
                "version",
                visitor.version(tiny),
                "stage",
                "control");
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("Most often: ");
    }

    private String check(long block, String text) {
        HttpResponse<String> answer = visitor.upload(
                "/blocks/" + block + "/control/measured/file", "points.csv", text.getBytes(StandardCharsets.UTF_8));
        assertThat(answer.statusCode()).isIn(200, 302);
        return answer.statusCode() == 302
                ? visitor.get(answer.headers()
                                .firstValue("Location")
                                .orElseThrow()
                                .replaceFirst("^https?://[^/]+", ""))
                        .body()
                : answer.body();
    }

    private static String table(String page) {
        Matcher key = Pattern.compile("name=\"table\" value=\"([^\"]+)\"").matcher(page);
        assertThat(key.find()).isTrue();
        return key.group(1);
    }

    private static String row(String name, double east, double north, double up) {
        return String.format(
                Locale.ROOT,
                "%s,%.3f,%.3f,%.3f,0.01,0.015,fixed,30\n",
                name,
                MIDDLE.east() + east,
                MIDDLE.north() + north,
                up);
    }

    @Test
    void aFileIsLookedAtBeforeItIsKeptAndItsCureIsOnePress() {
        long block = block("Measured");
        visitor.change(block, "control", "/control/points", "place", at(0, 0));
        visitor.change(block, "control", "/control/points", "place", at(50, 40), "role", "CHECK");
        String swapped = "point,northing,easting,height,hrms,vrms,status,epochs\n" + row("1", 0.1, 0.1, 300)
                + row("2", 50, 40, 301);
        String looked = check(block, swapped);
        assertThat(looked).contains("nothing kept yet").contains("Swap the two columns of the place");
        assertThat(measured(block)).contains("0 of 2 points measured");
        Matcher cure = Pattern.compile("href=\"([^\"]*check[^\"]*swapped=true[^\"]*)\"")
                .matcher(looked);
        assertThat(cure.find()).isTrue();
        String cured = visitor.get(cure.group(1).replace("&amp;", "&")).body();
        assertThat(cured).contains("Nothing looks wrong");
        HttpResponse<String> kept = visitor.post(
                "/blocks/" + block + "/control/measured/keep",
                "table",
                table(cured),
                "zero",
                "GEOID",
                "epsg",
                "32630",
                "swapped",
                "true",
                "unit",
                "METRE",
                "heightUnit",
                "METRE");
        assertThat(kept.statusCode()).isIn(200, 302);
        assertThat(measured(block)).contains("2 of 2 points measured").contains("points.csv");
        // A second press finds the table gone, and keeps nothing twice.
        assertThat(visitor.post("/blocks/" + block + "/control/measured/keep", "table", table(cured), "zero", "GEOID")
                        .statusCode())
                .isEqualTo(404);
        assertThat(page(block)).contains("measured");
    }

    @Test
    void theRoleOfAMeasuredPointChangesOnlyWithAReason() {
        long block = block("Roles");
        visitor.change(block, "control", "/control/points", "place", at(0, 0));
        typed(block, "1", at(0, 0), "300", "1 cm", "FIXED");
        String[] edit = {
            "point", "1", "name", "1", "role", "CHECK", "kind", "TARGET", "place", at(0, 0), "version", "", "stage",
            "control"
        };
        edit[11] = visitor.version(block);
        HttpResponse<String> refused = visitor.htmx("/blocks/" + block + "/control/points/edit", edit);
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("Point 1 is measured; its role stands");
        String changed = visitor.change(
                block,
                "control",
                "/control/points/edit",
                "point",
                "1",
                "name",
                "1",
                "role",
                "CHECK",
                "kind",
                "TARGET",
                "place",
                at(0, 0),
                "reason",
                "too near to point 4");
        assertThat(changed).contains("0 control, 1 check");
        assertThat(measured(block)).contains("is now check: too near to point 4");
    }

    private void typed(long block, String point, String place, String height, String accuracy, String solution) {
        HttpResponse<String> answer = visitor.post(
                "/blocks/" + block + "/control/measured",
                "point",
                point,
                "place",
                place,
                "height",
                height,
                "horizontal",
                accuracy,
                "vertical",
                accuracy,
                "solution",
                solution,
                "epochs",
                "30",
                "pole",
                "1.8 m",
                "at",
                "2026-05-14 10:42");
        assertThat(answer.statusCode()).as(answer.body()).isIn(200, 302);
    }

    @Test
    void whatIsNotGoodEnoughIsNotUsedUnlessSomebodySaysWhy() {
        long block = block("Judged");
        visitor.change(block, "control", "/control/points", "place", at(0, 0));
        typed(block, "1", at(0, 0), "300", "7 cm", "FLOAT");
        String page = measured(block);
        assertThat(page).contains("never above 5 cm").contains("float solution").contains("nothing of it may be used");
        assertThat(page(block)).contains("badly measured");
        Matcher id = Pattern.compile("name=\"observation\" value=\"(\\d+)\"").matcher(page);
        assertThat(id.find()).isTrue();
        String address = "/blocks/" + block + "/control/measured/judge";
        HttpResponse<String> without = visitor.post(address, "observation", id.group(1), "verdict", "USED");
        assertThat(without.statusCode()).isEqualTo(400);
        assertThat(without.body()).contains("Give a reason");
        visitor.post(address, "observation", id.group(1), "verdict", "USED", "reason", "nothing better to be had");
        assertThat(measured(block)).contains("1 of 1 points measured").contains("by hand: nothing better to be had");
    }

    /** Known: a base two metres lower than it was said moves a point of 300 m to 298 m, and back. */
    @Test
    void aBaseIsPutRightByAPressAndTakenBack() {
        long block = block("Base");
        visitor.change(block, "control", "/control/points", "place", at(0, 0));
        typed(block, "1", at(0, 0), "300", "1 cm", "FIXED");
        String base = "/blocks/" + block + "/control/base";
        HttpResponse<String> bare = visitor.post(base, "place", at(10, 10), "height", "350", "known", "false");
        assertThat(bare.statusCode()).isEqualTo(400);
        assertThat(bare.body()).contains("antenna");
        visitor.post(base, "place", at(10, 10), "height", "350", "known", "false", "slant", "1.7 m", "radius", "0.1 m");
        assertThat(measured(block))
                .contains("antenna 1.697 m")
                .contains("raw log OFF")
                .contains("2 h or more");
        visitor.post(base + "/true", "place", at(10, 10), "height", "348");
        assertThat(measured(block)).contains("-200 cm up").contains("300.000 m");
        visitor.post(base + "/apply", "applied", "true");
        assertThat(measured(block)).contains("298.000 m").contains("shift of the base applied");
        visitor.post(base + "/apply", "applied", "false");
        assertThat(measured(block)).contains("300.000 m");
    }

    @Test
    void benchmarksMoveNothingBeforeTwoAgreeAndSomebodyPresses() {
        long block = block("Marks");
        String marks = "/blocks/" + block + "/control/marks";
        visitor.post(marks, "name", "BM 1", "place", at(0, 0), "height", "300.10");
        typed(block, "BM 1", at(0, 0), "300", "1 cm", "FIXED");
        assertThat(measured(block)).contains("One mark cannot tell its own error from a shift");
        assertThat(visitor.post(marks + "/apply", "applied", "true").statusCode())
                .isEqualTo(400);
        visitor.post(marks, "name", "BM 2", "place", at(100, 0), "height", "305.11");
        typed(block, "BM 2", at(100, 0), "305", "1 cm", "FIXED");
        assertThat(measured(block)).contains("The marks agree on");
        visitor.post(marks + "/apply", "applied", "true");
        assertThat(measured(block)).contains("300.105 m").contains("Take the shift off again");
        assertThat(visitor.post(marks + "/apply", "applied", "true").statusCode())
                .isEqualTo(400);
    }

    @Test
    void pointsGoOutInOpenFilesAsTheyWereMeasured() throws IOException, InterruptedException {
        long block = block("Out");
        visitor.change(block, "control", "/control/points", "place", at(0, 0));
        visitor.change(block, "control", "/control/points", "place", at(40, 0), "role", "CHECK", "note", "by the wall");
        typed(block, "1", at(0.25, 0), "300.5", "1 cm", "FIXED");
        String out = "/blocks/" + block + "/export/control.";
        String csv = visitor.get(out + "csv?order=name,easting,height,measured").body();
        assertThat(csv.lines().toList())
                .hasSize(3)
                .startsWith("name,easting,height_above_geoid_m,times_measured")
                .contains(String.format(Locale.ROOT, "1,%.3f0,300.5000,1", MIDDLE.east() + 0.25));
        assertThat(visitor.get(out + "csv?order=name,colour").body()).contains("“colour” is no column");
        JsonNode feature = json(visitor.get(out + "geojson")).get("features").get(0);
        assertThat(feature.get("geometry").get("coordinates").get(2).asDouble() - 300.5)
                .isBetween(
                        Geoid.egm96().undulationM(LonLat.of(-4.3469, 54.5144)) - 0.01,
                        Geoid.egm96().undulationM(LonLat.of(-4.3469, 54.5144)) + 0.01);
        assertThat(visitor.get(out + "kml").body()).contains("by the wall").contains("<Folder>");
        assertThat(visitor.get(out + "gpx").body()).contains("<ele>300.5");
        assertThat(visitor.get(out + "xlsx").statusCode()).isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/export/control-photos.csv")
                        .body())
                .startsWith("point,photo,strip,u_px,v_px");
        assertThat(visitor.get("/blocks/" + block + "/control/photos?point=2").body())
                .contains("photos will show point 2");
        assertThat(visitor.get("/blocks/" + block + "/control/labels").body())
                .contains("by the wall")
                .contains("not pushed into the ground");
        String levels = visitor.get("/blocks/" + block + "/control/levels?step=10+m&from="
                        + at(0, 0).replace(" ", "").replace(",", "%2C") + "&to="
                        + at(20, 30).replace(" ", "").replace(",", "%2C"))
                .body();
        assertThat(levels).contains("12 stakes");
    }

    /** GDAL reads the GeoPackage as what it is; it is installed with the suite. */
    @Test
    void theGeoPackageIsReadByGdal() throws Exception {
        Path file = Files.createTempFile("points", ".gpkg");
        Files.delete(file);
        PointsGeoPackage.write(
                file,
                "some points",
                List.of(new PointFiles.Point(
                        "1",
                        "control",
                        "target",
                        LonLat.of(-4.35, 54.51),
                        OptionalDouble.of(300.5),
                        2,
                        OptionalDouble.empty(),
                        "note")));
        Process gdal = new ProcessBuilder("ogrinfo", "-al", "-ro", file.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(gdal.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(gdal.waitFor()).as(said).isZero();
        assertThat(said)
                .contains("Feature Count: 1")
                .contains("POINT (-4.35 54.51)")
                .contains("height_above_geoid_m (Real) = 300.5")
                .doesNotContain("Warning");
        Files.delete(file);
    }

    /** Reference of methods: 54.51, -4.35 in UTM 30N by the projection library; feet by their definitions (NIST SP 811, from memory). */
    @Test
    void theConverterStandsAlone() {
        String page = visitor.get("/converter?places=54.51%2C-4.35%3B381%0Anonsense&from=4326&to=32630")
                .body();
        EastNorth at = GRID.toGrid(LonLat.of(-4.35, 54.51));
        assertThat(page)
                .contains(String.format(Locale.ROOT, "%.4f, %.4f", at.east(), at.north()))
                .contains("1250.000 ft = 1249.998 ftUS")
                .contains("54°30")
                .contains("nonsense");
        assertThat(visitor.get("/converter?search=british+national").body()).contains("EPSG:27700");
        assertThat(visitor.get("/converter?search=54.51,-4.35").body()).contains("EPSG:32630");
        assertThat(visitor.get("/converter?places=1,2&from=999999").body()).contains("999999");
        String back = visitor.get("/converter?places=" + at.east() + "," + at.north() + "&from=32630&to=4326")
                .body();
        assertThat(back).contains("54.510000").contains("-4.350000");
    }
}

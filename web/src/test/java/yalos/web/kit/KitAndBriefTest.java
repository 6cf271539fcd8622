package yalos.web.kit;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Brief, kit, pins, revisions and templates over HTTP, as a page would send them. */
@ExtendWith(RunningYalos.class)
class KitAndBriefTest {
    private static final String SQUARE =
            "{\"type\":\"Polygon\",\"coordinates\":[[[-4.353,54.512],[-4.347,54.512],[-4.347,54.515],[-4.353,54.515],[-4.353,54.512]]]}";
    private static int made;

    private Visitor visitor;
    private long block;

    @BeforeEach
    void openABlock() {
        visitor = new Visitor(RunningYalos.url());
        block = visitor.newBlock("Kit and brief " + ++made, "54.512, -4.353");
        visitor.bring(block, "strips", "/import", "square.geojson", SQUARE.getBytes(StandardCharsets.UTF_8));
    }

    private String change(String path, String... form) {
        return visitor.change(block, "strips", path, form);
    }

    private static String figure(String page, String key) {
        Matcher matcher = Pattern.compile("id=\"f-" + key + "\"[^>]*?(?:value=\"([^\"]*)\"|>([^<]*)<)")
                .matcher(page);
        assertThat(matcher.find()).as(key).isTrue();
        return matcher.group(1) != null ? matcher.group(1) : matcher.group(2);
    }

    @Test
    void theBriefsAdviceIsTakenWithOnePressAndOverruledWithAReason() {
        change("/brief", "purpose", "TOPOGRAPHIC_PLAN", "smallest", "4.5 cm", "grade", "SURVEY", "positioning", "PPK");
        String page = visitor.get("/blocks/" + block + "/brief").body();
        assertThat(page).contains("4.50 cm must be seen").contains("where schools differ".substring(6));
        String taken = change("/brief/gsd/accept");
        assertThat(figure(taken, "gsd")).isEqualTo("1.50");
        change("/brief/overlaps/overrule", "note", "tried here last year");
        assertThat(visitor.get("/blocks/" + block + "/brief").body()).contains("you: tried here last year");
    }

    @Test
    void aContradictoryBriefIsSaidWithFigures() {
        String page = change(
                "/brief",
                "purpose",
                "ORTHOPHOTO",
                "smallest",
                "1 cm",
                "horizontal",
                "1 cm",
                "grade",
                "OWN",
                "positioning",
                "SINGLE");
        assertThat(page).contains("covers 0.5 pixels");
    }

    @ParameterizedTest
    @CsvSource({
        "smallest, 0.001 cm",
        "horizontal, -3 cm",
        "due, next week",
        "travel, soon",
        "targets, 5000",
    })
    void aBriefWithAnAbsurdFigureIsRefusedAndChangesNothing(String field, String value) {
        String before = visitor.version(block);
        String answer = change("/brief", "purpose", "ORTHOPHOTO", field, value);
        assertThat(answer).contains("class=\"notice\"");
        assertThat(visitor.version(block)).isEqualTo(before);
    }

    @Test
    void pinsThatCannotHoldAreNamedAndAPressMendsThem() {
        change("/ledger/photos", "value", "120");
        change("/ledger/gsd", "value", "1 cm");
        change("/ledger/side-overlap", "value", "70 %");
        String page = change("/ledger/forward-overlap", "value", "80 %");
        assertThat(page)
                .contains("These pins cannot all hold")
                .contains("photos 120")
                .contains("GSD 1 cm");
        String mends = visitor.mends(block, "kit", "pins-in-conflict");
        Matcher way = Pattern.compile(
                        "name=\"value\" value=\"([^\"]+)\"\\s*/>\\s*<button class=\"remedy\">\\s*<span>GSD")
                .matcher(mends);
        assertThat(way.find()).as(mends).isTrue();
        String mended = change("/ledger/gsd", "value", way.group(1));
        assertThat(mended).doesNotContain("These pins cannot all hold");
        assertThat(Integer.parseInt(figure(mended, "photos"))).isLessThanOrEqualTo(120);
    }

    /** Satellites alone know no height to 5 cm: better positions are offered, and a press asks for them. */
    @Test
    void heightsThatPositionsForbidAreMendedByPositions() {
        change("/brief", "purpose", "ORTHOPHOTO", "positioning", "SINGLE");
        String page = change("/ledger/heights-to", "value", "5 cm");
        assertThat(page).contains("worse than the 5.00 cm asked for").contains("are not known that well");
        assertThat(visitor.mends(block, "kit", "height-accuracy"))
                .contains("/brief/positioning\"")
                .contains("value=\"CONTROL\"")
                .contains("Control points on the ground")
                .doesNotContain("helps:");
        assertThat(change("/brief/positioning", "value", "BY_EYE")).contains("is not one of the choices");
        assertThat(change("/brief/positioning", "value", "")).contains("Choose how the positions");
        assertThat(change("/brief/positioning", "value", "CONTROL")).doesNotContain("worse than the 5.00 cm");
        assertThat(visitor.get("/blocks/" + block + "/history").body())
                .contains("positions by satellites alone, with control");
    }

    /** Several figures at once: all of them are pinned, and one way back takes all; nothing is pinned where one cannot be. */
    @Test
    void severalFiguresArePinnedWithOnePress() {
        String both = change("/pins", "shutter-time", "1/2000 s", "forward-overlap", "76 %");
        assertThat(figure(both, "shutter-time")).isEqualTo("1/2000");
        assertThat(figure(both, "forward-overlap")).isEqualTo("76");
        assertThat(visitor.get("/blocks/" + block + "/history").body()).contains("Forward 76 %, Shutter time 1/2000 s");
        String before = visitor.version(block);
        assertThat(change("/pins", "shutter-time", "1/1000 s", "forward-overlap", "far"))
                .contains("class=\"notice\"");
        assertThat(change("/pins", "nothing", "1")).contains("class=\"notice\"");
        assertThat(visitor.version(block)).isEqualTo(before);
        assertThat(figure(change("/undo"), "forward-overlap")).isEqualTo("80");
    }

    /** Neither better positions nor finer pixels give heights to 5 cm here: one press changes both, and one way back takes both. */
    @Test
    void whatTakesTwoChangesIsOnePress() {
        change("/ledger/heights-to", "value", "5 cm");
        change("/brief", "purpose", "ORTHOPHOTO", "positioning", "SINGLE");
        assertThat(change("/ledger/gsd", "value", "4 cm")).contains("worse than the 5.00 cm asked for");
        Matcher both = Pattern.compile(
                        "name=\"height\" value=\"([^\"]+)\"\\s*/>\\s*<input[^>]*name=\"value\" value=\"CONTROL\"")
                .matcher(visitor.mends(block, "kit", "height-accuracy"));
        assertThat(both.find()).isTrue();
        assertThat(change("/brief/positioning", "value", "CONTROL", "height", "small"))
                .contains("class=\"notice\"");
        String mended = change("/brief/positioning", "value", "CONTROL", "height", both.group(1));
        assertThat(mended).doesNotContain("worse than the 5.00 cm");
        assertThat(Double.parseDouble(figure(mended, "height")))
                .isEqualTo(Double.parseDouble(both.group(1).split(" ")[0]));
        assertThat(figure(mended, "brief-gsd")).isEqualTo("4.00");
        String back = change("/undo");
        assertThat(back).contains("worse than the 5.00 cm");
        assertThat(figure(back, "gsd")).isEqualTo("4.00");
    }

    /** What was asked for by a pinned GSD is asked for still, in sight, when a remedy takes the pin's place; one way back takes both. */
    @Test
    void aFinerPlanStillAsksForTheGsdThatWasPinned() {
        change("/ledger/heights-to", "value", "5 cm");
        change("/brief", "purpose", "ORTHOPHOTO", "positioning", "CONTROL");
        String coarse = change("/ledger/gsd", "value", "5 cm");
        assertThat(coarse).contains("worse than the 5.00 cm asked for").contains("pixels too large");
        Matcher way = Pattern.compile(
                        "name=\"act\" value=\"finer\"\\s*/>\\s*<input[^>]*name=\"value\" value=\"([^\"]+)\"")
                .matcher(visitor.mends(block, "kit", "height-accuracy"));
        assertThat(way.find()).isTrue();
        String finer = change("/ledger/height", "act", "finer", "value", way.group(1));
        assertThat(finer).doesNotContain("worse than the 5.00 cm asked for");
        assertThat(Double.parseDouble(figure(finer, "gsd"))).isLessThan(2.7);
        assertThat(figure(finer, "brief-gsd")).isEqualTo("5.00");
        String back = change("/undo");
        assertThat(figure(back, "gsd")).isEqualTo("5.00");
        assertThat(figure(back, "brief-gsd")).isEqualTo("–");
    }

    @Test
    void aScaleThatIsLetGoFollowsFromTheSpacing() {
        String let = change("/ledger/gsd", "act", "unpin");
        String before = figure(let, "height");
        String wider = change("/ledger/strip-spacing", "value", "60 m");
        assertThat(Double.parseDouble(figure(wider, "height"))).isGreaterThan(Double.parseDouble(before));
        assertThat(figure(wider, "strip-spacing")).isEqualTo("60.0");
    }

    @Test
    void aReasonForAPinIsKeptInTheHistoryAndPrinted() {
        change("/ledger/side-overlap", "value", "75 %");
        change("/ledger/side-overlap", "act", "note", "value", "heather, little texture");
        assertThat(visitor.get("/blocks/" + block + "/history").body()).contains("heather, little texture");
        assertThat(visitor.get("/blocks/" + block + "/print").body()).contains("heather, little texture");
    }

    private long idOf(String kind, String name) {
        Matcher matcher = Pattern.compile("/catalogue/" + kind + "/(\\d+)\">" + Pattern.quote(name) + "<")
                .matcher(visitor.get("/catalogue").body());
        assertThat(matcher.find()).as(name).isTrue();
        return Long.parseLong(matcher.group(1));
    }

    @Test
    void aKitInUseThatIsDeletedStaysWithItsBlock() {
        long multispectral = idOf("kit", "small multirotor, multispectral");
        visitor.get("/catalogue/kit/" + multispectral + "/copy");
        String taken = change("/kit", "kit", String.valueOf(multispectral));
        assertThat(taken).contains("4 files each");
        visitor.post("/catalogue/kit/0", copyForm(multispectral, "another multispectral"));
        long copy = idOf("kit", "another multispectral");
        change("/kit", "kit", String.valueOf(copy));
        visitor.post("/catalogue/kit/" + copy + "/delete");
        assertThat(visitor.get("/catalogue/kit/" + copy).statusCode()).isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/kit").body()).contains("another multispectral");
    }

    private static String[] copyForm(long from, String name) {
        return new String[] {
            "from",
            String.valueOf(from),
            "name",
            name,
            "aircraft",
            "keep",
            "camera0",
            "keep",
            "head0",
            "green",
            "files0",
            "1",
            "least0",
            "35",
            "camera1",
            "keep",
            "head1",
            "red",
            "files1",
            "1",
            "least1",
            "35",
            "files2",
            "1",
            "least2",
            "0",
            "files3",
            "1",
            "least3",
            "0",
            "files4",
            "1",
            "least4",
            "0",
            "files5",
            "1",
            "least5",
            "0",
            "scanner",
            "",
            "firmware",
            "2.1",
            "calibrated",
            "2026-09-01"
        };
    }

    @Test
    void aKitWithAScannerSetsThePaceAndAKitWithoutACameraIsRefused() {
        String taken = change("/kit", "kit", String.valueOf(idOf("kit", "large multirotor, lidar")));
        assertThat(figure(taken, "point-density")).isNotBlank();
        assertThat(taken).contains("held by <b>the aircraft</b>");
        long kit = idOf("kit", "small multirotor, 20 MP");
        String[] form = copyForm(kit, "nothing to see");
        form[7] = "";
        form[15] = "";
        assertThat(visitor.post("/catalogue/kit/0", form).body()).contains("Choose a leading camera");
    }

    @ParameterizedTest
    @CsvSource({"nominal, 0", "sets, 2.5", "reserve, 95 %", "bank, 80", "wind, -1", "maxSpeed, fast", "health, 5 %"})
    void anAircraftWithAnImpossibleFigureIsRefusedAndNothingTypedIsLost(String field, String value) {
        String[] form = {
            "name",
            "odd aircraft",
            "kind",
            "MULTIROTOR",
            "maxSpeed",
            "15",
            "transit",
            "15",
            "acceleration",
            "2.5",
            "turnSpeed",
            "1.5",
            "bank",
            "30",
            "climb",
            "4",
            "descent",
            "3",
            "wind",
            "10",
            "weather",
            "",
            "positioning",
            "SINGLE",
            "nominal",
            "30",
            "rtk",
            "",
            "health",
            "100",
            "measured",
            "",
            "reserve",
            "25",
            "sets",
            "4"
        };
        for (int i = 0; i < form.length; i += 2) {
            if (form[i].equals(field)) {
                form[i + 1] = value;
            }
        }
        var answer = visitor.post("/catalogue/aircraft/0", form);
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.body())
                .contains("class=\"fault\"")
                .contains("odd aircraft")
                .contains("value=\"" + value + "\"");
        assertThat(visitor.get("/catalogue").body()).doesNotContain("odd aircraft");
    }

    @Test
    void theCatalogueIsHandedOutAndTakenInAgain() {
        String file = visitor.get("/catalogue.json").body();
        assertThat(file).contains("yalosCatalogue").contains("small multirotor, multispectral");
        String answer = visitor.upload("/catalogue/import", "catalogue.json", file.getBytes(StandardCharsets.UTF_8))
                .body();
        assertThat(answer).contains("0 entries came in").contains("were there already");
        assertThat(visitor.get("/catalogue.json").body()).as("merged").isEqualTo(file);
        String other = file.replaceAll("\"windLimitMps\"\\s*:\\s*10.0", "\"windLimitMps\":9.0");
        assertThat(visitor.upload("/catalogue/import", "catalogue.json", other.getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("small multirotor (2)");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{ broken | not whole JSON",
                "{\"kits\": []} | no catalogue",
                "{\"yalosCatalogue\":1,\"scanners\":[{\"name\":\"x\",\"fieldOfViewRad\":9,\"pulsesPerSecond\":1,\"usableShare\":1,\"maxRangeM\":1}]} | Field of view",
                "{\"yalosCatalogue\":1,\"aircraft\":[{\"name\":\"y\"}]} | “y”",
                "{\"yalosCatalogue\":1,\"kits\":[{\"name\":\"z\",\"aircraft\":\"none\"}]} | “z”",
            })
    void aBrokenCatalogueFileBringsNothingIn(String content, String message) {
        String before = visitor.get("/catalogue.json").body();
        String answer = visitor.upload("/catalogue/import", "c.json", content.getBytes(StandardCharsets.UTF_8))
                .body();
        assertThat(answer).contains(message);
        assertThat(visitor.get("/catalogue.json").body()).isEqualTo(before);
    }

    @Test
    void anIssuedRevisionStaysAndIsComparedWithThePresentPlan() {
        change("/ledger/gsd", "value", "2 cm");
        visitor.post("/blocks/" + block + "/revisions", "note", "to the client");
        String frozen =
                visitor.get("/blocks/" + block + "/revisions/1/plan.geojson").body();
        String same = visitor.get("/blocks/" + block + "/revisions/1").body();
        assertThat(same).contains("The same as then.").contains("Every figure is as it was issued.");
        change("/ledger/gsd", "value", "3 cm");
        String differs = visitor.get("/blocks/" + block + "/revisions/1").body();
        assertThat(differs).contains("GSD: pinned 2 cm, now 3 cm.").contains("+50.0 %");
        assertThat(visitor.get("/blocks/" + block + "/revisions/1/plan.geojson").body())
                .isEqualTo(frozen);
        assertThat(visitor.get("/blocks/" + block + "/revisions/7").statusCode())
                .isEqualTo(404);
    }

    @Test
    void aTemplateCarriesSettingsButNoPlace() {
        change("/ledger/gsd", "value", "4 cm");
        visitor.post("/blocks/" + block + "/template", "name", "coarse " + made);
        long other = visitor.newBlock("Taker " + made, "-33.86, 151.21");
        Matcher matcher = Pattern.compile("/template/(\\d+)\"")
                .matcher(visitor.get("/blocks/" + other + "/history").body());
        String template = "";
        while (matcher.find()) {
            template = matcher.group(1);
        }
        visitor.post("/blocks/" + other + "/template/" + template, "version", visitor.version(other));
        assertThat(figure(visitor.get("/blocks/" + other + "/strips").body(), "gsd"))
                .isEqualTo("4.00");
        assertThat(visitor.get("/blocks/" + other + "/ground").body()).contains("-33.86");
    }

    @Test
    void anyStepCanBeGoneBackTo() {
        change("/ledger/gsd", "value", "2.2 cm");
        change("/ledger/gsd", "value", "2.4 cm");
        String history = visitor.get("/blocks/" + block + "/history").body();
        assertThat(history).contains("GSD 2.2 cm").contains("GSD 2.4 cm");
        visitor.post("/blocks/" + block + "/history/1", "version", visitor.version(block));
        assertThat(visitor.get("/blocks/" + block + "/strips").body()).contains("No outline yet");
    }

    @ParameterizedTest
    @CsvSource({"gsd, 2.1", "height, "})
    void kitsAreComparedAndTheDifferenceExplained(String equal, String nothing) {
        String page = visitor.get("/blocks/" + block + "/compare?equal=" + equal + "&kit="
                        + idOf("kit", "large multirotor, 45 MP full frame"))
                .body();
        assertThat(page).contains(equal.equals("gsd") ? "flies 2.13 times as high" : "times as coarsely");
    }

    @Test
    void wallsTiltAndCirclesAreComputedAndBadFiguresNamed() {
        String page = visitor.get("/blocks/" + block + "/object?distance=10+m&tilt=-60")
                .body();
        assertThat(page).contains("0.27 cm");
        assertThat(visitor.get("/blocks/" + block + "/object?distance=0").body())
                .contains("Distance must be between");
    }
}

package yalos.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.Reference;

/** Patterns over HTTP: passes added and changed, corridors, directions, lines and outlines from files of many kinds. */
@ExtendWith(RunningYalos.class)
class PatternPagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3449\n54.5154 -4.3449\n54.5154 -4.3489";

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5134, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private String strips(long block) {
        return visitor.get("/blocks/" + block + "/strips").body();
    }

    private JsonNode sheet(long block) {
        return JsonMapper.builder()
                .build()
                .readTree(visitor.get("/blocks/" + block + "/sheet.json").body());
    }

    private static int photos(String page) {
        Matcher figure =
                Pattern.compile("id=\"f-photos\"[^>]*value=\"([\\d,  ]+)\"").matcher(page);
        assertThat(figure.find()).isTrue();
        return Integer.parseInt(figure.group(1).replaceAll("\\D", ""));
    }

    @Test
    void passesAreAddedChangedAndTakenAway() {
        long block = block("Passes");
        int single = photos(strips(block));
        String crossed = visitor.change(block, "strips", "/passes/add", "pattern", "crossing");
        assertThat(crossed).contains("grid + crossing at 90°");
        assertThat(photos(strips(block))).isGreaterThan(single * 3 / 2);
        String higher = visitor.change(block, "strips", "/passes/1", "angle", "60", "height", "110 m", "side", "50 %");
        assertThat(higher).contains("crossing at 60°").contains("110 m");
        visitor.change(block, "strips", "/passes/add", "pattern", "tilted");
        String two = visitor.change(block, "strips", "/passes/2", "tilt", "25", "looks", "ahead", "looks", "back");
        assertThat(two).contains("tilted by 25°, looking ahead, back");
        JsonNode sheet = sheet(block);
        assertThat(sheet.get("tilted").size()).isEqualTo(2);
        assertThat(sheet.get("passOf").get(0).asInt()).isEqualTo(1);
        assertThat(visitor.change(block, "strips", "/start", "corner", "NORTH_WEST"))
                .contains("begun in the north-west");
        visitor.change(block, "strips", "/passes/1/remove");
        visitor.change(block, "strips", "/passes/1/remove");
        assertThat(photos(strips(block))).isEqualTo(single);
        visitor.change(block, "strips", "/undo");
        assertThat(strips(block)).contains("tilted by 25°");
    }

    private static int seconds(String page) {
        Matcher figure = Pattern.compile("id=\"f-flight-time\"[^>]*value=\"(\\d+):(\\d+)\"")
                .matcher(page);
        assertThat(figure.find()).isTrue();
        return 60 * Integer.parseInt(figure.group(1)) + Integer.parseInt(figure.group(2));
    }

    /** What rounding saves is told before it is taken, comes true about, and goes with undo. */
    @Test
    void turnsAreRoundedWhereThatIsQuicker() {
        long block = block("Rounded turns");
        String square = strips(block);
        Matcher told = Pattern.compile("rounded, it takes about (\\d+):(\\d+) min less")
                .matcher(square);
        assertThat(told.find()).isTrue();
        int promised = 60 * Integer.parseInt(told.group(1)) + Integer.parseInt(told.group(2));
        String round = visitor.change(block, "strips", "/turns", "rounded", "true");
        assertThat(round)
                .contains("turns rounded")
                .contains("where it takes least time")
                .doesNotContain("min less");
        assertThat(seconds(square) - seconds(strips(block))).isBetween(promised * 3 / 4, promised * 5 / 4 + 10);
        assertThat(visitor.get("/blocks/" + block + "/sheet.json").body()).isNotEmpty();
        visitor.change(block, "strips", "/undo");
        assertThat(seconds(strips(block))).isEqualTo(seconds(square));
    }

    @Test
    void aPassThatCannotBeFlownIsRefusedAndNothingIsLost() {
        long block = block("Refused passes");
        visitor.change(block, "strips", "/passes/add", "pattern", "tilted");
        String version = visitor.version(block);
        HttpResponse<String> refused = visitor.htmx(
                "/blocks/" + block + "/passes/1",
                "version",
                version,
                "stage",
                "strips",
                "tilt",
                "70",
                "looks",
                "ahead");
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("between 20° and 45°");
        HttpResponse<String> none =
                visitor.htmx("/blocks/" + block + "/passes/1", "version", version, "stage", "strips", "tilt", "30");
        assertThat(none.body()).contains("at least one");
        HttpResponse<String> gone =
                visitor.htmx("/blocks/" + block + "/passes/7/remove", "version", version, "stage", "strips");
        assertThat(gone.statusCode()).isEqualTo(400);
        assertThat(visitor.version(block)).isEqualTo(version);
        assertThat(strips(block)).contains("tilted by 30°");
    }

    @Test
    void anAxisMakesACorridorAndItsWidthsCanBeSet() {
        long block = visitor.newBlock("Tramway", "54.5134, -4.3489");
        visitor.change(
                block,
                "ground",
                "/corridor",
                "left",
                "10 m",
                "right",
                "60 ft",
                "axis",
                "54.5134 -4.3489\n54.5140 -4.3449\n54.5130 -4.3420");
        String page = visitor.get("/blocks/" + block + "/ground").body();
        assertThat(page).contains("60 ft").contains("Make it an area");
        assertThat(sheet(block).get("axis").size()).isEqualTo(6);
        assertThat(strips(block)).contains("Passes: corridor").contains("along the axis");
        visitor.change(block, "strips", "/ledger/direction", "act", "type", "value", "40");
        assertThat(strips(block)).contains("a corridor follows its axis");
        visitor.change(block, "ground", "/corridor/clear");
        assertThat(strips(block)).contains("Passes: single grid");
        HttpResponse<String> narrow = visitor.htmx(
                "/blocks/" + block + "/corridor",
                "version",
                visitor.version(block),
                "stage",
                "ground",
                "left",
                "0",
                "right",
                "0",
                "axis",
                "54.5134 -4.3489\n54.5140 -4.3449");
        assertThat(narrow.body()).contains("no width");
    }

    @Test
    void aDirectionIsTakenWithItsReason() {
        long block = block("Directions");
        visitor.change(block, "strips", "/ledger/wind", "act", "type", "value", "6 m/s");
        visitor.change(block, "strips", "/ledger/wind-from", "act", "type", "value", "40");
        String compared =
                visitor.get("/blocks/" + block + "/strips?why=what-if").body();
        assertThat(compared)
                .contains("least time")
                .contains("longest strips")
                .contains("shortest strips")
                .contains("into and away from the wind")
                .contains("across the wind");
        assertThat(visitor.change(block, "strips", "/direction", "by", "ACROSS_WIND"))
                .contains("strips across the wind");
        visitor.change(block, "strips", "/ledger/wind-from", "act", "type", "value", "100");
        assertThat(strips(block)).contains("Asked again that is");
        assertThat(visitor.change(block, "strips", "/ledger/direction", "act", "type", "value", "33"))
                .as("a direction that is typed was not laid across the wind")
                .doesNotContain("Asked again that is");
        visitor.change(block, "strips", "/undo");
        visitor.change(block, "strips", "/ledger/direction", "act", "unpin");
        visitor.change(block, "strips", "/ledger/direction", "act", "pin");
        assertThat(strips(block)).doesNotContain("Asked again that is");
    }

    @Test
    void linesBecomeAxesAndFilesOfManyKindsOutlines() {
        long block = visitor.newBlock("Files", "47.42, 11.32");
        String line = "{\"type\":\"LineString\",\"coordinates\":[[11.32,47.42],[11.33,47.421],[11.335,47.425]]}";
        visitor.bring(block, "ground", "/import", "axis.geojson", line.getBytes());
        assertThat(sheet(block).get("axis").size()).isEqualTo(6);
        visitor.bring(block, "ground", "/import", "field.gpkg", Reference.bytes("vector/polygon_hole_utm.gpkg"));
        assertThat(sheet(block).get("axis").isNull()).isTrue();
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("46.39");
        visitor.bring(block, "ground", "/import", "field.zip", Reference.bytes("vector/multipolygon_utm_shp.zip"));
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("54.07");
    }

    /** Metres without a system are asked for, and read once the code is typed. */
    @Test
    void aShapefileWithoutSystemIsAskedFor() {
        long block = visitor.newBlock("No prj", "47.42, 11.32");
        HttpResponse<String> asked = visitor.upload(
                "/blocks/" + block + "/import",
                "field.zip",
                Reference.bytes("vector/polygon_hole_utm_noprj_shp.zip"),
                "version",
                visitor.version(block),
                "stage",
                "ground");
        assertThat(asked.body()).contains("no .prj").contains("Read it in this system");
        Matcher token = Pattern.compile("name=\"token\"\\s+value=\"([^\"]+)\"").matcher(asked.body());
        assertThat(token.find()).isTrue();
        visitor.change(block, "ground", "/import/system", "token", token.group(1), "epsg", "EPSG:32632");
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("46.39");
    }

    private String corner(long block) {
        return sheet(block).get("rings").get(0).get(0).asDouble() + " "
                + sheet(block).get("rings").get(0).get(1).asDouble();
    }

    @Test
    void anOutlineIsMovedTurnedAndWidenedAsAWhole() {
        long block = block("Moved");
        JsonNode before = sheet(block);
        double east = before.get("rings").get(0).get(0).asDouble();
        double area = areaHa(block);
        visitor.change(block, "ground", "/outline/move", "east", "100 ft", "north", "-5 m");
        double scale = before.get("metresPerUnit").asDouble();
        assertThat(sheet(block).get("rings").get(0).get(0).asDouble())
                .isCloseTo(east + 30.48 / scale, Offset.offset(0.01));
        String corner = corner(block);
        visitor.change(block, "ground", "/outline/turn", "by", "360");
        visitor.change(block, "ground", "/outline/turn", "by", "30");
        assertThat(corner(block)).isNotEqualTo(corner);
        assertThat(areaHa(block)).isCloseTo(area, Offset.offset(0.01));
        visitor.change(block, "ground", "/outline/widen", "by", "2 strips");
        assertThat(areaHa(block)).isGreaterThan(area * 1.3);
        HttpResponse<String> gone = visitor.htmx(
                "/blocks/" + block + "/outline/widen",
                "version",
                visitor.version(block),
                "stage",
                "ground",
                "by",
                "-900 m");
        assertThat(gone.body()).contains("Nothing of the block would be left");
    }

    /** Half-way along an edge and 40 m out, typed as latitude and longitude, grid position or lettered reference. */
    @Test
    void aCornerIsAddedWhereItIsTyped() {
        long block = block("One more");
        int before = sheet(block).get("rings").get(0).size();
        double east = sheet(block).get("rings").get(0).get(0).asDouble();
        double north = sheet(block).get("rings").get(0).get(1).asDouble();
        String typed = "%.2f %.2f".formatted(east - 30, north - 30);
        visitor.change(block, "ground", "/corner/add", "position", typed);
        assertThat(sheet(block).get("rings").get(0).size()).isEqualTo(before + 2);
        assertThat(visitor.change(block, "ground", "/corner/add", "position", "nowhere"))
                .contains("nowhere");
    }

    @Test
    void spotsToTakeOffFromAreSuggestedAndTaken() {
        long block = block("Spots");
        String spots = visitor.get("/blocks/" + block + "/launch-spots").body();
        assertThat(spots).contains("100 % of the flight in sight", "Take it");
        Matcher position =
                Pattern.compile("name=\"position\" value=\"([^\"]+)\"").matcher(spots);
        assertThat(position.find()).isTrue();
        double before = sheet(block).get("launch").get(0).asDouble();
        visitor.change(block, "ground", "/launch", "position", position.group(1));
        assertThat(sheet(block).get("launch").get(0).asDouble())
                .isNotEqualTo(before)
                .isCloseTo(Double.parseDouble(position.group(1).split(" ")[0]), Offset.offset(0.02));
    }

    @Test
    void wideningIsSeenBeforeItIsDone() {
        long block = block("Seen before");
        String rings = visitor.get("/blocks/" + block + "/outline/widened.json?by=25%20m")
                .body();
        assertThat(rings).startsWith("[[");
        assertThat(visitor.get("/blocks/" + block + "/outline/widened.json?by=x")
                        .statusCode())
                .isEqualTo(400);
        double area = areaHa(block);
        visitor.change(block, "ground", "/outline/widen", "by", "25 m");
        assertThat(areaHa(block)).isGreaterThan(area);
        assertThat(Math.abs(JsonMapper.builder()
                                .build()
                                .readTree(rings)
                                .get(0)
                                .get(0)
                                .asDouble()
                        - sheet(block).get("rings").get(0).get(0).asDouble()))
                .as("the same outline")
                .isLessThan(0.01);
    }

    @Test
    void veryManyCornersAreSimplifiedOnlyWhenAsked() {
        long block = block("Round");
        StringBuilder positions = new StringBuilder();
        for (int i = 0; i < 1500; i++) {
            double at = 2 * Math.PI * i / 1500;
            positions
                    .append(i == 0 ? "" : ",")
                    .append("%.3f,%.3f".formatted(565_300 + 150 * Math.sin(at), 5_262_300 + 150 * Math.cos(at)));
        }
        visitor.change(block, "ground", "/outline/draw", "positions", positions.toString(), "epsg", "32632");
        String page = visitor.get("/blocks/" + block + "/ground").body();
        assertThat(page).contains("corners. ").contains(" would do: no edge moves by more than 0.1 m");
        double area = areaHa(block);
        visitor.change(block, "ground", "/outline/simplify", "by", "0.5 m");
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).doesNotContain("would do: no edge");
        assertThat(areaHa(block)).isCloseTo(area, Offset.offset(0.05));
        assertThat(visitor.get("/blocks/" + block + "/history").body()).contains("outline simplified within 0.5 m");
    }

    @Test
    void zonesAreDrawnAndHolesKeptOutOf() {
        long block = block("Zones");
        JsonNode rings = sheet(block).get("rings").get(0);
        double east = rings.get(0).asDouble();
        double north = rings.get(1).asDouble();
        String far =
                "%1$.1f %2$.1f%n%3$.1f %2$.1f%n%3$.1f %4$.1f".formatted(east + 5000, north, east + 5100, north + 100);
        assertThat(visitor.change(
                        block,
                        "ground",
                        "/zones/draw",
                        "places",
                        far,
                        "name",
                        "the field",
                        "kind",
                        "KEEP_IN",
                        "ceiling",
                        "120 m"))
                .contains("leaves “the field” (keep in, from 0.0 m to 120.0 m above ground)");
        assertThat(visitor.get("/blocks/" + block + "/sheet.json").body()).contains("\"kind\":\"keep-in\"");
        assertThat(visitor.change(block, "ground", "/holes/keep-out")).contains("The outline has no hole.");
    }

    private double areaHa(long block) {
        Matcher area = Pattern.compile("<b>([\\d.]+)</b> <span>ha</span>")
                .matcher(visitor.get("/blocks/" + block + "/ground").body());
        assertThat(area.find()).isTrue();
        return Double.parseDouble(area.group(1));
    }

    @Test
    void placesAreFoundAndOtherBlocksSeen() {
        long block = block("Places");
        String place = visitor.get("/blocks/" + block + "/place.json?position=30U%20VF%2012717%2041822")
                .body();
        assertThat(place).contains("\"east\":4127").contains("\"north\":60418");
        assertThat(visitor.get("/blocks/" + block + "/place.json?position=nowhere")
                        .statusCode())
                .isEqualTo(400);
        assertThat(visitor.get("/blocks/" + block + "/neighbours.json").body()).isEqualTo("[]");
        visitor.post("/blocks/" + block + "/copy");
        assertThat(visitor.get("/blocks/" + block + "/neighbours.json").body()).startsWith("[[");
    }

    @Test
    void stripsAreChangedByHandAndTakenBack() {
        long block = block("By hand");
        int whole = photos(strips(block));
        JsonNode sheet = sheet(block);
        double[] line = new double[4];
        for (int i = 0; i < 4; i++) {
            line[i] = sheet.get("strips").get(4 + i).asDouble();
        }
        String middle = (line[0] + line[2]) / 2 + "," + (line[1] + line[3]) / 2;
        String dropped = visitor.change(block, "strips", "/strips/edit", "kind", "DROP", "positions", middle);
        assertThat(dropped).contains("a strip dropped");
        assertThat(photos(strips(block))).isLessThan(whole);
        visitor.change(block, "strips", "/strips/edit/1/remove");
        assertThat(photos(strips(block))).isEqualTo(whole);
        visitor.change(
                block, "strips", "/strips/edit", "kind", "REACH", "positions", line[2] + "," + line[3], "photos", "3");
        assertThat(photos(strips(block))).isEqualTo(whole + 3);
        HttpResponse<String> refused = visitor.htmx(
                "/blocks/" + block + "/strips/edit",
                "version",
                visitor.version(block),
                "stage",
                "strips",
                "kind",
                "ADD",
                "positions",
                middle);
        assertThat(refused.statusCode()).isEqualTo(400);
        JsonNode played = JsonMapper.builder()
                .build()
                .readTree(visitor.get("/blocks/" + block + "/playback.json").body());
        int last = played.get("photos").size() - 1;
        assertThat(played.get("photos").get(last).asInt()).isEqualTo(whole + 3);
        assertThat(played.get("photos").get(0).asInt()).isZero();
        assertThat(played.get("aboveWhat").asString()).isEqualTo("take-off");
        assertThat(played.get("above").get(0).asDouble()).isZero();
        assertThat(played.get("used").get(0).asDouble()).isZero();
        assertThat(played.get("used").get(last).asDouble()).isBetween(0.01, 1.0);
    }
}

package yalos.web.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Objects stage over HTTP: objects typed, brought and changed, passes round them, faces proved, remedies taken. */
@ExtendWith(RunningYalos.class)
class ObjectsPagesTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    /** About the middle of the field, in whole metres of UTM 30N. */
    private static final double EAST = 412_806;

    private static final double NORTH = 6_041_591;

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private static String places(double... corners) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < corners.length; i += 2) {
            text.append(String.format(Locale.ROOT, "%.3f %.3f\n", EAST + corners[i], NORTH + corners[i + 1]));
        }
        return text.toString();
    }

    private static final String HOUSE = places(0, 0, 14, 0, 14, 8, 0, 8);

    private long block(String name) {
        return visitor.newBlock("Objects: " + name, "54.5134, -4.3489");
    }

    private String add(long block, String name, String... more) {
        List<String> form = new ArrayList<>(List.of("name", name, "places", HOUSE));
        form.addAll(Arrays.asList(more));
        form.addAll(Arrays.asList(more).contains("top") ? List.of() : List.of("top", "9"));
        return visitor.change(block, "objects", "/objects/add", form.toArray(String[]::new));
    }

    private String pass(long block, String pattern, String object) {
        return visitor.change(block, "objects", "/rounds/add", "pattern", pattern, "object", object);
    }

    private String faces(long block) {
        return visitor.get("/blocks/" + block + "/faces").body();
    }

    private JsonNode json(String path) {
        HttpResponse<String> answer = visitor.get(path);
        assertThat(answer.statusCode()).as(path).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    private String refused(long block, String path, String... form) {
        List<String> all = new ArrayList<>(Arrays.asList(form));
        all.addAll(List.of("version", visitor.version(block), "stage", "objects"));
        HttpResponse<String> answer = visitor.htmx("/blocks/" + block + path, all.toArray(String[]::new));
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(400);
        return answer.body();
    }

    @Test
    void anObjectIsTypedFlownRoundProvedAndUndone() throws IOException {
        long block = block("House alone");
        String empty = visitor.get("/blocks/" + block + "/objects").body();
        assertThat(empty).contains("No objects yet.");
        // A block without an outline gets one round the first object.
        String added = add(block, "house");
        assertThat(added).contains("house").contains("Nothing is flown round them.");
        String flown = pass(block, "facade", "house");
        assertThat(flown).contains("facade of “house”, 10 m off").contains("GSD 0.27 cm from 10.0 m");
        String alone = visitor.change(
                block, "objects", "/objects/settings", "clear", "4 m", "alone", "true", "oneView", "false");
        assertThat(alone).contains("Adequate").contains("not flown");
        String unrolled = faces(block);
        assertThat(unrolled).contains("wall facing S").contains("1.roof").contains("is given enough");
        byte[] picture = visitor.bytes("/blocks/" + block + "/faces/1/count.png");
        assertThat(ImageIO.read(new ByteArrayInputStream(picture)).getWidth()).isGreaterThan(20);
        JsonNode probe = json("/blocks/" + block + "/faces/1/probe.json?along=0.5&down=0.4");
        assertThat(probe.path("face").asString()).contains("house, wall facing S");
        assertThat(probe.path("photos").size()).isGreaterThan(4);
        assertThat(probe.path("figures").get(1).path("figure").asString())
                .isEqualTo("" + probe.path("photos").size());
        assertThat(visitor.get("/blocks/" + block + "/faces/1/probe.json?along=1.5&down=0.4")
                        .statusCode())
                .isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/faces/99/count.png").statusCode())
                .isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/faces/1/nothing.png").statusCode())
                .isEqualTo(404);
        String undone = visitor.change(block, "objects", "/undo");
        assertThat(undone).doesNotContain("Adequate but").contains("facade of “house”");
    }

    /** What is flown round objects is in every file, in space, on the clock and in the section. */
    @Test
    void everythingElseReadsTheSameFlight() {
        long block = block("House in files");
        add(block, "house");
        pass(block, "rings", "house");
        visitor.change(block, "objects", "/objects/settings", "clear", "4 m", "alone", "true");
        JsonNode scene = json("/blocks/" + block + "/scene.json");
        int photos = scene.path("passes").size();
        assertThat(photos).isGreaterThan(20);
        assertThat(scene.path("stations").size()).isEqualTo(6 * photos);
        assertThat(scene.path("solids").size()).isEqualTo(1);
        assertThat(scene.path("plates").size()).isEqualTo(5);
        JsonNode solid = scene.path("solids").get(0);
        assertThat(solid.path("top").asDouble() - solid.path("bottom").asDouble())
                .isCloseTo(9, within(1e-6));
        // The roof lies on the solid's top; each wall reaches from its foot to it.
        assertThat(scene.path("plates").get(4).path("corners").get(2).asDouble())
                .isEqualTo(solid.path("top").asDouble());
        assertThat(scene.path("plates").get(0).path("corners").get(2).asDouble())
                .isEqualTo(solid.path("top").asDouble());
        assertThat(scene.path("plates").get(0).path("corners").get(8).asDouble())
                .isEqualTo(solid.path("bottom").asDouble());
        String csv = visitor.get("/blocks/" + block + "/export/plan.csv").body();
        assertThat(csv.lines().filter(line -> !line.startsWith("#")).count()).isEqualTo(photos + 1);
        JsonNode sheet = json("/blocks/" + block + "/sheet.json");
        assertThat(sheet.path("stations").size()).isEqualTo(2 * photos);
        assertThat(sheet.path("things").get(0).path("kind").asString()).isEqualTo("object");
        assertThat(json("/blocks/" + block + "/playback.json").isObject()).isTrue();
        for (String page :
                List.of("strips", "proof", "control", "sorties", "field-pack", "fly", "take", "log", "print")) {
            assertThat(visitor.get("/blocks/" + block + "/" + page).statusCode())
                    .as(page)
                    .isEqualTo(200);
        }
        assertThat(visitor.get("/blocks/" + block + "/proof").body()).contains("Nothing is flown over the ground here");
        assertThat(visitor.get("/blocks/" + block + "/print").body()).contains("rings round “house”");
    }

    @Test
    void stripsStayAndTheObjectIsCheckedAgainstThem() {
        long block = block("Low strips over a chimney");
        visitor.change(
                block,
                "ground",
                "/import",
                "text",
                "54.5134 -4.3489\n54.5134 -4.3449\n54.5154 -4.3449\n54.5154 -4.3489");
        visitor.change(block, "strips", "/ledger/height", "act", "type", "value", "30 m");
        String told = visitor.change(
                block,
                "objects",
                "/objects/add",
                "name",
                "chimney",
                "places",
                places(0, 0, 30, 0, 30, 30, 0, 30),
                "top",
                "40");
        assertThat(told).contains("The path comes within 0.0 m of “chimney”");
    }

    @Test
    void passesAreChangedAndTakeTheFigureTypedLast() {
        long block = block("Passes changed");
        add(block, "house");
        pass(block, "facade", "house");
        String byGsd = visitor.change(
                block,
                "objects",
                "/rounds/1",
                "off",
                "10 m",
                "gsd",
                "2 mm",
                "forward",
                "80 %",
                "side",
                "70 %",
                "rounded",
                "no");
        assertThat(byGsd).contains("as far off as 2 mm GSD allows").contains("GSD 0.20 cm");
        String byDistance = visitor.change(block, "objects", "/rounds/1", "off", "8 m", "gsd", "2 mm", "runs", "up");
        assertThat(byDistance).contains("8 m off, up and down");
        assertThat(pass(block, "circles", "")).contains("circles of radius 40 m");
        assertThat(pass(block, "under-deck", "house")).contains("has no deck");
        String away = visitor.change(block, "objects", "/rounds/3/remove");
        assertThat(away).doesNotContain("has no deck");
        String renamed = visitor.change(block, "objects", "/objects/change", "object", "house", "name", "barn");
        assertThat(renamed).contains("facade of “barn”").doesNotContain("facade of “house”");
        String table = visitor.get("/blocks/" + block + "/rounds/1/compare").body();
        assertThat(table).contains("8.0 m, now").contains("4.0 m").contains("16.0 m");
        String taken = visitor.change(block, "objects", "/rounds/1/size", "value", "12 m");
        assertThat(taken).contains("12 m off");
    }

    @Test
    void facesThatNeedNoneAndPartsAreChanged() {
        long block = block("Parts");
        add(block, "tower");
        String two = visitor.change(
                block,
                "objects",
                "/objects/add",
                "to",
                "tower",
                "places",
                places(4, 2, 8, 2, 8, 6, 4, 6),
                "bottom",
                "9",
                "top",
                "20");
        assertThat(two).contains("part 2");
        pass(block, "rings", "tower");
        String off = visitor.change(
                block,
                "objects",
                "/objects/change",
                "object",
                "tower",
                "name",
                "tower",
                "known",
                "1.roof",
                "known",
                "2.roof",
                "face",
                "2.roof",
                "bottom",
                "0",
                "bottom",
                "9",
                "top",
                "9",
                "top",
                "22");
        assertThat(off).contains("part 1, roof");
        assertThat(faces(block)).doesNotContain("1.roof").contains("2.roof");
        String one = visitor.change(block, "objects", "/objects/remove-part", "object", "tower", "part", "2");
        assertThat(one).doesNotContain("part 2");
        assertThat(visitor.change(block, "objects", "/objects/remove", "object", "tower"))
                .contains("No objects yet.");
    }

    @Test
    void aBridgeIsFlownUnderWithItsCautions() {
        long block = block("Bridge");
        String deck = visitor.change(
                block,
                "objects",
                "/objects/add",
                "name",
                "bridge",
                "kind",
                "DECK",
                "places",
                places(0, 0, 40, 0),
                "width",
                "5 m",
                "bottom",
                "12",
                "top",
                "13",
                "piers",
                "1");
        assertThat(deck).contains("bridge");
        visitor.change(block, "objects", "/objects/settings", "clear", "3 m", "alone", "false");
        String under = pass(block, "under-deck", "bridge");
        assertThat(under)
                .contains("looking up at 90")
                .contains("most likely without satellites")
                .contains("photos left out");
        assertThat(faces(block)).contains("underside").contains("pier 1");
    }

    @Test
    void obstaclesBecomeObjectsAndBack() {
        long block = block("Obstacle and object");
        add(block, "house");
        visitor.change(
                block,
                "ground",
                "/obstacles",
                "kind",
                "MAST",
                "name",
                "beacon",
                "places",
                places(20, 20),
                "height",
                "12 m");
        String made = visitor.change(block, "objects", "/objects/from-obstacle", "at", "0");
        assertThat(made).contains("beacon");
        assertThat(json("/blocks/" + block + "/sheet.json").path("things").size())
                .isEqualTo(2);
        String back = visitor.change(block, "objects", "/objects/to-obstacle", "object", "beacon");
        assertThat(back).contains("From an obstacle of the site");
        assertThat(visitor.get("/blocks/" + block + "/ground").body()).contains("beacon");
    }

    @Test
    void footprintsComeFromAFile() {
        long block = block("Footprints of a file");
        add(block, "house");
        String file = """
                {"type":"FeatureCollection","features":[
                 {"type":"Feature","properties":{"name":"shed"},"geometry":{"type":"Polygon","coordinates":[[[-4.3470,54.5140],[-4.3468,54.5140],[-4.3468,54.5141],[-4.3470,54.5141],[-4.3470,54.5140]]]}},
                 {"type":"Feature","properties":{"name":"shed"},"geometry":{"type":"Polygon","coordinates":[[[-4.3460,54.5140],[-4.3458,54.5140],[-4.3458,54.5141],[-4.3460,54.5141],[-4.3460,54.5140]]]}}]}""";
        String brought = visitor.bring(
                block, "objects", "/objects/file", "sheds.geojson", file.getBytes(StandardCharsets.UTF_8), "top", "6");
        assertThat(brought).contains("shed 2").contains(">shed<");
    }

    @Test
    void remediesAreTriedAndTaken() {
        long block = block("Weak roof");
        add(block, "house");
        pass(block, "facade", "house");
        visitor.change(block, "objects", "/objects/settings", "clear", "4 m", "alone", "true");
        String weak = visitor.change(
                block,
                "objects",
                "/rounds/1",
                "off",
                "10 m",
                "footTilt",
                "0",
                "roofTilt",
                "0",
                "overRoof",
                "no",
                "forward",
                "80 %",
                "side",
                "70 %");
        assertThat(weak).contains("Not adequate");
        String remedies = visitor.get("/blocks/" + block + "/objects/remedies").body();
        assertThat(remedies)
                .contains("Fly straight down over the roof of pass 1")
                .contains("instead of");
        String mended = visitor.change(block, "objects", "/objects/remedy", "key", "roof-1");
        assertThat(mended).contains("Adequate");
        assertThat(refused(block, "/objects/remedy", "key", "roof-1")).contains("does not help any more");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "top=2;bottom=5|must lie above it",
                "kind=WALL;width=1;line=0 0 0 0|length is nothing",
                "line=0 0 5 5 5 0 0 5|crosses itself",
                "line=0 0 5 5|three different corners",
                "top=five|“five”",
                "kind=DECK;top=3|hangs above the ground",
            })
    void whatCannotStandIsRefusedBesideItsField(String typed, String sentence) {
        long block = block("Refused " + Math.abs(typed.hashCode()));
        add(block, "house");
        List<String> form = new ArrayList<>(List.of("name", "new"));
        String line = HOUSE;
        String top = "9";
        for (String part : typed.split(";")) {
            String[] pair = part.split("=");
            if (pair[0].equals("line")) {
                line = places(Arrays.stream(pair[1].split(" "))
                        .mapToDouble(Double::parseDouble)
                        .toArray());
            } else if (pair[0].equals("top")) {
                top = pair[1];
            } else {
                form.addAll(List.of(pair));
            }
        }
        form.addAll(List.of("places", line, "top", top));
        assertThat(refused(block, "/objects/add", form.toArray(String[]::new))).contains(sentence);
    }

    @Test
    void whatCannotBeFlownIsSaidAndNothingIsLost() {
        long block = block("Cannot be flown");
        add(block, "house");
        pass(block, "rings", "house");
        String inside =
                visitor.change(block, "objects", "/rounds/1", "off", "15 m", "radius", "6 m", "forward", "80 %");
        assertThat(inside).contains("The radius must be").contains("not flown; the findings say why");
        assertThat(refused(block, "/rounds/1", "off", "15 m", "floor", "9 m", "ceiling", "4 m"))
                .contains("must lie above the floor");
        assertThat(refused(block, "/rounds/7", "off", "15 m")).contains("no such pass");
        assertThat(refused(block, "/objects/settings", "clear", "0.1 m")).contains("between 0.5 and 200");
        String geoid = visitor.change(
                block,
                "objects",
                "/objects/add",
                "name",
                "gauge",
                "places",
                places(30, 0, 34, 0, 34, 4),
                "bottom",
                "100",
                "top",
                "120",
                "counted",
                "GEOID");
        assertThat(geoid).contains("count from the geoid, and no model tells where the ground is");
        assertThat(visitor.get("/blocks/" + block + "/rounds/9/compare").statusCode())
                .isEqualTo(404);
    }

    @Test
    void feetAreReadAndShown() {
        long block = block("Feet");
        visitor.post("/units", "HEIGHT", "FOOT", "DISTANCE", "FOOT", "back", "/");
        try {
            add(block, "house", "top", "30");
            String flown = pass(block, "rings", "house");
            // What is usual is round in feet too, about 15 m; what is typed in feet stands as typed.
            assertThat(flown)
                    .contains("rings round “house”, 50 ft off")
                    .contains("from 50.0 ft")
                    .contains("name=\"top\" value=\"30.0\"");
            String typed = visitor.change(block, "objects", "/rounds/1", "object", "house", "off", "60", "low", "20");
            assertThat(typed)
                    .contains("60 ft off")
                    .contains("name=\"low\" value=\"20 ft\"")
                    .contains("from 60.0 ft");
        } finally {
            visitor.post("/units", "HEIGHT", "METRE", "DISTANCE", "METRE", "back", "/");
        }
    }
}

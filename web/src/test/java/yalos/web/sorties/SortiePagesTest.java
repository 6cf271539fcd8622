package yalos.web.sorties;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Sorties stage over HTTP: cut, launched from elsewhere, judged by the weather, signed. */
@ExtendWith(RunningYalos.class)
class SortiePagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3419\n54.5174 -4.3419\n54.5174 -4.3489";
    private static final String LAUNCH = "54.5130, -4.3489";

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, LAUNCH);
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private String page(long block) {
        return visitor.get("/blocks/" + block + "/sorties").body();
    }

    private String change(long block, String path, String... values) {
        return visitor.change(block, "sorties", "/sorties/" + path, values);
    }

    /** The page once everything in it has come; it is asked for as the page asks. */
    private String settled(long block) {
        String page = page(block);
        while (page.contains("data-running=\"true\"")) {
            LockSupport.parkNanos(50_000_000);
            page = page(block);
        }
        return page;
    }

    private String day(long block) {
        String day = "data-running=\"true\"";
        while (day.contains("data-running=\"true\"")) {
            LockSupport.parkNanos(50_000_000);
            day = visitor.get("/blocks/" + block + "/sorties/day").body();
        }
        return day;
    }

    private JsonNode sheet(long block) {
        return JsonMapper.builder()
                .build()
                .readTree(visitor.get("/blocks/" + block + "/sorties.json").body());
    }

    @Test
    void sortiesAreCutWithTheirMarginAndWhatToSet() {
        long block = block("Sorties cut");
        String page = settled(block);
        assertThat(page)
                .contains("least margin home")
                .contains("return height")
                .contains("distance fence")
                .contains("Nobody has tried yet what this aircraft does")
                .contains("places found, the best first")
                .contains("Light and shadow");
        JsonNode sheet = sheet(block);
        assertThat(sheet.get("sorties").size()).isGreaterThan(0);
        assertThat(sheet.get("launches").size()).isEqualTo(1);
        assertThat(sheet.get("running").asBoolean()).isFalse();
        String energy = visitor.get("/blocks/" + block + "/sorties/1/energy").body();
        assertThat(energy).contains("least margin,").contains("<svg class=\"chart\"");
        assertThat(visitor.get("/blocks/" + block + "/sorties/99/energy").statusCode())
                .isEqualTo(404);
        assertThat(visitor.get("/blocks/" + block + "/strips").body()).contains("sortie");
    }

    @Test
    void aLaunchPointIsAddedMovedAndTakenAway() {
        long block = block("Sorties launched");
        String added = change(block, "launches", "place", "54.5176, -4.3419", "name", "ford gate");
        assertThat(added).contains("ford gate");
        assertThat(sheet(block).get("launches").size()).isEqualTo(2);
        String edited = change(block, "launches/edit", "at", "0", "name", "top gate", "place", "54.5177, -4.3420");
        assertThat(edited).contains("top gate").doesNotContain("ford gate");
        assertThat(change(block, "launches/remove", "at", "7")).contains("It is gone already");
        assertThat(change(block, "launches/remove", "at", "0")).doesNotContain("top gate");
        assertThat(change(block, "launches/move", "at", "-1", "place", "54.30, -4.10"))
                .contains("One battery does not reach station");
        assertThat(change(block, "pilot", "place", "54.5150, -4.3450")).contains("Sorties");
        assertThat(sheet(block).get("pilot").size()).isEqualTo(2);
    }

    @Test
    void settingsAreJudged() {
        long block = block("Sorties set");
        String low = change(
                block,
                "settings",
                "eye",
                "1.7 m",
                "span",
                "14 in",
                "charge",
                "70 %",
                "repeated",
                "3",
                "returnHeight",
                "10 m",
                "margin",
                "20 m",
                "fenceMargin",
                "50 m",
                "fence",
                "STOPS",
                "lostLink",
                "HOVER",
                "satellites",
                "true");
        assertThat(low)
                .contains("is at 70 % at take-off")
                .contains("Return height 10.0 m clears what stands on the way home by")
                .doesNotContain("Nobody has tried yet");
        assertThat(change(
                        block,
                        "settings",
                        "eye",
                        "1.7 m",
                        "charge",
                        "20 %",
                        "repeated",
                        "2",
                        "margin",
                        "20 m",
                        "fenceMargin",
                        "50 m",
                        "fence",
                        "UNKNOWN",
                        "lostLink",
                        "RETURN"))
                .contains("the charge at take-off is no more than the reserve");
        assertThat(change(
                        block,
                        "settings",
                        "eye",
                        "high",
                        "charge",
                        "100 %",
                        "repeated",
                        "2",
                        "margin",
                        "20 m",
                        "fenceMargin",
                        "50 m",
                        "fence",
                        "UNKNOWN",
                        "lostLink",
                        "RETURN"))
                .contains("high");
    }

    @Test
    void theDayFollowsItsStartItsWeatherAndItsBatteries() {
        long block = block("Sorties day");
        change(
                block,
                "day",
                "date",
                "2027-04-30",
                "zone",
                "Europe/London",
                "change",
                "4",
                "panel",
                "5",
                "chargers",
                "0",
                "charge",
                "60",
                "earlier",
                "2026-05-02 10:30");
        settled(block);
        assertThat(page(block)).contains("The same sun at");
        assertThat(day(block)).contains("data-sortie=\"1\"").contains("latest leaving that still works");
        assertThat(change(block, "start", "start", "12:00")).contains("Sorties");
        assertThat(day(block)).contains("leave 12:00");
        assertThat(change(block, "weather/simulated")).contains("limit 8.0").contains("stop");
        assertThat(day(block)).contains("wait for wind");
        change(block, "start", "start", "07:30");
        assertThat(day(block)).doesNotContain("wait for wind");
        change(block, "hold", "sortie", "1", "at", "10:15");
        assertThat(day(block)).contains("data-sortie=\"1\" data-minute=\"615.0\"");
        assertThat(change(block, "start", "start", "soon")).contains("is no time");
        assertThat(change(block, "weather/clear")).contains("Weather: not told yet");
        assertThat(change(block, "weather", "at", "09:00", "wind", "30 km/h", "gust", "", "rain", "2 mm"))
                .contains("rain 2.0 mm");
        assertThat(change(block, "limits", "wind", "40 m/s", "gust", "50 m/s", "cold", "-5 °C", "visibility", "5 km"))
                .contains("own 10.0 m/s");
        assertThat(change(block, "limits", "wind", "90 m/s", "gust", "50 m/s", "cold", "-5 °C", "visibility", "5 km"))
                .contains("must be between");
    }

    /** Where the light of an earlier flight is wanted, the day is laid round it and not round noon. */
    @Test
    void theDayIsLaidRoundTheLightThatIsWanted() {
        long block = block("Sorties in the same light");
        String[] rest = {
            "date", "2027-04-30", "zone", "Europe/London", "change", "4", "panel", "5", "chargers", "0", "charge", "60"
        };
        for (String wanted : new String[] {"09:40", "15:10"}) {
            change(block, "day", joined(rest, "earlier", "2026-05-02 " + wanted));
            settled(block);
            Matcher same = Pattern.compile("The same sun at.{0,40}?(\\d\\d):(\\d\\d)", Pattern.DOTALL)
                    .matcher(page(block));
            assertThat(same.find()).isTrue();
            int light = minute(same.group(1), same.group(2));
            assertThat(middle(day(block))).as(wanted).isCloseTo(light, within(5.0));
        }
        change(block, "day", joined(rest, "earlier", ""));
        settled(block);
        // Noon by the sun 4.34° west, in summer time: 13:00 + 17 min 22 s − 2 min 50 s of the equation of time.
        assertThat(middle(day(block))).isCloseTo(794.5, within(5.0));
    }

    /** The middle of flying as the chart of the day tells it, minutes of the day. */
    private static double middle(String day) {
        List<Integer> minutes = Pattern.compile("data-sortie=[^>]*>\\s*<title>(\\d\\d):(\\d\\d) to (\\d\\d):(\\d\\d)")
                .matcher(day)
                .results()
                .flatMap(one -> Stream.of(minute(one.group(1), one.group(2)), minute(one.group(3), one.group(4))))
                .sorted()
                .toList();
        return (minutes.get(0) + minutes.get(minutes.size() - 1)) / 2.0;
    }

    private static int minute(String hours, String minutes) {
        return 60 * Integer.parseInt(hours) + Integer.parseInt(minutes);
    }

    /** Midwinter north of the polar circle, and midsummer: the day has no light, or no night. */
    @Test
    void polarDaysAreTold() {
        long block = visitor.newBlock("Sorties polar", "70.0000, 25.0000");
        visitor.change(
                block,
                "ground",
                "/import",
                "text",
                "70.0002 25.0000\n70.0002 25.0080\n70.0022 25.0080\n70.0022 25.0000");
        String[] rest = {"change", "4", "panel", "5", "chargers", "0", "charge", "60"};
        change(block, "day", joined(rest, "date", "2026-12-21", "zone", "UTC+1"));
        assertThat(settled(block)).contains("the sun does not rise").contains("On this day no light serves");
        assertThat(day(block)).contains("finds no").contains("no time of leaving works");
        change(block, "day", joined(rest, "date", "2027-06-21", "zone", "UTC+1"));
        assertThat(settled(block)).contains("highest at");
        assertThat(day(block)).contains("latest leaving");
        assertThat(change(block, "day", joined(rest, "date", "2027-06-21", "zone", "Moon/Base")))
                .contains("is no time zone");
        assertThat(change(block, "day", joined(rest, "date", "21.6.27", "zone", "")))
                .contains("is no date");
    }

    private static String[] joined(String[] rest, String... more) {
        String[] all = Arrays.copyOf(rest, rest.length + more.length);
        System.arraycopy(more, 0, all, rest.length, more.length);
        return all;
    }

    @Test
    void shadowsComeAsAPicture() {
        long block = block("Sorties shade");
        change(
                block,
                "day",
                "date",
                "2027-04-30",
                "zone",
                "Europe/London",
                "change",
                "4",
                "panel",
                "5",
                "chargers",
                "0",
                "charge",
                "60");
        assertThat(visitor.get("/blocks/" + block + "/sorties/shade.png?minute=600")
                        .statusCode())
                .isEqualTo(200);
        assertThat(visitor.get("/blocks/" + block + "/sorties/shade.png?minute=9000")
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void batteriesAndMeasuredFlightsCorrectTheFigures() {
        long block = block("Sorties batteries");
        String path = "/blocks/" + block + "/sorties";
        String before = settled(block);
        visitor.post(path + "/consumption", "took", "52 % in 12 min", "wind", "3 m/s", "air", "12 °C", "note", "trial");
        assertThat(visitor.get(path + "/batteries").body())
                .contains("1 flight took")
                .contains("more than the kit");
        assertThat(page(block)).contains("1 measured flight took").isNotEqualTo(before);
        assertThat(visitor.post(path + "/consumption", "took", "half of it").body())
                .contains("no measured use");
        assertThat(visitor.post(path + "/consumption", "took", "90 % in 1 min").body())
                .contains("times what the kit");
        String id =
                visitor.get(path + "/batteries").body().replaceAll("(?s).*name=\"flight\" value=\"(\\d+)\".*", "$1");
        assertThat(visitor.post(path + "/consumption/leave", "flight", id, "reason", "")
                        .body())
                .contains("Say why");
        visitor.post(path + "/consumption/leave", "flight", id, "reason", "another aircraft");
        assertThat(visitor.get(path + "/batteries").body())
                .contains("left out: another aircraft")
                .contains("Nothing is measured yet");
        visitor.post(path + "/batteries", "name", "Z9", "cycles", "40", "capacity", "90 %", "charge", "43 %");
        assertThat(visitor.get(path + "/batteries").body()).contains("Z9").contains("43 %");
        assertThat(page(block)).contains("Battery Z9 is at 43 % at take-off");
        assertThat(visitor.post(path + "/batteries", "name", "Z9", "charge", "180 %")
                        .body())
                .contains("must be between");
        visitor.post(path + "/batteries/retire", "name", "Z9", "reason", "swollen");
        assertThat(visitor.get(path + "/batteries").body()).doesNotContain("Z9");
    }

    @Test
    void sortiesAreTakenAwayInOneZip() throws IOException {
        long block = block("Sorties zip");
        change(
                block,
                "settings",
                "eye",
                "1.7 m",
                "charge",
                "60 %",
                "repeated",
                "2",
                "margin",
                "20 m",
                "fenceMargin",
                "50 m",
                "fence",
                "STOPS",
                "lostLink",
                "RETURN",
                "satellites",
                "true");
        int sorties = sheet(block).get("sorties").size();
        assertThat(sorties).isGreaterThan(1);
        byte[] bytes = visitor.bytes("/blocks/" + block + "/field-pack/pack.zip");
        Map<String, String> files = new TreeMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                files.put(entry.getName(), new String(zip.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        assertThat(files).containsKeys("README.txt", "sorties/sortie-1.kml", "sorties/sortie-2.gpx");
        assertThat(files.keySet().stream().filter(name -> name.startsWith("sorties/")))
                .hasSize(6 * sorties);
        assertThat(files.get("README.txt")).contains("Sortie 2: stations").contains("authorises nothing");
        JsonNode second = JsonMapper.builder().build().readTree(files.get("sorties/sortie-2.geojson"));
        long rows = files.get("sorties/sortie-2.csv").lines().count() - 1;
        assertThat(second.get("summary").get("stations").asLong()).isEqualTo(rows);
        String first =
                files.get("sorties/sortie-1.csv").lines().reduce((a, b) -> b).orElseThrow();
        String next =
                files.get("sorties/sortie-2.csv").lines().skip(1).findFirst().orElseThrow();
        int last = Integer.parseInt(first.split(",")[0]);
        assertThat(Integer.parseInt(next.split(",")[0])).isBetween(last - 1, last + 1);
    }
}

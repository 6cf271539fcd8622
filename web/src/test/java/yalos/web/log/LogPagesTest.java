package yalos.web.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.logbook.Totals;
import yalos.web.RunningYalos;
import yalos.web.Visitor;
import yalos.web.block.Blocks;
import yalos.web.store.ControlMapper;
import yalos.web.store.ControlMapper.ObservationRow;
import yalos.web.store.FieldMapper;
import yalos.web.store.LogMapper.Wanted;

/** The Log stage over HTTP with the demo job: flights typed, mended, left out, found, added up; the same again; seasons; home and the report. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class LogPagesTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String MEADOW = "/blocks/3";

    private ConfigurableApplicationContext application;
    private Visitor visitor;

    @BeforeAll
    void start() {
        application = RunningYalos.demo();
        visitor = new Visitor("http://127.0.0.1:" + RunningYalos.portOf(application));
    }

    @AfterAll
    void stop() {
        application.close();
    }

    private static String plain(String html) {
        return html.replaceAll("<[^>]*>", " ").replaceAll("\\s+", " ");
    }

    private String page(String path) {
        return plain(visitor.get(path).body());
    }

    private FlightLog log() {
        return application.getBean(FlightLog.class);
    }

    private String[] typed(String... changes) {
        List<String> form = new ArrayList<>(List.of(
                "start",
                "2026-11-02 09:15",
                "minutes",
                "8.5",
                "aircraft",
                "trial wing",
                "payload",
                "camera",
                "crew",
                "C. Third, pilot\nB. Watcher, observer",
                "packs",
                "W1 98 41\nW2",
                "photos",
                "120",
                "wind",
                "5 m/s",
                "gust",
                "8 m/s",
                "from",
                "250",
                "air",
                "6 °C",
                "weather",
                "low sun",
                "satellites",
                "15",
                "base",
                "mark 7",
                "happenings",
                "09:20 mist over the tarn\nincident 09:21 link lost for 4 s / C. Third\ndecision strip 3 flown again because a dog ran over it",
                "notes",
                "typed for the test",
                "counted",
                "true"));
        for (int i = 0; i < changes.length; i += 2) {
            form.set(form.indexOf(changes[i]) + 1, changes[i + 1]);
        }
        return form.toArray(String[]::new);
    }

    /** Takes a flight into the log of a block; gives its address. */
    private String flight(long block, String... form) {
        String log = "/blocks/" + block + "/log";
        assertThat(visitor.post(log + "/flights", form).uri().getPath()).isEqualTo(log);
        return "/log/flights/"
                + application
                        .getBean(JdbcTemplate.class)
                        .queryForObject("select max(id) from flight where block_id = ?", Long.class, block);
    }

    @Test
    void aFlightIsTypedFoundAddedUpMendedAndLeftOut() {
        assertThat(visitor.post(MEADOW + "/log/flights", typed()).uri().getPath())
                .isEqualTo(MEADOW + "/log");
        String found = visitor.get("/log?aircraft=trial+wing").body();
        assertThat(plain(found))
                .contains("1 flight, 8:30 min in the air")
                .contains("W1 98→41 %, W2")
                .contains("wind 5.0 m/s from 250°, gusts 8.0 m/s, 6 °C; low sun")
                .contains("1 incident");
        Matcher id = Pattern.compile("/log/flights/(\\d+)").matcher(found);
        assertThat(id.find()).isTrue();
        long flight = Long.parseLong(id.group(1));
        // Every way to find it, and not where it is not.
        for (String query : new String[] {
            "person=b.+watcher&from=2026-11-01",
            "battery=w2",
            "text=dog+ran",
            "from=2026-11-02&to=2026-11-02",
            "place=54.51,-4.35&km=3&aircraft=trial+wing"
        }) {
            assertThat(visitor.get("/log?" + query).body()).as(query).contains("/log/flights/" + flight);
        }
        for (String query :
                new String[] {"person=Nobody", "battery=T1", "from=2026-11-03", "place=10,+10", "to=2026-11-01"}) {
            assertThat(visitor.get("/log?" + query).body()).as(query).doesNotContain("/log/flights/" + flight);
        }
        assertThat(page("/log?from=soon")).contains("“soon” is no date");
        Totals totals =
                log().totals(new Wanted(null, false, "trial wing", null, null, null, null, null, null, null, null));
        assertThat(totals.batteries().get("W2").cycles()).isEqualTo(1);
        String form = visitor.get("/log/flights/" + flight).body();
        assertThat(form)
                .contains("decision strip 3 flown again because a dog ran over it")
                .contains("W1 98 41");
        visitor.post("/log/flights/" + flight, typed("minutes", "9"));
        assertThat(page("/log?aircraft=trial+wing")).contains("9:00 min in the air");
        assertThat(visitor.post("/log/flights/" + flight + "/leave-out", "out", "true", "why", " ")
                        .body())
                .contains("Say why this flight is left out");
        visitor.post(
                "/log/flights/" + flight + "/leave-out", "out", "true", "why", "a test of the camera on the ground");
        assertThat(page("/log/flights/" + flight)).contains("Left out: a test of the camera on the ground");
        assertThat(page("/log?aircraft=trial+wing")).contains("0 flights");
        assertThat(plain(visitor.post("/log/flights/" + flight + "/consumed").body()))
                .contains("one battery with its charge");
        visitor.post("/log/flights/" + flight, typed("packs", "W1 98 41"));
        visitor.post("/log/flights/" + flight + "/consumed");
        assertThat(application.getBean(FieldMapper.class).consumption("trial wing"))
                .singleElement()
                .satisfies(row -> {
                    assertThat(row.share()).isCloseTo(0.57, within(1e-9));
                    assertThat(row.minutes()).isEqualTo(8.5);
                    assertThat(row.wind()).isEqualTo(5);
                });
        assertThat(plain(visitor.post("/log/flights/" + flight + "/consumed").body()))
                .contains("already");
        visitor.post("/log/flights/" + flight, typed("minutes", "9"));
        visitor.post("/log/flights/" + flight + "/leave-out", "out", "false");
        assertThat(page("/log?aircraft=trial+wing")).contains("1 flight,");
        String csv = new String(visitor.bytes("/log.csv?aircraft=trial+wing"), StandardCharsets.UTF_8);
        assertThat(csv.lines().count()).isEqualTo(2);
        assertThat(csv)
                .contains("2026-11-02T09:15,Europe/London,9.00,Thornwane Rigg")
                .contains(",5.0,8.0,250,6.0,low sun,15,mark 7,");
        JsonNode json = JSON.readTree(visitor.bytes("/log.geojson?aircraft=trial+wing"));
        assertThat(json.get("features").size()).isEqualTo(1);
        assertThat(json.get("features")
                        .get(0)
                        .get("geometry")
                        .get("coordinates")
                        .get(1)
                        .asDouble())
                .isBetween(54.5, 54.53);
        assertThat(page("/log/print?aircraft=trial+wing"))
                .contains("Flights")
                .contains("decision: strip 3 flown again");
    }

    @Test
    void whatIsTypedWronglyIsToldAndStays() {
        String[][] wrong = {
            {"start", "yesterday", "is no day and time"},
            {"start", "2086-11-02 09:15", "has not come yet"},
            {"minutes", "", "how long it was in the air"},
            {"minutes", "long", "is not a figure"},
            {"minutes", "-3", "must be between"},
            {"aircraft", " ", "Name the aircraft"},
            {"packs", "W1 20 80", "are the two swapped"},
            {"packs", "W1 20 800", "must be between 0 and 100"},
            {"photos", "many", "is not a figure"},
            {"photos", "1.5", "no whole number"},
            {"from", "400", "between 0 and 360"},
            {"happenings", "decision turn round", "because?"},
        };
        // A flight that stands is mended no more freely than one is taken in.
        String stands = flight(visitor.newBlock("Typed wrongly", "54.5, -4.3"), typed("aircraft", "paper dart"));
        for (String path : new String[] {MEADOW + "/log/flights", stands}) {
            for (String[] one : wrong) {
                String page = visitor.post(path, typed(one[0], one[1])).body();
                assertThat(plain(page)).as(path + " " + one[0] + " " + one[1]).contains(one[2]);
                assertThat(page).contains("typed for the test");
            }
        }
        assertThat(page("/log?aircraft=paper+dart")).contains("1 flight, 8:30 min in the air");
    }

    @Test
    void onlyWhatWasFlownCounts() {
        long block = visitor.newBlock("Counted", "54.5, -4.3");
        String own = "/blocks/" + block;
        assertThat(page(own + "/season")).contains("not flown");
        String rehearsed =
                flight(block, typed("start", "2026-09-01 08:00", "aircraft", "counted wing", "counted", "false"));
        assertThat(page(own + "/season")).contains("not flown").doesNotContain("2026-09-01");
        assertThat(page(own + "/log")).contains("not flown").contains("rehearsed");
        String first = flight(block, typed("start", "2026-10-01 11:00", "aircraft", "counted wing"));
        String second = flight(block, typed("start", "2026-10-02 15:00", "aircraft", "counted wing"));
        assertThat(page(own + "/log")).contains("First flown 2026-10-01 11:00");
        assertThat(page(own + "/season"))
                .containsPattern("Flown 2026-10-01 ")
                .containsPattern("Flights 2 ")
                .containsPattern("Good photos 240 ");
        assertThat(page("/log?aircraft=counted+wing")).contains("2 flights, 17:00 min in the air");
        visitor.post(first + "/leave-out", "out", "true", "why", "the wrong field");
        assertThat(page(own + "/log")).contains("First flown 2026-10-02 15:00");
        assertThat(page(own + "/season")).containsPattern("Flown 2026-10-02 ").containsPattern("Flights 1 ");
        visitor.post(second + "/leave-out", "out", "true", "why", "the wrong field");
        visitor.post(rehearsed, typed("start", "2026-09-01 08:00", "aircraft", "counted wing"));
        assertThat(page(own + "/log")).contains("First flown 2026-09-01 08:00");
        assertThat(page("/log?aircraft=counted+wing")).contains("1 flight, 8:30 min in the air");
    }

    /** 0.02° of longitude at 16.5° south are 0.02 · 111.195 km · cos 16.5° = 2.13 km on a sphere of 6371 km. */
    @Test
    void aPlaceIsFoundAcrossTheDateLine() {
        flight(visitor.newBlock("Date line", "-16.5, 179.99"), typed("aircraft", "island kite"));
        assertThat(page("/log?aircraft=island+kite&place=-16.5,-179.99&km=2.2")).contains("1 flight,");
        assertThat(page("/log?aircraft=island+kite&place=-16.5,-179.99&km=2.1")).contains("0 flights");
        // North, where a degree is the same everywhere.
        assertThat(page("/log?aircraft=island+kite&place=-16.48,179.99&km=2.3")).contains("1 flight,");
        assertThat(page("/log?aircraft=island+kite&place=-16.48,179.99&km=2.2")).contains("0 flights");
    }

    @Test
    void pointsAreUsedAgainAsTheyWereFound() {
        String again = "/blocks/2/log/repeat";
        String[] decided = {
            "of",
            "flight:1",
            "name",
            "Block A, hill fort",
            "day",
            "2027-05-06",
            "take",
            "limits",
            "terrain",
            "now",
            "point:1",
            "good",
            "point:2",
            "doubtful",
            "point:9",
            "gone"
        };
        String refused = visitor.post(again, decided).body();
        assertThat(plain(refused)).contains("has a block called");
        assertThat(refused)
                .containsPattern("value=\"now\" selected")
                .containsPattern("name=\"point:2\"(?s:.){0,300}value=\"doubtful\" selected")
                .containsPattern("name=\"point:9\"(?s:.){0,400}value=\"gone\" selected")
                .contains("value=\"2027-05-06\"");
        decided[3] = "Fort in May";
        decided[9] = "then";
        String path = visitor.post(again, decided).uri().getPath();
        long made = Long.parseLong(path.replaceAll("\\D", ""));
        assertThat(application
                        .getBean(Blocks.class)
                        .open(made)
                        .facts()
                        .control()
                        .named("9"))
                .isEmpty();
        List<ObservationRow> rows = application.getBean(ControlMapper.class).observations(made);
        List<ObservationRow> before = application.getBean(ControlMapper.class).observations(2);
        assertThat(rows)
                .hasSize((int)
                        before.stream().filter(row -> !row.point().equals("9")).count())
                .allMatch(row -> row.source().startsWith("from Block A, hill fort: "));
        assertThat(rows).filteredOn(row -> row.point().equals("2")).isNotEmpty().allSatisfy(row -> {
            assertThat(row.verdict()).isEqualTo("REJECTED");
            assertThat(row.reason()).isEqualTo("reused in doubt: measure it again");
            assertThat(row.note()).startsWith("reused, doubtful");
        });
        // Where nothing was said a point is good: its place is the one it had, to the last digit.
        assertThat(rows).filteredOn(row -> row.point().equals("7")).hasSize(2).allSatisfy(row -> {
            assertThat(row.note()).startsWith("reused, good");
            assertThat(before)
                    .anyMatch(old -> old.lon() == row.lon()
                            && old.lat() == row.lat()
                            && old.up().equals(row.up()));
        });
        assertThat(page(path)).contains("points: 1 good, 2 doubtful, 9 gone");
    }

    @Test
    void aRehearsalIsTakenInOnceAndCountsNoHours() {
        String fort = "/blocks/2";
        while (!visitor.get(fort + "/log").body().contains("From Fly")) {
            LockSupport.parkNanos(50_000_000);
        }
        String form = visitor.get(fort + "/log/new?source=run").body();
        assertThat(plain(form))
                .contains("A rehearsal stands for no real flight")
                .contains("planned")
                .contains("photos");
        Matcher start = Pattern.compile("name=\"start\"[^>]*value=\"([^\"]+)\"").matcher(form);
        assertThat(start.find()).isTrue();
        String[] filled = {
            "source",
            "run",
            "start",
            start.group(1),
            "minutes",
            "9.4",
            "aircraft",
            "small multirotor",
            "packs",
            "T1 92 40"
        };
        assertThat(plain(visitor.post(fort + "/log/flights", filled).body()))
                .contains("what was flown, and the same again");
        assertThat(page(fort + "/log")).contains("rehearsed").contains("the last rehearsal in the log");
        assertThat(plain(visitor.post(fort + "/log/flights", filled).body())).contains("stands in the log already");
        assertThat(page("/log")).contains("rehearsed or left out count not");
        assertThat(visitor.get(fort + "/log/new?source=take:1").statusCode()).isEqualTo(404);
    }

    @Test
    void aBlockIsFlownAgainWithWhatHasChangedListed() {
        String again = MEADOW + "/log/repeat?of=flight:2";
        assertThat(page(again))
                .contains("All 440 photos are taken where they were.")
                .contains("Nothing that bears on it")
                .contains("The same light")
                .contains("with the sun within 5° of where it stood");
        // A mast has come since, and the ceiling has sunk.
        visitor.change(
                3,
                "ground",
                "/obstacles",
                "kind",
                "MAST",
                "name",
                "new mast",
                "height",
                "12 m",
                "places",
                "54.5107, -4.3405");
        visitor.change(3, "strips", "/ledger/ceiling", "value", "100");
        String changed = page(again);
        assertThat(changed)
                .contains("0 then, 1 now; new: mast new mast")
                .contains("Ceiling")
                .contains("proposed");
        assertThat(plain(visitor.get(MEADOW + "/log/repeat?of=flight:2&day=2027-06-01")
                        .body()))
                .contains("2027-06-01");
        assertThat(plain(visitor.post(
                                MEADOW + "/log/repeat",
                                "of",
                                "flight:2",
                                "name",
                                "Block B, meadow",
                                "day",
                                "2027-10-06")
                        .body()))
                .contains("has a block called");
        assertThat(visitor.get(MEADOW + "/log/repeat?of=flight:999").statusCode())
                .isEqualTo(404);
        assertThat(visitor.get(MEADOW + "/log/repeat?of=nothing").statusCode()).isEqualTo(404);
        String path = visitor.post(
                        MEADOW + "/log/repeat",
                        "of",
                        "flight:2",
                        "name",
                        "Meadow in spring",
                        "day",
                        "2027-04-02",
                        "take",
                        "obstacles",
                        "take",
                        "ceiling",
                        "terrain",
                        "then")
                .uri()
                .getPath();
        assertThat(page(path))
                .contains("flies another's lines again")
                .contains("taken as it is now: ceiling, obstacles");
        String made = path.replace("/log", "");
        assertThat(visitor.get(made + "/ground").body()).contains("new mast");
        assertThat(visitor.get(made + "/sorties").body()).contains("2027-04-02");
        // The very first flight's light is wanted, however often it is repeated.
        assertThat(page(made + "/log")).contains("First flown 2026-10-06 11:40");
        String season = page(MEADOW + "/season");
        assertThat(season)
                .contains("Meadow in spring")
                .contains("Block E, meadow again")
                .contains("to fly 2027-04-02")
                .contains("28° high")
                .contains("99.10 %");
    }

    @Test
    void aSeriesHasDatesAndReminders() {
        assertThat(page(MEADOW + "/log")).contains("Next due " + next());
        String ics = new String(visitor.bytes(MEADOW + "/log/series.ics"), StandardCharsets.UTF_8);
        assertThat(ics).startsWith("BEGIN:VCALENDAR").contains("TRIGGER").contains("Same light");
        assertThat(ics.split("BEGIN:VEVENT").length - 1).isEqualTo(12);
        assertThat(visitor.get("/blocks/4/log/series.ics").statusCode()).isEqualTo(404);
        visitor.post("/blocks/4/log/series", "first", "2026-01-31", "every", "1", "step", "MONTHS", "ahead", "3");
        assertThat(page("/blocks/4/log")).contains("Next due");
        assertThat(visitor.post("/blocks/4/log/series", "first", "soon").body()).contains("is no date");
        visitor.post("/blocks/4/log/series", "act", "end");
        assertThat(page("/blocks/4/log")).doesNotContain("Next due");
    }

    private static LocalDate next() {
        LocalDate date = LocalDate.of(2026, 10, 6);
        while (!date.isAfter(LocalDate.now())) {
            date = date.plusYears(1);
        }
        return date;
    }

    @Test
    void serviceComesRound() {
        visitor.post(
                "/log/service",
                "thing",
                "T1",
                "what",
                "storage charge",
                "days",
                "10",
                "done",
                LocalDate.now().toString());
        assertThat(page("/log")).contains("storage charge").contains("in 10 days");
        visitor.post(
                "/log/service",
                "thing",
                "T1",
                "what",
                "storage charge",
                "hours",
                "1",
                "done",
                LocalDate.now().minusYears(3).toString());
        assertThat(page("/log"))
                .containsPattern("in 4[0-4]:\\d\\d min of flight")
                .doesNotContain("in 10 days");
        assertThat(visitor.post(
                                "/log/service",
                                "thing",
                                "T1",
                                "what",
                                "x",
                                "done",
                                LocalDate.now().toString())
                        .body())
                .contains("after how many hours or days");
        assertThat(visitor.post(
                                "/log/service",
                                "thing",
                                "T1",
                                "what",
                                "x",
                                "days",
                                "3",
                                "done",
                                LocalDate.now().plusDays(9).toString())
                        .body())
                .contains("has not come yet");
    }

    @Test
    void homeSaysWhatIsNextAndWhatItLacks() {
        String home = page("/");
        assertThat(home)
                .contains("Next")
                .contains("2027-04-30")
                .contains("06:00 to 12:00")
                .contains("T4 46 %")
                .contains("2026-10-06 12:02")
                .contains("firmware and compass");
        assertThat(page("/home/lacks/4")).contains("Control no points").contains("Sorties");
        assertThat(visitor.get("/home/lacks/999").statusCode()).isEqualTo(404);
    }

    @Test
    void theReportSaysWhatIsKnownAndClaimsNoMore() {
        String report = new String(visitor.bytes("/jobs/1/report.html"), StandardCharsets.UTF_8);
        assertThat(plain(report))
                .contains("Thornwane Rigg")
                .contains("the hollow by the tarn left out, because standing water gives no ties")
                .contains("As planned 100 % of the block is given what was asked; as flown it was not proved.")
                .contains("No accuracy is claimed.")
                .contains("Files handed over");
        assertThat(report)
                .containsPattern("plan\\.geojson</td>\\s*<td>[\\d,]+ kB</td>\\s*<td class=\"sum\">[0-9a-f]{64}");
        assertThat(visitor.bytes("/jobs/1/report.pdf")).startsWith('%', 'P', 'D', 'F');
        assertThat(visitor.get("/jobs/99/report.pdf").statusCode()).isEqualTo(404);
    }

    @Test
    void flightsBearTheNameTheirBlockHasNowAndOutliveIt() {
        long block = visitor.newBlock("Short-lived", "54.5, -4.3");
        visitor.post("/blocks/" + block + "/log/flights", typed("aircraft", "old kite"));
        long job = application
                .getBean(JdbcTemplate.class)
                .queryForObject("select job_id from block where id = ?", Long.class, block);
        visitor.post("/jobs/" + job + "/rename", "name", "Long remembered");
        assertThat(page("/log?aircraft=old+kite")).contains("Long remembered, Block A");
        visitor.post("/jobs/" + job + "/delete", "confirm", "Long remembered");
        visitor.post("/keep/bin/" + job + "/purge");
        String found = page("/log?text=remembered");
        assertThat(found).contains("1 flight, 8:30 min in the air").contains("Long remembered, Block A");
    }

    @Test
    void tenThousandFlightsAreStillFoundAndAddedUp() {
        JdbcTemplate database = application.getBean(JdbcTemplate.class);
        long one = database.queryForObject("select min(id) from flight where source = 'TYPED'", Long.class);
        database.update(
                "insert into flight (uid, block_id, job_name, block_name, source, started_at, minutes, photos, aircraft, pilot, lon, lat, content, facts, left_out, counted, kept_at, kept_by)"
                        + " select random_uuid(), null, 'old jobs', 'block', 'TYPED', dateadd('HOUR', -x, timestamp '2020-01-01 12:00:00'), 6, 10, 'old wing', 'D. Old', lon, lat, content, '', '', true, kept_at, ''"
                        + " from flight, system_range(1, 10000) where id = ?",
                one);
        database.update(
                "insert into flight_crew (flight_id, seq, name, role) select id, 0, 'D. Old', 'pilot' from flight where job_name = 'old jobs'");
        database.update(
                "insert into flight_pack (flight_id, seq, name, charge_before, charge_after) select id, 0, 'O' || mod(id, 4), 1, 0.25 from flight where job_name = 'old jobs'");
        Wanted old = new Wanted(null, false, "old wing", null, null, null, null, null, null, null, null);
        Totals totals = log().totals(old);
        assertThat(totals.flights()).isEqualTo(10_000);
        assertThat(totals.aircraft().get("old wing").hours()).isCloseTo(1000, within(1e-6));
        assertThat(totals.people().get("D. Old").flights()).isEqualTo(10_000);
        assertThat(totals.batteries().values().stream()
                        .mapToDouble(Totals.Sum::cycles)
                        .sum())
                .isCloseTo(7500, within(1e-6));
        assertThat(page("/log?aircraft=old+wing&page=200")).contains("page 200 of 200");
        assertThat(new String(visitor.bytes("/log.csv?aircraft=old+wing"), StandardCharsets.UTF_8)
                        .lines()
                        .count())
                .isEqualTo(10_001);
        database.update("delete from flight where job_name = 'old jobs'");
    }
}

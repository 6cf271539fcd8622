package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.OptionalInt;
import java.util.TreeSet;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.Georeference;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Every pattern through the plan service, and its answer, as it stands, through the coverage service. */
@ExtendWith(RunningYalos.class)
class PassServiceTest {
    private static final String CAMERA =
            "{\"pixelsAcross\":5280,\"pixelsAlong\":3956,\"sensorAcrossMm\":17.3,\"sensorAlongMm\":13.0,\"focalLengthMm\":12.29,\"minIntervalS\":0.7}";
    /** 412 500 E to 412 800 E, 6 041 500 N to 6 041 700 N in UTM 30N, about. */
    private static final String BLOCK =
            "{\"type\":\"Polygon\",\"coordinates\":[[[-4.3520,54.5110],[-4.3480,54.5110],[-4.3480,54.5130],[-4.3520,54.5130],[-4.3520,54.5110]]]}";

    private static final String AXIS =
            "{\"type\":\"LineString\",\"coordinates\":[[-4.3540,54.5110],[-4.3500,54.5120],[-4.3480,54.5110]]}";

    @TempDir
    Path folder;

    private static String body(String role, String properties, String geometry, String passes) {
        return ("{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"role\":\"%s\"%s},\"geometry\":%s}],"
                        + "\"plan\":{\"camera\":%s,\"gsdCm\":2.5,\"epsg\":32630,\"passes\":[%s]}}")
                .formatted(role, properties, geometry, CAMERA, passes);
    }

    private static String block(String passes) {
        return body("block", "", BLOCK, passes);
    }

    private static HttpResponse<String> ask(String body) {
        return new Visitor(RunningYalos.url()).script("/api/plan", body);
    }

    /** Rounded turns through the service: the same photos in less time; anything else is refused by its name. */
    @Test
    void turnsAreSquareOrRounded() {
        String square = block("{\"pattern\":\"grid\",\"directionDeg\":0}");
        JsonNode plain = plan(square);
        JsonNode round = plan(square.replace("\"epsg\"", "\"turns\":\"rounded\",\"epsg\""));
        assertThat(round.at("/summary/flightTimeS").asDouble())
                .isPositive()
                .isLessThan(plain.at("/summary/flightTimeS").asDouble());
        assertThat(round.at("/summary/photos")).isEqualTo(plain.at("/summary/photos"));
        HttpResponse<String> refused = ask(square.replace("\"epsg\"", "\"turns\":\"wide\",\"epsg\""));
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("plan.turns").contains("Turns are “square” or “rounded”.");
    }

    private static JsonNode plan(String body) {
        HttpResponse<String> answer = ask(body);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JsonMapper.builder().build().readTree(answer.body());
    }

    private static List<JsonNode> stations(JsonNode plan) {
        return plan.get("features")
                .valueStream()
                .filter(feature ->
                        feature.path("properties").path("kind").asString("").equals("station"))
                .map(feature -> feature.get("properties"))
                .toList();
    }

    @Test
    void everyStationSaysItsPassAndWhichWayItLooks() {
        JsonNode plan = plan(block("""
                {"pattern":"grid","directionDeg":30},
                {"pattern":"crossing","angleDeg":90,"heightM":110},
                {"pattern":"tilted","tiltDeg":30,"looks":["ahead","left"]},
                {"pattern":"tie","count":2,"angleDeg":45}"""));
        assertThat(plan.at("/summary/passes").asInt()).isEqualTo(5);
        List<JsonNode> stations = stations(plan);
        assertThat(new TreeSet<>(
                        stations.stream().map(s -> s.get("pass").asInt()).toList()))
                .containsExactly(1, 2, 3, 4, 5);
        for (JsonNode station : stations) {
            boolean tilted =
                    station.get("pass").asInt() == 3 || station.get("pass").asInt() == 4;
            assertThat(station.get("pitchDeg").asDouble()).isCloseTo(tilted ? -60 : -90, Offset.offset(1e-6));
            assertThat(station.get("rollDeg").asDouble()).isZero();
            if (tilted) {
                double look = station.get("pass").asInt() == 3 ? 30 : 300;
                assertThat(station.get("yawDeg").asDouble()).isCloseTo(look, Offset.offset(1e-5));
            }
        }
        assertThat(plan.at("/plan/camera/pixelsAcross").asInt()).isEqualTo(5280);
    }

    @Test
    void aCorridorFollowsItsAxisInPlaceOfTheBlock() {
        JsonNode plan = plan(body("axis", ",\"widthM\":40", AXIS, "{\"pattern\":\"corridor\"}"));
        assertThat(plan.at("/summary/strips").asInt()).isEqualTo(2);
        // 281.4 m and 171.1 m of axis at this latitude, 40 m wide
        assertThat(plan.at("/summary/areaM2").asDouble()).isCloseTo(40 * 452.5, Offset.offset(400.0));
    }

    @Test
    void lidarStripsAreSpacedByTheSwath() {
        JsonNode plan = plan(
                block(
                        "{\"pattern\":\"lidar\",\"fieldOfViewDeg\":70,\"pulsesPerSecond\":240000,\"heightM\":80,\"sideOverlap\":0.3}"));
        double swath = 2 * 80 * Math.tan(Math.toRadians(35));
        assertThat(plan.at("/summary/stripSpacingM").asDouble()).isCloseTo(swath * 0.7, Offset.offset(1e-6));
    }

    /** No station more, but a longer flight: the alignment before and after. */
    @Test
    void anAlignmentTakesTimeAndNoPhotos() {
        String lidar = "{\"pattern\":\"lidar\",\"fieldOfViewDeg\":70,\"pulsesPerSecond\":240000,\"heightM\":80}";
        JsonNode plain = plan(block(lidar));
        JsonNode aligned = plan(block(lidar + ",{\"pattern\":\"alignment\",\"eights\":1,\"stillS\":0}"));
        assertThat(stations(aligned)).hasSameSizeAs(stations(plain));
        assertThat(aligned.at("/summary/flightTimeS").asDouble())
                .isGreaterThan(plain.at("/summary/flightTimeS").asDouble() + 20);
    }

    /** The answer is proved over level ground as it stands: each pattern shows all of the block. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"pattern\":\"grid\"} | 3",
                "{\"pattern\":\"grid\"},{\"pattern\":\"crossing\"} | 6",
                "{\"pattern\":\"grid\"},{\"pattern\":\"tilted\"} | 11",
                "{\"pattern\":\"grid\"},{\"pattern\":\"tie\",\"tiltDeg\":25} | 3",
            })
    void theAnswerIsProvedAsItStands(String passes, int least) throws IOException {
        String planned = ask(block(passes)).body();
        HttpResponse<byte[]> proof = CoverageServiceTest.ask(planned, level(), "count");
        assertThat(proof.statusCode()).isEqualTo(200);
        Path file = folder.resolve("count.tif");
        Files.write(file, proof.body());
        try (GeoTiff counts = GeoTiff.open(file)) {
            float[] cells = counts.window(0, 0, 120, 100);
            float fewest = Float.MAX_VALUE;
            for (int row = 0; row < 100; row++) {
                for (int column = 0; column < 120; column++) {
                    if (inside(412_300 + (column + 0.5) * 5, 6_041_850 - (row + 0.5) * 5)) {
                        fewest = Math.min(fewest, Math.max(0, cells[row * 120 + column]));
                    }
                }
            }
            assertThat(fewest).isGreaterThanOrEqualTo(least);
        }
    }

    private static boolean inside(double east, double north) {
        LonLat at = Grid.ofEpsg(32630).toLonLat(new EastNorth(east, north));
        return at.lonDeg() > -4.352 && at.lonDeg() < -4.348 && at.latDeg() > 54.511 && at.latDeg() < 54.513;
    }

    /** Level ground at 0 m, 5 m cells. */
    private static byte[] level() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GeoTiffWriter.write(
                out,
                120,
                100,
                Georeference.northUp(412_300, 6_041_850, 5, 5),
                OptionalInt.of(32630),
                row -> new float[120]);
        return out.toByteArray();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"pattern\":\"spiral\"} | plan.passes[0].pattern",
                "{\"pattern\":\"grid\"},{\"pattern\":\"grid\"} | plan.passes[1].pattern",
                "{\"pattern\":\"tilted\",\"tiltDeg\":60} | plan.passes[0].tilt",
                "{\"pattern\":\"tilted\",\"looks\":[\"up\"]} | plan.passes[0].looks",
                "{\"pattern\":\"crossing\",\"angel\":3} | plan.passes[0].angel",
                "{\"pattern\":\"crossing\",\"sideOverlap\":1.2} | plan.passes[0].sideOverlap",
                "{\"pattern\":\"tie\",\"count\":7} | plan.passes[0].count",
                "{\"pattern\":\"lidar\"} | plan.passes[0].fieldOfViewDeg",
                "{\"pattern\":\"alignment\",\"eights\":99} | plan.passes[0].eights",
                "{\"pattern\":\"alignment\",\"heightM\":50} | plan.passes[0].heightM",
                "{\"pattern\":\"corridor\"} | features",
                "7 | plan.passes[0].pattern",
            })
    void badPassesAreNamed(String passes, String field) {
        HttpResponse<String> answer = ask(block(passes));
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(400);
        JsonNode problem = JsonMapper.builder().build().readTree(answer.body());
        assertThat(problem.get("field").asString()).isEqualTo(field);
        assertThat(problem.get("detail").asString()).isNotBlank();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ",\"widthM\":0 | features.axis.widthM",
                "  | features.axis.widthM",
                ",\"widthM\":-5 | features.axis.widthM",
            })
    void aCorridorWithoutWidthIsRefused(String width, String field) {
        HttpResponse<String> answer = ask(body("axis", width == null ? "" : width, AXIS, "{\"pattern\":\"corridor\"}"));
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(JsonMapper.builder()
                        .build()
                        .readTree(answer.body())
                        .get("field")
                        .asString())
                .isEqualTo(field);
        HttpResponse<String> point = ask(body(
                "axis",
                ",\"widthM\":9",
                "{\"type\":\"LineString\",\"coordinates\":[[-4.35,54.51],[-4.35,54.51]]}",
                "{\"pattern\":\"corridor\"}"));
        assertThat(point.body()).contains("two different points");
    }
}

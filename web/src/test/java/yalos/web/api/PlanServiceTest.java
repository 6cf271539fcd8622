package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

@ExtendWith(RunningYalos.class)
class PlanServiceTest {
    private static final String CAMERA =
            "{\"pixelsAcross\":5280,\"pixelsAlong\":3956,\"sensorAcrossMm\":17.3,\"sensorAlongMm\":13.0,\"focalLengthMm\":12.29,\"minIntervalS\":0.7}";
    private static final String BLOCK =
            "[[[11.3200,47.4200],[11.3300,47.4200],[11.3300,47.4250],[11.3200,47.4250],[11.3200,47.4200]]]";

    private static String body(String settings, String coordinates, String launch) {
        return ("{\"type\":\"FeatureCollection\",\"features\":[{\"type\":\"Feature\",\"properties\":{\"role\":\"block\"},\"geometry\":{\"type\":\"Polygon\",\"coordinates\":%s}}%s],"
                        + "\"plan\":{\"camera\":%s,%s}}")
                .formatted(coordinates, launch, CAMERA, settings);
    }

    private static final String USUAL =
            "\"gsdCm\":2.0,\"forwardOverlap\":0.8,\"sideOverlap\":0.7,\"directionDeg\":35,\"marginM\":0,\"speedMps\":null,\"exposureTimeS\":0.001,\"maxBlurPx\":0.5,\"maxSpeedMps\":15";

    private static HttpResponse<String> ask(String body) {
        return new Visitor(RunningYalos.url()).script("/api/plan", body);
    }

    private static JsonNode json(HttpResponse<String> answer) {
        return JsonMapper.builder().build().readTree(answer.body());
    }

    @Test
    void answersStripsStationsAndTheSummary() {
        HttpResponse<String> answer = ask(body(USUAL, BLOCK, ""));
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Type"))
                .hasValueSatisfying(type -> assertThat(type).startsWith("application/geo+json"));
        assertThat(answer.headers().allValues("Set-Cookie")).isEmpty();
        JsonNode plan = json(answer);
        JsonNode summary = plan.get("summary");
        assertThat(summary.get("gsdCm").asDouble()).isCloseTo(2, Offset.offset(1e-9));
        assertThat(summary.get("heightM").asDouble()).isCloseTo(75.02, Offset.offset(0.01));
        assertThat(summary.get("footprintAcrossM").asDouble()).isCloseTo(105.6, Offset.offset(0.01));
        assertThat(summary.get("stripSpacingM").asDouble()).isCloseTo(31.68, Offset.offset(0.01));
        assertThat(summary.get("airBaseM").asDouble()).isCloseTo(15.82, Offset.offset(0.01));
        assertThat(summary.get("speedMps").asDouble()).isCloseTo(10, Offset.offset(0.01));
        assertThat(summary.get("speedLimit").asString()).isEqualTo("motion blur");
        assertThat(summary.get("epsg").asInt()).isEqualTo(32632);
        // 0.01 degrees of longitude by 0.005 of latitude at 47.4225 N, sides by GeographicLib
        assertThat(summary.get("areaM2").asDouble()).isCloseTo(754.38 * 555.95, Percentage.withPercentage(0.05));
        int strips = 0;
        int stations = 0;
        for (JsonNode feature : plan.get("features")) {
            switch (feature.get("properties").get("kind").asString()) {
                case "strip" -> strips++;
                case "station" -> {
                    stations++;
                    assertThat(feature.get("properties").get("index").asInt()).isEqualTo(stations);
                    assertThat(feature.get("properties").get("yawDeg").asDouble() % 180)
                            .isCloseTo(35, Offset.offset(1e-6));
                    assertThat(feature.get("properties").get("pitchDeg").asDouble())
                            .isEqualTo(-90);
                    assertThat(feature.get("geometry").get("coordinates").get(2).asDouble())
                            .isCloseTo(75.02, Offset.offset(0.01));
                }
                default -> throw new AssertionError(feature);
            }
        }
        assertThat(strips).isEqualTo(summary.get("strips").asInt());
        assertThat(stations).isEqualTo(summary.get("stations").asInt());
    }

    /** The first strip's azimuth on the ellipsoid is the grid direction plus the convergence. */
    @Test
    void stripsLieInTheDirectionAskedForOnTheGrid() {
        JsonNode plan = json(ask(body(USUAL, BLOCK, "")));
        JsonNode line = plan.get("features").get(3).get("geometry").get("coordinates");
        double azimuth = Geodesics.between(at(line.get(0)), at(line.get(1))).azimuthAtStartDeg();
        JsonNode station =
                plan.get("features").get(plan.get("features").size() - 1).get("properties");
        double convergence =
                station.get("yawTrueDeg").asDouble() - station.get("yawDeg").asDouble();
        assertThat(convergence).isCloseTo(1.715, Offset.offset(0.01));
        assertThat((azimuth - convergence) % 180).isCloseTo(35, Offset.offset(0.02));
    }

    private static LonLat at(JsonNode position) {
        return LonLat.of(position.get(0).asDouble(), position.get(1).asDouble());
    }

    @Test
    void autoDirectionTakesNoLongerThanAnyFixedOne() {
        String launch =
                ",{\"type\":\"Feature\",\"properties\":{\"role\":\"launch\"},\"geometry\":{\"type\":\"Point\",\"coordinates\":[11.319,47.419]}}";
        double best = json(ask(body(USUAL.replace("35", "\"auto\""), BLOCK, launch)))
                .get("summary")
                .get("flightTimeS")
                .asDouble();
        for (int direction = 0; direction < 180; direction += 15) {
            double time = json(ask(body(USUAL.replace(":35", ":" + direction), BLOCK, launch)))
                    .get("summary")
                    .get("flightTimeS")
                    .asDouble();
            assertThat(time).isGreaterThanOrEqualTo(best - 1e-6);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"sideOverlap\":0.7      | \"sideOverlap\":1.0     | plan.sideOverlap",
                "\"sideOverlap\":0.7      | \"sideOverlap\":0       | plan.sideOverlap",
                "\"sideOverlap\":0.7      | \"sideOverlapp\":0.7    | plan.sideOverlapp",
                "\"gsdCm\":2.0            | \"gsdcm\":2.0          | plan.gsdcm",
                "\"focalLengthMm\":12.29  | \"focalLength\":12.29   | plan.camera.focalLength",
                "\"forwardOverlap\":0.8   | \"forwardOverlap\":1.2  | plan.forwardOverlap",
                "\"gsdCm\":2.0            | \"heightM\":0           | plan.heightM",
                "\"gsdCm\":2.0            | \"heightM\":5000        | plan.heightM",
                "\"gsdCm\":2.0            | \"gsdCm\":NaN           | body",
                "\"gsdCm\":2.0            | \"gsdCm\":1e999         | plan.gsdCm",
                "\"gsdCm\":2.0            | \"gsdCm\":2,\"heightM\":75 | plan.gsdCm",
                "\"gsdCm\":2.0            | \"gsdCm\":0.05          | stations",
                "\"focalLengthMm\":12.29  | \"focalLengthMm\":0     | plan.camera.focalLengthMm",
                "\"pixelsAcross\":5280    | \"pixelsAcross\":-1     | plan.camera.pixelsAcross",
                "\"directionDeg\":35      | \"directionDeg\":\"up\" | plan.directionDeg",
                "\"role\":\"block\"       | \"role\":\"other\"      | features",
                "11.3300,47.4250          | 11.3200,97.4250         | features.block.geometry",
                "[11.3300,47.4200],[11.3300,47.4250] | [11.3300,47.4250],[11.3300,47.4200] | outline",
            })
    void namesTheFieldOfBadInput(String right, String wrong, String field) {
        HttpResponse<String> answer = ask(body(USUAL, BLOCK, "").replace(right.strip(), wrong.strip()));
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(answer.headers().firstValue("Content-Type"))
                .hasValueSatisfying(type -> assertThat(type).startsWith("application/problem+json"));
        JsonNode problem = json(answer);
        assertThat(problem.get("field").asString()).isEqualTo(field);
        assertThat(problem.get("detail").asString()).isNotBlank();
        assertThat(problem.get("value").asString()).isNotBlank();
    }

    @Test
    void refusesAMissingBodyAndDescribesItself() {
        assertThat(ask("").statusCode()).isEqualTo(400);
        assertThat(ask("{\"type\":\"FeatureCollection\"").statusCode()).isEqualTo(400);
        assertThat(new Visitor(RunningYalos.url()).get("/api/openapi").body()).contains("/api/plan");
    }
}

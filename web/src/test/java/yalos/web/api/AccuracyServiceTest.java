package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.Reference;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The accuracy service against the independent reference, and what it refuses. */
@ExtendWith(RunningYalos.class)
class AccuracyServiceTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private static ArrayNode three(ObjectNode into, String name, Reference.Row row, String before, String after) {
        ArrayNode list = into.putArray(name);
        for (String axis : new String[] {"e", "n", "u"}) {
            list.add(row.number(before + axis + after));
        }
        return list;
    }

    private static List<Reference.Row> rows(String file, String name) {
        return Reference.rows(file).filter(row -> row.text("case").equals(name)).toList();
    }

    private static ObjectNode body(String name) {
        Reference.Row one = rows("network_cases.csv", name).get(0);
        ObjectNode body = JSON.createObjectNode();
        body.putObject("camera")
                .put("focalPx", one.number("focal_px"))
                .put("widthPx", one.whole("image_width_px"))
                .put("heightPx", one.whole("image_height_px"));
        ObjectNode sigmas = body.putObject("sigmas")
                .put("tiePx", one.number("sigma_tie_px"))
                .put("markedPx", one.number("sigma_marked_px"))
                .put("angleDeg", one.number("sigma_angle_deg"))
                .put("focalPx", one.number("sigma_focal_px"))
                .put("k1", one.number("sigma_k1"));
        three(sigmas, "positionM", one, "sigma_position_", "_m");
        three(sigmas, "commonM", one, "sigma_common_", "_m");
        sigmas.putArray("principalPx").add(one.number("sigma_principal_x_px")).add(one.number("sigma_principal_y_px"));
        body.put("selfCalibration", one.whole("self_calibration") == 1);
        ArrayNode photos = body.putArray("photos");
        for (Reference.Row photo : rows("network_photos.csv", name)) {
            photos.addObject()
                    .put("id", photo.text("photo"))
                    .put("e", photo.number("e_m"))
                    .put("n", photo.number("n_m"))
                    .put("h", photo.number("h_m"))
                    .put("yawDeg", photo.number("yaw_deg"))
                    .put("pitchDeg", photo.number("pitch_deg"))
                    .put("rollDeg", photo.number("roll_deg"));
        }
        ArrayNode points = body.putArray("points");
        for (Reference.Row point : rows("network_points.csv", name)) {
            ObjectNode at = points.addObject()
                    .put("id", "p" + point.text("point"))
                    .put("kind", point.text("kind"))
                    .put("e", point.number("e_m"))
                    .put("n", point.number("n_m"))
                    .put("u", point.number("u_m"));
            if (!point.text("prior_sigma_e_m").isEmpty()) {
                three(at, "sigmaM", point, "prior_sigma_", "_m");
            }
        }
        ArrayNode sights = body.putArray("observations");
        for (Reference.Row sight : rows("network_observations.csv", name)) {
            sights.addArray().add(sight.text("photo")).add("p" + sight.text("point"));
        }
        return body;
    }

    private HttpResponse<String> ask(String body) {
        return visitor.script("/api/accuracy", body, Map.of("Content-Type", "application/json"));
    }

    private JsonNode answer(ObjectNode body) {
        HttpResponse<String> answer = ask(body.toString());
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return JSON.readTree(answer.body());
    }

    @ParameterizedTest
    @ValueSource(strings = {"n02", "n03", "n07"})
    void answersAsTheReference(String name) {
        JsonNode points = answer(body(name)).get("points");
        List<Reference.Row> expected = rows("network_points.csv", name);
        assertThat(points.size()).isEqualTo(expected.size());
        for (int i = 0; i < expected.size(); i++) {
            Reference.Row row = expected.get(i);
            assertThat(points.get(i).get("id").asString()).isEqualTo("p" + row.text("point"));
            assertThat(points.get(i).at("/sigmaM/2").asDouble())
                    .isCloseTo(row.number("sigma_u_m"), Percentage.withPercentage(1e-3));
            assertThat(points.get(i).at("/covariance/4").asDouble() / row.number("cov_nu_m2"))
                    .isBetween(0.999, 1.001);
        }
    }

    /** Left out, the observations are every pair in frame: more than the thinned list, so no point is known less well. */
    @Test
    void pairsInFrameStandInForObservations() {
        ObjectNode body = body("n01");
        JsonNode listed = answer(body).get("points");
        body.remove("observations");
        JsonNode all = answer(body).get("points");
        for (int i = 0; i < listed.size(); i++) {
            assertThat(all.get(i).at("/sigmaM/2").asDouble())
                    .isLessThanOrEqualTo(listed.get(i).at("/sigmaM/2").asDouble() * 1.0001);
        }
    }

    /** Nothing logged, nothing measured: the block could lie anywhere. */
    @Test
    void aNetworkWithoutDatumIsRefusedWithTheReason() {
        ObjectNode body = body("n01");
        ((ObjectNode) body.get("sigmas")).remove("positionM");
        HttpResponse<String> refused = ask(body.toString());
        assertThat(refused.statusCode()).isEqualTo(400);
        assertThat(refused.body()).contains("nothing holds it in place");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{} | camera",
                "[] | body",
                "{\"camera\":{\"focalPx\":-1},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[]} | observations",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":0},\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[[1,1]]} | sigmas.tiePx",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[[1,1]]} | points",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0,\"kind\":\"control\"}]} | points[0].sigmaM",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[[2,1]]} | observations[0]",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"h\":-5}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[[1,1]]} | observations",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"selfCalibration\":true,\"photos\":[{\"e\":0,\"n\":0,\"h\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}],\"observations\":[[1,1]]} | sigmas.principalPx",
                "{\"camera\":{\"focalPx\":9},\"sigmas\":{\"tiePx\":1},\"photos\":[{\"e\":0,\"n\":0,\"hh\":1}],\"points\":[{\"e\":0,\"n\":0,\"u\":0}]} | photos[0].hh",
            })
    void badInputIsNamed(String body, String field) {
        HttpResponse<String> refused = ask(body);
        assertThat(refused.statusCode()).as(refused.body()).isEqualTo(400);
        JsonNode problem = JSON.readTree(refused.body());
        assertThat(problem.get("field").asString()).isEqualTo(field);
        assertThat(problem.get("detail").asString()).isNotBlank();
    }
}

package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.Reference;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The faces service against independent reference values (numpy slabs and OpenCV, to their own tolerance), and what it refuses. */
@ExtendWith(RunningYalos.class)
class FacesServiceTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private static final Map<String, String> AS_JSON = Map.of("Content-Type", "application/json");

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private static List<Reference.Row> rows(String file, String name) {
        return Reference.rows(file).filter(row -> row.text("case").equals(name)).toList();
    }

    private static ObjectNode body(String name) {
        Reference.Row one = rows("faces_cases.csv", name).get(0);
        int width = one.whole("image_width_px");
        int height = one.whole("image_height_px");
        ObjectNode body = JSON.createObjectNode();
        body.putObject("camera")
                .put("pixelsAcross", width)
                .put("pixelsAlong", height)
                .put("sensorAcrossMm", width * one.number("pixel_pitch_um") / 1000)
                .put("sensorAlongMm", height * one.number("pixel_pitch_um") / 1000)
                .put("focalLengthMm", one.number("focal_mm"));
        body.putObject("ground")
                .put("u0M", one.number("ground_u0_m"))
                .put("slopeE", one.number("ground_slope_e"))
                .put("slopeN", one.number("ground_slope_n"));
        ArrayNode objects = body.putArray("objects");
        for (Reference.Row object : rows("faces_objects.csv", name)) {
            ObjectNode node =
                    objects.addObject().put("id", object.text("object")).put("kind", object.text("kind"));
            node.putArray("centre").add(object.number("centre_e_m")).add(object.number("centre_n_m"));
            node.put("lengthM", object.number("length_m"))
                    .put("widthM", object.number("width_m"))
                    .put("rotationDeg", object.number("rotation_deg"))
                    .put("bottomM", object.number("bottom_u_m"))
                    .put("topM", object.number("top_u_m"));
        }
        ArrayNode photos = body.putArray("photos");
        for (Reference.Row photo : rows("faces_photos.csv", name)) {
            photos.addObject()
                    .put("id", photo.text("photo"))
                    .put("e", photo.number("e_m"))
                    .put("n", photo.number("n_m"))
                    .put("h", photo.number("h_m"))
                    .put("yawDeg", photo.number("yaw_deg"))
                    .put("pitchDeg", photo.number("pitch_deg"))
                    .put("rollDeg", photo.number("roll_deg"));
        }
        body.put("cellM", one.number("cell_size_m"));
        return body;
    }

    private HttpResponse<String> ask(JsonNode body) {
        return visitor.script("/api/faces", body.toString(), AS_JSON);
    }

    @ParameterizedTest
    @ValueSource(strings = {"v1", "v2", "v3", "v4", "v5", "v6"})
    void everyCellIsSeenAsTheReferenceSays(String name) {
        HttpResponse<String> answer = ask(body(name));
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        Map<String, JsonNode> cells = new HashMap<>();
        JSON.readTree(answer.body()).get("cells").forEach(cell -> cells.put(key(cell), cell));
        List<Reference.Row> expected = rows("faces_expected.csv", name);
        assertThat(cells).hasSize(rows("faces_cases.csv", name).get(0).whole("cells"));
        Map<String, Reference.Row> places = new HashMap<>();
        rows("faces_cells.csv", name).forEach(row -> places.put(key(row), row));
        for (Reference.Row row : expected) {
            JsonNode cell = cells.get(key(row));
            assertThat(cell).as(key(row)).isNotNull();
            Reference.Row place = places.get(key(row));
            for (int i = 0; i < 3; i++) {
                assertThat(cell.get("centre").get(i).asDouble())
                        .isCloseTo(place.number("xyz".charAt(i) + "_m"), Offset.offset(2e-6));
                assertThat(cell.get("normal").get(i).asDouble())
                        .isCloseTo(place.number("n" + "xyz".charAt(i)), Offset.offset(1e-8));
            }
            int photos = cell.get("photos").asInt();
            if (row.whole("ambiguous") == 1) {
                assertThat(photos).isBetween(row.whole("photos_min"), row.whole("photos_max"));
                continue;
            }
            assertThat(photos).as(key(row)).isEqualTo(row.whole("photos"));
            assertThat(cell.get("photosNoOcclusion").asInt()).as(key(row)).isEqualTo(row.whole("photos_no_occlusion"));
            if (photos > 0) {
                assertThat(cell.get("gsdM").asDouble())
                        .isCloseTo(row.number("gsd_best_m"), Percentage.withPercentage(1e-6));
                assertThat(cell.get("incidenceDeg").asDouble())
                        .isCloseTo(row.number("smallest_incidence_deg"), Offset.offset(1e-6));
            } else {
                assertThat(cell.get("gsdM").isNull()).isTrue();
            }
            if (photos > 1) {
                assertThat(cell.get("rayAngleDeg").asDouble())
                        .isCloseTo(row.number("largest_ray_angle_deg"), Offset.offset(1e-6));
            } else {
                assertThat(cell.get("rayAngleDeg").isNull()).isTrue();
            }
        }
    }

    private static String key(JsonNode cell) {
        return cell.get("object").asString() + " " + cell.get("face").asString() + " "
                + cell.get("column").asInt() + " " + cell.get("row").asInt();
    }

    private static String key(Reference.Row row) {
        return row.text("object") + " " + row.text("face") + " " + row.whole("column") + " " + row.whole("row");
    }

    private void refused(Consumer<ObjectNode> change, String field, String words) {
        ObjectNode body = body("v1");
        change.accept(body);
        HttpResponse<String> answer = ask(body);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(400);
        JsonNode problem = JSON.readTree(answer.body());
        assertThat(problem.get("field").asString()).isEqualTo(field);
        assertThat(problem.get("detail").asString()).contains(words);
    }

    private static ObjectNode first(ObjectNode body, String list) {
        return (ObjectNode) body.get(list).get(0);
    }

    @Test
    void whatCannotBeIsRefusedByItsField() {
        refused(body -> body.remove("ground"), "ground", "plane");
        refused(body -> body.put("cellM", 0), "cellM", "must be between");
        refused(body -> body.put("cellM", 0.01), "cellM", "larger cells");
        refused(body -> body.put("cellsM", 1), "body.cellsM", "cellM");
        refused(body -> body.putArray("photos"), "photos", "list of 1 to");
        refused(body -> first(body, "objects").put("lengthM", 0), "objects[0].lengthM", "must be between");
        refused(body -> first(body, "objects").put("topM", 100), "objects[0].topM", "above the foot");
        refused(body -> first(body, "objects").put("kind", "tree"), "objects[0].kind", "building");
        refused(body -> first(body, "objects").put("id", "b2"), "objects[1].id", "twice");
        refused(body -> first(body, "objects").putArray("centre").add(1), "objects[0].centre", "pair");
        refused(body -> first(body, "photos").remove("pitchDeg"), "photos[0].pitchDeg", "missing");
        refused(body -> first(body, "photos").put("e", "x"), "photos[0].e", "finite number");
        refused(body -> ((ObjectNode) body.get("camera")).put("focalLengthMm", -4), "camera.focalLengthMm", "");
        assertThat(visitor.script("/api/faces", "{", AS_JSON).statusCode()).isEqualTo(400);
        assertThat(visitor.script("/api/faces", "[]", AS_JSON).statusCode()).isEqualTo(400);
    }

    /** A camera below the ground sees nothing; straight before a wall it sees it squarely, by hand. */
    @Test
    void aCameraStraightBeforeAWallSeesItSquarely() {
        ObjectNode body = body("v1");
        ArrayNode objects = body.putArray("objects");
        objects.addObject()
                .put("id", "wall")
                .put("kind", "building")
                .put("lengthM", 2)
                .put("widthM", 2)
                .put("bottomM", 149.36)
                .put("topM", 151.36)
                .putArray("centre")
                .add(0)
                .add(0);
        ArrayNode photos = body.putArray("photos");
        for (double up : new double[] {150.36, 140}) {
            photos.addObject()
                    .put("id", "p" + up)
                    .put("e", 0)
                    .put("n", 11)
                    .put("h", up)
                    .put("yawDeg", 180)
                    .put("pitchDeg", 0);
        }
        body.put("cellM", 2);
        JsonNode cells = JSON.readTree(ask(body).body()).get("cells");
        assertThat(cells.size()).isEqualTo(5);
        for (JsonNode cell : cells) {
            boolean front = cell.get("face").asString().equals("front");
            assertThat(cell.get("photos").asInt()).isEqualTo(front ? 1 : 0);
            if (front) {
                // 10 m before it: pitch over focal length, times ten.
                assertThat(cell.get("gsdM").asDouble())
                        .isCloseTo(10 * 3.3e-6 / 12.3e-3, Percentage.withPercentage(1e-9));
                assertThat(cell.get("incidenceDeg").asDouble()).isCloseTo(0, Offset.offset(1e-9));
            }
        }
    }
}

package yalos.web.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.yaml.snakeyaml.Yaml;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The description of the services against what they really take and answer. */
@ExtendWith(RunningYalos.class)
class OpenApiTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String REQUEST = """
            {"type":"FeatureCollection","features":[{"type":"Feature","properties":{"role":"block"},"geometry":
            {"type":"Polygon","coordinates":[[[-4.35,54.512],[-4.347,54.512],[-4.347,54.514],[-4.35,54.514],[-4.35,54.512]]]}}],
            "plan":%s}""";

    private final Visitor visitor = new Visitor(RunningYalos.url());
    private final Map<String, Object> described =
            new Yaml().load(visitor.get("/api/openapi").body());

    @SuppressWarnings("unchecked")
    private Map<String, Object> at(String... path) {
        Map<String, Object> here = described;
        for (String step : path) {
            here = (Map<String, Object>) here.get(step);
        }
        return here;
    }

    private JsonNode ask(String plan) {
        return JSON.readTree(
                visitor.script("/api/plan", REQUEST.formatted(plan)).body());
    }

    @Test
    void everyPathIsThereAndNoOtherIsDescribed() {
        assertThat(at("paths")).containsOnlyKeys("/api/plan", "/api/coverage", "/api/accuracy", "/api/faces");
        for (String path : at("paths").keySet()) {
            assertThat(visitor.script(path, "{}").statusCode()).as(path).isIn(400, 415);
        }
    }

    /** Each described member is taken; one more is refused by name. */
    @Test
    void everyMemberOfAPlanIsKnownToTheService() {
        Map<String, Object> members = at("components", "schemas", "PlanRequest", "properties", "plan", "properties");
        for (String member : members.keySet()) {
            assertThat(ask("{\"" + member + "\":[]}").path("detail").asString())
                    .as(member)
                    .doesNotContain("unknown", "no member");
        }
        assertThat(ask("{\"sideOverlapp\":0.7}").path("detail").asString()).contains("sideOverlap");
        assertThat(new TreeSet<>(members.keySet())).isEqualTo(new TreeSet<>(PlanRequestReader.MEMBERS));
        assertThat(new TreeSet<>(at(
                                "components",
                                "schemas",
                                "PlanRequest",
                                "properties",
                                "plan",
                                "properties",
                                "camera",
                                "properties")
                        .keySet()))
                .isEqualTo(new TreeSet<>(CameraReader.MEMBERS));
    }

    @Test
    void theAnswerHasExactlyTheFiguresDescribed() {
        JsonNode answer = ask("""
                {"camera":{"pixelsAcross":5472,"pixelsAlong":3648,"sensorAcrossMm":13.2,"sensorAlongMm":8.8,"focalLengthMm":8.8},"gsdCm":2}""");
        assertThat(List.copyOf(answer.path("summary").propertyNames()))
                .containsExactlyInAnyOrderElementsOf(
                        at("components", "schemas", "Plan", "properties", "summary", "properties")
                                .keySet());
    }
}

package yalos.web.ground;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** Very much at once: taken and still light, or refused with the limit said. */
@ExtendWith(RunningYalos.class)
class SiteLimitsTest {
    private static int made;

    private final Visitor visitor = new Visitor(RunningYalos.url());
    private long block;

    @BeforeEach
    void openABlock() {
        block = visitor.newBlock("Limits " + ++made, "47.5115, 9.8680");
        visitor.change(
                block, "ground", "/import", "text", "565250 5262250\n565500 5262250\n565500 5262550\n565250 5262550");
    }

    private String obstacles(int count, int placesEach) {
        String features = IntStream.range(0, count)
                .mapToObj(i -> "{\"type\":\"Feature\",\"properties\":{\"height\":12,\"name\":\"pole " + i
                        + "\"},\"geometry\":{\"type\":\"LineString\",\"coordinates\":["
                        + IntStream.range(0, placesEach)
                                .mapToObj(p ->
                                        String.format(Locale.ROOT, "[%.5f,%.5f]", 9.86 + i * 1e-5, 47.51 + p * 1e-5))
                                .collect(Collectors.joining(","))
                        + "]}}")
                .collect(Collectors.joining(","));
        return visitor.bring(
                block,
                "ground",
                "/obstacles/file",
                "o.geojson",
                ("{\"type\":\"FeatureCollection\",\"features\":[" + features + "]}").getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void fiveHundredObstaclesMakeALightPage() {
        assertThat(obstacles(500, 2)).contains("Obstacles: 500");
        String page = visitor.get("/blocks/" + block + "/ground").body();
        assertThat(page).contains("pole 499");
        assertThat(page.length()).isLessThan(300_000);
        assertThat(obstacles(1, 2)).contains("up to 500 obstacles");
        assertThat(visitor.change(block, "ground", "/obstacles/remove", "at", "499"))
                .contains("Obstacles: 499");
    }

    @Test
    void twoHundredThousandPlacesAreRefusedWithTheLimit() {
        assertThat(obstacles(250, 800)).contains("200000 corners", "up to 20000");
        assertThat(obstacles(1, 2)).contains("Obstacles: 1");
    }

    @Test
    void whatAFormCannotHoldIsSaid() {
        HttpResponse<String> pasted = visitor.htmx(
                "/blocks/" + block + "/import",
                "version",
                visitor.version(block),
                "stage",
                "ground",
                "text",
                "47.5 9.8\n".repeat(1_000_000));
        assertThat(pasted.statusCode()).isEqualTo(413);
        assertThat(pasted.body()).contains("8 MB");
        String[] fields = IntStream.range(0, 20_100)
                .boxed()
                .flatMap(i -> Stream.of("f" + i, "x"))
                .toArray(String[]::new);
        HttpResponse<String> many = visitor.htmx("/blocks/" + block + "/brief", fields);
        assertThat(many.statusCode()).isEqualTo(413);
        assertThat(many.body()).contains("20,000 fields");
        String[] parts = IntStream.range(0, 60)
                .boxed()
                .flatMap(i -> Stream.of("f" + i, "x"))
                .toArray(String[]::new);
        HttpResponse<String> inParts =
                visitor.upload("/blocks/" + block + "/import", "a.geojson", new byte[] {'{'}, parts);
        assertThat(inParts.statusCode()).isEqualTo(413);
        assertThat(inParts.body()).contains("50 parts");
    }
}

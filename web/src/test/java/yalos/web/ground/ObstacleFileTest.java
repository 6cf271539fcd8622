package yalos.web.ground;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import yalos.core.fault.InputFault;
import yalos.core.site.Obstacle;

/** Obstacles out of GeoJSON (RFC 7946): what is read, and what is said about what is not. */
class ObstacleFileTest {
    private static final String WHOLE = """
            {"type":"FeatureCollection","features":[
              {"type":"Feature","properties":{"heightM":30,"name":"radio mast","radius":3.5},
               "geometry":{"type":"Point","coordinates":[-4.35,54.51,12]}},
              {"type":"Feature","properties":{"height":18},
               "geometry":{"type":"LineString","coordinates":[[-4.35,54.51],[-4.34,54.51],[-4.33,54.52]]}},
              {"type":"Feature","properties":{"height":9.5,"name":"barn"},
               "geometry":{"type":"Polygon","coordinates":[[[0,0],[0.001,0],[0.001,0.001],[0,0]]]}}]}
            """;

    private static List<Obstacle> read(String text) {
        return ObstacleFile.read(text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void eachGeometryIsItsKindOfObstacle() {
        List<Obstacle> read = read(WHOLE);
        assertThat(read)
                .extracting(Obstacle::kind)
                .containsExactly(Obstacle.Kind.MAST, Obstacle.Kind.LINE, Obstacle.Kind.BUILDING);
        assertThat(read).extracting(Obstacle::heightM).containsExactly(30.0, 18.0, 9.5);
        assertThat(read).extracting(Obstacle::radiusM).containsExactly(3.5, 2.0, 2.0);
        assertThat(read).extracting(Obstacle::name).containsExactly("radio mast", "line between poles 2", "barn");
        assertThat(read.get(1).places()).hasSize(3);
        assertThat(read.get(2).places())
                .as("the closing corner is the first one again")
                .hasSize(3);
        assertThat(read.get(0).places().get(0).latDeg()).isEqualTo(54.51);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "not json                      | not whole JSON",
                "{\"features\":[]}             | holds no feature",
                "[]                            | holds no feature",
                "{\"features\":[{}]}           | Feature 1 has no height",
                "{\"features\":[{\"properties\":{\"height\":\"30\"}}]} | Feature 1 has no height",
                "{\"features\":[{\"properties\":{\"height\":30},\"geometry\":{\"type\":\"MultiPoint\"}}]} "
                        + "| Feature 1 is neither Point, LineString nor Polygon",
                "{\"features\":[{\"properties\":{\"height\":30},\"geometry\":{\"type\":\"Point\",\"coordinates\":[\"x\",1]}}]} "
                        + "| Feature 1 has a place that is no pair of numbers",
                "{\"features\":[{\"properties\":{\"height\":5000},\"geometry\":{\"type\":\"Point\",\"coordinates\":[1,1]}}]} "
                        + "| between",
                "{\"features\":[{\"properties\":{\"height\":5},\"geometry\":{\"type\":\"LineString\",\"coordinates\":[[1,1]]}}]} "
                        + "| 2 to 1000 places",
            })
    void saysWhatIsWrongAndWhere(String text, String words) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(InputFault.class).hasMessageContaining(words);
    }

    /** A whole file with one byte changed is read or refused, and never anything else. */
    @Test
    void aCrookedFileIsReadOrRefused() {
        Random random = new Random(8);
        for (int run = 0; run < 3_000; run++) {
            byte[] bytes = WHOLE.getBytes(StandardCharsets.UTF_8);
            bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(128);
            try {
                assertThat(ObstacleFile.read(bytes)).isNotEmpty();
            } catch (InputFault refused) {
                assertThat(refused.getMessage()).isNotBlank();
            }
        }
    }
}

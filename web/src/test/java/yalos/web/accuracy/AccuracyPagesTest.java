package yalos.web.accuracy;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.GeoTiffWriter;
import yalos.core.terrain.HeightGrid;
import yalos.web.RunningYalos;
import yalos.web.Visitor;

/** The Accuracy stage over HTTP: residuals typed and by file, what is said of them, left out with a reason, and the report. */
@ExtendWith(RunningYalos.class)
class AccuracyPagesTest {
    private static final String FIELD = "54.5134 -4.3489\n54.5134 -4.3469\n54.5146 -4.3469\n54.5146 -4.3489";

    private final Visitor visitor = new Visitor(RunningYalos.url());

    private long block(String name) {
        long block = visitor.newBlock(name, "54.5133, -4.3489");
        visitor.change(block, "ground", "/import", "text", FIELD);
        return block;
    }

    private String page(long block) {
        return visitor.get("/blocks/" + block + "/accuracy")
                .body()
                .replaceAll("<[^>]*>", " ")
                .replaceAll("\\s+", " ");
    }

    private void typed(long block, String lines, String... more) {
        String[] form = new String[2 + more.length];
        form[0] = "lines";
        form[1] = lines;
        System.arraycopy(more, 0, form, 2, more.length);
        visitor.post("/blocks/" + block + "/accuracy/typed", form);
    }

    @Test
    void withoutCheckPointsNothingIsClaimed() {
        long block = block("Accuracy unclaimed");
        assertThat(page(block)).contains("Nothing claimed yet.");
        typed(block, "A, 0.01, 0.01, 0.01, control\nB, 0.01, -0.01, -0.01, control");
        assertThat(page(block)).contains("No accuracy can be claimed.").contains("no independent check point");
        typed(block, "C1, 0.01, 0.01, 0.02, check");
        assertThat(page(block)).contains("Too few to say.");
    }

    @Test
    void heightsPassOrFailInMetresFeetAndTenths() {
        long block = block("Accuracy judged");
        typed(
                block,
                "C1, 0.012, -0.008, 0.021, check\nC2, -0.009, 0.011, -0.018, check\nC3, 0.004, 0.006, 0.012, check\nC4, -0.007, -0.009, -0.02, check");
        assertThat(page(block))
                .contains("heights good to 1.8 cm from 4 check points")
                .contains("0.018 m")
                .contains("0.059 ft")
                .contains("4 check points state no class")
                .contains("Heights are within a tenth of a foot");
        visitor.post("/blocks/" + block + "/accuracy/note", "surveyLevel", "10", "surveyUp", "15", "datum", "ETRS89");
        assertThat(page(block)).contains("heights good to 2.4 cm from 4 check points");
        assertThat(visitor.post("/blocks/" + block + "/accuracy/note", "surveyLevel", "much")
                        .body())
                .contains("no figure");
    }

    @Test
    void anAntennaHeightCountedTwiceIsNamed() {
        long block = block("Accuracy offset");
        Random random = new Random(4);
        StringBuilder lines = new StringBuilder("point;dE;dN;dH\n");
        for (int i = 1; i <= 12; i++) {
            lines.append(String.format(
                    Locale.ROOT,
                    "K%d;%.4f;%.4f;%.4f%n",
                    i,
                    0.01 * random.nextGaussian(),
                    0.01 * random.nextGaussian(),
                    0.14 + 0.01 * random.nextGaussian()));
        }
        visitor.upload(
                "/blocks/" + block + "/accuracy/file",
                "residuals.csv",
                lines.toString().getBytes(StandardCharsets.UTF_8));
        assertThat(page(block)).contains("on all points").contains("an antenna or pole height");
        assertThat(visitor.get("/blocks/" + block + "/accuracy/charts").body()).contains("Histogram of dH");
    }

    @Test
    void anOutlierIsCountedUntilItIsLeftOutWithAReason() {
        long block = block("Accuracy outlier");
        StringBuilder lines = new StringBuilder();
        for (int i = 1; i <= 14; i++) {
            lines.append("P")
                    .append(i)
                    .append(", 0.01, 0.01, ")
                    .append(i == 9 ? "0.9" : "0.01")
                    .append(", check\n");
        }
        typed(block, lines.toString());
        assertThat(page(block))
                .contains("outlier, counted")
                .contains("1 outlier")
                .contains("P9 is off by");
        String id = visitor.get("/blocks/" + block + "/accuracy")
                .body()
                .replaceAll("(?s).*data-point=\"P9\".*?/accuracy/points/(\\d+)/leave-out.*", "$1");
        assertThat(visitor.post(
                                "/blocks/" + block + "/accuracy/points/" + id + "/leave-out",
                                "out",
                                "true",
                                "reason",
                                "")
                        .body())
                .contains("Give a reason");
        visitor.post(
                "/blocks/" + block + "/accuracy/points/" + id + "/leave-out",
                "out",
                "true",
                "reason",
                "on a moved stone");
        assertThat(page(block)).contains("left out: on a moved stone").contains("heights good to 1.0 cm from 13");
        assertThat(visitor.get("/blocks/" + block + "/accuracy/points.csv").body())
                .contains("point,role,dE_m")
                .contains("on a moved stone");
    }

    @Test
    void theReportIsAPageAndAPdf() {
        long block = block("Accuracy report");
        typed(
                block,
                "C1, 0.012, -0.008, 0.021, check, <b>grass</b>\nC2, -0.009, 0.011, -0.018, check\nC3, 0.004, 0.006, 0.012, check");
        String html = visitor.get("/blocks/" + block + "/accuracy/report.html").body();
        assertThat(html)
                .contains("Method and limits")
                .contains("Point by point")
                .contains("&lt;b&gt;grass")
                .doesNotContain("<b>grass");
        assertThat(new String(
                        visitor.bytes("/blocks/" + block + "/accuracy/report.pdf"), 0, 5, StandardCharsets.US_ASCII))
                .isEqualTo("%PDF-");
    }

    /** Heights of a plane that rises to the east, in the block's grid. */
    private static byte[] surface(double liftedM) throws IOException {
        LonLat middle = LonLat.of(-4.3479, 54.514);
        LocalPlane plane = LocalPlane.at(Grid.utmAt(middle), middle);
        HeightGrid cells = HeightGrid.level(-100, 100, 2, 100, 100, 0);
        return GeoTiffWriter.overPlane(plane, cells, row -> {
            float[] heights = new float[100];
            for (int column = 0; column < 100; column++) {
                heights[column] = (float) (90 + 0.05 * cells.x(column) + 2 * Math.sin(row / 9.0) + liftedM);
            }
            return heights;
        });
    }

    @Test
    void aSurfaceIsHeldAgainstAnEarlierOneAndAgainstPoints() throws IOException {
        long block = block("Accuracy of a surface");
        assertThat(visitor.upload(
                                "/blocks/" + block + "/accuracy/earlier",
                                List.of(
                                        new Visitor.Part("file", "spring.tif", surface(0.12)),
                                        new Visitor.Part("before", "autumn.tif", surface(0))))
                        .statusCode())
                .isLessThan(400);
        assertThat(page(block))
                .contains("spring.tif over autumn.tif")
                .contains("12 cm over it in the middle")
                .contains("0.0 % of the ground changed");
        assertThat(visitor.upload("/blocks/" + block + "/accuracy/surface", "spring.tif", surface(0))
                        .body())
                .contains("No measured point with a height lies on this surface");
        visitor.upload(
                "/blocks/" + block + "/take/laser",
                List.of(
                        new Visitor.Part("file", "one.tif", surface(0)),
                        new Visitor.Part("file", "two.tif", surface(0.03))));
        assertThat(visitor.get("/blocks/" + block + "/take").body()).contains("strips agree within 3.0 cm");
        String strips = visitor.get("/blocks/" + block + "/take")
                .body()
                .replaceAll("(?s).*(/blocks/\\d+/take/strips/\\d+).*", "$1");
        assertThat(visitor.get(strips).body()).contains("two.tif less one.tif").contains("3.0 cm");
    }

    @Test
    void tablesThatSayNothingAreRefusedInASentence() {
        long block = block("Accuracy refused");
        assertThat(visitor.upload(
                                "/blocks/" + block + "/accuracy/file",
                                "x.csv",
                                "a,b\n1,2\n".getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("needs a heading");
        assertThat(visitor.upload(
                                "/blocks/" + block + "/accuracy/file",
                                "map.csv",
                                "point,easting,northing,height\nQ1,412500,6041500,90\n"
                                        .getBytes(StandardCharsets.UTF_8))
                        .body())
                .contains("was not measured on the ground");
        assertThat(JsonMapper.builder()
                        .build()
                        .readTree(visitor.get("/blocks/" + block + "/accuracy.json")
                                .body())
                        .get("points")
                        .size())
                .isZero();
    }
}

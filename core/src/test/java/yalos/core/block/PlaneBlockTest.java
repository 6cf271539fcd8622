package yalos.core.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import yalos.core.Samples;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.Range;

/** A block asked for its pieces and with fewer corners; figures by hand. */
class PlaneBlockTest {
    private static final Outline U =
            Samples.outline(0, 0, 300, 0, 300, 200, 200, 200, 200, 50, 100, 50, 100, 200, 0, 200);

    private static PlaneBlock block(Outline outline) {
        return PlaneBlock.of(outline, Samples.UTM30);
    }

    /** Eastward through the arms of a U: 100 m, a gap of 100 m, 100 m; through its foot 300 m in one. */
    @Test
    void reachesArePieceByPiece() {
        PlaneBlock block = block(U);
        double scale = block.bounds().width() / 300;
        double north = block.bounds().north();
        // Counted to the right of east: southward.
        List<Range> arms = block.reaches(Math.PI / 2, -north + 10, -north + 30, 60);
        assertThat(arms).hasSize(2);
        assertThat(arms.get(0).length()).isCloseTo(100 * scale, Offset.offset(0.01));
        assertThat(arms.get(1).least() - arms.get(0).most()).isCloseTo(100 * scale, Offset.offset(0.01));
        assertThat(block.reaches(Math.PI / 2, -north + 10, -north + 30, 120 * scale))
                .hasSize(1);
        assertThat(block.reaches(Math.PI / 2, -north + 160, -north + 190, 60)).hasSize(1);
        assertThat(block.reaches(Math.PI / 2, -north - 90, -north - 30, 60)).isEmpty();
    }

    /** A circle of 5,000 corners and 200 m radius: a chord of 0.5 m sagitta spans 8.1°, so 45 corners at the least would do. */
    @Test
    void simplifiedWithinATolerance() {
        List<LonLat> corners = new ArrayList<>();
        for (int i = 0; i < 5000; i++) {
            double at = 2 * Math.PI * i / 5000;
            corners.add(Samples.at(200 * Math.sin(at), 200 * Math.cos(at)));
        }
        PlaneBlock round = block(Outline.ofRing(corners));
        PlaneBlock simple = round.simplified(0.5);
        assertThat(simple.corners()).isBetween(40, 140);
        assertThat(simple.areaM2()).isCloseTo(round.areaM2(), Percentage.withPercentage(0.5));
        for (double[] ring : round.rings()) {
            for (int i = 0; i < ring.length; i += 2) {
                assertThat(simple.widened(0.51).contains(ring[i], ring[i + 1])).isTrue();
            }
        }
        assertThat(block(U).simplified(5).corners()).as("nothing to leave out").isEqualTo(8);
        assertThat(block(Samples.concaveWithHole()).simplified(20).rings())
                .as("no hole is lost")
                .hasNumberOfRows(2);
    }
}

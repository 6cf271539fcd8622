package yalos.core.block;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.locationtech.jts.algorithm.Area;
import org.locationtech.jts.algorithm.PointLocation;
import org.locationtech.jts.geom.Coordinate;
import yalos.core.Samples;

/** Against a general geometry library, JTS. */
class RingTest {
    @Test
    void agreesWithTheLibraryOnStarsOfManyShapes() {
        for (long seed = 0; seed < 50; seed++) {
            double[] ring = PlaneBlock.of(Samples.random(seed), Samples.UTM30).rings()[0];
            Coordinate[] closed = new Coordinate[ring.length / 2 + 1];
            for (int i = 0; i < closed.length; i++) {
                closed[i] = new Coordinate(ring[2 * i % ring.length], ring[(2 * i + 1) % ring.length]);
            }
            // the library counts clockwise rings as positive
            assertThat(Ring.signedArea(ring)).isCloseTo(-Area.ofRingSigned(closed), Offset.offset(1e-6));
            Random random = new Random(seed);
            for (int i = 0; i < 200; i++) {
                double x = 1000 * random.nextDouble() - 500;
                double y = 1000 * random.nextDouble() - 500;
                assertThat(Ring.contains(ring, x, y)).isEqualTo(PointLocation.isInRing(new Coordinate(x, y), closed));
            }
        }
    }
}

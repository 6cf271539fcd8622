package yalos.core.surface;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Prism;

/** Lines of sight by solids whose plan bends inward, by hand and against the geometry library. */
class PrismOccluderTest {
    private static final GeometryFactory GEOMETRY = new GeometryFactory();

    /** A court of three wings, open to the north: 30 m wide, 20 m deep, wings of 8 m, 10 m high. */
    private static final Prism COURT = new Prism(
            Stream.of(new double[][] {{0, 0}, {30, 0}, {30, 20}, {22, 20}, {22, 8}, {8, 8}, {8, 20}, {0, 20}})
                    .map(at -> new PlanePoint(at[0], at[1]))
                    .toList(),
            0,
            10);

    private static final Prism DECK = new Prism(
            Stream.of(new double[][] {{-40, 40}, {70, 40}, {70, 46}, {-40, 46}})
                    .map(at -> new PlanePoint(at[0], at[1]))
                    .toList(),
            12,
            13);

    private static boolean clear(double x, double y, double z, double eyeX, double eyeY, double eyeZ) {
        return new PrismOccluder(List.of(COURT, DECK))
                .towards(new Box(x, x, y, y, z, z), eyeX, eyeY, eyeZ)
                .clear(x, y, z);
    }

    @ParameterizedTest
    @CsvSource({
        // the back wall of the court: seen through its mouth, not through a wing, and over a wing only from high up
        "15, 8, 5, 15, 60, 5, true",
        "15, 8, 5, 60, 20, 5, false",
        "15, 8, 5, 60, 20, 50, true",
        // by hand: over the edge at x 22, 7 m off, the line climbs 5 m only from 5 + 45 × 5 / 7 = 37.1 m on
        "15, 8, 5, 60, 8, 37.2, true",
        "15, 8, 5, 60, 8, 37.0, false",
        // along the wall itself
        "10, 8, 5, 20, 8, 5, true",
        // under the deck and over it, and through it
        "15, 30, 5, 15, 60, 5, true",
        "15, 30, 5, 15, 60, 25, false",
        "15, 30, 20, 15, 60, 14, true",
    })
    void byHand(double x, double y, double z, double eyeX, double eyeY, double eyeZ, boolean clear) {
        assertThat(clear(x, y, z, eyeX, eyeY, eyeZ)).isEqualTo(clear);
        assertThat(clear(eyeX, eyeY, eyeZ, x, y, z)).as("the other way").isEqualTo(clear);
    }

    /** The piece of a line between the solid's heights, cut out of its plan by the geometry library. */
    @ParameterizedTest
    @ValueSource(longs = {4, 5, 6})
    void agreesWithTheGeometryLibrary(long seed) {
        Random random = new Random(seed);
        int hidden = 0;
        for (int run = 0; run < 4000; run++) {
            double[] from = {60 * random.nextDouble() - 15, 60 * random.nextDouble() - 15, 24 * random.nextDouble()};
            double[] to = {60 * random.nextDouble() - 15, 60 * random.nextDouble() - 15, 24 * random.nextDouble()};
            double within = Math.max(within(COURT, from, to), within(DECK, from, to));
            if (within > 0 && within < 1e-6) {
                continue;
            }
            hidden += within > 0 ? 1 : 0;
            assertThat(clear(from[0], from[1], from[2], to[0], to[1], to[2]))
                    .as("run %d", run)
                    .isEqualTo(within == 0);
        }
        assertThat(hidden).isBetween(400, 3600);
    }

    private static double within(Prism solid, double[] from, double[] to) {
        double rise = to[2] - from[2];
        double one = share((solid.bottomM() - from[2]) / rise);
        double two = share((solid.topM() - from[2]) / rise);
        if (one == two) {
            return 0;
        }
        Geometry piece = GEOMETRY.createLineString(new Coordinate[] {at(from, to, one), at(from, to, two)});
        return solid.plan().intersection(piece).getLength();
    }

    private static double share(double along) {
        return Math.max(0, Math.min(1, along));
    }

    private static Coordinate at(double[] from, double[] to, double share) {
        return new Coordinate(from[0] + share * (to[0] - from[0]), from[1] + share * (to[1] - from[1]));
    }

    /** Places of one wall with their own solid in the way: from every eye before the wall but for the wings. */
    @Test
    void aWallIsNotHiddenByItself() {
        PrismFace back = PrismFace.wall(COURT, 4, 0.5);
        double[] place = new double[3];
        for (int column = 0; column < back.columns(); column++) {
            for (int row = 0; row < back.rows(); row++) {
                back.place(column, row, place);
                assertThat(clear(place[0], place[1], place[2], place[0], 30, place[2]))
                        .isTrue();
                assertThat(clear(place[0], place[1], place[2], place[0], -30, place[2]))
                        .isFalse();
            }
        }
    }
}

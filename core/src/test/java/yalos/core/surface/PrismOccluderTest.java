package yalos.core.surface;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
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

    /** A tile that is told by the corners of its plane sees what each of its places sees for itself, on walls of any direction, from any eye. */
    @ParameterizedTest
    @ValueSource(longs = {7, 8, 9})
    void aTileSeesWhatItsPlacesSee(long seed) {
        Random random = new Random(seed);
        Prism drum = drum(9, 12, -20, 10);
        PrismOccluder occluder = new PrismOccluder(List.of(COURT, DECK, drum));
        double[] at = new double[3];
        int free = 0;
        int hidden = 0;
        for (int run = 0; run < 600; run++) {
            Prism solid = random.nextBoolean() ? COURT : drum;
            PrismFace face = random.nextInt(4) == 0
                    ? PrismFace.roof(solid, 1)
                    : PrismFace.wall(solid, random.nextInt(solid.walls()), 1);
            int toColumn = 1 + random.nextInt(face.columns());
            int toRow = 1 + random.nextInt(face.rows());
            int fromColumn = random.nextInt(toColumn);
            int fromRow = random.nextInt(toRow);
            Box box = face.box(fromColumn, toColumn, fromRow, toRow);
            if (box.isEmpty()) {
                continue;
            }
            double eyeX = 90 * random.nextDouble() - 40;
            double eyeY = 90 * random.nextDouble() - 30;
            double eyeZ = 25 * random.nextDouble();
            Occluder.Sight tile =
                    occluder.towards(box, face.hull(fromColumn, toColumn, fromRow, toRow), eyeX, eyeY, eyeZ);
            free += tile == Occluder.Sight.FREE ? 1 : 0;
            for (int row = fromRow; row < toRow; row++) {
                for (int column = fromColumn; column < toColumn; column++) {
                    face.place(column, row, at);
                    if (!Double.isNaN(at[2])) {
                        boolean alone = occluder.towards(
                                        new Box(at[0], at[0], at[1], at[1], at[2], at[2]), eyeX, eyeY, eyeZ)
                                .clear(at[0], at[1], at[2]);
                        hidden += alone ? 0 : 1;
                        assertThat(tile.clear(at[0], at[1], at[2]))
                                .as("run %d", run)
                                .isEqualTo(alone);
                    }
                }
            }
        }
        assertThat(free).isGreaterThan(60);
        assertThat(hidden).isGreaterThan(1000);
    }

    private static Prism drum(int walls, double radius, double x, double y) {
        return new Prism(
                IntStream.range(0, walls)
                        .mapToObj(i -> new PlanePoint(x, y).moved(0.3 + 2 * Math.PI * i / walls, radius))
                        .toList(),
                1,
                14);
    }
}

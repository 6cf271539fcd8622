package yalos.core.surface;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.geodesy.PlanePoint;
import yalos.core.site.Solid;

/** Does a box hide what lies behind it, and nothing else? */
class SolidOccluderTest {
    /** 20 m long to the north, 10 m wide, from 5 m to 15 m up, round the origin. */
    private static final Solid BOX = new Solid(new PlanePoint(0, 0), 20, 10, 0, 5, 15);

    private static boolean clear(Solid solid, double[] from, double[] to) {
        Box place = new Box(from[0], from[0], from[1], from[1], from[2], from[2]);
        return new SolidOccluder(List.of(solid))
                .towards(place, to[0], to[1], to[2])
                .clear(from[0], from[1], from[2]);
    }

    /** By hand: faces at x = ±5, y = ±10, z = 5 and 15. */
    @ParameterizedTest
    @CsvSource({
        "-20, 0, 10,   20, 0, 10,  false", // through the middle
        "-20, 0, 4.9,  20, 0, 4.9, true", // beneath it
        "-20, 0, 15.1, 20, 0, 15.1, true", // over it
        "-20, 10.1, 10, 20, 10.1, 10, true", // past its northern face
        "-20, 9.9, 10,  20, 9.9, 10, false",
        "0, 0, 0,     0, 0, 50,    false", // from under it, straight up
        "0, 0, 15,    0, 0, 50,    true", // on its roof
        "0, 0, 15,    30, 0, 15.5, true", // from the roof, grazing
        "5, 0, 10,    40, 0, 12,   true", // on its eastern wall, looking east
        "5, 0, 10,    -40, 0, 12,  false", // on that wall, the eye behind the box
        "0, 0, 5,     10, 0, -20,  true", // its underside, from below
        "-20, 0, 0,   20, 0, 20,   false", // rising through it: 10 m up in the middle
        "-20, 0, 10,  -6, 0, 10,   true", // both before it
        "-20, -11, 10, 0, 12, 10,  false", // across its south-western corner's side
    })
    void byHand(double x, double y, double z, double eyeX, double eyeY, double eyeZ, boolean clear) {
        assertThat(clear(BOX, new double[] {x, y, z}, new double[] {eyeX, eyeY, eyeZ}))
                .isEqualTo(clear);
    }

    /** Turned by 90° its length lies east and west. */
    @Test
    void theAxisTurnsIt() {
        Solid turned = new Solid(new PlanePoint(0, 0), 20, 10, Math.PI / 2, 5, 15);
        assertThat(clear(turned, new double[] {8, -30, 10}, new double[] {8, 30, 10}))
                .isFalse();
        assertThat(clear(BOX, new double[] {8, -30, 10}, new double[] {8, 30, 10}))
                .isTrue();
        Solid skew = new Solid(new PlanePoint(0, 0), 20, 10, Math.PI / 4, 5, 15);
        // its north-eastern end is at 7.07 + 3.5 m along east and north: the corner (10.6, 3.5) holds, (3.5, -10.6)
        // does not
        assertThat(clear(skew, new double[] {10, 3.4, 0}, new double[] {10, 3.4, 50}))
                .isFalse();
        assertThat(clear(skew, new double[] {3.4, -10, 0}, new double[] {3.4, -10, 50}))
                .isTrue();
    }

    /** Against a walk along the line in small steps, turned boxes and lines at random; grazing lines are left out. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3})
    void agreesWithWalkingAlongTheLine(long seed) {
        Random random = new Random(seed);
        int hidden = 0;
        for (int run = 0; run < 2000; run++) {
            Solid solid = new Solid(
                    new PlanePoint(20 * random.nextDouble(), 20 * random.nextDouble()),
                    1 + 20 * random.nextDouble(),
                    1 + 10 * random.nextDouble(),
                    2 * Math.PI * random.nextDouble(),
                    5 * random.nextDouble(),
                    6 + 10 * random.nextDouble());
            double[] from = {60 * random.nextDouble() - 20, 60 * random.nextDouble() - 20, 30 * random.nextDouble()};
            double[] to = {60 * random.nextDouble() - 20, 60 * random.nextDouble() - 20, 30 * random.nextDouble()};
            int inside = inside(solid, from, to, 0);
            int nearly = inside(solid, from, to, 0.2);
            if (inside == 0 && nearly > 0) {
                continue;
            }
            hidden += inside > 0 ? 1 : 0;
            assertThat(clear(solid, from, to)).as("run %d", run).isEqualTo(inside == 0);
        }
        assertThat(hidden).isGreaterThan(100);
    }

    private static int inside(Solid solid, double[] from, double[] to, double slack) {
        int steps = 2000;
        int inside = 0;
        for (int i = 0; i <= steps; i++) {
            double share = i / (double) steps;
            double x = from[0] + share * (to[0] - from[0]) - solid.middle().xM();
            double y = from[1] + share * (to[1] - from[1]) - solid.middle().yM();
            double z = from[2] + share * (to[2] - from[2]);
            double along = x * Math.sin(solid.axisRad()) + y * Math.cos(solid.axisRad());
            double aside = x * Math.cos(solid.axisRad()) - y * Math.sin(solid.axisRad());
            if (Math.abs(along) < solid.lengthM() / 2 + slack
                    && Math.abs(aside) < solid.widthM() / 2 + slack
                    && z > solid.bottomM() - slack
                    && z < solid.topM() + slack) {
                inside++;
            }
        }
        return inside;
    }

    @Test
    void severalHideWhatAnyHides() {
        Solid north = new Solid(new PlanePoint(0, 100), 20, 10, 0, 5, 15);
        Occluder both = Occluder.all(
                List.of(new SolidOccluder(List.of(BOX)), new SolidOccluder(List.of(north)), Occluder.NONE));
        Box place = new Box(-20, -20, 0, 100, 10, 10);
        Occluder.Sight sight = both.towards(place, 20, 50, 10);
        assertThat(sight.clear(-20, 0, 10)).isTrue();
        assertThat(both.towards(new Box(-20, -20, 0, 0, 10, 10), 20, 0, 10).clear(-20, 0, 10))
                .isFalse();
        assertThat(both.towards(new Box(-20, -20, 100, 100, 10, 10), 20, 100, 10)
                        .clear(-20, 100, 10))
                .isFalse();
        assertThat(both.towards(new Box(500, 501, 500, 501, 0, 1), 600, 600, 50))
                .as("nothing lies between")
                .isSameAs(Occluder.Sight.FREE);
    }
}

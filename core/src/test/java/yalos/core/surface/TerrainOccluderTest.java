package yalos.core.surface;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.SightLine;

/** The quick ways round following a ray never change an answer. */
class TerrainOccluderTest {
    private static HeightGrid rough(long seed, double steepness) {
        Random random = new Random(seed);
        HeightGrid grid = HeightGrid.level(0, 200, 2, 100, 100, 0);
        for (int i = 0; i < grid.heights().length; i++) {
            double x = grid.x(i % 100);
            double y = grid.y(i / 100);
            grid.heights()[i] = (float) (steepness * (18 * Math.sin(x / 13) * Math.cos(y / 17) + random.nextDouble()));
        }
        return grid;
    }

    /** Against the plain line of sight, followed from end to end: every cell of every tile to eyes high, low and between. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void agreesWithFollowingEveryRayToItsEnd(long seed) {
        HeightGrid grid = rough(seed, 0.3 + 0.3 * (seed % 3));
        GroundSurface ground = new GroundSurface(grid);
        TerrainOccluder occluder = new TerrainOccluder(grid);
        SightLine plain = SightLine.plane(grid);
        Random random = new Random(seed);
        int free = 0;
        int hidden = 0;
        for (int eye = 0; eye < 24; eye++) {
            double x = 220 * random.nextDouble() - 10;
            double y = 220 * random.nextDouble() - 10;
            double z = eye % 2 == 0 ? 20 + 60 * random.nextDouble() : 150 + 300 * random.nextDouble();
            for (int tile = 0; tile < 16; tile++) {
                int c = 25 * (tile % 4);
                int r = 25 * (tile / 4);
                Occluder.Sight sight = occluder.towards(ground.box(c, c + 25, r, r + 25), x, y, z);
                free += sight == Occluder.Sight.FREE ? 1 : 0;
                for (int row = r; row < r + 25; row += 3) {
                    for (int column = c; column < c + 25; column += 3) {
                        double up = grid.cell(column, row);
                        boolean expected = plain.clear(grid.x(column), grid.y(row), up, x, y, z);
                        hidden += expected ? 0 : 1;
                        assertThat(sight.clear(grid.x(column), grid.y(row), up)).isEqualTo(expected);
                    }
                }
            }
        }
        assertThat(hidden).as("some rays are blocked").isGreaterThan(100);
        assertThat(free).as("some tiles are known to be free").isPositive();
    }

    /**
     * A plane of slope 1 seen along it: a ray that rises at 45.5° clears it, at 44° it does not; so a bound on steepness that is
     * any less than the slope itself would be wrong.
     */
    @Test
    void theBoundOnSteepnessIsTheSlopeItself() {
        HeightGrid slope = HeightGrid.level(0, 64, 1, 64, 64, 0);
        for (int i = 0; i < slope.heights().length; i++) {
            // a roof: up to the ridge at x = 32 and down again, seen from beyond the ridge
            slope.heights()[i] = (float) (32 - Math.abs(slope.x(i % 64) - 32));
        }
        TerrainOccluder occluder = new TerrainOccluder(slope);
        Box foot = new Box(4.5, 4.5, 32, 32, 4.5, 4.5);
        double far = 60;
        for (double degrees : new double[] {30, 40, 44, 46, 50, 60}) {
            double z = 4.5 + (far - 4.5) * Math.tan(Math.toRadians(degrees));
            boolean clear = occluder.towards(foot, far, 32, z).clear(4.5, 32, 4.5);
            assertThat(clear).as("at %.0f°", degrees).isEqualTo(degrees > 45);
        }
    }

    @Test
    void theNormalOfASlopeIsSquareToIt() {
        HeightGrid slope = HeightGrid.level(0, 40, 2, 20, 20, 0);
        for (int i = 0; i < slope.heights().length; i++) {
            slope.heights()[i] = (float) (0.75 * slope.x(i % 20) - 0.2 * slope.y(i / 20));
        }
        double[] normal = new double[3];
        new GroundSurface(slope).normal(7, 9, normal);
        double length = Math.sqrt(1 + 0.75 * 0.75 + 0.2 * 0.2);
        assertThat(normal[0]).isCloseTo(-0.75 / length, Offset.offset(1e-6));
        assertThat(normal[1]).isCloseTo(0.2 / length, Offset.offset(1e-6));
        assertThat(normal[2]).isCloseTo(1 / length, Offset.offset(1e-6));
    }
}

package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;

/** Cast shadows against the independent reference: rays sampled every 5 cm, and an exact method patch by patch; shadow_suns.csv. */
class CastShadowTest {
    @TempDir
    Path folder;

    static Stream<Reference.Row> suns() {
        return Reference.rows("shadow_suns.csv");
    }

    @ParameterizedTest
    @MethodSource("suns")
    void shadowsAreThoseOfTheReference(Reference.Row row) throws IOException {
        HeightGrid ground = TerrainTest.coverageGround(folder);
        boolean[] shaded = CastShadow.of(
                ground,
                Math.toRadians(row.number("sun_azimuth_grid_deg")),
                Math.toRadians(row.number("sun_elevation_deg")));
        float[] expected = cells(row.text("file_shaded"));
        float[] ambiguous = cells(row.text("file_ambiguous"));
        int wrong = 0;
        int clear = 0;
        int differ = 0;
        int dark = 0;
        for (int i = 0; i < shaded.length; i++) {
            boolean same = shaded[i] == (expected[i] == 1);
            clear += ambiguous[i] == 0 ? 1 : 0;
            wrong += ambiguous[i] == 0 && !same ? 1 : 0;
            differ += same ? 0 : 1;
            dark += shaded[i] ? 1 : 0;
        }
        assertThat(wrong).isLessThanOrEqualTo(clear / 1000);
        assertThat((double) differ / shaded.length).isLessThan(0.02);
        assertThat((double) dark / shaded.length).isCloseTo(row.number("share_shaded"), Offset.offset(0.01));
    }

    private float[] cells(String file) throws IOException {
        Path copy = folder.resolve(file);
        Files.write(copy, Reference.bytes(file));
        try (GeoTiff tiff = GeoTiff.open(copy)) {
            return tiff.window(0, 0, tiff.columns(), tiff.rows());
        }
    }

    /** What is decided by sweeping is what rays say, cell by cell: rough ground with walls, pits and holes, oblong cells, the sun all round. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void roughGroundIsShadedAsItsRaysSay(long seed) {
        Random random = new Random(seed);
        HeightGrid flat = HeightGrid.level(0, 0, 2, 70, 55, 0);
        HeightGrid ground = new HeightGrid(0, 110, 2, 2 + random.nextDouble(), 70, 55, flat.heights());
        for (int i = 0; i < ground.heights().length; i++) {
            double x = i % 70;
            double y = i / 70;
            double hills = 6 * Math.sin(x / (5 + seed)) * Math.cos(y / 7) + seed * random.nextDouble() / 2;
            double wall = Math.abs(x - 20 - 0.4 * y) < 1 ? 15 : 0;
            double pit = Math.hypot(x - 50, y - 30) < 6 ? -12 : 0;
            boolean hole = seed % 2 == 0 && Math.hypot(x - 35, y - 15) < 4;
            ground.heights()[i] = hole ? Float.NaN : (float) (hills + wall + pit);
        }
        SightLine rays = SightLine.plane(ground);
        double most = ground.range().most();
        int differ = 0;
        int looked = 0;
        for (int turn = 0; turn < 16; turn++) {
            double azimuth = 2 * Math.PI * turn / 16 + (turn % 3) * 0.01;
            double elevation = Math.toRadians(4 + 50 * random.nextDouble());
            boolean[] shaded = CastShadow.of(ground, azimuth, elevation);
            for (int i = 0; i < shaded.length; i++) {
                double z = ground.heights()[i];
                double far = (most - z) / Math.tan(elevation);
                double x = ground.x(i % 70);
                double y = ground.y(i / 70);
                boolean dark = !Double.isNaN(z)
                        && far > 0
                        && !rays.clear(x, y, z, x + far * Math.sin(azimuth), y + far * Math.cos(azimuth), most);
                differ += dark == shaded[i] ? 0 : 1;
                looked++;
            }
        }
        assertThat((double) differ / looked).isLessThan(0.001);
    }

    /** A wall of 10 m and a sun of 45° in the south: ten metres of shade to its north, by hand. */
    @Test
    void aWallShadesAsFarAsItIsHigh() {
        HeightGrid ground = HeightGrid.level(0, 100, 1, 40, 100, 0);
        for (int column = 0; column < 40; column++) {
            ground.heights()[60 * 40 + column] = 10;
        }
        boolean[] shaded = CastShadow.of(ground, Math.PI, Math.toRadians(45));
        for (int row = 0; row < 100; row++) {
            boolean within = row >= 51 && row < 60;
            if (row < 49 || row > 62 || within) {
                assertThat(shaded[row * 40 + 20]).as("row %d", row).isEqualTo(within);
            }
        }
    }

    @Test
    void atNightAllIsDarkAndHolesAreNeitherDarkNorLight() {
        HeightGrid ground = HeightGrid.level(0, 10, 1, 10, 10, 5);
        ground.heights()[55] = Float.NaN;
        assertThat(CastShadow.of(ground, 0, -0.1)).doesNotContain(false);
        assertThat(CastShadow.of(ground, 0, 0.3)).doesNotContain(true);
    }
}

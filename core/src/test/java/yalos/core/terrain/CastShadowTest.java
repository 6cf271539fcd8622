package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
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

package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** The ground against reference raster software: encodings, slope, light, lines of sight, geoid. */
class TerrainTest {
    @TempDir
    Path folder;

    private GeoTiff open(String name) throws IOException {
        Path copy = folder.resolve(name.replace('/', '_'));
        Files.write(copy, Reference.bytes(name));
        return GeoTiff.open(copy);
    }

    /** What lies beyond the model neither blocks nor costs: a far eye sees what one just beyond the edge on the same line sees. */
    @Test
    void aFarEyeSeesWhatOneAtTheEdgeSees() throws IOException {
        HeightGrid grid = coverageGround(folder);
        SightLine plain = SightLine.plane(grid);
        SightLine ready = SightLine.forManyRays(grid);
        Random random = new Random(3);
        double across = grid.columns() * grid.cellX();
        int blocked = 0;
        for (int i = 0; i < 4000; i++) {
            double x = grid.west() + random.nextDouble() * across;
            double y = grid.north() - random.nextDouble() * grid.rows() * grid.cellY();
            double z = grid.at(x, y);
            double bearing = random.nextDouble() * 2 * Math.PI;
            double slope = random.nextDouble() * 0.5;
            boolean[] seen = new boolean[4];
            int at = 0;
            for (double far : new double[] {2 * across, 500_000}) {
                double toX = x + far * Math.sin(bearing);
                double toY = y + far * Math.cos(bearing);
                seen[at++] = plain.clear(x, y, z, toX, toY, z + slope * far);
                seen[at++] = ready.clear(x, y, z, toX, toY, z + slope * far);
            }
            assertThat(seen).containsOnly(seen[0]);
            blocked += seen[0] ? 0 : 1;
        }
        assertThat(blocked).isBetween(200, 3800);
    }

    static HeightGrid coverageGround(Path folder) throws IOException {
        Path copy = folder.resolve("dem.tif");
        Files.write(copy, Reference.bytes("coverage_dem_utm.tif"));
        try (GeoTiff tiff = GeoTiff.open(copy)) {
            Georeference geo = tiff.georeference();
            return new HeightGrid(
                    geo.originX(),
                    geo.originY(),
                    geo.xPerColumn(),
                    -geo.yPerRow(),
                    tiff.columns(),
                    tiff.rows(),
                    tiff.window(0, 0, tiff.columns(), tiff.rows()));
        }
    }

    static Stream<Reference.Row> cells() {
        return Reference.rows("raster_expected.csv");
    }

    /** Fourteen encodings, written by GDAL and read back by GDAL and libtiff; raster_expected.csv. */
    @ParameterizedTest
    @MethodSource("cells")
    void readsEveryEncodingAsReferenceSoftwareDoes(Reference.Row row) throws IOException {
        try (GeoTiff tiff = open("raster/" + row.text("file"))) {
            assertThat(tiff.epsg()).hasValue(Integer.parseInt(row.text("crs").replace("EPSG:", "")));
            double column = tiff.georeference().column(row.number("x"), row.number("y"));
            double line = tiff.georeference().row(row.number("x"), row.number("y"));
            float value = tiff.window((int) Math.floor(column), (int) Math.floor(line), 1, 1)[0];
            if (row.whole("is_nodata") == 1) {
                assertThat(value).isNaN();
                return;
            }
            assertThat((double) value).isCloseTo(row.number("cell_value"), Offset.offset(0.001));
            if (!row.isEmpty("bilinear_value")) {
                float[] all = tiff.window(0, 0, tiff.columns(), tiff.rows());
                HeightGrid grid = new HeightGrid(0, 0, 1, 1, tiff.columns(), tiff.rows(), all);
                assertThat(grid.at(column, -line)).isCloseTo(row.number("bilinear_value"), Offset.offset(0.01));
            }
        }
    }

    static Stream<Reference.Row> broken() {
        return Reference.rows("raster_broken.csv");
    }

    @ParameterizedTest
    @MethodSource("broken")
    void refusesBrokenFilesWithoutReadingThemWhole(Reference.Row row) {
        assertThatThrownBy(() -> open("raster/" + row.text("file")).close())
                .as(row.text("defect"))
                .isInstanceOf(InputFault.class);
    }

    /** A file cut off inside its cells is found when it is opened, wherever it is cut. */
    @ParameterizedTest
    @ValueSource(doubles = {0.01, 0.2, 0.5, 0.9, 0.999})
    void refusesAFileCutOffAnywhere(double share) throws IOException {
        byte[] whole = Reference.bytes("raster/strips_float32.tif");
        Path cut = folder.resolve("cut.tif");
        Files.write(cut, Arrays.copyOf(whole, (int) (whole.length * share)));
        assertThatThrownBy(() -> GeoTiff.open(cut).window(0, 0, 32, 32)).isInstanceOf(InputFault.class);
    }

    /** Bytes of a sound file changed at random: read or refused, nothing else. */
    @Test
    void neitherHangsNorThrowsAnythingElseOnDamagedBytes() throws IOException {
        Random random = new Random(7);
        for (String name : new String[] {
            "tiled_deflate_predictor3_float32.tif",
            "lzw_predictor2_int16.tif",
            "bigtiff_float32.tif",
            "packbits_uint16.tif"
        }) {
            byte[] sound = Reference.bytes("raster/" + name);
            for (int i = 0; i < 300; i++) {
                byte[] damaged = sound.clone();
                for (int k = 0; k < 4; k++) {
                    damaged[random.nextInt(Math.min(400, damaged.length))] = (byte) random.nextInt();
                }
                Path file = folder.resolve("damaged.tif");
                Files.write(file, damaged);
                try (GeoTiff tiff = GeoTiff.open(file)) {
                    tiff.window(0, 0, Math.min(64, tiff.columns()), Math.min(64, tiff.rows()));
                } catch (InputFault refused) {
                    assertThat(refused.getMessage()).isNotBlank();
                }
            }
        }
    }

    @Test
    void anAsciiGridHoldsTheSameHeightsAsItsTiff() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        EsriGrid.toGeoTiff(
                new StringReader(new String(Reference.bytes("coverage_dem.asc"))), OptionalInt.of(32632), out);
        Path written = folder.resolve("from-ascii.tif");
        Files.write(written, out.toByteArray());
        try (GeoTiff ours = GeoTiff.open(written);
                GeoTiff theirs = open("coverage_dem_utm.tif")) {
            assertThat(ours.georeference()).isEqualTo(theirs.georeference());
            assertThat(ours.epsg()).isEqualTo(theirs.epsg());
            assertThat(ours.window(0, 0, 400, 400)).isEqualTo(theirs.window(0, 0, 400, 400));
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "ncols 2 nrows 2 | header",
                "ncols 2\\nnrows 2\\nxllcorner 0\\nyllcorner 0\\ncellsize 0\\n1 2 3 4 | cell size",
                "ncols 2\\nnrows 2\\nxllcorner 0\\nyllcorner 0\\ncellsize 1\\n1 2 3 | before its last height",
                "ncols 2\\nnrows 2\\nxllcorner 0\\nyllcorner 0\\ncellsize 1\\n1 2 x 4 | no height",
                "ncols 2000000\\nnrows 2000000\\nxllcorner 0\\nyllcorner 0\\ncellsize 1\\n1 | million",
            })
    void refusesABrokenAsciiGridAndSaysWhere(String text, String message) {
        assertThatThrownBy(() -> EsriGrid.toGeoTiff(
                        new StringReader(text.replace("\\n", "\n")), OptionalInt.empty(), new ByteArrayOutputStream()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining(message.strip().equals("header") ? "grid" : message.strip());
    }

    static Stream<Reference.Row> undulations() {
        return Reference.rows("geoid_egm96.csv");
    }

    /** PROJ's EGM96 15' grid, bilinear; geoid_egm96.csv, 6 mm for the grid in centimetres. */
    @ParameterizedTest
    @MethodSource("undulations")
    void knowsTheGeoid(Reference.Row row) {
        LonLat at = LonLat.of(row.number("lon_deg"), row.number("lat_deg"));
        assertThat(Geoid.egm96().undulationM(at)).isCloseTo(row.number("undulation_m"), Offset.offset(0.006));
    }

    /** gdaldem slope, aspect and hillshade; terrain.csv. */
    @Test
    void slopeAspectAndLightAgreeWithReferenceSoftware() throws IOException {
        Relief relief = new Relief(coverageGround(folder));
        Reference.rows("terrain.csv").forEach(row -> {
            int column = row.whole("col");
            int line = row.whole("row");
            double slope = Math.toDegrees(relief.slopeRad(column, line));
            assertThat(slope).isCloseTo(row.number("slope_deg_gdaldem"), Offset.offset(0.01));
            if (slope > 0.5) {
                double aspect = Math.toDegrees(relief.aspectRad(column, line));
                assertThat(aspect).isCloseTo(row.number("aspect_deg_gdaldem"), Offset.offset(0.5));
            }
            double light = relief.hillshade(
                    column,
                    line,
                    Math.toRadians(row.number("light_azimuth_deg")),
                    Math.toRadians(row.number("light_altitude_deg")),
                    1);
            assertThat(light).isCloseTo(row.number("hillshade_gdaldem"), Offset.offset(1.0));
        });
    }

    /** gdal_viewshed and an own line of sight, where both agree; viewshed_samples.csv. */
    @Test
    void linesOfSightAgreeWithReferenceSoftware() throws IOException {
        HeightGrid ground = coverageGround(folder);
        SightLine line = SightLine.curved(ground, 0.85714);
        Map<String, Reference.Row> observers = Reference.rows("viewshed_observers.csv")
                .collect(Collectors.toMap(row -> row.text("observer"), row -> row));
        int[] wrong = new int[1];
        int[] asked = new int[1];
        Reference.rows("viewshed_samples.csv").forEach(row -> {
            for (String who : new String[] {"A", "B"}) {
                for (int above : new int[] {0, 60}) {
                    if (row.whole("ambiguous_" + who + "_tz" + above) == 1) {
                        continue;
                    }
                    Reference.Row observer = observers.get(who);
                    double eye = observer.number("ground_z_m") + observer.number("eye_height_m");
                    double target = ground.cell(row.whole("col"), row.whole("row")) + above;
                    boolean clear = line.clear(
                            row.number("e_m"),
                            row.number("n_m"),
                            target,
                            observer.number("e_m"),
                            observer.number("n_m"),
                            eye);
                    asked[0]++;
                    wrong[0] += clear == (row.whole("visible_" + who + "_tz" + above) == 1) ? 0 : 1;
                }
            }
        });
        assertThat(asked[0]).isGreaterThan(900);
        assertThat(wrong[0]).as("of %d", asked[0]).isLessThanOrEqualTo(asked[0] / 100);
    }

    /**
     * Over a round earth an eye at h sees level ground as far as √(2 R h / c): 4.12 km from 1.7 m with c = 0.85714, a target of the same height
     * twice as far (plane geometry; the drop is c d² / 2R). Without a curvature it sees all of it.
     */
    @Test
    void theEarthsCurvatureHidesWhatLiesBeyondTheHorizon() {
        HeightGrid flat = HeightGrid.level(0, 100, 50, 400, 2, 0);
        SightLine round = SightLine.curved(flat, 0.85714);
        double horizon = Math.sqrt(2 * 6_378_137 * 1.7 / 0.85714);
        for (double share : new double[] {0.5, 0.9, 1.1, 1.5}) {
            double from = 100 + horizon * share;
            assertThat(round.clear(from, 50, 0.005, 100, 50, 1.7))
                    .as("ground at %.1f of the horizon", share)
                    .isEqualTo(share < 1);
            double both = 100 + 2 * horizon * share;
            assertThat(round.clear(both, 50, 1.7, 100, 50, 1.7))
                    .as("a target as high at %.1f of twice the horizon", share)
                    .isEqualTo(share < 1);
            assertThat(SightLine.plane(flat).clear(both, 50, 1.7, 100, 50, 1.7)).isTrue();
        }
    }
}

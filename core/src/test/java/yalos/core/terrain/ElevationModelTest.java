package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.block.LocalPlane;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.Range;
import yalos.core.units.Unit;

/** Elevation models in any coordinate and height system, laid into the plane of a block. */
class ElevationModelTest {
    private static final Grid UTM = Grid.ofEpsg(32632);

    @TempDir
    Path folder;

    private GeoTiff open(String name) throws IOException {
        Path copy = folder.resolve(name.replace('/', '_'));
        Files.write(copy, Reference.bytes(name));
        return GeoTiff.open(copy);
    }

    private ElevationModel model(String name, VerticalDatum datum) throws IOException {
        return ElevationModel.of(open(name), OptionalInt.empty(), datum);
    }

    static Stream<Reference.Row> places() {
        return Reference.rows("raster_expected.csv")
                .filter(row -> row.whole("is_nodata") == 0 && !row.isEmpty("bilinear_value"));
    }

    /** Bilinear heights of every encoding at positions on the ellipsoid; raster_expected.csv, 1 cm. */
    @ParameterizedTest
    @MethodSource("places")
    void knowsTheHeightOfAPosition(Reference.Row row) throws IOException {
        try (GeoTiff raster = open("raster/" + row.text("file"))) {
            ElevationModel model = ElevationModel.of(raster, OptionalInt.empty(), VerticalDatum.GEOID_METRES);
            int epsg = raster.epsg().orElseThrow();
            LonLat at = epsg == 4326
                    ? LonLat.of(row.number("x"), row.number("y"))
                    : Grid.ofEpsg(epsg).toLonLat(new EastNorth(row.number("x"), row.number("y")));
            assertThat(model.heightM(at)).isCloseTo(row.number("bilinear_value"), Offset.offset(0.01));
        }
    }

    /** gdalwarp put the same ground into longitude and latitude: 99 % within 7 cm, says the reference. */
    @Test
    void theSameGroundInDegreesLiesAtTheSamePlace() throws IOException {
        LocalPlane plane = LocalPlane.at(UTM, UTM.toLonLat(new EastNorth(565_400, 5_262_400)));
        HeightGrid metres = HeightGrid.level(-200, 200, 2, 200, 200, Double.NaN);
        HeightGrid degrees = HeightGrid.level(-200, 200, 2, 200, 200, Double.NaN);
        model("coverage_dem_utm.tif", VerticalDatum.GEOID_METRES).fill(metres, plane);
        model("coverage_dem_wgs84.tif", VerticalDatum.GEOID_METRES).fill(degrees, plane);
        int near = 0;
        for (int i = 0; i < metres.heights().length; i++) {
            assertThat(metres.heights()[i]).isNotNaN();
            near += Math.abs(metres.heights()[i] - degrees.heights()[i]) < 0.25 ? 1 : 0;
        }
        assertThat(near).isGreaterThan(metres.heights().length * 97 / 100);
    }

    /** A grid filled cell by cell agrees with asking for each position by itself. */
    @Test
    void fillingAGridIsAskingForEachOfItsPlaces() throws IOException {
        ElevationModel model = model("coverage_dem_utm.tif", VerticalDatum.GEOID_METRES);
        Grid other = Grid.ofEpsg(32633);
        LocalPlane plane = LocalPlane.at(other, UTM.toLonLat(new EastNorth(565_400, 5_262_400)));
        HeightGrid grid = HeightGrid.level(-150, 150, 3, 100, 100, Double.NaN);
        model.fill(grid, plane);
        for (int row = 0; row < 100; row += 9) {
            for (int column = 0; column < 100; column += 9) {
                double alone = model.heightM(plane.toLonLat(grid.x(column), grid.y(row)));
                assertThat((double) grid.cell(column, row)).isCloseTo(alone, Offset.offset(0.02));
            }
        }
    }

    @Test
    void aSecondModelFillsOnlyWhatTheFirstDoesNotKnow() throws IOException {
        LocalPlane plane = LocalPlane.at(UTM, UTM.toLonLat(new EastNorth(565_010, 5_262_400)));
        HeightGrid grid = HeightGrid.level(-100, 100, 4, 50, 50, Double.NaN);
        model("coverage_dem_utm.tif", VerticalDatum.GEOID_METRES).fill(grid, plane);
        assertThat(grid.known()).isBetween(0.4, 0.7);
        float kept = grid.cell(45, 25);
        model("coverage_dem_utm.tif", new VerticalDatum(VerticalDatum.Zero.GEOID, Unit.METRE, 100))
                .fill(grid, plane);
        assertThat(grid.cell(45, 25)).isEqualTo(kept);
    }

    /** {@code H = h − N}; feet by NIST SP 811 (from memory). */
    @ParameterizedTest
    @CsvSource({
        "GEOID, METRE, 0, 500",
        "GEOID, METRE, -2.5, 497.5",
        "GEOID, FOOT, 0, 152.4",
        "GEOID, US_SURVEY_FOOT, 0, 152.400304800610",
    })
    void heightsAreConvertedAsStated(VerticalDatum.Zero zero, Unit unit, double offset, double metres) {
        VerticalDatum datum = new VerticalDatum(zero, unit, offset);
        assertThat(datum.aboveGeoidM(500, LonLat.of(8, 47))).isCloseTo(metres, Offset.offset(1e-9));
    }

    /** EGM96 at 47° N, 8° E is 48.389 m (PROJ, geoid_egm96.csv). */
    @Test
    void heightsAboveTheEllipsoidComeDownByTheUndulation() {
        VerticalDatum datum = new VerticalDatum(VerticalDatum.Zero.ELLIPSOID, Unit.METRE, 0);
        assertThat(datum.aboveGeoidM(94.339, LonLat.of(8, 47))).isCloseTo(45.95031, Offset.offset(0.006));
    }

    @Test
    void degreesCalledMetresAndMetresCalledDegreesAreFound() throws IOException {
        GeoTiff degrees = open("coverage_dem_wgs84.tif");
        assertThatThrownBy(() -> ElevationModel.of(degrees, OptionalInt.of(32632), VerticalDatum.GEOID_METRES))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("degrees, not metres");
        GeoTiff metres = open("coverage_dem_utm.tif");
        assertThatThrownBy(() -> ElevationModel.of(metres, OptionalInt.of(4326), VerticalDatum.GEOID_METRES))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no longitude and latitude");
        assertThatThrownBy(() -> new VerticalDatum(VerticalDatum.Zero.GEOID, Unit.HECTARE, 0))
                .isInstanceOf(InputFault.class);
    }

    @Test
    void aModelTellsItsCornersCellsAndRange() throws IOException {
        ElevationModel model = model("coverage_dem_utm.tif", VerticalDatum.GEOID_METRES);
        assertThat(model.cellM()).isCloseTo(2, Offset.offset(0.002));
        EastNorth corner = UTM.toGrid(model.corners().get(0));
        assertThat(corner.east()).isCloseTo(565_000, Offset.offset(0.01));
        assertThat(corner.north()).isCloseTo(5_262_800, Offset.offset(0.01));
        Range range = model.rangeM();
        assertThat(range.least()).isBetween(450.0, 500.0);
        assertThat(range.most()).isBetween(500.0, 620.0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1\\n0\\n0\\n-1\\n565000.5\\n5262799.5 | 565000 | 5262800",
                "2 0 0 -2 101 199 | 100 | 200",
            })
    void aWorldFilePlacesTheCentreOfTheFirstPixel(String text, double west, double north) {
        Georeference place = WorldFile.read(text.replace("\\n", "\n"));
        assertThat(place.x(0, 0)).isEqualTo(west);
        assertThat(place.y(0, 0)).isEqualTo(north);
        assertThat(place.isNorthUp()).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"1 0 0 -1 5 | six figures", "1 0 0 x 5 5 | no number", "0 0 0 0 5 5 | one place"})
    void aWorldFileThatPlacesNothingIsRefused(String text, String message) {
        assertThatThrownBy(() -> WorldFile.read(text))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining(message);
    }

    @Test
    void theBilinearSurfaceGoesThroughItsCentres() {
        HeightGrid grid = HeightGrid.level(10, 20, 2, 4, 3, 0);
        for (int i = 0; i < 12; i++) {
            grid.heights()[i] = i * i;
        }
        for (int row = 0; row < 3; row++) {
            for (int column = 0; column < 4; column++) {
                assertThat(grid.at(grid.x(column), grid.y(row))).isEqualTo(grid.cell(column, row));
            }
        }
        assertThat(grid.at(grid.x(0) + 1, grid.y(0))).isCloseTo(0.5, Offset.offset(1e-9));
        assertThat(grid.at(0, 0)).isNaN();
        grid.heights()[5] = Float.NaN;
        assertThat(grid.at(grid.x(1) + 0.5, grid.y(1) - 0.5)).isNaN();
        assertThat(grid.known()).isCloseTo(11 / 12.0, Offset.offset(1e-9));
        assertThat(grid.resampled(1).columns()).isEqualTo(8);
        assertThat(grid.resampled(2)).isSameAs(grid);
    }

    /** What is written is read again, cell for cell; GDAL reads it too (shown in the web tests). */
    @Test
    void aWrittenRasterIsReadAgain() throws IOException {
        Path file = folder.resolve("written.tif");
        try (var out = Files.newOutputStream(file)) {
            GeoTiffWriter.write(out, 130, 70, Georeference.northUp(500, 900, 0.5, 0.25), OptionalInt.of(27700), row -> {
                float[] line = new float[130];
                for (int column = 0; column < 130; column++) {
                    line[column] = column == row ? Float.NaN : row + column / 1000f;
                }
                return line;
            });
        }
        try (GeoTiff read = GeoTiff.open(file)) {
            assertThat(read.epsg()).hasValue(27700);
            assertThat(read.georeference()).isEqualTo(Georeference.northUp(500, 900, 0.5, 0.25));
            assertThat(read.window(7, 7, 1, 1)[0]).isNaN();
            assertThat(read.window(100, 69, 1, 1)[0]).isEqualTo(69.1f);
            assertThat(read.window(-5, -5, 6, 6)[35]).isNaN();
            assertThat(read.window(-5, -5, 7, 6)[6 + 7 * 5]).isEqualTo(0.001f);
        }
    }
}

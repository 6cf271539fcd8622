package yalos.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.assertj.core.data.Offset;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;
import yalos.core.Samples;
import yalos.core.block.OutlineCheck;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

class OutlineReadersTest {
    static Stream<Reference.Row> files() {
        return Reference.rows("vector_expected.csv")
                .filter(row -> !row.text("file").matches(".*\\.(geojson|gpkg)"));
    }

    private static ImportedOutlines read(String name, byte[] content) {
        return switch (FileKind.of(content)) {
            case KML -> KmlOutlines.read(content, Axes.LON_LAT);
            case KMZ -> KmzOutlines.read(content, Axes.LON_LAT);
            case GPX -> GpxOutlines.read(content);
            case SHAPEFILE -> ShapefileOutlines.read(content, Axes.LON_LAT, OptionalInt.empty());
            default -> throw new InputFault("file", name, "not read here");
        };
    }

    @ParameterizedTest
    @MethodSource("files")
    void readsWhatReferenceSoftwareWrote(Reference.Row row) {
        String file = row.text("file");
        var outline = OutlineCheck.sound(read(file, Reference.bytes("vector/" + file))
                .candidates()
                .get(0)
                .outline());
        assertThat(outline.parts()).hasSize(row.whole("polygons"));
        assertThat(outline.corners().stream().distinct()).hasSize(row.whole("distinct_vertices"));
        assertThat(outline.areaM2()).isCloseTo(row.number("area_ellipsoidal_m2"), Percentage.withPercentage(1e-3));
        assertThat(outline.perimeterM())
                .isCloseTo(row.number("perimeter_all_rings_m"), Percentage.withPercentage(1e-3));
    }

    @ParameterizedTest
    @ValueSource(strings = {"bad_external_entity.kml", "bad_external_entity.gpx"})
    void refusesEntitiesFromOutside(String file) {
        assertThatThrownBy(() -> read(file, Reference.bytes("vector/" + file)))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("DOCTYPE")
                .hasMessageNotContaining("MARKER-THAT-MUST-NOT-APPEAR");
    }

    /** Metres are never taken for degrees: without a .prj the code is asked for, and with it the area is that of the reference. */
    @Test
    void asksForTheSystemOfAShapefileWithoutOne() {
        byte[] bare = Reference.bytes("vector/polygon_hole_utm_noprj_shp.zip");
        assertThatThrownBy(() -> ShapefileOutlines.read(bare, Axes.LON_LAT, OptionalInt.empty()))
                .isInstanceOfSatisfying(
                        InputFault.class, fault -> assertThat(fault.field()).isEqualTo("epsg"))
                .hasMessageContaining(".prj");
        ImportedOutlines typed = ShapefileOutlines.read(bare, Axes.LON_LAT, OptionalInt.of(32632));
        assertThat(typed.candidates().get(0).outline().areaM2()).isCloseTo(463916.730, Percentage.withPercentage(1e-3));
    }

    @ParameterizedTest
    @ValueSource(strings = {"bad_no_shp.zip", "bad_truncated_shp.zip"})
    void refusesZipsThatHoldNoShapefile(String file) {
        assertThatThrownBy(() -> read(file, Reference.bytes("vector/" + file))).isInstanceOf(InputFault.class);
    }

    /** Wherever a shapefile is cut, it is refused in words or read, never anything else. */
    @ParameterizedTest
    @ValueSource(strings = {"multipolygon_utm_shp.zip"})
    void aCutFileIsRefusedInWords(String file) {
        byte[] whole = Reference.bytes("vector/" + file);
        for (int length = 16; length < whole.length; length += Math.max(1, whole.length / 60)) {
            byte[] cut = Arrays.copyOf(whole, length);
            try {
                read(file, cut);
            } catch (InputFault inWords) {
                assertThat(inWords.getMessage()).isNotBlank();
            }
        }
    }

    @Test
    void refusesAZipBomb() {
        byte[] bomb = zip("doc.kml", new byte[70_000_000]);
        assertThat(bomb.length).isLessThan(200_000);
        assertThatThrownBy(() -> KmzOutlines.read(bomb, Axes.LON_LAT))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("64 MB");
    }

    @ParameterizedTest
    @ValueSource(strings = {"../../etc/doc.kml", "/etc/doc.kml", "..\\doc.kml", "C:\\doc.kml"})
    void refusesAZipThatNamesFilesOutsideItself(String name) {
        byte[] content = zip(name, "<kml/>".getBytes(StandardCharsets.UTF_8));
        assertThatThrownBy(() -> KmzOutlines.read(content, Axes.LON_LAT))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("outside");
    }

    @Test
    void refusesADamagedZipAndOneWithoutDocument() {
        byte[] whole = Reference.bytes("vector/polygon_hole.kmz");
        assertThatThrownBy(() -> KmzOutlines.read(Arrays.copyOf(whole, whole.length / 2), Axes.LON_LAT))
                .isInstanceOf(InputFault.class);
        assertThatThrownBy(() -> KmzOutlines.read(zip("readme.txt", new byte[10]), Axes.LON_LAT))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("no .kml");
    }

    @Test
    void namesTheLineOfBrokenXml() {
        byte[] cut = "<kml>\n<Placemark>\n<Polygon>".getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> KmlOutlines.read(cut, Axes.LON_LAT))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("line 3");
    }

    @Test
    void tellsAFileByItsContent() {
        assertThat(FileKind.of(Reference.bytes("vector/polygon_hole.kml"))).isEqualTo(FileKind.KML);
        assertThat(FileKind.of(Reference.bytes("vector/polygon_hole.geojson"))).isEqualTo(FileKind.GEOJSON);
        assertThat(FileKind.of(new byte[] {(byte) 0x89, 'P', 'N', 'G', 0, 1, 2}))
                .isEqualTo(FileKind.UNKNOWN);
        assertThat(FileKind.GEOJSON.promisedBy("field.kml")).isFalse();
        assertThat(FileKind.KML.promisedBy("field.KML")).isTrue();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "54.5134, -4.3489                   | -4.3489     | 54.5134",
                "54°30'48.24\"N 4°20'56.04\"W       | -4.3489     | 54.5134",
                "N 54° 30.804' W 4° 20.934'         | -4.3489     | 54.5134",
                "4.3489W 54.5134N                   | -4.3489     | 54.5134",
                "33°51'24.84\"S, 151°12'54\"E       | 151.215     | -33.8569",
                "54 30 48.24 -4 20 56.04            | -4.3489     | 54.5134",
                "-33.8569 151.215                   | 151.215     | -33.8569",
            })
    void readsPositionsAsPeopleWriteThem(String text, double lon, double lat) {
        LonLat at = TypedPosition.read(text, Optional.empty());
        assertThat(at.lonDeg()).isCloseTo(lon, Offset.offset(1e-9));
        assertThat(at.latDeg()).isCloseTo(lat, Offset.offset(1e-9));
    }

    @Test
    void readsGridPositionsInTheJobsGrid() {
        LonLat at = TypedPosition.read("412717.0 6041822.0", Optional.of(Samples.UTM30));
        assertThat(Samples.UTM30.toGrid(at).east()).isCloseTo(412_717, Offset.offset(1e-3));
    }

    @Test
    void namesTheLineOfAPositionThatIsNone() {
        assertThatThrownBy(() -> TypedOutline.read("54.1 -4.1\n54.2 -4.2\n54.x1", Optional.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("Line 3");
        assertThatThrownBy(() -> TypedPosition.read("54°75'N 4°W", Optional.empty()))
                .hasMessageContaining("0 to 60");
    }

    static byte[] zip(String name, byte[] content) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(content);
            zip.closeEntry();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}

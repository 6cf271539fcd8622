package yalos.web.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import java.util.stream.Stream;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.block.Outline;
import yalos.core.block.OutlineCheck;
import yalos.core.exchange.Axes;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.fault.InputFault;

/** Against files written by GDAL/OGR 3.6.2 and measured by GeographicLib, see the reference README. */
class GeoJsonOutlinesTest {
    static Stream<Reference.Row> files() {
        return Reference.rows("vector_expected.csv")
                .filter(row -> row.text("file").endsWith(".geojson"));
    }

    private static ImportedOutlines read(String file) {
        return new OutlineFile(file, Reference.bytes("vector/" + file)).read(Axes.LON_LAT, Optional.empty());
    }

    @ParameterizedTest
    @MethodSource("files")
    void readsWhatReferenceSoftwareWrote(Reference.Row row) {
        Outline outline =
                OutlineCheck.sound(read(row.text("file")).candidates().get(0).outline());
        assertThat(outline.areaM2()).isCloseTo(row.number("area_ellipsoidal_m2"), Percentage.withPercentage(1e-3));
        assertThat(outline.corners().stream().distinct()).hasSize(row.whole("distinct_vertices"));
    }

    @ParameterizedTest
    @CsvSource({
        "bad_bowtie.geojson,         crosses",
        "bad_hole_outside.geojson,   hole",
        "bad_latitude_range.geojson, swapped",
        "bad_metres.geojson,         projected grid",
        "bad_nan.geojson,            NaN",
        "bad_truncated.geojson,      cut off",
        "bad_two_points.geojson,     at least 3",
    })
    void refusesBrokenFilesAndSaysWhy(String file, String why) {
        assertThatThrownBy(
                        () -> OutlineCheck.sound(read(file).candidates().get(0).outline()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining(why);
    }

    @Test
    void closesAnOpenRingAndSaysSo() {
        ImportedOutlines outlines = read("bad_unclosed.geojson");
        assertThat(outlines.remarks()).anyMatch(remark -> remark.contains("not closed"));
        assertThat(outlines.candidates().get(0).outline().areaM2())
                .isCloseTo(497_856.868, Percentage.withPercentage(1e-3));
    }

    @Test
    void readsASwappedFileTheOtherWayRound() {
        byte[] content = Reference.bytes("vector/bad_swapped.geojson");
        Outline swapped = new OutlineFile("field.geojson", content)
                .read(Axes.LAT_LON, Optional.empty())
                .candidates()
                .get(0)
                .outline();
        assertThat(swapped.middle().latDeg()).isBetween(47.0, 48.0);
        assertThat(swapped.middle().lonDeg()).isBetween(11.0, 12.0);
    }

    @Test
    void readsByContentWhateverTheNameSays() {
        byte[] content = Reference.bytes("vector/polygon_hole.kml");
        ImportedOutlines outlines = new OutlineFile("field.geojson", content).read(Axes.LON_LAT, Optional.empty());
        assertThat(outlines.remarks()).anyMatch(remark -> remark.contains("holds KML"));
        byte[] picture = {(byte) 0x89, 'P', 'N', 'G', 13, 10, 0, 0, 0};
        assertThatThrownBy(() -> new OutlineFile("field.kml", picture).read(Axes.LON_LAT, Optional.empty()))
                .isInstanceOf(InputFault.class)
                .hasMessageContaining("field.kml");
    }
}

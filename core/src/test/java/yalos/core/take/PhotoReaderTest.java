package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.Reference;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum;

/** Reference section 17: files whose EXIF and XMP an independent tool wrote and two others read. */
class PhotoReaderTest {
    @TempDir
    private Path folder;

    @TestFactory
    List<DynamicTest> everyFileSaysWhatWasWrittenIntoIt() {
        return Reference.rows("take_expected.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("file"), () -> says(row)))
                .toList();
    }

    private void says(Reference.Row row) throws IOException {
        PhotoFacts facts = PhotoReader.read(row.text("file"), file(row.text("file")));

        assertThat(facts.bytes()).isEqualTo(row.whole("bytes"));
        assertThat(facts.readable())
                .isEqualTo(
                        switch (row.text("readable")) {
                            case "all" -> PhotoFacts.Readable.ALL;
                            case "nothing" -> PhotoFacts.Readable.NOTHING;
                            default -> PhotoFacts.Readable.METADATA;
                        });
        assertThat(facts.fault().isEmpty()).isEqualTo(row.text("readable").equals("all"));
        if (row.text("readable").equals("nothing")) {
            return;
        }
        assertThat(facts.clock().map(LocalDateTime::toString).orElse("")).isEqualTo(clock(row));
        assertThat(facts.offset().map(Object::toString).orElse("")).isEqualTo(row.text("offset_original"));
        assertThat(facts.gps().isPresent()).isEqualTo(!row.isEmpty("gps_time_utc"));
        facts.gps()
                .ifPresent(gps -> assertThat(
                                Math.abs(ChronoUnit.MICROS.between(gps, Instant.parse(row.text("gps_time_utc")))))
                        .isLessThan(1000));
        PhotoFacts.Position at = facts.position();
        assertThat(at.place().isPresent()).isEqualTo(!row.isEmpty("lat_deg"));
        at.place().ifPresent(place -> {
            assertThat(place.latDeg()).isCloseTo(row.number("lat_deg"), within(1e-8));
            assertThat(place.lonDeg()).isCloseTo(row.number("lon_deg"), within(1e-8));
            double up = at.heightM().orElseThrow()
                    + (at.zero() == VerticalDatum.Zero.GEOID ? Geoid.egm96().undulationM(place) : 0);
            // The undulation of our copy of the grid is good to 6 mm.
            assertThat(up).isCloseTo(row.number("height_ellipsoid_m"), within(0.007));
            assertThat(Math.abs(at.heightM().orElseThrow())).isCloseTo(row.number("gps_altitude_m"), within(0.001));
        });
        same(at.errorM(), row, "h_positioning_error_m", 1e-6);
        assertThat(at.differential().map(flag -> flag ? "1" : "0").orElse("")).isEqualTo(row.text("gps_differential"));
        same(facts.view().directionDeg(), row, "img_direction_deg", 0.01);
        assertThat(facts.view().magnetic())
                .isEqualTo(row.text("img_direction_ref").equals("M"));
        same(facts.view().elevationDeg(), row, "camera_elevation_deg", 0.01);
        PhotoFacts.Camera camera = facts.camera();
        same(camera.focalMm(), row, "focal_length_mm", 1e-6);
        same(camera.fNumber(), row, "f_number", 1e-6);
        assertThat(camera.iso().isPresent() ? String.valueOf(camera.iso().getAsInt()) : "")
                .isEqualTo(row.text("iso"));
        assertThat(camera.width()).isEqualTo(row.whole("stored_width"));
        assertThat(camera.height()).isEqualTo(row.whole("stored_height"));
        assertThat(camera.statedWidth()).isEqualTo(row.isEmpty("exif_width") ? 0 : row.whole("exif_width"));
        assertThat(camera.orientation()).isEqualTo(row.isEmpty("orientation") ? 1 : row.whole("orientation"));
        assertThat(camera.model()).isEqualTo(row.text("model"));
        assertThat(exposure(row)).isCloseTo(camera.exposureS().orElse(0), within(1e-9));
    }

    private static double exposure(Reference.Row row) {
        String[] parts = row.text("exposure_time_s").split("/");
        return parts[0].isEmpty()
                ? 0
                : Double.parseDouble(parts[0]) / (parts.length > 1 ? Double.parseDouble(parts[1]) : 1);
    }

    private static String clock(Reference.Row row) {
        if (row.isEmpty("datetime_original")) {
            return "";
        }
        String[] parts = row.text("datetime_original").split(" ");
        return LocalDateTime.parse(parts[0].replace(':', '-') + "T" + parts[1] + "." + row.text("subsec_original"))
                .toString();
    }

    private static void same(OptionalDouble found, Reference.Row row, String column, double tolerance) {
        assertThat(found.isPresent()).as(column).isEqualTo(!row.isEmpty(column));
        found.ifPresent(value -> assertThat(value).as(column).isCloseTo(row.number(column), within(tolerance)));
    }

    @Test
    void hostileTextStaysText() throws IOException {
        PhotoFacts facts = PhotoReader.read("../../IMG_0023.JPG", file("IMG_0023.JPG"));

        assertThat(facts.name()).isEqualTo("IMG_0023.JPG");
    }

    @Test
    void nothingThatIsNoPictureIsTakenForOne() throws IOException {
        for (String content : List.of("PK\u0003\u0004 a zip", "GIF89a", "\u0000", "<html>")) {
            Path file = folder.resolve("x.jpg");
            Files.write(file, content.getBytes(StandardCharsets.ISO_8859_1));

            assertThat(PhotoReader.read("x.jpg", file).readable()).isEqualTo(PhotoFacts.Readable.NOTHING);
        }
    }

    @Test
    void aFileCutAnywhereIsToldAndNeverThrown() throws IOException {
        byte[] whole = Reference.bytes("take/IMG_0010.JPG");
        for (int length = 1; length < whole.length; length += 37) {
            Path file = folder.resolve("cut.jpg");
            Files.write(file, Arrays.copyOf(whole, length));

            assertThat(PhotoReader.read("cut.jpg", file).fault()).isNotEmpty();
        }
    }

    private Path file(String name) throws IOException {
        Path file = folder.resolve(name);
        Files.write(file, Reference.bytes("take/" + name));
        return file;
    }
}

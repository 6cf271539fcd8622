package yalos.web.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yalos.core.Reference;
import yalos.core.block.OutlineCheck;
import yalos.core.exchange.Axes;
import yalos.core.exchange.FileKind;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.fault.InputFault;

/** Outlines out of GeoPackages. */
class GeoPackageOutlinesTest {
    @TempDir
    Path folder;

    static Stream<Reference.Row> files() {
        return Reference.rows("vector_expected.csv")
                .filter(row -> row.text("file").endsWith(".gpkg"));
    }

    private static ImportedOutlines read(byte[] content) {
        return GeoPackageOutlines.read(content, Axes.LON_LAT, OptionalInt.empty());
    }

    /** Independent reference: areas on the ellipsoid of what other software wrote, in degrees and in metres. */
    @ParameterizedTest
    @MethodSource("files")
    void readsWhatReferenceSoftwareWrote(Reference.Row row) {
        byte[] content = Reference.bytes("vector/" + row.text("file"));
        assertThat(FileKind.of(content)).isEqualTo(FileKind.GEOPACKAGE);
        var outline = OutlineCheck.sound(read(content).candidates().get(0).outline());
        assertThat(outline.parts()).hasSize(row.whole("polygons"));
        assertThat(outline.areaM2()).isCloseTo(row.number("area_ellipsoidal_m2"), Percentage.withPercentage(1e-3));
        assertThat(outline.perimeterM())
                .isCloseTo(row.number("perimeter_all_rings_m"), Percentage.withPercentage(1e-3));
    }

    @Test
    void aCutFileIsRefusedInWords() {
        byte[] whole = Reference.bytes("vector/multipolygon_utm.gpkg");
        for (int length = 16; length < whole.length; length += whole.length / 40) {
            try {
                read(Arrays.copyOf(whole, length));
            } catch (InputFault inWords) {
                assertThat(inWords.getMessage()).isNotBlank();
            }
        }
    }

    /** A view in place of a feature table could count for ever; views are never asked. */
    @Test
    void aViewIsNotLookedInto() throws IOException, SQLException {
        Path file = folder.resolve("hostile.gpkg");
        Files.write(file, Reference.bytes("vector/polygon_hole.gpkg"));
        try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = db.createStatement()) {
            statement.execute(
                    "CREATE VIEW endless AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT i AS geom FROM n");
            statement.execute("PRAGMA writable_schema = ON");
            statement.execute("UPDATE gpkg_geometry_columns SET table_name = 'endless'");
        }
        byte[] hostile = Files.readAllBytes(file);
        assertThatThrownBy(() -> read(hostile)).isInstanceOf(InputFault.class);
    }
}

package yalos.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.Reference;

/** Reference section 17: levels and detail as PIL and numpy measured them. */
class PictureReaderTest {
    @TempDir
    private Path folder;

    @TestFactory
    List<DynamicTest> lightAndDetailAreMeasured() {
        return Reference.rows("take_quality.csv")
                .map(row -> DynamicTest.dynamicTest(row.text("file"), () -> {
                    Picture picture = seen(row.text("file")).orElseThrow().picture();

                    assertThat(picture.mean()).isCloseTo(row.number("mean_level"), within(0.05));
                    assertThat(picture.black()).isCloseTo(row.number("share_at_0"), within(0.002));
                    assertThat(picture.white()).isCloseTo(row.number("share_at_255"), within(0.002));
                    double detail = row.number("laplacian_variance");
                    assertThat(picture.detail()).isCloseTo(detail, within(detail * 0.02 + 0.01));
                    assertThat(picture.panel()).isEqualTo(row.text("role").equals("panel"));
                }))
                .toList();
    }

    @Test
    void aPictureThatIsCutIsTold() throws IOException {
        assertThat(seen("IMG_0027.JPG").map(PictureReader.Seen::whole)).contains(false);
        assertThat(seen("IMG_0010.JPG").map(PictureReader.Seen::whole)).contains(true);
    }

    @Test
    void whatIsNoPictureIsNotRead() throws IOException {
        assertThat(seen("IMG_0684.JPG")).isEmpty();
        assertThat(seen("IMG_0683.JPG")).isEmpty();
        assertThat(seen("IMG_0013.JPG")).isEmpty();
    }

    private Optional<PictureReader.Seen> seen(String name) throws IOException {
        Path file = folder.resolve(name);
        Files.write(file, Reference.bytes("take/" + name));
        return PictureReader.read(file);
    }
}

package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yalos.core.Samples;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.ModelDoubt.KnownHeight;
import yalos.core.units.Unit;

/** A model that cannot be right is doubted with figures before it is kept. */
class ModelDoubtTest {
    private static final List<LonLat> BLOCK = Samples.square(400).corners();

    @TempDir
    private Path folder;

    /** Level ground of a height, a kilometre square round the sample block. */
    private Optional<String> doubt(
            double height, int epsg, VerticalDatum datum, List<LonLat> block, List<KnownHeight> known)
            throws IOException {
        Path file = folder.resolve("model.tif");
        try (OutputStream out = Files.newOutputStream(file)) {
            GeoTiffWriter.write(
                    out, 100, 100, Georeference.northUp(411_700, 6_041_700, 10, 10), OptionalInt.of(epsg), row -> {
                        float[] line = new float[100];
                        Arrays.fill(line, (float) height);
                        return line;
                    });
        }
        try (GeoTiff raster = GeoTiff.open(file)) {
            return ModelDoubt.of(ElevationModel.of(raster, OptionalInt.of(epsg), datum), block, known);
        }
    }

    private static final VerticalDatum METRES = new VerticalDatum(VerticalDatum.Zero.GEOID, Unit.METRE, 0);

    private static List<KnownHeight> known(double height) {
        return List.of(new KnownHeight(Samples.at(100, 100), height, "it was measured at"));
    }

    @Test
    void whereItShouldBeNothingIsDoubted() throws IOException {
        assertThat(doubt(280, 32630, METRES, BLOCK, known(281))).isEmpty();
        assertThat(doubt(280, 32630, METRES, List.of(), List.of())).isEmpty();
    }

    /** The model is a kilometre square; a block of two kilometres round it lies round a patch that fills a hole of another model. */
    @Test
    void aPatchWithinTheBlockIsNotDoubted() throws IOException {
        List<LonLat> round = Samples.outline(-1000, -1000, 1000, -1000, 1000, 1000, -1000, 1000)
                .corners();
        assertThat(doubt(280, 32630, METRES, round, List.of())).isEmpty();
    }

    @Test
    void aWrongZoneIsNamedWithTheRightOne() throws IOException {
        assertThat(doubt(280, 32631, METRES, BLOCK, List.of()).orElseThrow())
                .contains("covers nothing of the block")
                .contains("km from the block")
                .contains("As EPSG:32630 it would lie here");
    }

    @Test
    void swappedAxesAreNamed() throws IOException {
        List<LonLat> swapped =
                BLOCK.stream().map(at -> LonLat.of(at.latDeg(), at.lonDeg())).toList();
        assertThat(doubt(280, 32630, METRES, swapped, List.of()).orElseThrow()).contains("swapped axes");
    }

    /** 280 m are 918.6 ft. */
    @Test
    void feetTakenForMetresAreNamed() throws IOException {
        assertThat(doubt(918.6, 32630, METRES, BLOCK, known(280)).orElseThrow())
                .contains("918.6 m where it was measured at 280.0 m: 638.6 m apart")
                .contains("likely in feet");
        VerticalDatum feet = new VerticalDatum(VerticalDatum.Zero.GEOID, Unit.FOOT, 0);
        assertThat(doubt(280, 32630, feet, BLOCK, known(280)).orElseThrow()).contains("likely in metres");
    }

    @Test
    void heightsAboveTheEllipsoidAreNamed() throws IOException {
        double undulation = Geoid.egm96().undulationM(Samples.at(100, 100));
        assertThat(undulation).isBetween(50.0, 60.0);
        assertThat(doubt(280 + undulation, 32630, METRES, BLOCK, known(280)).orElseThrow())
                .contains("likely count from the ellipsoid");
    }

    @Test
    void anythingElseIsDoubtedWithoutACause() throws IOException {
        assertThat(doubt(300, 32630, METRES, BLOCK, known(280)).orElseThrow())
                .contains("20.0 m apart")
                .contains("Another height system");
    }
}

package yalos.core.basemap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

class PmTilesTest {
    @TempDir
    private Path folder;

    private PmTiles open(byte[] bytes) throws IOException {
        return PmTiles.open(Files.write(folder.resolve("map.pmtiles"), bytes));
    }

    @ParameterizedTest
    @CsvFileSource(resources = "/reference/pmtiles_ids.csv", numLinesToSkip = 2)
    void numbersRunAlongTheCurve(int zoom, long column, long row, long number) {
        assertThat(PmTiles.number(zoom, column, row)).isEqualTo(number);
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void tilesAreFoundThroughALeaf(boolean packed) throws IOException {
        PmTilesFile file = new PmTilesFile().with(0, 0, 0, new byte[] {1}).with(3, 5, 2, new byte[] {2, 3});
        try (PmTiles map = open(packed ? file.bytes() : file.unpacked().bytes())) {
            assertThat(map.levels()).hasSize(4);
            assertThat(map.tile(map.levels().get(3), 5, 2)).contains(new byte[] {2, 3});
            assertThat(map.tile(map.levels().get(0), 0, 0)).contains(new byte[] {1});
            assertThat(map.tile(map.levels().get(3), 5, 3)).isEmpty();
            assertThat(map.attribution()).isEqualTo("drawn \"by hand\"");
            assertThat(map.middle()).contains(LonLat.of(-4.35, 54.512));
        }
    }

    @Test
    void whatIsNoMapOfPicturesIsToldWhy() {
        assertThatThrownBy(() -> open(new byte[20])).hasMessage("The file is no PMTiles map.");
        assertThatThrownBy(() -> open(
                        new PmTilesFile().with(0, 0, 0, new byte[1]).ofKind(1).bytes()))
                .hasMessageContaining("holds vectors");
        byte[] older = new PmTilesFile().with(0, 0, 0, new byte[1]).bytes();
        older[7] = 2;
        assertThatThrownBy(() -> open(older)).hasMessageContaining("version 2");
        byte[] cut = new PmTilesFile().with(0, 0, 0, new byte[1]).bytes();
        cut[16] = 127;
        cut[18] = 127;
        assertThatThrownBy(() -> open(cut)).hasMessageContaining("promises");
    }

    /** Whatever byte is wrong: a map, or a fault in a sentence; never anything else, and no hang. */
    @Test
    void crookedFilesAreRefusedOrReadNeverMore() throws IOException {
        byte[] good = new PmTilesFile()
                .with(0, 0, 0, new byte[] {1})
                .with(2, 1, 1, new byte[] {2})
                .unpacked()
                .bytes();
        Random random = new Random(11);
        for (int i = 0; i < 3000; i++) {
            byte[] crooked = good.clone();
            for (int k = random.nextInt(3); k >= 0; k--) {
                crooked[random.nextInt(crooked.length)] = (byte) random.nextInt(256);
            }
            try (PmTiles map = open(crooked)) {
                for (TileMatrix level : map.levels()) {
                    map.tile(level, 0, 0);
                    map.tile(level, level.columns() / 2, level.rows() / 2);
                }
            } catch (InputFault told) {
                assertThat(told.getMessage()).isNotBlank();
            } catch (RuntimeException other) {
                Assertions.fail("round %d".formatted(i), other);
            }
        }
    }
}

package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import yalos.core.Reference;
import yalos.core.fault.InputFault;

/** Figures in a TIFF that are made to run over: refused at once, before anything is taken of memory. */
class HostileTiffTest {
    private static final int TILE_WIDTH = 322;
    private static final int TILE_HEIGHT = 323;

    @TempDir
    Path folder;

    private Path written(ByteBuffer tiff) {
        try {
            return Files.write(folder.resolve("hostile.tif"), tiff.array());
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static ByteBuffer sample(String name) {
        ByteBuffer tiff = ByteBuffer.wrap(Reference.bytes("raster/" + name).clone());
        return tiff.order(tiff.get(0) == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
    }

    /** Sets the figure of a tag of a classic TIFF, as a long. */
    private static void set(ByteBuffer tiff, int tag, int figure) {
        int directory = tiff.getInt(4);
        int entries = tiff.getShort(directory) & 0xffff;
        for (int i = 0; i < entries; i++) {
            int at = directory + 2 + 12 * i;
            if ((tiff.getShort(at) & 0xffff) == tag) {
                tiff.putShort(at + 2, (short) 4).putInt(at + 4, 1).putInt(at + 8, figure);
                return;
            }
        }
        throw new AssertionError("no tag " + tag);
    }

    @ParameterizedTest
    @ValueSource(ints = {1 << 30, Integer.MAX_VALUE, -1, 0})
    void tilesThatOverflowAreRefused(int side) {
        ByteBuffer tiff = sample("tiled_deflate_float32.tif");
        set(tiff, TILE_WIDTH, side);
        set(tiff, TILE_HEIGHT, side);
        assertThatThrownBy(() -> GeoTiff.open(written(tiff))).isInstanceOf(InputFault.class);
    }

    @ParameterizedTest
    @ValueSource(longs = {Long.MAX_VALUE, Long.MAX_VALUE - 7, Long.MIN_VALUE, -1, 1L << 40})
    void anOffsetThatOverflowsIsRefused(long offset) {
        ByteBuffer tiff = sample("bigtiff_float32.tif");
        tiff.putLong(8, offset);
        assertThatThrownBy(() -> GeoTiff.open(written(tiff))).isInstanceOf(InputFault.class);
    }

    /** Every eight bytes of the directory set to what overflows most easily: read or refused, never anything else. */
    @Test
    void everyFigureOfADirectoryMayBeCrooked() {
        ByteBuffer good = sample("bigtiff_float32.tif");
        int directory = (int) good.getLong(8);
        int entries = (int) good.getLong(directory);
        for (int at = directory; at < directory + 8 + 20 * entries; at += 4) {
            ByteBuffer tiff = sample("bigtiff_float32.tif");
            tiff.putLong(Math.min(at, tiff.capacity() - 8), Long.MAX_VALUE - 3);
            try (GeoTiff opened = GeoTiff.open(written(tiff))) {
                assertThat(opened.columns()).isPositive();
                opened.window(0, 0, Math.min(64, opened.columns()), 1);
            } catch (InputFault refused) {
                assertThat(refused.getMessage()).isNotBlank();
            }
        }
    }
}

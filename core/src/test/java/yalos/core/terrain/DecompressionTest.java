package yalos.core.terrain;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.Map;
import java.util.Random;
import java.util.zip.Deflater;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Are blocks of a TIFF unpacked as the standards say, and damaged ones refused and never guessed? */
class DecompressionTest {
    private static byte[] hex(String text) {
        return HexFormat.of().parseHex(text.replace(" ", ""));
    }

    /** The example of a technical note on the packing (PackBits, 1996, from memory). */
    @Test
    void packBitsAsInItsExample() {
        byte[] into = new byte[24];
        assertThat(Decompression.PACKBITS.unpack(hex("FE AA 02 80 00 2A FD AA 03 80 00 2A 22 F7 AA"), into))
                .isTrue();
        assertThat(into).isEqualTo(hex("AA AA AA 80 00 2A AA AA AA AA 80 00 2A 22 AA AA AA AA AA AA AA AA AA AA"));
    }

    /** A head of −128 says nothing (TIFF 6.0, section 9). */
    @Test
    void packBitsPassesOverTheEmptyHead() {
        byte[] into = new byte[2];
        assertThat(Decompression.PACKBITS.unpack(hex("80 01 07 08"), into)).isTrue();
        assertThat(into).containsExactly(7, 8);
    }

    /** The string 7 7 7 8 8 7 7 6 6 and its codes 256 7 258 8 8 258 6 6 257, worked in TIFF 6.0, section 13 (from memory). */
    @Test
    void lzwAsInItsExample() {
        byte[] into = new byte[9];
        int[] codes = {256, 7, 258, 8, 8, 258, 6, 6, 257};
        assertThat(Decompression.LZW.unpack(nineBits(codes), into)).isTrue();
        assertThat(into).containsExactly(7, 7, 7, 8, 8, 7, 7, 6, 6);
    }

    private static byte[] nineBits(int... codes) {
        byte[] packed = new byte[(codes.length * 9 + 7) / 8];
        for (int i = 0; i < codes.length * 9; i++) {
            if ((codes[i / 9] >> 8 - i % 9 & 1) == 1) {
                packed[i / 8] |= (byte) (0x80 >> i % 8);
            }
        }
        return packed;
    }

    /** Through every width of code and past a full table, against a packer written from the standard's words. */
    @ParameterizedTest
    @ValueSource(ints = {1, 300, 5_000, 60_000})
    void lzwGivesBackWhatWasPacked(int size) {
        byte[] bytes = bytes(size);
        byte[] into = new byte[size];
        assertThat(Decompression.LZW.unpack(packLzw(bytes), into)).isTrue();
        assertThat(into).isEqualTo(bytes);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 5_000})
    void deflateGivesBackWhatWasPacked(int size) {
        byte[] bytes = bytes(size);
        byte[] into = new byte[size];
        assertThat(Decompression.DEFLATE.unpack(deflated(bytes), into)).isTrue();
        assertThat(into).isEqualTo(bytes);
    }

    @Test
    void whatIsCutShortIsRefused() {
        byte[] bytes = bytes(2_000);
        Map<Decompression, byte[]> whole = Map.of(
                Decompression.NONE, bytes,
                Decompression.DEFLATE, deflated(bytes),
                Decompression.LZW, packLzw(bytes),
                Decompression.PACKBITS, hex("FE AA 02 80 00 2A"));
        whole.forEach((way, packed) -> {
            for (int length = 0; length < packed.length; length += 1 + packed.length / 50) {
                int room = way == Decompression.PACKBITS ? 6 : bytes.length;
                assertThat(way.unpack(Arrays.copyOf(packed, length), new byte[room]))
                        .as("%s cut to %d bytes", way, length)
                        .isFalse();
            }
        });
    }

    /** Whatever the bytes say, an answer comes and nothing is written beyond the block. */
    @Test
    void noBytesBreakIt() {
        Random random = new Random(4);
        for (int run = 0; run < 2_000; run++) {
            byte[] packed = new byte[random.nextInt(200)];
            random.nextBytes(packed);
            for (Decompression way : Decompression.values()) {
                way.unpack(packed, new byte[random.nextInt(300)]);
            }
        }
    }

    @Test
    void tagsOfTheStandardAreKnownAndOthersAreNot() {
        assertThat(Decompression.ofTag(1)).contains(Decompression.NONE);
        assertThat(Decompression.ofTag(5)).contains(Decompression.LZW);
        assertThat(Decompression.ofTag(8)).contains(Decompression.DEFLATE);
        assertThat(Decompression.ofTag(32946)).contains(Decompression.DEFLATE);
        assertThat(Decompression.ofTag(32773)).contains(Decompression.PACKBITS);
        assertThat(Decompression.ofTag(7))
                .as("pictures with loss are no heights")
                .isEmpty();
    }

    /** Runs and noise by turns, as heights have them. */
    private static byte[] bytes(int size) {
        Random random = new Random(size);
        byte[] bytes = new byte[size];
        for (int i = 0; i < size; i++) {
            bytes[i] = (byte) (i / 700 % 2 == 0 ? i / 50 : random.nextInt(256));
        }
        return bytes;
    }

    private static byte[] deflated(byte[] bytes) {
        Deflater deflater = new Deflater();
        deflater.setInput(bytes);
        deflater.finish();
        byte[] packed = new byte[bytes.length + 200];
        int length = deflater.deflate(packed);
        deflater.end();
        return Arrays.copyOf(packed, length);
    }

    /** TIFF 6.0, section 13: codes from 9 to 12 bits, wider as soon as the next entry needs it; a clear code before the table is full. */
    private static byte[] packLzw(byte[] bytes) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        long[] bits = new long[2];
        Map<String, Integer> table = new HashMap<>();
        int next = fresh(table);
        write(out, bits, 256, 9);
        String held = "";
        for (byte one : bytes) {
            String longer = held + (char) (one & 0xff);
            if (table.containsKey(longer)) {
                held = longer;
                continue;
            }
            write(out, bits, table.get(held), width(next));
            table.put(longer, next++);
            held = longer.substring(longer.length() - 1);
            if (next == 4094) {
                write(out, bits, 256, width(next));
                next = fresh(table);
            }
        }
        write(out, bits, table.get(held), width(next));
        write(out, bits, 257, width(next + 1));
        write(out, bits, 0, 7);
        return out.toByteArray();
    }

    private static int fresh(Map<String, Integer> table) {
        table.clear();
        for (int i = 0; i < 256; i++) {
            table.put(String.valueOf((char) i), i);
        }
        return 258;
    }

    private static int width(int next) {
        return next < 512 ? 9 : next < 1024 ? 10 : next < 2048 ? 11 : 12;
    }

    private static void write(ByteArrayOutputStream out, long[] bits, int code, int width) {
        bits[0] = bits[0] << width | code;
        bits[1] += width;
        while (bits[1] >= 8) {
            bits[1] -= 8;
            out.write((int) (bits[0] >> bits[1]));
        }
    }
}

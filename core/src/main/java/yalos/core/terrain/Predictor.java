package yalos.core.terrain;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * What a TIFF did to its cells before packing them, undone: TIFF 6.0, section 14, and its technical note 3 (from memory).
 *
 * @param number 1 for nothing, 2 for differences, 3 for differences of floating point sorted by weight
 * @param columns of a block
 * @param samples of a cell in the block
 * @param bytes of a sample
 */
record Predictor(int number, ByteOrder order, int columns, int samples, int bytes) {

    /** Makes cells of a block of so many rows, in place. */
    void undo(byte[] block, int rows) {
        for (int row = 0; row < rows && number > 1; row++) {
            if (number == 2) {
                addUp(block, row);
            } else {
                sortFloats(block, row);
            }
        }
    }

    /** Predictor 2: each sample holds the difference from the one before. */
    private void addUp(byte[] block, int row) {
        ByteBuffer buffer = ByteBuffer.wrap(block).order(order);
        int start = row * columns * samples * bytes;
        for (int i = samples; i < columns * samples; i++) {
            int at = start + i * bytes;
            int before = at - samples * bytes;
            switch (bytes) {
                case 1 -> buffer.put(at, (byte) (buffer.get(at) + buffer.get(before)));
                case 2 -> buffer.putShort(at, (short) (buffer.getShort(at) + buffer.getShort(before)));
                case 4 -> buffer.putInt(at, buffer.getInt(at) + buffer.getInt(before));
                default -> buffer.putLong(at, buffer.getLong(at) + buffer.getLong(before));
            }
        }
    }

    /** Predictor 3: bytes of a row are differences, and stand sorted by their weight, the heaviest first. */
    private void sortFloats(byte[] block, int row) {
        int values = columns * samples;
        int start = row * values * bytes;
        for (int i = start + samples; i < start + values * bytes; i++) {
            block[i] += block[i - samples];
        }
        byte[] line = Arrays.copyOfRange(block, start, start + values * bytes);
        boolean big = order == ByteOrder.BIG_ENDIAN;
        for (int i = 0; i < values; i++) {
            for (int b = 0; b < bytes; b++) {
                block[start + i * bytes + (big ? b : bytes - 1 - b)] = line[b * values + i];
            }
        }
    }
}

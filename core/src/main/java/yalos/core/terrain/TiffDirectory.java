package yalos.core.terrain;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import yalos.core.fault.InputFault;

/**
 * The first directory of a TIFF or BigTIFF: its tags and their values, read with care. Nothing is allocated that the file's own
 * length does not cover.
 */
final class TiffDirectory {
    private static final int MOST_ENTRIES = 4096;
    private static final int[] TYPE_BYTES = {0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8, 4, 0, 0, 8, 8, 8};

    private final FileChannel file;
    private final long length;
    private ByteOrder order;
    private boolean big;
    private final Map<Integer, Value> values = new HashMap<>();

    /** Where the values of a tag stand. */
    private record Value(int type, long count, long offset) {}

    private TiffDirectory(FileChannel file, long length) {
        this.file = file;
        this.length = length;
    }

    static TiffDirectory of(FileChannel file) throws IOException {
        TiffDirectory directory = new TiffDirectory(file, file.size());
        directory.read();
        return directory;
    }

    ByteOrder order() {
        return order;
    }

    private void read() throws IOException {
        if (length < 8) {
            throw noTiff();
        }
        byte[] head = new byte[8];
        bytes(0, head.length).get(head);
        if (head[0] == 'I' && head[1] == 'I') {
            order = ByteOrder.LITTLE_ENDIAN;
        } else if (head[0] == 'M' && head[1] == 'M') {
            order = ByteOrder.BIG_ENDIAN;
        } else {
            throw noTiff();
        }
        ByteBuffer header = ByteBuffer.wrap(head).order(order);
        int magic = header.getShort(2);
        if (magic != 42 && magic != 43) {
            throw noTiff();
        }
        big = magic == 43;
        long at = big ? bytes(8, 8).getLong() : header.getInt(4) & 0xffffffffL;
        long entries = big ? bytes(at, 8).getLong() : bytes(at, 2).getShort() & 0xffff;
        if (entries < 1 || entries > MOST_ENTRIES) {
            throw damaged();
        }
        int size = big ? 20 : 12;
        ByteBuffer table = bytes(at + (big ? 8 : 2), (int) entries * size);
        for (int i = 0; i < entries; i++) {
            entry(table, i * size, at + (big ? 8 : 2) + (long) i * size);
        }
    }

    private void entry(ByteBuffer table, int from, long place) {
        int tag = table.getShort(from) & 0xffff;
        int type = table.getShort(from + 2) & 0xffff;
        long count = big ? table.getLong(from + 4) : table.getInt(from + 4) & 0xffffffffL;
        if (type >= TYPE_BYTES.length || TYPE_BYTES[type] == 0 || count < 0) {
            return;
        }
        int inline = big ? 8 : 4;
        if (count > length) {
            throw damaged();
        }
        long bytes = count * TYPE_BYTES[type];
        long offset = bytes <= inline
                ? place + (big ? 12 : 8)
                : big ? table.getLong(from + 12) : table.getInt(from + 8) & 0xffffffffL;
        if (offset < 0 || bytes > length - offset) {
            throw damaged();
        }
        values.putIfAbsent(tag, new Value(type, count, offset));
    }

    private ByteBuffer bytes(long offset, int count) throws IOException {
        if (offset < 0 || count < 0 || count > length - offset) {
            throw damaged();
        }
        ByteBuffer buffer = ByteBuffer.allocate(count);
        while (buffer.hasRemaining()) {
            if (file.read(buffer, offset + buffer.position()) < 0) {
                throw damaged();
            }
        }
        buffer.flip();
        return order == null ? buffer : buffer.order(order);
    }

    /** A stretch of the file. */
    byte[] read(long offset, int count) throws IOException {
        return bytes(offset, count).array();
    }

    boolean has(int tag) {
        return values.containsKey(tag);
    }

    long whole(int tag, long otherwise) throws IOException {
        long[] all = wholes(tag);
        return all.length == 0 ? otherwise : all[0];
    }

    long[] wholes(int tag) throws IOException {
        Value value = values.get(tag);
        if (value == null) {
            return new long[0];
        }
        ByteBuffer buffer = buffer(value);
        long[] all = new long[(int) value.count];
        for (int i = 0; i < all.length; i++) {
            all[i] = switch (value.type) {
                case 1, 6, 7 -> buffer.get() & 0xff;
                case 3 -> buffer.getShort() & 0xffff;
                case 4, 13 -> buffer.getInt() & 0xffffffffL;
                case 16, 17, 18 -> buffer.getLong();
                default -> throw damaged();
            };
        }
        return all;
    }

    double[] numbers(int tag) throws IOException {
        Value value = values.get(tag);
        if (value == null) {
            return new double[0];
        }
        if (value.type != 11 && value.type != 12) {
            throw damaged();
        }
        ByteBuffer buffer = buffer(value);
        double[] all = new double[(int) value.count];
        for (int i = 0; i < all.length; i++) {
            all[i] = value.type == 12 ? buffer.getDouble() : buffer.getFloat();
        }
        return all;
    }

    String text(int tag) throws IOException {
        Value value = values.get(tag);
        if (value == null) {
            return "";
        }
        return new String(buffer(value).array(), StandardCharsets.US_ASCII)
                .replace("\0", "")
                .strip();
    }

    private ByteBuffer buffer(Value value) throws IOException {
        long bytes = value.count * TYPE_BYTES[value.type];
        if (bytes > Integer.MAX_VALUE / 2) {
            throw damaged();
        }
        return bytes(value.offset, (int) bytes);
    }

    static InputFault noTiff() {
        return new InputFault(
                "file",
                "no TIFF",
                "This is not a TIFF, whatever its name says. Save the model as a GeoTIFF or an Esri ASCII grid.");
    }

    static InputFault damaged() {
        return new InputFault(
                "file",
                "damaged",
                "The TIFF is damaged or cut off: parts of it lie past its end. Copy or save it again.");
    }
}

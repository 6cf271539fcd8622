package yalos.core.basemap;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.TreeMap;
import java.util.zip.GZIPOutputStream;

/** Writes small PMTiles files for tests, after the specification: a root that points to one leaf, which holds all tiles. */
public final class PmTilesFile {
    private final TreeMap<Long, byte[]> tiles = new TreeMap<>();
    private int most;
    private byte kind = 2;
    private boolean packed = true;

    /** A tile and its picture. */
    public PmTilesFile with(int zoom, long column, long row, byte[] picture) {
        tiles.put(PmTiles.number(zoom, column, row), picture);
        most = Math.max(most, zoom);
        return this;
    }

    /** Another kind of tiles, as the header numbers them. */
    public PmTilesFile ofKind(int number) {
        kind = (byte) number;
        return this;
    }

    /** Directories laid down as they are. */
    public PmTilesFile unpacked() {
        packed = false;
        return this;
    }

    public byte[] bytes() {
        ByteArrayOutputStream data = new ByteArrayOutputStream();
        ByteArrayOutputStream leaf = new ByteArrayOutputStream();
        varint(leaf, tiles.size());
        long before = 0;
        for (long id : tiles.keySet()) {
            varint(leaf, id - before);
            before = id;
        }
        tiles.keySet().forEach(id -> varint(leaf, 1));
        tiles.values().forEach(tile -> varint(leaf, tile.length));
        boolean first = true;
        for (byte[] tile : tiles.values()) {
            varint(leaf, first ? 1 : 0);
            first = false;
            data.writeBytes(tile);
        }
        byte[] leafBytes = folded(leaf.toByteArray());
        ByteArrayOutputStream root = new ByteArrayOutputStream();
        for (long value : new long[] {1, tiles.isEmpty() ? 0 : tiles.firstKey(), 0, leafBytes.length, 1}) {
            varint(root, value);
        }
        byte[] rootBytes = folded(root.toByteArray());
        byte[] metadata = folded("{\"attribution\":\"drawn \\\"by hand\\\"\"}".getBytes(StandardCharsets.UTF_8));
        ByteBuffer out = ByteBuffer.allocate(127 + rootBytes.length + metadata.length + leafBytes.length + data.size())
                .order(ByteOrder.LITTLE_ENDIAN);
        out.put("PMTiles".getBytes(StandardCharsets.US_ASCII)).put((byte) 3);
        long at = 127;
        for (int length : new int[] {rootBytes.length, metadata.length, leafBytes.length, data.size()}) {
            out.putLong(at).putLong(length);
            at += length;
        }
        out.putLong(tiles.size()).putLong(tiles.size()).putLong(tiles.size());
        out.put((byte) 1)
                .put((byte) (packed ? 2 : 1))
                .put((byte) 1)
                .put(kind)
                .put((byte) 0)
                .put((byte) most);
        out.putInt(-1_800_000_000).putInt(-850_000_000).putInt(1_800_000_000).putInt(850_000_000);
        out.put((byte) 1).putInt(-43_500_000).putInt(545_120_000);
        return out.put(rootBytes)
                .put(metadata)
                .put(leafBytes)
                .put(data.toByteArray())
                .array();
    }

    private byte[] folded(byte[] bytes) {
        if (!packed) {
            return bytes;
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(out)) {
            zip.write(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static void varint(ByteArrayOutputStream out, long value) {
        long left = value;
        while (left > 0x7f) {
            out.write((int) (left & 0x7f | 0x80));
            left >>>= 7;
        }
        out.write((int) left);
    }
}

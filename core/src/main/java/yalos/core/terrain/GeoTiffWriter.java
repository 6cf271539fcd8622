package yalos.core.terrain;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.function.IntFunction;
import java.util.zip.DeflaterOutputStream;
import yalos.core.block.LocalPlane;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geographic;

/**
 * Writes one band of 32-bit floating point as a GeoTIFF: strips, deflate, north up, nodata −9999. Readable by any reader of the
 * standard (TIFF 6.0, OGC GeoTIFF 1.1, both from memory).
 */
public final class GeoTiffWriter {
    /** Stands for a cell in which nothing is known. */
    public static final float NODATA = -9999;

    private static final int ROWS_IN_STRIP = 64;

    private GeoTiffWriter() {}

    /** Cells of a row, so that the whole need not be in memory. */
    public interface Rows {
        /** The cells of one row, from row 0; not a number for nodata. */
        float[] row(int row);
    }

    /** One tag. */
    private record Tag(int id, int type, int count, byte[] value) {}

    /**
     * @param georeference north up
     * @param epsg of a projected system; or of a geographic one
     */
    public static void write(
            OutputStream out, int columns, int rows, Georeference georeference, OptionalInt epsg, Rows cells)
            throws IOException {
        List<byte[]> strips = new ArrayList<>();
        for (int first = 0; first < rows; first += ROWS_IN_STRIP) {
            strips.add(strip(first, Math.min(rows, first + ROWS_IN_STRIP), columns, cells));
        }
        List<Tag> tags = tags(columns, rows, georeference, epsg, strips);
        long directory = 8;
        long values = directory + 2 + 12L * tags.size() + 4;
        long data = values;
        for (Tag tag : tags) {
            data += tag.value.length > 4 ? tag.value.length + tag.value.length % 2 : 0;
        }
        DataOutputStream file = new DataOutputStream(out);
        file.writeBytes("MM");
        file.writeShort(42);
        file.writeInt((int) directory);
        file.writeShort(tags.size());
        long at = values;
        for (Tag tag : tags) {
            byte[] value = tag.id == 273 ? offsets(strips, data) : tag.value;
            file.writeShort(tag.id);
            file.writeShort(tag.type);
            file.writeInt(tag.count);
            if (value.length > 4) {
                file.writeInt((int) at);
                at += value.length + value.length % 2;
            } else {
                file.write(Arrays.copyOf(value, 4));
            }
        }
        file.writeInt(0);
        for (Tag tag : tags) {
            byte[] value = tag.id == 273 ? offsets(strips, data) : tag.value;
            if (value.length > 4) {
                file.write(value);
                file.write(new byte[value.length % 2]);
            }
        }
        for (byte[] strip : strips) {
            file.write(strip);
        }
        file.flush();
    }

    private static byte[] strip(int from, int to, int columns, Rows cells) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        ByteBuffer bytes = ByteBuffer.allocate(4 * columns);
        try (OutputStream data = new DeflaterOutputStream(packed)) {
            for (int row = from; row < to; row++) {
                float[] line = cells.row(row);
                bytes.clear();
                for (int column = 0; column < columns; column++) {
                    bytes.putFloat(Float.isNaN(line[column]) ? NODATA : line[column]);
                }
                data.write(bytes.array());
            }
        }
        return packed.toByteArray();
    }

    private static List<Tag> tags(int columns, int rows, Georeference geo, OptionalInt epsg, List<byte[]> strips) {
        List<Tag> tags = new ArrayList<>();
        tags.add(whole(256, columns));
        tags.add(whole(257, rows));
        tags.add(shorts(258, 32));
        tags.add(shorts(259, 8));
        tags.add(shorts(262, 1));
        tags.add(wholes(273, new int[strips.size()]));
        tags.add(shorts(277, 1));
        tags.add(whole(278, ROWS_IN_STRIP));
        tags.add(wholes(279, strips.stream().mapToInt(strip -> strip.length).toArray()));
        tags.add(shorts(284, 1));
        tags.add(shorts(339, 3));
        tags.add(doubles(33550, geo.xPerColumn(), -geo.yPerRow(), 0));
        tags.add(doubles(33922, 0, 0, 0, geo.originX(), geo.originY(), 0));
        if (epsg.isPresent()) {
            int code = epsg.getAsInt();
            boolean geographic = Geographic.ofEpsg(code).isPresent();
            tags.add(shorts(
                    34735,
                    1,
                    1,
                    0,
                    3,
                    1024,
                    0,
                    1,
                    geographic ? 2 : 1,
                    1025,
                    0,
                    1,
                    1,
                    geographic ? 2048 : 3072,
                    0,
                    1,
                    code));
        }
        byte[] nodata = (String.format(Locale.ROOT, "%.0f", NODATA) + "\0").getBytes(StandardCharsets.US_ASCII);
        tags.add(new Tag(42113, 2, nodata.length, nodata));
        return tags;
    }

    private static byte[] offsets(List<byte[]> strips, long data) {
        int[] offsets = new int[strips.size()];
        long at = data;
        for (int i = 0; i < offsets.length; i++) {
            offsets[i] = (int) at;
            at += strips.get(i).length;
        }
        return wholes(273, offsets).value;
    }

    private static Tag whole(int id, int value) {
        return wholes(id, value);
    }

    private static Tag wholes(int id, int... values) {
        ByteBuffer buffer = ByteBuffer.allocate(4 * values.length);
        for (int value : values) {
            buffer.putInt(value);
        }
        return new Tag(id, 4, values.length, buffer.array());
    }

    private static Tag shorts(int id, int... values) {
        ByteBuffer buffer = ByteBuffer.allocate(2 * values.length);
        for (int value : values) {
            buffer.putShort((short) value);
        }
        return new Tag(id, 3, values.length, buffer.array());
    }

    private static Tag doubles(int id, double... values) {
        ByteBuffer buffer = ByteBuffer.allocate(8 * values.length);
        for (double value : values) {
            buffer.putDouble(value);
        }
        return new Tag(id, 12, values.length, buffer.array());
    }

    /**
     * Cells of a block's plane in the job's grid.
     *
     * @param grid where the cells lie
     * @param rows figures of a row, from the north; not numbers where nothing is known
     */
    public static byte[] overPlane(LocalPlane plane, HeightGrid grid, IntFunction<float[]> rows) throws IOException {
        EastNorth corner = plane.toGrid(grid.west(), grid.north());
        Georeference georeference = Georeference.northUp(
                corner.east(),
                corner.north(),
                grid.cellX() / plane.metresPerUnit(),
                grid.cellY() / plane.metresPerUnit());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        write(
                out,
                grid.columns(),
                grid.rows(),
                georeference,
                OptionalInt.of(plane.grid().epsg()),
                rows::apply);
        return out.toByteArray();
    }
}

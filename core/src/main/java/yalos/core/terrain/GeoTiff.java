package yalos.core.terrain;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;

/**
 * An elevation model or a picture in a GeoTIFF, read window by window: only the blocks that a window needs are unpacked, and
 * the last few are kept.
 *
 * <p>TIFF 6.0 and BigTIFF (from memory), OGC GeoTIFF 1.1 (from memory): strips and tiles, either byte order, whole numbers of 8 to
 * 32 bits, floating point of 32 and 64, deflate, LZW, PackBits, predictors 2 and 3, GDAL's tag for nodata, pixel-is-area and
 * pixel-is-point, rotated grids. JPEG and other lossy packings are refused.
 */
public final class GeoTiff implements Raster {
    /** More cells than any site needs; larger files are refused from their header. */
    public static final long MOST_CELLS = 400_000_000;

    private static final long MOST_BLOCK_BYTES = 256L << 20;
    private static final long KEPT_BYTES = 96L << 20;

    private final FileChannel file;
    private final TiffDirectory tags;
    private final int columns;
    private final int rows;
    private final int samples;
    private final int bits;
    private final int format;
    private final int predictor;
    /** Whether each band has blocks of its own. */
    private final boolean planar;

    private final Decompression packing;
    private final int blockColumns;
    private final int blockRows;
    private final int blocksAcross;
    private final long[] offsets;
    private final long[] counts;
    private final OptionalDouble nodata;
    private final Georeference georeference;
    private final GeoKeys keys;
    private final Map<Integer, byte[]> kept = new LinkedHashMap<>(16, 0.75f, true);
    private long keptBytes;

    /**
     * @throws InputFault for a file that is no TIFF, damaged, too large, without georeference, or packed in a way that is not read
     */
    public static GeoTiff open(Path path) {
        FileChannel channel = null;
        try {
            channel = FileChannel.open(path, StandardOpenOption.READ);
            return new GeoTiff(channel);
        } catch (IOException e) {
            close(channel);
            throw new UncheckedIOException(e);
        } catch (InputFault fault) {
            close(channel);
            throw fault;
        }
    }

    private static void close(FileChannel channel) {
        try {
            if (channel != null) {
                channel.close();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private GeoTiff(FileChannel file) throws IOException {
        this.file = file;
        this.tags = TiffDirectory.of(file);
        long wide = tags.whole(256, 0);
        long high = tags.whole(257, 0);
        if (wide < 1 || high < 1) {
            throw TiffDirectory.damaged();
        }
        if (wide > MOST_CELLS || high > MOST_CELLS || wide * high > MOST_CELLS) {
            throw new InputFault(
                    "file",
                    wide + " × " + high,
                    "The raster has %,d × %,d cells; up to %,d million are read. Cut it to the site, or resample it."
                            .formatted(wide, high, MOST_CELLS / 1_000_000));
        }
        columns = (int) wide;
        rows = (int) high;
        samples = (int) tags.whole(277, 1);
        bits = (int) tags.whole(258, 1);
        format = (int) tags.whole(339, 1);
        predictor = (int) tags.whole(317, 1);
        planar = tags.whole(284, 1) == 2;
        packing = Decompression.ofTag((int) tags.whole(259, 1))
                .orElseThrow(() -> unreadable("it is packed in a way that is not read; deflate, LZW and PackBits are"));
        refuseUnreadable();
        boolean tiled = tags.has(324);
        long blockWide = tiled ? tags.whole(322, 0) : columns;
        long blockHigh = tiled ? tags.whole(323, 0) : Math.min(rows, tags.whole(278, rows));
        if (blockWide < 1 || blockHigh < 1 || blockWide > MOST_CELLS || blockHigh > MOST_CELLS) {
            throw TiffDirectory.damaged();
        }
        blockColumns = (int) blockWide;
        blockRows = (int) blockHigh;
        if (blockWide * blockHigh > MOST_BLOCK_BYTES / cellBytes()) {
            throw new InputFault(
                    "file",
                    blockColumns + " × " + blockRows,
                    "The TIFF keeps its cells in pieces of %,d × %,d, too large to unpack one. Save it with tiles."
                            .formatted(blockColumns, blockRows));
        }
        blocksAcross = (int) ((columns + blockWide - 1) / blockWide);
        offsets = tags.wholes(tiled ? 324 : 273);
        counts = tags.wholes(tiled ? 325 : 279);
        refuseCutOff();
        nodata = nodata();
        keys = GeoKeys.of(tags);
        georeference = keys.georeference(tags);
    }

    private void refuseUnreadable() {
        boolean whole = (format == 1 || format == 2) && (bits == 8 || bits == 16 || bits == 32);
        boolean floating = format == 3 && (bits == 32 || bits == 64);
        if (!whole && !floating) {
            throw unreadable("its cells have %d bits in format %d".formatted(bits, format));
        }
        if (predictor < 1 || predictor > 3 || predictor == 3 && format != 3 || samples < 1 || samples > 16) {
            throw unreadable("predictor %d with %d samples does not fit its cells".formatted(predictor, samples));
        }
    }

    private static InputFault unreadable(String why) {
        return new InputFault("file", "not readable", "The TIFF cannot be read: %s.".formatted(why));
    }

    private void refuseCutOff() throws IOException {
        long planes = planar ? samples : 1;
        long blocksDown = (rows + (long) blockRows - 1) / blockRows;
        long needed = blocksAcross * blocksDown * planes;
        if (offsets.length < needed || counts.length < needed) {
            throw TiffDirectory.damaged();
        }
        for (int i = 0; i < needed; i++) {
            if (offsets[i] < 0 || counts[i] < 0 || counts[i] > file.size() - offsets[i]) {
                throw TiffDirectory.damaged();
            }
        }
    }

    private OptionalDouble nodata() throws IOException {
        String text = tags.text(42113);
        try {
            return text.isEmpty() ? OptionalDouble.empty() : OptionalDouble.of(Double.parseDouble(text.strip()));
        } catch (NumberFormatException e) {
            return OptionalDouble.empty();
        }
    }

    @Override
    public int columns() {
        return columns;
    }

    @Override
    public int rows() {
        return rows;
    }

    @Override
    public Georeference georeference() {
        return georeference;
    }

    @Override
    public OptionalInt epsg() {
        return keys.epsg();
    }

    /** Metres in the unit its heights are in, where the file names one. */
    public OptionalDouble verticalUnitM() {
        return keys.verticalUnitM();
    }

    /** Bands of the raster: 1 for an elevation model, 3 or 4 for a picture. */
    public int samples() {
        return samples;
    }

    /** Whether it is a picture of red, green and blue. */
    public boolean isPicture() {
        return samples >= 3 && bits == 8;
    }

    @Override
    public int blockColumns() {
        return blockColumns;
    }

    @Override
    public int blockRows() {
        return blockRows;
    }

    @Override
    public float[] window(int firstColumn, int firstRow, int wide, int high) {
        return band(0, firstColumn, firstRow, wide, high);
    }

    /** One band of a window; not a number outside the raster and for nodata. */
    public synchronized float[] band(int band, int firstColumn, int firstRow, int wide, int high) {
        float[] out = new float[wide * high];
        Arrays.fill(out, Float.NaN);
        int fromRow = Math.max(0, firstRow);
        int toRow = Math.min(rows, firstRow + high);
        int fromColumn = Math.max(0, firstColumn);
        int toColumn = Math.min(columns, firstColumn + wide);
        if (fromRow >= toRow || fromColumn >= toColumn) {
            return out;
        }
        for (int blockRow = fromRow / blockRows; blockRow <= (toRow - 1) / blockRows; blockRow++) {
            for (int blockColumn = fromColumn / blockColumns;
                    blockColumn <= (toColumn - 1) / blockColumns;
                    blockColumn++) {
                byte[] block = block(blockRow * blocksAcross + blockColumn, band);
                if (block.length == 0) {
                    continue;
                }
                int startRow = Math.max(fromRow, blockRow * blockRows);
                int endRow = Math.min(toRow, (blockRow + 1) * blockRows);
                int startColumn = Math.max(fromColumn, blockColumn * blockColumns);
                int endColumn = Math.min(toColumn, (blockColumn + 1) * blockColumns);
                ByteBuffer buffer = ByteBuffer.wrap(block).order(tags.order());
                for (int row = startRow; row < endRow; row++) {
                    int inBlock = (row - blockRow * blockRows) * blockColumns - blockColumn * blockColumns;
                    int to = (row - firstRow) * wide - firstColumn;
                    for (int column = startColumn; column < endColumn; column++) {
                        out[to + column] = value(buffer, inBlock + column, band);
                    }
                }
            }
        }
        return out;
    }

    private int samplesInBlock() {
        return planar ? 1 : samples;
    }

    private int cellBytes() {
        return bits / 8 * samplesInBlock();
    }

    private float value(ByteBuffer block, int cell, int band) {
        int inBlock = samplesInBlock();
        int at = (cell * inBlock + (inBlock == 1 ? 0 : band)) * bits / 8;
        double value = switch (format * 100 + bits) {
            case 108 -> block.get(at) & 0xff;
            case 116 -> block.getShort(at) & 0xffff;
            case 132 -> block.getInt(at) & 0xffffffffL;
            case 208 -> block.get(at);
            case 216 -> block.getShort(at);
            case 232 -> block.getInt(at);
            case 332 -> block.getFloat(at);
            default -> block.getDouble(at);
        };
        boolean none = nodata.isPresent()
                && (value == nodata.getAsDouble()
                        || format == 3 && bits == 32 && value == (float) nodata.getAsDouble());
        return none || !Double.isFinite(value) ? Float.NaN : (float) value;
    }

    /** An unpacked block; empty for one that the file leaves out. */
    private byte[] block(int index, int band) {
        try {
            int number = planar ? index + band * (offsets.length / samples) : index;
            byte[] known = kept.get(number);
            if (known != null) {
                return known;
            }
            byte[] read = counts[number] == 0 ? new byte[0] : unpacked(number, index / blocksAcross);
            kept.put(number, read);
            keptBytes += read.length;
            forgetOldest(number);
            return read;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void forgetOldest(int except) {
        var oldest = kept.entrySet().iterator();
        while (keptBytes > KEPT_BYTES && oldest.hasNext()) {
            var entry = oldest.next();
            if (entry.getKey() != except) {
                keptBytes -= entry.getValue().length;
                oldest.remove();
            }
        }
    }

    private byte[] unpacked(int number, int blockRow) throws IOException {
        if (counts[number] > MOST_BLOCK_BYTES) {
            throw TiffDirectory.damaged();
        }
        boolean tiled = tags.has(324);
        int high = tiled ? blockRows : Math.min(blockRows, rows - blockRow * blockRows);
        byte[] block = new byte[high * blockColumns * cellBytes()];
        if (!packing.unpack(tags.read(offsets[number], (int) counts[number]), block)) {
            throw TiffDirectory.damaged();
        }
        new Predictor(predictor, tags.order(), blockColumns, samplesInBlock(), bits / 8).undo(block, high);
        return block;
    }

    @Override
    public void close() {
        close(file);
    }
}

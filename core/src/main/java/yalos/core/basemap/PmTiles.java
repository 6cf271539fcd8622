package yalos.core.basemap;

import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * A map in one file after the PMTiles specification, version 3: a header, directories of tiles along a Hilbert curve, and the tiles. Read in
 * place; what the header and directories promise is held against the file before it is believed.
 *
 * <p>KNOWN LIMITS: directories packed with gzip or not at all; tiles that are pictures, not vectors.
 */
public final class PmTiles implements TilePyramid {
    private static final int HEADER = 127;
    private static final int MOST_DIRECTORY = 16_000_000;
    private static final int MOST_TILE = 10_000_000;
    private static final int MOST_ENTRIES = 2_000_000;
    private static final int DEEPEST = 4;
    private static final int KEPT_DIRECTORIES = 32;
    private static final int PLAIN = 1;
    private static final int GZIP = 2;
    private static final Pattern NAMED = Pattern.compile("\"attribution\"\\s*:\\s*\"((?:[^\"\\\\]|\\\\.)*)\"");

    private final FileChannel file;
    private final long length;
    private final ByteBuffer header;
    private final List<TileMatrix> levels;
    private final String attribution;
    private final Map<Long, Directory> directories = Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, Directory> eldest) {
            return size() > KEPT_DIRECTORIES;
        }
    });

    private PmTiles(FileChannel file) throws IOException {
        this.file = file;
        length = file.size();
        if (length < HEADER) {
            throw fault("The file is no PMTiles map.");
        }
        header = read(0, HEADER, HEADER);
        if (!StandardCharsets.US_ASCII
                .decode(header.duplicate().limit(7))
                .toString()
                .equals("PMTiles")) {
            throw fault("The file is no PMTiles map.");
        }
        if (header.get(7) != 3) {
            throw fault(
                    "The map is of PMTiles version %d. Version 3 can be read; convert it.".formatted(header.get(7)));
        }
        if (header.get(97) != PLAIN && header.get(97) != GZIP) {
            throw fault("The map's directories are packed in a way that is not known here. Pack it with gzip.");
        }
        checkPictures(header.get(99));
        int least = header.get(100);
        int most = header.get(101);
        if (least < 0 || most < least || most > TileMatrix.FINEST) {
            throw fault("The map says it has levels from %d to %d, which cannot be.".formatted(least, most));
        }
        levels = IntStream.rangeClosed(least, most)
                .mapToObj(zoom -> TileMatrix.web(zoom, 256))
                .toList();
        attribution = named();
        directory(header.getLong(8), header.getLong(16));
    }

    /**
     * Opens a map to be read in place.
     *
     * @throws InputFault for a file that is none, is damaged, or holds something else than pictures
     */
    public static PmTiles open(Path path) throws IOException {
        FileChannel file = FileChannel.open(path, StandardOpenOption.READ);
        try {
            return new PmTiles(file);
        } catch (IOException | RuntimeException e) {
            file.close();
            throw e;
        }
    }

    private static void checkPictures(byte kind) {
        String what = switch (kind) {
            case 1 -> "vectors";
            case 2, 3, 4 -> "";
            case 5 -> "AVIF pictures";
            default -> "tiles of a kind that is not known here";
        };
        if (!what.isEmpty()) {
            throw fault("The map holds %s. A map of PNG, JPEG or WebP pictures can be shown.".formatted(what));
        }
    }

    private String named() throws IOException {
        String metadata = new String(
                unpacked(read(header.getLong(24), header.getLong(32), MOST_DIRECTORY), header.get(97)),
                StandardCharsets.UTF_8);
        Matcher found = NAMED.matcher(metadata);
        return found.find() ? found.group(1).replace("\\\"", "\"").replace("\\/", "/") : "";
    }

    @Override
    public MapSystem system() {
        return new MapSystem.WebMercator();
    }

    @Override
    public List<TileMatrix> levels() {
        return levels;
    }

    @Override
    public String attribution() {
        return attribution;
    }

    /** Its own middle, in ten-millionths of a degree. */
    @Override
    public Optional<LonLat> middle() {
        double lon = header.getInt(119) / 1e7;
        double lat = header.getInt(123) / 1e7;
        return Math.abs(lon) <= 180 && Math.abs(lat) <= 90 ? Optional.of(LonLat.of(lon, lat)) : Optional.empty();
    }

    @Override
    public Optional<byte[]> tile(TileMatrix level, long column, long row) throws IOException {
        long id = number(level.zoom(), column, row);
        long offset = header.getLong(8);
        long size = header.getLong(16);
        for (int depth = 0; depth < DEEPEST; depth++) {
            Directory directory = directory(offset, size);
            int at = directory.find(id);
            if (at < 0) {
                return Optional.empty();
            }
            if (directory.runs[at] > 0) {
                boolean within = id < directory.ids[at] + directory.runs[at];
                return within ? Optional.of(picture(directory, at)) : Optional.empty();
            }
            offset = sum(header.getLong(40), directory.offsets[at]);
            size = directory.sizes[at];
        }
        throw fault("The map's directories lie deeper in each other than %d.".formatted(DEEPEST));
    }

    private byte[] picture(Directory directory, int at) throws IOException {
        ByteBuffer tile = read(sum(header.getLong(56), directory.offsets[at]), directory.sizes[at], MOST_TILE);
        return unpacked(tile, header.get(98));
    }

    @Override
    public void close() throws IOException {
        file.close();
    }

    /** The number of a tile: all coarser levels before it, then along the Hilbert curve of its own. */
    static long number(int zoom, long column, long row) {
        long before = ((1L << 2 * zoom) - 1) / 3;
        long along = 0;
        long x = column;
        long y = row;
        for (long side = 1L << zoom >> 1; side > 0; side >>= 1) {
            long right = (x & side) > 0 ? 1 : 0;
            long down = (y & side) > 0 ? 1 : 0;
            along += side * side * (3 * right ^ down);
            if (down == 0) {
                if (right == 1) {
                    x = side - 1 - x & side - 1;
                    y = side - 1 - y & side - 1;
                }
                long swap = x;
                x = y;
                y = swap;
            }
            x &= side - 1;
            y &= side - 1;
        }
        return before + along;
    }

    private static final class Directory {
        private final long[] ids;
        private final int[] runs;
        private final long[] sizes;
        private final long[] offsets;

        Directory(ByteBuffer bytes) {
            long count = varint(bytes);
            if (count < 0 || count > MOST_ENTRIES || count > bytes.remaining()) {
                throw fault("A directory of the map promises more tiles than it holds.");
            }
            ids = new long[(int) count];
            runs = new int[ids.length];
            sizes = new long[ids.length];
            offsets = new long[ids.length];
            long id = 0;
            for (int i = 0; i < ids.length; i++) {
                id += varint(bytes);
                ids[i] = id;
            }
            for (int i = 0; i < ids.length; i++) {
                runs[i] = (int) Math.min(Integer.MAX_VALUE, varint(bytes));
            }
            for (int i = 0; i < ids.length; i++) {
                sizes[i] = varint(bytes);
            }
            for (int i = 0; i < ids.length; i++) {
                long value = varint(bytes);
                offsets[i] = value == 0 && i > 0 ? offsets[i - 1] + sizes[i - 1] : value - 1;
            }
        }

        /** The last entry that does not begin behind a tile; below 0 where there is none. */
        int find(long id) {
            int low = 0;
            int high = ids.length - 1;
            while (low <= high) {
                int middle = (low + high) >>> 1;
                if (ids[middle] <= id) {
                    low = middle + 1;
                } else {
                    high = middle - 1;
                }
            }
            return high;
        }

        private static long varint(ByteBuffer bytes) {
            long value = 0;
            for (int shift = 0; shift < 63; shift += 7) {
                if (!bytes.hasRemaining()) {
                    throw fault("A directory of the map ends too early.");
                }
                byte next = bytes.get();
                value |= (long) (next & 0x7f) << shift;
                if (next >= 0) {
                    return value;
                }
            }
            throw fault("A number in a directory of the map has no end.");
        }
    }

    private Directory directory(long offset, long size) throws IOException {
        Directory known = directories.get(offset);
        if (known == null) {
            known = new Directory(ByteBuffer.wrap(unpacked(read(offset, size, MOST_DIRECTORY), header.get(97))));
            directories.put(offset, known);
        }
        return known;
    }

    private static byte[] unpacked(ByteBuffer bytes, byte packing) throws IOException {
        byte[] packed = new byte[bytes.remaining()];
        bytes.get(packed);
        if (packing != GZIP || packed.length == 0) {
            return packed;
        }
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
            byte[] whole = in.readNBytes(MOST_DIRECTORY + 1);
            if (whole.length > MOST_DIRECTORY) {
                throw fault("A part of the map unpacks to more than 16 MB.");
            }
            return whole;
        } catch (EOFException | ZipException damaged) {
            throw fault("A packed part of the map is damaged.");
        }
    }

    /** A place in the file; below 0, which is refused, where it cannot be one. */
    private static long sum(long from, long along) {
        return from < 0 || along < 0 || from + along < 0 ? -1 : from + along;
    }

    /** A piece of the file, held against its length first. */
    private ByteBuffer read(long offset, long size, long most) throws IOException {
        if (offset < 0 || size < 0 || size > most || offset > length - size) {
            throw fault("The map promises %d bytes at %d, and the file has %d.".formatted(size, offset, length));
        }
        ByteBuffer bytes = ByteBuffer.allocate((int) size).order(ByteOrder.LITTLE_ENDIAN);
        while (bytes.hasRemaining() && file.read(bytes, offset + bytes.position()) >= 0) {
            // read on
        }
        return bytes.flip();
    }

    private static InputFault fault(String sentence) {
        return new InputFault("map", "PMTiles", sentence);
    }
}

package yalos.core.take;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;

/**
 * A file of laser points: LAS 1.0 to 1.4, point formats 0 to 10, not compressed (ASPRS LAS specification 1.4 R15, from memory). Points are passed one by one and never held.
 *
 * @param version such as 1.4
 * @param format of its points, 0 to 10
 * @param points that are in the file, whole
 * @param declared points that the head says
 * @param epsg of its coordinates; empty where the file says none
 * @param time what its times count from
 * @param doubts what to look at, one sentence each
 */
public record LasFile(
        Path file,
        String version,
        int format,
        int recordLength,
        long points,
        long declared,
        long offset,
        double[] scale,
        double[] shift,
        double[] least,
        double[] greatest,
        OptionalInt epsg,
        Time time,
        List<String> doubts) {

    /** What times of points count from. */
    public enum Time {
        NONE,
        WEEK,
        ADJUSTED
    }

    /** Told of each point. */
    public interface Visitor {
        /**
         * @param time as stored; NaN where points have none
         * @param source number of the strip
         * @param echo number of the return
         */
        void point(double x, double y, double z, double time, int source, int echo);
    }

    private static final int HEAD = 375;
    private static final int SHORTEST_HEAD = 227;
    private static final int[] LENGTHS = {20, 28, 26, 34, 57, 63, 30, 36, 38, 59, 67};
    private static final int LONGEST_RECORD = 4096;
    private static final int COMPRESSED = 0x80;
    private static final int LASZIP_BITS = 0xc0;
    private static final int MOST_TEXT = 1 << 16;
    /** A head that counts so many times what is there is damaged, not cut off. */
    private static final double HOPELESS = 100;

    private static final Pattern EPSG = Pattern.compile("(?:AUTHORITY|ID)\\[\"EPSG\"\\s*,\\s*\"?(\\d{3,6})\"?\\]");
    private static final long GPS_EPOCH_S = 315_964_800;

    /** Moment of a time of a point, by UTC; empty where times count within a week nobody names. */
    public Optional<Instant> instant(double stored) {
        return time == Time.ADJUSTED && Double.isFinite(stored)
                ? Optional.of(Instant.ofEpochSecond(GPS_EPOCH_S + 1_000_000_000L - BaseLog.LEAP_S)
                        .plusNanos(Math.round(stored * 1e9)))
                : Optional.empty();
    }

    /**
     * Reads the head.
     *
     * @throws InputFault for what is no such file, or is damaged, or compressed
     */
    public static LasFile open(Path file) throws IOException {
        long bytes = Files.size(file);
        if (bytes == 0) {
            throw fault("empty", "The point file is empty (0 bytes): copy it again.");
        }
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            byte[] head = new byte[(int) Math.min(HEAD, bytes)];
            in.readFully(head);
            return new Head(file, in, ByteBuffer.wrap(head).order(ByteOrder.LITTLE_ENDIAN), bytes).file();
        }
    }

    private static InputFault fault(String value, String sentence) {
        return new InputFault("file", value, sentence);
    }

    /** Reads the head of one file. */
    private static final class Head {
        private final Path path;
        private final RandomAccessFile in;
        private final ByteBuffer head;
        private final long bytes;
        private final List<String> doubts = new ArrayList<>();

        Head(Path path, RandomAccessFile in, ByteBuffer head, long bytes) {
            this.path = path;
            this.in = in;
            this.head = head;
            this.bytes = bytes;
        }

        LasFile file() throws IOException {
            if (head.limit() < 4 || !text(0, 4).equals("LASF")) {
                throw fault("no LAS", "This is no LAS file: it does not begin as one.");
            }
            if (head.limit() < SHORTEST_HEAD) {
                throw fault("short", "The point file ends inside its head: copy it again.");
            }
            int minor = head.get(25);
            if (head.get(24) != 1 || minor < 0 || minor > 4) {
                throw fault(
                        head.get(24) + "." + minor,
                        "LAS version %d.%d is not known here; 1.0 to 1.4 are.".formatted(head.get(24), minor));
            }
            int stored = head.get(104) & 0xff;
            if ((stored & COMPRESSED) != 0 || (stored & LASZIP_BITS) != 0) {
                throw fault("LAZ", "The points are compressed (LAZ). Expand them to LAS first, and bring that.");
            }
            int length = Short.toUnsignedInt(head.getShort(105));
            long offset = Integer.toUnsignedLong(head.getInt(96));
            int headLength = Short.toUnsignedInt(head.getShort(94));
            if (stored >= LENGTHS.length) {
                throw fault("format " + stored, "Point format %d is not known; 0 to 10 are.".formatted(stored));
            }
            if (length < LENGTHS[stored] || length > LONGEST_RECORD) {
                throw damaged("points of %d bytes, where format %d has %d".formatted(length, stored, LENGTHS[stored]));
            }
            if (headLength < SHORTEST_HEAD || offset < headLength || offset > bytes) {
                throw damaged("the points are said to begin at byte %,d of %,d".formatted(offset, bytes));
            }
            double[] scale = doubles(131);
            double[] shift = doubles(155);
            for (int i = 0; i < 3; i++) {
                if (!(Math.abs(scale[i]) > 0) || !Double.isFinite(scale[i]) || !Double.isFinite(shift[i])) {
                    throw damaged("its scale or offset is no figure");
                }
            }
            long declared = Integer.toUnsignedLong(head.getInt(107));
            if (minor == 4 && head.limit() >= 255 && head.getLong(247) != 0) {
                declared = head.getLong(247);
            }
            OptionalInt epsg = system(minor, headLength, offset);
            long there = (bytes - offset) / length;
            if (declared < 0 || declared > Math.max(1000, there) * HOPELESS) {
                throw damaged("it counts %s points in %,d bytes"
                        .formatted(declared < 0 ? "more than any number of" : "%,d".formatted(declared), bytes));
            }
            if (declared > there) {
                doubts.add("The file is incomplete: its head counts %,d points, %,d are there. Copy it again."
                        .formatted(declared, there));
            }
            if (declared == 0) {
                doubts.add("The file has no points.");
            }
            boolean timed = stored != 0 && stored != 2;
            boolean adjusted = (head.getShort(6) & 1) != 0;
            double[] high = {head.getDouble(179), head.getDouble(195), head.getDouble(211)};
            double[] low = {head.getDouble(187), head.getDouble(203), head.getDouble(219)};
            return new LasFile(
                    path,
                    "1." + minor,
                    stored,
                    length,
                    Math.min(declared, there),
                    declared,
                    offset,
                    scale,
                    shift,
                    low,
                    high,
                    epsg,
                    timed ? adjusted ? Time.ADJUSTED : Time.WEEK : Time.NONE,
                    List.copyOf(doubts));
        }

        private static InputFault damaged(String what) {
            return fault("damaged", "The head of the point file is damaged: %s. Copy it again.".formatted(what));
        }

        private String text(int from, int length) {
            byte[] part = new byte[length];
            head.get(from, part);
            return new String(part, StandardCharsets.US_ASCII);
        }

        private double[] doubles(int from) {
            return new double[] {head.getDouble(from), head.getDouble(from + 8), head.getDouble(from + 16)};
        }

        /** The system of the coordinates, from GeoTIFF keys or WKT, before the points or behind them. */
        private OptionalInt system(int minor, int headLength, long offset) throws IOException {
            OptionalInt found = OptionalInt.empty();
            long at = headLength;
            long count = Integer.toUnsignedLong(head.getInt(100));
            for (long i = 0; i < count && found.isEmpty(); i++) {
                if (at + 54 > offset) {
                    doubts.add("The file's description of its coordinate system cannot be read.");
                    return found;
                }
                ByteBuffer record = part(at, 54);
                int length = Short.toUnsignedInt(record.getShort(20));
                int id = Short.toUnsignedInt(record.getShort(18));
                if (at + 54 + length > offset) {
                    doubts.add("The file's description of its coordinate system cannot be read.");
                    return found;
                }
                found = described(id, at + 54, length);
                at += 54L + length;
            }
            if (minor == 4 && head.limit() >= 247) {
                OptionalInt behind = behind();
                return found.isPresent() ? found : behind;
            }
            return found;
        }

        private OptionalInt behind() throws IOException {
            long at = head.getLong(235);
            long count = Integer.toUnsignedLong(head.getInt(243));
            OptionalInt found = OptionalInt.empty();
            for (long i = 0; i < Math.min(count, 1000) && found.isEmpty(); i++) {
                if (at <= 0 || at + 60 > bytes) {
                    doubts.add("The records behind the points cannot be read.");
                    return found;
                }
                ByteBuffer record = part(at, 60);
                long length = record.getLong(20);
                if (length < 0 || length > bytes - at - 60) {
                    doubts.add("The records behind the points cannot be read.");
                    return found;
                }
                found = described(Short.toUnsignedInt(record.getShort(18)), at + 60, length);
                at += 60 + length;
            }
            return found;
        }

        private ByteBuffer part(long at, int length) throws IOException {
            byte[] part = new byte[length];
            in.seek(at);
            in.readFully(part);
            return ByteBuffer.wrap(part).order(ByteOrder.LITTLE_ENDIAN);
        }

        private OptionalInt described(int id, long at, long length) throws IOException {
            int read = (int) Math.min(length, MOST_TEXT);
            if (id == 34735) {
                ByteBuffer keys = part(at, read);
                for (int k = 8; k + 8 <= read; k += 8) {
                    int key = Short.toUnsignedInt(keys.getShort(k));
                    if (key == 3072 || key == 2048) {
                        int code = Short.toUnsignedInt(keys.getShort(k + 6));
                        if (code != 32767 && code > 0 && key == 3072) {
                            return OptionalInt.of(code);
                        }
                    }
                }
            } else if (id == 2112) {
                Matcher codes = EPSG.matcher(new String(part(at, read).array(), StandardCharsets.UTF_8));
                int last = 0;
                while (codes.find()) {
                    // The outermost system names itself last.
                    last = Integer.parseInt(codes.group(1));
                }
                return last > 0 ? OptionalInt.of(last) : OptionalInt.empty();
            }
            return OptionalInt.empty();
        }
    }

    /** Passes every point. */
    public void visit(Visitor visitor) throws IOException {
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
            in.skipNBytes(offset);
            byte[] bytes = new byte[recordLength];
            ByteBuffer record = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
            boolean newer = format >= 6;
            int source = newer ? 20 : 18;
            int clock = newer ? 22 : 20;
            for (long i = 0; i < points; i++) {
                if (in.readNBytes(bytes, 0, recordLength) < recordLength) {
                    return;
                }
                if ((i & 0xffff) == 0) {
                    Patience.check();
                }
                visitor.point(
                        record.getInt(0) * scale[0] + shift[0],
                        record.getInt(4) * scale[1] + shift[1],
                        record.getInt(8) * scale[2] + shift[2],
                        time == Time.NONE ? Double.NaN : record.getDouble(clock),
                        Short.toUnsignedInt(record.getShort(source)),
                        bytes[14] & (newer ? 0x0f : 0x07));
            }
        }
    }
}

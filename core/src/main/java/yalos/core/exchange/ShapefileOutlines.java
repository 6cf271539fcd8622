package yalos.core.exchange;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import yalos.core.block.Outline;
import yalos.core.block.Ring;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.WktSystem;

/**
 * Outlines and lines from a zipped shapefile, after the published description of 1998: polygons and polylines, with heights and measures passed
 * over. The {@code .prj} says in which system figures are; where it is missing somebody must say so, for metres are never taken for degrees.
 */
public final class ShapefileOutlines {
    private static final int MAGIC = 9994;
    private static final int HEADER = 100;
    private static final int POLYLINE = 3;
    private static final int POLYGON = 5;
    private static final int MOST_POINTS = 2_000_000;

    private final ByteBuffer shapes;
    private final Placing placing;
    private final List<String> names;
    private final ImportedOutlines.Collector found = new ImportedOutlines.Collector();
    private int points;

    private ShapefileOutlines(byte[] shapes, Placing placing, List<String> names) {
        this.shapes = ByteBuffer.wrap(shapes);
        this.placing = placing;
        this.names = names;
    }

    /** Whether a zip holds a shapefile. */
    static boolean isIn(byte[] zip) {
        try {
            return !SafeZip.files(zip, "zip", name -> name.endsWith(".shp")).isEmpty();
        } catch (InputFault damaged) {
            return false;
        }
    }

    /**
     * @param typed the EPSG code to read it in where its {@code .prj} is missing or says nothing
     * @throws InputFault for a damaged or hostile file; with field {@code epsg} where nobody knows the coordinate system
     */
    public static ImportedOutlines read(byte[] zip, Axes axes, OptionalInt typed) {
        Map<String, byte[]> files = SafeZip.files(
                zip, "zip", name -> name.endsWith(".shp") || name.endsWith(".prj") || name.endsWith(".dbf"));
        String shp = files.keySet().stream()
                .filter(name -> name.endsWith(".shp"))
                .findFirst()
                .orElseThrow(() -> new InputFault("file", "no .shp", "The zip holds no .shp file."));
        String stem = shp.substring(0, shp.length() - 4);
        Placing placing = Placing.ofEpsg(system(files.get(stem + ".prj"), typed), axes);
        return new ShapefileOutlines(files.get(shp), placing, names(files.get(stem + ".dbf"))).read();
    }

    private static int system(byte[] prj, OptionalInt typed) {
        if (typed.isPresent()) {
            return typed.getAsInt();
        }
        if (prj == null) {
            throw new InputFault(
                    "epsg",
                    "no .prj",
                    "The shapefile has no .prj, so nobody knows in which coordinate system its figures are. Type the EPSG code, such as 32632 or 4326.");
        }
        return WktSystem.epsg(new String(prj, StandardCharsets.UTF_8))
                .orElseThrow(() -> new InputFault(
                        "epsg",
                        "unknown .prj",
                        "The .prj describes a coordinate system that this program does not know. Type its EPSG code."));
    }

    private ImportedOutlines read() {
        if (shapes.limit() < HEADER || shapes.getInt(0) != MAGIC) {
            throw damaged("it does not begin as one does");
        }
        shapes.position(HEADER);
        for (int record = 1; shapes.remaining() >= 8; record++) {
            shapes.order(ByteOrder.BIG_ENDIAN).getInt();
            long length = 2L * shapes.getInt();
            if (length < 4 || length > shapes.remaining()) {
                throw damaged("record %d is cut off".formatted(record));
            }
            int end = shapes.position() + (int) length;
            record(record, end);
            shapes.position(end);
        }
        return found.finish("shapefile");
    }

    private void record(int record, int end) {
        shapes.order(ByteOrder.LITTLE_ENDIAN);
        int kind = shapes.getInt() % 10;
        if (kind != POLYLINE && kind != POLYGON) {
            return;
        }
        if (end - shapes.position() < 40) {
            throw damaged("record %d is too short".formatted(record));
        }
        shapes.position(shapes.position() + 32);
        int parts = shapes.getInt();
        int count = shapes.getInt();
        points += Math.max(0, count);
        if (parts < 1 || count < 1 || points > MOST_POINTS || 4L * parts + 16L * count > end - shapes.position()) {
            throw damaged("record %d promises more points than it holds".formatted(record));
        }
        int[] starts = new int[parts + 1];
        for (int i = 0; i < parts; i++) {
            starts[i] = shapes.getInt();
        }
        starts[parts] = count;
        int base = shapes.position();
        List<double[]> rings = new ArrayList<>();
        for (int i = 0; i < parts; i++) {
            if (starts[i] < 0 || starts[i + 1] <= starts[i] || starts[i + 1] > count) {
                throw damaged("the parts of record %d are out of order".formatted(record));
            }
            rings.add(figures(base, starts[i], starts[i + 1]));
        }
        String name = record <= names.size() ? names.get(record - 1) : "";
        if (kind == POLYGON) {
            found.add(name, outline(rings, name.isBlank() ? "record " + record : name));
        } else {
            rings.forEach(line -> found.line(name, places(line)));
        }
    }

    private double[] figures(int base, int from, int to) {
        double[] figures = new double[2 * (to - from)];
        for (int i = 0; i < figures.length; i++) {
            figures[i] = shapes.getDouble(base + 8 * (2 * from + i));
        }
        return figures;
    }

    private List<LonLat> places(double[] figures) {
        List<LonLat> places = new ArrayList<>();
        for (int i = 0; i < figures.length; i += 2) {
            places.add(placing.at(figures[i], figures[i + 1]));
        }
        return places;
    }

    /** Rings that run clockwise are outer ones; the others are holes of the outer ring round them. */
    private Outline outline(List<double[]> rings, String name) {
        List<double[]> outer =
                rings.stream().filter(ring -> Ring.signedArea(ring) <= 0).toList();
        if (outer.isEmpty()) {
            outer = rings;
        }
        List<Outline.Part> parts = new ArrayList<>();
        List<double[]> holes = new ArrayList<>(rings);
        holes.removeAll(outer);
        for (double[] ring : outer) {
            List<List<LonLat>> within = new ArrayList<>();
            for (double[] hole : holes) {
                if (Ring.contains(ring, hole[0], hole[1])) {
                    within.add(found.ring(places(hole), name));
                }
            }
            parts.add(new Outline.Part(found.ring(places(ring), name), within));
        }
        return new Outline(parts);
    }

    /** What the table calls each record: its first column that is named like a name; none where the table is missing or crooked. */
    private static List<String> names(byte[] dbf) {
        List<String> names = new ArrayList<>();
        if (dbf == null || dbf.length < 65) {
            return names;
        }
        ByteBuffer table = ByteBuffer.wrap(dbf).order(ByteOrder.LITTLE_ENDIAN);
        int records = table.getInt(4);
        int header = table.getShort(8) & 0xffff;
        int width = table.getShort(10) & 0xffff;
        int offset = 1;
        for (int field = 32; field + 32 <= Math.min(header, dbf.length) && dbf[field] != 13; field += 32) {
            String column =
                    new String(dbf, field, 11, StandardCharsets.ISO_8859_1).split("\0", 2)[0].toLowerCase(Locale.ROOT);
            int wide = dbf[field + 16] & 0xff;
            if (column.equals("name") || column.equals("title") || column.equals("label")) {
                for (int i = 0; i < records && header + (i + 1L) * width <= dbf.length; i++) {
                    int at = header + i * width + offset;
                    names.add(new String(dbf, at, Math.min(wide, dbf.length - at), StandardCharsets.UTF_8).strip());
                }
                return names;
            }
            offset += wide;
        }
        return names;
    }

    private static InputFault damaged(String how) {
        return new InputFault("file", how, "The shapefile is damaged: %s. Export it again.".formatted(how));
    }
}

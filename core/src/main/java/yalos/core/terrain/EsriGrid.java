package yalos.core.terrain;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.StringTokenizer;
import yalos.core.fault.InputFault;

/**
 * The Esri ASCII grid: six lines of header, then heights row by row from the north. Read once, row by row, and written out as a
 * GeoTIFF, so that it can be read window by window afterwards.
 */
public final class EsriGrid {
    private static final int LONGEST_LINE = 64 << 20;

    private EsriGrid() {}

    /** Whether a file begins as such a grid does. */
    public static boolean looksLikeOne(byte[] start) {
        String text = new String(start, StandardCharsets.US_ASCII).toLowerCase(Locale.ROOT);
        return text.stripLeading().startsWith("ncols");
    }

    /**
     * Reads a grid and writes it as a GeoTIFF.
     *
     * @param epsg of its coordinate system, which the format does not name
     * @throws InputFault for a header or a height that cannot be, naming the line
     */
    public static void toGeoTiff(Reader text, OptionalInt epsg, OutputStream out) throws IOException {
        BufferedReader lines = new BufferedReader(text, 1 << 16);
        Numbers numbers = new Numbers(lines);
        Map<String, Double> header = numbers.header();
        int columns = size(header, "ncols");
        int rows = size(header, "nrows");
        if ((long) columns * rows > GeoTiff.MOST_CELLS) {
            throw new InputFault(
                    "file",
                    columns + " × " + rows,
                    "The grid has %,d × %,d cells; up to %,d million are read. Cut it to the site, or resample it."
                            .formatted(columns, rows, GeoTiff.MOST_CELLS / 1_000_000));
        }
        double cell = needed(header, "cellsize");
        if (!(cell > 0)) {
            throw new InputFault("file", cell, "The cell size of the grid must be above 0.");
        }
        boolean centre = header.containsKey("xllcenter");
        double west = needed(header, centre ? "xllcenter" : "xllcorner") - (centre ? cell / 2 : 0);
        double south = needed(header, centre ? "yllcenter" : "yllcorner") - (centre ? cell / 2 : 0);
        double nodata = header.getOrDefault("nodata_value", -9999.0);
        Georeference georeference = Georeference.northUp(west, south + rows * cell, cell, cell);
        float[] line = new float[columns];
        GeoTiffWriter.write(out, columns, rows, georeference, epsg, row -> {
            for (int column = 0; column < columns; column++) {
                double value = numbers.next();
                line[column] = value == nodata || !Double.isFinite(value) ? Float.NaN : (float) value;
            }
            return line;
        });
    }

    private static int size(Map<String, Double> header, String key) {
        double value = needed(header, key);
        if (value < 1 || value > GeoTiff.MOST_CELLS || value != Math.rint(value)) {
            throw new InputFault("file", value, "%s of the grid must be a whole number above 0.".formatted(key));
        }
        return (int) value;
    }

    private static double needed(Map<String, Double> header, String key) {
        Double value = header.get(key);
        if (value == null || !Double.isFinite(value)) {
            throw new InputFault("file", key, "The header of the grid lacks %s.".formatted(key));
        }
        return value;
    }

    /** The figures of the file one after the other, with the line they stand in. */
    private static final class Numbers {
        private final BufferedReader lines;
        private int number;
        private StringTokenizer tokens = new StringTokenizer("");

        Numbers(BufferedReader lines) {
            this.lines = lines;
        }

        private String line() {
            try {
                StringBuilder line = new StringBuilder();
                int read;
                while ((read = lines.read()) >= 0 && read != '\n') {
                    line.append((char) read);
                    if (line.length() > LONGEST_LINE) {
                        throw new InputFault(
                                "file", "line " + (number + 1), "Line %d has no end.".formatted(number + 1));
                    }
                }
                number++;
                return read < 0 && line.isEmpty() ? null : line.toString();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        Map<String, Double> header() {
            Map<String, Double> header = new HashMap<>();
            for (String line = line(); line != null; line = line()) {
                StringTokenizer words = new StringTokenizer(line);
                if (!words.hasMoreTokens()) {
                    continue;
                }
                String key = words.nextToken().toLowerCase(Locale.ROOT);
                if (!Character.isLetter(key.charAt(0)) || key.equals("nan")) {
                    tokens = new StringTokenizer(line);
                    return header;
                }
                header.put(key, words.hasMoreTokens() ? figure(words.nextToken()) : Double.NaN);
            }
            return header;
        }

        double next() {
            while (!tokens.hasMoreTokens()) {
                String line = line();
                if (line == null) {
                    throw new InputFault(
                            "file",
                            "line " + number,
                            "The grid ends in line %d, before its last height.".formatted(number));
                }
                tokens = new StringTokenizer(line);
            }
            return figure(tokens.nextToken());
        }

        private double figure(String token) {
            try {
                return token.equalsIgnoreCase("nan") ? Double.NaN : Double.parseDouble(token);
            } catch (NumberFormatException e) {
                throw new InputFault(
                        "file",
                        token,
                        "Line %d: “%s” is no height."
                                .formatted(number, token.substring(0, Math.min(30, token.length()))));
            }
        }
    }
}

package yalos.core.exchange;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;

/**
 * A table of points as text: separated by commas, semicolons, tabs or spaces, with or without a heading, decimals with a point or a comma, in UTF-8 or an older code page. Empty rows
 * and what merged cells leave behind are passed over.
 *
 * @param heading names of the columns; empty where the file has none
 * @param rows of as many cells as there are columns
 */
public record PointTable(List<String> heading, List<List<String>> rows) {
    private static final int MOST_BYTES = 8_000_000;
    private static final int MOST_ROWS = 20_000;
    private static final int MOST_COLUMNS = 60;
    private static final char[] SEPARATORS = {'\t', ';', ','};

    /**
     * @throws InputFault for a file that is no such table, has too many rows, or none
     */
    public static PointTable read(byte[] file) {
        return read(file, 3);
    }

    /**
     * @param fewest columns that such a table has
     * @throws InputFault as {@link #read(byte[])}
     */
    static PointTable read(byte[] file, int fewest) {
        if (file.length > MOST_BYTES) {
            throw new InputFault("file", file.length, "The file is larger than 8 MB; a table of points is smaller.");
        }
        String text = text(file);
        if (text.indexOf('\0') >= 0) {
            throw new InputFault(
                    "file",
                    "binary",
                    "This is no text. Save the sheet as CSV in the program it comes from, and bring that.");
        }
        char separator = separator(text, fewest - 1);
        List<List<String>> rows = separator == ' ' ? spaced(text) : separated(text, separator);
        rows.removeIf(row -> row.stream().allMatch(String::isEmpty));
        if (rows.isEmpty()) {
            throw new InputFault("file", "empty", "The file has no row with anything in it.");
        }
        if (rows.size() > MOST_ROWS + 1) {
            throw new InputFault(
                    "file",
                    rows.size(),
                    "The file has %,d rows; up to %,d are read at once. Nothing was kept. Bring it in parts."
                            .formatted(rows.size(), MOST_ROWS));
        }
        boolean comma = separator != ',' && rows.stream().flatMap(List::stream).anyMatch(PointTable::commaFigure);
        int columns = Math.min(
                MOST_COLUMNS, rows.stream().mapToInt(PointTable::used).max().orElse(0));
        List<String> heading = headed(rows.get(0)) ? evened(rows.get(0), columns, false) : List.of();
        List<List<String>> body = rows.subList(heading.isEmpty() ? 0 : 1, rows.size()).stream()
                .map(row -> evened(row, columns, comma))
                .toList();
        if (body.isEmpty()) {
            throw new InputFault("file", "heading", "The file has a heading and no row below it.");
        }
        return new PointTable(heading, body);
    }

    private static String text(byte[] file) {
        try {
            String text = StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(file))
                    .toString();
            return text.startsWith("\uFEFF") ? text.substring(1) : text;
        } catch (CharacterCodingException older) {
            return new String(file, Charset.forName("windows-1252"));
        }
    }

    /** The separator that cuts the first lines into most cells alike. */
    private static char separator(String text, int fewest) {
        List<String> lines =
                text.lines().filter(line -> !line.isBlank()).limit(20).toList();
        char best = ' ';
        int most = 0;
        for (char separator : SEPARATORS) {
            int least = lines.stream()
                    .mapToInt(line -> (int)
                            line.chars().filter(letter -> letter == separator).count())
                    .min()
                    .orElse(0);
            // A comma may be the decimal sign of a table that semicolons or tabs cut.
            if (least >= fewest && most == 0) {
                most = least;
                best = separator;
            }
        }
        return best;
    }

    private static List<List<String>> separated(String text, char separator) {
        CSVFormat format = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreEmptyLines(true)
                .setTrim(true)
                .get();
        List<List<String>> rows = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            for (CSVRecord record : parser) {
                List<String> row = new ArrayList<>();
                record.forEach(cell -> row.add(Names.clean(cell)));
                rows.add(row);
            }
        } catch (IOException | UncheckedIOException | IllegalStateException broken) {
            throw new InputFault(
                    "file",
                    "quotes",
                    "Row %d cannot be read: a quotation mark is not closed or stands inside a cell."
                            .formatted(rows.size() + 1));
        }
        return rows;
    }

    private static List<List<String>> spaced(String text) {
        List<List<String>> rows = new ArrayList<>();
        text.lines().forEach(line -> {
            List<String> row = new ArrayList<>();
            for (String cell : line.strip().split("\\s+")) {
                row.add(Names.clean(cell));
            }
            rows.add(row);
        });
        return rows;
    }

    private static boolean commaFigure(String cell) {
        return cell.matches("[-+]?\\d+,\\d+");
    }

    /** A heading has no figure in any cell but perhaps the first. */
    private static boolean headed(List<String> row) {
        long figures =
                row.stream().skip(1).filter(cell -> cell.matches("[-+]?\\d.*")).count();
        long words = row.stream()
                .filter(cell -> cell.matches(".*\\p{L}{2,}.*|[A-Za-z]"))
                .count();
        return figures == 0 && words >= 2;
    }

    private static int used(List<String> row) {
        int used = row.size();
        while (used > 0 && row.get(used - 1).isEmpty()) {
            used--;
        }
        return used;
    }

    private static List<String> evened(List<String> row, int columns, boolean comma) {
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < columns; i++) {
            String cell = i < row.size() ? row.get(i) : "";
            cells.add(comma && commaFigure(cell) ? cell.replace(',', '.') : cell);
        }
        return cells;
    }
}

package yalos.core;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;

/** The independent reference values among the test resources; their README says how they were made. */
public final class Reference {
    private Reference() {}

    /** Rows of a table; columns by name. */
    public static Stream<Row> rows(String file) {
        try (InputStreamReader reader = new InputStreamReader(open(file), StandardCharsets.UTF_8)) {
            List<CSVRecord> records = CSVFormat.RFC4180
                    .builder()
                    .setHeader()
                    .setSkipHeaderRecord(true)
                    .get()
                    .parse(reader)
                    .getRecords();
            return records.stream().map(Row::new);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static byte[] bytes(String file) {
        try (InputStream in = open(file)) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static InputStream open(String file) {
        InputStream in = Reference.class.getResourceAsStream("/reference/" + file);
        if (in == null) {
            throw new IllegalArgumentException("no reference file " + file);
        }
        return in;
    }

    /** One line of a reference table. */
    public record Row(CSVRecord record) {
        public String text(String column) {
            return record.get(column);
        }

        public double number(String column) {
            return Double.parseDouble(record.get(column));
        }

        public int whole(String column) {
            return (int) Math.round(number(column));
        }

        public boolean isEmpty(String column) {
            return record.get(column).isEmpty();
        }

        @Override
        public String toString() {
            return record.get(0);
        }
    }
}

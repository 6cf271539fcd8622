package yalos.web.keep;

import java.io.BufferedWriter;
import java.io.ByteArrayOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.Names;
import yalos.web.keep.Tables.Table;
import yalos.web.shell.NotThere;
import yalos.web.store.FactsJson;
import yalos.web.store.JobMapper;
import yalos.web.store.Sha256;

/**
 * A job as one zip, in open forms: a table of the database is a JSON file with a line for each row, numbers counted anew from 1, so that the same job gives the same lines on any machine; elevation models and pictures lie
 * beside as they came; what others can open (GeoJSON, CSV, KML …) under {@code open/}, written for people and never read back.
 */
@Service
public class JobArchive {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final JdbcTemplate database;
    private final JobMapper jobs;
    private final OpenCopies copies;
    private final Path data;

    JobArchive(JdbcTemplate database, JobMapper jobs, OpenCopies copies, @Value("${yalos.data}") Path data) {
        this.database = database;
        this.jobs = jobs;
        this.copies = copies;
        this.data = data;
    }

    /** The number of a row here and in the archive, by table. */
    static final class Numbers {
        private final Map<String, Map<Long, Long>> all = new HashMap<>();

        void put(String table, long here, long there) {
            all.computeIfAbsent(table, one -> new HashMap<>()).put(here, there);
        }

        Long get(String table, long here) {
            return all.getOrDefault(table, Map.of()).get(here);
        }

        Map<Long, Long> of(String table) {
            return all.getOrDefault(table, Map.of());
        }
    }

    /** Looks between two parts whether to go on. */
    public interface Going {
        void check();
    }

    /**
     * Writes a job. All is read in one transaction from one snapshot, so that it is of one moment whatever is changed meanwhile; the manifest comes last and says what should be there.
     *
     * @throws NotThere for no such job
     */
    @Transactional(readOnly = true, isolation = Isolation.SERIALIZABLE)
    public void write(long job, OutputStream out, Going going) throws IOException {
        String name = jobs.job(job)
                .orElseThrow(() -> new NotThere("There is no such job."))
                .name();
        List<Manifest.Part> parts = new ArrayList<>();
        ZipOutputStream zip = new ZipOutputStream(out);
        entry(zip, parts, "README.txt", part -> part.write(readme().getBytes(StandardCharsets.UTF_8)));
        Numbers numbers = new Numbers();
        for (Table table : Tables.ALL) {
            going.check();
            entry(zip, parts, "tables/" + table.name() + ".json", part -> table(table, job, numbers, part));
        }
        for (Map.Entry<Long, Long> model : numbers.of("model").entrySet().stream()
                .sorted(Map.Entry.comparingByValue())
                .toList()) {
            for (String ending : new String[] {".tif", ".pic", ".wld"}) {
                Path file = data.resolve("models").resolve(model.getKey() + ending);
                if (Files.exists(file)) {
                    going.check();
                    entry(zip, parts, "models/" + model.getValue() + ending, part -> Files.copy(file, part));
                }
            }
        }
        int number = 0;
        for (JobMapper.BlockRow block : jobs.blocksOf(job)) {
            number++;
            for (OpenCopies.Copy copy : copies.of(block.id())) {
                going.check();
                entry(
                        zip,
                        parts,
                        "open/%02d-%s/%s".formatted(number, Names.ofFile(block.name(), "block"), copy.name()),
                        part -> part.write(copy.content()));
            }
        }
        Manifest manifest = new Manifest(
                Manifest.FORMAT,
                Manifest.VERSION,
                schema(),
                "Yalos 0.1.0",
                LocalDateTime.now().withNano(0).toString(),
                name,
                parts);
        zip.putNextEntry(still(Manifest.NAME));
        zip.write(JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(manifest));
        zip.closeEntry();
        zip.finish();
    }

    int schema() {
        Integer schema = database.queryForObject(
                "select max(cast(\"version\" as int)) from \"flyway_schema_history\" where \"success\"", Integer.class);
        return schema == null ? 0 : schema;
    }

    private interface Content {
        void write(OutputStream out) throws IOException;
    }

    private static ZipEntry still(String name) {
        ZipEntry entry = new ZipEntry(name);
        // The same job gives the same entries, whenever it is written.
        entry.setTimeLocal(LocalDateTime.of(2000, 1, 1, 0, 0));
        return entry;
    }

    private static void entry(ZipOutputStream zip, List<Manifest.Part> parts, String name, Content content)
            throws IOException {
        zip.putNextEntry(still(name));
        MessageDigest digest = Sha256.digest();
        long[] bytes = {0};
        OutputStream counted = new DigestOutputStream(
                new FilterOutputStream(zip) {
                    @Override
                    public void write(int one) throws IOException {
                        bytes[0]++;
                        out.write(one);
                    }

                    @Override
                    public void write(byte[] some, int from, int count) throws IOException {
                        bytes[0] += count;
                        out.write(some, from, count);
                    }

                    @Override
                    public void close() {
                        // The zip stays open.
                    }
                },
                digest);
        content.write(counted);
        counted.flush();
        zip.closeEntry();
        parts.add(new Manifest.Part(name, bytes[0], HexFormat.of().formatHex(digest.digest())));
    }

    /** One table: its columns, then a line for each row. */
    private void table(Table table, long job, Numbers numbers, OutputStream out) throws IOException {
        List<String> left = Tables.LEFT_OUT.getOrDefault(table.name(), List.of());
        Writer text = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8));
        text.write("{\"columns\":" + JSON.writeValueAsString(columns(table, left)) + ",\"rows\":[");
        long[] next = {0};
        database.query(
                "select * from " + table.name() + which(table) + " order by " + table.order(),
                rows -> {
                    next[0]++;
                    try {
                        text.write(next[0] == 1 ? "\n" : ",\n");
                        text.write(row(table, rows, left, numbers, next[0]));
                    } catch (IOException gone) {
                        throw new UncheckedIOException(gone);
                    }
                },
                job);
        text.write("\n]}\n");
        text.flush();
    }

    private List<String> columns(Table table, List<String> left) {
        return database
                .queryForList(
                        "select column_name from information_schema.columns where table_schema = 'PUBLIC' and table_name = ? order by ordinal_position",
                        String.class,
                        table.name().toUpperCase(Locale.ROOT))
                .stream()
                .map(name -> name.toLowerCase(Locale.ROOT))
                .filter(name -> !left.contains(name))
                .toList();
    }

    /** Which rows are the job's, through however many parents. */
    private static String which(Table table) {
        if (table.name().equals("job")) {
            return " where id = ?";
        }
        if (table.of().equals("job")) {
            return " where " + table.parent() + " = ?";
        }
        Table parent = Tables.ALL.stream()
                .filter(one -> one.name().equals(table.of()))
                .findFirst()
                .orElseThrow();
        return " where " + table.parent() + " in (select id from " + parent.name() + which(parent) + ")";
    }

    private static String row(Table table, ResultSet rows, List<String> left, Numbers numbers, long next)
            throws SQLException {
        ResultSetMetaData columns = rows.getMetaData();
        StringBuilder line = new StringBuilder("[");
        boolean first = true;
        for (int c = 1; c <= columns.getColumnCount(); c++) {
            String column = columns.getColumnName(c).toLowerCase(Locale.ROOT);
            if (left.contains(column)) {
                continue;
            }
            line.append(first ? "" : ",");
            first = false;
            if (column.equals("id") && table.numbered()) {
                numbers.put(table.name(), rows.getLong(c), next);
                line.append(next);
            } else if (column.equals(table.parent())) {
                line.append(numbers.get(table.of(), rows.getLong(c)));
            } else if (table.others().containsKey(column)) {
                long at = rows.getLong(c);
                Long there = rows.wasNull() ? null : numbers.get(table.others().get(column), at);
                line.append(there);
            } else if (table.name().equals("flight") && column.equals(Tables.SOURCE_ID)) {
                line.append(source(rows, c, numbers));
            } else if (column.equals(table.facts())) {
                line.append(facts(rows.getString(c), numbers));
            } else {
                line.append(value(rows, c, columns.getColumnType(c), column.equals(table.binary())));
            }
        }
        return line.append("]").toString();
    }

    /** A flight's source is a run, which has a number here, or the number of a sortie, which stays. */
    private static Object source(ResultSet rows, int c, Numbers numbers) throws SQLException {
        long source = rows.getLong(c);
        if (rows.wasNull()) {
            return null;
        }
        return rows.getString("source").equals("RUN") ? numbers.get("fly_run", source) : Long.valueOf(source);
    }

    /** Facts as plain JSON in the present form, their models by the archive's numbers; what cannot be read any more as the text it is. */
    private static String facts(String stored, Numbers numbers) {
        return FactsJson.renumbered(stored, id -> numbers.get("model", id))
                .orElseGet(() -> JSON.writeValueAsString(stored));
    }

    private static String value(ResultSet rows, int c, int type, boolean binary) throws SQLException {
        if (binary) {
            byte[] bytes = rows.getBytes(c);
            return bytes == null ? "null" : "\"" + Base64.getEncoder().encodeToString(bytes) + "\"";
        }
        Object value = switch (type) {
            case Types.CLOB -> rows.getString(c);
            case Types.TIMESTAMP -> rows.getObject(c, LocalDateTime.class);
            case Types.DATE -> rows.getObject(c, LocalDate.class);
            default -> rows.getObject(c);
        };
        return value == null || value instanceof Number || value instanceof Boolean
                ? String.valueOf(value)
                : JSON.writeValueAsString(value.toString());
    }

    private static String readme() {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (InputStream in = JobArchive.class.getResourceAsStream("/store/archive-readme.txt")) {
            in.transferTo(bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return bytes.toString(StandardCharsets.UTF_8);
    }
}

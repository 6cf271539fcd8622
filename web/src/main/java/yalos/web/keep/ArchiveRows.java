package yalos.web.keep;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.sql.PreparedStatement;
import java.sql.ResultSetMetaData;
import java.sql.Types;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.zip.ZipFile;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.web.elevation.ModelFolder;
import yalos.web.keep.JobArchive.Numbers;
import yalos.web.keep.Tables.Table;
import yalos.web.store.BlockFacts;
import yalos.web.store.FactsJson;
import yalos.web.store.StoredFlight;
import yalos.web.store.Unreadable;

/** One archive on its way into the database. */
final class ArchiveRows {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int MOST_NAME = 80;

    private final JdbcTemplate database;
    private final ModelFolder models;
    private final ZipFile zip;
    private final Map<String, Path> aside;
    private final JobArchive.Going going;
    private final Numbers numbers = new Numbers();
    private final Map<String, String> flights = new HashMap<>();
    private String name = "";
    private boolean renamed;
    private int copies;

    ArchiveRows(
            JdbcTemplate database, ModelFolder models, ZipFile zip, Map<String, Path> aside, JobArchive.Going going) {
        this.database = database;
        this.models = models;
        this.zip = zip;
        this.aside = aside;
        this.going = going;
    }

    JobReturn.Brought read() {
        try {
            for (Table table : Tables.ALL) {
                going.check();
                table(table);
                if (table.name().equals("model")) {
                    files();
                }
            }
            if (numbers.of("job").size() != 1 || numbers.of("block").isEmpty()) {
                throw new InputFault("file", "job", "An archive holds one job with one block at least.");
            }
            long job = numbers.of("job").values().iterator().next();
            heads(job);
            return new JobReturn.Brought(job, name, renamed, numbers.of("block").size(), copies);
        } catch (IOException gone) {
            throw new UncheckedIOException(gone);
        }
    }

    private void files() throws IOException {
        for (Map.Entry<String, Path> one : aside.entrySet()) {
            String file = one.getKey().substring("models/".length());
            int dot = file.indexOf('.');
            Long id = numbers.get("model", Long.parseLong(file.substring(0, dot)));
            if (id == null) {
                throw new InputFault("file", file, "“models/%s” belongs to no model of the archive.".formatted(file));
            }
            models.keep(one.getValue(), id, file.substring(dot));
        }
    }

    /** Every block stands at a step that is there. */
    private void heads(long job) {
        Integer lost = database.queryForObject(
                "select count(*) from block b where job_id = ? and not exists (select 1 from block_step s where s.block_id = b.id and s.seq = b.head)",
                Integer.class,
                job);
        if (lost != null && lost > 0) {
            throw new InputFault("file", "block_step", "“tables/block_step.json”: a block's present step is missing.");
        }
    }

    private void table(Table table) throws IOException {
        String part = "tables/" + table.name() + ".json";
        if (zip.getEntry(part) == null) {
            return;
        }
        Map<String, Column> known = columns(table.name());
        try (JsonParser json = JSON.createParser(JobReturn.stream(zip, part))) {
            expect(json.nextToken(), JsonToken.START_OBJECT, part);
            List<String> columns = List.of();
            while (json.nextToken() == JsonToken.PROPERTY_NAME) {
                String field = json.currentName();
                json.nextToken();
                if (field.equals("columns")) {
                    columns = names(json.readValueAsTree(), known, part);
                } else if (field.equals("rows")) {
                    rows(table, known, columns, json, part);
                } else {
                    json.skipChildren();
                }
            }
        } catch (JacksonException broken) {
            throw new InputFault("file", part, "“%s” cannot be read: it is no sound JSON.".formatted(part));
        }
    }

    private void expect(JsonToken is, JsonToken wanted, String part) {
        if (is != wanted) {
            throw new InputFault("file", part, "“%s” does not hold a table.".formatted(part));
        }
    }

    private List<String> names(JsonNode listed, Map<String, Column> known, String part) {
        List<String> names = new ArrayList<>();
        for (JsonNode one : listed) {
            String column = one.asString("");
            if (!known.containsKey(column) || names.contains(column)) {
                throw new InputFault(
                        "file",
                        column,
                        "“%s” has a column “%s” that is not known here.".formatted(part, ArchiveCheck.shown(column)));
            }
            names.add(column);
        }
        return names;
    }

    private void rows(Table table, Map<String, Column> known, List<String> columns, JsonParser json, String part) {
        expect(json.currentToken(), JsonToken.START_ARRAY, part);
        int number = 0;
        while (json.nextToken() == JsonToken.START_ARRAY) {
            number++;
            JsonNode row = json.readValueAsTree();
            String at = "“%s”, row %d".formatted(part, number);
            if (row.size() != columns.size()) {
                throw new InputFault(
                        "file",
                        row.size(),
                        "%s has %d values for %d columns.".formatted(at, row.size(), columns.size()));
            }
            keep(table, known, columns, row, at);
        }
        expect(json.currentToken(), JsonToken.END_ARRAY, part);
    }

    private void keep(Table table, Map<String, Column> known, List<String> columns, JsonNode row, String at) {
        Map<String, Object> values = new LinkedHashMap<>();
        long id = 0;
        for (int i = 0; i < columns.size(); i++) {
            String column = columns.get(i);
            JsonNode value = row.get(i);
            if (column.equals("id")) {
                id = value.asLong(0);
            } else if (column.equals(table.parent())) {
                values.put(column, number(table.of(), value, at, column));
            } else if (table.others().containsKey(column)) {
                values.put(column, value.isNull() ? null : number(table.others().get(column), value, at, column));
            } else if (column.equals(table.facts())) {
                values.put(column, facts(value, at));
            } else {
                values.put(column, typed(known.get(column), value, at, column.equals(table.binary())));
            }
        }
        own(table, values, at);
        long made = insert(table, values, at);
        if (table.numbered()) {
            if (numbers.get(table.name(), id) != null) {
                throw new InputFault("file", id, "%s: the number %d is there twice.".formatted(at, id));
            }
            numbers.put(table.name(), id, made);
        }
    }

    /** What is made anew for this machine. */
    private void own(Table table, Map<String, Object> values, String at) {
        switch (table.name()) {
            case "job" -> {
                name = free(String.valueOf(values.get("name")));
                renamed = !name.equals(values.get("name"));
                values.put("name", name);
            }
            case "block_step" -> values.put("hash", FactsJson.hash(String.valueOf(values.get("facts"))));
            case "take_photo" -> {
                String photo = String.valueOf(values.get("name"));
                if (photo.contains("/") || photo.contains("\\") || photo.equals("..")) {
                    throw new InputFault(
                            "file", photo, "%s: “%s” is no name of a photo.".formatted(at, ArchiveCheck.shown(photo)));
                }
            }
            case "flight" -> flight(values, at);
            case "repeated" ->
                values.computeIfPresent(
                        "of_flight", (key, uid) -> flights.getOrDefault(uid.toString(), uid.toString()));
            default -> {
                // As it is.
            }
        }
    }

    private void flight(Map<String, Object> values, String at) {
        try {
            StoredFlight.read(String.valueOf(values.get("content")));
        } catch (Unreadable | InputFault lost) {
            throw new InputFault("file", "flight", "%s: %s".formatted(at, lost.getMessage()));
        }
        if ("RUN".equals(values.get("source")) && values.get(Tables.SOURCE_ID) != null) {
            values.put(Tables.SOURCE_ID, numbers.get("fly_run", ((Number) values.get(Tables.SOURCE_ID)).longValue()));
        }
        values.put("job_name", name);
        String uid = String.valueOf(values.get("uid"));
        Integer there = database.queryForObject("select count(*) from flight where uid = ?", Integer.class, uid);
        if (there != null && there > 0) {
            String other = UUID.randomUUID().toString();
            flights.put(uid, other);
            values.put("uid", other);
            if (Boolean.TRUE.equals(values.get("counted"))) {
                // The same flight counts its hours once.
                values.put("counted", false);
                copies++;
            }
        }
    }

    private String free(String wanted) {
        String plain = Names.typed("name", wanted, MOST_NAME);
        for (int n = 1; ; n++) {
            String tail = n == 1 ? "" : " (%d)".formatted(n);
            String name = plain.substring(0, Math.min(plain.length(), MOST_NAME - tail.length())) + tail;
            Integer there = database.queryForObject(
                    "select count(*) from job where lower(name) = lower(?)", Integer.class, name);
            if (there == null || there == 0) {
                return name;
            }
        }
    }

    private Long number(String table, JsonNode value, String at, String column) {
        Long id = value.isIntegralNumber() ? numbers.get(table, value.asLong()) : null;
        if (id == null) {
            throw new InputFault(
                    "file",
                    value.toString(),
                    "%s: %s points at no row of %s that is there.".formatted(at, column, table));
        }
        return id;
    }

    private String facts(JsonNode value, String at) {
        if (value.isString()) {
            // What could not be read when it left is kept as it was.
            return value.asString();
        }
        try {
            BlockFacts facts = FactsJson.read(value.toString());
            return FactsJson.write(FactsJson.renumbered(facts, id -> {
                Long here = numbers.get("model", id);
                if (here == null) {
                    throw new InputFault(
                            "file", id, "%s uses model %d, which is not in the archive.".formatted(at, id));
                }
                return here;
            }));
        } catch (Unreadable lost) {
            throw new InputFault("file", "facts", "%s: %s".formatted(at, lost.getMessage()));
        }
    }

    private long insert(Table table, Map<String, Object> values, String at) {
        String names = String.join(", ", values.keySet());
        String marks =
                String.join(", ", values.keySet().stream().map(one -> "?").toList());
        String sql = "insert into " + table.name() + " (" + names + ") values (" + marks + ")";
        try {
            if (!table.numbered()) {
                database.update(sql, values.values().toArray());
                return 0;
            }
            GeneratedKeyHolder key = new GeneratedKeyHolder();
            database.update(
                    connection -> {
                        PreparedStatement statement = connection.prepareStatement(sql, new String[] {"id"});
                        int i = 1;
                        for (Object value : values.values()) {
                            statement.setObject(i++, value);
                        }
                        return statement;
                    },
                    key);
            return key.getKey().longValue();
        } catch (DataAccessException refused) {
            String why = refused.getMostSpecificCause().getMessage();
            throw new InputFault(
                    "file", table.name(), "%s is not what it should be: %s".formatted(at, why.split("\n|; SQL")[0]));
        }
    }

    /** A column of this database. */
    private record Column(String name, int type) {}

    private Map<String, Column> columns(String table) {
        Map<String, Column> columns = new LinkedHashMap<>();
        database.query("select * from " + table + " where 1 = 0", rows -> {
            ResultSetMetaData about = rows.getMetaData();
            for (int c = 1; c <= about.getColumnCount(); c++) {
                String name = about.getColumnName(c).toLowerCase(Locale.ROOT);
                columns.put(name, new Column(name, about.getColumnType(c)));
            }
            return null;
        });
        return columns;
    }

    private static Object typed(Column column, JsonNode value, String at, boolean binary) {
        if (value == null || value.isNull()) {
            return null;
        }
        try {
            return switch (column.type()) {
                case Types.BIGINT, Types.INTEGER -> {
                    if (!value.isIntegralNumber()) {
                        throw wrong(column, value, at, "a whole number");
                    }
                    yield value.asLong();
                }
                case Types.DOUBLE, Types.REAL, Types.FLOAT, Types.NUMERIC -> {
                    if (!value.isNumber() || !Double.isFinite(value.asDouble())) {
                        throw wrong(column, value, at, "a figure");
                    }
                    yield value.asDouble();
                }
                case Types.BOOLEAN -> {
                    if (!value.isBoolean()) {
                        throw wrong(column, value, at, "true or false");
                    }
                    yield value.asBoolean();
                }
                case Types.TIMESTAMP -> LocalDateTime.parse(value.asString());
                case Types.DATE -> LocalDate.parse(value.asString());
                default -> {
                    if (!value.isString()) {
                        throw wrong(column, value, at, "text");
                    }
                    yield binary ? Base64.getDecoder().decode(value.asString()) : value.asString();
                }
            };
        } catch (DateTimeException | IllegalArgumentException none) {
            throw wrong(column, value, at, "what it should be");
        }
    }

    private static InputFault wrong(Column column, JsonNode value, String at, String wanted) {
        return new InputFault("file", value.toString(), "%s: %s is not %s.".formatted(at, column.name(), wanted));
    }
}

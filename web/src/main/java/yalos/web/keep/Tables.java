package yalos.web.keep;

import java.util.List;
import java.util.Map;

/**
 * The tables that hold a job, parents before children, as an archive has them. A table added to the database and not named here or in {@link #ELSEWHERE} fails a test.
 */
final class Tables {
    private Tables() {}

    /**
     * A table.
     *
     * @param numbered whether its rows have numbers of their own that others point at
     * @param parent column that says whose rows they are, with the table it points at
     * @param others columns that point at further tables
     * @param facts column with a block's facts; empty for none
     * @param binary column with bytes; empty for none
     * @param order in which rows are written; the same again after they were brought in
     */
    record Table(
            String name,
            boolean numbered,
            String parent,
            String of,
            Map<String, String> others,
            String facts,
            String binary,
            String order) {
        static Table of(String name, String parent, String of) {
            return new Table(name, true, parent, of, Map.of(), "", "", "id");
        }

        Table plain(String by) {
            return new Table(name, false, parent, of, others, facts, binary, by);
        }

        Table withFacts(String column) {
            return new Table(name, numbered, parent, of, others, column, binary, order);
        }

        Table withBytes(String column) {
            return new Table(name, numbered, parent, of, others, facts, column, order);
        }

        Table pointing(Map<String, String> at) {
            return new Table(name, numbered, parent, of, at, facts, binary, order);
        }
    }

    static final List<Table> ALL = List.of(
            new Table("job", true, "id", "job", Map.of(), "", "", "id"),
            Table.of("model", "job_id", "job"),
            Table.of("block", "job_id", "job"),
            Table.of("job_map", "job_id", "job").plain("job_id"),
            Table.of("block_step", "block_id", "block").plain("block_id, seq").withFacts("facts"),
            Table.of("revision", "block_id", "block").plain("block_id, number").withFacts("facts"),
            Table.of("control_observation", "block_id", "block"),
            Table.of("control_mark", "block_id", "block"),
            Table.of("control_base", "block_id", "block").plain("block_id"),
            Table.of("control_shift", "block_id", "block").plain("block_id"),
            Table.of("control_event", "block_id", "block"),
            Table.of("check_signature", "block_id", "block"),
            Table.of("field_note", "block_id", "block"),
            Table.of("fly_run", "block_id", "block").withFacts("facts"),
            Table.of("fly_command", "run_id", "fly_run"),
            Table.of("earlier_plan", "block_id", "block"),
            Table.of("take_photo", "block_id", "block"),
            Table.of("take_small", "photo_id", "take_photo").plain("photo_id").withBytes("jpeg"),
            Table.of("take_file", "block_id", "block"),
            Table.of("take_state", "block_id", "block").plain("block_id"),
            Table.of("take_decision", "block_id", "block"),
            Table.of("take_event", "block_id", "block"),
            Table.of("residual", "block_id", "block"),
            Table.of("accuracy_note", "block_id", "block").plain("block_id"),
            Table.of("flight", "block_id", "block").withFacts("facts"),
            Table.of("flight_crew", "flight_id", "flight").plain("flight_id, seq"),
            Table.of("flight_pack", "flight_id", "flight").plain("flight_id, seq"),
            Table.of("repeated", "block_id", "block").plain("block_id").pointing(Map.of("of_block", "block")),
            Table.of("series", "block_id", "block").plain("block_id"));

    /** Tables that hold nothing of one job: the catalogue, people, batteries and their upkeep, what is worked out anew. */
    static final List<String> ELSEWHERE = List.of(
            "camera",
            "gear",
            "template",
            "preference",
            "block_summary",
            "session",
            "api_token",
            "kept",
            "map_address",
            "control_columns",
            "battery_reading",
            "consumption",
            "service",
            "flyway_schema_history");

    /** Columns that say something of this machine only, and are made anew. */
    static final Map<String, List<String>> LEFT_OUT =
            Map.of("job", List.of("binned_at", "binned_by", "binned_name"), "block_step", List.of("hash"));

    /** Columns that hold the number of a row by its kind elsewhere; see {@link JobArchive}. */
    static final String SOURCE_ID = "source_id";
}

package yalos.web.pack;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Element;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.measured.Observation;
import yalos.core.units.Measure;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.OpenBlock;
import yalos.web.store.FieldMapper.NoteRow;
import yalos.web.store.FieldMapper.SignatureRow;

/**
 * What comes back from the field: the file that a pack saved, or the pack itself. It may have been edited by hand, so nothing of it is believed before it is looked at: every line is kept, told about, or
 * refused with its reason.
 */
final class FieldReturn {
    static final int MOST_BYTES = 8_000_000;
    private static final int MOST_ENTRIES = 2000;
    private static final int LATE_MINUTES = 5;
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final OpenBlock block;
    private final CheckDesk.Standing standing;
    private final UnitChoice units;
    private final LocalDateTime now;
    private final Optional<LocalDateTime> made;
    private final List<Row> rows = new ArrayList<>();
    private final List<FieldRecord.Signature> signatures = new ArrayList<>();
    private final List<Observation> observations = new ArrayList<>();
    private final List<NoteRow> notes = new ArrayList<>();

    /**
     * A thing that came back.
     *
     * @param kind of it, in a word
     * @param mood {@code done} is kept, {@code mind} is kept and told about, {@code stop} is not kept
     */
    public record Row(String kind, String what, String at, String mood, String words) {}

    private FieldReturn(OpenBlock block, CheckDesk.Standing standing, UnitChoice units, Clock clock, String made) {
        this.made = time(made);
        this.block = block;
        this.standing = standing;
        this.units = units;
        this.now = LocalDateTime.now(clock).withNano(0);
    }

    /**
     * The JSON in a file that came back: as saved, or in the page that it was written in.
     *
     * @throws InputFault for what no pack wrote, or another form of it
     */
    static JsonNode json(byte[] file) {
        if (file.length > MOST_BYTES) {
            throw new InputFault(
                    "file",
                    file.length,
                    "The file has %d MB; what a pack saves has a few. Save it from the pack again."
                            .formatted(file.length / 1_000_000));
        }
        String text = new String(file, StandardCharsets.UTF_8).strip();
        if (text.startsWith("<") || text.startsWith("\uFEFF<")) {
            Element held = Jsoup.parse(text).getElementById("written");
            if (held == null) {
                throw new InputFault(
                        "file",
                        "html",
                        "This page is no field pack, or the part that holds what was written was cut out of it. Bring the file that “Save what was written” made.");
            }
            text = held.data();
        }
        try {
            JsonNode root = JSON.readTree(text);
            String form = root.path("form").asString("");
            if (!form.equals(PackWriter.FORM)) {
                throw new InputFault(
                        "file",
                        form,
                        form.startsWith("yalos-field-")
                                ? "It was written by a newer field pack (%s); this program reads %s. Update it."
                                        .formatted(form, PackWriter.FORM)
                                : "The file says of itself that it is “%s”, which is not what a field pack saves."
                                        .formatted(form));
            }
            return root;
        } catch (JacksonException broken) {
            throw new InputFault(
                    "file",
                    "broken",
                    "The file breaks off or was changed by hand: %s. Save it from the pack again."
                            .formatted(broken.getOriginalMessage()));
        }
    }

    /**
     * @param signed what is signed already, so that the same file twice signs once
     * @throws InputFault for a pack of another block
     */
    static FieldReturn of(
            JsonNode root,
            OpenBlock block,
            CheckDesk.Standing standing,
            List<SignatureRow> signed,
            List<NoteRow> written,
            UnitChoice units,
            Clock clock) {
        String job = root.path("job").asString("");
        String name = root.path("block").asString("");
        if (!job.equals(block.jobName()) || !name.equals(block.name())) {
            throw new InputFault(
                    "file",
                    name,
                    "It was written in the pack of “%s, %s”; this is “%s, %s”. Open that block and bring it there."
                            .formatted(job, name, block.jobName(), block.name()));
        }
        FieldReturn back =
                new FieldReturn(block, standing, units, clock, root.path("made").asString(""));
        if (root.path("version").asLong(-1) != block.version()) {
            back.rows.add(new Row(
                    "pack",
                    "made at another step",
                    root.path("made").asString(""),
                    "mind",
                    "the plan has changed since this pack was made; lines with other figures stay open"));
        }
        back.checks(root.path("checks"), signed);
        back.points(root.path("points"));
        back.notes(root.path("notes"), written);
        return back;
    }

    private void checks(JsonNode all, List<SignatureRow> signed) {
        Map<String, CheckDesk.Line> lines = new HashMap<>();
        standing.lines().forEach(line -> lines.put(line.key(), line));
        for (JsonNode one : some(all, "checks")) {
            String key = one.path("key")
                    .asString(CheckDesk.key(
                            one.path("section").asString(""), one.path("line").asString("")));
            String by = one.path("by").asString("").strip();
            String at = one.path("at").asString("");
            if (!one.path("signed").asBoolean(false)) {
                continue;
            }
            Optional<LocalDateTime> when = time(at);
            CheckDesk.Line line = lines.get(key);
            if (line == null) {
                rows.add(
                        new Row(
                                "tick",
                                key,
                                at,
                                "stop",
                                "not on the list as it stands: the list or a figure has changed since; sign what stands there now"));
            } else if (by.isEmpty() || when.isEmpty()) {
                rows.add(new Row("tick", key, at, "stop", "has no name, or no time that can be read"));
            } else if (signed.stream()
                    .anyMatch(row -> row.line().equals(key)
                            && row.signedAt().equals(when.get())
                            && row.person().equals(by))) {
                rows.add(new Row("tick", key, at, "done", "signed already"));
            } else {
                String reads = one.path("reads").asString("");
                String note = one.path("note").asString("");
                String slip = slip(line, reads);
                boolean refused = !slip.isEmpty() && note.isBlank();
                rows.add(new Row(
                        "tick",
                        key,
                        at,
                        refused ? "stop" : late(when.get()).isEmpty() && slip.isEmpty() ? "done" : "mind",
                        by + " " + slip + late(when.get())));
                if (!refused) {
                    signatures.add(
                            new FieldRecord.Signature(key, true, by, note, reads, standing.edition(), when.get()));
                }
            }
        }
    }

    private String slip(CheckDesk.Line line, String reads) {
        if (line.figure().isEmpty()) {
            return "";
        }
        try {
            return reads.isBlank()
                    ? "what the aircraft shows was not read "
                    : standing.figures().slip(line.figure(), reads).orElse("");
        } catch (InputFault noFigure) {
            return "“" + reads + "” is no figure ";
        }
    }

    /** What is odd about a time; nothing where it can be. */
    private String late(LocalDateTime when) {
        if (when.isAfter(now.plusMinutes(LATE_MINUTES))) {
            return "; its time lies ahead of this computer's clock";
        }
        return made.filter(when::isBefore).isPresent()
                ? "; its time lies before the pack was made: the tablet's clock is off"
                : "";
    }

    private void points(JsonNode all) {
        Optional<Grid> grid = block.facts().grid();
        for (JsonNode one : some(all, "points")) {
            String point = one.path("point").asString("");
            String at = one.path("at").asString("");
            String place = one.path("place").asString("").strip();
            if (place.isEmpty()) {
                String words = one.path("note").asString("").strip();
                if (!words.isEmpty()) {
                    note("point " + point + ": " + words, "", at);
                }
                continue;
            }
            try {
                LonLat where = TypedPosition.read(place, grid);
                Observation made = new Observation(
                        point,
                        time(at),
                        where,
                        metres("height", one.path("height").asString("")),
                        OptionalInt.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        OptionalDouble.empty(),
                        Observation.Solution.UNKNOWN,
                        OptionalInt.empty(),
                        metres("pole", one.path("pole").asString("")),
                        one.path("note").asString(""));
                observations.add(made);
                rows.add(new Row("point", point + " at " + place, at, "done", "an observation; judged in Control"));
            } catch (InputFault fault) {
                rows.add(new Row("point", point + " at " + place, at, "stop", fault.getMessage()));
            }
        }
    }

    private OptionalDouble metres(String field, String typed) {
        return typed.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(
                        Measure.typed(field, typed, units.unit(UnitKind.HEIGHT)).si());
    }

    private void notes(JsonNode all, List<NoteRow> written) {
        for (JsonNode one : some(all, "notes")) {
            String text = one.path("text").asString("").strip();
            String by = one.path("by").asString("").strip();
            String at = one.path("at").asString("");
            boolean known = written.stream()
                    .anyMatch(row -> row.text().equals(text)
                            && Optional.of(row.writtenAt()).equals(time(at)));
            if (known) {
                rows.add(new Row("note", text, at, "done", "kept already"));
            } else if (!text.isEmpty()) {
                note(text, by, at);
            }
        }
    }

    private void note(String text, String by, String at) {
        boolean tooLong = text.length() > 2000;
        rows.add(new Row(
                "note",
                tooLong ? text.substring(0, 200) + "…" : text,
                at,
                tooLong ? "stop" : "done",
                tooLong ? "longer than 2,000 letters" : by));
        if (!tooLong) {
            notes.add(new NoteRow(0, text, by, time(at).orElse(now), now));
        }
    }

    private List<JsonNode> some(JsonNode all, String what) {
        List<JsonNode> list = new ArrayList<>();
        if (!all.isArray()) {
            rows.add(new Row(what, "", "", "stop", "the file has no list of " + what + " any more"));
            return list;
        }
        if (all.size() > MOST_ENTRIES) {
            throw new InputFault(
                    "file",
                    all.size(),
                    "It holds %,d %s; a day in the field has some dozens, more than %,d are not read."
                            .formatted(all.size(), what, MOST_ENTRIES));
        }
        all.forEach(list::add);
        return list;
    }

    /** Local time here of a time with its distance from universal time, or of a plain one. */
    private static Optional<LocalDateTime> time(String text) {
        try {
            return Optional.of(OffsetDateTime.parse(text)
                    .atZoneSameInstant(ZoneId.systemDefault())
                    .toLocalDateTime()
                    .withNano(0));
        } catch (DateTimeException noOffset) {
            try {
                return Optional.of(LocalDateTime.parse(text).withNano(0));
            } catch (DateTimeException noTime) {
                return Optional.empty();
            }
        }
    }

    List<Row> rows() {
        return rows;
    }

    List<FieldRecord.Signature> signatures() {
        return signatures;
    }

    List<Observation> observations() {
        return observations;
    }

    List<NoteRow> notes() {
        return notes;
    }
}

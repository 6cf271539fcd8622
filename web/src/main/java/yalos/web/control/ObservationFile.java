package yalos.web.control;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.util.UriComponentsBuilder;
import yalos.core.block.LocalPlane;
import yalos.core.control.MarkedPlace;
import yalos.core.exchange.PointTable;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.Geodesics;
import yalos.core.geodesy.LonLat;
import yalos.core.measured.ObservationColumn;
import yalos.core.measured.ObservationFrame;
import yalos.core.measured.ObservationReading;
import yalos.core.measured.ReadingDoubts;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.NotThere;
import yalos.web.shell.Preferences;
import yalos.web.store.ControlMapper;
import yalos.web.store.Sha256;
import yalos.web.work.PageWork;
import yalos.web.work.Recent;

/** A table of measured points: looked at first, with the columns mapped and every doubt with its cure; kept by another press. */
@Controller
class ObservationFile {
    private static final int HELD = 30;
    private static final int SHOWN = 14;
    private static final int SAMPLE = 40;
    private static final int MOST_KEPT = 5000;

    private final Blocks blocks;
    private final PlanDesk plans;
    private final MeasuredPoints measured;
    private final ControlMapper rows;
    private final Preferences preferences;
    private final PageWork work;
    /** Tables that are looked at; nothing of them is kept before somebody says so. */
    private final Map<String, Held> held = Recent.map(HELD);

    ObservationFile(
            Blocks blocks,
            PlanDesk plans,
            MeasuredPoints measured,
            ControlMapper rows,
            Preferences preferences,
            PageWork work) {
        this.blocks = blocks;
        this.plans = plans;
        this.measured = measured;
        this.rows = rows;
        this.preferences = preferences;
        this.work = work;
    }

    private record Held(String name, PointTable table) {}

    /** A doubt with the address that cures it. */
    public record DoubtView(String words, String press, String cure) {}

    /** One row as it is read. */
    public record ReadRow(int number, String point, String place, String up, String accuracy, String at) {}

    @PostMapping("/blocks/{id}/control/measured/file")
    String bring(@PathVariable long id, @RequestParam MultipartFile file) throws IOException {
        if (file.isEmpty()) {
            throw new InputFault("file", "nothing", "Choose a CSV or text file with the measured points.");
        }
        PointTable table = PointTable.read(file.getBytes());
        String key = UUID.randomUUID().toString();
        held.put(key, new Held(Names.given(file.getOriginalFilename(), "file"), table));
        return "redirect:/blocks/" + id + "/control/measured/check?table=" + key;
    }

    @GetMapping("/blocks/{id}/control/measured/check")
    String check(
            @PathVariable long id,
            @RequestParam String table,
            @RequestParam MultiValueMap<String, String> typed,
            Model model) {
        OpenBlock block = blocks.open(id);
        Held held = held(table);
        LocalPlane plane = MeasuredController.plane(block);
        List<ObservationColumn> columns = columns(held.table(), typed);
        ObservationFrame frame = frame(block, columns, typed);
        UnitChoice units = preferences.units();
        model.addAttribute("block", block);
        model.addAttribute("table", table);
        model.addAttribute("name", held.name());
        model.addAttribute("heading", held.table().heading());
        model.addAttribute("columns", columns);
        model.addAttribute("choices", ObservationColumn.values());
        model.addAttribute("meant", frame);
        model.addAttribute(
                "epsg", frame.epsg().isPresent() ? String.valueOf(frame.epsg().getAsInt()) : "");
        model.addAttribute("lengths", new Unit[] {Unit.METRE, Unit.FOOT, Unit.US_SURVEY_FOOT});
        model.addAttribute("sample", held.table().rows().stream().limit(3).toList());
        model.addAttribute(
                "leftOut",
                frame.leftOut().stream().sorted().map(String::valueOf).toList());
        try {
            work.answer("Looking at the table", () -> {
                looked(block, plane, held, columns, frame, table, units, model);
                return true;
            });
        } catch (InputFault fault) {
            model.addAttribute("fault", fault.getMessage());
            model.addAttribute("doubts", List.of());
            model.addAttribute("read", List.of());
            model.addAttribute("faults", List.of());
            model.addAttribute("count", 0);
        }
        return "control/check";
    }

    private void looked(
            OpenBlock block,
            LocalPlane plane,
            Held held,
            List<ObservationColumn> columns,
            ObservationFrame frame,
            String table,
            UnitChoice units,
            Model model) {
        ObservationReading reading = read(held.table(), columns, frame);
        model.addAttribute("faults", reading.faults());
        model.addAttribute("count", reading.rows().size());
        model.addAttribute(
                "read",
                reading.rows().stream()
                        .limit(SHOWN)
                        .map(row -> new ReadRow(
                                row.number(),
                                row.observation().point(),
                                MeasuredController.place(
                                        plane, row.observation().place()),
                                MeasuredController.up(units, row.observation().upM()),
                                row.observation().horizontalM().isPresent()
                                        ? Shown.accuracy(
                                                units,
                                                row.observation().horizontalM().getAsDouble())
                                        : "–",
                                row.observation().at().map(Object::toString).orElse("–")))
                        .toList());
        PointTable few = new PointTable(
                held.table().heading(),
                held.table().rows().stream().limit(SAMPLE).toList());
        LonLat middle = MeasuredController.middle(block);
        double reach = block.facts().outline().corners().stream()
                .mapToDouble(corner -> Geodesics.distanceM(middle, corner))
                .max()
                .orElse(0);
        Optional<BlockPlan> plan = plans.plan(block.facts()).whole().map(Planned.Whole::plan);
        ReadingDoubts doubts = new ReadingDoubts(
                middle,
                reach,
                other -> read(held.table(), columns, other),
                other -> read(few, columns, other),
                at -> plan.filter(known -> known.overGround().isPresent())
                        .map(known -> MarkedPlace.at(known, at).upM())
                        .orElse(Double.NaN));
        model.addAttribute(
                "doubts",
                doubts.of(frame).stream()
                        .map(doubt -> new DoubtView(
                                doubt.words(),
                                doubt.press(),
                                doubt.cure()
                                        .map(cure -> address(block.id(), table, columns, cure))
                                        .orElse("")))
                        .toList());
    }

    /** Keeps what is read; the mapping of its columns is remembered for the next file with such a heading. */
    @PostMapping("/blocks/{id}/control/measured/keep")
    String keep(@PathVariable long id, @RequestParam String table, @RequestParam MultiValueMap<String, String> typed) {
        OpenBlock block = blocks.open(id);
        Held held = held(table);
        List<ObservationColumn> columns = columns(held.table(), typed);
        ObservationFrame frame = frame(block, columns, typed);
        ObservationReading reading = work.answer("Reading the table", () -> read(held.table(), columns, frame));
        if (reading.rows().isEmpty()) {
            throw new InputFault("file", "empty", "No row of it can be read as it is mapped; nothing was kept.");
        }
        if (reading.rows().size() > MOST_KEPT) {
            throw new InputFault(
                    "file",
                    reading.rows().size(),
                    "%,d points are more than anybody measures on a block; up to %,d are kept. Nothing was kept."
                            .formatted(reading.rows().size(), MOST_KEPT));
        }
        measured.append(
                id,
                reading.rows().stream().map(ObservationReading.Row::observation).toList(),
                held.name());
        rows.keepColumns(key(held.table()), columns.stream().map(Enum::name).collect(Collectors.joining(",")));
        this.held.remove(table);
        return "redirect:/blocks/" + id + "/control/measured";
    }

    private Held held(String table) {
        Held known = held.get(table);
        if (known == null) {
            throw new NotThere("That table is no longer held; nothing of it was kept. Bring the file again.");
        }
        return known;
    }

    private static ObservationReading read(PointTable table, List<ObservationColumn> columns, ObservationFrame frame) {
        return ObservationReading.of(
                columns,
                table.rows(),
                frame,
                (latitude, longitude) -> TypedPosition.read(latitude + ", " + longitude, Optional.empty()));
    }

    private static String key(PointTable table) {
        return Sha256.hex(
                String.join("|", table.heading()) + "/" + table.rows().get(0).size());
    }

    /** As they are chosen; as they were kept for such a heading; as they seem. */
    private List<ObservationColumn> columns(PointTable table, MultiValueMap<String, String> typed) {
        int count = table.rows().get(0).size();
        List<String> chosen = typed.getOrDefault("column", List.of());
        if (chosen.isEmpty()) {
            chosen = rows.columns(key(table))
                    .map(kept -> Arrays.asList(kept.split(",")))
                    .orElse(List.of());
        }
        if (chosen.size() != count) {
            return ObservationColumn.guessed(table.heading(), table.rows());
        }
        List<ObservationColumn> columns = new ArrayList<>();
        for (String one : chosen) {
            columns.add(Arrays.stream(ObservationColumn.values())
                    .filter(column -> column.name().equals(one))
                    .findFirst()
                    .orElse(ObservationColumn.IGNORED));
        }
        return columns;
    }

    private static ObservationFrame frame(
            OpenBlock block, List<ObservationColumn> columns, MultiValueMap<String, String> typed) {
        LonLat middle = MeasuredController.middle(block);
        ObservationFrame first = ReadingDoubts.first(columns, block.facts().epsg(), middle);
        if (!typed.containsKey("zero")) {
            return first;
        }
        Function<String, String> of =
                name -> Optional.ofNullable(typed.getFirst(name)).orElse("");
        String epsg = of.apply("epsg").strip();
        Set<Integer> leftOut = new HashSet<>();
        typed.getOrDefault("out", List.of()).forEach(row -> leftOut.add(whole("out", row)));
        return new ObservationFrame(
                epsg.isEmpty() ? OptionalInt.empty() : OptionalInt.of(whole("epsg", epsg)),
                of.apply("swapped").equals("true"),
                unit(of.apply("unit")),
                unit(of.apply("heightUnit")),
                of.apply("zero").equals("ELLIPSOID") ? Zero.ELLIPSOID : Zero.GEOID,
                of.apply("repeats").equals("true"),
                leftOut);
    }

    private static int whole(String field, String text) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException noNumber) {
            throw new InputFault(
                    field,
                    text,
                    "“%s” is no EPSG code; it is a number such as 32630, or empty for degrees.".formatted(text));
        }
    }

    private static Unit unit(String name) {
        return Arrays.stream(Unit.values())
                .filter(unit -> unit.name().equals(name) && unit.family() == Unit.Family.LENGTH)
                .findFirst()
                .orElse(Unit.METRE);
    }

    private static String address(long block, String table, List<ObservationColumn> columns, ObservationFrame frame) {
        UriComponentsBuilder address = UriComponentsBuilder.fromPath("/blocks/{id}/control/measured/check")
                .queryParam("table", table)
                .queryParam("epsg", frame.epsg().isPresent() ? frame.epsg().getAsInt() : "")
                .queryParam("swapped", frame.swapped())
                .queryParam("unit", frame.unit().name())
                .queryParam("heightUnit", frame.heightUnit().name())
                .queryParam("zero", frame.zero().name())
                .queryParam("repeats", frame.numberRepeats());
        columns.forEach(column -> address.queryParam("column", column.name()));
        frame.leftOut().forEach(row -> address.queryParam("out", row));
        return address.buildAndExpand(block).toUriString();
    }
}

package yalos.web.accuracy;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.accuracy.Axis;
import yalos.core.accuracy.Diagnosis;
import yalos.core.accuracy.Foreseen;
import yalos.core.accuracy.Residual;
import yalos.core.accuracy.Residual.Kind;
import yalos.core.accuracy.Statement;
import yalos.core.accuracy.Suspicion;
import yalos.core.block.LocalPlane;
import yalos.core.control.BlockWorth;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.Foretold;
import yalos.core.exchange.ResidualTable;
import yalos.core.fault.InputFault;
import yalos.core.fault.Names;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.measured.MeasuredPoint;
import yalos.core.plan.PlanProof;
import yalos.core.terrain.Geoid;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.control.ControlDesk;
import yalos.web.control.MeasuredPoints;
import yalos.web.shell.Person;
import yalos.web.store.AccuracyMapper;
import yalos.web.store.AccuracyMapper.NoteRow;
import yalos.web.store.AccuracyMapper.ResidualRow;

/** Residuals of blocks, kept and made something of. */
@Service
class AccuracyDesk {
    private static final int MOST_POINTS = 5000;
    /** Fewer are held against nothing. */
    private static final int FEWEST = 3;

    private final AccuracyMapper rows;
    private final MeasuredPoints measured;
    private final PlanDesk plans;
    private final ControlDesk foretelling;

    AccuracyDesk(AccuracyMapper rows, MeasuredPoints measured, PlanDesk plans, ControlDesk foretelling) {
        this.rows = rows;
        this.measured = measured;
        this.plans = plans;
        this.foretelling = foretelling;
    }

    /** A residual with the row it is kept in. */
    record Kept(ResidualRow row, Residual residual) {}

    /**
     * All that residuals of a block amount to.
     *
     * @param kept all, those that are left out with them
     * @param checks of points that were never used
     * @param control of those that were
     * @param asked accuracy that the brief or a pin asks for, one standard deviation
     * @param foreseenUp heights against what was foretold; empty while nothing was
     * @param bySurface heights of ground levels by what they lie on
     */
    record Found(
            List<Kept> kept,
            Optional<Statement> checks,
            Optional<Statement> control,
            List<Suspicion> suspicions,
            PlanProof.Accuracy asked,
            OptionalDouble gsdM,
            Optional<Foreseen> foreseenUp,
            Optional<Foreseen> foreseenLevel,
            Map<String, Axis> bySurface,
            NoteRow note) {
        boolean empty() {
            return kept.isEmpty();
        }
    }

    boolean any(long block) {
        return rows.count(block) > 0;
    }

    /** All of it. What Control foretold is begun to be worked out where nobody asked before. */
    Found of(OpenBlock block) {
        return found(block, true);
    }

    /** The figures alone, without working for anything: for a tab that stands on every page. */
    Found figures(OpenBlock block) {
        return found(block, false);
    }

    private Found found(OpenBlock block, boolean whole) {
        LocalPlane plane = plane(block);
        List<Kept> kept = rows.all(block.id()).stream()
                .map(row -> new Kept(row, residual(row, plane)))
                .toList();
        List<Residual> counted = kept.stream()
                .filter(one -> one.row().leftOut().isEmpty())
                .map(Kept::residual)
                .toList();
        NoteRow note = rows.note(block.id()).orElse(NoteRow.NONE);
        List<Residual> checks = of(counted, Kind.CHECK);
        List<Residual> control = of(counted, Kind.CONTROL);
        Optional<Planned.Whole> plan = block.facts().outline().isEmpty()
                ? Optional.empty()
                : plans.plan(block.facts()).whole();
        PlanProof.Accuracy asked = plan.map(known ->
                        PlanProof.asked(known.plan(), block.facts().brief().accuracy()))
                .orElse(block.facts().brief().accuracy());
        return new Found(
                kept,
                checks.isEmpty()
                        ? Optional.empty()
                        : Optional.of(Statement.of(checks, note.surveyLevel(), note.surveyUp())),
                control.isEmpty()
                        ? Optional.empty()
                        : Optional.of(Statement.of(control, note.surveyLevel(), note.surveyUp())),
                whole ? Diagnosis.of(checks, control, known(block, plane, asked)) : List.of(),
                asked,
                plan.map(known ->
                                OptionalDouble.of(known.plan().design().scale().gsdM()))
                        .orElse(OptionalDouble.empty()),
                whole ? foreseen(block, plan, checks, note, true) : Optional.empty(),
                whole ? foreseen(block, plan, checks, note, false) : Optional.empty(),
                surfaces(counted),
                note);
    }

    private static List<Residual> of(List<Residual> all, Kind kind) {
        return all.stream().filter(one -> one.kind() == kind).toList();
    }

    private static LocalPlane plane(OpenBlock block) {
        return block.facts().grid().isEmpty() || block.facts().outline().isEmpty()
                ? LocalPlane.at(Grid.utmAt(LonLat.of(0, 0)), LonLat.of(0, 0))
                : LocalPlane.at(
                        block.facts().grid().orElseThrow(),
                        block.facts().outline().middle());
    }

    private static Residual residual(ResidualRow row, LocalPlane plane) {
        return new Residual(
                row.point(),
                Kind.valueOf(row.kind()),
                figure(row.east()),
                figure(row.north()),
                figure(row.up()),
                row.lon() == null ? Optional.empty() : Optional.of(plane.toPlane(LonLat.of(row.lon(), row.lat()))),
                figure(row.height()),
                row.surface());
    }

    private static OptionalDouble figure(Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    private static Double boxed(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }

    /** What the job itself knows: its antenna and pole heights, the geoid, where it lies. */
    private Diagnosis.Known known(OpenBlock block, LocalPlane plane, PlanProof.Accuracy asked) {
        Map<String, Double> lengths = new LinkedHashMap<>();
        Map<Double, Integer> poles = new TreeMap<>();
        measured.judged(block.id(), plane, 0)
                .forEach(one -> one.one().poleM().ifPresent(pole -> poles.merge(pole, 1, Integer::sum)));
        poles.forEach((pole, count) ->
                lengths.put("the pole at %d %s".formatted(count, count == 1 ? "point" : "points"), pole));
        measured.base(block.id()).ifPresent(base -> lengths.put("the base's antenna", base.antenna()));
        LonLat middle = block.facts().outline().isEmpty()
                ? LonLat.of(0, 0)
                : block.facts().outline().middle();
        EastNorth grid = block.facts().grid().isEmpty() ? new EastNorth(0, 0) : plane.toGrid(0, 0);
        return new Diagnosis.Known(
                lengths,
                Geoid.egm96().undulationM(middle),
                grid,
                asked.heightM().orElse(0.03));
    }

    /** Residuals of check points against what Control foretold of each, the survey's own error with it. */
    private Optional<Foreseen> foreseen(
            OpenBlock block, Optional<Planned.Whole> whole, List<Residual> checks, NoteRow note, boolean heights) {
        Optional<Foretold> foretold = checks.size() < FEWEST
                ? Optional.empty()
                : whole.flatMap(known -> foretelling.worth(block.id(), block.facts(), known.plan()))
                        .map(BlockWorth::planned);
        if (foretold.isEmpty()) {
            return Optional.empty();
        }
        List<ControlPoint> points = block.facts().control().points();
        List<Double> residuals = new ArrayList<>();
        List<Double> sigmas = new ArrayList<>();
        for (Residual one : checks) {
            Optional<Foretold.Sigma> sigma = Optional.empty();
            for (int i = 0; i < points.size(); i++) {
                if (ControlLayout.key(points.get(i).name()).equals(ControlLayout.key(one.point()))) {
                    sigma = foretold.orElseThrow().atPoint(i);
                }
            }
            Foretold.Sigma known = sigma.orElse(foretold.orElseThrow().typical());
            if (heights && one.upM().isPresent()) {
                residuals.add(one.upM().getAsDouble());
                sigmas.add(Math.hypot(known.verticalM(), note.surveyUp()));
            } else if (!heights && one.eastM().isPresent()) {
                double each = Math.hypot(known.horizontalM(), note.surveyLevel()) / Math.sqrt(2);
                residuals.add(one.eastM().getAsDouble());
                sigmas.add(each);
                residuals.add(one.northM().getAsDouble());
                sigmas.add(each);
            }
        }
        boolean fine =
                residuals.size() >= FEWEST && sigmas.stream().allMatch(sigma -> sigma > 0 && Double.isFinite(sigma));
        return fine
                ? Optional.of(Foreseen.of(
                        residuals.stream().mapToDouble(Double::doubleValue).toArray(),
                        sigmas.stream().mapToDouble(Double::doubleValue).toArray()))
                : Optional.empty();
    }

    private static Map<String, Axis> surfaces(List<Residual> counted) {
        Map<String, List<Double>> bySurface = new TreeMap<>();
        counted.stream()
                .filter(one -> one.upM().isPresent()
                        && (one.kind() == Kind.GROUND || !one.surface().isEmpty()))
                .forEach(one -> bySurface
                        .computeIfAbsent(
                                one.surface().isEmpty() ? "no surface named" : one.surface(), name -> new ArrayList<>())
                        .add(one.upM().getAsDouble()));
        Map<String, Axis> axes = new TreeMap<>();
        bySurface.forEach((name, ups) -> axes.put(
                name, Axis.of(ups.stream().mapToDouble(Double::doubleValue).toArray())));
        return axes;
    }

    // Bringing in.

    /** What reading a table did. */
    record Read(int kept, List<String> faults) {}

    /**
     * Keeps a table's points: its differences, or those of its places from the measured points of the same name.
     *
     * @throws InputFault for a table of which no point can be used
     */
    @Transactional
    public Read keep(OpenBlock block, ResidualTable table, String source) {
        if (table.rows().size() > MOST_POINTS) {
            throw new InputFault(
                    "file",
                    table.rows().size(),
                    "Up to %,d points are kept of a block. Nothing was kept.".formatted(MOST_POINTS));
        }
        LocalPlane plane = plane(block);
        Map<String, MeasuredPoint> points = measured.points(measured.judged(block.id(), plane, 0), plane);
        List<String> faults = new ArrayList<>();
        int kept = 0;
        for (ResidualTable.Row row : table.rows()) {
            try {
                rows.append(block.id(), row(block, row, table.differences(), points, plane, source));
                kept++;
            } catch (InputFault fault) {
                faults.add(fault.getMessage());
            }
        }
        if (kept == 0) {
            throw new InputFault(
                    "file",
                    source,
                    "No point of it can be used: %s".formatted(faults.isEmpty() ? "it is empty" : faults.get(0)));
        }
        return new Read(kept, faults);
    }

    private ResidualRow row(
            OpenBlock block,
            ResidualTable.Row from,
            boolean differences,
            Map<String, MeasuredPoint> points,
            LocalPlane plane,
            String source) {
        String name = Names.given(from.point(), "point");
        MeasuredPoint ground = points.get(ControlLayout.key(name));
        Optional<ControlPoint> planned = block.facts().control().points().stream()
                .filter(one -> ControlLayout.key(one.name()).equals(ControlLayout.key(name)))
                .findFirst();
        OptionalDouble east = from.east();
        OptionalDouble north = from.north();
        OptionalDouble up = from.up();
        if (!differences) {
            if (ground == null) {
                throw new InputFault(
                        "point",
                        name,
                        "Point %s was not measured on the ground, so the map cannot be held against it. Bring in its measurement on the Control stage."
                                .formatted(name));
            }
            if (from.mapPlace().isPresent()) {
                PlanePoint map = plane.toPlane(from.mapPlace().orElseThrow());
                PlanePoint there = plane.toPlane(ground.place());
                east = OptionalDouble.of(map.xM() - there.xM());
                north = OptionalDouble.of(map.yM() - there.yM());
            }
            up = up.isPresent() && ground.upM().isPresent()
                    ? OptionalDouble.of(up.getAsDouble() - ground.upM().getAsDouble())
                    : OptionalDouble.empty();
        }
        Kind kind = kind(from.role(), planned, east.isPresent());
        // Its rules are looked at before it is kept.
        new Residual(name, kind, east, north, up, Optional.empty(), OptionalDouble.empty(), from.surface());
        Optional<LonLat> place = ground != null ? Optional.of(ground.place()) : planned.map(ControlPoint::place);
        return new ResidualRow(
                0,
                name,
                kind.name(),
                boxed(east),
                boxed(north),
                boxed(up),
                place.map(LonLat::lonDeg).orElse(null),
                place.map(LonLat::latDeg).orElse(null),
                ground == null ? null : boxed(ground.upM()),
                cut(Names.clean(from.surface()), 60),
                cut(source, 200),
                "",
                LocalDateTime.now().withNano(0),
                Person.present());
    }

    private static Kind kind(String role, Optional<ControlPoint> planned, boolean level) {
        String plain = role.toLowerCase(Locale.ROOT);
        if (plain.startsWith("con") || plain.startsWith("gcp")) {
            return Kind.CONTROL;
        }
        if (plain.startsWith("che") || plain.startsWith("cp") || plain.startsWith("val")) {
            return Kind.CHECK;
        }
        if (plain.startsWith("ground") || plain.startsWith("level") || plain.startsWith("topo")) {
            return Kind.GROUND;
        }
        if (plain.startsWith("bench") || plain.startsWith("bm")) {
            return Kind.BENCHMARK;
        }
        return planned.map(one -> one.role() == ControlPoint.Role.CONTROL ? Kind.CONTROL : Kind.CHECK)
                .orElse(level ? Kind.CHECK : Kind.GROUND);
    }

    private static String cut(String text, int most) {
        String plain = text.strip();
        return plain.length() > most ? plain.substring(0, most) : plain;
    }

    /** Keeps residuals that were worked out here, such as a model's over measured points. */
    @Transactional
    public void append(long block, List<ResidualRow> all) {
        all.forEach(row -> rows.append(block, row));
    }

    /** Leaves a point out, or takes it back. */
    @Transactional
    public void leaveOut(long block, long id, boolean out, String why) {
        if (out && why.isBlank()) {
            throw new InputFault("reason", "", "Give a reason; it stays with the point and stands in the report.");
        }
        if (rows.leaveOut(block, id, out ? cut(why, 300) : "") == 0) {
            throw new InputFault("point", id, "There is no such point any more; reload the page.");
        }
    }

    @Transactional
    public void note(long block, NoteRow note) {
        rows.keepNote(block, note);
    }
}

package yalos.web.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.LocalPlane;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.PlanePoint;
import yalos.core.measured.AntennaHeight;
import yalos.core.measured.BaseShift;
import yalos.core.measured.Benchmarks;
import yalos.core.measured.Helmert;
import yalos.core.measured.MeasuredPoint;
import yalos.core.measured.Observation;
import yalos.core.measured.Observation.Solution;
import yalos.core.measured.ObservationReading;
import yalos.core.terrain.Geoid;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.shell.Preferences;
import yalos.web.store.ControlMapper;
import yalos.web.store.ControlMapper.BaseRow;

/** Measuring: observations with what speaks against each, the base, benchmarks. */
@Controller
class MeasuredController {
    private static final double FAR_M = 25;

    private final Blocks blocks;
    private final MeasuredPoints measured;
    private final ControlMapper rows;
    private final Preferences preferences;
    private final TypedFigures typed;

    MeasuredController(
            Blocks blocks, MeasuredPoints measured, ControlMapper rows, Preferences preferences, TypedFigures typed) {
        this.typed = typed;
        this.blocks = blocks;
        this.measured = measured;
        this.rows = rows;
        this.preferences = preferences;
    }

    /** A point of the plan, or one that was measured besides, as all its observations make it. */
    public record PointView(String name, String role, String place, String up, int count, String remark, String mood) {}

    public record ObservationView(
            long id,
            String point,
            String at,
            String place,
            String up,
            String accuracy,
            String epochs,
            String solution,
            String pole,
            String source,
            List<String> remarks,
            boolean used,
            boolean byHand,
            String reason) {}

    public record MarkView(long id, String name, String place, String up, String residual) {}

    @GetMapping("/blocks/{id}/control/measured")
    String page(@PathVariable long id, Model model) {
        OpenBlock block = blocks.open(id);
        UnitChoice units = preferences.units();
        LocalPlane plane = plane(block);
        ControlLayout layout = block.facts().control();
        List<MeasuredPoints.Judged> judged =
                measured.judged(id, plane, layout.assumptions().epochs());
        Map<String, MeasuredPoint> points = measured.points(judged, plane);
        model.addAttribute("block", block);
        List<PointView> views = points(layout, points, judged, plane, units);
        model.addAttribute("points", views);
        model.addAttribute(
                "observations",
                judged.stream().map(one -> view(one, plane, units)).toList());
        long done = views.stream().filter(view -> view.count() > 0).count();
        long bad = judged.stream().filter(one -> !one.used()).count();
        model.addAttribute(
                "headline",
                "%d of %d points measured%s"
                        .formatted(
                                done,
                                views.size(),
                                bad == 0 ? "" : ", %d %s not used".formatted(bad, observations(bad))));
        base(id, model, units);
        benchmarks(id, model, points, plane, units);
        model.addAttribute("events", rows.events(id));
        model.addAttribute(
                "names", layout.points().stream().map(ControlPoint::name).toList());
        model.addAttribute("grid", plane.grid().shortName());
        model.addAttribute("wantedEpochs", layout.assumptions().epochs());
        return "control/measured";
    }

    private static String observations(long count) {
        return count == 1 ? "observation" : "observations";
    }

    /** The plane of a block; that of its launch point while it has no outline. */
    static LocalPlane plane(OpenBlock block) {
        return LocalPlane.at(block.facts().grid().orElseGet(() -> Grid.utmAt(middle(block))), middle(block));
    }

    /**
     * The middle of a block, or its launch point while it has no outline.
     *
     * @throws InputFault for a block that lies nowhere yet
     */
    static LonLat middle(OpenBlock block) {
        return block.facts().outline().isEmpty()
                ? block.facts()
                        .launch()
                        .orElseThrow(
                                () -> new InputFault("place", "none", "The block has no place yet; draw an outline."))
                : block.facts().outline().middle();
    }

    private static List<PointView> points(
            ControlLayout layout,
            Map<String, MeasuredPoint> points,
            List<MeasuredPoints.Judged> judged,
            LocalPlane plane,
            UnitChoice units) {
        List<PointView> views = new ArrayList<>();
        for (ControlPoint point : layout.points()) {
            MeasuredPoint found = points.get(ControlLayout.key(point.name()));
            boolean tried = judged.stream()
                    .anyMatch(one -> ControlLayout.key(one.one().point()).equals(ControlLayout.key(point.name())));
            views.add(view(point, found, tried, plane, units));
        }
        return views;
    }

    private static PointView view(
            ControlPoint point, MeasuredPoint found, boolean tried, LocalPlane plane, UnitChoice units) {
        if (found == null) {
            return new PointView(
                    point.name(),
                    point.role().words(),
                    "",
                    "",
                    0,
                    tried ? "measured, but nothing of it may be used" : "not measured",
                    tried ? "stop" : "mind");
        }
        double off = plane.toPlane(found.place()).distanceM(plane.toPlane(point.place()));
        String remark = "";
        if (!found.agrees()) {
            remark = "its measurements differ by %s, heights by %s"
                    .formatted(Shown.accuracy(units, found.apartM()), Shown.accuracy(units, found.heightApartM()));
        } else if (off > FAR_M) {
            remark = "%s from where it is planned".formatted(units.text(UnitKind.DISTANCE, off));
        } else if (found.count() > 1) {
            remark = "%d measurements within %s, heights %s"
                    .formatted(
                            found.count(),
                            Shown.accuracy(units, found.apartM()),
                            Shown.accuracy(units, found.heightApartM()));
        }
        return new PointView(
                point.name(),
                point.role().words(),
                place(plane, found.place()),
                up(units, found.upM()),
                found.count(),
                remark,
                found.agrees() ? off > FAR_M ? "mind" : "done" : "stop");
    }

    static String place(LocalPlane plane, LonLat at) {
        EastNorth grid = plane.grid().toGrid(at);
        return String.format(Locale.ROOT, "%.3f, %.3f", grid.east(), grid.north());
    }

    /** A height to the millimetre, in the operator's unit. */
    static String up(UnitChoice units, OptionalDouble up) {
        return up.isEmpty()
                ? "–"
                : String.format(
                        Locale.ROOT,
                        "%.3f %s",
                        units.unit(UnitKind.HEIGHT).ofSi(up.getAsDouble()),
                        units.unit(UnitKind.HEIGHT).symbol());
    }

    private static ObservationView view(MeasuredPoints.Judged judged, LocalPlane plane, UnitChoice units) {
        Observation one = judged.one();
        return new ObservationView(
                judged.row().id(),
                one.point(),
                one.at().map(at -> at.toString().replace('T', ' ')).orElse("–"),
                place(plane, one.place()),
                up(units, one.upM()),
                accuracy(units, one.horizontalM()) + " / " + accuracy(units, one.verticalM()),
                one.epochs().isPresent() ? String.valueOf(one.epochs().getAsInt()) : "–",
                one.solution().words()
                        + (one.satellites().isPresent()
                                ? ", " + one.satellites().getAsInt()
                                : ""),
                one.poleM().isPresent() ? up(units, one.poleM()) : "–",
                judged.row().source(),
                judged.remarks().stream()
                        .map(remark -> (remark.rejects() ? "no: " : "") + remark.words())
                        .toList(),
                judged.used(),
                !judged.row().verdict().equals(MeasuredPoints.AUTO),
                judged.row().reason());
    }

    private static String accuracy(UnitChoice units, OptionalDouble m) {
        return m.isPresent() ? Shown.accuracy(units, m.getAsDouble()) : "–";
    }

    private void base(long id, Model model, UnitChoice units) {
        Optional<BaseRow> base = rows.base(id);
        model.addAttribute("base", base.orElse(null));
        model.addAttribute(
                "baseWords",
                base.map(row -> "%s on %s mark, antenna %.3f m over it, raw log %s."
                                .formatted(
                                        row.name(),
                                        row.known() ? "a known" : "an unknown",
                                        row.antenna(),
                                        row.logging() ? "on" : "OFF"))
                        .orElse(""));
        model.addAttribute(
                "baseAdvice",
                base.map(
                                row -> row.known()
                                        ? "On a known mark: rover and raw log both stand at once; if the base fails, a network can stand in for it."
                                        : "On an unknown mark: log raw data for 2 h or more and have it worked out, then give its true place; everything moves by the one vector. Rover heights stand only after that.")
                        .orElse(""));
        base.flatMap(MeasuredPoints::shift).ifPresent(shift -> {
            double[] local = shift.eastNorthUp();
            model.addAttribute(
                    "baseShift",
                    "%s: %s east, %s north, %s up; X %+.3f m, Y %+.3f m, Z %+.3f m"
                            .formatted(
                                    units.text(UnitKind.DISTANCE, shift.lengthM()),
                                    Shown.accuracy(units, local[0]),
                                    Shown.accuracy(units, local[1]),
                                    Shown.accuracy(units, local[2]),
                                    shift.vector().xM(),
                                    shift.vector().yM(),
                                    shift.vector().zM()));
            model.addAttribute("baseFar", shift.lengthM() > BaseShift.LARGE_M);
        });
    }

    private void benchmarks(
            long id, Model model, Map<String, MeasuredPoint> points, LocalPlane plane, UnitChoice units) {
        Optional<Benchmarks> found = measured.benchmarks(id, points, plane);
        model.addAttribute(
                "marks",
                rows.marks(id).stream()
                        .map(mark -> new MarkView(
                                mark.id(),
                                mark.name(),
                                place(plane, LonLat.of(mark.lon(), mark.lat())),
                                up(units, OptionalDouble.of(mark.up())),
                                found.stream()
                                        .flatMap(all -> all.residuals().stream())
                                        .filter(one -> one.name().equals(mark.name()))
                                        .map(one -> "%s east, %s north, %s up"
                                                .formatted(
                                                        Shown.accuracy(units, one.eastM()),
                                                        Shown.accuracy(units, one.northM()),
                                                        Shown.accuracy(units, one.upM())))
                                        .findFirst()
                                        .orElse("not measured")))
                        .toList());
        model.addAttribute("shifted", rows.shift(id).isPresent());
        model.addAttribute("turned", turned(id, points, plane, units));
        found.ifPresent(all -> {
            model.addAttribute("marksAgree", all.agree());
            model.addAttribute(
                    "suggested",
                    "%s: %s east, %s north, %s up; what is left after it is %s at most"
                            .formatted(
                                    all.residuals().size() < Benchmarks.LEAST
                                            ? "One mark cannot tell its own error from a shift; measure another. It suggests"
                                            : all.agree()
                                                    ? "The marks agree on"
                                                    : "The marks do not agree; they suggest",
                                    Shown.accuracy(units, all.eastM()),
                                    Shown.accuracy(units, all.northM()),
                                    Shown.accuracy(units, all.upM()),
                                    Shown.accuracy(units, all.spreadM())));
        });
    }

    /** What the marks say besides a shift: a turn or a scale means a wrong system. Empty with fewer than two of them. */
    private String turned(long id, Map<String, MeasuredPoint> points, LocalPlane plane, UnitChoice units) {
        List<PlanePoint> seen = new ArrayList<>();
        List<PlanePoint> known = new ArrayList<>();
        for (ControlMapper.MarkRow mark : rows.marks(id)) {
            MeasuredPoint one = points.get(ControlLayout.key(mark.name()));
            if (one != null) {
                seen.add(plane.toPlane(one.place()));
                known.add(plane.toPlane(LonLat.of(mark.lon(), mark.lat())));
            }
        }
        if (seen.size() < 2 || seen.get(0).distanceM(seen.get(1)) < 1) {
            return "";
        }
        Helmert helmert = Helmert.of(seen, known);
        return "Between the marks it is turned by %.0f″ and drawn out by %.0f parts in a million; %s is left. Far from 0, the system is a wrong one."
                .formatted(
                        Math.toDegrees(helmert.turnRad()) * 3600,
                        (helmert.scale() - 1) * 1e6,
                        Shown.accuracy(units, helmert.leftM()));
    }

    /** One observation typed in the field. Heights are of the antenna's reference point where a pole is said to be taken off. */
    @PostMapping("/blocks/{id}/control/measured")
    String add(
            @PathVariable long id,
            @RequestParam String point,
            @RequestParam String place,
            @RequestParam(defaultValue = "") String height,
            @RequestParam(defaultValue = "geoid") String zero,
            @RequestParam(defaultValue = "false") boolean antenna,
            @RequestParam(defaultValue = "") String pole,
            @RequestParam(defaultValue = "") String horizontal,
            @RequestParam(defaultValue = "") String vertical,
            @RequestParam(defaultValue = "") String epochs,
            @RequestParam(defaultValue = "UNKNOWN") Solution solution,
            @RequestParam(defaultValue = "") String satellites,
            @RequestParam(defaultValue = "") String at,
            @RequestParam(defaultValue = "") String note) {
        OpenBlock block = blocks.open(id);
        LonLat where = TypedPosition.read(place, block.facts().grid());
        OptionalDouble poleM = typed.metres("pole", pole, UnitKind.HEIGHT);
        OptionalDouble up = typed.metres("height", height, UnitKind.HEIGHT);
        if (up.isPresent()) {
            double m = up.getAsDouble();
            if (antenna) {
                m = AntennaHeight.groundM(
                        m,
                        poleM.orElseThrow(() -> new InputFault("pole", "", "Give the pole's height, to take it off.")));
            }
            up = OptionalDouble.of(zero.equals("ellipsoid") ? m - Geoid.egm96().undulationM(where) : m);
        }
        measured.append(
                id,
                List.of(new Observation(
                        point,
                        ObservationReading.time(at.strip()),
                        where,
                        up,
                        TypedFigures.count("epochs", epochs),
                        typed.metres("horizontal", horizontal, UnitKind.GSD),
                        typed.metres("vertical", vertical, UnitKind.GSD),
                        OptionalDouble.empty(),
                        solution,
                        TypedFigures.count("satellites", satellites),
                        poleM,
                        note)),
                "typed");
        return back(id);
    }

    @PostMapping("/blocks/{id}/control/measured/judge")
    String judge(
            @PathVariable long id,
            @RequestParam long observation,
            @RequestParam String verdict,
            @RequestParam(defaultValue = "") String reason) {
        measured.judge(id, observation, verdict, reason);
        return back(id);
    }

    /** Back to the page of measurements. */
    static String back(long id) {
        return "redirect:/blocks/" + id + "/control/measured";
    }
}

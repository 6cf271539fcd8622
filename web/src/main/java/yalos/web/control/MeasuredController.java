package yalos.web.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
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
import yalos.core.units.Measure;
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

    MeasuredController(Blocks blocks, MeasuredPoints measured, ControlMapper rows, Preferences preferences) {
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
        model.addAttribute("units", units);
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
        LonLat middle = block.facts().outline().isEmpty()
                ? block.facts()
                        .launch()
                        .orElseThrow(
                                () -> new InputFault("place", "none", "The block has no place yet; draw an outline."))
                : block.facts().outline().middle();
        return LocalPlane.at(block.facts().grid().orElseThrow(), middle);
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
    String typed(
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
        OptionalDouble poleM = metres("pole", pole, UnitKind.HEIGHT);
        OptionalDouble up = metres("height", height, UnitKind.HEIGHT);
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
                        count("epochs", epochs),
                        metres("horizontal", horizontal, UnitKind.GSD),
                        metres("vertical", vertical, UnitKind.GSD),
                        OptionalDouble.empty(),
                        solution,
                        count("satellites", satellites),
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

    /** Where the base was set up, how, and where its corrections come from. */
    @PostMapping("/blocks/{id}/control/base")
    String base(
            @PathVariable long id,
            @RequestParam(defaultValue = "base") String name,
            @RequestParam(defaultValue = "false") boolean known,
            @RequestParam String place,
            @RequestParam String height,
            @RequestParam(defaultValue = "ellipsoid") String zero,
            @RequestParam(defaultValue = "") String antenna,
            @RequestParam(defaultValue = "") String slant,
            @RequestParam(defaultValue = "") String radius,
            @RequestParam(defaultValue = "") String rim,
            @RequestParam(defaultValue = "false") boolean logging,
            @RequestParam(defaultValue = "BASE") String source,
            @RequestParam(defaultValue = "") String address,
            @RequestParam(defaultValue = "") String mount,
            @RequestParam(defaultValue = "") String status) {
        OpenBlock block = blocks.open(id);
        LonLat where = TypedPosition.read(place, block.facts().grid());
        double ellipsoid = ellipsoidM(
                height,
                zero,
                where,
                "A base needs latitude, longitude and height: without the height all heights are off.");
        OptionalDouble vertical = metres("antenna", antenna, UnitKind.HEIGHT);
        OptionalDouble slanted = metres("slant", slant, UnitKind.HEIGHT);
        double antennaM = slanted.isPresent()
                ? AntennaHeight.ofSlant(
                        slanted.getAsDouble(),
                        metres("radius", radius, UnitKind.HEIGHT).orElse(0),
                        metres("rim", rim, UnitKind.HEIGHT).orElse(0))
                : vertical.orElseThrow(
                        () -> new InputFault(
                                "antenna",
                                "",
                                "Give the antenna's height over the mark, vertical or slant; a wrong one lifts the whole map."));
        InputFault.within("antenna", antennaM, 0, 20, "m");
        BaseRow before = rows.base(id).orElse(null);
        boolean moved = before == null
                || before.lon() != where.lonDeg()
                || before.lat() != where.latDeg()
                || before.ellipsoid() != ellipsoid;
        rows.keepBase(
                id,
                new BaseRow(
                        cut(name, 60),
                        known,
                        where.lonDeg(),
                        where.latDeg(),
                        ellipsoid,
                        antennaM,
                        logging,
                        moved ? null : before.trueLon(),
                        moved ? null : before.trueLat(),
                        moved ? null : before.trueEllipsoid(),
                        !moved && before.applied(),
                        cut(source, 20),
                        cut(address, 200),
                        cut(mount, 80),
                        cut(status, 200)));
        measured.noted(id, "", "base " + name + " set up " + (known ? "on a known mark" : "on an unknown mark"));
        return back(id);
    }

    /** A typed height above the ellipsoid, whatever it was counted from. */
    private double ellipsoidM(String height, String zero, LonLat where, String missing) {
        double up = metres("height", height, UnitKind.HEIGHT).orElseThrow(() -> new InputFault("height", "", missing));
        return zero.equals("ellipsoid") ? up : up + Geoid.egm96().undulationM(where);
    }

    private static String cut(String text, int longest) {
        String plain = text.strip();
        return plain.length() > longest ? plain.substring(0, longest) : plain;
    }

    /** Where the base truly stood: shown as a vector, applied by another press. */
    @PostMapping("/blocks/{id}/control/base/true")
    String trueBase(
            @PathVariable long id,
            @RequestParam String place,
            @RequestParam String height,
            @RequestParam(defaultValue = "ellipsoid") String zero) {
        BaseRow base = neededBase(id);
        LonLat where = TypedPosition.read(place, blocks.open(id).facts().grid());
        double ellipsoid = ellipsoidM(height, zero, where, "Give the true height as well.");
        rows.keepBase(id, with(base, where.lonDeg(), where.latDeg(), ellipsoid, false));
        measured.noted(id, "", "true place of the base given");
        return back(id);
    }

    /** Applies the vector to everything measured, or takes it off again. */
    @PostMapping("/blocks/{id}/control/base/apply")
    String applyBase(@PathVariable long id, @RequestParam boolean applied) {
        BaseRow base = neededBase(id);
        if (MeasuredPoints.shift(base).isEmpty()) {
            throw new InputFault("base", "", "Give the base's true place first.");
        }
        rows.keepBase(id, with(base, base.trueLon(), base.trueLat(), base.trueEllipsoid(), applied));
        measured.noted(id, "", applied ? "shift of the base applied" : "shift of the base taken off");
        return back(id);
    }

    private BaseRow neededBase(long id) {
        return rows.base(id).orElseThrow(() -> new InputFault("base", "none", "Say first where the base was set up."));
    }

    private static BaseRow with(BaseRow base, Double lon, Double lat, Double ellipsoid, boolean applied) {
        return new BaseRow(
                base.name(),
                base.known(),
                base.lon(),
                base.lat(),
                base.ellipsoid(),
                base.antenna(),
                base.logging(),
                lon,
                lat,
                ellipsoid,
                applied,
                base.source(),
                base.address(),
                base.mount(),
                base.status());
    }

    /** A mark whose place and level are known. */
    @PostMapping("/blocks/{id}/control/marks")
    String mark(
            @PathVariable long id, @RequestParam String name, @RequestParam String place, @RequestParam String height) {
        LonLat where = TypedPosition.read(place, blocks.open(id).facts().grid());
        double up = metres("height", height, UnitKind.HEIGHT)
                .orElseThrow(() -> new InputFault("height", "", "A benchmark has a level above the geoid."));
        if (name.isBlank() || name.length() > 60) {
            throw new InputFault("name", name, "Give the mark a name of up to 60 letters.");
        }
        rows.keepMark(id, new ControlMapper.MarkRow(0, name.strip(), where.lonDeg(), where.latDeg(), up));
        return back(id);
    }

    @PostMapping("/blocks/{id}/control/marks/remove")
    String removeMark(@PathVariable long id, @RequestParam long mark) {
        rows.removeMark(id, mark);
        return back(id);
    }

    /** Applies the shift the marks agree on, or takes it off again. */
    @PostMapping("/blocks/{id}/control/marks/apply")
    String applyMarks(@PathVariable long id, @RequestParam boolean applied) {
        OpenBlock block = blocks.open(id);
        LocalPlane plane = plane(block);
        if (!applied) {
            rows.dropShift(id);
            measured.noted(id, "", "shift of the benchmarks taken off");
            return back(id);
        }
        if (rows.shift(id).isPresent()) {
            throw new InputFault("shift", "applied", "A shift is applied already; take it off first.");
        }
        Map<String, MeasuredPoint> points = measured.points(
                measured.judged(id, plane, block.facts().control().assumptions().epochs()), plane);
        Benchmarks found = measured.benchmarks(id, points, plane)
                .filter(Benchmarks::agree)
                .orElseThrow(() -> new InputFault(
                        "marks", "", "Two marks or more must agree within 3 cm before everything is moved by them."));
        rows.keepShift(id, new ControlMapper.ShiftRow(found.eastM(), found.northM(), found.upM()));
        measured.noted(
                id,
                "",
                "shift of the benchmarks applied: %.3f m east, %.3f m north, %.3f m up"
                        .formatted(found.eastM(), found.northM(), found.upM()));
        return back(id);
    }

    private OptionalDouble metres(String field, String text, UnitKind kind) {
        return text.isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(
                        Measure.typed(field, text, preferences.typed().unit(kind))
                                .si());
    }

    private static OptionalInt count(String field, String text) {
        if (text.isBlank()) {
            return OptionalInt.empty();
        }
        try {
            return OptionalInt.of(Integer.parseInt(text.strip()));
        } catch (NumberFormatException noCount) {
            throw new InputFault(field, text, "“%s” is no whole number.".formatted(text));
        }
    }

    private static String back(long id) {
        return "redirect:/blocks/" + id + "/control/measured";
    }
}

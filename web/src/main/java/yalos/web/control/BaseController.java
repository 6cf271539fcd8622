package yalos.web.control;

import java.util.Map;
import java.util.OptionalDouble;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.block.LocalPlane;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.measured.AntennaHeight;
import yalos.core.measured.Benchmarks;
import yalos.core.measured.MeasuredPoint;
import yalos.core.terrain.Geoid;
import yalos.core.units.UnitKind;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.store.ControlMapper;
import yalos.web.store.ControlMapper.BaseRow;

/** What holds all measurements in place: the base and the benchmarks. Neither moves anything without a press. */
@Controller
class BaseController {
    private final Blocks blocks;
    private final MeasuredPoints measured;
    private final ControlMapper rows;
    private final TypedFigures typed;

    BaseController(Blocks blocks, MeasuredPoints measured, ControlMapper rows, TypedFigures typed) {
        this.blocks = blocks;
        this.measured = measured;
        this.rows = rows;
        this.typed = typed;
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
        OptionalDouble vertical = typed.metres("antenna", antenna, UnitKind.HEIGHT);
        OptionalDouble slanted = typed.metres("slant", slant, UnitKind.HEIGHT);
        double antennaM = slanted.isPresent()
                ? AntennaHeight.ofSlant(
                        slanted.getAsDouble(),
                        typed.metres("radius", radius, UnitKind.HEIGHT).orElse(0),
                        typed.metres("rim", rim, UnitKind.HEIGHT).orElse(0))
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
        return MeasuredController.back(id);
    }

    /** A typed height above the ellipsoid, whatever it was counted from. */
    private double ellipsoidM(String height, String zero, LonLat where, String missing) {
        double up = typed.metres("height", height, UnitKind.HEIGHT)
                .orElseThrow(() -> new InputFault("height", "", missing));
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
        return MeasuredController.back(id);
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
        return MeasuredController.back(id);
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
        double up = typed.metres("height", height, UnitKind.HEIGHT)
                .orElseThrow(() -> new InputFault("height", "", "A benchmark has a level above the geoid."));
        if (name.isBlank() || name.length() > 60) {
            throw new InputFault("name", name, "Give the mark a name of up to 60 letters.");
        }
        rows.keepMark(id, new ControlMapper.MarkRow(0, name.strip(), where.lonDeg(), where.latDeg(), up));
        return MeasuredController.back(id);
    }

    @PostMapping("/blocks/{id}/control/marks/remove")
    String removeMark(@PathVariable long id, @RequestParam long mark) {
        rows.removeMark(id, mark);
        return MeasuredController.back(id);
    }

    /** Applies the shift the marks agree on, or takes it off again. */
    @PostMapping("/blocks/{id}/control/marks/apply")
    String applyMarks(@PathVariable long id, @RequestParam boolean applied) {
        OpenBlock block = blocks.open(id);
        LocalPlane plane = MeasuredController.plane(block);
        if (!applied) {
            rows.dropShift(id);
            measured.noted(id, "", "shift of the benchmarks taken off");
            return MeasuredController.back(id);
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
        return MeasuredController.back(id);
    }
}

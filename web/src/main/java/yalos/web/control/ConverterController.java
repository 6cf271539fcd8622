package yalos.web.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import yalos.core.exchange.TypedPosition;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Geocentric;
import yalos.core.geodesy.Geographic;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.geodesy.SystemNames;
import yalos.core.geodesy.UtmZone;
import yalos.core.terrain.Geoid;
import yalos.core.terrain.VerticalDatum;
import yalos.core.terrain.VerticalDatum.Zero;
import yalos.core.units.Unit;

/** A page that converts places and heights, usable alone: any system both ways, both feet, ellipsoid, geoid and a local level. */
@Controller
class ConverterController {
    private static final int WGS84 = 4326;
    private static final int MOST_LINES = 500;

    /** One place converted. */
    public record Converted(
            String typed, String to, String degrees, String sexagesimal, String utm, String heights, String fault) {}

    @GetMapping("/converter")
    String page(
            @RequestParam(defaultValue = "") String places,
            @RequestParam(defaultValue = "4326") String from,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(defaultValue = "GEOID") Zero zero,
            @RequestParam(defaultValue = "METRE") Unit unit,
            @RequestParam(defaultValue = "0") String local,
            @RequestParam(defaultValue = "") String search,
            Model model) {
        model.addAttribute("places", places);
        model.addAttribute("from", from);
        model.addAttribute("to", to);
        model.addAttribute("zero", zero);
        model.addAttribute("unit", unit);
        model.addAttribute("local", local);
        model.addAttribute("search", search);
        model.addAttribute("found", found(search));
        model.addAttribute("lengths", new Unit[] {Unit.METRE, Unit.FOOT, Unit.US_SURVEY_FOOT});
        List<Converted> rows = new ArrayList<>();
        String fault = "";
        try {
            if (!places.isBlank()) {
                rows = rows(places, system(from), to.isBlank() ? 0 : system(to), zero, unit, offset(local));
            }
            model.addAttribute("fromName", name(system(from)));
            model.addAttribute("toName", to.isBlank() ? "UTM of the place" : name(system(to)));
        } catch (InputFault told) {
            fault = told.getMessage();
        }
        model.addAttribute("fault", fault);
        model.addAttribute("rows", rows);
        return "control/converter";
    }

    private static double offset(String local) {
        try {
            return Double.parseDouble(local.strip().replace(',', '.'));
        } catch (NumberFormatException noFigure) {
            throw new InputFault("local", local, "“%s” is no figure in metres for the local level.".formatted(local));
        }
    }

    private static String name(int epsg) {
        return "EPSG:" + epsg + " " + SystemNames.of(epsg);
    }

    /** By name or code; by a position the UTM grid there and WGS84. */
    private static List<SystemNames.Named> found(String search) {
        if (search.isBlank()) {
            return List.of();
        }
        try {
            LonLat at = TypedPosition.read(search, Optional.empty());
            int utm = UtmZone.epsg(at);
            return List.of(
                    new SystemNames.Named(utm, SystemNames.of(utm), false),
                    new SystemNames.Named(WGS84, SystemNames.of(WGS84), true));
        } catch (InputFault noPlace) {
            return SystemNames.search(search);
        }
    }

    private static int system(String typed) {
        try {
            return Integer.parseInt(typed.strip().toUpperCase(Locale.ROOT).replace("EPSG:", ""));
        } catch (NumberFormatException noCode) {
            throw new InputFault(
                    "from", typed, "“%s” is no EPSG code; search the list by name or place below.".formatted(typed));
        }
    }

    private static List<Converted> rows(String places, int from, int to, Zero zero, Unit unit, double localM) {
        List<Converted> rows = new ArrayList<>();
        for (String line : places.lines().toList()) {
            if (line.isBlank()) {
                continue;
            }
            if (rows.size() == MOST_LINES) {
                throw new InputFault("places", MOST_LINES, "Up to %d places at once.".formatted(MOST_LINES));
            }
            try {
                rows.add(row(line.strip(), from, to, zero, unit, localM));
            } catch (InputFault fault) {
                rows.add(new Converted(line.strip(), "", "", "", "", "", fault.getMessage()));
            }
        }
        return rows;
    }

    private static Converted row(String line, int from, int to, Zero zero, Unit unit, double localM) {
        // What follows a semicolon or the word "height" is the height; the place may hold commas.
        String[] parts = line.split(";|(?i)\\bheight\\b", 2);
        LonLat at = position(parts[0].strip(), from);
        int target = to == 0 ? UtmZone.epsg(at) : to;
        String height = parts.length < 2 || parts[1].isBlank() ? "" : heights(parts[1].strip(), at, zero, unit, localM);
        return new Converted(
                line,
                written(at, target),
                String.format(Locale.ROOT, "%.9f, %.9f", at.latDeg(), at.lonDeg()),
                sexagesimal(at.latDeg(), "N", "S") + " " + sexagesimal(at.lonDeg(), "E", "W"),
                name(target),
                height,
                "");
    }

    private static LonLat position(String text, int from) {
        Optional<Geographic> geographic = Geographic.ofEpsg(from);
        if (geographic.isPresent()) {
            LonLat there = TypedPosition.read(text, Optional.empty());
            return from == WGS84 ? there : geographic.get().toWgs84(there.lonDeg(), there.latDeg());
        }
        return TypedPosition.read(text, Optional.of(Grid.ofEpsg(from)));
    }

    private static String written(LonLat at, int to) {
        Optional<Geographic> geographic = Geographic.ofEpsg(to);
        if (geographic.isPresent()) {
            LonLat there = to == WGS84 ? at : geographic.get().ofWgs84(at);
            return String.format(Locale.ROOT, "%.9f, %.9f", there.latDeg(), there.lonDeg());
        }
        Grid grid = Grid.ofEpsg(to);
        EastNorth there = grid.toGrid(at);
        String plain = String.format(Locale.ROOT, "%.4f, %.4f", there.east(), there.north());
        return grid.unitM() == 1 ? plain + " m" : plain + String.format(Locale.ROOT, " (unit %.9f m)", grid.unitM());
    }

    private static String sexagesimal(double degrees, String positive, String negative) {
        long parts = Math.round(Math.abs(degrees) * 3600 * 100_000);
        return String.format(
                Locale.ROOT,
                "%d°%02d'%08.5f\"%s",
                parts / 360_000_000,
                parts / 6_000_000 % 60,
                parts % 6_000_000 / 100_000.0,
                degrees < 0 ? negative : positive);
    }

    /** A height in all three systems, in metres and both feet. */
    private static String heights(String text, LonLat at, Zero zero, Unit unit, double localM) {
        double figure;
        try {
            figure = Double.parseDouble(text.replace(',', '.').replaceAll("(?i)\\s*(m|ft|usft)$", ""));
        } catch (NumberFormatException noFigure) {
            throw new InputFault("height", text, "“%s” is no height.".formatted(text));
        }
        double geoid = new VerticalDatum(zero, unit, 0).aboveGeoidM(figure, at);
        double undulation = Geoid.egm96().undulationM(at);
        Geocentric centre = Geocentric.of(at, geoid + undulation);
        return String.format(
                Locale.ROOT,
                "geoid %.3f m, ellipsoid %.3f m, local level %.3f m; geoid %.3f ft = %.3f ftUS; X %.3f Y %.3f Z %.3f m",
                geoid,
                geoid + undulation,
                geoid - localM,
                Unit.FOOT.ofSi(geoid),
                Unit.US_SURVEY_FOOT.ofSi(geoid),
                centre.xM(),
                centre.yM(),
                centre.zM());
    }
}

package yalos.web.control;

import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import javax.xml.stream.XMLStreamException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;
import yalos.core.block.LocalPlane;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.control.MarkedPlace;
import yalos.core.control.PointPhotos;
import yalos.core.exchange.PointFiles;
import yalos.core.fault.Names;
import yalos.core.measured.MeasuredPoint;
import yalos.core.plan.BlockPlan;
import yalos.web.block.Blocks;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.block.Planned;
import yalos.web.shell.Download;
import yalos.web.shell.NotThere;

/** Control and check points in open files: measured ones where they were measured, the others where they are planned. */
@Controller
public class PointsOut {
    /** Media types by ending. */
    private static final Map<String, String> TYPES = Map.of(
            "csv",
            "text/csv;charset=UTF-8",
            "geojson",
            "application/geo+json",
            "kml",
            "application/vnd.google-earth.kml+xml",
            "gpx",
            "application/gpx+xml",
            "gpkg",
            "application/geopackage+sqlite3");

    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final Blocks blocks;
    private final PlanDesk plans;
    private final MeasuredPoints measured;

    PointsOut(Blocks blocks, PlanDesk plans, MeasuredPoints measured) {
        this.blocks = blocks;
        this.plans = plans;
        this.measured = measured;
    }

    @GetMapping("/blocks/{id}/export/control.{format}")
    void points(
            @PathVariable long id,
            @PathVariable String format,
            @RequestParam(defaultValue = PointFiles.USUAL_ORDER) String order,
            HttpServletResponse response)
            throws IOException, XMLStreamException, SQLException {
        OpenBlock block = blocks.open(id);
        byte[] file = file(block, format, order);
        head(response, TYPES.get(format), block, "points", format);
        response.getOutputStream().write(file);
    }

    /**
     * All points of a block in a file, written whole before anything of it goes out: a column nobody knows is told, not broken off.
     *
     * @param format ending of the file
     * @param order of columns, for CSV
     */
    public byte[] file(OpenBlock block, String format, String order)
            throws IOException, XMLStreamException, SQLException {
        LocalPlane plane = MeasuredController.plane(block);
        List<PointFiles.Point> points = points(block, plane);
        String title = block.jobName() + ", " + block.name() + ", control and check points";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        switch (format) {
            case "csv" -> {
                StringBuilder text = new StringBuilder();
                PointFiles.csv(points, plane.grid(), order, text);
                out.write(text.toString().getBytes(StandardCharsets.UTF_8));
            }
            case "geojson" -> out.write(geoJson(points).toString().getBytes(StandardCharsets.UTF_8));
            case "kml" -> PointFiles.kml(title, points, out);
            case "gpx" -> PointFiles.gpx(title, points, out);
            case "gpkg" -> {
                Path file = Files.createTempFile("points", ".gpkg");
                try {
                    PointsGeoPackage.write(file, title, points);
                    Files.copy(file, out);
                } finally {
                    Files.deleteIfExists(file);
                }
            }
            default ->
                throw new NotThere("Points are written as csv, geojson, kml, gpx and gpkg, not as " + format + ".");
        }
        return out.toByteArray();
    }

    /** The photos that will show each point, best first, as CSV. */
    @GetMapping("/blocks/{id}/export/control-photos.csv")
    void photos(@PathVariable long id, HttpServletResponse response) throws IOException {
        OpenBlock block = blocks.open(id);
        BlockPlan plan = plans.needed(block.facts());
        head(response, "text/csv;charset=UTF-8", block, "point-photos", "csv");
        StringBuilder text = new StringBuilder();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader("point", "photo", "strip", "u_px", "v_px", "from_middle", "gsd_cm", "angle_deg")
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (ControlPoint point : block.facts().control().points()) {
                for (PointPhotos.Seen seen : PointPhotos.of(plan, MarkedPlace.of(plan, point))) {
                    printer.printRecord(
                            point.name(),
                            seen.photo().id(),
                            seen.photo().line(),
                            decimals(seen.u(), 1),
                            decimals(seen.v(), 1),
                            decimals(seen.fromMiddle(), 3),
                            decimals(seen.gsdM() * 100, 2),
                            decimals(Math.toDegrees(seen.angleRad()), 1));
                }
            }
        }
        response.getOutputStream().write(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static String decimals(double figure, int decimals) {
        return String.format(Locale.ROOT, "%." + decimals + "f", figure);
    }

    private List<PointFiles.Point> points(OpenBlock block, LocalPlane plane) {
        ControlLayout layout = block.facts().control();
        Map<String, MeasuredPoint> found = measured.points(
                measured.judged(block.id(), plane, layout.assumptions().epochs()), plane);
        List<PointFiles.Point> points = new ArrayList<>();
        for (ControlPoint point : layout.points()) {
            MeasuredPoint seen = found.get(ControlLayout.key(point.name()));
            points.add(
                    seen == null
                            ? new PointFiles.Point(
                                    point.name(),
                                    point.role().words(),
                                    point.kind().words(),
                                    point.place(),
                                    plannedUp(block, point),
                                    0,
                                    OptionalDouble.empty(),
                                    point.note())
                            : new PointFiles.Point(
                                    point.name(),
                                    point.role().words(),
                                    point.kind().words(),
                                    seen.place(),
                                    seen.upM(),
                                    seen.count(),
                                    OptionalDouble.of(layout.assumptions().horizontalM()
                                            * point.kind().coarser()),
                                    point.note()));
        }
        return points;
    }

    /** Of the model under a point that nobody measured; not known over level ground. */
    private OptionalDouble plannedUp(OpenBlock block, ControlPoint point) {
        if (point.upM().isPresent()) {
            return point.upM();
        }
        return plans.plan(block.facts())
                .whole()
                .map(Planned.Whole::plan)
                .filter(plan -> plan.overGround().isPresent())
                .map(plan -> MarkedPlace.of(plan, point).upM())
                .filter(Double::isFinite)
                .map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
    }

    private static ObjectNode geoJson(List<PointFiles.Point> points) {
        ObjectNode root = JSON.createObjectNode();
        root.put("type", "FeatureCollection");
        ArrayNode features = root.putArray("features");
        for (PointFiles.Point point : points) {
            ObjectNode feature = features.addObject();
            feature.put("type", "Feature");
            ObjectNode geometry = feature.putObject("geometry");
            geometry.put("type", "Point");
            ArrayNode place = geometry.putArray("coordinates");
            place.add(rounded(point.at().lonDeg(), 1e10));
            place.add(rounded(point.at().latDeg(), 1e10));
            // RFC 7946: a third figure counts from the ellipsoid.
            point.ellipsoidM().ifPresent(m -> place.add(rounded(m, 1e4)));
            ObjectNode properties = feature.putObject("properties");
            properties.put("name", point.name());
            properties.put("role", point.role());
            properties.put("kind", point.kind());
            properties.put("timesMeasured", point.measured());
            point.upM().ifPresent(m -> properties.put("aboveGeoidM", rounded(m, 1e4)));
            properties.put("note", point.note());
        }
        return root;
    }

    private static double rounded(double figure, double by) {
        return Math.round(figure * by) / by;
    }

    private static void head(HttpServletResponse response, String type, OpenBlock block, String what, String ending) {
        Download.head(
                response, type, Names.ofFile(block.jobName() + "-" + block.name() + "-" + what, "plan") + "." + ending);
    }
}

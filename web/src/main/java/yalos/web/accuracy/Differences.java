package yalos.web.accuracy;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import javax.imageio.ImageIO;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.accuracy.GridDifference;
import yalos.core.accuracy.Residual;
import yalos.core.block.LocalPlane;
import yalos.core.control.ControlLayout;
import yalos.core.control.ControlPoint;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.Bounds;
import yalos.core.measured.MeasuredPoint;
import yalos.core.plan.BlockPlan;
import yalos.core.terrain.ElevationModel;
import yalos.core.terrain.GeoTiff;
import yalos.core.terrain.HeightGrid;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.UnitChoice;
import yalos.web.block.OpenBlock;
import yalos.web.block.PlanDesk;
import yalos.web.control.MeasuredPoints;
import yalos.web.control.Shown;
import yalos.web.figure.DifferenceColour;
import yalos.web.shell.Person;
import yalos.web.store.AccuracyMapper.ResidualRow;
import yalos.web.store.TakeMapper;
import yalos.web.store.TakeMapper.FileRow;

/** Surfaces of the delivered map held against an earlier one, and against points on the ground. */
@Component
class Differences {
    static final String KIND = "DIFFERENCE";
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int CELLS = 160_000;

    private final TakeMapper rows;
    private final PlanDesk plans;
    private final MeasuredPoints measured;

    Differences(TakeMapper rows, PlanDesk plans, MeasuredPoints measured) {
        this.rows = rows;
        this.plans = plans;
        this.measured = measured;
    }

    /** What was found, with its map as a picture. */
    record Stored(
            String later,
            String earlier,
            int cells,
            double cellM,
            double median,
            double spread,
            Double east,
            Double north,
            double up,
            double left,
            double changed,
            double scale,
            String png) {}

    /** A difference as it is shown. */
    public record View(long id, String name, String words, String shift, String scale, String picture) {}

    List<View> views(long block, UnitChoice units) {
        List<View> views = new ArrayList<>();
        for (FileRow row : rows.files(block)) {
            if (row.kind().equals(KIND)) {
                Stored one = JSON.readValue(row.found(), Stored.class);
                views.add(new View(
                        row.id(),
                        row.name(),
                        "%s over it in the middle, spread %s; %.1f %% of the ground changed"
                                .formatted(
                                        Shown.accuracy(units, one.median()),
                                        Shown.accuracy(units, one.spread()),
                                        100 * one.changed()),
                        one.east() == null
                                ? "%s up; the ground is too level to tell a shift sideways"
                                        .formatted(Shown.accuracy(units, one.up()))
                                : "shifted %s east, %s north, %s up; %s is left then"
                                        .formatted(
                                                Shown.accuracy(units, one.east()),
                                                Shown.accuracy(units, one.north()),
                                                Shown.accuracy(units, one.up()),
                                                Shown.accuracy(units, one.left())),
                        "dark below, light above, from %s to %s"
                                .formatted(Shown.accuracy(units, -one.scale()), Shown.accuracy(units, one.scale())),
                        "data:image/png;base64," + one.png()));
            }
        }
        return views;
    }

    /** The block's cells, to hold surfaces against each other. */
    private static HeightGrid cells(BlockPlan plan) {
        Bounds bounds = plan.block().bounds();
        double cell = Math.max(0.05, Math.sqrt(bounds.width() * bounds.height() / CELLS));
        return HeightGrid.level(
                bounds.west(),
                bounds.north(),
                cell,
                (int) Math.ceil(bounds.width() / cell) + 1,
                (int) Math.ceil(bounds.height() / cell) + 1,
                Double.NaN);
    }

    private static HeightGrid read(Path file, BlockPlan plan, VerticalDatum datum) {
        HeightGrid grid = cells(plan);
        try (GeoTiff raster = GeoTiff.open(file)) {
            if (raster.isPicture()) {
                throw new InputFault(
                        "file",
                        "picture",
                        "This is a picture, not heights. Bring the surface as a GeoTIFF of heights.");
            }
            ElevationModel.of(raster, OptionalInt.empty(), datum)
                    .fill(grid, plan.block().plane());
        }
        if (grid.known() == 0) {
            throw new InputFault("file", "elsewhere", "The model knows no ground of this block. Is it another site's?");
        }
        return grid;
    }

    /** Holds a later surface against an earlier one. */
    void compare(OpenBlock block, String laterName, Path later, String earlierName, Path earlier) throws IOException {
        BlockPlan plan = plans.needed(block.facts());
        GridDifference found = GridDifference.of(
                read(later, plan, VerticalDatum.GEOID_METRES), read(earlier, plan, VerticalDatum.GEOID_METRES));
        double scale = Math.max(0.02, 3 * found.spreadM());
        Stored stored = new Stored(
                laterName,
                earlierName,
                found.cells(),
                found.grid().cellX(),
                found.medianM(),
                found.spreadM(),
                Double.isNaN(found.eastM()) ? null : found.eastM(),
                Double.isNaN(found.northM()) ? null : found.northM(),
                found.upM(),
                found.leftM(),
                found.changed(),
                scale,
                Base64.getEncoder().encodeToString(picture(found, scale)));
        rows.appendFile(
                block.id(),
                new FileRow(
                        0,
                        KIND,
                        cut(laterName + " over " + earlierName),
                        0,
                        "",
                        JSON.writeValueAsString(stored),
                        null,
                        Person.present()));
    }

    private static String cut(String text) {
        return text.length() > 200 ? text.substring(0, 200) : text;
    }

    /** Grey for no difference, blue below, sand above; nothing where one of them knows nothing. */
    private static byte[] picture(GridDifference found, double scale) throws IOException {
        HeightGrid grid = found.grid();
        BufferedImage image = new BufferedImage(grid.columns(), grid.rows(), BufferedImage.TYPE_INT_ARGB);
        for (int row = 0; row < grid.rows(); row++) {
            for (int column = 0; column < grid.columns(); column++) {
                float d = found.differenceM()[row * grid.columns() + column];
                if (!Float.isNaN(d)) {
                    image.setRGB(column, row, DifferenceColour.of(Math.max(-1, Math.min(1, d / scale))));
                }
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    void remove(long block, long id) {
        rows.dropFile(block, id);
    }

    /** The surface at the points that were measured: by how much it is off at each. */
    List<ResidualRow> atPoints(OpenBlock block, String name, Path file, VerticalDatum datum) {
        LocalPlane plane = LocalPlane.at(
                block.facts().grid().orElseThrow(() -> new InputFault("file", "none", "The block has no place yet.")),
                block.facts().outline().middle());
        List<MeasuredPoints.Judged> judged = measured.judged(block.id(), plane, 0);
        Map<String, MeasuredPoint> points = measured.points(judged, plane);
        List<ResidualRow> residuals = new ArrayList<>();
        try (GeoTiff raster = GeoTiff.open(file)) {
            ElevationModel model = ElevationModel.of(raster, OptionalInt.empty(), datum);
            points.forEach((key, point) -> {
                if (point.upM().isPresent() && model.contains(point.place())) {
                    double up = model.heightM(point.place());
                    if (!Double.isNaN(up)) {
                        residuals.add(row(block, key, point, up - point.upM().getAsDouble(), judged, name));
                    }
                }
            });
        }
        if (residuals.isEmpty()) {
            throw new InputFault(
                    "file",
                    name,
                    "No measured point with a height lies on this surface. Bring in measurements on the Control stage first.");
        }
        return residuals;
    }

    private static ResidualRow row(
            OpenBlock block,
            String key,
            MeasuredPoint point,
            double off,
            List<MeasuredPoints.Judged> judged,
            String source) {
        Optional<ControlPoint> planned = block.facts().control().points().stream()
                .filter(one -> ControlLayout.key(one.name()).equals(key))
                .findFirst();
        Optional<MeasuredPoints.Judged> first = judged.stream()
                .filter(one -> ControlLayout.key(one.one().point()).equals(key))
                .findFirst();
        Residual.Kind kind = planned.map(
                        one -> one.role() == ControlPoint.Role.CONTROL ? Residual.Kind.CONTROL : Residual.Kind.CHECK)
                .orElse(Residual.Kind.GROUND);
        String note = first.map(one -> one.one().note()).orElse("");
        return new ResidualRow(
                0,
                first.map(one -> one.one().point()).orElse(key),
                kind.name(),
                null,
                null,
                off,
                point.place().lonDeg(),
                point.place().latDeg(),
                point.upM().getAsDouble(),
                kind == Residual.Kind.GROUND
                        ? note.length() > 60
                                ? note.substring(0, 60).toLowerCase(Locale.ROOT)
                                : note.toLowerCase(Locale.ROOT)
                        : "",
                cut(source),
                "",
                LocalDateTime.now().withNano(0),
                Person.present());
    }
}

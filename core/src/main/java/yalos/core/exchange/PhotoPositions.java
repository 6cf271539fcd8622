package yalos.core.exchange;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.terrain.VerticalDatum.Zero;

/**
 * A table of where photos were taken: name, position, and whatever of height, angles and accuracies it has, its columns in any order and told by their headings.
 *
 * @param rows one for each photo
 * @param zero what heights count from, as far as the heading says
 */
public record PhotoPositions(List<Row> rows, Optional<Zero> zero) {

    /**
     * A photo of the table.
     *
     * @param photo its file's name
     * @param heightM above what the heights count from
     * @param yawDeg clockwise from true north
     * @param horizontalM accuracy, one standard deviation
     */
    public record Row(
            String photo,
            LonLat place,
            OptionalDouble heightM,
            OptionalDouble yawDeg,
            OptionalDouble pitchDeg,
            OptionalDouble rollDeg,
            OptionalDouble horizontalM,
            OptionalDouble verticalM) {}

    /** What a column may hold and how it may be headed, in small letters without units. */
    private enum Column {
        NAME("name", "photo", "image", "file", "filename", "file name", "image name", "label", "picture"),
        LATITUDE("lat", "latitude", "y lat"),
        LONGITUDE("lon", "long", "lng", "longitude"),
        EAST("easting", "east", "e", "x"),
        NORTH("northing", "north", "n", "y"),
        HEIGHT(
                "height",
                "h",
                "altitude",
                "alt",
                "elevation",
                "z",
                "ele",
                "height ellipsoid",
                "height geoid",
                "ellipsoidal height",
                "orthometric height",
                "height above geoid",
                "height above ellipsoid"),
        YAW("yaw", "heading", "kappa", "yaw true"),
        PITCH("pitch", "camera pitch", "tilt"),
        ROLL("roll", "camera roll"),
        HORIZONTAL(
                "accuracy h",
                "sigma h",
                "horizontal accuracy",
                "accuracy horizontal",
                "h accuracy",
                "sigma xy",
                "hacc",
                "accuracy"),
        VERTICAL("accuracy v", "sigma v", "vertical accuracy", "accuracy vertical", "v accuracy", "sigma z", "vacc");

        private final List<String> headings;

        Column(String... headings) {
            this.headings = List.of(headings);
        }
    }

    /**
     * @param grid in which eastings and northings are meant
     * @throws InputFault for a table without a name or a position
     */
    public static PhotoPositions read(byte[] file, Optional<Grid> grid) {
        PointTable table = PointTable.read(file);
        Map<Column, Integer> at = columns(table.heading());
        boolean degrees = at.containsKey(Column.LATITUDE) && at.containsKey(Column.LONGITUDE);
        boolean metres = at.containsKey(Column.EAST) && at.containsKey(Column.NORTH) && grid.isPresent();
        if (!at.containsKey(Column.NAME) || !degrees && !metres) {
            throw new InputFault(
                    "file",
                    String.join(", ", table.heading()),
                    "The table needs a heading with the photo's name, and latitude and longitude or easting and northing in the job's grid; it has “%s”."
                            .formatted(table.heading().isEmpty() ? "no heading" : String.join(", ", table.heading())));
        }
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < table.rows().size(); i++) {
            List<String> cells = table.rows().get(i);
            int shown = i + 2;
            double first = needed(cells, at.get(degrees ? Column.LATITUDE : Column.EAST), shown);
            double second = needed(cells, at.get(degrees ? Column.LONGITUDE : Column.NORTH), shown);
            rows.add(new Row(
                    cells.get(at.get(Column.NAME)),
                    degrees ? LonLat.of(second, first) : grid.orElseThrow().toLonLat(new EastNorth(first, second)),
                    figure(cells, at.get(Column.HEIGHT), shown),
                    figure(cells, at.get(Column.YAW), shown),
                    figure(cells, at.get(Column.PITCH), shown),
                    figure(cells, at.get(Column.ROLL), shown),
                    figure(cells, at.get(Column.HORIZONTAL), shown),
                    figure(cells, at.get(Column.VERTICAL), shown)));
        }
        String heading = at.containsKey(Column.HEIGHT) ? plain(table.heading().get(at.get(Column.HEIGHT))) : "";
        return new PhotoPositions(
                rows,
                heading.contains("ellips")
                        ? Optional.of(Zero.ELLIPSOID)
                        : heading.contains("geoid") || heading.contains("ortho")
                                ? Optional.of(Zero.GEOID)
                                : Optional.empty());
    }

    private static Map<Column, Integer> columns(List<String> heading) {
        List<String> plain = heading.stream().map(PhotoPositions::plain).collect(Collectors.toList());
        Map<Column, Integer> found = new EnumMap<>(Column.class);
        for (Column column : Column.values()) {
            for (String name : column.headings) {
                int index = plain.indexOf(name);
                if (index >= 0) {
                    found.put(column, index);
                    break;
                }
            }
        }
        return found;
    }

    private static String plain(String title) {
        return title.toLowerCase(Locale.ROOT)
                .replaceAll("[(\\[].*", "")
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .strip()
                .replaceAll(" (m|deg|metres|meters|degrees)$", "");
    }

    private static double needed(List<String> cells, int column, int row) {
        OptionalDouble value = figure(cells, column, row);
        return value.orElseThrow(
                () -> new InputFault("file", "", "Row %d has no position. Nothing was kept.".formatted(row)));
    }

    private static OptionalDouble figure(List<String> cells, Integer column, int row) {
        if (column == null || cells.get(column).isBlank()) {
            return OptionalDouble.empty();
        }
        String text = cells.get(column).strip();
        try {
            double value = Double.parseDouble(text);
            if (Double.isFinite(value)) {
                return OptionalDouble.of(value);
            }
        } catch (NumberFormatException noFigure) {
            // told below
        }
        throw new InputFault("file", text, "Row %d: “%s” is no figure. Nothing was kept.".formatted(row, text));
    }
}

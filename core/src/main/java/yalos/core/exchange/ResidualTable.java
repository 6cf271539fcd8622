package yalos.core.exchange;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.units.Unit;

/**
 * A table of points of the delivered map: by how much each is off, or where the map has it. Columns in any order, told by their headings.
 *
 * @param rows one for each point
 * @param differences whether they hold differences; places of the map otherwise
 */
public record ResidualTable(List<Row> rows, boolean differences) {

    /**
     * A point.
     *
     * @param east difference in metres; empty where the table has places
     * @param mapPlace where the map has it; empty where the table has differences
     * @param up difference, or height in the map, in metres
     * @param role as the table writes it; may be empty
     */
    public record Row(
            String point,
            OptionalDouble east,
            OptionalDouble north,
            Optional<LonLat> mapPlace,
            OptionalDouble up,
            String role,
            String surface) {}

    private enum Column {
        POINT("point", "name", "id", "label", "no", "nr", "punkt", "marker"),
        D_EAST(
                "de",
                "dx",
                "delta e",
                "delta x",
                "d e",
                "d x",
                "x error",
                "error x",
                "east error",
                "residual e",
                "residual x",
                "dlon"),
        D_NORTH(
                "dn",
                "dy",
                "delta n",
                "delta y",
                "d n",
                "d y",
                "y error",
                "error y",
                "north error",
                "residual n",
                "residual y",
                "dlat"),
        D_UP(
                "dh",
                "dz",
                "delta h",
                "delta z",
                "d h",
                "d z",
                "z error",
                "error z",
                "height error",
                "residual h",
                "residual z"),
        EAST("easting", "east", "e", "x"),
        NORTH("northing", "north", "n", "y"),
        LATITUDE("latitude", "lat"),
        LONGITUDE("longitude", "lon", "long"),
        UP("height", "h", "z", "elevation", "level", "altitude"),
        ROLE("role", "kind", "type", "use", "used as"),
        SURFACE("surface", "ground", "cover", "note", "code");

        private final List<String> headings;

        Column(String... headings) {
            this.headings = List.of(headings);
        }
    }

    /**
     * @param grid in which eastings and northings are meant
     * @param unit of differences and heights
     * @param turned whether differences are ground less map
     * @throws InputFault for a table without points, or with neither differences nor places
     */
    public static ResidualTable read(byte[] file, Optional<Grid> grid, Unit unit, boolean turned) {
        PointTable table = PointTable.read(file, 2);
        Map<Column, Integer> at = columns(table.heading());
        boolean differences = at.containsKey(Column.D_UP) || at.containsKey(Column.D_EAST);
        boolean places = at.containsKey(Column.LATITUDE) && at.containsKey(Column.LONGITUDE)
                || at.containsKey(Column.EAST) && at.containsKey(Column.NORTH) && grid.isPresent();
        boolean heights = at.containsKey(Column.UP);
        if (!at.containsKey(Column.POINT) || !differences && !places && !heights) {
            throw new InputFault(
                    "file",
                    String.join(", ", table.heading()),
                    "The table needs a heading with the point's name and differences (dE, dN, dH), or with where the map has it (easting, northing, height); it has “%s”."
                            .formatted(table.heading().isEmpty() ? "no heading" : String.join(", ", table.heading())));
        }
        double sign = turned && differences ? -1 : 1;
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < table.rows().size(); i++) {
            Cells cells = new Cells(table.rows().get(i), at, i + 2, unit);
            rows.add(
                    differences
                            ? new Row(
                                    cells.text(Column.POINT),
                                    cells.length(Column.D_EAST, sign),
                                    cells.length(Column.D_NORTH, sign),
                                    Optional.empty(),
                                    cells.length(Column.D_UP, sign),
                                    cells.text(Column.ROLE),
                                    cells.text(Column.SURFACE))
                            : new Row(
                                    cells.text(Column.POINT),
                                    OptionalDouble.empty(),
                                    OptionalDouble.empty(),
                                    places ? cells.place(grid) : Optional.empty(),
                                    cells.length(Column.UP, 1),
                                    cells.text(Column.ROLE),
                                    cells.text(Column.SURFACE)));
        }
        return new ResidualTable(rows, differences);
    }

    private static Map<Column, Integer> columns(List<String> heading) {
        List<String> plain = heading.stream()
                .map(title -> title.toLowerCase(Locale.ROOT)
                        .replaceAll("[(\\[].*", "")
                        .replaceAll("[^\\p{L}\\p{N}]+", " ")
                        .strip()
                        .replaceAll(" (m|ft|mm|cm|metres|meters|feet|deg)$", ""))
                .toList();
        Map<Column, Integer> found = new EnumMap<>(Column.class);
        for (Column column : Column.values()) {
            for (String name : column.headings) {
                int index = plain.indexOf(name);
                if (index >= 0 && !found.containsValue(index)) {
                    found.put(column, index);
                    break;
                }
            }
        }
        return found;
    }

    private record Cells(List<String> cells, Map<Column, Integer> at, int row, Unit unit) {
        String text(Column column) {
            Integer index = at.get(column);
            return index == null ? "" : cells.get(index).strip();
        }

        OptionalDouble figure(Column column) {
            String text = text(column).replace("\u2212", "-");
            if (text.isEmpty()) {
                return OptionalDouble.empty();
            }
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

        OptionalDouble length(Column column, double sign) {
            OptionalDouble value = figure(column);
            return value.isEmpty() ? value : OptionalDouble.of(sign * unit.toSi(value.getAsDouble()));
        }

        Optional<LonLat> place(Optional<Grid> grid) {
            boolean degrees = at.containsKey(Column.LATITUDE) && at.containsKey(Column.LONGITUDE);
            OptionalDouble first = figure(degrees ? Column.LATITUDE : Column.EAST);
            OptionalDouble second = figure(degrees ? Column.LONGITUDE : Column.NORTH);
            if (first.isEmpty() || second.isEmpty()) {
                return Optional.empty();
            }
            return Optional.of(
                    degrees
                            ? LonLat.of(second.getAsDouble(), first.getAsDouble())
                            : grid.orElseThrow().toLonLat(new EastNorth(first.getAsDouble(), second.getAsDouble())));
        }
    }
}

package yalos.core.measured;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.control.ControlLayout;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.measured.Observation.Solution;
import yalos.core.terrain.VerticalDatum;
import yalos.core.units.Unit;

/**
 * A table of measured points read in a frame. Rows that cannot be read are told, each with its number, and nothing is guessed in their place.
 *
 * @param rows what was read
 * @param faults what was not, in sentences
 */
public record ObservationReading(List<Row> rows, List<String> faults) {
    private static final int MOST_FAULTS = 20;
    private static final int EARLIEST_YEAR = 1990;
    private static final int LATEST_YEAR = 2100;
    private static final DateTimeFormatter[] DATES = {
        DateTimeFormatter.ISO_LOCAL_DATE,
        DateTimeFormatter.ofPattern("d.M.uuuu", Locale.ROOT),
        DateTimeFormatter.ofPattern("uuuu/M/d", Locale.ROOT),
        DateTimeFormatter.ofPattern("d/M/uuuu", Locale.ROOT),
    };

    /** Row of the table, from 1 below the heading, and what it says. */
    public record Row(int number, Observation observation) {}

    /** Reads a latitude and longitude in any notation. */
    public interface Degrees {
        LonLat read(String latitude, String longitude);
    }

    /**
     * @param columns what each column holds
     * @param table rows of cells
     */
    public static ObservationReading of(
            List<ObservationColumn> columns, List<List<String>> table, ObservationFrame frame, Degrees degrees) {
        boolean grid = frame.grid();
        ObservationColumn[] needed = grid
                ? new ObservationColumn[] {ObservationColumn.NAME, ObservationColumn.EAST, ObservationColumn.NORTH}
                : new ObservationColumn[] {
                    ObservationColumn.NAME, ObservationColumn.LATITUDE, ObservationColumn.LONGITUDE
                };
        for (ObservationColumn one : needed) {
            if (!columns.contains(one)) {
                throw new InputFault(
                        "columns",
                        one.words(),
                        "Say which column is the %s%s."
                                .formatted(one.words(), grid ? "" : "; for eastings and northings give the grid"));
            }
        }
        List<Row> rows = new ArrayList<>();
        List<String> faults = new ArrayList<>();
        Map<String, Integer> seen = new HashMap<>();
        for (int i = 0; i < table.size(); i++) {
            int number = i + 1;
            if (frame.leftOut().contains(number)) {
                continue;
            }
            try {
                Observation one = new Cells(columns, table.get(i), frame, degrees).observation();
                int before = seen.merge(ControlLayout.key(one.point()), 1, Integer::sum);
                rows.add(new Row(
                        number, frame.numberRepeats() && before > 1 ? one.named(one.point() + "-" + before) : one));
            } catch (InputFault fault) {
                faults.add("Row %d: %s".formatted(number, fault.getMessage()));
            }
        }
        if (faults.size() > MOST_FAULTS) {
            int more = faults.size() - MOST_FAULTS;
            faults = new ArrayList<>(faults.subList(0, MOST_FAULTS));
            faults.add("… and %,d rows more.".formatted(more));
        }
        return new ObservationReading(rows, faults);
    }

    private record Cells(List<ObservationColumn> columns, List<String> cells, ObservationFrame frame, Degrees degrees) {
        String text(ObservationColumn column) {
            int at = columns.indexOf(column);
            return at < 0 || at >= cells.size() ? "" : cells.get(at).strip();
        }

        OptionalDouble figure(ObservationColumn column, String what) {
            String text = text(column).replace("\u2212", "-");
            if (text.isEmpty()) {
                return OptionalDouble.empty();
            }
            try {
                return OptionalDouble.of(Double.parseDouble(text.replaceAll("(?i)\\s*(m|ft|usft)$", "")));
            } catch (NumberFormatException noFigure) {
                throw new InputFault(what, text, "“%s” is no figure for the %s.".formatted(text, what));
            }
        }

        OptionalInt whole(ObservationColumn column, String what) {
            OptionalDouble figure = figure(column, what);
            return figure.isPresent() ? OptionalInt.of((int) Math.round(figure.getAsDouble())) : OptionalInt.empty();
        }

        OptionalDouble metres(ObservationColumn column, String what) {
            OptionalDouble figure = figure(column, what);
            return figure.isPresent()
                    ? OptionalDouble.of(frame.heightUnit().toSi(figure.getAsDouble()))
                    : OptionalDouble.empty();
        }

        Observation observation() {
            LonLat place = place();
            OptionalDouble height = figure(ObservationColumn.HEIGHT, "height");
            VerticalDatum datum = new VerticalDatum(frame.zero(), frame.heightUnit(), 0);
            return new Observation(
                    text(ObservationColumn.NAME),
                    time(text(ObservationColumn.TIME)),
                    place,
                    height.isPresent()
                            ? OptionalDouble.of(datum.aboveGeoidM(height.getAsDouble(), place))
                            : OptionalDouble.empty(),
                    whole(ObservationColumn.EPOCHS, "epochs"),
                    metres(ObservationColumn.HORIZONTAL, "accuracy"),
                    metres(ObservationColumn.VERTICAL, "accuracy"),
                    metres(ObservationColumn.RMS, "RMS"),
                    Solution.of(text(ObservationColumn.SOLUTION)),
                    whole(ObservationColumn.SATELLITES, "satellites"),
                    metres(ObservationColumn.POLE, "pole"),
                    text(ObservationColumn.NOTE));
        }

        private LonLat place() {
            if (!frame.grid()) {
                String latitude = text(ObservationColumn.LATITUDE);
                String longitude = text(ObservationColumn.LONGITUDE);
                LonLat there = frame.swapped() ? degrees.read(longitude, latitude) : degrees.read(latitude, longitude);
                return frame.geographic()
                        .map(system -> system.toWgs84(there.lonDeg(), there.latDeg()))
                        .orElse(there);
            }
            OptionalDouble east = figure(ObservationColumn.EAST, "easting");
            OptionalDouble north = figure(ObservationColumn.NORTH, "northing");
            if (east.isEmpty() || north.isEmpty()) {
                throw new InputFault("place", "", "The place is missing.");
            }
            Grid grid = Grid.ofEpsg(frame.epsg().getAsInt());
            double perUnit = frame.unit() == Unit.METRE && grid.unitM() == 1
                    ? 1
                    : frame.unit().toSi(1) / grid.unitM();
            double first = east.getAsDouble() * perUnit;
            double second = north.getAsDouble() * perUnit;
            return grid.toLonLat(frame.swapped() ? new EastNorth(second, first) : new EastNorth(first, second));
        }
    }

    /** A date with or without a time, as ISO has it or with the day first; empty for nothing. */
    public static Optional<LocalDateTime> time(String text) {
        if (text.isEmpty()) {
            return Optional.empty();
        }
        String[] parts = text.replace("Z", "").strip().split("[T ]+", 2);
        for (DateTimeFormatter format : DATES) {
            try {
                LocalDate day = LocalDate.parse(parts[0], format.withResolverStyle(ResolverStyle.STRICT));
                if (day.getYear() < EARLIEST_YEAR || day.getYear() > LATEST_YEAR) {
                    break;
                }
                LocalTime clock = parts.length < 2
                        ? LocalTime.MIDNIGHT
                        : LocalTime.parse(parts[1].strip().replaceAll("^(\\d):", "0$1:"));
                return Optional.of(day.atTime(clock));
            } catch (DateTimeException other) {
                continue;
            }
        }
        throw new InputFault(
                "time",
                text,
                "“%s” is no date and time such as 2026-05-14 10:42:00 of a day there is.".formatted(text));
    }
}

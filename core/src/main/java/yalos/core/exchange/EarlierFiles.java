package yalos.core.exchange;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.Length;
import io.jenetics.jpx.Point;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.stream.Stream;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import yalos.core.exchange.EarlierPlan.Spot;
import yalos.core.exchange.EarlierPlan.Zero;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;

/** Reads {@linkplain EarlierPlan plans made earlier} from KML, GPX and tables. */
public final class EarlierFiles {
    private EarlierFiles() {}

    /** Points of placemarks as stations, else line strings as a path; heights as their altitude mode says. */
    public static EarlierPlan kml(byte[] content) {
        Kml reader = new Kml();
        SafeXml.walk(content, "KML", reader);
        boolean stations = reader.points.size() > 1 && reader.points.size() >= reader.corners.size();
        return new EarlierPlan(stations ? reader.points : reader.corners, stations, Optional.ofNullable(reader.zero));
    }

    /** Reads placemarks. */
    private static final class Kml implements SafeXml.Visitor {
        private final List<Spot> points = new ArrayList<>();
        private final List<Spot> corners = new ArrayList<>();
        private boolean line;
        private boolean polygon;
        private Zero zero;

        @Override
        public void start(XMLStreamReader at) throws XMLStreamException {
            switch (at.getLocalName()) {
                case "LineString" -> line = true;
                case "Polygon" -> polygon = true;
                case "altitudeMode" -> {
                    String mode = at.getElementText().strip();
                    if (!polygon) {
                        zero = mode.equals("absolute")
                                ? Zero.GEOID
                                : mode.equals("relativeToGround") ? Zero.GROUND : zero;
                    }
                }
                case "coordinates" -> {
                    int row = at.getLocation().getLineNumber();
                    List<Spot> read = places(at.getElementText(), row);
                    if (!polygon) {
                        (line ? corners : points).addAll(read);
                    }
                }
                default -> {
                    // styles and the like
                }
            }
        }

        @Override
        public void end(String element) {
            line &= !element.equals("LineString");
            polygon &= !element.equals("Polygon");
        }

        private static List<Spot> places(String text, int row) {
            List<Spot> read = new ArrayList<>();
            for (String tuple : text.strip().split("\\s+")) {
                String[] parts = tuple.split(",");
                try {
                    if (parts.length >= 2) {
                        read.add(Spot.at(
                                LonLat.of(Double.parseDouble(parts[0]), Double.parseDouble(parts[1])),
                                parts.length > 2
                                        ? OptionalDouble.of(Double.parseDouble(parts[2]))
                                        : OptionalDouble.empty()));
                    }
                } catch (NumberFormatException broken) {
                    throw new InputFault(
                            "coordinates",
                            tuple,
                            "Line %d of the KML holds “%s”, which is no place.".formatted(row, tuple));
                }
            }
            return read;
        }
    }

    /** Waypoints as stations, else routes and tracks as a path; heights above the geoid, as GPX has them. */
    public static EarlierPlan gpx(byte[] content) {
        SafeXml.check(content, "GPX");
        GPX gpx;
        try {
            gpx = GPX.Reader.of(GPX.Reader.Mode.LENIENT).read(new ByteArrayInputStream(content));
        } catch (IOException | IllegalArgumentException e) {
            throw new InputFault(
                    "file", "GPX", "The GPX cannot be read: a point lacks its position or has one out of range.");
        }
        List<Spot> points = spots(gpx.wayPoints());
        List<Spot> path = new ArrayList<>();
        gpx.routes().forEach(route -> path.addAll(spots(route.points())));
        gpx.tracks().forEach(track -> track.segments().forEach(segment -> path.addAll(spots(segment.points()))));
        boolean stations = points.size() > 1 && points.size() >= path.size();
        return new EarlierPlan(stations ? points : path, stations, Optional.of(Zero.GEOID));
    }

    private static List<Spot> spots(Stream<? extends Point> points) {
        return points.map(point -> Spot.at(
                        LonLat.of(
                                point.getLongitude().doubleValue(),
                                point.getLatitude().doubleValue()),
                        point.getElevation()
                                .map(up -> OptionalDouble.of(up.to(Length.Unit.METER)))
                                .orElse(OptionalDouble.empty())))
                .toList();
    }

    /** What columns of a table may be called, the first that is there being taken. */
    private static final Map<String, List<String>> COLUMNS = Map.of(
            "lon", List.of("longitude_deg", "longitude", "lon", "lng", "long"),
            "lat", List.of("latitude_deg", "latitude", "lat"),
            "east", List.of("easting", "east", "e", "x"),
            "north", List.of("northing", "north", "n", "y"),
            "up",
                    List.of(
                            "height_above_geoid_m",
                            "height_above_takeoff_m",
                            "height_above_ground_m",
                            "height_m",
                            "height",
                            "altitude_m",
                            "altitude",
                            "alt",
                            "elevation",
                            "z"),
            "yaw", List.of("yaw_true_deg", "yaw_deg", "yaw", "heading_deg", "heading", "course"),
            "pitch", List.of("pitch_deg", "pitch", "camera_pitch_deg"),
            "roll", List.of("roll_deg", "roll"),
            "strip", List.of("strip", "line"));

    /**
     * A table with a heading: longitude and latitude, or easting and northing in the job's grid, and whatever of height and angles it has.
     *
     * @param grid of the job
     */
    public static EarlierPlan csv(byte[] content, Grid grid) {
        PointTable table = PointTable.read(content, 2);
        Map<String, Integer> at = new HashMap<>();
        List<String> heading = table.heading().stream()
                .map(name -> name.strip().toLowerCase(Locale.ROOT).replace(' ', '_'))
                .toList();
        Optional<Zero> zero = Optional.empty();
        for (Map.Entry<String, List<String>> column : COLUMNS.entrySet()) {
            for (String name : column.getValue()) {
                int index = heading.indexOf(name);
                if (index >= 0 && filled(table, index)) {
                    at.put(column.getKey(), index);
                    if (column.getKey().equals("up")) {
                        zero = zeroOf(name);
                    }
                    break;
                }
            }
        }
        boolean degrees = at.containsKey("lon") && at.containsKey("lat");
        if (!degrees && !(at.containsKey("east") && at.containsKey("north"))) {
            throw new InputFault(
                    "file",
                    String.join(", ", table.heading()),
                    "The table needs a heading with latitude and longitude, or easting and northing in the job's grid; it has “%s”."
                            .formatted(String.join(", ", table.heading())));
        }
        List<Spot> spots = new ArrayList<>();
        for (int row = 0; row < table.rows().size(); row++) {
            List<String> cells = table.rows().get(row);
            int shown = row + 2;
            double first = figure(cells, at.get(degrees ? "lon" : "east"), shown);
            double second = figure(cells, at.get(degrees ? "lat" : "north"), shown);
            LonLat place = degrees ? LonLat.of(first, second) : grid.toLonLat(new EastNorth(first, second));
            spots.add(new Spot(
                    place,
                    known(cells, at.get("up"), shown),
                    known(cells, at.get("yaw"), shown),
                    known(cells, at.get("pitch"), shown),
                    known(cells, at.get("roll"), shown),
                    at.containsKey("strip") && !cells.get(at.get("strip")).isBlank()
                            ? OptionalInt.of((int) figure(cells, at.get("strip"), shown))
                            : OptionalInt.empty()));
        }
        return new EarlierPlan(spots, true, zero);
    }

    private static boolean filled(PointTable table, int column) {
        return table.rows().stream().anyMatch(row -> !row.get(column).isBlank());
    }

    private static Optional<Zero> zeroOf(String column) {
        if (column.contains("geoid") || column.startsWith("elevation")) {
            return Optional.of(Zero.GEOID);
        }
        return column.contains("takeoff")
                ? Optional.of(Zero.TAKE_OFF)
                : column.contains("ground") ? Optional.of(Zero.GROUND) : Optional.empty();
    }

    private static double figure(List<String> cells, int column, int row) {
        String text = cells.get(column).strip();
        try {
            double value = Double.parseDouble(text);
            if (Double.isFinite(value)) {
                return value;
            }
        } catch (NumberFormatException noFigure) {
            // told below
        }
        throw new InputFault("file", text, "Row %d: “%s” is no figure.".formatted(row, text));
    }

    private static OptionalDouble known(List<String> cells, Integer column, int row) {
        return column == null || cells.get(column).isBlank()
                ? OptionalDouble.empty()
                : OptionalDouble.of(figure(cells, column, row));
    }
}

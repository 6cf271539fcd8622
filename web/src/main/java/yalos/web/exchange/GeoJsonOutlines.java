package yalos.web.exchange;

import java.util.ArrayList;
import java.util.List;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.Outline;
import yalos.core.exchange.Axes;
import yalos.core.exchange.ImportedOutlines;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * Outlines from GeoJSON (RFC 7946): every Polygon and MultiPolygon, alone, in a collection or in features. A coordinate
 * system other than WGS84 is refused, as the standard has only that one.
 */
public final class GeoJsonOutlines {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int DEEPEST = 8;

    private final ImportedOutlines.Collector found = new ImportedOutlines.Collector();
    private final Axes axes;

    private GeoJsonOutlines(Axes axes) {
        this.axes = axes;
    }

    /**
     * @throws InputFault for broken JSON, another coordinate system, coordinates out of range, or no area
     */
    public static ImportedOutlines read(byte[] content, Axes axes) {
        JsonNode root;
        try {
            root = JSON.readTree(content);
        } catch (JacksonException e) {
            throw broken(e);
        }
        refuseOtherSystems(root);
        GeoJsonOutlines reader = new GeoJsonOutlines(axes);
        reader.collect(root, "", 0);
        return reader.found.finish("GeoJSON");
    }

    /** The outline of one Polygon or MultiPolygon geometry. */
    public static Outline outline(JsonNode geometry, String name) {
        GeoJsonOutlines reader = new GeoJsonOutlines(Axes.LON_LAT);
        return new Outline(reader.parts(geometry, name));
    }

    /**
     * The places of one LineString.
     *
     * @throws InputFault for a place that is no pair of numbers on the globe
     */
    public static List<LonLat> line(JsonNode coordinates, String name) {
        return new GeoJsonOutlines(Axes.LON_LAT).places(coordinates, name);
    }

    private List<LonLat> places(JsonNode coordinates, String name) {
        String called = name.isBlank() ? "line" : name;
        List<LonLat> line = new ArrayList<>();
        coordinates.forEach(pair -> line.add(corner(pair, called)));
        return line;
    }

    static InputFault broken(JacksonException e) {
        int line = e.getLocation() == null ? 0 : e.getLocation().getLineNr();
        int column = e.getLocation() == null ? 0 : e.getLocation().getColumnNr();
        return new InputFault(
                "file",
                "line " + line,
                "This is not whole JSON: it breaks at line %d, column %d. It may be cut off, or hold NaN where a number should stand."
                        .formatted(line, column));
    }

    private static void refuseOtherSystems(JsonNode root) {
        String crs = root.path("crs").path("properties").path("name").asString("");
        if (!crs.isEmpty() && !crs.matches(".*(CRS84|4326)$")) {
            throw new InputFault(
                    "file",
                    crs,
                    "The file is in %s; GeoJSON is read in WGS84 longitude and latitude. Save it so.".formatted(crs));
        }
    }

    private void collect(JsonNode node, String name, int depth) {
        if (depth > DEEPEST) {
            throw new InputFault("file", "depth " + depth, "The GeoJSON is nested too deeply.");
        }
        switch (node.path("type").asString("")) {
            case "FeatureCollection" -> node.path("features").forEach(feature -> collect(feature, "", depth + 1));
            case "Feature" -> feature(node, depth);
            case "GeometryCollection" ->
                node.path("geometries").forEach(geometry -> collect(geometry, name, depth + 1));
            case "Polygon", "MultiPolygon" -> found.add(name, new Outline(parts(node, name)));
            case "LineString" -> found.line(name, places(node.path("coordinates"), name));
            case "MultiLineString" -> node.path("coordinates").forEach(line -> found.line(name, places(line, name)));
            default -> {
                // points are neither areas nor lines
            }
        }
    }

    private void feature(JsonNode feature, int depth) {
        JsonNode properties = feature.path("properties");
        JsonNode geometry = feature.path("geometry");
        boolean axis = properties.path("role").asString("").equals("axis")
                && geometry.path("type").asString("").equals("LineString");
        if (axis) {
            found.axis(nameOf(properties), places(geometry.path("coordinates"), "axis"));
        } else {
            collect(geometry, nameOf(properties), depth + 1);
        }
    }

    private static String nameOf(JsonNode properties) {
        for (String key : List.of("name", "Name", "title", "id")) {
            String text = properties.path(key).asString("");
            if (!text.isBlank()) {
                return text;
            }
        }
        return "";
    }

    private List<Outline.Part> parts(JsonNode geometry, String name) {
        String called = name.isBlank() ? "outline" : name;
        List<Outline.Part> parts = new ArrayList<>();
        JsonNode coordinates = geometry.path("coordinates");
        if (geometry.path("type").asString("").equals("Polygon")) {
            parts.add(part(coordinates, called));
        } else {
            coordinates.forEach(polygon -> parts.add(part(polygon, called)));
        }
        if (parts.isEmpty()) {
            throw new InputFault("file", "no coordinates", "“%s” has no coordinates.".formatted(called));
        }
        return parts;
    }

    private Outline.Part part(JsonNode polygon, String name) {
        List<List<LonLat>> rings = new ArrayList<>();
        for (JsonNode ring : polygon) {
            List<LonLat> corners = new ArrayList<>();
            ring.forEach(pair -> corners.add(corner(pair, name)));
            rings.add(found.ring(corners, name));
        }
        if (rings.isEmpty()) {
            throw new InputFault("file", "no ring", "“%s” has a polygon without a ring.".formatted(name));
        }
        return new Outline.Part(rings.get(0), rings.subList(1, rings.size()));
    }

    private LonLat corner(JsonNode pair, String name) {
        if (!pair.path(0).isNumber() || !pair.path(1).isNumber()) {
            throw new InputFault(
                    "file", pair.toString(), "“%s” has a corner that is no pair of numbers: %s.".formatted(name, pair));
        }
        return axes.of(pair.get(0).asDouble(), pair.get(1).asDouble());
    }
}

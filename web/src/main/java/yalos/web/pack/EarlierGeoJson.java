package yalos.web.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.exchange.EarlierPlan;
import yalos.core.exchange.EarlierPlan.Spot;
import yalos.core.exchange.EarlierPlan.Zero;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/** Plans made earlier from GeoJSON (RFC 7946): points as stations, with the angles and heights that this program writes where they are there; else line strings as a path. */
final class EarlierGeoJson {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final int DEEPEST = 8;

    private final List<Spot> points = new ArrayList<>();
    private final List<Spot> corners = new ArrayList<>();
    private boolean ours;

    private EarlierGeoJson() {}

    /**
     * @throws InputFault for broken JSON, or nothing that a flight is made of
     */
    static EarlierPlan read(byte[] content) {
        JsonNode root;
        try {
            root = JSON.readTree(content);
        } catch (JacksonException broken) {
            throw new InputFault(
                    "file", "GeoJSON", "The GeoJSON breaks off or is none: " + broken.getOriginalMessage());
        }
        EarlierGeoJson reader = new EarlierGeoJson();
        reader.collect(root, 0);
        boolean stations = reader.points.size() > 1;
        return new EarlierPlan(
                stations ? reader.points : reader.corners,
                stations,
                reader.ours ? Optional.of(Zero.TAKE_OFF) : Optional.empty());
    }

    private void collect(JsonNode node, int depth) {
        if (depth > DEEPEST || points.size() + corners.size() > 60_000) {
            return;
        }
        switch (node.path("type").asString("")) {
            case "FeatureCollection" -> node.path("features").forEach(feature -> collect(feature, depth + 1));
            case "Feature" -> feature(node, depth);
            case "GeometryCollection" -> node.path("geometries").forEach(one -> collect(one, depth + 1));
            case "Point" -> points.add(spot(node.path("coordinates"), JSON.createObjectNode()));
            case "MultiPoint" -> node.path("coordinates").forEach(at -> points.add(spot(at, JSON.createObjectNode())));
            case "LineString" -> line(node.path("coordinates"));
            case "MultiLineString" -> node.path("coordinates").forEach(this::line);
            default -> {
                // areas are no flight
            }
        }
    }

    private void feature(JsonNode feature, int depth) {
        JsonNode properties = feature.path("properties");
        String kind = properties.path("kind").asString(properties.path("role").asString(""));
        JsonNode geometry = feature.path("geometry");
        if (kind.equals("station") && geometry.path("type").asString("").equals("Point")) {
            ours = true;
            points.add(spot(geometry.path("coordinates"), properties));
        } else if (!kind.equals("launch") && !kind.equals("axis")) {
            collect(geometry, depth + 1);
        }
    }

    private void line(JsonNode coordinates) {
        coordinates.forEach(at -> corners.add(spot(at, JSON.createObjectNode())));
    }

    private static Spot spot(JsonNode at, JsonNode properties) {
        if (!at.path(0).isNumber() || !at.path(1).isNumber()) {
            throw new InputFault("coordinates", at.toString(), "“%s” is no place.".formatted(at.toString()));
        }
        return new Spot(
                LonLat.of(at.path(0).asDouble(), at.path(1).asDouble()),
                number(at.path(2)),
                number(properties.path("yawTrueDeg")),
                number(properties.path("pitchDeg")),
                number(properties.path("rollDeg")),
                properties.path("strip").isInt()
                        ? OptionalInt.of(properties.path("strip").asInt())
                        : OptionalInt.empty());
    }

    private static OptionalDouble number(JsonNode node) {
        return node.isNumber() ? OptionalDouble.of(node.asDouble()) : OptionalDouble.empty();
    }
}

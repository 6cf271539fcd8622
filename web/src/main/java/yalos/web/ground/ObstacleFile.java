package yalos.web.ground;

import java.util.ArrayList;
import java.util.List;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.site.Obstacle;

/**
 * Obstacles out of GeoJSON (RFC 7946): a Point is a mast, a LineString a line between poles, a Polygon a building. Properties:
 * {@code height} or {@code heightM} in metres above ground, perhaps {@code radius} and {@code name}.
 */
final class ObstacleFile {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final double USUAL_RADIUS_M = 2;

    private ObstacleFile() {}

    /**
     * @throws InputFault for broken JSON, a feature without height, or none at all
     */
    static List<Obstacle> read(byte[] content) {
        JsonNode root;
        try {
            root = JSON.readTree(content);
        } catch (JacksonException e) {
            throw new InputFault("file", "broken", "This is not whole JSON; obstacles are read from GeoJSON.");
        }
        List<Obstacle> obstacles = new ArrayList<>();
        int number = 0;
        for (JsonNode feature : root.path("features")) {
            number++;
            obstacles.add(obstacle(feature, number));
        }
        if (obstacles.isEmpty()) {
            throw new InputFault(
                    "file", "none", "The file holds no feature. Each obstacle is a Point, LineString or Polygon.");
        }
        return obstacles;
    }

    private static Obstacle obstacle(JsonNode feature, int number) {
        JsonNode properties = feature.path("properties");
        JsonNode height = properties.has("heightM") ? properties.get("heightM") : properties.path("height");
        if (!height.isNumber()) {
            throw new InputFault(
                    "height", height, "Feature %d has no height: a number of metres above ground.".formatted(number));
        }
        JsonNode geometry = feature.path("geometry");
        JsonNode coordinates = geometry.path("coordinates");
        String type = geometry.path("type").asString("");
        Obstacle.Kind kind = switch (type) {
            case "Point" -> Obstacle.Kind.MAST;
            case "LineString" -> Obstacle.Kind.LINE;
            case "Polygon" -> Obstacle.Kind.BUILDING;
            default ->
                throw new InputFault(
                        "geometry", type, "Feature %d is neither Point, LineString nor Polygon.".formatted(number));
        };
        List<LonLat> places = new ArrayList<>();
        if (type.equals("Point")) {
            places.add(place(coordinates, number));
        } else {
            JsonNode line = type.equals("Polygon") ? coordinates.path(0) : coordinates;
            line.forEach(pair -> places.add(place(pair, number)));
            if (type.equals("Polygon") && places.size() > 3) {
                places.remove(places.size() - 1);
            }
        }
        String name = properties.path("name").asString("");
        return new Obstacle(
                name.isBlank() ? kind.words() + " " + number : name,
                kind,
                places,
                height.asDouble(),
                properties.path("radius").asDouble(USUAL_RADIUS_M));
    }

    private static LonLat place(JsonNode pair, int number) {
        if (!pair.path(0).isNumber() || !pair.path(1).isNumber()) {
            throw new InputFault(
                    "coordinates", pair, "Feature %d has a place that is no pair of numbers.".formatted(number));
        }
        return LonLat.of(pair.get(0).asDouble(), pair.get(1).asDouble());
    }
}

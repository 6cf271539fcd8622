package yalos.web.api;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.fault.InputFault;
import yalos.core.flight.Exposure;
import yalos.core.geodesy.EastNorth;
import yalos.core.geodesy.Grid;
import yalos.core.geodesy.LonLat;
import yalos.core.proof.Noise;

/** Reads the stations that {@code POST /api/coverage} proves, with their camera. */
record StationReader(List<Exposure> photos, Noise noise) {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Set<String> MEMBERS = Set.of("camera", "imageSigmaPx", "positionSigmaM", "heightSigmaM");

    private static final int MOST_STATIONS = 50_000;

    /**
     * @param grid of the terrain model; positions in its unit
     * @throws InputFault naming the station and its figure
     */
    static StationReader read(byte[] body, Grid grid) {
        JsonNode root;
        try {
            root = JSON.readTree(body);
        } catch (JacksonException e) {
            throw new InputFault(
                    "plan", "broken JSON", "The part “plan” is not whole JSON; NaN and Infinity are no numbers.");
        }
        if (!root.path("plan").isObject()) {
            throw new InputFault("plan.plan", "missing", "The member “plan” with the camera is missing.");
        }
        JsonNode plan = root.get("plan");
        Members.refuseUnknown(plan, "plan", MEMBERS);
        List<Exposure> photos = new ArrayList<>();
        Lens lens = Lens.of(CameraReader.camera(plan));
        int index = 0;
        for (JsonNode feature : root.path("features")) {
            if (feature.path("properties").path("kind").asString("").equals("station")) {
                photos.add(photo(feature, index, photos.size() + 1, grid, lens));
            }
            index++;
        }
        if (photos.isEmpty() || photos.size() > MOST_STATIONS) {
            throw new InputFault(
                    "plan.features",
                    photos.size() + " stations",
                    "There must be 1 to %d Point features with kind = station.".formatted(MOST_STATIONS));
        }
        return new StationReader(photos, noise(plan));
    }

    private static Noise noise(JsonNode plan) {
        double image =
                CameraReader.number(plan, "imageSigmaPx", "plan.imageSigmaPx").orElse(Noise.USUAL_IMAGE_PX);
        double horizontal = CameraReader.number(plan, "positionSigmaM", "plan.positionSigmaM")
                .orElse(0);
        double vertical =
                CameraReader.number(plan, "heightSigmaM", "plan.heightSigmaM").orElse(0);
        InputFault.within("plan.imageSigmaPx", image, 0.01, 100, "px");
        InputFault.within("plan.positionSigmaM", horizontal, 0, 1000, "m");
        InputFault.within("plan.heightSigmaM", vertical, 0, 1000, "m");
        return Noise.of(image, horizontal, vertical, 0, 0);
    }

    private static Exposure photo(JsonNode feature, int index, int id, Grid grid, Lens lens) {
        JsonNode properties = feature.path("properties");
        String field = "plan.features[" + index + "]";
        OptionalDouble east = CameraReader.number(properties, "e", field + ".e");
        OptionalDouble north = CameraReader.number(properties, "n", field + ".n");
        EastNorth at = east.isPresent() && north.isPresent()
                ? new EastNorth(east.getAsDouble(), north.getAsDouble())
                : grid.toGrid(lonLat(feature, field));
        double height = heightM(feature, field);
        double yaw =
                CameraReader.number(properties, "yawDeg", field + ".yawDeg").orElse(0);
        double pitch =
                CameraReader.number(properties, "pitchDeg", field + ".pitchDeg").orElse(-90);
        double roll =
                CameraReader.number(properties, "rollDeg", field + ".rollDeg").orElse(0);
        if (Math.abs(pitch) > 90) {
            throw new InputFault(field + ".pitchDeg", pitch, "pitchDeg must be between -90 (straight down) and 90.");
        }
        int strip =
                (int) CameraReader.number(properties, "strip", field + ".strip").orElse(index);
        return Exposure.of(
                id,
                strip,
                new Pose(
                        at.east() * grid.unitM(),
                        at.north() * grid.unitM(),
                        height,
                        Math.toRadians(yaw),
                        Math.toRadians(pitch),
                        Math.toRadians(roll)),
                lens);
    }

    /** As {@code heightM}; in the plan service's answer above the geoid, or as the third coordinate: over the level ground it was planned for. */
    private static double heightM(JsonNode feature, String field) {
        JsonNode properties = feature.path("properties");
        for (String name : List.of("heightM", "aboveGeoidM")) {
            OptionalDouble height = CameraReader.number(properties, name, field + "." + name);
            if (height.isPresent()) {
                return height.getAsDouble();
            }
        }
        JsonNode third = feature.path("geometry").path("coordinates").path(2);
        if (!third.isNumber()) {
            throw new InputFault(
                    field + ".heightM",
                    "missing",
                    "A station needs heightM, in the height system of the terrain, or a third coordinate.");
        }
        return third.asDouble();
    }

    private static LonLat lonLat(JsonNode feature, String field) {
        JsonNode coordinates = feature.path("geometry").path("coordinates");
        if (!coordinates.path(0).isNumber() || !coordinates.path(1).isNumber()) {
            throw new InputFault(field, coordinates, "A station needs e and n, or a Point geometry.");
        }
        try {
            return LonLat.of(coordinates.get(0).asDouble(), coordinates.get(1).asDouble());
        } catch (InputFault fault) {
            throw fault.at(field + ".geometry");
        }
    }
}

package yalos.web.api;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.camera.Lens;
import yalos.core.camera.Pose;
import yalos.core.camera.View;
import yalos.core.fault.InputFault;
import yalos.core.fault.Patience;
import yalos.core.network.Network;
import yalos.core.network.Network.Axes;
import yalos.core.network.Network.GroundPoint;
import yalos.core.network.Network.Kind;
import yalos.core.network.Network.Sight;

/** Reads what the accuracy service takes: a lens, errors, photos, points, and which photo shows which point. */
final class NetworkReader {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final Set<String> BODY =
            Set.of("camera", "sigmas", "selfCalibration", "photos", "points", "observations");
    private static final Set<String> CAMERA = Set.of("focalPx", "widthPx", "heightPx");
    private static final Set<String> SIGMAS =
            Set.of("tiePx", "markedPx", "positionM", "commonM", "angleDeg", "focalPx", "principalPx", "k1");
    private static final Set<String> PHOTO = Set.of("id", "e", "n", "h", "yawDeg", "pitchDeg", "rollDeg");
    private static final Set<String> POINT = Set.of("id", "kind", "e", "n", "u", "sigmaM");
    private static final int MOST_PHOTOS = 5000;
    private static final int MOST_POINTS = 20_000;
    private static final int MOST_SIGHTS = 1_000_000;
    private static final double USUAL_ANGLE_DEG = 5;

    private final JsonNode root;
    private final Map<String, Integer> photoAt = new HashMap<>();
    private final Map<String, Integer> pointAt = new HashMap<>();
    private final List<String> pointIds = new ArrayList<>();

    private NetworkReader(JsonNode root) {
        this.root = root;
    }

    /**
     * @throws InputFault for what is no JSON object, or has members nobody knows
     */
    static NetworkReader of(byte[] body) {
        JsonNode root;
        try {
            root = JSON.readTree(body);
        } catch (JacksonException e) {
            throw new InputFault("body", "broken JSON", "The body is not whole JSON; it may be cut off.");
        }
        if (root == null || !root.isObject()) {
            throw new InputFault(
                    "body", "no object", "The body must be a JSON object with camera, sigmas, photos and points.");
        }
        Members.refuseUnknown(root, "body", BODY);
        return new NetworkReader(root);
    }

    /** Names of the points, in the network's order. */
    List<String> pointIds() {
        return pointIds;
    }

    /**
     * @throws InputFault naming the field, its value and what would be right
     */
    Network network() {
        JsonNode camera = object("camera", CAMERA);
        double focal = needed(camera, "camera", "focalPx");
        List<Pose> photos = new ArrayList<>();
        JsonNode listed = list("photos", MOST_PHOTOS);
        for (int i = 0; i < listed.size(); i++) {
            photos.add(photo(listed.get(i), "photos[" + i + "]", i));
        }
        List<GroundPoint> points = new ArrayList<>();
        JsonNode ground = list("points", MOST_POINTS);
        for (int i = 0; i < ground.size(); i++) {
            points.add(point(ground.get(i), "points[" + i + "]", i));
        }
        List<Sight> sights = root.path("observations").isMissingNode()
                        || root.path("observations").isNull()
                ? inFrame(camera, focal, photos, points)
                : observations();
        return new Network(focal, sigmas(), root.path("selfCalibration").asBoolean(false), photos, points, sights);
    }

    private Network.Sigmas sigmas() {
        JsonNode sigmas = object("sigmas", SIGMAS);
        boolean free = root.path("selfCalibration").asBoolean(false);
        JsonNode principal = sigmas.path("principalPx");
        boolean pair = principal.isArray() && principal.size() == 2;
        if (free && !pair) {
            throw new InputFault("sigmas.principalPx", principal, "principalPx is a pair of figures, such as [3, 3].");
        }
        return new Network.Sigmas(
                needed(sigmas, "sigmas", "tiePx"),
                CameraReader.number(sigmas, "markedPx", "sigmas.markedPx").orElse(needed(sigmas, "sigmas", "tiePx")),
                axes(sigmas, "positionM").orElse(Network.UNKNOWN),
                axes(sigmas, "commonM").orElse(new Axes(0, 0, 0)),
                Math.toRadians(CameraReader.number(sigmas, "angleDeg", "sigmas.angleDeg")
                        .orElse(USUAL_ANGLE_DEG)),
                free ? needed(sigmas, "sigmas", "focalPx") : 0,
                free ? principal.get(0).asDouble(0) : 0,
                free ? principal.get(1).asDouble(0) : 0,
                free ? needed(sigmas, "sigmas", "k1") : 0);
    }

    private Pose photo(JsonNode photo, String path, int index) {
        Members.refuseUnknown(photo, path, PHOTO);
        named(photoAt, photo, path, index);
        return new Pose(
                needed(photo, path, "e"),
                needed(photo, path, "n"),
                needed(photo, path, "h"),
                Math.toRadians(
                        CameraReader.number(photo, "yawDeg", path + ".yawDeg").orElse(0)),
                Math.toRadians(CameraReader.number(photo, "pitchDeg", path + ".pitchDeg")
                        .orElse(-90)),
                Math.toRadians(
                        CameraReader.number(photo, "rollDeg", path + ".rollDeg").orElse(0)));
    }

    private GroundPoint point(JsonNode point, String path, int index) {
        Members.refuseUnknown(point, path, POINT);
        pointIds.add(named(pointAt, point, path, index));
        String word = point.path("kind").asString("tie").toUpperCase(Locale.ROOT);
        Kind kind = switch (word) {
            case "TIE" -> Kind.TIE;
            case "CONTROL" -> Kind.CONTROL;
            case "CHECK" -> Kind.CHECK;
            default -> throw new InputFault(path + ".kind", word, "A point is of kind tie, control or check.");
        };
        Optional<Axes> sigma = axes(point, "sigmaM");
        if (kind == Kind.CONTROL
                && (sigma.isEmpty()
                        || !(Math.min(
                                        Math.min(
                                                sigma.get().eastM(), sigma.get().northM()),
                                        sigma.get().upM())
                                > 0))) {
            throw new InputFault(
                    path + ".sigmaM",
                    "missing",
                    "A control point needs sigmaM, how well it was measured: three figures above 0.");
        }
        return new GroundPoint(
                kind,
                needed(point, path, "e"),
                needed(point, path, "n"),
                needed(point, path, "u"),
                kind == Kind.CONTROL ? sigma : Optional.empty());
    }

    private static String named(Map<String, Integer> at, JsonNode node, String path, int index) {
        String id = node.path("id").asString(String.valueOf(index + 1));
        if (at.put(id, index) != null) {
            throw new InputFault(path + ".id", id, "“%s” stands twice; each needs a name of its own.".formatted(id));
        }
        return id;
    }

    private List<Sight> observations() {
        JsonNode listed = list("observations", MOST_SIGHTS);
        List<Sight> sights = new ArrayList<>(listed.size());
        Set<Sight> once = new HashSet<>();
        for (int i = 0; i < listed.size(); i++) {
            JsonNode pair = listed.get(i);
            String path = "observations[" + i + "]";
            if (!pair.isArray() || pair.size() != 2) {
                throw new InputFault(path, pair, "An observation is a pair of a photo and a point.");
            }
            Integer photo = photoAt.get(pair.get(0).asString(""));
            Integer point = pointAt.get(pair.get(1).asString(""));
            if (photo == null || point == null) {
                throw new InputFault(path, pair, "There is no such %s.".formatted(photo == null ? "photo" : "point"));
            }
            Sight sight = new Sight(photo, point);
            if (!once.add(sight)) {
                throw new InputFault(path, pair, "This observation stands twice.");
            }
            sights.add(sight);
        }
        return sights;
    }

    /** Every pair in frame; what stands in the way is not asked. */
    private static List<Sight> inFrame(JsonNode camera, double focal, List<Pose> photos, List<GroundPoint> points) {
        int width = (int) needed(camera, "camera", "widthPx");
        int height = (int) needed(camera, "camera", "heightPx");
        Lens lens = new Lens(width, height, focal, focal, width / 2.0, height / 2.0, Lens.Distortion.NONE);
        List<Sight> sights = new ArrayList<>();
        for (int photo = 0; photo < photos.size(); photo++) {
            Patience.check();
            View view = new View(lens, photos.get(photo));
            for (int point = 0; point < points.size(); point++) {
                GroundPoint at = points.get(point);
                if (view.of(at.eastM(), at.northM(), at.upM())
                        .filter(View.Sighting::inFrame)
                        .isPresent()) {
                    sights.add(new Sight(photo, point));
                }
            }
            if (sights.size() > MOST_SIGHTS) {
                throw new InputFault(
                        "points", points.size(), "More than 1,000,000 observations follow; give fewer points.");
            }
        }
        return sights;
    }

    private static Optional<Axes> axes(JsonNode node, String name) {
        JsonNode three = node.path(name);
        if (three.isMissingNode() || three.isNull()) {
            return Optional.empty();
        }
        boolean numbers = three.isArray() && three.size() == 3;
        for (int i = 0; numbers && i < 3; i++) {
            numbers = three.get(i).isNumber() && three.get(i).asDouble() >= 0;
        }
        if (!numbers) {
            throw new InputFault(
                    name, three, "%s is a list of three figures, east, north, up, no less than 0.".formatted(name));
        }
        return Optional.of(new Axes(
                three.get(0).asDouble(), three.get(1).asDouble(), three.get(2).asDouble()));
    }

    private JsonNode object(String name, Set<String> known) {
        JsonNode node = root.path(name);
        if (!node.isObject()) {
            throw new InputFault(name, node, "The member “%s” is missing.".formatted(name));
        }
        Members.refuseUnknown(node, name, known);
        return node;
    }

    private JsonNode list(String name, int most) {
        JsonNode node = root.path(name);
        if (!node.isArray() || node.isEmpty() || node.size() > most) {
            throw new InputFault(
                    name, node.size(), "“%s” is a list of 1 to %,d; here are %,d.".formatted(name, most, node.size()));
        }
        return node;
    }

    private static double needed(JsonNode node, String path, String name) {
        OptionalDouble figure = CameraReader.number(node, name, path + "." + name);
        return figure.orElseThrow(
                () -> new InputFault(path + "." + name, "missing", "%s needs %s.".formatted(path, name)));
    }
}

package yalos.web.api;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.block.Corridor;
import yalos.core.block.Outline;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.kit.Aircraft;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.Structures;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.plan.PlanRequest;
import yalos.core.units.Measure;
import yalos.core.units.Unit;
import yalos.web.exchange.GeoJsonOutlines;

/**
 * Reads the body of {@code POST /api/plan}: a FeatureCollection with the block, perhaps the launch point, and a member
 * {@code plan}. Faults name the field by its path in the body.
 */
final class PlanRequestReader {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final JsonNode root;
    private final JsonNode plan;

    static final Set<String> MEMBERS = Set.of(
            "camera",
            "maxSpeedMps",
            "gsdCm",
            "heightM",
            "forwardOverlap",
            "sideOverlap",
            "marginM",
            "speedMps",
            "exposureTimeS",
            "maxBlurPx",
            "directionDeg",
            "headingDeg",
            "turns",
            "passes",
            "epsg");

    private final PassReader passes;

    private PlanRequestReader(JsonNode root) {
        this.root = root;
        this.plan = root.get("plan");
        this.passes = PassReader.read(plan);
    }

    /**
     * @throws InputFault naming the field, its value and what would be right
     */
    static PlanRequestReader of(byte[] body) {
        JsonNode root;
        try {
            root = JSON.readTree(body);
        } catch (JacksonException e) {
            throw new InputFault("body", "broken JSON", "The body is not whole JSON: " + place(e));
        }
        if (!root.path("type").asString("").equals("FeatureCollection")) {
            throw new InputFault(
                    "type", root.path("type").asString(""), "The body must be a GeoJSON FeatureCollection.");
        }
        if (!root.path("plan").isObject()) {
            throw new InputFault("plan", root.path("plan"), "The member “plan” with camera and settings is missing.");
        }
        Members.refuseUnknown(root.get("plan"), "plan", MEMBERS);
        return new PlanRequestReader(root);
    }

    /** The camera as it was given. */
    JsonNode camera() {
        return plan.get("camera");
    }

    private static String place(JacksonException e) {
        return e.getLocation() == null
                ? "it may be cut off."
                : "it breaks at line %d, column %d. NaN and Infinity are no JSON numbers."
                        .formatted(e.getLocation().getLineNr(), e.getLocation().getColumnNr());
    }

    /**
     * What is asked for.
     *
     * @throws InputFault naming the field, its value and what would be right
     */
    PlanRequest request() {
        Aircraft usual = Aircraft.smallMultirotor();
        OptionalDouble fastest = CameraReader.number(plan, "maxSpeedMps", "plan.maxSpeedMps");
        Aircraft aircraft;
        try {
            aircraft = usual.withMaxSpeed(fastest.orElse(usual.maxSpeedMps()));
        } catch (InputFault fault) {
            throw fault.at("plan.maxSpeedMps");
        }
        Kit kit = Kit.of(aircraft, CameraReader.camera(plan));
        if (passes.scanner().isPresent()) {
            kit = kit.with(new Payload(kit.payload().heads(), passes.scanner()));
        }
        Optional<Corridor> corridor = corridor(root);
        Outline outline = corridor.map(Corridor::outline).orElseGet(() -> block(root));
        return new PlanRequest(kit, pins(), outline, launch(root), epsg())
                .with(new Patterns(
                        corridor,
                        passes.added(),
                        heading(),
                        Optional.empty(),
                        List.of(),
                        Optional.empty(),
                        turns(),
                        Structures.NONE));
    }

    private Patterns.Turns turns() {
        String typed = plan.path("turns").asString("square");
        if (!typed.equals("square") && !typed.equals("rounded")) {
            throw new InputFault("plan.turns", typed, "Turns are “square” or “rounded”.");
        }
        return new Patterns.Turns(false, typed.equals("rounded"));
    }

    private Optional<Measure> heading() {
        OptionalDouble held = number("headingDeg");
        return held.isEmpty() ? Optional.empty() : Optional.of(Measure.of(held.getAsDouble(), Unit.DEGREE));
    }

    /** The axis of a corridor, with its whole width or the widths left and right of it. */
    private Optional<Corridor> corridor(JsonNode root) {
        Optional<JsonNode> feature = withRole(root, "axis");
        if (feature.isEmpty() && passes.corridor()) {
            throw new InputFault(
                    "features",
                    "no axis",
                    "A corridor needs a feature that is its axis: a LineString with properties.role = \"axis\" and widthM.");
        }
        return feature.map(axis -> {
            String type = axis.path("geometry").path("type").asString("");
            if (!type.equals("LineString")) {
                throw new InputFault("features.axis.geometry", type, "The axis must be a LineString.");
            }
            JsonNode properties = axis.path("properties");
            OptionalDouble whole = CameraReader.number(properties, "widthM", "features.axis.widthM");
            double half = whole.orElse(0) / 2;
            double left = CameraReader.number(properties, "leftM", "features.axis.leftM")
                    .orElse(half);
            double right = CameraReader.number(properties, "rightM", "features.axis.rightM")
                    .orElse(half);
            try {
                return new Corridor(
                        GeoJsonOutlines.line(axis.path("geometry").path("coordinates"), "axis"),
                        Measure.of(left, Unit.METRE),
                        Measure.of(right, Unit.METRE));
            } catch (InputFault fault) {
                boolean width = fault.field().equals("left") || fault.field().equals("right");
                throw fault.at(width ? "features.axis.widthM" : "features.axis.geometry");
            }
        });
    }

    private OptionalDouble number(String name) {
        return CameraReader.number(passes.holder(plan, name), name, passes.path(name));
    }

    private static Outline block(JsonNode root) {
        Optional<JsonNode> feature = withRole(root, "block");
        JsonNode geometry = feature.orElseThrow(() -> new InputFault(
                        "features",
                        "no block",
                        "One feature must be the block: a Polygon or MultiPolygon with properties.role = \"block\"."))
                .path("geometry");
        String type = geometry.path("type").asString("");
        if (!type.equals("Polygon") && !type.equals("MultiPolygon")) {
            throw new InputFault("features.block.geometry", type, "The block must be a Polygon or MultiPolygon.");
        }
        try {
            return GeoJsonOutlines.outline(geometry, "block");
        } catch (InputFault fault) {
            throw fault.at("features.block.geometry");
        }
    }

    private static Optional<LonLat> launch(JsonNode root) {
        return withRole(root, "launch").map(feature -> {
            JsonNode at = feature.path("geometry").path("coordinates");
            if (!feature.path("geometry").path("type").asString("").equals("Point")
                    || !at.path(0).isNumber()
                    || !at.path(1).isNumber()) {
                throw new InputFault("features.launch.geometry", at, "The launch point must be a Point.");
            }
            try {
                return LonLat.of(at.get(0).asDouble(), at.get(1).asDouble());
            } catch (InputFault fault) {
                throw fault.at("features.launch.geometry");
            }
        });
    }

    private static Optional<JsonNode> withRole(JsonNode root, String role) {
        for (JsonNode feature : root.path("features")) {
            if (feature.path("properties").path("role").asString("").equals(role)) {
                return Optional.of(feature);
            }
        }
        return Optional.empty();
    }

    private Pins pins() {
        JsonNode scale = passes.scale(plan);
        OptionalDouble gsd = CameraReader.number(scale, "gsdCm", passes.path("gsdCm"));
        OptionalDouble height = CameraReader.number(scale, "heightM", passes.path("heightM"));
        if (gsd.isPresent() == height.isPresent()) {
            throw new InputFault(
                    "plan.gsdCm",
                    gsd.isPresent() ? "gsdCm and heightM" : "neither gsdCm nor heightM",
                    "Give either gsdCm or heightM: one fixes the scale, the other follows.");
        }
        Pins pins = gsd.isPresent()
                ? Pins.ofGsd(1)
                        .with(
                                Quantity.GSD,
                                checked(passes.path("gsdCm"), Quantity.GSD, gsd.getAsDouble(), Unit.CENTIMETRE))
                : Pins.ofHeight(100)
                        .with(
                                Quantity.HEIGHT,
                                checked(passes.path("heightM"), Quantity.HEIGHT, height.getAsDouble(), Unit.METRE));
        pins = share(pins, "forwardOverlap", Quantity.FORWARD_OVERLAP);
        pins = share(pins, "sideOverlap", Quantity.SIDE_OVERLAP);
        pins = optional(pins, "marginM", Quantity.MARGIN, Unit.METRE);
        pins = optional(pins, "speedMps", Quantity.SPEED, Unit.METRE_PER_SECOND);
        pins = optional(pins, "exposureTimeS", Quantity.SHUTTER_TIME, Unit.SECOND);
        pins = optional(pins, "maxBlurPx", Quantity.BLUR, Unit.PIXEL);
        pins = optional(pins, "pointsPerM2", Quantity.POINT_DENSITY, Unit.POINT_PER_M2);
        return direction(pins);
    }

    private Pins share(Pins pins, String name, Quantity quantity) {
        OptionalDouble share = number(name);
        return share.isEmpty()
                ? pins
                : pins.with(quantity, checked(passes.path(name), quantity, share.getAsDouble() * 100, Unit.PERCENT));
    }

    private Pins optional(Pins pins, String name, Quantity quantity, Unit unit) {
        OptionalDouble figure = number(name);
        return figure.isEmpty()
                ? pins
                : pins.with(quantity, checked(passes.path(name), quantity, figure.getAsDouble(), unit));
    }

    private Pins direction(Pins pins) {
        JsonNode direction = passes.holder(plan, "directionDeg").path("directionDeg");
        if (direction.isMissingNode()
                || direction.isNull()
                || direction.asString("").equals("auto")) {
            return pins;
        }
        double degrees = number("directionDeg").orElse(0);
        double turned = ((degrees % 360) + 360) % 360;
        return pins.with(
                Quantity.DIRECTION, checked(passes.path("directionDeg"), Quantity.DIRECTION, turned, Unit.DEGREE));
    }

    private static Measure checked(String field, Quantity quantity, double figure, Unit unit) {
        try {
            return quantity.checked(Measure.of(figure, unit));
        } catch (InputFault fault) {
            throw fault.at(field);
        }
    }

    private OptionalInt epsg() {
        OptionalDouble code = CameraReader.number(plan, "epsg", "plan.epsg");
        return code.isEmpty() ? OptionalInt.empty() : OptionalInt.of((int) code.getAsDouble());
    }
}

package yalos.web.api;

import java.util.OptionalDouble;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import yalos.core.camera.Camera;
import yalos.core.camera.Mount;
import yalos.core.camera.Sensor;
import yalos.core.camera.Shutter;
import yalos.core.fault.InputFault;

/** Reads cameras and figures as the stateless services take them. */
final class CameraReader {
    private CameraReader() {}

    static final Set<String> MEMBERS = Set.of(
            "pixelsAcross",
            "pixelsAlong",
            "sensorAcrossMm",
            "sensorAlongMm",
            "focalLengthMm",
            "minIntervalS",
            "readoutS");

    /**
     * The camera of a plan: the member {@code camera}.
     *
     * @throws InputFault naming the figure by its path
     */
    static Camera camera(JsonNode plan) {
        JsonNode camera = plan.path("camera");
        if (!camera.isObject()) {
            throw new InputFault("plan.camera", camera, "The camera is missing.");
        }
        Members.refuseUnknown(camera, "plan.camera", MEMBERS);
        try {
            return new Camera(
                    "camera",
                    Sensor.ofMillimetres(
                            whole(camera, "pixelsAcross"),
                            whole(camera, "pixelsAlong"),
                            needed(camera, "sensorAcrossMm"),
                            needed(camera, "sensorAlongMm")),
                    needed(camera, "focalLengthMm") / 1000,
                    shutter(camera),
                    number(camera, "minIntervalS", "plan.camera.minIntervalS").orElse(0),
                    Mount.WIDTH_ACROSS,
                    Camera.Storage.of(10, 1000, 1_000_000));
        } catch (InputFault fault) {
            throw fault.field().startsWith("plan.") ? fault : fault.at("plan.camera." + fault.field());
        }
    }

    private static Shutter shutter(JsonNode camera) {
        OptionalDouble readout = number(camera, "readoutS", "plan.camera.readoutS");
        return readout.isPresent() && readout.getAsDouble() > 0
                ? Shutter.rolling(readout.getAsDouble())
                : Shutter.mechanical();
    }

    private static double needed(JsonNode node, String name) {
        return number(node, name, "plan.camera." + name)
                .orElseThrow(
                        () -> new InputFault("plan.camera." + name, "missing", "The camera needs %s.".formatted(name)));
    }

    private static int whole(JsonNode node, String name) {
        double number = needed(node, name);
        if (number != Math.rint(number) || Math.abs(number) > 1e9) {
            throw new InputFault("plan.camera." + name, number, "%s must be a whole number.".formatted(name));
        }
        return (int) number;
    }

    /** A finite number, or nothing where the member is missing or null. */
    static OptionalDouble number(JsonNode node, String name, String field) {
        JsonNode value = node.path(name);
        if (value.isMissingNode() || value.isNull()) {
            return OptionalDouble.empty();
        }
        if (!value.isNumber() || !Double.isFinite(value.asDouble())) {
            throw new InputFault(field, value, "%s must be a finite number; %s is not.".formatted(name, value));
        }
        return OptionalDouble.of(value.asDouble());
    }
}

package yalos.core.kit;

import java.time.LocalDate;
import java.util.Optional;
import yalos.core.camera.Camera;

/**
 * An aircraft with its payload, as it goes to the field.
 *
 * @param name what the operator calls it
 * @param service when it was looked after
 */
public record Kit(String name, Aircraft aircraft, Payload payload, Service service) {

    /**
     * What the log will ask about the kit.
     *
     * @param firmware of aircraft and cameras, as the operator writes it down
     * @param calibratedOn day of the last calibration of the leading camera, if there was one
     */
    public record Service(String firmware, Optional<LocalDate> calibratedOn) {
        public static final Service UNKNOWN = new Service("", Optional.empty());
    }

    /** A kit of one camera, named by both. */
    public static Kit of(Aircraft aircraft, Camera camera) {
        return new Kit(aircraft.name() + ", " + camera.name(), aircraft, Payload.of(camera), Service.UNKNOWN);
    }

    /** The leading camera. */
    public Camera camera() {
        return payload.leading().camera();
    }

    /** The same kit with this instead of its own. */
    public Kit with(Aircraft other) {
        return new Kit(name, other, payload, service);
    }

    /** The same kit with this instead of its own. */
    public Kit with(Payload other) {
        return new Kit(name, aircraft, other, service);
    }

    /** The same kit under another name. */
    public Kit named(String other) {
        return new Kit(other, aircraft, payload, service);
    }
}

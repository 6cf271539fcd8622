package yalos.core.pattern;

import java.util.Optional;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;

/**
 * How far off an object is photographed: pinned itself, or by the GSD it gives, {@code d = GSD · f / pitch}.
 *
 * @param distance pinned; empty where the GSD is
 * @param gsd pinned; empty where the distance is
 */
public record StandOff(Optional<Measure> distance, Optional<Measure> gsd) {
    public StandOff {
        if (distance.isPresent() == gsd.isPresent()) {
            throw new InputFault("standOff", "", "Give either how far off, or the GSD that follows from it.");
        }
        distance.ifPresent(m -> InputFault.within("standOff", m.si(), 0.5, 1000, "m"));
        gsd.ifPresent(m -> InputFault.within("gsd", m.si() * 1000, 0.05, 1000, "mm"));
    }

    /** So far off. */
    public static StandOff of(Measure distance) {
        return new StandOff(Optional.of(distance), Optional.empty());
    }

    /** As far off as a GSD allows. */
    public static StandOff ofGsd(Measure gsd) {
        return new StandOff(Optional.empty(), Optional.of(gsd));
    }

    /** In metres, with a camera. */
    public double metres(Camera camera) {
        return distance.map(Measure::si)
                .orElseGet(() -> gsd.orElseThrow().si() * camera.focalLengthM() / camera.pitchM());
    }

    /** As it was pinned, in a few words. */
    public String words() {
        return distance.map(m -> m.asTyped() + " off")
                .orElseGet(() -> "as far off as " + gsd.orElseThrow().asTyped() + " GSD allows");
    }
}

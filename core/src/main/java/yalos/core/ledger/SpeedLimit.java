package yalos.core.ledger;

import java.util.List;
import java.util.stream.Stream;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.camera.Shutter;
import yalos.core.kit.Aircraft;

/**
 * What can hold the ground speed: {@code v ≤ min(asked, B / t_interval, b_max · GSD / t_exposure, r_max · GSD /
 * t_readout, aircraft)}. The order decides which is named when two are equal.
 */
public enum SpeedLimit {
    ASKED("asked", "the speed asked for", "pinned"),
    INTERVAL_ASKED("interval asked", "the photo interval asked for", "B / t, t pinned"),
    SHUTTER_INTERVAL("shutter interval", "the camera's shortest interval", "B / t_min"),
    MOTION_BLUR("motion blur", "motion blur", "b · GSD / t_exposure"),
    ROLLING_SHUTTER("rolling shutter", "the rolling shutter", "r · GSD / t_readout"),
    AIRCRAFT("aircraft", "the aircraft", "its fastest mapping speed");

    private final String key;
    private final String words;
    private final String formula;

    SpeedLimit(String key, String words, String formula) {
        this.key = key;
        this.words = words;
        this.formula = formula;
    }

    /** Name in the plan service's answer. */
    public String key() {
        return key;
    }

    /** Name in a sentence: "held by …". */
    public String words() {
        return words;
    }

    public String formula() {
        return formula;
    }

    /** The speed one limit allows. */
    public record Allowed(SpeedLimit limit, double speedMps) {}

    /** All limits that apply, each with the speed it allows; never empty. */
    static List<Allowed> of(Pins pins, Camera camera, Aircraft aircraft, GroundScale scale, double baseM) {
        Shutter shutter = camera.shutter();
        double exposure = pins.siOr(Quantity.SHUTTER_TIME, Defaults.SHUTTER_TIME_S);
        double blur = pins.siOr(Quantity.BLUR, Defaults.BLUR_PX);
        return Stream.of(
                        allowed(ASKED, pins.siOr(Quantity.SPEED, Double.NaN)),
                        allowed(INTERVAL_ASKED, baseM / pins.siOr(Quantity.INTERVAL, Double.NaN)),
                        allowed(SHUTTER_INTERVAL, baseM / camera.minIntervalS()),
                        allowed(MOTION_BLUR, blur * scale.gsdAlongM() / exposure),
                        allowed(ROLLING_SHUTTER, Defaults.ROLLING_PX * scale.gsdAlongM() / shutter.readoutS()),
                        allowed(AIRCRAFT, aircraft.maxSpeedMps()))
                .filter(allowed -> Double.isFinite(allowed.speedMps()))
                .toList();
    }

    private static Allowed allowed(SpeedLimit limit, double speedMps) {
        return new Allowed(limit, speedMps);
    }
}

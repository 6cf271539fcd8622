package yalos.core.plan;

import java.util.List;
import java.util.stream.Stream;
import yalos.core.camera.GroundScale;
import yalos.core.camera.Shutter;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.core.pins.Defaults;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;

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
    POINT_DENSITY("point density", "the point density asked for", "pulse rate · usable / (density · swath)"),
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

    /** Its formula, as the reason shows it. */
    public String formula() {
        return formula;
    }

    /** The speed one limit allows. */
    public record Allowed(SpeedLimit limit, double speedMps) {}

    /** All limits that apply, each with the speed it allows; never empty. */
    static List<Allowed> of(Pins pins, Kit kit, GroundScale scale, double baseM) {
        return kit.payload()
                .scanner()
                .map(scanner -> scanning(pins, kit, scanner, scale))
                .orElseGet(() -> photographing(pins, kit, scale, baseM));
    }

    /** A camera that rides along does not hold a scanner up. */
    private static List<Allowed> scanning(Pins pins, Kit kit, Scanner scanner, GroundScale scale) {
        double density = pins.siOr(Quantity.POINT_DENSITY, Double.NaN);
        return applying(Stream.of(
                allowed(ASKED, pins.siOr(Quantity.SPEED, Double.NaN)),
                allowed(POINT_DENSITY, scanner.speedForPoints(scale.heightM(), density)),
                allowed(AIRCRAFT, kit.aircraft().maxSpeedMps())));
    }

    private static List<Allowed> applying(Stream<Allowed> limits) {
        return limits.filter(allowed -> Double.isFinite(allowed.speedMps())).toList();
    }

    private static List<Allowed> photographing(Pins pins, Kit kit, GroundScale scale, double baseM) {
        Shutter shutter = kit.camera().shutter();
        double exposure = pins.siOr(Quantity.SHUTTER_TIME, Defaults.SHUTTER_TIME_S);
        double blur = pins.siOr(Quantity.BLUR, Defaults.BLUR_PX);
        return applying(Stream.of(
                allowed(ASKED, pins.siOr(Quantity.SPEED, Double.NaN)),
                allowed(INTERVAL_ASKED, baseM / pins.siOr(Quantity.INTERVAL, Double.NaN)),
                allowed(SHUTTER_INTERVAL, baseM / kit.payload().slowestIntervalS()),
                allowed(MOTION_BLUR, blur * scale.gsdAlongM() / exposure),
                allowed(ROLLING_SHUTTER, Defaults.ROLLING_PX * scale.gsdAlongM() / shutter.readoutS()),
                allowed(AIRCRAFT, kit.aircraft().maxSpeedMps())));
    }

    private static Allowed allowed(SpeedLimit limit, double speedMps) {
        return new Allowed(limit, speedMps);
    }
}

package yalos.core.ledger;

import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.fault.InputFault;
import yalos.core.kit.Aircraft;

/**
 * The quantities that follow from the pins and the kit alone, whatever the block's shape.
 *
 * @param scale height, GSD and footprint
 * @param forwardOverlap 0..1
 * @param sideOverlap 0..1
 * @param baseM air base, between neighbouring stations
 * @param spacingM between neighbouring strips
 * @param marginM by which the block is widened before it is covered
 * @param shutterTimeS exposure time
 * @param speeds every limit on the speed; the least holds
 */
public record Design(
        GroundScale scale,
        double forwardOverlap,
        double sideOverlap,
        double baseM,
        double spacingM,
        double marginM,
        double shutterTimeS,
        List<SpeedLimit.Allowed> speeds) {

    /**
     * @throws InputFault when pins together give an overlap that cannot be flown
     */
    public static Design of(Pins pins, Camera camera, Aircraft aircraft) {
        OptionalDouble gsd = pins.si(Quantity.GSD);
        GroundScale scale = gsd.isPresent()
                ? GroundScale.ofGsd(camera, gsd.getAsDouble())
                : new GroundScale(camera, pins.si(Quantity.HEIGHT).orElseThrow());
        Share forward = Share.of(
                pins, Quantity.FORWARD_OVERLAP, Quantity.AIR_BASE, Defaults.FORWARD_OVERLAP, scale.footprintAlongM());
        Share side = Share.of(
                pins, Quantity.SIDE_OVERLAP, Quantity.STRIP_SPACING, Defaults.SIDE_OVERLAP, scale.footprintAcrossM());
        double margin = pins.siOr(Quantity.MARGIN, pins.siOr(Quantity.MARGIN_STRIPS, 0) * side.stepM());
        return new Design(
                scale,
                forward.overlap(),
                side.overlap(),
                forward.stepM(),
                side.stepM(),
                margin,
                pins.siOr(Quantity.SHUTTER_TIME, Defaults.SHUTTER_TIME_S),
                SpeedLimit.of(pins, camera, aircraft, scale, forward.stepM()));
    }

    /** An overlap and the step on the ground that goes with it. */
    private record Share(double overlap, double stepM) {

        static Share of(Pins pins, Quantity overlap, Quantity step, double otherwise, double footprintM) {
            OptionalDouble pinnedStep = pins.si(step);
            if (pinnedStep.isEmpty()) {
                double share = pins.siOr(overlap, otherwise);
                return new Share(share, footprintM * (1 - share));
            }
            double stepM = pinnedStep.getAsDouble();
            if (stepM >= footprintM) {
                throw new InputFault(
                        step.key(),
                        pins.of(step).orElseThrow().asTyped(),
                        "%s of %s is more than the footprint of %.1f m, so photos would not overlap. Make it smaller, or the scale coarser."
                                .formatted(
                                        step.label(),
                                        pins.of(step).orElseThrow().asTyped(),
                                        footprintM));
            }
            return new Share(1 - stepM / footprintM, stepM);
        }
    }

    /** The limit that holds the speed. */
    public SpeedLimit.Allowed binding() {
        return speeds.stream()
                .min(Comparator.comparingDouble(SpeedLimit.Allowed::speedMps))
                .orElseThrow();
    }

    /** Ground speed while mapping, in metres a second. */
    public double speedMps() {
        return binding().speedMps();
    }

    /** Time between photos at that speed, in seconds. */
    public double intervalS() {
        return baseM / speedMps();
    }

    /** How far the image moves during the exposure, in pixels along the strip. */
    public double blurPx() {
        return speedMps() * shutterTimeS / scale.gsdAlongM();
    }

    /** Photos that see a point well inside the block, on average. */
    public double meanPhotos() {
        return 1 / ((1 - forwardOverlap) * (1 - sideOverlap));
    }
}

package yalos.core.plan;

import java.util.Comparator;
import java.util.List;
import java.util.OptionalDouble;
import yalos.core.camera.Camera;
import yalos.core.camera.GroundScale;
import yalos.core.fault.InputFault;
import yalos.core.kit.Kit;
import yalos.core.kit.Scanner;
import yalos.core.pins.Defaults;
import yalos.core.pins.Overlaps;
import yalos.core.pins.Pins;
import yalos.core.pins.Quantity;
import yalos.core.pins.ScaleFix;

/**
 * The quantities that follow from the pins and the kit alone, whatever the block's shape.
 *
 * @param scale height, GSD and footprint of the leading camera
 * @param coverAcrossM width of ground that one strip covers: the footprint, or the swath where a scanner leads
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
        double coverAcrossM,
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
    public static Design of(Pins pins, Kit kit) {
        return of(pins, kit, 0, Overlaps.USUAL);
    }

    /**
     * The same where the highest ground comes nearer to the aircraft than the scale's own: spacing and base are kept there.
     *
     * @param nearerM by how much
     * @param usual overlaps where none is pinned
     * @throws InputFault also when the ground comes so near that no photo would be left
     */
    static Design of(Pins pins, Kit kit, double nearerM, Overlaps usual) {
        GroundScale scale = scaleOf(pins, kit);
        double left = scale.heightM() - nearerM;
        if (left < scale.heightM() / 10) {
            throw new InputFault(
                    "height",
                    "%.0f m".formatted(scale.heightM()),
                    "The ground rises %.0f m within the block, and the plan flies at %.0f m over the lowest of it. Follow the ground, or fly higher."
                            .formatted(nearerM, scale.heightM()));
        }
        GroundScale highest = new GroundScale(kit.camera(), left);
        double cover = left * acrossPerHeight(kit);
        Share forward = forward(pins, highest, usual.forward());
        Share side = Share.of(pins, Quantity.SIDE_OVERLAP, Quantity.STRIP_SPACING, Defaults.sideOverlap(kit), cover);
        double margin =
                pins.siOr(Quantity.MARGIN, pins.siOr(Quantity.MARGIN_STRIPS, Defaults.MARGIN_STRIPS) * side.stepM());
        List<SpeedLimit.Allowed> speeds = SpeedLimit.of(pins, kit, scale, forward.stepM());
        Share kept = ridingAlong(kit, forward, scale, least(speeds).speedMps());
        return new Design(
                scale,
                cover,
                kept.overlap(),
                side.overlap(),
                kept.stepM(),
                side.stepM(),
                margin,
                pins.siOr(Quantity.SHUTTER_TIME, Defaults.SHUTTER_TIME_S),
                speeds);
    }

    /** Width of ground covered by a strip for each metre of height. */
    private static double acrossPerHeight(Kit kit) {
        return kit.payload()
                .scanner()
                .map(scanner -> scanner.swathM(1))
                .orElseGet(() -> kit.camera().sideAcrossM() / kit.camera().focalLengthM());
    }

    private static GroundScale scaleOf(Pins pins, Kit kit) {
        Camera camera = kit.camera();
        ScaleFix fix = ScaleFix.of(pins)
                .orElseThrow(
                        () -> new InputFault("gsd", "nothing", "Something must fix the scale: pin GSD or height."));
        double alongPerHeight = camera.sideAlongM() / camera.focalLengthM();
        return switch (fix) {
            case SCALE ->
                pins.has(Quantity.GSD)
                        ? GroundScale.ofGsd(camera, pins.pinned(Quantity.GSD))
                        : new GroundScale(camera, pins.pinned(Quantity.HEIGHT));
            case ACROSS ->
                new GroundScale(
                        camera,
                        pins.pinned(Quantity.STRIP_SPACING)
                                / (1 - pins.pinned(Quantity.SIDE_OVERLAP))
                                / acrossPerHeight(kit));
            case ALONG ->
                new GroundScale(
                        camera,
                        pins.pinned(Quantity.AIR_BASE) / (1 - pins.pinned(Quantity.FORWARD_OVERLAP)) / alongPerHeight);
            case PACE ->
                new GroundScale(
                        camera,
                        pins.pinned(Quantity.SPEED)
                                * pins.pinned(Quantity.INTERVAL)
                                / (1 - pins.pinned(Quantity.FORWARD_OVERLAP))
                                / alongPerHeight);
        };
    }

    /** With speed and interval pinned and nothing else along the strip, the base is what is flown between two photos. */
    private static Share forward(Pins pins, GroundScale scale, double usual) {
        boolean byPace = pins.has(Quantity.SPEED)
                && pins.has(Quantity.INTERVAL)
                && !pins.has(Quantity.AIR_BASE)
                && !pins.has(Quantity.FORWARD_OVERLAP);
        double along = scale.footprintAlongM();
        if (byPace) {
            double base = pins.pinned(Quantity.SPEED) * pins.pinned(Quantity.INTERVAL);
            return Share.ofStep(Quantity.INTERVAL, pins, base, along);
        }
        return Share.of(pins, Quantity.FORWARD_OVERLAP, Quantity.AIR_BASE, usual, along);
    }

    /** A camera that rides along with a scanner takes what photos it can and holds nobody up. */
    private static Share ridingAlong(Kit kit, Share forward, GroundScale scale, double speedMps) {
        double soonest = speedMps * kit.payload().slowestIntervalS();
        if (!kit.payload().scannerLeads() || soonest <= forward.stepM()) {
            return forward;
        }
        return new Share(1 - soonest / scale.footprintAlongM(), soonest);
    }

    /** An overlap and the step on the ground that goes with it. */
    private record Share(double overlap, double stepM) {

        static Share of(Pins pins, Quantity overlap, Quantity step, double otherwise, double footprintM) {
            OptionalDouble pinnedStep = pins.si(step);
            if (pinnedStep.isEmpty()) {
                double share = pins.siOr(overlap, otherwise);
                return new Share(share, footprintM * (1 - share));
            }
            return ofStep(step, pins, pinnedStep.getAsDouble(), footprintM);
        }

        static Share ofStep(Quantity step, Pins pins, double stepM, double footprintM) {
            if (stepM >= footprintM) {
                String typed = pins.of(step).orElseThrow().asTyped();
                throw new InputFault(
                        step.key(),
                        typed,
                        "%s of %s is more than the footprint of %.1f m, so photos would not overlap. Make it smaller, or the scale coarser."
                                .formatted(step.label(), typed, footprintM));
            }
            return new Share(1 - stepM / footprintM, stepM);
        }
    }

    /** The limit that holds the speed. */
    public SpeedLimit.Allowed binding() {
        return least(speeds);
    }

    private static SpeedLimit.Allowed least(List<SpeedLimit.Allowed> speeds) {
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
        return scale.footprintAcrossM() / spacingM / (1 - forwardOverlap);
    }

    /** Points of the scanner on each square metre, from one strip. */
    public double pointsPerM2(Scanner scanner) {
        return scanner.pointsPerM2(scale.heightM(), speedMps());
    }
}

package yalos.core.pins;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Which pins fix the scale. A pinned GSD or height does so by itself; otherwise the scale follows from a step on the ground and
 * the overlap that it has to keep. The first that applies counts.
 */
public enum ScaleFix {
    /** GSD or height is pinned. */
    SCALE(List.of()),
    /** {@code W = S / (1 − q)}. */
    ACROSS(List.of(Quantity.STRIP_SPACING, Quantity.SIDE_OVERLAP)),
    /** {@code L = B / (1 − o)}. */
    ALONG(List.of(Quantity.AIR_BASE, Quantity.FORWARD_OVERLAP)),
    /** {@code L = v t / (1 − o)}. */
    PACE(List.of(Quantity.SPEED, Quantity.INTERVAL, Quantity.FORWARD_OVERLAP));

    private final List<Quantity> needs;

    ScaleFix(List<Quantity> needs) {
        this.needs = needs;
    }

    /** The pins that fix it together. */
    public List<Quantity> needs() {
        return needs;
    }

    /** Which of the pins fix the scale; empty when none do. */
    public static Optional<ScaleFix> of(Pins pins) {
        if (pins.has(Quantity.GSD) || pins.has(Quantity.HEIGHT)) {
            return Optional.of(SCALE);
        }
        return Stream.of(ACROSS, ALONG, PACE)
                .filter(fix -> fix.needs.stream().allMatch(pins::has))
                .findFirst();
    }
}

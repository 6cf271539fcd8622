package yalos.core.pattern;

import java.util.List;
import java.util.Locale;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * A second grid across the first. At another height it parts focal length from height in a self-calibrating adjustment (common practice).
 *
 * @param angle to the lines of the main pass
 */
public record Crossing(Own own, Measure angle) implements AddedPass {
    private static final double LEAST_RAD = Math.toRadians(10);

    /** Square to the main pass, all else as there. */
    public static final Crossing SQUARE = new Crossing(Own.NONE, Measure.of(90, Unit.DEGREE));

    public Crossing {
        double off = Math.abs(Math.IEEEremainder(angle.si(), Math.PI));
        if (off < LEAST_RAD - 1e-9) {
            throw new InputFault(
                    "angle",
                    angle.asTyped(),
                    "At %s the crossing strips lie along the others. Give at least 10°; 90° is square to them."
                            .formatted(angle.asTyped()));
        }
    }

    @Override
    public String key() {
        return "crossing";
    }

    @Override
    public Crossing with(Own other) {
        return new Crossing(other, angle);
    }

    @Override
    public String words() {
        return String.format(Locale.ROOT, "crossing at %.0f°", Math.toDegrees(angle.si()));
    }

    @Override
    public List<Flown> passes(PlaneBlock block, double mainRad, Setting setting) {
        return List.of(new Flown(new Pass(StripGrid.towards(mainRad + angle.si()), setting.task()), block));
    }
}

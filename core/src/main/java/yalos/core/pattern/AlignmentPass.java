package yalos.core.pattern;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Alignment;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * The alignment of a lidar, before the first line and after the last. It takes no photos and covers nothing, so it makes no pass of its own.
 *
 * @param still standing on the ground
 * @param straight at full speed
 * @param eights figure-eights at each end
 */
public record AlignmentPass(Measure still, Measure straight, int eights) implements AddedPass {
    /** Common practice. */
    public static final AlignmentPass USUAL =
            new AlignmentPass(Measure.of(30, Unit.SECOND), Measure.of(5, Unit.SECOND), 2);

    public AlignmentPass {
        new Alignment(still.si(), straight.si(), eights);
        if (still.si() == 0 && straight.si() == 0 && eights == 0) {
            throw new InputFault("eights", 0, "Nothing of the alignment is left. Take the pass away instead.");
        }
    }

    @Override
    public String key() {
        return "alignment";
    }

    @Override
    public Own own() {
        return Own.NONE;
    }

    @Override
    public AlignmentPass with(Own other) {
        return this;
    }

    @Override
    public String words() {
        return String.format(
                Locale.ROOT,
                "lidar alignment: %s still, %d %s, %s straight",
                still.asTyped(),
                eights,
                eights == 1 ? "eight" : "eights",
                straight.asTyped());
    }

    @Override
    public List<Flown> passes(PlaneBlock block, double mainRad, Setting setting) {
        return List.of();
    }

    @Override
    public Optional<Alignment> alignment() {
        return Optional.of(new Alignment(still.si(), straight.si(), eights));
    }
}

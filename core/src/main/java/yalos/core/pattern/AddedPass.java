package yalos.core.pattern;

import java.util.List;
import java.util.Optional;
import yalos.core.block.PlaneBlock;
import yalos.core.fault.InputFault;
import yalos.core.flight.Alignment;
import yalos.core.units.Measure;

/**
 * A pattern flown besides the main one, as the operator wants it. What it does not say is as in the main pass.
 *
 * <p>A new kind is a class that implements this, its form in the store and on the page, and its tests; whoever plans, proves, prints or writes files
 * knows only the passes it makes.
 */
public interface AddedPass {
    /** Its name in files, in the service and in the store. */
    String key();

    /** What it says for itself about height and overlaps. */
    Own own();

    /** The same with other height and overlaps. */
    AddedPass with(Own other);

    /** What it is, in a few words, such as “crossing at 90°”. */
    String words();

    /**
     * The passes it takes.
     *
     * @param block to cover, margin included
     * @param mainRad direction of the main pass's lines, clockwise from grid north
     * @throws InputFault for settings that cannot be flown
     */
    List<Flown> passes(PlaneBlock block, double mainRad, Setting setting);

    /** What it asks for before the first line and after the last; empty for most. */
    default Optional<Alignment> alignment() {
        return Optional.empty();
    }

    /**
     * A pass and the ground its aircraft flies over, which is not always the block: a tilted camera looks into it from beside.
     */
    record Flown(Pass pass, PlaneBlock over) {}

    /**
     * Height and overlaps of its own; as in the main pass where empty.
     *
     * @param height above ground
     * @param forwardOverlap as a share
     * @param sideOverlap as a share
     */
    record Own(Optional<Measure> height, Optional<Measure> forwardOverlap, Optional<Measure> sideOverlap) {
        /** Everything as in the main pass. */
        public static final Own NONE = new Own(Optional.empty(), Optional.empty(), Optional.empty());

        public Own {
            height.ifPresent(h -> InputFault.within("height", h.si(), 1, 10_000, "m"));
            forwardOverlap.ifPresent(o -> InputFault.within("forwardOverlap", o.si(), 0, 0.98, ""));
            sideOverlap.ifPresent(o -> InputFault.within("sideOverlap", o.si(), 0, 0.98, ""));
        }
    }

    /**
     * What follows for it from the plan, were it flown straight down.
     *
     * @param task spacing, base, height, speed and camera
     * @param coverAcrossM width of ground a line covers
     * @param forwardOverlap as a share
     * @param sideOverlap as a share
     * @param holdsHeading whether the aircraft can fly with its nose held to another side than ahead
     */
    record Setting(Task task, double coverAcrossM, double forwardOverlap, double sideOverlap, boolean holdsHeading) {}
}

package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.block.Corridor;
import yalos.core.fault.InputFault;
import yalos.core.units.Measure;

/**
 * Which patterns fly a block, as the operator decided.
 *
 * @param corridor the axis strips follow; a grid of strips where empty
 * @param added what is flown besides, in this order
 * @param edits changes to strips made by hand, in the order made
 * @param start where the main pass begins; nearest to the launch point where empty
 * @param direction why the pinned direction was chosen; empty where nobody said
 * @param turns how it gets from one line into the next
 * @param structures objects, and what is flown round them
 * @param heading to which the aircraft's nose is held on the main pass, from grid north; along the strips where empty
 */
public record Patterns(
        Optional<Corridor> corridor,
        List<AddedPass> added,
        Optional<Measure> heading,
        Optional<DirectionBy> direction,
        List<StripEdit> edits,
        Optional<StartCorner> start,
        Turns turns,
        Structures structures) {
    private static final int MOST_ADDED = 8;
    private static final int MOST_EDITS = 300;

    /** One grid, flown nose ahead. */
    public static final Patterns SINGLE = new Patterns(
            Optional.empty(),
            List.of(),
            Optional.empty(),
            Optional.empty(),
            List.of(),
            Optional.empty(),
            Turns.USUAL,
            Structures.NONE);

    /**
     * How an aircraft gets from one line into the next.
     *
     * @param inside whether a wing turns within the outline, at the cost of its edges; outside it otherwise
     * @param rounded whether a multirotor turns back in a bend where that is quicker; it stops nearly at each corner otherwise
     */
    public record Turns(boolean inside, boolean rounded) {
        /** As most do. */
        public static final Turns USUAL = new Turns(false, false);
    }

    public Patterns {
        if (added.size() > MOST_ADDED) {
            throw new InputFault(
                    "passes", added.size(), "A block is flown in %d passes at most.".formatted(MOST_ADDED));
        }
        if (edits.size() > MOST_EDITS) {
            throw new InputFault(
                    "strip", edits.size(), "Strips are changed by hand %d times at most.".formatted(MOST_EDITS));
        }
        added = List.copyOf(added);
        edits = List.copyOf(edits);
    }

    /** The same with other changes by hand. */
    public Patterns edited(List<StripEdit> others) {
        return new Patterns(corridor, added, heading, direction, others, start, turns, structures);
    }

    /** The same flown along an axis, or as a grid again. */
    public Patterns along(Optional<Corridor> other) {
        return new Patterns(other, added, heading, direction, edits, start, turns, structures);
    }

    /** The same with other passes besides. */
    public Patterns with(List<AddedPass> others) {
        return new Patterns(corridor, others, heading, direction, edits, start, turns, structures);
    }

    /** The same with one pass more. */
    public Patterns adding(AddedPass one) {
        List<AddedPass> more = new ArrayList<>(added);
        more.add(one);
        return with(more);
    }

    /** The same with the nose held, or along the strips again. */
    public Patterns holding(Optional<Measure> other) {
        return new Patterns(corridor, added, other, direction, edits, start, turns, structures);
    }

    /** The same with its direction chosen for a reason. */
    public Patterns turned(DirectionBy by) {
        return new Patterns(corridor, added, heading, Optional.of(by), edits, start, turns, structures);
    }

    /** The same begun at another corner, or nearest to the launch point again. */
    public Patterns begun(Optional<StartCorner> other) {
        return new Patterns(corridor, added, heading, direction, edits, other, turns, structures);
    }

    /** The same with other turns. */
    public Patterns turning(Turns other) {
        return new Patterns(corridor, added, heading, direction, edits, start, other, structures);
    }

    /** The same with other objects, or flown round them otherwise. */
    public Patterns with(Structures others) {
        return new Patterns(corridor, added, heading, direction, edits, start, turns, others);
    }

    /** What is flown, in a few words. */
    public String words() {
        List<String> words = new ArrayList<>();
        if (!structures.alone()) {
            words.add(
                    corridor.isPresent()
                            ? "corridor"
                            : added.stream().anyMatch(Crossing.class::isInstance) ? "grid" : "single grid");
            added.forEach(pass -> words.add(pass.words()));
        }
        structures.passes().forEach(pass -> words.add(pass.words()));
        return String.join(" + ", words);
    }
}

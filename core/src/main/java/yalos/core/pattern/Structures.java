package yalos.core.pattern;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.fault.InputFault;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Objects that are photographed for their faces, and how.
 *
 * @param objects in the order listed
 * @param passes flown round them, in this order, after those over the ground
 * @param clear least distance kept from all of them, from the ground and from what else stands there
 * @param alone whether nothing is flown over the ground
 * @param oneView whether one square view of each place is enough, as for looking at it; otherwise it is reconstructed from several
 */
public record Structures(
        List<Structure> objects, List<StructurePass> passes, Measure clear, boolean alone, boolean oneView) {
    private static final int MOST_OBJECTS = 30;
    private static final int MOST_PASSES = 20;
    /** Faces of all objects together: each is proved and drawn by itself. */
    public static final int MOST_FACES = 600;

    /** No objects. */
    public static final Structures NONE = new Structures(List.of(), List.of(), Measure.of(5, Unit.METRE), false, false);

    public Structures {
        if (objects.size() > MOST_OBJECTS) {
            throw new InputFault(
                    "objects", objects.size(), "A block holds %d objects at most.".formatted(MOST_OBJECTS));
        }
        if (passes.size() > MOST_PASSES) {
            throw new InputFault(
                    "passes", passes.size(), "Objects are flown round in %d passes at most.".formatted(MOST_PASSES));
        }
        InputFault.within("clear", clear.si(), 0.5, 200, "m");
        long names = objects.stream().map(Structure::name).distinct().count();
        if (names < objects.size()) {
            throw new InputFault("name", "", "Another object has that name already; give it one of its own.");
        }
        int faces = objects.stream().mapToInt(Structures::faces).sum();
        if (faces > MOST_FACES) {
            throw new InputFault(
                    "footprint",
                    faces + " faces",
                    "The objects have %d faces together; %d are the most. Simplify a footprint, or plan part of them in another block."
                            .formatted(faces, MOST_FACES));
        }
        objects = List.copyOf(objects);
        passes = List.copyOf(passes);
    }

    private static int faces(Structure object) {
        return object.parts().stream()
                .mapToInt(part -> part.places().size() * (part.alongLine() ? 2 : 1)
                        + 2
                        + 4 * part.piers().count())
                .sum();
    }

    /** Whether anything is flown round an object. */
    public boolean flown() {
        return !passes.isEmpty();
    }

    /** The object of that name. */
    public Optional<Structure> object(String name) {
        return objects.stream().filter(one -> one.name().equals(name)).findFirst();
    }

    /** The same with other passes. */
    public Structures with(List<StructurePass> others) {
        return new Structures(objects, others, clear, alone && !others.isEmpty(), oneView);
    }

    /** The same with one pass more. */
    public Structures adding(StructurePass one) {
        List<StructurePass> more = new ArrayList<>(passes);
        more.add(one);
        return with(more);
    }

    /** The same with an object more, or in place of the one of that name. */
    public Structures putting(Optional<String> inPlaceOf, Structure object) {
        List<Structure> changed = new ArrayList<>();
        boolean put = false;
        for (Structure one : objects) {
            boolean same = inPlaceOf.filter(one.name()::equals).isPresent();
            changed.add(same ? object : one);
            put |= same;
        }
        if (!put) {
            changed.add(object);
        }
        return new Structures(changed, passes, clear, alone, oneView);
    }

    /** The same without an object and what was flown round it. */
    public Structures without(String name) {
        List<StructurePass> left = passes.stream()
                .filter(pass -> pass.object().filter(name::equals).isEmpty())
                .toList();
        return new Structures(
                objects.stream().filter(one -> !one.name().equals(name)).toList(),
                left,
                clear,
                alone && !left.isEmpty(),
                oneView);
    }

    /** The same flown otherwise. */
    public Structures flown(Measure otherClear, boolean onlyThese, boolean oneViewIsEnough) {
        return new Structures(objects, passes, otherClear, onlyThese && !passes.isEmpty(), oneViewIsEnough);
    }
}

package yalos.web.store;

import static yalos.web.store.Plain.known;
import static yalos.web.store.Plain.or;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.pattern.Circles;
import yalos.core.pattern.Facade;
import yalos.core.pattern.Rings;
import yalos.core.pattern.StandOff;
import yalos.core.pattern.StructurePass;
import yalos.core.pattern.Structures;
import yalos.core.pattern.UnderDeck;
import yalos.core.site.Structure;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/** Objects and what is flown round them, as they are stored. An object or pass that cannot be any more is passed over. */
record StoredStructures(
        List<StoredObject> objects, List<StoredRound> passes, String clear, Boolean alone, Boolean oneView) {
    /** Null for none, so that nothing is written of it. */
    static StoredStructures of(Structures one) {
        return one.equals(Structures.NONE)
                ? null
                : new StoredStructures(
                        one.objects().stream().map(StoredObject::of).toList(),
                        one.passes().stream().map(StoredRound::of).toList(),
                        one.clear().asTyped(),
                        one.alone() ? true : null,
                        one.oneView() ? true : null);
    }

    Structures structures() {
        List<Structure> read = new ArrayList<>();
        or(objects).forEach(object -> object.read().ifPresent(read::add));
        List<StructurePass> flown = new ArrayList<>();
        or(passes).forEach(pass -> pass.read().ifPresent(flown::add));
        try {
            return new Structures(
                    read,
                    flown,
                    StoredPatterns.measure(clear, Unit.METRE).orElse(Structures.NONE.clear()),
                    Boolean.TRUE.equals(alone) && !flown.isEmpty(),
                    Boolean.TRUE.equals(oneView));
        } catch (InputFault cannotBeAnyMore) {
            return Structures.NONE;
        }
    }

    /** An object. */
    record StoredObject(String name, List<StoredSolid> parts, List<String> off, String notes) {
        static StoredObject of(Structure one) {
            return new StoredObject(
                    one.name(),
                    one.parts().stream().map(StoredSolid::of).toList(),
                    one.off().isEmpty() ? null : one.off().stream().sorted().toList(),
                    one.notes().isEmpty() ? null : one.notes());
        }

        Optional<Structure> read() {
            List<Structure.Part> solids = new ArrayList<>();
            or(parts).forEach(part -> part.read().ifPresent(solids::add));
            try {
                return Optional.of(new Structure(name, solids, new HashSet<>(or(off)), or(notes, "")));
            } catch (InputFault cannotBeAnyMore) {
                return Optional.empty();
            }
        }
    }

    /** A part of an object. */
    record StoredSolid(
            String kind,
            List<double[]> places,
            Double widthM,
            Double bottomM,
            Double topM,
            String counted,
            Integer piers,
            Double pierAlongM,
            Double pierAcrossM) {
        static StoredSolid of(Structure.Part part) {
            Structure.Piers piers = part.piers();
            boolean some = piers.count() > 0;
            return new StoredSolid(
                    part.kind().name(),
                    StoredPart.pairs(part.places()),
                    part.alongLine() ? part.widthM() : null,
                    part.bottomM(),
                    part.topM(),
                    part.counted().name(),
                    some ? piers.count() : null,
                    some ? piers.alongM() : null,
                    some ? piers.acrossM() : null);
        }

        Optional<Structure.Part> read() {
            try {
                return places == null || topM == null
                        ? Optional.empty()
                        : Optional.of(new Structure.Part(
                                known(kind, Structure.Kind.class).orElse(Structure.Kind.BODY),
                                StoredPart.corners(places),
                                or(widthM, 0),
                                or(bottomM, 0),
                                topM,
                                known(counted, Structure.Counted.class).orElse(Structure.Counted.GROUND),
                                or(piers, 0) == 0
                                        ? Structure.Piers.NONE
                                        : new Structure.Piers(piers, or(pierAlongM, 1), or(pierAcrossM, 1))));
            } catch (InputFault cannotBeAnyMore) {
                return Optional.empty();
            }
        }
    }

    /** A pass round an object; what its pattern does not ask for is missing. */
    record StoredRound(
            String pattern,
            String object,
            String off,
            String gsd,
            String forward,
            String side,
            String speed,
            String floor,
            String ceiling,
            Boolean upright,
            String footTilt,
            String roofTilt,
            Boolean rounded,
            Boolean overRoof,
            String radius,
            String low,
            String high,
            Integer rings,
            Integer photos,
            String aim,
            String overlap,
            String height,
            Boolean follows,
            String tilt,
            String up) {
        static StoredRound of(StructurePass pass) {
            Writing to = new Writing();
            StandOff off = null;
            if (pass instanceof Facade facade) {
                off = facade.off();
                to.upright = facade.upright();
                to.footTilt = facade.footTilt().asTyped();
                to.roofTilt = facade.roofTilt().asTyped();
                to.rounded = facade.rounded();
                to.overRoof = facade.overRoof();
            } else if (pass instanceof Rings rings) {
                off = rings.off();
                to.radius = typed(rings.radius());
                to.low = typed(rings.low());
                to.high = typed(rings.high());
                to.rings = boxed(rings.rings());
                to.photos = boxed(rings.photos());
                to.aim = typed(rings.aim());
            } else if (pass instanceof Circles circles) {
                to.radius = circles.radius().asTyped();
                to.overlap = circles.overlap().asTyped();
                to.height = circles.height().asTyped();
                to.follows = circles.follows();
                to.photos = boxed(circles.photos());
                to.tilt = typed(circles.tilt());
            } else if (pass instanceof UnderDeck under) {
                off = under.off();
                to.up = under.up().asTyped();
            }
            Optional<StandOff> standing = Optional.ofNullable(off);
            StructurePass.Habit habit = pass.habit();
            return new StoredRound(
                    pass.key(),
                    pass.object().orElse(null),
                    standing.flatMap(StandOff::distance).map(Measure::asTyped).orElse(null),
                    standing.flatMap(StandOff::gsd).map(Measure::asTyped).orElse(null),
                    habit.forward().asTyped(),
                    habit.side().asTyped(),
                    typed(habit.speed()),
                    typed(habit.floor()),
                    typed(habit.ceiling()),
                    to.upright,
                    to.footTilt,
                    to.roofTilt,
                    to.rounded,
                    to.overRoof,
                    to.radius,
                    to.low,
                    to.high,
                    to.rings,
                    to.photos,
                    to.aim,
                    to.overlap,
                    to.height,
                    to.follows,
                    to.tilt,
                    to.up);
        }

        /** What a pattern says for itself, until it is written. */
        private static final class Writing {
            Boolean upright;
            String footTilt;
            String roofTilt;
            Boolean rounded;
            Boolean overRoof;
            String radius;
            String low;
            String high;
            Integer rings;
            Integer photos;
            String aim;
            String overlap;
            String height;
            Boolean follows;
            String tilt;
            String up;
        }

        private static String typed(Optional<Measure> measure) {
            return measure.map(Measure::asTyped).orElse(null);
        }

        private static Integer boxed(OptionalInt count) {
            return count.isPresent() ? count.getAsInt() : null;
        }

        Optional<StructurePass> read() {
            try {
                StructurePass.Habit usual = StructurePass.Habit.USUAL;
                StructurePass.Habit habit = new StructurePass.Habit(
                        measure(forward, Unit.PERCENT).orElse(usual.forward()),
                        measure(side, Unit.PERCENT).orElse(usual.side()),
                        measure(speed, Unit.METRE_PER_SECOND),
                        measure(floor, Unit.METRE),
                        measure(ceiling, Unit.METRE));
                return Optional.ofNullable(
                        switch (or(pattern, "")) {
                            case "facade" ->
                                new Facade(
                                        or(object, ""),
                                        standOff(),
                                        Boolean.TRUE.equals(upright),
                                        degrees(footTilt, 0),
                                        degrees(roofTilt, 0),
                                        !Boolean.FALSE.equals(rounded),
                                        Boolean.TRUE.equals(overRoof),
                                        habit);
                            case "rings" ->
                                new Rings(
                                        or(object, ""),
                                        standOff(),
                                        measure(radius, Unit.METRE),
                                        measure(low, Unit.METRE),
                                        measure(high, Unit.METRE),
                                        count(rings),
                                        count(photos),
                                        measure(aim, Unit.METRE),
                                        habit);
                            case "circles" ->
                                new Circles(
                                        measure(radius, Unit.METRE).orElse(Measure.of(30, Unit.METRE)),
                                        measure(overlap, Unit.PERCENT).orElse(Measure.of(50, Unit.PERCENT)),
                                        measure(height, Unit.METRE).orElse(Measure.of(30, Unit.METRE)),
                                        Boolean.TRUE.equals(follows),
                                        count(photos),
                                        measure(tilt, Unit.DEGREE),
                                        habit);
                            case "under-deck" -> new UnderDeck(or(object, ""), standOff(), degrees(up, 90), habit);
                            default -> null;
                        });
            } catch (InputFault cannotBeAnyMore) {
                return Optional.empty();
            }
        }

        private StandOff standOff() {
            Optional<Measure> finest = measure(gsd, Unit.MILLIMETRE);
            return finest.map(StandOff::ofGsd)
                    .orElseGet(() -> StandOff.of(measure(off, Unit.METRE).orElse(Measure.of(10, Unit.METRE))));
        }

        private static Optional<Measure> measure(String typed, Unit unit) {
            return StoredPatterns.measure(typed, unit);
        }

        private static Measure degrees(String typed, double usual) {
            return measure(typed, Unit.DEGREE).orElse(Measure.of(usual, Unit.DEGREE));
        }

        private static OptionalInt count(Integer stored) {
            return stored == null ? OptionalInt.empty() : OptionalInt.of(stored);
        }
    }
}

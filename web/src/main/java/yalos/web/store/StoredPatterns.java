package yalos.web.store;

import static yalos.web.store.Plain.known;
import static yalos.web.store.Plain.or;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import yalos.core.block.Corridor;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;
import yalos.core.pattern.AddedPass;
import yalos.core.pattern.AlignmentPass;
import yalos.core.pattern.Crossing;
import yalos.core.pattern.DirectionBy;
import yalos.core.pattern.Patterns;
import yalos.core.pattern.StartCorner;
import yalos.core.pattern.StripEdit;
import yalos.core.pattern.Structures;
import yalos.core.pattern.TieStrips;
import yalos.core.pattern.TiltedPasses;
import yalos.core.units.Measure;
import yalos.core.units.Unit;

/**
 * Which patterns fly a block, as it is stored: measures as they were typed, the axis as pairs of longitude and latitude. A pass that nobody knows, or
 * that cannot be flown any more, is passed over.
 */
record StoredPatterns(
        List<double[]> axis,
        String left,
        String right,
        String heading,
        String direction,
        List<StoredPass> passes,
        List<StoredEdit> edits,
        String start,
        Boolean inside,
        Boolean rounded,
        StoredStructures structures) {
    static StoredPatterns of(Patterns patterns) {
        Optional<Corridor> corridor = patterns.corridor();
        return patterns.equals(Patterns.SINGLE)
                ? null
                : new StoredPatterns(
                        corridor.map(there -> StoredPart.pairs(there.axis())).orElse(null),
                        corridor.map(there -> there.left().asTyped()).orElse(null),
                        corridor.map(there -> there.right().asTyped()).orElse(null),
                        patterns.heading().map(Measure::asTyped).orElse(null),
                        patterns.direction().map(Enum::name).orElse(null),
                        patterns.added().stream().map(StoredPass::of).toList(),
                        patterns.edits().stream().map(StoredEdit::of).toList(),
                        patterns.start().map(Enum::name).orElse(null),
                        patterns.turns().inside() ? true : null,
                        patterns.turns().rounded() ? true : null,
                        StoredStructures.of(patterns.structures()));
    }

    Patterns patterns() {
        List<AddedPass> read = new ArrayList<>();
        or(passes).forEach(pass -> pass.read().ifPresent(read::add));
        try {
            return new Patterns(
                    corridor(),
                    read,
                    measure(heading, Unit.DEGREE),
                    known(direction, DirectionBy.class),
                    readEdits(),
                    known(start, StartCorner.class),
                    new Patterns.Turns(Boolean.TRUE.equals(inside), Boolean.TRUE.equals(rounded)),
                    structures == null ? Structures.NONE : structures.structures());
        } catch (InputFault tooMany) {
            return Patterns.SINGLE;
        }
    }

    private List<StripEdit> readEdits() {
        List<StripEdit> read = new ArrayList<>();
        or(edits).forEach(edit -> edit.read().ifPresent(read::add));
        return read;
    }

    private Optional<Corridor> corridor() {
        try {
            return axis == null
                    ? Optional.empty()
                    : Optional.of(new Corridor(
                            StoredPart.corners(axis),
                            measure(left, Unit.METRE).orElse(Measure.of(0, Unit.METRE)),
                            measure(right, Unit.METRE).orElse(Measure.of(0, Unit.METRE))));
        } catch (InputFault cannotBeAnyMore) {
            return Optional.empty();
        }
    }

    static Optional<Measure> measure(String typed, Unit unit) {
        try {
            return typed == null ? Optional.empty() : Optional.of(Measure.typed("stored", typed, unit));
        } catch (InputFault cannotBeAnyMore) {
            return Optional.empty();
        }
    }

    /** An added pass; what its pattern does not ask for is missing. */
    record StoredPass(
            String pattern,
            String height,
            String forward,
            String side,
            String angle,
            String tilt,
            Integer count,
            List<String> looks,
            String still,
            String straight) {

        static StoredPass of(AddedPass pass) {
            String angle = null;
            String tilt = null;
            Integer count = null;
            List<String> looks = null;
            String still = null;
            String straight = null;
            if (pass instanceof Crossing crossing) {
                angle = crossing.angle().asTyped();
            } else if (pass instanceof TiltedPasses tilted) {
                tilt = tilted.tilt().asTyped();
                looks = tilted.looks().stream()
                        .sorted(Comparator.naturalOrder())
                        .map(TiltedPasses.Toward::key)
                        .toList();
            } else if (pass instanceof TieStrips tie) {
                angle = tie.angle().asTyped();
                tilt = tie.tilt().asTyped();
                count = tie.count();
            } else if (pass instanceof AlignmentPass alignment) {
                count = alignment.eights();
                still = alignment.still().asTyped();
                straight = alignment.straight().asTyped();
            }
            AddedPass.Own own = pass.own();
            return new StoredPass(
                    pass.key(),
                    own.height().map(Measure::asTyped).orElse(null),
                    own.forwardOverlap().map(Measure::asTyped).orElse(null),
                    own.sideOverlap().map(Measure::asTyped).orElse(null),
                    angle,
                    tilt,
                    count,
                    looks,
                    still,
                    straight);
        }

        Optional<AddedPass> read() {
            try {
                AddedPass.Own own = new AddedPass.Own(
                        measure(height, Unit.METRE), measure(forward, Unit.PERCENT), measure(side, Unit.PERCENT));
                return Optional.ofNullable(
                        switch (or(pattern, "").toLowerCase(Locale.ROOT)) {
                            case "crossing" -> new Crossing(own, degrees(angle, 90));
                            case "tilted" -> new TiltedPasses(own, degrees(tilt, 30), ways());
                            case "tie" -> new TieStrips(own, or(count, 1), degrees(angle, 90), degrees(tilt, 0));
                            case "alignment" ->
                                new AlignmentPass(
                                        measure(still, Unit.SECOND).orElse(AlignmentPass.USUAL.still()),
                                        measure(straight, Unit.SECOND).orElse(AlignmentPass.USUAL.straight()),
                                        or(count, AlignmentPass.USUAL.eights()));
                            default -> null;
                        });
            } catch (InputFault cannotBeAnyMore) {
                return Optional.empty();
            }
        }

        private static Measure degrees(String typed, double usual) {
            return measure(typed, Unit.DEGREE).orElse(Measure.of(usual, Unit.DEGREE));
        }

        private Set<TiltedPasses.Toward> ways() {
            Set<TiltedPasses.Toward> ways = EnumSet.noneOf(TiltedPasses.Toward.class);
            or(looks).forEach(look -> known(look, TiltedPasses.Toward.class).ifPresent(ways::add));
            return ways.isEmpty() ? EnumSet.allOf(TiltedPasses.Toward.class) : ways;
        }
    }

    /** A change by hand. */
    record StoredEdit(String kind, double[] at, double[] to, Integer photos) {
        static StoredEdit of(StripEdit edit) {
            return new StoredEdit(
                    edit.kind().name(),
                    pair(edit.at()),
                    edit.to().map(StoredEdit::pair).orElse(null),
                    edit.photos());
        }

        private static double[] pair(LonLat at) {
            return new double[] {at.lonDeg(), at.latDeg()};
        }

        Optional<StripEdit> read() {
            try {
                return at == null || at.length != 2
                        ? Optional.empty()
                        : known(kind, StripEdit.Kind.class)
                                .map(what -> new StripEdit(
                                        what,
                                        StoredPart.corner(at),
                                        Optional.ofNullable(to)
                                                .filter(pair -> pair.length == 2)
                                                .map(StoredPart::corner),
                                        or(photos, 0)));
            } catch (InputFault cannotBeAnyMore) {
                return Optional.empty();
            }
        }
    }
}

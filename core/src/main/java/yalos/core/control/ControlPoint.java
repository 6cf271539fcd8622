package yalos.core.control;

import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * A place on the ground to be marked and measured.
 *
 * @param name label on the target, unique in its block
 * @param role whether the adjustment holds to it
 * @param kind what is seen in the photos
 * @param place where it is planned
 * @param upM height above the geoid where it is known by hand, such as that of a mark on a wall; else the model's
 * @param locked whether proposals leave it where it is
 * @param note why, in a line
 */
public record ControlPoint(
        String name, Role role, Kind kind, LonLat place, OptionalDouble upM, boolean locked, String note) {
    private static final int LONGEST_NAME = 20;
    private static final int LONGEST_NOTE = 200;

    /** What a point is for; fixed once it is measured. */
    public enum Role {
        CONTROL("control", "the adjustment holds to it"),
        CHECK("check", "never used in the adjustment, only compared");

        private final String words;
        private final String meaning;

        Role(String words, String meaning) {
            this.words = words;
            this.meaning = meaning;
        }

        public String words() {
            return words;
        }

        public String meaning() {
            return meaning;
        }
    }

    /** What the photos show of it. */
    public enum Kind {
        TARGET("target laid out", 1),
        /** A corner of something that lies there anyway: marked in the photos less sharply (common practice: half the weight). */
        NATURAL("natural feature, last resort", Math.sqrt(2)),
        /** Measured from the ground by total station. */
        FACADE("mark on a wall, by total station", 1);

        private final String words;
        private final double coarser;

        Kind(String words, double coarser) {
            this.words = words;
            this.coarser = coarser;
        }

        public String words() {
            return words;
        }

        /** By how much less well it is measured than a target. */
        public double coarser() {
            return coarser;
        }
    }

    public ControlPoint {
        name = name.strip();
        note = note.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME || !name.matches("[\\p{L}\\p{N}][\\p{L}\\p{N} ._/-]*")) {
            throw new InputFault(
                    "name",
                    name,
                    "A point's name begins with a letter or figure and has up to %d letters, figures, dots, dashes."
                            .formatted(LONGEST_NAME));
        }
        if (note.length() > LONGEST_NOTE) {
            throw new InputFault("note", note, "Keep it to %d characters.".formatted(LONGEST_NOTE));
        }
        upM.ifPresent(m -> InputFault.within("up", m, -500, 9000, "m"));
    }

    /** A target in a role at a place. */
    public static ControlPoint target(String name, Role role, LonLat place) {
        return new ControlPoint(name, role, Kind.TARGET, place, OptionalDouble.empty(), false, "");
    }

    public ControlPoint at(LonLat other) {
        return new ControlPoint(name, role, kind, other, upM, locked, note);
    }

    public ControlPoint locked(boolean now) {
        return new ControlPoint(name, role, kind, place, upM, now, note);
    }

    public ControlPoint as(Role other) {
        return new ControlPoint(name, other, kind, place, upM, locked, note);
    }
}

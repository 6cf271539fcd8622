package yalos.core.measured;

import java.time.LocalDateTime;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import yalos.core.fault.InputFault;
import yalos.core.geodesy.LonLat;

/**
 * A point as it was measured on the ground, reduced to the mark.
 *
 * @param point its name
 * @param at when, by the local clock
 * @param upM height above the geoid; empty where none was measured
 * @param epochs of one second
 * @param horizontalM accuracy of the position as the receiver says
 * @param verticalM accuracy of the height as the receiver says
 * @param rmsM root mean square of the epochs
 * @param poleM from the mark to the antenna's reference point
 */
public record Observation(
        String point,
        Optional<LocalDateTime> at,
        LonLat place,
        OptionalDouble upM,
        OptionalInt epochs,
        OptionalDouble horizontalM,
        OptionalDouble verticalM,
        OptionalDouble rmsM,
        Solution solution,
        OptionalInt satellites,
        OptionalDouble poleM,
        String note) {

    /** How the receiver came to it. */
    public enum Solution {
        FIXED("fixed"),
        FLOAT("float"),
        SINGLE("single"),
        UNKNOWN("not recorded");

        private final String words;

        Solution(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** The solution that a file's word means; not recorded for a word nobody knows. */
        public static Solution of(String word) {
            String plain = word.strip().toLowerCase(Locale.ROOT);
            if (plain.equals("4") || plain.startsWith("fix") || plain.equals("rtk fixed") || plain.contains("fixed")) {
                return FIXED;
            }
            if (plain.equals("5") || plain.contains("float")) {
                return FLOAT;
            }
            return plain.equals("1")
                            || plain.contains("single")
                            || plain.contains("auto")
                            || plain.contains("standalone")
                    ? SINGLE
                    : UNKNOWN;
        }
    }

    public Observation {
        point = point.strip();
        if (point.isEmpty() || point.length() > 40) {
            throw new InputFault("point", point, "Say which point was measured, in up to 40 letters.");
        }
        upM.ifPresent(m -> InputFault.within("height", m, -1000, 9000, "m"));
        epochs.ifPresent(n -> InputFault.within("epochs", n, 1, 1_000_000, ""));
        horizontalM.ifPresent(m -> InputFault.within("horizontal", m, 0, 1000, "m"));
        verticalM.ifPresent(m -> InputFault.within("vertical", m, 0, 1000, "m"));
        rmsM.ifPresent(m -> InputFault.within("rms", m, 0, 1000, "m"));
        satellites.ifPresent(n -> InputFault.within("satellites", n, 0, 200, ""));
        poleM.ifPresent(m -> InputFault.within("pole", m, 0, 20, "m"));
        note = note.strip();
    }

    /** The same somewhere else, after a shift. */
    public Observation moved(LonLat to, OptionalDouble up) {
        return new Observation(
                point, at, to, up, epochs, horizontalM, verticalM, rmsM, solution, satellites, poleM, note);
    }

    public Observation named(String other) {
        return new Observation(
                other, at, place, upM, epochs, horizontalM, verticalM, rmsM, solution, satellites, poleM, note);
    }
}

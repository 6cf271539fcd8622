package yalos.core.finding;

import java.util.List;
import java.util.Optional;
import yalos.core.geodesy.PlanePoint;

/**
 * Something a practitioner should know about a plan. Never without a figure.
 *
 * @param level how much it matters
 * @param key names the rule, stable
 * @param sentence one plain sentence with the figures, in the operator's units
 * @param place where it can be seen
 * @param remedies what can be done about it with one press
 */
public record Finding(Level level, String key, String sentence, Optional<PlanePoint> place, List<Remedy> remedies) {

    /** How much a finding matters, the worst first. */
    public enum Level {
        /** Unsafe, unlawful by the operator's own limits, or useless data. */
        STOP("stop"),
        /** A practitioner would think twice. */
        MIND("mind"),
        /** Good to know. */
        NOTE("note");

        private final String word;

        Level(String word) {
            this.word = word;
        }

        /** The word the page and the files use. */
        public String word() {
            return word;
        }
    }

    public Finding {
        remedies = List.copyOf(remedies);
    }
}

package yalos.core.finding;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import yalos.core.geodesy.PlanePoint;

/**
 * Something a practitioner should know about a plan. Never without a figure.
 *
 * @param level how much it matters
 * @param key names the rule, stable
 * @param sentence plain words with the figures, in the operator's units: one line that says it, then what lies behind it
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

    private static final Pattern SENTENCE_END = Pattern.compile("(?<=[.:]) (?=[A-Z“])");

    /** The first sentence: what is the matter, with its figure. */
    public String headline() {
        return SENTENCE_END.split(sentence, 2)[0];
    }

    /** What follows: why, and what it means; empty where the headline says all. */
    public String detail() {
        String[] parts = SENTENCE_END.split(sentence, 2);
        return parts.length < 2 ? "" : parts[1];
    }
}

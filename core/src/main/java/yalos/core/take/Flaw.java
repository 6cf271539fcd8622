package yalos.core.take;

/**
 * What is wrong with a picture.
 *
 * @param figure that says how much, as its kind says
 * @param words one line with the figure first
 */
public record Flaw(Kind kind, double figure, String words) {

    /** The worst first. */
    public enum Kind {
        CUT("picture not complete", true),
        EMPTY("nearly empty", true),
        OVER("too bright", true),
        UNDER("too dark", true),
        FOCUS("out of focus", true),
        MOTION("motion blur", true),
        CLOUD("less light than its neighbours", false),
        PLAIN("little texture", false);

        private final String words;
        private final boolean useless;

        Kind(String words, boolean useless) {
            this.words = words;
            this.useless = useless;
        }

        public String words() {
            return words;
        }

        /** Whether a station with nothing better has to be flown again. */
        public boolean useless() {
            return useless;
        }
    }
}

package yalos.core.accuracy;

/**
 * What a pattern of residuals suggests.
 *
 * @param figure one line, the figure first
 * @param cause what it may come of
 * @param next what would be seen next if it is true
 */
public record Suspicion(Kind kind, String figure, String cause, String next) {

    /** The likeliest to cost the day first. */
    public enum Kind {
        FEET,
        SWAPPED,
        OFFSET,
        SHIFT,
        TURN,
        SCALE,
        TILT,
        DOMING,
        OVERFITTED,
        BLUNDER
    }
}

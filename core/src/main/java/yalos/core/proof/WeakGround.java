package yalos.core.proof;

/**
 * Connected ground that is not given what the brief asks for.
 *
 * @param cause why
 * @param areaM2 its size
 * @param x a place in it, in the block's plane: the worst cell
 * @param y a place in it
 * @param leastPhotos fewest photos that see any of its cells
 * @param cells indexes of its cells in the proof's layers
 */
public record WeakGround(Cause cause, double areaM2, double x, double y, int leastPhotos, int[] cells) {
    /** Why a piece of ground is weak. */
    public enum Cause {
        EDGE("at the edge: no strips beyond it"),
        HIGH_GROUND("high ground: the aircraft is nearer, footprints are smaller"),
        GAPS("strips or stations too far apart"),
        HIDDEN_SIDE("a steep side, hidden behind ground that stands before it"),
        LOW_GROUND("low ground: the aircraft is farther, pixels are larger"),
        WEAK_RAYS("rays too few or too alike to fix the height");

        private final String words;

        Cause(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}

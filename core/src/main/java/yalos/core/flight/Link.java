package yalos.core.flight;

/**
 * A leg of the path on which nothing is mapped.
 *
 * @param kind what it is flown for
 */
public record Link(Kind kind, double fromX, double fromY, double toX, double toY) {
    /** What a leg without photos is flown for. */
    public enum Kind {
        /** From the launch point to the first station. */
        OUT,
        /** From one strip to the next. */
        TURN,
        /** Straight on over a gap in the block, from one strip to the next in line. */
        GAP,
        /** From the last station back to the launch point. */
        HOME
    }

    public double lengthM() {
        return Math.hypot(toX - fromX, toY - fromY);
    }
}

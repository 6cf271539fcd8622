package yalos.core.flight;

/** What flying takes of something that is used up, a second or a metre at a time; see {@link Tally}. */
public interface Effort {
    /** A second of level flight at an airspeed. */
    double level(double airspeedMps);

    /**
     * A second of rising or sinking on the spot.
     *
     * @param climbMps negative where it sinks
     */
    double vertical(double climbMps);

    /** A metre won in height while flying on; nothing is given back for one lost. */
    double perMetreUp();
}

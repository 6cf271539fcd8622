package yalos.core.flight;

/** A piece of a flight. All that can be flown is one of these, so whoever reads a flight can be sure to know them all. */
public sealed interface Leg permits Way, Hover, Climb {

    /** Where it begins. */
    Place start();

    /** Where it ends; the next leg begins there. */
    Place end();
}

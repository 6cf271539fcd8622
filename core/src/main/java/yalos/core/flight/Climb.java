package yalos.core.flight;

import yalos.core.geodesy.PlanePoint;

/**
 * Straight up or down over a place.
 *
 * @param at the place
 * @param fromUpM as {@link Place#upM()}
 * @param toUpM as {@link Place#upM()}; below {@code fromUpM} it sinks
 */
public record Climb(PlanePoint at, double fromUpM, double toUpM) implements Leg {
    @Override
    public Place start() {
        return Place.over(at, fromUpM);
    }

    @Override
    public Place end() {
        return Place.over(at, toUpM);
    }

    /** By how much it rises; negative where it sinks. */
    public double byM() {
        return toUpM - fromUpM;
    }
}

package yalos.core.flight;

/**
 * Standing still in the air.
 *
 * @param place where
 * @param seconds how long
 */
public record Hover(Place place, double seconds) implements Leg {
    @Override
    public Place start() {
        return place;
    }

    @Override
    public Place end() {
        return place;
    }
}

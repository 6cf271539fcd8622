package yalos.core.geodesy;

/** A box with its sides along the axes of a plane, in metres. */
public record Bounds(double west, double east, double south, double north) {
    /** From west to east. */
    public double width() {
        return east - west;
    }

    /** From south to north. */
    public double height() {
        return north - south;
    }

    public PlanePoint middle() {
        return new PlanePoint((west + east) / 2, (south + north) / 2);
    }

    /** The least box round places, as east and north in turn; one without any room where there are none. */
    public static Bounds of(double[] places) {
        Bounds bounds = new Bounds(
                Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY);
        for (int i = 0; i + 1 < places.length; i += 2) {
            bounds = bounds.with(new PlanePoint(places[i], places[i + 1]));
        }
        return bounds;
    }

    public boolean contains(double xM, double yM) {
        return xM >= west && xM <= east && yM >= south && yM <= north;
    }

    /** Wider by so much on each side. */
    public Bounds widened(double byM) {
        return new Bounds(west - byM, east + byM, south - byM, north + byM);
    }

    /** The least box that holds this one and a place. */
    public Bounds with(PlanePoint place) {
        return new Bounds(
                Math.min(west, place.xM()),
                Math.max(east, place.xM()),
                Math.min(south, place.yM()),
                Math.max(north, place.yM()));
    }
}

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

    /** The least box that holds this one and a place. */
    public Bounds with(PlanePoint place) {
        return new Bounds(
                Math.min(west, place.xM()),
                Math.max(east, place.xM()),
                Math.min(south, place.yM()),
                Math.max(north, place.yM()));
    }
}

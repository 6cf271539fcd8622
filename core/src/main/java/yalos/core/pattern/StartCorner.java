package yalos.core.pattern;

import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.PlanePoint;

/** The side of a block at which its main pass begins, where that is not the one nearest to the launch point. */
public enum StartCorner {
    NORTH_EAST("in the north-east", 1, 3),
    SOUTH_EAST("in the south-east", 1, 2),
    SOUTH_WEST("in the south-west", 0, 2),
    NORTH_WEST("in the north-west", 0, 3);

    private final String words;
    private final int east;
    private final int north;

    StartCorner(String words, int east, int north) {
        this.words = words;
        this.east = east;
        this.north = north;
    }

    public String words() {
        return words;
    }

    /** The corner of the block's extent. */
    PlanePoint of(PlaneBlock block) {
        double[] bounds = block.bounds();
        return new PlanePoint(bounds[east], bounds[north]);
    }
}

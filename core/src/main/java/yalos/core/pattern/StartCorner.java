package yalos.core.pattern;

import yalos.core.block.PlaneBlock;
import yalos.core.geodesy.Bounds;
import yalos.core.geodesy.PlanePoint;

/** The side of a block at which its main pass begins, where that is not the one nearest to the launch point. */
public enum StartCorner {
    NORTH_EAST("in the north-east", true, true),
    SOUTH_EAST("in the south-east", true, false),
    SOUTH_WEST("in the south-west", false, false),
    NORTH_WEST("in the north-west", false, true);

    private final String words;
    private final boolean east;
    private final boolean north;

    StartCorner(String words, boolean east, boolean north) {
        this.words = words;
        this.east = east;
        this.north = north;
    }

    public String words() {
        return words;
    }

    /** The corner of the block's extent. */
    PlanePoint of(PlaneBlock block) {
        Bounds bounds = block.bounds();
        return new PlanePoint(east ? bounds.east() : bounds.west(), north ? bounds.north() : bounds.south());
    }
}

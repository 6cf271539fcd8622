package yalos.core.height;

import static yalos.core.fault.InputFault.within;

/**
 * How high to fly over uneven ground.
 *
 * @param reference what is kept constant
 * @param plane from which a level height is measured
 * @param clearanceM least distance to ground below the path, and to obstacles below and beside it
 * @param smoothingM length over which a followed ground is evened out
 */
public record HeightChoice(HeightReference reference, DesignPlane plane, double clearanceM, double smoothingM) {
    /** The ground followed, with 20 m to spare, evened out over 40 m (common practice). */
    public static final HeightChoice USUAL = new HeightChoice(HeightReference.FOLLOW, DesignPlane.BOTH, 20, 40);

    public HeightChoice {
        within("clearanceM", clearanceM, 1, 500, "m");
        within("smoothingM", smoothingM, 0, 1000, "m");
    }

    /** The same choice with something else kept constant. */
    public HeightChoice with(HeightReference other) {
        return new HeightChoice(other, plane, clearanceM, smoothingM);
    }
}

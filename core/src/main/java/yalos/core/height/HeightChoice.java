package yalos.core.height;

import static yalos.core.fault.InputFault.within;

/**
 * How high to fly over uneven ground.
 *
 * @param reference what is kept constant
 * @param plane from which a level height is measured
 * @param clearanceM least distance to ground below the path, and to obstacles below and beside it
 * @param smoothingM length over which a followed ground is evened out
 * @param modelSigmaM standard deviation of the model's heights as its maker states it; 0 takes them as exact
 */
public record HeightChoice(
        HeightReference reference, DesignPlane plane, double clearanceM, double smoothingM, double modelSigmaM) {
    /** Ground to both sides of the path that counts as beneath it. */
    static final double CORRIDOR_M = 10;

    /** So many standard deviations are allowed for: of a hundred places two or three are higher still (normal distribution). */
    private static final double ALLOWED_SIGMAS = 2;

    /** The ground followed, with 20 m to spare, evened out over 40 m (common practice). */
    public static final HeightChoice USUAL = new HeightChoice(HeightReference.FOLLOW, DesignPlane.BOTH, 20, 40);

    public HeightChoice {
        within("clearanceM", clearanceM, 1, 500, "m");
        within("smoothingM", smoothingM, 0, 1000, "m");
        within("modelSigmaM", modelSigmaM, 0, 100, "m");
    }

    /** Over a model whose heights are taken as exact. */
    public HeightChoice(HeightReference reference, DesignPlane plane, double clearanceM, double smoothingM) {
        this(reference, plane, clearanceM, smoothingM, 0);
    }

    /** Kept above the heights of the model, so that the clearance is kept above the true ground: widened by twice the model's error. */
    public double keptM() {
        return clearanceM + ALLOWED_SIGMAS * modelSigmaM;
    }

    /**
     * How near to a step of the path an obstacle counts as beneath it: within the corridor, and within the clearance to the side as
     * well as above. Both steps round it see it.
     */
    public double reachM(double stepM) {
        return Math.hypot(Math.max(CORRIDOR_M, clearanceM), stepM);
    }

    /** The same choice with something else kept constant. */
    public HeightChoice with(HeightReference other) {
        return new HeightChoice(other, plane, clearanceM, smoothingM, modelSigmaM);
    }

    /** The same choice measured from another plane. */
    public HeightChoice with(DesignPlane other) {
        return new HeightChoice(reference, other, clearanceM, smoothingM, modelSigmaM);
    }

    /** The same choice with another clearance. */
    public HeightChoice withClearance(double otherM) {
        return new HeightChoice(reference, plane, otherM, smoothingM, modelSigmaM);
    }

    /** The same choice, the ground evened out over another length. */
    public HeightChoice withSmoothing(double otherM) {
        return new HeightChoice(reference, plane, clearanceM, otherM, modelSigmaM);
    }

    /** The same choice over a model of another accuracy. */
    public HeightChoice withModelSigma(double otherM) {
        return new HeightChoice(reference, plane, clearanceM, smoothingM, otherM);
    }
}

package yalos.core.control;

import static yalos.core.fault.InputFault.within;

/**
 * What is taken for granted when a block's accuracy is foretold and its points are walked; the operator's to change.
 *
 * @param tiesPerPhoto tie points that matching finds in a photo of well-textured ground, spread evenly
 * @param imagePx error of a tie point's and a mark's image, one standard deviation in pixels
 * @param horizontalM how well a target's position is measured along each axis, one standard deviation
 * @param verticalM how well its height is measured
 * @param freeLens whether focal length, principal point and radial term are solved with the photos
 * @param epochs of one second at each point
 * @param walkMps how fast the crew walks on level ground
 * @param closedTour whether the walk ends where it began
 * @param steepestRad ground steeper than this takes no target
 */
public record Assumptions(
        double tiesPerPhoto,
        double imagePx,
        double horizontalM,
        double verticalM,
        boolean freeLens,
        int epochs,
        double walkMps,
        boolean closedTour,
        double steepestRad) {
    /** Common practice: 12 well-spread points a photo, half a pixel, 1.5 and 2.5 cm by satellite receiver, lens solved with the photos. */
    public static final Assumptions USUAL =
            new Assumptions(12, 0.5, 0.015, 0.025, true, 30, 1.1, true, Math.toRadians(20));

    /** So few ties hold a photo still. */
    private static final double FEWEST_TIES = 4;

    /**
     * The same over a surface that gives fewer tie points than a well-textured one.
     *
     * @param share of them that it gives, 0..1
     */
    public Assumptions over(double share) {
        return new Assumptions(
                Math.max(FEWEST_TIES, tiesPerPhoto * share),
                imagePx,
                horizontalM,
                verticalM,
                freeLens,
                epochs,
                walkMps,
                closedTour,
                steepestRad);
    }

    public Assumptions {
        within("ties", tiesPerPhoto, FEWEST_TIES, 60, "");
        within("imagePx", imagePx, 0.05, 5, "px");
        within("horizontal", horizontalM, 0.0005, 5, "m");
        within("vertical", verticalM, 0.0005, 5, "m");
        within("epochs", epochs, 1, 7200, "");
        within("walk", walkMps, 0.2, 3, "m/s");
        within("slope", steepestRad, Math.toRadians(1), Math.toRadians(60), "rad");
    }
}

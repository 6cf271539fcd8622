package yalos.core.proof;

import java.util.OptionalDouble;
import yalos.core.kit.Positioning;

/**
 * What a result is good to at best, by its GSD and by how the positions of its photos are known, one standard deviation (common practice).
 * Rays alone promise more, since they take orientations as known and every texture as good.
 */
public final class RuleOfThumb {
    /** Positions come out no better than so many GSDs. */
    public static final double POSITION_GSDS = 1;
    /** Heights come out no better than so many GSDs. */
    public static final double HEIGHT_GSDS = 1.5;

    private RuleOfThumb() {}

    /**
     * The coarsest GSD in metres that is good enough; empty where the positions of the photos alone forbid it.
     *
     * @param gsds that a result is good to at best
     * @param askedM standard deviation asked for
     * @param photosM that of the photos' positions
     */
    public static OptionalDouble gsdM(double gsds, double askedM, double photosM) {
        double left = askedM * askedM - photosM * photosM;
        return left > 0 ? OptionalDouble.of(Math.sqrt(left) / gsds) : OptionalDouble.empty();
    }

    /** Of a position along each axis of the plane, in metres; both errors add up as independent ones do. */
    public static double positionM(double gsdM, Positioning mode) {
        return Math.hypot(POSITION_GSDS * gsdM, mode.horizontalM());
    }

    /** Of a height, in metres. */
    public static double heightM(double gsdM, Positioning mode) {
        return Math.hypot(HEIGHT_GSDS * gsdM, mode.verticalM());
    }
}

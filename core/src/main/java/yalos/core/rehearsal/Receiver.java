package yalos.core.rehearsal;

import java.util.Random;
import yalos.core.kit.Positioning;

/** What the aircraft knows of where it is: satellites, kind of solution, and an error that wanders slowly, as large as the mode allows (common practice). */
final class Receiver {
    private static final double MEMORY_S = 30;
    private static final int USUAL_SATELLITES = 17;

    /** Kinds of solution. */
    enum Solution {
        FIXED,
        FLOAT,
        SINGLE,
        NONE
    }

    private final double keeps;
    private final double stirs;
    private final boolean corrected;
    private double errorX;
    private double errorY;
    private double errorUp;
    private double seen = USUAL_SATELLITES;
    private Solution solution;

    Receiver(Positioning mode, double stepS) {
        this.keeps = Math.exp(-stepS / MEMORY_S);
        this.stirs = Math.sqrt(1 - keeps * keeps);
        this.corrected = mode != Positioning.SINGLE && mode != Positioning.CONTROL;
        this.solution = corrected ? Solution.FIXED : Solution.SINGLE;
    }

    /**
     * @param lost whether hardly any satellite is received
     * @param base whether the base works, or the network
     */
    void step(Random random, boolean lost, boolean base) {
        double a = random.nextGaussian();
        double b = random.nextGaussian();
        double c = random.nextGaussian();
        double d = random.nextGaussian();
        seen += 0.02 * ((lost ? 3 : USUAL_SATELLITES) - seen) * (lost ? 4 : 1) + 0.05 * d;
        boolean few = seen < 6;
        solution = few
                ? Solution.NONE
                : !corrected ? Solution.SINGLE : base ? (seen < 10 ? Solution.FLOAT : Solution.FIXED) : Solution.FLOAT;
        errorX = keeps * errorX + stirs * horizontalM() * a;
        errorY = keeps * errorY + stirs * horizontalM() * b;
        errorUp = keeps * errorUp + stirs * verticalM() * c;
    }

    int satellites() {
        return (int) Math.max(0, Math.round(seen));
    }

    Solution solution() {
        return solution;
    }

    /** One standard deviation along each axis, in metres. */
    double horizontalM() {
        return switch (solution) {
            case FIXED -> Positioning.RTK_BASE.horizontalM();
            case FLOAT -> 0.4;
            case SINGLE -> Positioning.SINGLE.horizontalM();
            case NONE -> 20;
        };
    }

    double verticalM() {
        return switch (solution) {
            case FIXED -> Positioning.RTK_BASE.verticalM();
            case FLOAT -> 0.8;
            case SINGLE -> Positioning.SINGLE.verticalM();
            case NONE -> 30;
        };
    }

    double errorX() {
        return errorX;
    }

    double errorY() {
        return errorY;
    }

    double errorUp() {
        return errorUp;
    }
}

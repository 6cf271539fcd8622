package yalos.core.rehearsal;

import java.util.Random;

/**
 * Wind with gusts: a steady part, and two components that wander about it, each a first-order process of its own
 * ({@code g' = g e^(-dt/T) + s sqrt(1 - e^(-2dt/T)) n}), which is the simplest of the usual turbulence spectra (textbook, from memory).
 */
final class Air {
    /** Seconds after which a gust has half forgotten itself, about 30 m of air at 10 m/s (common practice). */
    private static final double MEMORY_S = 3;

    private final double steadyX;
    private final double steadyY;
    private final double keeps;
    private final double stirs;
    private double gustX;
    private double gustY;

    /**
     * @param toX steady wind, the way it blows, grid east
     */
    Air(double toX, double toY, double stepS) {
        this.steadyX = toX;
        this.steadyY = toY;
        this.keeps = Math.exp(-stepS / MEMORY_S);
        this.stirs = Math.sqrt(1 - keeps * keeps);
    }

    /**
     * @param sigma of each component, in metres a second
     */
    void step(Random random, double sigma) {
        gustX = keeps * gustX + stirs * sigma * random.nextGaussian();
        gustY = keeps * gustY + stirs * sigma * random.nextGaussian();
    }

    double x() {
        return steadyX + gustX;
    }

    double y() {
        return steadyY + gustY;
    }

    double gustX() {
        return gustX;
    }

    double gustY() {
        return gustY;
    }

    double speed() {
        return Math.hypot(x(), y());
    }
}

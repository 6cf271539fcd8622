package yalos.core.rehearsal;

/**
 * How far an aircraft is off its path: gusts push it, its control brings it back as a critically damped oscillator; without satellites nothing does, and it drifts with the wind. And what it was nudged aside.
 */
final class Motion {
    private static final double HELD_RAD_S = 1.2;
    /** Acceleration for a metre a second of air that moves past it, and how quickly drag takes it along. */
    private static final double PUSHED = 0.35;
    /** Metres it moves aside in a step when it is nudged: a metre a second. */
    private static final double NUDGE_M = SimulatedFlight.STEP_S;

    private double offX;
    private double offY;
    private double speedX;
    private double speedY;
    private double nudgedX;
    private double nudgedY;
    private double wantedX;
    private double wantedY;

    /**
     * A step.
     *
     * @param blind whether it does not know where it is
     * @param nudging whether it may be moved aside now
     */
    void step(Air air, boolean blind, boolean nudging) {
        double ax = PUSHED * air.gustX();
        double ay = PUSHED * air.gustY();
        if (blind) {
            ax += PUSHED * (air.x() - air.gustX() - speedX);
            ay += PUSHED * (air.y() - air.gustY() - speedY);
        } else {
            ax -= HELD_RAD_S * HELD_RAD_S * offX + 2 * HELD_RAD_S * speedX;
            ay -= HELD_RAD_S * HELD_RAD_S * offY + 2 * HELD_RAD_S * speedY;
        }
        speedX += ax * SimulatedFlight.STEP_S;
        speedY += ay * SimulatedFlight.STEP_S;
        offX += speedX * SimulatedFlight.STEP_S;
        offY += speedY * SimulatedFlight.STEP_S;
        if (nudging) {
            double x = Math.max(-NUDGE_M, Math.min(NUDGE_M, wantedX));
            double y = Math.max(-NUDGE_M, Math.min(NUDGE_M, wantedY));
            wantedX -= x;
            wantedY -= y;
            nudgedX += x;
            nudgedY += y;
        }
    }

    void nudge(double rightM, double aheadM) {
        wantedX += rightM;
        wantedY += aheadM;
    }

    /** It stands; where it was nudged to, it stays. */
    void stand() {
        offX = 0;
        offY = 0;
        speedX = 0;
        speedY = 0;
    }

    /** It begins anew at its launch point. */
    void anew() {
        stand();
        nudgedX = 0;
        nudgedY = 0;
        wantedX = 0;
        wantedY = 0;
    }

    /** Off its path, grid east. */
    double x() {
        return offX + nudgedX;
    }

    double y() {
        return offY + nudgedY;
    }

    /** Speed over the ground besides that along the path, grid east. */
    double speedX() {
        return speedX;
    }

    double speedY() {
        return speedY;
    }

    /** How far it was moved aside. */
    double nudgedM() {
        return Math.hypot(nudgedX, nudgedY);
    }
}

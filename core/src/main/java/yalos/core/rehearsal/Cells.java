package yalos.core.rehearsal;

import yalos.core.sortie.Draw;

/** The battery as it is used up: what {@link Draw} says for the airspeed that is really flown, over what this battery holds. */
final class Cells {
    /** A battery that is weaker than it says gives so much less for what it loses. */
    private static final double WEAK = 2.4;

    private final Draw draw;
    private final double holds;
    private final double full;
    private double charge;

    /**
     * @param full at take-off, 0..1
     * @param holds over a full one of the kit at 20 °C
     */
    Cells(Draw draw, double full, double holds) {
        this.draw = draw;
        this.holds = holds;
        this.full = full;
        this.charge = full;
    }

    /** Another one, as full as the first was. */
    void change() {
        charge = full;
    }

    double charge() {
        return charge;
    }

    /** What so much of a full one of the kit is of this one, 0..1. */
    double share(double ofFull, boolean weak) {
        return ofFull * (weak ? WEAK : 1) / holds;
    }

    /** A second of hanging in so much wind. */
    double hangs(double windMps, boolean weak) {
        return share(Math.max(draw.vertical(0), draw.level(windMps)), weak);
    }

    /** A step of rising or sinking on the spot. */
    void climb(double mps, boolean weak) {
        use(draw.vertical(mps) * SimulatedFlight.STEP_S, weak);
    }

    /**
     * A step of flying, or of hanging.
     *
     * @param still whether it hangs over one place
     * @param risenM metres won in it
     */
    void fly(double airspeedMps, boolean still, double risenM, boolean weak) {
        double second = still ? Math.max(draw.vertical(0), draw.level(airspeedMps)) : draw.level(airspeedMps);
        use(second * SimulatedFlight.STEP_S + (still ? 0 : Math.max(0, risenM) * draw.perMetreUp()), weak);
    }

    private void use(double ofFull, boolean weak) {
        charge = Math.max(0, charge - share(ofFull, weak));
    }
}

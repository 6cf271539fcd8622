package yalos.core.energy;

import static yalos.core.fault.InputFault.within;

/**
 * A multirotor in level flight through still air by momentum theory (Leishman, Principles of Helicopter Aerodynamics, from memory). All rotors together, an induced factor of 1, the
 * speed of the blade tips held constant.
 *
 * @param massKg with everything on board
 * @param rotors how many
 * @param radiusM of each
 * @param densityKgM3 of the air
 * @param dragAreaM2 drag coefficient times area of the body
 * @param solidity blade area over disc area
 * @param cd0 profile drag of the blades
 * @param tipMps speed of the blade tips
 */
public record RotorCraft(
        double massKg,
        int rotors,
        double radiusM,
        double densityKgM3,
        double dragAreaM2,
        double solidity,
        double cd0,
        double tipMps) {
    /** Standard gravity. */
    static final double G = 9.80665;

    private static final double FASTEST_MPS = 120;
    private static final double ADVANCE = 4.65;

    public RotorCraft {
        within("mass", massKg, 0.05, 1000, "kg");
        within("rotors", rotors, 1, 32, "");
        within("radius", radiusM, 0.02, 10, "m");
        within("density", densityKgM3, 0.2, 2, "kg/m³");
    }

    /** Power at a speed in its parts, in watts. */
    public record Power(double inducedMps, double inducedW, double parasiteW, double profileW) {
        public double totalW() {
            return inducedW + parasiteW + profileW;
        }
    }

    public double discAreaM2() {
        return rotors * Math.PI * radiusM * radiusM;
    }

    /** At an airspeed in level flight. */
    public Power at(double airspeedMps) {
        double weight = massKg * G;
        double drag = densityKgM3 / 2 * airspeedMps * airspeedMps * dragAreaM2;
        double thrust = Math.hypot(weight, drag);
        double tilt = Math.atan2(drag, weight);
        double through = airspeedMps * Math.sin(tilt);
        double across = airspeedMps * Math.cos(tilt);
        double hover = thrust / (2 * densityKgM3 * discAreaM2());
        // Momentum through the disc: it falls from hover as the disc meets more air.
        double induced = Minimum.root(v -> v * Math.hypot(across, through + v) - hover, 0, Math.sqrt(hover) + 1);
        double advance = across / tipMps;
        double profile = solidity
                * cd0
                / 8
                * (1 + ADVANCE * advance * advance)
                * densityKgM3
                * discAreaM2()
                * Math.pow(tipMps, 3);
        return new Power(induced, thrust * induced, drag * airspeedMps, profile);
    }

    /** Airspeed of least power: of longest endurance. */
    public double slowestPowerMps() {
        return Minimum.at(v -> at(v).totalW(), 0, FASTEST_MPS);
    }

    /** Airspeed of least energy for a distance: of longest range. */
    public double bestRangeMps() {
        return Minimum.at(v -> at(v).totalW() / v, 0.1, FASTEST_MPS);
    }
}
